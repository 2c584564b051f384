package bake.desktop.station.model;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.ModelPicks;
import bake.studio.live.Spots;
import bake.studio.scene.SceneAssembly;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.VBox;

/** What was clicked on the picture, a file to put in its place, and the measure. */
final class PickedCard extends VBox {
    private final ModelWork work;
    private final ModelPicks picks;

    PickedCard(ModelWork work) {
        super(7);
        this.work = work;
        picks = work.models().picks();
        setId("picked");
        getStyleClass().add("card");
        picks.toolProperty().addListener((o, a, b) -> refresh());
        picks.pickedProperty().addListener((o, a, b) -> refresh());
        picks.measuredProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        ToggleButton measure = new ToggleButton("Measure");
        measure.setId("measure");
        measure.getStyleClass().add("small");
        measure.setTooltip(Ui.tip("Two clicks on the picture: how far apart they are"));
        measure.setSelected(picks.toolProperty().get() == ModelPicks.Tool.MEASURE);
        measure.setOnAction(e -> picks.toolProperty().set(measure.isSelected() ? ModelPicks.Tool.MEASURE : ModelPicks.Tool.PICK));
        getChildren().setAll(Ui.row(Ui.label("On the picture", "card-title"), Ui.spring(), measure));
        switch (picks.toolProperty().get()) {
            case MEASURE -> measure();
            case PLACE -> getChildren().add(hint("Click where the file's origin goes; Escape cancels."));
            default -> picked();
        }
    }

    private static Label hint(String t) {
        Label l = Ui.note(t);
        l.getStyleClass().add("needs-hand");
        return l;
    }

    private void measure() {
        if (Double.isNaN(picks.distance()))
            getChildren().add(hint(picks.measuredProperty().get().isEmpty() ? "Click where it begins." : "Click where it ends."));
        else getChildren().add(Ui.line("Distance", Ui.label(String.format(Locale.ROOT, "%.3f m", picks.distance()), "figure")));
    }

    private void picked() {
        Spots.Place p = picks.pickedProperty().get();
        if (p == null) {
            getChildren().add(Ui.note("Click a thing in the picture: what it is, what it is made of, and what could stand in its place."));
            return;
        }
        SceneAssembly.Copies c = work.models().factsProperty().get().objects().get(p.object());
        getChildren().addAll(Ui.line("Object", Ui.label(p.object(), "line-name")), Ui.line("Material", Ui.label(p.material(), "line-name")));
        if (c != null) getChildren().add(Ui.line("Copies, triangles", Ui.label(c.copies() + ", " + Texts.count(c.triangles()), "figure")));
        work.models().factsProperty().get().materials().stream().filter(m -> m.name().equals(p.material())).findFirst()
                .ifPresent(m -> getChildren().add(Ui.more("picked-more", new SurfaceEditor(work.models(), m, work.own(m.name())))));
        getChildren().add(Ui.row(Ui.button("swap", "Swap for a file\u2026",
                "Another model stands in its place, and in those of all its copies: plain furniture for better",
                () -> ModelDialogs.ask(getScene(), "Choose what stands in its place", f -> work.models().swap(p.object(), f)), "small"),
                Ui.button("report-light", "Light in the report", "How much light falls here is said in the delivery's report, for each view",
                        () -> work.finals().measure(p), "small")));
    }
}
