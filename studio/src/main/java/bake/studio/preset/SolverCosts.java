package bake.studio.preset;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.View;
import bake.studio.render.RenderJob;
import java.io.IOException;
import java.util.function.BooleanSupplier;

/**
 * What ways of computing bounced light cost for a picture, from small pictures of it that are really made: passes until a noise aim by the
 * root law, caches by how their time has been seen to grow with pictures (docs/performance.md).
 *
 * @param exact seconds that path tracing alone would take, {@code cached} those with caches
 * @param noise percent that both are for, at {@code width} x {@code height} pixels
 */
public record SolverCosts(double exact, double cached, double noise, int width, int height) {
    /** Width of the small pictures, pixels; seconds of passes for each. */
    private static final int SMALL = 320;
    private static final double SECONDS = 5, USUAL_AIM = 2;
    /** By which power of its pixels a picture's caches take longer: 17 s for 0.29 million, 57 s for 1.9, 173 s for 7.7 in one room. */
    private static final double GROWTH = 0.7;

    /**
     * Measures a preset's picture of a view, about a quarter of a minute.
     *
     * @return null when it was stopped
     */
    public static SolverCosts measure(RenderScene scene, View v, Preset p, Workers workers, BooleanSupplier stop) throws IOException {
        boolean caches = RenderJob.bounced(p).cached();
        Preset cached = caches ? p : p.withExact(null).withBounces("irradiance cache", "radiance cache", true);
        int[] size = Presets.size(p, v);
        double aim = p.noiseAim() > 0 ? p.noiseAim() : USUAL_AIM, pixels = size[0] * (double) size[1];
        double[] seconds = new double[2];
        for (int k = 0; k < 2; k++) {
            Preset q = (k == 0 ? p.withExact(true) : cached).withLimits(0, 0, 0);
            int h = Math.max(8, (int) Math.round(SMALL * (double) size[1] / size[0]));
            RenderJob j = new RenderJob(scene, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), q, SMALL, h, null, 1, false),
                    workers);
            j.run(g -> {
                if (stop.getAsBoolean() || j.phases().passes() >= SECONDS && g.passes() >= 4) j.stop();
            });
            if (stop.getAsBoolean()) return null;
            double grown = pixels / (SMALL * (double) h), noise = j.finish().noise(j.film(), j.order().region());
            seconds[k] = j.phases().caches() * Math.pow(grown, GROWTH) + j.phases().passes() * grown * Math.pow(noise / aim, 2);
        }
        return new SolverCosts(seconds[0], seconds[1], aim, size[0], size[1]);
    }
}
