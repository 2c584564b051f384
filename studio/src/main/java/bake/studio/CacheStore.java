package bake.studio;

import bake.core.solve.Caches;
import bake.formats.light.CacheFile;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * A folder of caches of light: for each light of a project one file of cells and one of records, which serve all its views. A cache that was computed
 * from something else than what is there now is never used silently.
 */
public final class CacheStore {
    private final Path folder;

    public CacheStore(Path folder) {
        this.folder = folder;
    }

    /** Where a project's window keeps them. */
    public static CacheStore of(Path projectFolder) {
        return new CacheStore(projectFolder.resolve("caches"));
    }

    public Path folder() {
        return folder;
    }

    /**
     * One file of the folder.
     *
     * @param changed what has changed since it was computed, against some project and view; it is used only when that is empty
     * @param problem why it cannot be read, else null; then all else but the bytes says nothing
     */
    public record Entry(Path file, String kind, long rows, long bytes, Map<String, String> words, List<String> changed, String problem) {
        public boolean fits() {
            return problem == null && changed.isEmpty();
        }
    }

    private static Path file(Path folder, String kind, Fingerprint f) {
        return folder.resolve(kind + "-" + f.light().substring(0, 12) + ".cache");
    }

    /** All files of the folder, by name. */
    public List<Entry> list() throws IOException {
        return list(null);
    }

    /** The same, each compared with a project and a view of it. */
    public List<Entry> list(Project p, Path projectFolder, View v) throws IOException {
        // Naming what is there takes a walk over the model's files; without caches nobody asks.
        return Files.isDirectory(folder) ? list(Fingerprint.of(p, projectFolder, v)) : List.of();
    }

    private List<Entry> list(Fingerprint now) throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        List<Entry> out = new ArrayList<>();
        try (Stream<Path> s = Files.list(folder)) {
            for (Path f : s.filter(CacheFile::named).sorted().toList()) out.add(entry(f, now));
        }
        return out;
    }

    private static Entry entry(Path f, Fingerprint now) throws IOException {
        long bytes = Files.size(f);
        try {
            CacheFile.Head h = CacheFile.head(f);
            return new Entry(f, h.kind(), h.rows(), bytes, h.words(), now == null ? List.of() : changed(now, h.words()), null);
        } catch (IOException e) {
            return new Entry(f, "", 0, bytes, Map.of(), List.of(), e.getMessage());
        }
    }

    /** Portals are only ways to look for light; what is there does not depend on them. */
    private static List<String> changed(Fingerprint now, Map<String, String> words) {
        return now.changedFrom(words).stream().filter(w -> !w.equals("the portals")).toList();
    }

    /** The caches that fit a view, none where there are none. One that cannot be read is as good as none. */
    public Caches fitting(Project p, Path projectFolder, View v) throws IOException {
        Caches out = Caches.NONE;
        for (Entry e : list(p, projectFolder, v)) {
            if (!e.fits()) continue;
            try {
                CacheFile.Kept k = CacheFile.read(e.file);
                out = new Caches(k.cells() != null ? k.cells() : out.cells(), k.records() != null ? k.records() : out.records());
            } catch (IOException damaged) {
                continue;
            }
        }
        return out;
    }

    /** The store that pictures of a preset begin with in a project; null for presets that trace everything. */
    public static CacheStore of(Path projectFolder, Preset preset) {
        return preset.firstBounce() == null && preset.laterBounces() == null ? null : of(projectFolder);
    }

    /** Keeps what a picture of a view has cached, in place of what there was of the same light. */
    public void keep(Project p, Path projectFolder, View v, Caches c) throws IOException {
        Fingerprint f = Fingerprint.of(p, projectFolder, v);
        Map<String, String> words = new TreeMap<>(f.words());
        words.put("view", v.name());
        words.put("kept", LocalDateTime.now().truncatedTo(ChronoUnit.MINUTES).toString());
        if (c.cells() != null && c.cells().cells() > 0) CacheFile.write(file(folder, "radiance", f), c.cells(), words);
        if (c.records() != null && c.records().records() > 0) CacheFile.write(file(folder, "irradiance", f), c.records(), words);
    }

    /** Deletes caches, all of the folder; returns how many bytes they took. */
    public long clear() throws IOException {
        long bytes = 0;
        for (Entry e : list()) {
            bytes += e.bytes;
            Files.deleteIfExists(e.file);
        }
        return bytes;
    }

    /** Names what a picture that begins with the caches of a view begins with; empty for none. */
    String stamp(Project p, Path projectFolder, View v) throws IOException {
        StringBuilder out = new StringBuilder();
        for (Entry e : list(p, projectFolder, v)) if (e.fits()) out.append(e.file.getFileName()).append(' ').append(e.bytes).append(' ').append(Files.getLastModifiedTime(e.file).toMillis()).append('\n');
        return out.toString();
    }
}
