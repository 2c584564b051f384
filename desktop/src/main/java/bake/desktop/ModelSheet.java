package bake.desktop;

import bake.formats.model.Finding;
import java.util.Map;
import java.util.TreeMap;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** Model: the files, what was found in them, and the materials. */
final class ModelSheet extends VBox {
    private static final int MOST_LINES = 60;
    private final Workbench bench;

    ModelSheet(Workbench bench) {
        this.bench = bench;
        bench.projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.models() != b.models()) fill();
        });
        bench.factsProperty().addListener((o, a, b) -> fill());
        fill();
    }

    private void fill() {
        getChildren().clear();
        if (bench.project() == null) return;
        ModelFacts f = bench.factsProperty().get();
        VBox files = Ui.card("Files", null);
        bench.project().models().forEach(m -> files.getChildren().add(line(m.file(), "")));
        if (!bench.project().shapes().isEmpty()) files.getChildren().add(line("shapes of the project", Integer.toString(bench.project().shapes().size())));
        files.getChildren().addAll(line("Unique triangles", Texts.count(f.unique())), line("With copies", Texts.count(f.placed())), line("Units", "metres, z up"));
        VBox found = Ui.card("Findings", Ui.label(f.findings().isEmpty() ? "none" : Integer.toString(f.findings().size()), "figure"));
        Map<Finding.Kind, Integer> kinds = new TreeMap<>();
        f.findings().forEach(x -> kinds.merge(x.kind(), 1, Integer::sum));
        kinds.forEach((k, n) -> {
            Label head = Ui.label(k.words() + ", " + n, "finding-kind");
            found.getChildren().add(head);
            f.findings().stream().filter(x -> x.kind() == k).limit(MOST_LINES / Math.max(1, kinds.size())).forEach(x -> {
                Label l = Ui.note(x.where() + ": " + x.text());
                found.getChildren().add(l);
            });
        });
        if (f.findings().isEmpty()) found.getChildren().add(Ui.note("No flipped normals, faces without area or missing textures."));
        VBox materials = Ui.card("Materials", Ui.label(Integer.toString(f.materials().size()), "figure"));
        f.materials().stream().limit(MOST_LINES).forEach(m -> materials.getChildren().add(line(m.name(), m.glows() ? "glows" : m.transmission() > 0 ? "glass" : m.metallic() > 0.5 ? "metal" : m.translucency() > 0 ? "translucent" : "")));
        if (f.materials().size() > MOST_LINES) materials.getChildren().add(Ui.note("and " + (f.materials().size() - MOST_LINES) + " more"));
        getChildren().addAll(files, found, materials);
    }

    private static javafx.scene.layout.HBox line(String name, String value) {
        return Ui.row(Ui.label(name, "line-name"), Ui.spring(), Ui.label(value, "figure"));
    }
}
