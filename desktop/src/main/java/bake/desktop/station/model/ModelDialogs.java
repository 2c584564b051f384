package bake.desktop.station.model;

import java.io.File;
import java.nio.file.Path;
import java.util.function.Consumer;
import javafx.scene.Scene;
import javafx.stage.FileChooser;

/** Asks for model files. */
final class ModelDialogs {
    private ModelDialogs() {}

    static void ask(Scene over, String title, Consumer<Path> take) {
        FileChooser c = new FileChooser();
        c.setTitle(title);
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Models", "*.gltf", "*.glb", "*.obj", "*.fbx", "*.dae", "*.stl",
                "*.ply", "*.3ds", "*.ifc"));
        File f = c.showOpenDialog(over == null ? null : over.getWindow());
        if (f != null) take.accept(f.toPath());
    }
}
