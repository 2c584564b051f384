package bake.studio.preset;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.SharedPreset;
import bake.formats.project.ShippedPresets;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/**
 * A folder of presets that a studio shares, without any server: a folder for each preset, in it a file for each version. Versions are only
 * ever added: a file gets its name by a link, which fails where another process was quicker, so that two who save at one moment both keep
 * what they saved. What is locked or no longer to be used stands beside in a file of its own.
 */
public final class PresetShelf {
    private static final String STATE = "state.json";
    private static final int MOST_VERSIONS = 100_000;
    /** Nobody writes so small a file for so long. */
    private static final Duration LEFT_OVER = Duration.ofMinutes(10);

    private static final int MOST_READ = 10_000;
    private static final Map<String, SharedPreset> READ = new ConcurrentHashMap<>();

    private final String name;
    private final Path folder;
    private final ShelfCopies copies;

    /**
     * @param name what the artist calls it
     * @param copies where the last known versions are kept for when the folder is away; null for nowhere
     */
    public PresetShelf(String name, Path folder, Path copies) {
        this.name = name;
        this.folder = folder;
        this.copies = copies == null ? null : new ShelfCopies(copies);
    }

    public String name() {
        return name;
    }

    public Path folder() {
        return folder;
    }

    /** Whether the folder cannot be reached, and what is listed is only what was known last. */
    public boolean away() {
        return copies != null && !Files.isDirectory(folder) && Files.isDirectory(copies.folder());
    }

    /**
     * A preset of the shelf.
     *
     * @param versions oldest first; those that are damaged are left out
     * @param locked who locked it against new versions, or null
     * @param retired of each version that is no longer to be used what to use instead, by number
     */
    public record Entry(String name, List<SharedPreset> versions, String locked, Map<Integer, String> retired) {
        public SharedPreset newest() {
            return versions.getLast();
        }

        /** The newest that is not retired, or the newest of all. */
        public SharedPreset current() {
            return versions.stream().filter(v -> !retired.containsKey(v.preset().version())).reduce((a, b) -> b).orElseGet(this::newest);
        }

        /** A version by its number, or null. */
        public SharedPreset version(int n) {
            return versions.stream().filter(v -> v.preset().version() == n).findFirst().orElse(null);
        }
    }

    /** All presets, by name. */
    public List<Entry> list() throws IOException {
        Path from = !away() ? folder : copies == null ? null : copies.folder();
        List<Entry> out = new ArrayList<>();
        if (from == null || !Files.isDirectory(from)) return out;
        try (Stream<Path> all = Files.list(from)) {
            for (Path p : all.filter(Files::isDirectory).toList()) {
                Entry e = entry(p);
                if (e != null) out.add(e);
            }
        }
        out.sort(Comparator.comparing(e -> e.name().toLowerCase(Locale.ROOT)));
        if (copies != null && !away()) copies.keep(folder, out);
        return out;
    }

    /** The preset of a name, whatever its case; null where there is none. */
    public Entry find(String wanted) throws IOException {
        Path from = !away() ? folder : copies == null ? null : copies.folder();
        Entry e = from == null ? null : entry(from.resolve(folderName(wanted)));
        if (e != null && copies != null && !away()) copies.keep(folder, List.of(e));
        return e;
    }

    private static Entry entry(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return null;
        List<SharedPreset> versions = new ArrayList<>();
        try (Stream<Path> s = Files.list(folder)) {
            for (Path f : s.filter(x -> x.getFileName().toString().matches("v\\d{1,6}\\.json")).sorted().toList()) {
                try {
                    SharedPreset p = read(f);
                    if (p.preset().version() == number(f)) versions.add(p);
                } catch (IOException e) {
                    org.slf4j.LoggerFactory.getLogger(PresetShelf.class).warn("{} is passed over: {}", f, e.getMessage());
                }
            }
        }
        if (versions.isEmpty()) return null;
        versions.sort(Comparator.comparingInt(v -> v.preset().version()));
        JsonNode state = state(folder);
        Map<Integer, String> retired = new java.util.TreeMap<>();
        state.path("retired").properties().forEach(e -> {
            if (e.getKey().matches("\\d{1,6}")) retired.put(Integer.parseInt(e.getKey()), e.getValue().asText());
        });
        String locked = state.path("locked").asText(null);
        return new Entry(versions.getLast().preset().name(), List.copyOf(versions), locked, Map.copyOf(retired));
    }

    /** Versions never change: one that was read is known. */
    private static SharedPreset read(Path file) throws IOException {
        String key = file.toAbsolutePath() + " " + Files.size(file) + " " + Files.getLastModifiedTime(file).toMillis();
        SharedPreset p = READ.get(key);
        if (p == null) {
            p = SharedPreset.read(file);
            if (READ.size() > MOST_READ) READ.clear();
            READ.put(key, p);
        }
        return p;
    }

    private static int number(Path file) {
        return Integer.parseInt(file.getFileName().toString().replaceAll("\\D", ""));
    }

    private static JsonNode state(Path folder) throws IOException {
        Path f = folder.resolve(STATE);
        if (!Files.isRegularFile(f) || Files.size(f) > 1 << 20) return Json.MAPPER.createObjectNode();
        try {
            return Json.parse(Files.readString(f), STATE);
        } catch (IOException e) {
            return Json.MAPPER.createObjectNode();
        }
    }

    /**
     * The name of a preset's folder: letters, digits, blanks and a few signs as they are, small, since some file systems know no
     * others.
     */
    static String folderName(String preset) {
        StringBuilder b = new StringBuilder();
        for (byte c : preset.toLowerCase(Locale.ROOT).getBytes(StandardCharsets.UTF_8)) {
            boolean plain = c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == ' ' || c == ',' || c == '-' || c == '_';
            b.append(plain ? String.valueOf((char) c) : String.format("%%%02x", c & 255));
        }
        return b.toString();
    }

    /** Somebody saved a newer version than the one that was changed. */
    public static final class Conflict extends IOException {
        private static final long serialVersionUID = 1;
        private final transient SharedPreset base, theirs;

        Conflict(SharedPreset base, SharedPreset theirs) {
            super("version " + theirs.preset().version() + " of '" + theirs.preset().name() + "' was saved" + (theirs.author() == null ? ""
                    : " by " + theirs.author()) + " meanwhile; merge, keep both, or save under another name");
            this.base = base;
            this.theirs = theirs;
        }

        /** What both were made from, or null where it is not on the shelf. */
        public SharedPreset base() {
            return base;
        }

        public SharedPreset theirs() {
            return theirs;
        }
    }

    /**
     * Adds a version.
     *
     * @param p its preset's version is the one that it was made from; 0 for a preset that is new
     * @return what was saved, with its own version
     * @throws Conflict when there is a newer one than that
     * @throws FormatException when the preset is locked or the shelf away
     */
    public SharedPreset save(SharedPreset p, String reason, String author) throws IOException {
        Entry e = open(p.preset().name());
        int from = p.preset().version(), newest = e == null ? 0 : e.newest().preset().version();
        if (e != null && e.locked() != null) throw new FormatException(name, "preset '" + e.name() + "'", "is locked by " + e.locked()
                + "; save it under another name");
        if (newest > from || e != null && from == 0) throw new Conflict(base(e, from), e.newest());
        String when = LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString();
        int next = Math.max(newest, from) + 1;
        SharedPreset made = p.withPreset(p.preset().named(p.preset().name(), next)).told(reason, author, from == 0 ? null : from, when);
        if (!claim(made)) {
            Entry now = find(p.preset().name());
            // A half-written file of a process that was killed stands in the way, and is no version.
            if (now == null || now.newest().preset().version() < next) return save(p.withPreset(p.preset().named(p.preset().name(), next)),
                    reason, author);
            throw new Conflict(base(now, from), now.newest());
        }
        return made;
    }

    /** The version that a change was made from, on the shelf or of those that ship. */
    private static SharedPreset base(Entry e, int version) {
        SharedPreset there = e.version(version);
        return there != null || version == 0 ? there : ShippedPresets.find(e.name(), version);
    }

    /** Adds a version on top of whatever there is: for what was merged with the newest. */
    public SharedPreset saveOver(SharedPreset p, int over, String reason, String author) throws IOException {
        return save(p.withPreset(p.preset().named(p.preset().name(), over)), reason, author);
    }

    private Entry open(String preset) throws IOException {
        if (away()) throw gone();
        Entry e = find(preset);
        // An empty folder where a share is mounted usually.
        if (e == null && copies != null && entry(copies.folder().resolve(folderName(preset))) != null) throw gone();
        return e;
    }

    private FormatException gone() {
        return new FormatException(name, null, "is away: " + folder + " cannot be reached; save to another shelf meanwhile");
    }

    /** Gives a version its file; false where there is one already. */
    private boolean claim(SharedPreset p) throws IOException {
        int n = p.preset().version();
        if (n > MOST_VERSIONS) throw new FormatException(name, "preset '" + p.preset().name() + "'", "has too many versions");
        Path target = folder.resolve(folderName(p.preset().name())).resolve(String.format("v%04d.json", n));
        if (!Files.isDirectory(folder)) {
            // A share that was there and is not is not begun anew: what is saved there would be lost when it returns.
            if (copies != null && Files.isDirectory(copies.folder())) throw gone();
            Files.createDirectories(folder);
        }
        // Just this one folder: where the shelf goes away at this moment, that fails.
        try {
            if (!Files.isDirectory(target.getParent())) Files.createDirectory(target.getParent());
        } catch (FileAlreadyExistsException other) {
            // another process was quicker
        }
        if (Files.exists(target)) return false;
        sweep(target.getParent());
        Path part = AtomicFile.part(target);
        try {
            try (FileChannel c = FileChannel.open(part, StandardOpenOption.WRITE)) {
                ByteBuffer b = ByteBuffer.wrap(p.bytes());
                while (b.hasRemaining()) c.write(b);
                c.force(true);
            }
            try {
                Files.createLink(target, part);
            } catch (FileAlreadyExistsException taken) {
                return false;
            } catch (NoSuchFileException away) {
                throw gone();
            } catch (UnsupportedOperationException | IOException noLinks) {
                return plainly(target, p.bytes());
            }
            return true;
        } finally {
            Files.deleteIfExists(part);
        }
    }

    /** What processes that were killed have left. */
    private static void sweep(Path folder) throws IOException {
        FileTime old = FileTime.from(Instant.now().minus(LEFT_OVER));
        try (Stream<Path> all = Files.list(folder)) {
            for (Path p : all.filter(f -> f.getFileName().toString().endsWith(".part")).toList())
                if (Files.exists(p) && Files.getLastModifiedTime(p).compareTo(old) < 0) Files.deleteIfExists(p);
        }
    }

    /** Where the file system knows no links: the name is taken first and filled then; a kill between leaves a file that is passed over. */
    private static boolean plainly(Path target, byte[] bytes) throws IOException {
        try (FileChannel c = FileChannel.open(target, StandardOpenOption.WRITE, StandardOpenOption.CREATE_NEW)) {
            ByteBuffer b = ByteBuffer.wrap(bytes);
            while (b.hasRemaining()) c.write(b);
            c.force(true);
            return true;
        } catch (FileAlreadyExistsException taken) {
            return false;
        }
    }

    /** Locks a preset against new versions, or frees it for null. */
    public void lock(String preset, String who) throws IOException {
        change(preset, n -> {
            if (who == null) n.remove("locked");
            else n.put("locked", who);
        });
    }

    /** Says that a version is no longer to be used, and what is instead; null restores it. */
    public void retire(String preset, int version, String instead) throws IOException {
        change(preset, n -> {
            ObjectNode r = n.withObjectProperty("retired");
            if (instead == null) r.remove("" + version);
            else r.put("" + version, instead);
        });
    }

    private void change(String preset, java.util.function.Consumer<ObjectNode> how) throws IOException {
        Entry e = open(preset);
        if (e == null || away()) throw new FormatException(name, null, "has no preset '" + preset + "' that can be changed");
        Path at = folder.resolve(folderName(e.name()));
        ObjectNode n = (ObjectNode) state(at);
        how.accept(n);
        byte[] b = (Json.MAPPER.writeValueAsString(n) + "\n").getBytes(StandardCharsets.UTF_8);
        AtomicFile.write(at.resolve(STATE), o -> o.write(b));
    }

    /** A single file brought to the shelf: as the version it says where that is free, else as a conflict. */
    public SharedPreset bring(Path file, String author) throws IOException {
        SharedPreset p = SharedPreset.read(file);
        Entry e = open(p.preset().name());
        SharedPreset known = e == null ? null : e.version(p.preset().version());
        if (known != null && PresetChanges.between(known.preset(), p.preset()).isEmpty()) return known;
        return save(p.withPreset(p.preset().named(p.preset().name(), e == null ? 0 : Math.max(0, p.preset().version() - 1))),
                p.reason() == null ? "from a file" : p.reason(), p.author() == null ? author : p.author());
    }
}
