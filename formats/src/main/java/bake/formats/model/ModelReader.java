package bake.formats.model;

import bake.formats.FormatException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

/** Reads a model file by its kind. */
public final class ModelReader {
    /** File endings that are read. */
    public static final List<String> ENDINGS = List.of(".gltf", ".glb", ".obj");

    private ModelReader() {}

    public static boolean isModel(Path p) {
        String n = p.getFileName().toString().toLowerCase(Locale.ROOT);
        return ENDINGS.stream().anyMatch(n::endsWith);
    }

    /**
     * @param toMetres unit of an OBJ file, m; glTF is always in metres
     * @param yUp up axis of an OBJ file; glTF is always y up
     */
    public static ImportedModel read(Path file, double toMetres, boolean yUp) throws IOException {
        String name = file.getFileName().toString(), lower = name.toLowerCase(Locale.ROOT);
        if (!Files.isRegularFile(file)) throw new FormatException(name, null, "there is no such file");
        try {
            if (lower.endsWith(".gltf") || lower.endsWith(".glb")) return GltfReader.read(file);
            if (lower.endsWith(".obj")) return ObjFile.read(file, toMetres, yUp);
        } catch (OutOfMemoryError e) {
            throw new FormatException(name, null, "needs more memory than there is; export it in parts");
        }
        throw new FormatException(name, null, "is not a model that is read here; export it as .glb, .gltf or .obj");
    }
}
