package bake.studio.project;

import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.stream.Stream;

/**
 * Work on a project that was never saved: each piece lies in a file of its own beside it until somebody decides on it. Used from one
 * thread.
 */
final class Recoveries {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss");

    /** @param made local time, ISO 8601 */
    record Piece(Path file, Project project, String made) {}

    private final Path file;
    private final Deque<Piece> undecided = new ArrayDeque<>();

    /** @param file of the project */
    Recoveries(Path file) {
        this.file = file;
    }

    /** Sets an autosave that differs from the project aside, where no later one can take its place; nobody else may write meanwhile. */
    void setAside(Path autosave, Project saved) throws IOException {
        if (!Files.isRegularFile(autosave)) return;
        Project p;
        try {
            p = ProjectFile.read(autosave);
        } catch (IOException e) {
            // A broken autosave offers nothing; the project itself is whole.
            org.slf4j.LoggerFactory.getLogger(Recoveries.class).warn("autosave cannot be read: {}", e.getMessage());
            return;
        }
        if (same(p, saved)) Files.deleteIfExists(autosave);
        else move(autosave);
    }

    /** Which view was looked at is no work to bring back. */
    private static boolean same(Project a, Project b) {
        return ProjectFile.toJson(a.withCurrent(b.current())).equals(ProjectFile.toJson(b));
    }

    private void move(Path from) throws IOException {
        String time = TIME.format(LocalDateTime.ofInstant(Files.getLastModifiedTime(from).toInstant(), ZoneId.systemDefault()));
        for (int k = 1; ; k++) {
            try {
                Files.move(from, file.resolveSibling(String.format("project.recovered-%s-%02d.json", time, k)));
                return;
            } catch (FileAlreadyExistsException taken) {
                // of the same second
            }
        }
    }

    /** Keeps work that may not go into the project's own file. */
    void keep(Project p) throws IOException {
        Path temp = file.resolveSibling("project.rescued.json");
        ProjectFile.write(temp, p);
        move(temp);
    }

    /** Finds what is there, the newest first. */
    void look(Project saved) throws IOException {
        undecided.clear();
        List<Path> all;
        try (Stream<Path> s = Files.list(file.getParent())) {
            all = s.filter(p -> p.getFileName().toString().matches("project\\.recovered-.*\\.json"))
                    .sorted(Comparator.comparing(Path::getFileName).reversed()).toList();
        }
        for (Path f : all) {
            try {
                Project p = ProjectFile.read(f);
                if (same(p, saved)) continue;
                undecided.add(new Piece(f, p, LocalDateTime.ofInstant(Files.getLastModifiedTime(f).toInstant(), ZoneId.systemDefault())
                        .withNano(0).toString()));
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(Recoveries.class).warn("{} cannot be read: {}", f.getFileName(), e.getMessage());
            }
        }
    }

    /** The newest piece that nobody has decided on, or null. */
    Piece next() {
        return undecided.peek();
    }

    /** The newest piece has been decided on: its file goes. */
    void decided() throws IOException {
        Piece p = undecided.poll();
        if (p != null) Files.deleteIfExists(p.file);
    }

    /** The newest piece has been decided on, but its file stays until something else holds what is in it. */
    Piece taken() {
        return undecided.poll();
    }

    List<Project> all() {
        return undecided.stream().map(Piece::project).toList();
    }
}
