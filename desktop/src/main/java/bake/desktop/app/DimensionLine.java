package bake.desktop.app;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.ModelFacts;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.plan.Plan;
import java.util.EnumMap;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;

/** The way through the stations, drawn as a dimension line: ticks between them, thick where one stands. */
final class DimensionLine extends HBox {
    /** Height of the track at the usual size of texts. */
    private static final double TRACK = 58;
    private final Workbench bench;
    private final Map<Station, Label> facts = new EnumMap<>(Station.class);
    private final Map<Station, Button> names = new EnumMap<>(Station.class);
    private final Line line = new Line();
    private final Rectangle here = new Rectangle(0, 6);
    private final Line[] ticks = new Line[Station.values().length + 1];
    private final Label project = Ui.label("", "project-name"), view = Ui.label("", "view-name");

    DimensionLine(Workbench bench) {
        this.bench = bench;
        getStyleClass().add("dimension-line");
        setAlignment(Pos.CENTER_LEFT);
        Label bake = Ui.label("Bake", "brand");
        VBox title = new VBox(3, Ui.row(bake, project), view);
        title.setAlignment(Pos.CENTER_LEFT);
        title.setPrefWidth(205);
        title.setMinWidth(150);
        Pane track = track();
        HBox.setHgrow(track, Priority.ALWAYS);
        ToggleButton region = new ToggleButton("Region");
        region.setId("region");
        region.setTooltip(Ui.tip("Render only a part: drag it on the picture, or set it with the arrow keys there. Click again for the whole picture."));
        region.selectedProperty().bindBidirectional(bench.prover().markingProperty());
        Button proof = Ui.button("proof", "Proof  F5", "Make a proof of this view with the chosen preset", () -> {
            if (bench.prover().runningProperty().get()) bench.prover().stop();
            else bench.prover().start();
        }, "main-action");
        bench.prover().runningProperty().addListener((o, a, b) -> proof.setText(b ? "Stop, keep" : "Proof  F5"));
        proof.disableProperty().bind(bench.viewProperty().isNull());
        region.disableProperty().bind(bench.viewProperty().isNull());
        region.setMinWidth(USE_PREF_SIZE);
        HBox actions = Ui.row(region, proof);
        actions.setPadding(new javafx.geometry.Insets(0, 0, 0, 18));
        getChildren().addAll(title, track, actions);
        bench.stationProperty().addListener((o, a, b) -> refresh());
        bench.projectProperty().addListener((o, a, b) -> refresh());
        bench.viewProperty().addListener((o, a, b) -> refresh());
        bench.document().changedProperty().addListener((o, a, b) -> refresh());
        bench.models().factsProperty().addListener((o, a, b) -> refresh());
        bench.lighting().openings().bareProperty().addListener((o, a, b) -> refresh());
        bench.prints().all().addListener((javafx.collections.ListChangeListener<Object>) c -> refresh());
        bench.finals().runningProperty().addListener((o, a, b) -> refresh());
        bench.finals().plan().planProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private Pane track() {
        Pane p = new Pane() {
            @Override
            protected void layoutChildren() {
                place(getWidth(), getHeight());
            }
        };
        p.setMinWidth(440);
        p.setStyle("-fx-pref-height: " + TRACK / 13 + "em;");
        line.getStyleClass().add("dim-rule");
        here.getStyleClass().add("dim-here");
        p.getChildren().addAll(line, here);
        for (int i = 0; i < ticks.length; i++) {
            ticks[i] = new Line();
            ticks[i].getStyleClass().add("dim-rule");
            p.getChildren().add(ticks[i]);
        }
        int k = 1;
        for (Station s : Station.values()) {
            Button b = Ui.button("station-" + s.name().toLowerCase(java.util.Locale.ROOT), s.title(), "Ctrl+" + k++,
                    () -> bench.stationProperty().set(s), "station");
            Label f = Ui.label("", "station-fact");
            names.put(s, b);
            facts.put(s, f);
            p.getChildren().addAll(b, f);
        }
        return p;
    }

    private void place(double w, double h) {
        // Heights go with the size of texts.
        double k = h / TRACK, x0 = 10, x1 = w - 10, y = 36 * k, step = (x1 - x0) / Station.values().length;
        line.setStartX(x0);
        line.setEndX(x1);
        line.setStartY(y);
        line.setEndY(y);
        for (int i = 0; i < ticks.length; i++) {
            double x = x0 + i * step;
            ticks[i].setStartX(x - 5);
            ticks[i].setEndX(x + 5);
            ticks[i].setStartY(y + 5);
            ticks[i].setEndY(y - 5);
        }
        for (Station s : Station.values()) {
            double x = x0 + s.ordinal() * step;
            Button b = names.get(s);
            b.resizeRelocate(x + 6, 4 * k, step - 12, 27 * k);
            Label f = facts.get(s);
            f.resizeRelocate(x + 3, 41 * k, step - 6, 15 * k);
            if (s == bench.stationProperty().get()) {
                here.setX(x);
                here.setWidth(step);
                here.setY(y - 3);
            }
        }
    }

    private void refresh() {
        var p = bench.project();
        project.setText(p == null ? "" : p.name() + (bench.document().changedProperty().get() ? " \u2022" : ""));
        view.setText(p == null ? "no project" : bench.view() == null ? "no view" : bench.view().name());
        ModelFacts f = bench.models().factsProperty().get();
        fact(Station.MODEL, p == null ? "open a model" : Texts.count(f.unique()) + " triangles", p == null);
        String around = bench.view() == null ? "" : bench.view().around().kind();
        int bare = bench.view() == null || !"interior".equals(bench.view().setting()) ? 0
                : bench.lighting().openings().bareProperty().get().size();
        fact(Station.LIGHT, bare == 0 ? around : bare + (bare == 1 ? " opening, no portal" : " openings, no portal"), bare > 0);
        int n = p == null ? 0 : p.views().size();
        fact(Station.VIEW, n + (n == 1 ? " view" : " views"), p != null && n == 0);
        int k = bench.prints().all().size();
        fact(Station.PROVE, k == 0 ? "no proof yet" : k + (k == 1 ? " proof" : " proofs"), false);
        Plan plan = bench.finals().plan().planProperty().get();
        // A chance that does not count all pictures is none.
        if (bench.finals().plan().unknown() > 0) plan = null;
        boolean late = plan != null && plan.chance() < 0.5;
        fact(Station.FINALS, p == null || p.due() == null ? "no due time" : "due " + Texts.due(p.due()) + (plan == null ? "" : late
                ? ", too late" : String.format(java.util.Locale.ROOT, ", %.0f %%", 100 * plan.chance())), p != null && (p.due() == null || late));
        names.forEach((s, b) -> {
            b.getStyleClass().remove("station-here");
            if (s == bench.stationProperty().get()) b.getStyleClass().add("station-here");
        });
        requestLayout();
        if (line.getParent() != null) ((Pane) line.getParent()).requestLayout();
    }

    private void fact(Station s, String text, boolean needsHand) {
        Label l = facts.get(s);
        l.setText(text);
        l.getStyleClass().remove("needs-hand");
        if (needsHand) l.getStyleClass().add("needs-hand");
    }
}
