package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.work.Workbench;
import bake.studio.queue.QueueEntry;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** What the delivery is handed over with. */
final class ReportCard extends VBox {
    ReportCard(Workbench bench) {
        super(7);
        setId("report-card");
        getStyleClass().add("card");
        Label note = Ui.note("");
        Button write = Ui.button("finals-report", "Write the report", "A page, a PDF and an archive with all pictures and their sums, beside the finals",
                () -> bench.finals().queue().report(), "small");
        getChildren().addAll(Ui.row(Ui.label("Report", "card-title")), note, Ui.row(write));
        Runnable fill = () -> {
            long done = bench.finals().rows().stream().filter(r -> r.entry() != null && r.entry().state() == QueueEntry.State.DONE).count();
            write.setDisable(done == 0);
            note.setText(done == 0 ? "When finals are done: a page, a PDF and an archive, with settings, times and sums."
                    : done + (done == 1 ? " picture is" : " pictures are") + " done and would be in it.");
        };
        bench.finals().rows().addListener((ListChangeListener<Object>) c -> fill.run());
        fill.run();
    }
}
