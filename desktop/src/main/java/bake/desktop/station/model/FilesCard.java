package bake.desktop.station.model;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.ModelFacts;
import bake.desktop.work.Workbench;
import bake.formats.model.Finding;
import bake.formats.project.Project;
import bake.studio.project.ModelStore;
import java.io.File;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.UnaryOperator;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** The files of a project: how large they are, in which unit and with which axis up they are read, and newer ones in their place. */
final class FilesCard {
    private static final String GIVEN = "as given";
    private static final List<String> UNITS = List.of(GIVEN, "m", "cm", "mm", "ft", "in"), UP = List.of(GIVEN, "y up", "z up");
    private static final double[] METRES = {0, 1, 0.01, 0.001, 0.3048, 0.0254};

    private final Workbench bench;

    FilesCard(Workbench bench) {
        this.bench = bench;
    }

    VBox card() {
        ModelFacts f = bench.models().factsProperty().get();
        VBox card = Ui.card("Files", null);
        List<Project.ModelRef> models = bench.project().models();
        for (int i = 0; i < models.size(); i++) file(card, models.get(i), i);
        if (!bench.project().shapes().isEmpty())
            card.getChildren().add(figure("shapes of the project", Integer.toString(bench.project().shapes().size())));
        if (f.size() != null) card.getChildren()
                .add(figure("Size", String.format(Locale.ROOT, "%s x %s x %s m", metres(f.size()[0]), metres(f.size()[1]),
                metres(f.size()[2]))));
        card.getChildren().addAll(figure("Unique triangles", Texts.count(f.unique())), figure("With copies", Texts.count(f.placed())));
        List<ModelStore.Unused> unused = bench.models().unusedProperty().get();
        if (!unused.isEmpty()) card.getChildren().add(Ui.line(String.format(Locale.ROOT, "%s no longer used, %.1f MB",
                unused.size() == 1 ? unused.getFirst().model() : unused.size() + " models",
                unused.stream().mapToLong(ModelStore.Unused::bytes).sum() / 1e6),
                Ui.button("clear-models", "Delete", "They lie in the project's folder; nothing here refers to them, and undo does not either",
                () -> bench.models().clearUnused(), "small")));
        return card;
    }

    private void file(VBox card, Project.ModelRef m, int i) {
        card.getChildren().add(Ui.line(m.file().replaceFirst("^models/[0-9a-f]+/", ""),
                Ui.button("replace-" + i, "Replace\u2026",
                "Puts a newer file in its place. Materials, layers and lamps that were set keep their settings by name.",
                () -> choose(m))));
        // glTF is in metres and y up by definition.
        if (m.file().toLowerCase(Locale.ROOT).matches(".*\\.gl(b|tf)")) return;
        boolean guessed = m.unit() == null && bench.models().factsProperty().get().findings().stream()
                .anyMatch(x -> x.kind() == Finding.Kind.UNITS && x.text().contains("does not say its unit")
                && m.file().endsWith(x.where()));
        if (guessed) {
            Label ask = Ui.note("The file does not name its unit. Does the size below fit?");
            ask.getStyleClass().add("needs-hand");
            card.getChildren().add(ask);
        }
        card.getChildren().addAll(choice("unit-" + i + "-", UNITS, m.unit() == null ? 0 : unit(m.unit()),
                k -> x -> new Project.ModelRef(x.file(), k == 0 ? null : METRES[k], x.up(), x.variant(), x.layersBy(), x.other()), m),
                choice("up-" + i + "-", UP, m.up() == null ? 0 : m.up().equals("y") ? 1 : 2,
                k -> x -> new Project.ModelRef(x.file(), x.unit(), k == 0 ? null : k == 1 ? "y" : "z", x.variant(), x.layersBy(),
                x.other()), m));
    }

    private static int unit(double metres) {
        for (int k = 1; k < METRES.length; k++) if (Math.abs(METRES[k] - metres) < 1e-9) return k;
        return -1;
    }

    private interface Change {
        UnaryOperator<Project.ModelRef> to(int k);
    }

    private HBox choice(String id, List<String> names, int now, Change change, Project.ModelRef of) {
        ToggleGroup g = new ToggleGroup();
        HBox h = Ui.choice(g, id, names.toArray(String[]::new));
        if (now >= 0) g.selectToggle(g.getToggles().get(now));
        g.selectedToggleProperty().addListener((o, a, b) -> {
            if (b == null) return;
            UnaryOperator<Project.ModelRef> c = change.to(names.indexOf((String) b.getUserData()));
            bench.edit(null, p -> {
                List<Project.ModelRef> out = new ArrayList<>(p.models());
                out.replaceAll(x -> Objects.equals(x, of) ? c.apply(x) : x);
                return p.withModels(List.copyOf(out));
            });
        });
        return h;
    }

    private void choose(Project.ModelRef m) {
        FileChooser c = new FileChooser();
        c.setTitle("Choose the newer file");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Models", "*.gltf", "*.glb", "*.obj", "*.fbx", "*.dae", "*.stl",
                "*.ply", "*.3ds", "*.ifc"));
        File f = c.showOpenDialog(null);
        if (f != null) bench.models().replace(m.file(), f.toPath());
    }

    private static String metres(double m) {
        return String.format(Locale.ROOT, m < 1000 ? "%.2f" : "%.0f", m);
    }

    private static HBox figure(String name, String value) {
        return Ui.line(name, Ui.label(value, "figure"));
    }
}
