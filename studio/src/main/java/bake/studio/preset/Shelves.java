package bake.studio.preset;

import bake.formats.AtomicFile;
import bake.formats.project.Preset;
import bake.formats.project.SharedPreset;
import bake.formats.project.ShippedPresets;
import bake.studio.user.UserFolders;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;

/**
 * The shelves that are looked at, in their order: the project's own, the artist's, the studio's. The first that has a preset of a name
 * gives it.
 */
public record Shelves(List<PresetShelf> all) {
    /** Names the studio's shelf where the artist has not chosen one. */
    public static final String STUDIO = "BAKE_SHELF";

    /**
     * @param project its folder, or null
     * @param studio the studio's shelf, or null for that of the environment
     */
    public static Shelves of(Path project, Path studio) {
        List<PresetShelf> out = new ArrayList<>();
        if (project != null) out.add(new PresetShelf("project", project.resolve("presets"), null));
        out.add(own());
        Path s = studio != null ? studio : studioFolder();
        if (s != null) out.add(studio(s));
        return new Shelves(List.copyOf(out));
    }

    /** The studio's shelf: that of the environment, or the one that was chosen; null for none. */
    public static Path studioFolder() {
        String env = System.getenv(STUDIO);
        try {
            if (env != null && !env.isBlank()) return Path.of(env);
            Path f = chosen();
            return Files.isRegularFile(f) && Files.size(f) < 4096 ? Path.of(Files.readString(f).strip()) : null;
        } catch (IOException | InvalidPathException e) {
            return null;
        }
    }

    /** Remembers where the studio's shelf is. */
    public static void chooseStudio(Path folder) throws IOException {
        byte[] b = (folder.toAbsolutePath() + "\n").getBytes(StandardCharsets.UTF_8);
        AtomicFile.write(chosen(), o -> o.write(b));
    }

    private static Path chosen() {
        return UserFolders.settings().resolve("studio-shelf.txt");
    }

    /** The artist's own shelf. */
    public static PresetShelf own() {
        return new PresetShelf("own", UserFolders.settings().resolve("presets"), null);
    }

    /** A studio's shelf, with copies of what was last known of it. */
    public static PresetShelf studio(Path folder) {
        String id = UUID.nameUUIDFromBytes(folder.toAbsolutePath().normalize().toString().getBytes(StandardCharsets.UTF_8)).toString();
        return new PresetShelf("studio", folder, UserFolders.cache().resolve("shelves").resolve(id));
    }

    /** Where a preset was found. */
    public record Found(PresetShelf shelf, PresetShelf.Entry entry) {}

    /** The preset of a name on the first shelf that has it; null for none. */
    public Found find(String name) throws IOException {
        for (PresetShelf s : all) {
            PresetShelf.Entry e = s.find(name);
            if (e != null) return new Found(s, e);
        }
        return null;
    }

    /** The presets in use of all shelves, those of earlier shelves first. */
    public List<Preset> current() {
        List<Preset> out = new ArrayList<>();
        for (PresetShelf s : all) {
            try {
                for (PresetShelf.Entry e : s.list())
                    if (out.stream().noneMatch(p -> p.name().equalsIgnoreCase(e.name()))) out.add(e.current().preset());
            } catch (IOException x) {
                org.slf4j.LoggerFactory.getLogger(Shelves.class).warn("shelf {}: {}", s.folder(), x.getMessage());
            }
        }
        return out;
    }

    /** What is said about a preset of this version, where it is on a shelf or ships; null for nothing. */
    public SharedPreset about(Preset p) {
        try {
            Found f = find(p.name());
            SharedPreset s = f == null ? null : f.entry.version(p.version());
            return s != null ? s : ShippedPresets.find(p.name(), p.version());
        } catch (IOException e) {
            return ShippedPresets.find(p.name(), p.version());
        }
    }

    /** A newer version than a preset that is used, on the shelf that it is on; null for none. */
    public SharedPreset newer(Preset used) {
        try {
            Found f = find(used.name());
            return f == null || f.entry.current().preset().version() <= used.version() ? null : f.entry.current();
        } catch (IOException e) {
            return null;
        }
    }
}
