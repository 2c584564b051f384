package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.formats.project.DeliverySpec;
import bake.studio.queue.QueueEntry;
import java.util.List;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** What the delivery is handed over with. */
final class ReportCard extends VBox {
    ReportCard(FinalsWork work) {
        super(7);
        setId("report-card");
        getStyleClass().add("card");
        Label note = Ui.note("");
        Button write = Ui.button("finals-report", "Write the report", "A page, a PDF and an archive with all pictures and their sums, beside the finals",
                () -> work.finals().queue().report(), "small");
        VBox points = new VBox(4);
        getChildren().addAll(Ui.row(Ui.label("Report", "card-title")), note, points, Ui.row(write));
        Runnable fill = () -> {
            long done = work.finals().rows().stream().filter(r -> r.entry() != null && r.entry().state() == QueueEntry.State.DONE).count();
            write.setDisable(done == 0);
            note.setText(done == 0 ? "When finals are done: a page, a PDF and an archive, with settings, times and sums."
                    : done + (done == 1 ? " picture is" : " pictures are") + " done and would be in it.");
        };
        work.document().projectProperty().addListener((o, a, b) -> points(work, points));
        points(work, points);
        work.finals().rows().addListener((ListChangeListener<Object>) c -> fill.run());
        fill.run();
    }

    /** Places whose light the report says. */
    private static void points(FinalsWork work, VBox box) {
        Ui.refill(box, () -> {
            box.getChildren().clear();
            List<DeliverySpec.Point> all = work.finals().delivery().points();
            if (work.document().project() == null) return;
            if (all.isEmpty()) box.getChildren().add(Ui.note("It can say how much light falls on places: at Model, click one and take it into the report."));
            for (int i = 0; i < all.size(); i++) {
                DeliverySpec.Point p = all.get(i);
                box.getChildren().add(Ui.line("Light on " + p.name(),
                        Ui.button("point-out-" + i, "Leave out", null, () -> work.finals().change(
                        d -> d.withPoints(all.stream().filter(x -> x != p).toList())), "small")));
            }
        });
    }
}
