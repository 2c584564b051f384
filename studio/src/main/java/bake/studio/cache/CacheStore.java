package bake.studio.cache;

import bake.core.path.BounceSettings;
import bake.core.solve.Caches;
import bake.formats.light.CacheFile;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.render.EngineSettings;
import bake.studio.render.Fingerprint;
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
 * A folder of caches of light: for each light of a project one file of each kind, which serve all its views. A cache that was computed from
 * something else than what is there now, or in another way, is never used silently. One that is locked is used, but neither replaced nor
 * cleared.
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
    public record Entry(Path file, String kind, long rows, long bytes, Map<String, String> words, List<String> changed, String problem,
            boolean locked) {
        public boolean fits() {
            return problem == null && changed.isEmpty();
        }
    }

    private static Path file(Path folder, String kind, Fingerprint f) {
        return folder.resolve(kind + "-" + f.light().substring(0, 12) + ".cache");
    }

    /** All files of the folder, by name. */
    public List<Entry> list() throws IOException {
        return list(null, null);
    }

    /**
     * The same, each compared with a project and a view of it.
     *
     * @param how bounced light is to be computed
     */
    public List<Entry> list(Project p, Path projectFolder, View v, BounceSettings how) throws IOException {
        // Naming what is there takes a walk over the model's files; without caches nobody asks.
        return Files.isDirectory(folder) ? list(Fingerprint.of(p, projectFolder, v), how) : List.of();
    }

    private List<Entry> list(Fingerprint now, BounceSettings how) throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        List<Entry> out = new ArrayList<>();
        try (Stream<Path> s = Files.list(folder)) {
            for (Path f : s.filter(CacheFile::named).sorted().toList()) out.add(entry(f, now, how));
        }
        return out;
    }

    private static Entry entry(Path f, Fingerprint now, BounceSettings how) throws IOException {
        long bytes = Files.size(f);
        try {
            CacheFile.Head h = CacheFile.head(f);
            return new Entry(f, h.kind(), h.rows(), bytes, h.words(), now == null ? List.of() : changed(now, h, how), null,
                    Files.exists(lock(f)));
        } catch (IOException e) {
            return new Entry(f, "", 0, bytes, Map.of(), List.of(), e.getMessage(), Files.exists(lock(f)));
        }
    }

    /** Portals are only ways to look for light; what is there does not depend on them. */
    private static List<String> changed(Fingerprint now, CacheFile.Head h, BounceSettings how) {
        List<String> out = new ArrayList<>(now.changedFrom(h.words()).stream().filter(w -> !w.equals("the portals")).toList());
        if (!solver(h.kind(), how).equals(h.words().getOrDefault("solver", ""))) out.add("how it is computed");
        return out;
    }

    /** What of the settings a cache of a kind depends on. */
    private static String solver(String kind, BounceSettings how) {
        // Files of before were gathered under the clamp of a picture, or with wider gloss, and are too dark.
        String caustics = "caustics " + how.caustics().word() + ", unclamped, sharp gloss";
        return switch (kind) {
            case "radiance" -> caustics;
            case "irradiance" -> "later bounces " + how.later().word() + ", surroundings " + (how.cachedSurroundings() ? "in it" : "apart")
                    + ", " + caustics;
            default -> how.photons() + " photons around the eye";
        };
    }

    private static Path lock(Path cache) {
        return cache.resolveSibling(cache.getFileName() + ".locked");
    }

    /** Locks all caches of the folder, or unlocks them. */
    public void lock(boolean on) throws IOException {
        for (Entry e : list()) {
            if (!on) Files.deleteIfExists(lock(e.file));
            else if (!e.locked) Files.createFile(lock(e.file));
        }
    }

    /**
     * The caches that fit a view, none where there are none. One that cannot be read is as good as none.
     *
     * @param anyway whether those of other light are taken too, where there are none that fit: for a look
     */
    public Caches fitting(Project p, Path projectFolder, View v, BounceSettings how, boolean anyway) throws IOException {
        Caches out = Caches.NONE;
        List<Entry> all = new ArrayList<>(list(p, projectFolder, v, how));
        // Those that fit come last and win.
        all.sort(java.util.Comparator.comparing(Entry::fits));
        for (Entry e : all) {
            if (!e.fits() && !(anyway && e.problem == null)) continue;
            try {
                CacheFile.Kept k = CacheFile.read(e.file);
                boolean sharp = k.head().kind().equals("caustics");
                out = new Caches(k.cells() != null ? k.cells() : out.cells(), k.records() != null ? k.records() : out.records(),
                        k.photons() != null && !sharp ? k.photons() : out.photons(), sharp ? k.photons() : out.caustics());
            } catch (IOException damaged) {
                continue;
            }
        }
        return out;
    }

    /** The store that pictures of a preset begin with in a project; null for presets that trace everything. */
    public static CacheStore of(Path projectFolder, Preset preset) {
        return EngineSettings.bounced(preset).cached() || EngineSettings.bounced(preset).caustics() == BounceSettings.Caustics.PHOTON_MAP
                ? of(projectFolder) : null;
    }

    /** Keeps what a picture of a view has cached, in place of what there was of the same light. */
    public void keep(Project p, Path projectFolder, View v, BounceSettings how, Caches c) throws IOException {
        Fingerprint f = Fingerprint.of(p, projectFolder, v);
        Map<String, String> words = new TreeMap<>(f.words());
        words.put("view", v.name());
        words.put("kept", LocalDateTime.now().truncatedTo(ChronoUnit.MINUTES).toString());
        if (c.cells() != null && c.cells().cells() > 0) write("radiance", f, how, words, file -> CacheFile.write(file, c.cells(), words));
        if (c.records() != null && c.records().records() > 0)
            write("irradiance", f, how, words, file -> CacheFile.write(file, c.records(), words));
        if (c.photons() != null && c.photons().photons() > 0)
            write("photons", f, how, words, file -> CacheFile.write(file, c.photons(), false, words));
        if (c.caustics() != null && c.caustics().photons() > 0)
            write("caustics", f, how, words, file -> CacheFile.write(file, c.caustics(), true, words));
    }

    /**
     * Keeps what a final has cached for the next views of its light, where it holds clearly more than what is kept: what a later picture
     * begins with, and goes on from after a stop, must not change because the same was computed again.
     */
    public void keepMore(Project p, Path projectFolder, View v, BounceSettings how, Caches c) throws IOException {
        Map<String, Long> kept = new TreeMap<>();
        for (Entry e : list(p, projectFolder, v, how)) if (e.fits()) kept.put(e.kind, e.rows);
        // Records say whether anything new was seen; cells grow with every round.
        boolean more = c.records() != null ? more(c.records().records(), kept.get("irradiance"), 1.1)
                : c.cells() != null && more(c.cells().cells(), kept.get("radiance"), 2);
        keep(p, projectFolder, v, how, new Caches(more || !kept.containsKey("radiance") ? c.cells() : null, more ? c.records() : null,
                kept.containsKey("photons") ? null : c.photons(), kept.containsKey("caustics") ? null : c.caustics()));
    }

    private static boolean more(long rows, Long kept, double factor) {
        return kept == null || rows > factor * kept;
    }

    private interface Writer {
        void write(Path file) throws IOException;
    }

    private void write(String kind, Fingerprint f, BounceSettings how, Map<String, String> words, Writer w) throws IOException {
        Path file = file(folder, kind, f);
        if (Files.exists(lock(file))) return;
        words.put("solver", solver(kind, how));
        w.write(file);
    }

    /** Deletes the caches of the folder that are not locked; returns how many bytes they took. */
    public long clear() throws IOException {
        long bytes = 0;
        for (Entry e : list()) {
            if (e.locked) continue;
            bytes += e.bytes;
            Files.deleteIfExists(e.file);
        }
        return bytes;
    }

    /** Names what a picture that begins with the caches of a view begins with; empty for none. */
    public String stamp(Project p, Path projectFolder, View v, BounceSettings how) throws IOException {
        StringBuilder out = new StringBuilder();
        for (Entry e : list(p, projectFolder, v, how)) if (e.fits())
            out.append(e.file.getFileName()).append(' ').append(e.bytes).append(' ').append(Files.getLastModifiedTime(e.file).toMillis())
                    .append('\n');
        return out.toString();
    }
}
