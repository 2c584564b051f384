package bake.formats.foreign;

import bake.core.scene.Mesh;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.model.Finding;
import bake.formats.model.GltfReader;
import bake.formats.model.ImportedModel;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;

/**
 * Reads models by a native library, which is never let into this process: a child reads the file, within limits of time and
 * memory and seeing no files but those in the model's folder, and writes glTF, which is then read as any other glTF. A crash
 * there is an error about that file.
 */
public final class ForeignModel {
    private static final String WORK = "bake-import";
    /** File endings that are read this way. */
    public static final List<String> ENDINGS = List.of(".fbx", ".dae", ".stl", ".ply", ".3ds", ".ifc");
    private static final long SECONDS = Long.getLong("bake.import.seconds", 300), MEMORY_MB = Long.getLong("bake.import.memory", 6000);

    private static final int MOST_TEXT = 1 << 22;

    private ForeignModel() {}

    /**
     * @param toMetres metres per unit of the file, or 0 to take what the file says
     * @param up the file's up axis, 'y' or 'z', or 0 to take what the file says
     * @param stop asked now and then; when it says true the child is ended
     * @param textureBytes that textures may take
     * @throws FormatException when the file cannot be read
     */
    public static ImportedModel read(Path file, double toMetres, char up, BooleanSupplier stop, long textureBytes) throws IOException {
        Path out = workFolder();
        try {
            run(file, out, toMetres, up, stop, textureBytes);
            Path gltf = out.resolve("model.gltf");
            if (!Files.isRegularFile(gltf)) throw bad(file, "could not be read; export it as .glb");
            ImportedModel m = GltfReader.read(gltf, null, textureBytes);
            List<Finding> findings = new ArrayList<>(m.findings());
            JsonNode told = Json.parse(head(out.resolve("told.json")), file.getFileName().toString());
            for (JsonNode n : told.path("findings"))
                findings.add(new Finding(kind(n.path("kind").asText()), n.path("where").asText(), n.path("text").asText()));
            return new ImportedModel(file.getFileName().toString(), m.meshes(), m.instances(), m.materials(), m.textures(), m.layers(),
                    m.cameras(), m.lamps(), findings);
        } finally {
            delete(out);
        }
    }

    /**
     * The parts of all meshes of a glTF file, unpacked, by their number over all meshes; without materials.
     *
     * @throws FormatException when the file cannot be read
     */
    public static Map<Integer, Mesh> parts(Path file) throws IOException {
        Path out = workFolder();
        try {
            run(file, out, 1, 'p', () -> false, 0);
            Map<Integer, Mesh> parts = new HashMap<>();
            for (Mesh m : GltfReader.read(out.resolve("model.gltf")).meshes()) if (m.name().matches("\\d{1,9}"))
                parts.put(Integer.parseInt(m.name()), m);
            return parts;
        } finally {
            delete(out);
        }
    }

    /** A folder for what the child makes; those that killed processes have left are swept away. */
    public static Path workFolder() throws IOException {
        Path made = Files.createTempDirectory(WORK);
        Instant old = Instant.now().minus(Duration.ofSeconds(4L * SECONDS));
        try (Stream<Path> s = Files.list(made.getParent())) {
            for (Path p : s.filter(f -> f.getFileName().toString().startsWith(WORK)).toList())
                if (!p.equals(made) && Files.getLastModifiedTime(p).toInstant().isBefore(old)) delete(p);
        } catch (IOException | java.io.UncheckedIOException e) {
            // Somebody else's, or gone meanwhile.
        }
        return made;
    }

    private static FormatException bad(Path file, String problem) {
        return new FormatException(file.getFileName().toString(), null, problem);
    }

    private static void run(Path file, Path out, double toMetres, char up, BooleanSupplier stop, long textureBytes) throws IOException {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        List<String> command = new ArrayList<>(List.of(java, "-Xmx" + MEMORY_MB / 2 + "m", "-XX:ReservedCodeCacheSize=64m",
                "-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1",
                "--enable-native-access=ALL-UNNAMED", "--sun-misc-unsafe-memory-access=allow", "-Djava.awt.headless=true",
                "-XX:ErrorFile=" + out.resolve("crash.log"), "-XX:-CreateCoredumpOnCrash",
                "-Dorg.lwjgl.system.stackSize=512", "-cp", classPath(), ForeignWorker.class.getName(), file.toAbsolutePath().toString(),
                out.toString(), Double.toString(toMetres), up == 0 ? "-" : Character.toString(up), Long.toString(textureBytes)));
        boolean linux = System.getProperty("os.name", "").toLowerCase(Locale.ROOT).contains("linux");
        // The shell's limit holds for the native library too, which Java's own does not.
        if (linux && Files.isExecutable(Path.of("/bin/sh")))
            command.addAll(0, List.of("/bin/sh", "-c", "ulimit -v " + MEMORY_MB * 1024 + "; ulimit -c 0; exec \"$@\"", "sh"));
        Path log = out.resolve("log.txt");
        Process p = new ProcessBuilder(command).directory(out.toFile()).redirectErrorStream(true).redirectOutput(log.toFile()).start();
        p.getOutputStream().close();
        long end = System.nanoTime() + SECONDS * 1_000_000_000L;
        try {
            while (!p.waitFor(40, TimeUnit.MILLISECONDS)) {
                if (stop.getAsBoolean()) throw bad(file, "reading was stopped");
                if (System.nanoTime() > end) throw bad(file, "took longer than " + SECONDS + " s to read; export it as .glb");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw bad(file, "reading was stopped");
        } finally {
            p.destroyForcibly();
        }
        if (p.exitValue() == 0) return;
        String said = Files.exists(log) ? head(log) : "";
        String line = said.lines().filter(l -> l.startsWith(ForeignWorker.REFUSED)).findFirst()
                .map(l -> l.substring(ForeignWorker.REFUSED.length())).orElse(null);
        if (line != null) throw bad(file, line);
        if (Stream.of("OutOfMemoryError", "insufficient memory", "bad_alloc", "Could not reserve").anyMatch(said::contains))
            throw bad(file, "needs more memory than the " + MEMORY_MB + " MB that reading may take; export it in parts");
        throw bad(file, "made its reader fail (code " + p.exitValue() + "); the file is damaged or unusual: export it as .glb");
    }

    /** The beginning of a file that the child has written, which may be of any length. */
    private static String head(Path file) throws IOException {
        try (var in = Files.newInputStream(file)) {
            return new String(in.readNBytes(MOST_TEXT), StandardCharsets.UTF_8);
        }
    }

    private static Finding.Kind kind(String name) {
        for (Finding.Kind k : Finding.Kind.values()) if (k.name().equals(name)) return k;
        return Finding.Kind.NOT_READ;
    }

    private static String classPath() {
        // Only what the child needs; a module path is no place to look for it.
        List<String> out = new ArrayList<>();
        for (String e : (System.getProperty("java.class.path") + File.pathSeparator + System.getProperty("jdk.module.path", ""))
                .split(File.pathSeparator))
            if (!e.isEmpty() && !Path.of(e).getFileName().toString().contains("javafx")) out.add(e);
        return String.join(File.pathSeparator, out);
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> s = Files.walk(folder)) {
            for (Path p : s.sorted(java.util.Comparator.reverseOrder()).toList()) Files.deleteIfExists(p);
        }
    }
}
