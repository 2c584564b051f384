package bake.desktop.station.prove;

import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.work.EffortHand;
import bake.formats.project.EffortSpec;
import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.VBox;

/** More, or less, for single things: samples, finer edges, fewer reflections. */
final class EffortCard extends VBox {
    private static final List<String> KINDS = List.of("material", "object", "layer", "lamp");
    private final EffortHand hand;
    private String kind = "material", name;

    EffortCard(ProveWork work) {
        super(7);
        hand = work.models().efforts();
        setId("effort-card");
        getStyleClass().add("card");
        work.document().projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.efforts() != b.efforts()) refresh();
        });
        work.models().factsProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        getChildren().setAll(Ui.row(Ui.label("More for single things", "card-title")));
        int n = 0;
        for (EffortSpec e : hand.all()) getChildren().add(entry(e, n++));
        if (hand.all().isEmpty()) getChildren().add(Ui.note("Such as four paths at the edges of a blind, or two reflections for a facade of glass."));
        ComboBox<String> what = new ComboBox<>(), which = new ComboBox<>();
        what.setId("effort-kind");
        what.getItems().setAll(KINDS);
        what.getSelectionModel().select(kind);
        what.setOnAction(e -> {
            kind = what.getValue();
            name = null;
            refresh();
        });
        which.setId("effort-name");
        which.getItems().setAll(hand.names(kind));
        which.setPromptText("which one");
        which.setMaxWidth(150);
        which.setOnAction(e -> {
            name = which.getValue();
            if (name != null) hand.change(kind, name, s -> s.usual() ? s.withSamples(2) : s);
        });
        getChildren().add(Ui.row(what, which));
    }

    /** One thing, with what it gets; an empty field is as for all. */
    private VBox entry(EffortSpec e, int n) {
        boolean lamp = e.of().equals("lamp");
        VBox box = new VBox(3, Ui.row(Ui.label(e.of() + " " + e.name(), "line-name"), Ui.spring(), Ui.button("effort-remove-" + n, "Remove",
                "As for all else", () -> hand.remove(e), "small")));
        box.getChildren().add(Ui.row(Ui.label("Samples", "note"), field("effort-samples-" + n, e, e.samples(), EffortSpec::withSamples)));
        if (!lamp) ((javafx.scene.layout.HBox) box.getChildren().get(1)).getChildren().addAll(Ui.label("at edges", "note"),
                field("effort-edges-" + n, e, e.edges(), EffortSpec::withEdges), Ui.label("reflections", "note"),
                field("effort-reflections-" + n, e, e.reflections(), EffortSpec::withReflections));
        return box;
    }

    private Field field(String id, EffortSpec e, Integer now, BiFunction<EffortSpec, Integer, EffortSpec> set) {
        boolean reflections = id.contains("reflections");
        Field f = new Field(id, 34, t -> {
            Integer v = null;
            if (!t.isEmpty()) {
                if (!t.matches("\\d{1,4}")) throw new IllegalArgumentException("A number, or nothing for as all else is");
                v = Integer.parseInt(t);
                if (reflections ? v > 1000 : v < 1 || v > 16)
                    throw new IllegalArgumentException(reflections ? "0 to 1000 reflections" : "1 to 16 paths a pass");
            }
            Integer x = v;
            hand.change(e.of(), e.name(), s -> set.apply(s, x));
        });
        f.show(now == null ? "" : String.format(Locale.ROOT, "%d", now));
        return f;
    }
}
