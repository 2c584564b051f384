package bake.formats.model;

import bake.formats.FormatException;
import bake.formats.foreign.ForeignModel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;

/** Reads a model file by its kind. */
public final class ModelReader {
    /** File endings that are read. */
    public static final List<String> ENDINGS = Stream.concat(Stream.of(".gltf", ".glb", ".obj"), ForeignModel.ENDINGS.stream()).toList();

    private ModelReader() {}

    public static boolean isModel(Path p) {
        String n = p.getFileName().toString().toLowerCase(Locale.ROOT);
        return ENDINGS.stream().anyMatch(n::endsWith);
    }

    /**
     * @param unit metres per unit of the file, or null for what the file says (OBJ: metres); glTF is always in metres
     * @param up up axis "y" or "z", or null for what the file says (OBJ: y); glTF is always y up
     */
    public static ImportedModel read(Path file, Double unit, String up) throws IOException {
        return read(file, unit, up, null, () -> false);
    }

    /** @param variant name of the material variant of a glTF file to show, or null for the file's own materials */
    public static ImportedModel read(Path file, Double unit, String up, String variant) throws IOException {
        return read(file, unit, up, variant, () -> false);
    }

    /** @param stop asked now and then while a child process reads; when it says true, reading ends with an error */
    public static ImportedModel read(Path file, Double unit, String up, String variant, BooleanSupplier stop) throws IOException {
        return read(file, unit, up, variant, stop, Long.MAX_VALUE);
    }

    /** @param textureBytes that textures may take; what does not fit is halved, before memory is taken for it */
    public static ImportedModel read(Path file, Double unit, String up, String variant, BooleanSupplier stop, long textureBytes)
            throws IOException {
        String name = file.getFileName().toString(), lower = name.toLowerCase(Locale.ROOT);
        if (!Files.isRegularFile(file)) throw new FormatException(name, null, "there is no such file");
        try {
            if (lower.endsWith(".gltf") || lower.endsWith(".glb")) return Recentre.apply(GltfReader.read(file, variant, textureBytes));
            if (lower.endsWith(".obj")) return Recentre.apply(ObjFile.read(file, unit == null ? 1 : unit, !"z".equals(up), textureBytes));
            if (ForeignModel.ENDINGS.stream().anyMatch(lower::endsWith))
                return Recentre.apply(ForeignModel.read(file, unit == null ? 0 : unit, up == null ? 0 : up.charAt(0), stop, textureBytes));
        } catch (OutOfMemoryError e) {
            throw new FormatException(name, null, "needs more memory than there is; export it in parts");
        }
        throw new FormatException(name, null, "is not a model that is read here; export it as .glb, .gltf or .obj");
    }
}
