package bake.studio.look;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.project.SavedLook;
import bake.studio.preset.PresetShelf;
import bake.studio.preset.Shelves;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * Looks in the folder "looks" of a shelf: a file for each version, which is only ever added. It gets its name by a link, so that two who save
 * at one moment both keep theirs.
 *
 * @param name of the shelf
 */
public record LookShelf(String name, Path folder) {
    private static final int MOST = 1000;
    private static final long MOST_BYTES = 1 << 20;
    private static final String ENDING = ".look.json";

    /** The shelves that are looked at: the project's, the artist's, the studio's. */
    public static List<LookShelf> all(Path project) {
        List<LookShelf> out = new ArrayList<>();
        for (PresetShelf s : Shelves.of(project, null).all()) out.add(new LookShelf(s.name(), s.folder().resolve("looks")));
        return out;
    }

    /** The newest version of each look, by name; of several shelves the first has its way. Files that are none are passed over. */
    public static List<SavedLook> current(List<LookShelf> shelves) {
        TreeMap<String, SavedLook> out = new TreeMap<>();
        for (LookShelf s : shelves) {
            TreeMap<String, SavedLook> own = new TreeMap<>();
            for (SavedLook l : s.versions()) own.merge(l.name().toLowerCase(Locale.ROOT), l, (a, b) -> a.version() > b.version() ? a : b);
            own.forEach(out::putIfAbsent);
        }
        return List.copyOf(out.values());
    }

    /** All versions of all looks. */
    public List<SavedLook> versions() {
        List<SavedLook> out = new ArrayList<>();
        if (!Files.isDirectory(folder)) return out;
        try (Stream<Path> files = Files.list(folder)) {
            for (Path p : files.filter(f -> f.getFileName().toString().endsWith(ENDING)).limit(MOST).toList()) {
                try {
                    out.add(read(p));
                } catch (IOException e) {
                    org.slf4j.LoggerFactory.getLogger(LookShelf.class).warn("{}", e.getMessage());
                }
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(LookShelf.class).warn("looks of {}: {}", folder, e.getMessage());
        }
        out.sort(Comparator.comparing((SavedLook l) -> l.name().toLowerCase(Locale.ROOT)).thenComparing(SavedLook::version));
        return out;
    }

    /** @throws FormatException when a file is no look */
    public static SavedLook read(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (Files.size(file) > MOST_BYTES) throw new FormatException(name, null, "is larger than any look");
        return SavedLook.parse(Files.readString(file), name);
    }

    /** A look by its name, whatever its case, newest version; null where there is none. */
    public SavedLook find(String wanted) {
        return versions().stream().filter(l -> l.name().equalsIgnoreCase(wanted)).reduce((a, b) -> b).orElse(null);
    }

    /**
     * Keeps a look as the next version of its name.
     *
     * @return it with its number
     * @throws IllegalArgumentException for a name that cannot be one of a file
     */
    public SavedLook save(SavedLook look, String author, String reason) throws IOException {
        String plain = look.name().strip();
        if (plain.isEmpty() || plain.length() > 60) throw new IllegalArgumentException("A look needs a name of 1 to 60 letters.");
        Files.createDirectories(folder);
        SavedLook before = find(plain);
        for (int v = before == null ? 1 : before.version() + 1; ; v++) {
            SavedLook l = new SavedLook(plain, v, author, reason, look.curve(), look.whiteBalance(), look.finish());
            Path target = folder.resolve(plain.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-") + ".v" + v + ENDING);
            Path part = AtomicFile.part(target);
            try {
                Files.write(part, l.text().getBytes(StandardCharsets.UTF_8));
                try {
                    Files.createLink(target, part);
                } catch (UnsupportedOperationException e) {
                    Files.copy(part, target);
                }
                AtomicFile.sync(folder);
                return l;
            } catch (FileAlreadyExistsException taken) {
                // Somebody was quicker: theirs stays, this one is the next.
            } finally {
                Files.deleteIfExists(part);
            }
        }
    }
}
