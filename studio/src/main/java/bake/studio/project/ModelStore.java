package bake.studio.project;

import bake.formats.AtomicFile;
import bake.formats.project.Project;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;

/**
 * The model files of a project, each with the files that it names, in a folder of its own below {@code models/} that is called by what is
 * in it. What was brought once never changes, so undo, recovery and older copies of a project always find what they refer to.
 */
public final class ModelStore {
    private static final String FOLDER = "models";
    private static final int DIGITS = 12, MOST_FILES = 20_000;
    private final Path project;

    public ModelStore(Path projectFolder) {
        project = projectFolder;
    }

    /** One folder that nothing refers to any more. */
    public record Unused(Path folder, String model, long bytes) {}

    /**
     * Copies a model with all that it names.
     *
     * @return the model's file as a project writes it, relative to the project's folder
     */
    public String bring(Path model) throws IOException {
        Path all = Files.createDirectories(project.resolve(FOLDER)), temp = Files.createTempDirectory(all, ".incoming");
        try {
            TreeMap<String, Path> parts = new TreeMap<>();
            Path from = model.toAbsolutePath().getParent();
            for (Path p : parts(model)) parts.put(from.relativize(p.toAbsolutePath()).toString().replace('\\', '/'), p);
            MessageDigest d = Digests.sha();
            for (var e : parts.entrySet()) {
                Digests.put(d, e.getKey() + "\0");
                Path to = temp.resolve(e.getKey());
                Files.createDirectories(to.getParent());
                try (InputStream in = new DigestInputStream(Files.newInputStream(e.getValue()), d);
                        FileChannel out = FileChannel.open(to, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
                    in.transferTo(Channels.newOutputStream(out));
                    out.force(true);
                }
            }
            Path folder = all.resolve(Digests.hex(d).substring(0, DIGITS));
            if (!Files.isDirectory(folder)) {
                readable(temp);
                move(temp, folder);
            }
            return FOLDER + "/" + folder.getFileName() + "/" + model.getFileName();
        } finally {
            delete(temp);
        }
    }

    private static void move(Path temp, Path folder) throws IOException {
        try {
            Files.move(temp, folder);
            AtomicFile.sync(folder.getParent());
        } catch (FileAlreadyExistsException | DirectoryNotEmptyException e) {
            // Another process has brought the same meanwhile.
        }
    }

    /** Temporary folders are for their owner alone; this one stays. */
    private static void readable(Path folder) throws IOException {
        try {
            Files.setPosixFilePermissions(folder, Files.getPosixFilePermissions(folder.getParent()));
        } catch (UnsupportedOperationException e) {
            // no modes there
        }
    }

    /** A model's file and those beside and below it that it may mean, by the names in it. */
    public static Set<Path> parts(Path model) throws IOException {
        Path from = model.toAbsolutePath().getParent();
        String lower = model.getFileName().toString().toLowerCase(Locale.ROOT);
        Set<Path> out = new TreeSet<>(Set.of(model.toAbsolutePath()));
        if (lower.endsWith(".glb")) return out;
        boolean text = lower.endsWith(".gltf") || lower.endsWith(".obj");
        List<Path> near = new ArrayList<>();
        try (Stream<Path> s = Files.walk(from, 3)) {
            s.filter(p -> Files.isRegularFile(p) && !ours(from, p)).limit(MOST_FILES).forEach(near::add);
        }
        // What cannot be searched as text brings the pictures that lie beside it.
        if (!text) near.stream().filter(p -> p.getFileName().toString().toLowerCase(Locale.ROOT).matches(".*\\.(png|jpe?g|bmp|gif|tiff?)"))
                .forEach(out::add);
        else {
            named(model, near, out);
            for (Path p : List.copyOf(out)) if (p.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".mtl")) named(p, near, out);
        }
        return out;
    }

    private static void named(Path by, List<Path> near, Set<Path> out) throws IOException {
        String text = Files.readString(by, StandardCharsets.ISO_8859_1);
        for (Path p : near) {
            String n = new String(p.getFileName().toString().getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1);
            if (text.contains(n) || text.contains(n.replace(" ", "%20"))) out.add(p.toAbsolutePath());
        }
    }

    /** What a project's folder holds besides models is none of their parts, where a model lies beside it. */
    static boolean ours(Path folder, Path file) {
        Path p = folder.relativize(file.toAbsolutePath());
        String first = p.getName(0).toString(), name = file.getFileName().toString();
        return name.endsWith(".part") || name.endsWith(".unfinished") || name.equals(ProjectLock.NAME) || name.equals(ProjectLock.NAMED)
                || p.getNameCount() == 1 && name.matches("project(\\..*)?\\.json")
                || p.getNameCount() > 1 && Set.of("proofs", "caches", "guides", "deliver", "finals", FOLDER).contains(first);
    }

    /** Folders that none of some states of the project refers to. */
    public List<Unused> unused(Collection<Project> states) throws IOException {
        Set<String> used = new HashSet<>();
        for (Project p : states) for (Project.ModelRef m : p.models()) used.add(m.file());
        Path all = project.resolve(FOLDER);
        List<Unused> out = new ArrayList<>();
        if (!Files.isDirectory(all)) return out;
        try (Stream<Path> s = Files.list(all)) {
            for (Path f : s.filter(Files::isDirectory).sorted().toList()) {
                String prefix = FOLDER + "/" + f.getFileName() + "/";
                if (used.stream().noneMatch(u -> u.startsWith(prefix))) out.add(new Unused(f, largest(f), bytes(f)));
            }
        }
        return out;
    }

    private static String largest(Path folder) throws IOException {
        try (Stream<Path> s = Files.list(folder)) {
            return s.filter(Files::isRegularFile).max(java.util.Comparator.comparingLong(p -> p.toFile().length()))
                    .map(p -> p.getFileName().toString()).orElse("");
        }
    }

    private static long bytes(Path folder) throws IOException {
        try (Stream<Path> s = Files.walk(folder)) {
            return s.filter(Files::isRegularFile).mapToLong(p -> p.toFile().length()).sum();
        }
    }

    /** Deletes a folder that is unused; returns how many bytes it took. */
    public long clear(Unused u) throws IOException {
        delete(u.folder);
        return u.bytes;
    }

    static void delete(Path folder) throws IOException {
        if (!Files.exists(folder)) return;
        List<Path> all;
        try (Stream<Path> s = Files.walk(folder)) {
            all = s.sorted(java.util.Comparator.reverseOrder()).toList();
        }
        for (Path p : all) Files.deleteIfExists(p);
    }
}
