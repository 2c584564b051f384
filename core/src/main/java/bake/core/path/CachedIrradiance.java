package bake.core.path;

import bake.core.cache.IrradianceCache;
import bake.core.math.PathSampler;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * First bounces from an irradiance cache: what the matt body of a point scatters of light that has bounced is its albedo times the
 * irradiance that records around it agree on. Where there are none, or the place is too narrow for any, several rays gather it there and
 * then. One for each {@link PathTracer}.
 */
public final class CachedIrradiance {
    private IrradianceCache cache;
    private final float[] albedo = new float[6];
    /** What the point scatters to the path, by source group, cd/m2. */
    public final float[] light;

    private final SplitBounce split;
    private BounceSettings how = BounceSettings.TRACED;
    /** Mean radiance from beyond the near field, by source group, cd/m2. */
    private final float[] far;

    CachedIrradiance(int channels, SplitBounce split) {
        light = new float[channels];
        this.split = split;
        far = new float[channels];
    }

    void follow(BounceSettings settings) {
        how = settings;
    }

    /** Reads a cache from now on; null for none. */
    public void follow(IrradianceCache c) {
        cache = c;
    }

    /** Whether records may stand for what a point scatters at all. */
    public static boolean fit(SurfacePoint p) {
        return Scatter.mostlyMatt(p) && p.translucency == 0;
    }

    private boolean interpolate(SurfacePoint p) {
        IrradianceCache.Known k = cache.read(p.px, p.py, p.pz, p.nx, p.ny, p.nz, light);
        return k == IrradianceCache.Known.LITTLE || k == IrradianceCache.Known.ENOUGH;
    }

    /** Whether records may stand for the point; if so, {@link #light} is what it scatters, gloss left out where that can be traced. */
    public boolean read(SurfacePoint p, Scatter s, PathSampler random) {
        if (cache == null || !fit(p)) return false;
        if (how.nearField() > 0 || !interpolate(p)) {
            boolean known = cache.far(how.near(), p.px, p.py, p.pz, p.nx, p.ny, p.nz, far);
            split.gather(p, how.cachedSurroundings(), known ? far : null, how.near(), random, light);
        }
        s.albedo(!s.glossApart(), albedo);
        for (int c = 0; c < light.length; c++) light[c] *= albedo[c % 3];
        return true;
    }
}
