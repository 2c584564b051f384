package bake.core.path;

import bake.core.cache.IrradianceCache;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * First bounces from an irradiance cache: what the matt body of a point scatters of light that has bounced is its albedo times the irradiance that
 * records around it agree on. Where there are none, or the place is too narrow for any, the bounce is traced. One for each {@link PathTracer}.
 */
public final class CachedIrradiance {
    private IrradianceCache cache;
    private final float[] albedo = new float[6];
    /** What the point scatters to the path, by source group, cd/m2. */
    public final float[] light;

    public CachedIrradiance(int channels) {
        light = new float[channels];
    }

    /** Reads a cache from now on; null for none. */
    public void follow(IrradianceCache c) {
        cache = c;
    }

    /** Whether records may stand for what a point scatters at all. */
    public static boolean fit(SurfacePoint p) {
        return Scatter.mostlyMatt(p) && p.translucency == 0;
    }

    /** Whether the cache knows the point; if so, {@link #light} is what it scatters, gloss left out where that can be traced. */
    public boolean read(SurfacePoint p, Scatter s) {
        if (cache == null || !fit(p)) return false;
        IrradianceCache.Known k = cache.read(p.px, p.py, p.pz, p.nx, p.ny, p.nz, light);
        if (k == IrradianceCache.Known.NOTHING || k == IrradianceCache.Known.AVOID) return false;
        s.albedo(!s.glossApart(), albedo);
        for (int c = 0; c < light.length; c++) light[c] *= albedo[c % 3];
        return true;
    }
}
