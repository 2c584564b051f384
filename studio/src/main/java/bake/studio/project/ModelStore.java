package bake.studio.project;

import bake.formats.AtomicFile;
import bake.formats.FolderSize;
import bake.formats.project.Project;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
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
    private static final int DIGITS = 12, MOST_FILES = 20_000, DEPTH = 3;
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

    /** A model's file and those beside and below it that it names, as far as they can be read. */
    public static Set<Path> parts(Path model) throws IOException {
        Path from = model.toAbsolutePath().getParent();
        Set<Path> out = new TreeSet<>(Set.of(model.toAbsolutePath()));
        if (model.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".glb")) return out;
        NamedFiles named = NamedFiles.in(model);
        if (!named.any()) return out;
        List<Path> near = near(from);
        for (Path p : near) if (named.names(p.getFileName().toString())) out.add(p);
        // Material files name pictures in their turn.
        for (Path p : List.copyOf(out)) {
            if (!p.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".mtl")) continue;
            NamedFiles inside = NamedFiles.in(p);
            for (Path q : near) if (inside.names(q.getFileName().toString())) out.add(q);
        }
        return out;
    }

    private static List<Path> near(Path from) throws IOException {
        List<Path> near = new ArrayList<>();
        Files.walkFileTree(from, Set.of(), DEPTH, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path p, BasicFileAttributes a) {
                if (a.isRegularFile() && !ours(from, p)) near.add(p.toAbsolutePath());
                return near.size() < MOST_FILES ? FileVisitResult.CONTINUE : FileVisitResult.TERMINATE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path p, IOException e) {
                // A folder that nobody may look into holds nothing of this model.
                return FileVisitResult.CONTINUE;
            }
        });
        return near;
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
                if (used.stream().noneMatch(u -> u.startsWith(prefix)))
                    out.add(new Unused(f, largest(f), FolderSize.bytes(f, Integer.MAX_VALUE)));
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
