package bake.core.path;

import bake.core.cache.MattLight;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * Ends paths in a radiance cache or a photon map: at a matt point that a path has come to after a bounce, the irradiance of its cell times
 * its albedo stands for all that the point scatters. Cells wider than the path's footprint there are not used, and so none that is nearer
 * than its own size. One for each {@link PathTracer}.
 */
public final class CachedBounces {
    /**
     * Widest cell, as a share of the way from the last scattering. A path's footprint grows with every bounce until it is wider than the
     * room; cells of that size lie across walls and windows. In a bath whose cells are filled by paths of five bounces they were 5 % too
     * bright, of nine 10 %; with 1/8, 1/4 or 1/2 of the way they are right within what their noise tells apart (0.5 %).
     */
    private static final float NEAR = 0.25f;
    private MattLight known;
    /** Least number of bounces before the cache is read. */
    private int from = 1;
    private final float[] back, albedo = new float[6];
    /** What the point scatters to the path, by source group, cd/m2. */
    public final float[] light;

    public CachedBounces(int channels) {
        light = new float[channels];
        back = new float[channels];
    }

    /** Reads a cache from now on, from some number of bounces on; null for none. */
    public void follow(MattLight c, int bounces) {
        known = c;
        from = bounces;
    }

    public boolean on() {
        return known != null;
    }

    /** Whether the cache knows what the point scatters; if so, {@link #light} is it. */
    public boolean read(SurfacePoint p, Scatter s, Ray ray, int bounces, PathSampler random) {
        random.next2();
        if (bounces < from || !Scatter.mostlyMatt(p)) return false;
        float most = Math.min(NEAR * ray.t, ray.width + ray.spread * ray.t), u = random.u, v = random.v;
        if (!known.read(p.px, p.py, p.pz, p.gx, p.gy, p.gz, most, u, v, light)) return false;
        boolean thin = p.translucency > 0;
        if (thin && !known.read(p.px, p.py, p.pz, -p.gx, -p.gy, -p.gz, most, u, v, back)) return false;
        s.albedo(s.foldsGloss(), albedo);
        for (int c = 0; c < light.length; c++) light[c] = light[c] * albedo[c % 3] + (thin ? back[c] * albedo[3 + c % 3] : 0);
        return true;
    }
}
