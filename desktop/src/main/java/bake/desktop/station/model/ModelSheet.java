package bake.desktop.station.model;

import bake.core.scene.Material;
import bake.desktop.parts.Ui;
import bake.desktop.work.ModelFacts;
import bake.formats.model.Finding;
import bake.formats.project.Project;
import bake.studio.scene.MaterialLibrary;
import bake.studio.scene.SceneAssembly;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;

/** Model: the files, what was found in them, and the materials. */
public final class ModelSheet extends VBox {
    private static final int MOST_LINES = 60, MOST_PAIRS = 12;
    private final ModelWork work;
    /** The material whose choice is open, or null. */
    private String chosen;
    private final TextField find = new TextField();
    private final PickedCard picked;
    /** What stands under the picked thing, made anew whenever the model is known better; a hand on that one is not disturbed. */
    private final VBox files = new VBox(), parts = new VBox();

    public ModelSheet(ModelWork work) {
        this.work = work;
        picked = new PickedCard(work);
        getChildren().addAll(picked, files, parts);
        // A thing that is clicked opens its material.
        work.models().picks().pickedProperty().addListener((o, a, b) -> {
            if (b != null) chosen = b.material();
            fill();
        });
        find.setId("find-material");
        find.setPromptText("Find a material");
        find.setOnAction(e -> {
            fill();
            find.requestFocus();
        });
        work.document().projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.models() != b.models() || a.materials() != b.materials()) fill();
        });
        work.models().factsProperty().addListener((o, a, b) -> fill());
        work.models().unusedProperty().addListener((o, a, b) -> fill());
        fill();
    }

    private void fill() {
        Ui.refill(this, this::refill);
    }

    private void refill() {
        files.getChildren().clear();
        parts.getChildren().clear();
        Ui.show(picked, work.document().project() != null);
        if (work.document().project() == null) return;
        ModelFacts f = work.models().factsProperty().get();
        VBox card = new FilesCard(work).card();
        int faults = f.findings().size() + f.coplanar().size();
        VBox found = Ui.card("Findings", Ui.label(faults == 0 ? "none" : Integer.toString(faults), "figure"));
        if (!f.coplanar().isEmpty()) found.getChildren().add(Ui.label("faces in one plane, " + f.coplanar().size(), "finding-kind"));
        for (int i = 0; i < Math.min(MOST_PAIRS, f.coplanar().size()); i++) {
            SceneAssembly.Coplanar c = f.coplanar().get(i);
            found.getChildren().addAll(Ui.note(c.line() + "."),
                    Ui.row(Ui.spring(), Ui.button("lift-" + i, "Lift " + c.smaller() + " by 1 mm",
                    "Off the plane, towards where it is looked at from; undo brings it back", () -> work.models().lift(c), "small")));
        }
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
        if (faults == 0) found.getChildren().add(Ui.note("No flipped normals, faces without area or in one plane, nor missing textures."));
        VBox materials = Ui.card("Materials", Ui.label(Integer.toString(f.materials().size()), "figure"));
        if (!f.materials().isEmpty()) materials.getChildren().add(Ui.note("Choose one to set its values or start it from a real material."));
        List<Material> wanted = f.materials().stream().filter(m -> m.name().toLowerCase(Locale.ROOT)
                .contains(find.getText().strip().toLowerCase(Locale.ROOT))).toList();
        if (f.materials().size() > MOST_LINES) materials.getChildren().add(find);
        int n = 0;
        for (var m : wanted) {
            if (n == MOST_LINES) break;
            String from = from(m.name());
            String what = from != null ? from : m.glows() ? "glows" : m.transmission() > 0 ? "glass" : m.metallic() > 0.5 ? "metal"
                    : m.translucency() > 0 ? "translucent" : "";
            Button b = Ui.button("material-" + n++, what.isEmpty() ? m.name() : m.name() + "   " + what, null, () -> {
                chosen = m.name().equals(chosen) ? null : m.name();
                fill();
            }, "list-line");
            b.setMaxWidth(Double.MAX_VALUE);
            materials.getChildren().add(b);
            if (!m.name().equals(chosen)) continue;
            b.getStyleClass().add("list-here");
            materials.getChildren().addAll(new SurfaceEditor(work.models(), m, work.own(m.name())), library(m.name(), from));
        }
        if (wanted.size() > MOST_LINES)
            materials.getChildren().add(Ui.note("and " + (wanted.size() - MOST_LINES) + " more; type a part of the name above"));
        files.getChildren().add(card);
        parts.getChildren().addAll(found, materials);
    }

    /** What a material was started from, or null. */
    private String from(String material) {
        return work.document().project().materials().stream().filter(s -> s.name().equals(material)).map(Project.Surface::from)
                .filter(Objects::nonNull).findFirst().orElse(null);
    }

    private VBox library(String material, String now) {
        VBox box = new VBox(1);
        box.getStyleClass().add("inset");
        box.getChildren().add(choice("library-none", "as in the model", now == null, () -> work.models().startFrom(material, null)));
        String group = "";
        int n = 0;
        for (MaterialLibrary.Entry e : MaterialLibrary.all()) {
            if (!e.group().equals(group)) box.getChildren().add(Ui.label(group = e.group(), "finding-kind"));
            Button b = choice("library-" + n++, e.name(), e.name().equals(now), () -> work.models().startFrom(material, e.name()));
            b.setTooltip(Ui.tip(e.source()));
            box.getChildren().add(b);
        }
        return box;
    }

    private static Button choice(String id, String text, boolean here, Runnable action) {
        Button b = Ui.button(id, text, null, action, "list-line");
        b.setMaxWidth(Double.MAX_VALUE);
        if (here) b.getStyleClass().add("list-here");
        return b;
    }
}
