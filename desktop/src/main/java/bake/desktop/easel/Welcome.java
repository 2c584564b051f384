package bake.desktop.easel;

import bake.desktop.parts.Ui;
import bake.desktop.work.Workbench;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What stands on the easel while nothing is open: ways to begin, and what was open before. */
public final class Welcome extends VBox {
    /** What a start without a project offers. */
    public interface Ways {
        void chooseModel();

        void chooseProject();

        /** Folders of the projects that were opened last, newest first. */
        List<Path> recent();
    }

    private static final int RECENT = 5;
    private final Workbench bench;
    private final Supplier<List<Path>> recent;
    private final VBox before = new VBox(2);

    Welcome(Workbench bench, Ways ways) {
        super(10);
        this.bench = bench;
        recent = ways::recent;
        setAlignment(Pos.CENTER);
        before.setAlignment(Pos.CENTER);
        HBox begin = new HBox(10,
                Ui.button("empty-model", "New from a model\u2026", "Starts a project beside the model's file", ways::chooseModel, "main-action"),
                Ui.button("empty-open", "Open a project\u2026", null, ways::chooseProject),
                Ui.button("empty-demo", "Open the demo library", null, () -> bench.opener().open("demo")));
        begin.setAlignment(Pos.CENTER);
        getChildren().addAll(Ui.label("A project or a model goes here", "empty-title"),
                Ui.label("Drag a project folder or a model (glTF, OBJ, FBX, DAE, STL, PLY, 3DS, IFC) onto the window,", "empty-text"),
                Ui.label("or start with one of these.", "empty-text"), begin, before);
    }

    void show(boolean here) {
        if (here && !isVisible() || before.getChildren().isEmpty()) fill();
        setVisible(here);
    }

    private void fill() {
        before.getChildren().clear();
        List<Path> all = recent.get();
        if (all.isEmpty()) return;
        before.getChildren().add(Ui.label("Opened before", "empty-text"));
        for (int i = 0; i < Math.min(RECENT, all.size()); i++) {
            Path p = all.get(i);
            Button b = Ui.button("empty-recent-" + i, p.getFileName() + "   " + p.getParent(), null, () -> bench.opener().open(p.toString()),
                    "list-line", "on-easel-line");
            before.getChildren().add(b);
        }
    }
}
