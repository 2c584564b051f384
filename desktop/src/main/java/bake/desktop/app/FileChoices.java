package bake.desktop.app;

import bake.desktop.work.Workbench;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.input.TransferMode;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Stage;

/** Files that are chosen or dropped, and what becomes of them. */
final class FileChoices {
    private final Workbench bench;
    private final Stage stage;

    FileChoices(Workbench bench, Stage stage) {
        this.bench = bench;
        this.stage = stage;
    }

    void chooseProject() {
        DirectoryChooser c = new DirectoryChooser();
        c.setTitle("Open a project's folder");
        File f = c.showDialog(stage);
        if (f != null) bench.opener().open(f.getPath());
    }

    void chooseModel() {
        FileChooser c = new FileChooser();
        c.setTitle("Open a model or a project");
        c.getExtensionFilters().addAll(new FileChooser.ExtensionFilter("Models and projects", "*.gltf", "*.glb", "*.obj", "*.fbx", "*.dae",
                "*.stl", "*.ply", "*.3ds", "*.ifc", "project.json"));
        File f = c.showOpenDialog(stage);
        if (f != null) bench.opener().open(f.getPath());
    }

    /** Where a copy of the project goes: a folder that is made. */
    void chooseCopy() {
        if (bench.project() == null) return;
        FileChooser c = new FileChooser();
        c.setTitle("Save a copy of the project in a new folder");
        c.setInitialDirectory(bench.folder().toAbsolutePath().getParent().toFile());
        c.setInitialFileName(bench.folder().getFileName() + " copy");
        File f = c.showSaveDialog(stage);
        if (f != null) bench.opener().saveCopy(f.toPath());
    }

    /** Takes files that are dropped on a part of the window. */
    void dropOn(Node n) {
        n.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) e.acceptTransferModes(TransferMode.COPY);
            e.consume();
        });
        n.setOnDragDropped(e -> {
            List<File> files = e.getDragboard().getFiles();
            if (files != null && !files.isEmpty()) take(files.getFirst().toPath());
            e.setDropCompleted(files != null && !files.isEmpty());
            e.consume();
        });
    }

    /**
     * Takes a dropped file: a panorama becomes light, a photometric file a lamp to be placed, a preset is brought to the artist's
     * shelf, everything else is opened.
     */
    void take(Path p) {
        String n = p.getFileName().toString().toLowerCase(Locale.ROOT);
        if (n.endsWith(".hdr") || n.endsWith(".exr")) bench.lighting().useHdri(p);
        else if (n.endsWith(".ies")) bench.lighting().lamps().placeFile(p);
        else if (isPreset(p)) bench.prover().presets().files().bring(p);
        else bench.opener().open(p.toString());
    }

    /** Whether a file says that it is a preset of a shelf. */
    private static boolean isPreset(Path p) {
        if (!p.toString().endsWith(".json") || p.endsWith("project.json")) return false;
        try {
            return Files.size(p) < 1 << 20 && Files.readString(p).contains("\"bakePreset\"");
        } catch (IOException e) {
            return false;
        }
    }
}
