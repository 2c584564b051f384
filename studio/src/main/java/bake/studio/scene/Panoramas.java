package bake.studio.scene;

import bake.core.light.Dome;
import bake.core.light.PanoramaEdits;
import bake.core.scene.Panorama;
import bake.core.scene.Surroundings;
import bake.formats.FormatException;
import bake.formats.SafePath;
import bake.formats.model.Finding;
import bake.formats.picture.PanoramaReader;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** The panoramas of a project, read once, and what views make of them. */
final class Panoramas {
    /** How many that were read, and how many that were worked on, are kept. */
    private static final int KEPT = 3;

    private final Path folder;
    private final Map<String, Panorama> read = kept(), graded = kept();
    private final Map<Panorama, PanoramaEdits.Parted> parted = kept();
    private final Map<Panorama, Double> level = kept();

    /** Values of each file that were no finite numbers. */
    private final Map<String, Long> broken = new ConcurrentHashMap<>();

    Panoramas(Path folder) {
        this.folder = folder;
    }

    List<Finding> findings() {
        return broken.entrySet().stream().filter(e -> e.getValue() > 0).map(e -> new Finding(Finding.Kind.BROKEN_VALUES, e.getKey(),
                e.getValue() + (e.getValue() == 1 ? " value is no number; it is" : " values are no numbers; they are")
                        + " taken as black, endless ones as very bright")).toList();
    }

    private static <K, V> Map<K, V> kept() {
        return new LinkedHashMap<>(8, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> e) {
                return size() > KEPT;
            }
        };
    }

    /** The surroundings of a view with an HDRI. */
    synchronized Surroundings.Hdri hdri(Project project, View view, View.Around a) throws IOException {
        if (a.file() == null) throw new FormatException("project.json", "view '" + view.name() + "'",
                "uses an HDRI but names no file; choose one on the Light station");
        Panorama p = read.get(a.file());
        if (p == null) read.put(a.file(), p = PanoramaReader.read(SafePath.inside(folder, a.file(), "project.json"), d -> {}, () -> false,
                odd -> broken.put(a.file(), odd)));
        double gamma = a.or(a.gamma(), 1), saturation = a.or(a.saturation(), 1);
        Panorama whole = p;
        if (gamma != 1 || saturation != 1) {
            String key = a.file() + " " + gamma + " " + saturation;
            whole = graded.get(key);
            if (whole == null) graded.put(key, whole = PanoramaEdits.graded(p, gamma, saturation));
        }
        double factor = Math.pow(2, a.or(a.skyStops(), 0));
        if (a.lux() != null) {
            Double now = level.get(whole);
            if (now == null) level.put(whole, now = new Dome(whole, 1, 0).horizontalIlluminance());
            if (now > 0) factor *= a.lux() / now;
        }
        Surroundings.PanoramaSun sun = null;
        if (a.takesSunOut()) {
            PanoramaEdits.Parted parts = parted.get(whole);
            if (!parted.containsKey(whole)) parted.put(whole, parts = PanoramaEdits.sunOut(whole, Surroundings.SunSky.SUN_DEGREES));
            if (parts != null) {
                whole = parts.rest();
                sun = new Surroundings.PanoramaSun(parts.sun().towards(), parts.sun().lux().times(Math.pow(2, a.or(a.sunStops(), 0))),
                        a.or(a.sunSize(), Surroundings.SunSky.SUN_DEGREES));
            }
        }
        return new Surroundings.Hdri(whole, a.or(a.rotation(), 0) + project.place().north(), a.or(a.tilt(), 0), a.or(a.roll(), 0), factor,
                sun);
    }
}
