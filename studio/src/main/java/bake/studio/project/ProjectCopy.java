package bake.studio.project;

import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Set;

/** A copy of a project that needs nothing of the first: the project as it is now, its models, light, proofs and caches. */
public final class ProjectCopy {
    /** Finals and what is needed to go on with them stay where they were promised. */
    private static final Set<String> LEFT = Set.of("finals", "deliver");

    private ProjectCopy() {}

    /**
     * Makes the copy. A folder that is half copied bears another name until it is whole.
     *
     * @param p the project as it is to be in the copy
     * @param from folder of the project
     * @param to folder that is made; there must be nothing of its name
     */
    public static void make(Project p, Path from, Path to) throws IOException {
        Path target = to.toAbsolutePath().normalize(), source = from.toAbsolutePath().normalize();
        if (Files.exists(target)) throw new FormatException(target.toString(), null, "is there already; choose another name for the copy");
        if (target.startsWith(source)) throw new FormatException(target.toString(), null, "lies within the project that is copied; choose another folder");
        Path half = target.resolveSibling(target.getFileName() + ".part");
        ModelStore.delete(half);
        try {
            copy(source, Files.createDirectories(half));
            ProjectFile.write(half.resolve("project.json"), p);
            Files.move(half, target);
        } finally {
            ModelStore.delete(half);
        }
    }

    private static void copy(Path source, Path into) throws IOException {
        Files.walkFileTree(source, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path d, BasicFileAttributes a) throws IOException {
                if (d.getParent().equals(source) && LEFT.contains(d.getFileName().toString())) return FileVisitResult.SKIP_SUBTREE;
                Files.createDirectories(into.resolve(source.relativize(d)));
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path f, BasicFileAttributes a) throws IOException {
                String n = f.getFileName().toString();
                boolean own = f.getParent().equals(source) && n.matches("project([.].*)?[.]json");
                boolean passing = n.endsWith(".part") || n.endsWith(".unfinished") || n.equals(ProjectLock.NAME) || n.equals(ProjectLock.NAMED);
                if (a.isRegularFile() && !own && !passing) Files.copy(f, into.resolve(source.relativize(f)));
                return FileVisitResult.CONTINUE;
            }
        });
    }
}
