package bake.formats.foreign;

import static org.lwjgl.assimp.Assimp.*;

import bake.core.scene.Lamp;
import bake.core.scene.Mesh;
import bake.formats.Json;
import bake.formats.model.Finding;
import bake.formats.model.GltfWriter;
import bake.formats.model.ImportedModel;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.lwjgl.assimp.AIFileIO;
import org.lwjgl.assimp.AIPropertyStore;
import org.lwjgl.assimp.AIScene;

/** The child process of {@link ForeignModel}: reads one file with the native library and writes glTF. */
public final class ForeignWorker {
    /** Begins the line that says why a file was refused. */
    static final String REFUSED = "refused: ";

    private ForeignWorker() {}

    /** In place of an up axis: the parts of meshes alone are wanted, named by their numbers. */
    static final char PARTS = 'p';

    /** File, folder for the result, metres per unit or 0, up axis or "-", bytes that textures may take. */
    public static void main(String[] args) {
        try {
            run(Path.of(args[0]), Path.of(args[1]), Double.parseDouble(args[2]), args[3].charAt(0), Long.parseLong(args[4]));
        } catch (IOException e) {
            System.out.println(REFUSED + e.getMessage());
            System.exit(2);
        }
        System.exit(0);
    }

    private static void run(Path file, Path out, double toMetres, char up, long textureBytes) throws IOException {
        AIFileIO io = new JailedFiles(file.toAbsolutePath().getParent()).create();
        boolean scan = file.toString().toLowerCase(Locale.ROOT).matches(".*\\.(stl|ply)");
        // Scanned and printed things have no edges to keep; the others say where they are smooth.
        int steps = aiProcess_Triangulate | aiProcess_SortByPType | aiProcess_GenUVCoords | aiProcess_TransformUVCoords | (scan
                ? aiProcess_JoinIdenticalVertices : 0);
        AIPropertyStore properties = aiCreatePropertyStore();
        // A file without meshes holds none: no bones are to be drawn for its cameras.
        if (properties != null) {
            aiSetImportPropertyInteger(properties, AI_CONFIG_IMPORT_NO_SKELETON_MESHES, 1);
            // Layers are to have the names that were given, and not the identifiers of the file.
            aiSetImportPropertyInteger(properties, AI_CONFIG_IMPORT_COLLADA_USE_COLLADA_NAMES, 1);
        }
        AIScene scene = aiImportFileExWithProperties(file.toAbsolutePath().toString(), steps, io, properties);
        if (scene == null || scene.mRootNode() == null)
            throw new IOException("cannot be read (" + reason() + "); export it again, or as .glb without compression");
        List<Finding> findings = new ArrayList<>();
        SceneUnits units = SceneUnits.of(scene, file, toMetres, up, findings);
        SceneReader r = new SceneReader(scene, units.toBake(), file, findings,
                Math.min(textureBytes, Runtime.getRuntime().maxMemory() / 3));
        if (up == PARTS) r.readParts();
        else r.read();
        List<Mesh> meshes = r.meshes();
        List<ImportedModel.NamedCamera> cameras = up == PARTS ? List.of() : r.others().cameras();
        List<Lamp> lamps = up == PARTS ? List.of() : r.others().lamps();
        if (r.instances().isEmpty()) throw new IOException("holds nothing that can be rendered" + (cameras.size() + lamps.size() > 0
                ? ", only cameras and lights" : "") + "; export it again");
        GltfWriter.write(out.resolve("model.gltf"), new ImportedModel(file.getFileName().toString(), meshes, r.instances(), r.materials(),
                r.textures(), r.layers(), cameras, lamps, List.of()));
        ObjectNode told = Json.MAPPER.createObjectNode();
        var list = told.putArray("findings");
        for (Finding f : findings) list.addObject().put("kind", f.kind().name()).put("where", f.where()).put("text", f.text());
        Files.writeString(out.resolve("told.json"), Json.MAPPER.writeValueAsString(told));
    }

    private static String reason() {
        String s = aiGetErrorString();
        return s == null || s.isBlank() ? "the file is damaged" : s.replaceAll("\\s+", " ").strip();
    }
}
