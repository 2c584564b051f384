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
import java.util.List;
import java.util.Locale;

/** Illuminance at chosen places of a project, by path tracing and not from pictures. Models are read once for all views. */
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

    private final SceneAssembly assembly;
    private RenderScene scene;

    LightLevels(Path folder) {
        assembly = new SceneAssembly(folder);
    }

    /** Readings under a view's light, one for each point, in their order. */
    List<Level> at(Project p, View v, List<DeliverySpec.Point> points) throws IOException {
        if (points.isEmpty()) return List.of();
        scene = RenderScene.compile(assembly.scene(p, v), scene, Workers.COMPILING, HierarchyCache.shared());
        RenderScene here = scene;
        Level[] out = new Level[points.size()];
        try (Workers w = new Workers(Runtime.getRuntime().availableProcessors())) {
            w.run(out.length, (worker, i) -> {
                DeliverySpec.Point x = points.get(i);
                Vec3 n = x.facing() == null ? Vec3.UP : new Vec3(x.facing()[0], x.facing()[1], x.facing()[2]).normalized();
                LightMeter.Reading r = new LightMeter(here, LightMeter.ALL).measure(new Vec3(x.at()[0], x.at()[1], x.at()[2]).plus(
                        n.times(OFF)), n,
                        PATHS, SEED, i);
                out[i] = new Level(x.name(), r.lux(), r.error());
            });
        }
        return List.of(out);
    }
}
