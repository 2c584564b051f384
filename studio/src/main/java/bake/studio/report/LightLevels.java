package bake.studio.report;

import bake.core.compiled.RenderScene;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.work.Workers;
import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Illuminance at chosen places under a view's light, by path tracing and not from the picture. */
public final class LightLevels {
    private static final int PATHS = 8192;
    private static final long SEED = 5;
    /** How far a meter stands off the surface it was put on, metres. */
    private static final double OFF = 1e-3;

    /**
     * A reading.
     *
     * @param lux illuminance, {@code error} its standard error, lx
     */
    public record Level(String name, double lux, double error) {
        /** In words, to the digits that are known. */
        public String words() {
            double step = Math.pow(10, Math.floor(Math.log10(Math.max(1e-3, error))));
            return String.format(Locale.ROOT, step >= 1 ? "%s %.0f lx" : step >= 0.1 ? "%s %.1f lx" : "%s %.2f lx", name, Math.round(lux / step) * step);
        }
    }

    private LightLevels() {}

    /** @return one for each point, in their order */
    public static List<Level> at(Project p, View v, Path folder, List<DeliverySpec.Point> points) throws IOException {
        if (points.isEmpty()) return List.of();
        RenderScene scene = RenderScene.compile(new SceneAssembly(folder).scene(p, v), null, Workers.COMPILING, HierarchyCache.shared());
        Level[] out = new Level[points.size()];
        try (Workers w = new Workers(Runtime.getRuntime().availableProcessors())) {
            w.run(out.length, (worker, i) -> {
                DeliverySpec.Point x = points.get(i);
                Vec3 n = x.facing() == null ? Vec3.UP : new Vec3(x.facing()[0], x.facing()[1], x.facing()[2]).normalized();
                LightMeter.Reading r = new LightMeter(scene, LightMeter.ALL).measure(new Vec3(x.at()[0], x.at()[1], x.at()[2]).plus(
                        n.times(OFF)), n,
                        PATHS, SEED, i);
                out[i] = new Level(x.name(), r.lux(), r.error());
            });
        }
        return new ArrayList<>(List.of(out));
    }
}
