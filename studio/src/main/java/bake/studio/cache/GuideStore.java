package bake.studio.cache;

import bake.core.guide.Guides;
import bake.formats.light.GuideFile;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.render.Fingerprint;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/**
 * The guides that a project keeps, one file for each view. A guide that was learnt from something else than what is there now is never
 * used.
 */
public final class GuideStore {
    private final Path folder, store;

    public GuideStore(Path projectFolder) {
        this(projectFolder, projectFolder.resolve("guides"));
    }

    /** Guides of a project that are kept elsewhere. */
    public GuideStore(Path projectFolder, Path store) {
        folder = projectFolder;
        this.store = store;
    }

    /**
     * A view's kept guide.
     *
     * @param changed what has changed since it was learnt; it is used only when that is empty
     */
    public record Kept(Guides guides, String when, int passes, List<String> changed) {
        public boolean fits() {
            return changed.isEmpty();
        }
    }

    /** Where a view's guide lies. */
    public Path file(View v) {
        String name = v.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
        // Names that look alike once they are cleaned must not share a file.
        return store.resolve(name + "-" + Integer.toHexString(v.name().hashCode()) + ".guide");
    }

    /** Keeps what a job of a view has learnt; false when it learnt nothing. */
    public boolean keep(Project p, View v, Guides learnt, int passes) throws IOException {
        if (learnt == null) return false;
        Map<String, String> words = new TreeMap<>(Fingerprint.of(p, folder, v).words());
        words.put("view", v.name());
        words.put("kept", LocalDateTime.now().truncatedTo(ChronoUnit.MINUTES).toString());
        words.put("passes", Integer.toString(passes));
        GuideFile.write(file(v), new GuideFile.Kept(words, learnt));
        return true;
    }

    /**
     * The guide that is kept for a view, or null when there is none.
     *
     * @throws IOException when it cannot be read; it is best forgotten then
     */
    public Kept find(Project p, View v) throws IOException {
        Path f = file(v);
        if (!Files.isRegularFile(f)) return null;
        GuideFile.Kept k = GuideFile.read(f);
        List<String> changed = new ArrayList<>(Fingerprint.of(p, folder, v).changedFrom(k.words()));
        if (!v.name().equals(k.words().get("view"))) changed.addFirst("the view");
        String passes = k.words().getOrDefault("passes", "");
        return new Kept(k.guides(), k.words().getOrDefault("kept", ""), passes.matches("\\d{1,9}") ? Integer.parseInt(passes) : 0,
                List.copyOf(changed));
    }

    /** The guide to begin a picture of a view with: one that is kept and fits, or null. One that cannot be read is as good as none. */
    public Guides fitting(Project p, View v) {
        try {
            Kept k = find(p, v);
            return k != null && k.fits() ? k.guides() : null;
        } catch (IOException e) {
            return null;
        }
    }

    public void forget(View v) throws IOException {
        Files.deleteIfExists(file(v));
    }
}
