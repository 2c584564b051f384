package bake.studio.user;

import bake.formats.AtomicFile;
import bake.formats.Json;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The projects that this user opened last, in a small file of the user's; one that is gone is passed over. */
public final class RecentProjects {
    private static final int MOST = 10;
    private static final long LARGEST = 1 << 16;
    private final Path file;

    /** The user's own list. */
    public RecentProjects() {
        this(UserFolders.settings().resolve("recent.json"));
    }

    public RecentProjects(Path file) {
        this.file = file;
    }

    /** Folders of projects, the last first. */
    public List<Path> list() {
        List<Path> out = new ArrayList<>();
        try {
            if (!Files.isRegularFile(file) || Files.size(file) > LARGEST) return out;
            for (var n : Json.MAPPER.readTree(Files.readString(file))) {
                Path p = Path.of(n.asText());
                if (Files.isRegularFile(p.resolve("project.json")) && !out.contains(p)) out.add(p);
            }
        } catch (IOException | InvalidPathException e) {
            // A list that cannot be read is no reason not to work.
            return out;
        }
        return out;
    }

    /** A project was opened. */
    public void opened(Path folder) throws IOException {
        List<Path> all = list();
        Path p = folder.toAbsolutePath().normalize();
        all.remove(p);
        all.addFirst(p);
        var array = Json.MAPPER.createArrayNode();
        all.stream().limit(MOST).forEach(x -> array.add(x.toString()));
        byte[] b = Json.MAPPER.writeValueAsBytes(array);
        AtomicFile.write(file, o -> o.write(b));
    }
}
