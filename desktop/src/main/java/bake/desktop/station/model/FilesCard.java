package bake.desktop.station.model;

import bake.desktop.parts.Dial;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.desktop.text.Texts;
import bake.desktop.work.ModelFacts;
import bake.formats.model.Finding;
import bake.formats.project.Project;
import bake.studio.project.ModelStore;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The files of a project: how large they are, in which unit and with which axis up they are read, and newer ones in their place. */
final class FilesCard {
    private static final String GIVEN = "as given";
    private static final List<String> UNITS = List.of(GIVEN, "m", "cm", "mm", "ft", "in"), UP = List.of(GIVEN, "y up", "z up"),
            BY = List.of("node", "material", "file");
    private static final double[] METRES = {0, 1, 0.01, 0.001, 0.3048, 0.0254};

    private final ModelWork work;

    FilesCard(ModelWork work) {
        this.work = work;
    }

    VBox card() {
        ModelFacts f = work.models().factsProperty().get();
        VBox card = Ui.card("Files", null);
        ((HBox) card.getChildren().getFirst()).getChildren().add(Ui.button("add-file", "Add a file\u2026",
                "A further model in the same scene, such as furniture or trees",
                () -> ModelDialogs.ask(card.getScene(), "Choose a further model", work.models()::add), "small"));
        List<Project.ModelRef> models = work.document().project().models();
        for (int i = 0; i < models.size(); i++) file(card, models.get(i), i);
        if (!work.document().project().shapes().isEmpty())
            card.getChildren().add(figure("shapes of the project", Integer.toString(work.document().project().shapes().size())));
        if (f.size() != null) card.getChildren()
                .add(figure("Size", String.format(Locale.ROOT, "%s x %s x %s m", metres(f.size()[0]), metres(f.size()[1]),
                metres(f.size()[2]))));
        card.getChildren().addAll(figure("Unique triangles", Texts.count(f.unique())), figure("With copies", Texts.count(f.placed())));
        List<ModelStore.Unused> unused = work.models().unusedProperty().get();
        if (!unused.isEmpty()) card.getChildren().add(Ui.line(String.format(Locale.ROOT, "%s no longer used, %.1f MB",
                unused.size() == 1 ? unused.getFirst().model() : unused.size() + " models",
                unused.stream().mapToLong(ModelStore.Unused::bytes).sum() / 1e6),
                Ui.button("clear-models", "Delete", "They lie in the project's folder; nothing here refers to them, and undo does not either",
                () -> work.models().clearUnused(), "small")));
        return card;
    }

    private void file(VBox card, Project.ModelRef m, int i) {
        card.getChildren().add(Ui.line(m.file().replaceFirst("^models/[0-9a-f]+/", ""),
                Ui.button("replace-" + i, "Replace\u2026",
                "Puts a newer file in its place. Materials, layers and lamps that were set keep their settings by name.",
                () -> ModelDialogs.ask(card.getScene(), "Choose the newer file", f -> work.models().replace(m.file(), f)), "small")));
        if (m.replaces() != null) card.getChildren().add(Ui.note("In the places of " + m.replaces() + "."));
        if (i > 0) place(card, m, i);
        card.getChildren().add(Ui.row(Ui.label("Layers by", "dial-name"), Ui.spring(), choice("layers-" + i + "-", BY,
                m.layersBy() == null ? 0 : BY.indexOf(m.layersBy()), i, (x, k) -> x.withLayersBy(k == 0 ? null : BY.get(k)))));
        if (m.variant() != null || work.models().factsProperty().get().findings().stream()
                .anyMatch(x -> x.kind() == Finding.Kind.VARIANTS && m.file().endsWith(x.where()))) {
            Field variant = new Field("variant-" + i, 150, t -> work.models().change(null, i, x -> x.withVariant(t.isEmpty() ? null : t)));
            variant.setPromptText("the file's own");
            variant.show(m.variant() == null ? "" : m.variant());
            card.getChildren().add(Ui.row(Ui.label("Variant", "dial-name"), Ui.spring(), variant));
        }
        // glTF is in metres and y up by definition.
        if (m.file().toLowerCase(Locale.ROOT).matches(".*\\.gl(b|tf)")) return;
        boolean guessed = m.unit() == null && work.models().factsProperty().get().findings().stream()
                .anyMatch(x -> x.kind() == Finding.Kind.UNITS && x.text().contains("does not say its unit")
                && m.file().endsWith(x.where()));
        if (guessed) {
            Label ask = Ui.note("The file does not name its unit. Does the size below fit?");
            ask.getStyleClass().add("needs-hand");
            card.getChildren().add(ask);
        }
        card.getChildren().addAll(choice("unit-" + i + "-", UNITS, m.unit() == null ? 0 : unit(m.unit()), i,
                (x, k) -> x.withUnit(k == 0 ? null : METRES[k])),
                choice("up-" + i + "-", UP, m.up() == null ? 0 : m.up().equals("y") ? 1 : 2, i,
                (x, k) -> x.withUp(k == 0 ? null : k == 1 ? "y" : "z")));
    }

    private static int unit(double metres) {
        for (int k = 1; k < METRES.length; k++) if (Math.abs(METRES[k] - metres) < 1e-9) return k;
        return -1;
    }

    private interface Change {
        Project.ModelRef of(Project.ModelRef m, int choice);
    }

    private HBox choice(String id, List<String> names, int now, int file, Change change) {
        ToggleGroup g = new ToggleGroup();
        HBox h = Ui.choice(g, id, names.toArray(String[]::new));
        if (now >= 0) g.selectToggle(g.getToggles().get(now));
        g.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) work.models().change(null, file, x -> change.of(x, names.indexOf((String) b.getUserData())));
        });
        return h;
    }

    /** Where a further file stands: x, y, z, its turn and its size. */
    private void place(VBox card, Project.ModelRef m, int i) {
        Field[] at = new Field[3];
        for (int k = 0; k < 3; k++) {
            int axis = k;
            at[k] = new Field("file-" + i + "-" + "xyz".charAt(k), 66, t -> work.models().change(null, i, x -> {
                double[] p = x.at() == null ? new double[3] : x.at().clone();
                p[axis] = Quantity.METRES.parse(t, -1e5, 1e5);
                return x.placed(p, x.turn(), x.scale());
            }));
            at[k].show(String.format(Locale.ROOT, "%.2f", m.at() == null ? 0 : m.at()[k]));
        }
        Dial turn = new Dial("file-" + i + "-turn", "Turn", "%.0f\u00b0", -180, 180, 0, false, "About the vertical.",
                v -> work.models().change("turn " + i, i, x -> x.placed(x.at(), Math.rint(v), x.scale())));
        Dial scale = new Dial("file-" + i + "-scale", "Size", "%.3f", 0.001, 1000, 1, true, "Factor on its size.",
                v -> work.models().change("size " + i, i, x -> x.placed(x.at(), x.turn(), v)));
        turn.show(m.turn() == null ? 0 : m.turn());
        scale.show(m.scale() == null ? 1 : m.scale());
        card.getChildren().addAll(Ui.row(Ui.label(m.replaces() == null ? "At" : "Moved by", "dial-name"), Ui.spring(), at[0], at[1], at[2],
                Ui.label("m", "dial-name")), turn, scale);
        HBox tools = Ui.row(Ui.button("file-" + i + "-out", "Take out", "Takes this file out of the project; undo brings it back",
                () -> work.models().change(null, i, x -> null), "small"));
        if (m.replaces() == null) tools.getChildren().addFirst(Ui.button("file-" + i + "-place", "Place: click there",
                "The next click on the picture puts its origin there", () -> work.models().picks().place(i), "small"));
        card.getChildren().add(tools);
    }

    private static String metres(double m) {
        return String.format(Locale.ROOT, m < 1000 ? "%.2f" : "%.0f", m);
    }

    private static HBox figure(String name, String value) {
        return Ui.line(name, Ui.label(value, "figure"));
    }
}
