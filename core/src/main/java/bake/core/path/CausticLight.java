package bake.core.path;

import bake.core.cache.PhotonMap;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * Light that smooth surfaces have thrown on matt ones, from photons that came that way (Jensen 1996, section 4.3); or left out. Paths that
 * would find such light by chance then leave it alone. One for each {@link PathTracer}.
 */
final class CausticLight {
    /** Photons of an estimate: few, since caustics have sharp edges. */
    private static final int NEAREST = 40;

    private final PathTracer path;
    private final PhotonMap.Search search = new PhotonMap.Search();
    private final float[] light, albedo = new float[6];
    private BounceSettings.Caustics how = BounceSettings.Caustics.PATH_TRACING;
    private PhotonMap map;
    private double leftOut;

    CausticLight(PathTracer path) {
        this.path = path;
        light = new float[path.channels()];
    }

    void follow(BounceSettings.Caustics c) {
        how = c;
    }

    void follow(PhotonMap m) {
        map = m;
    }

    /**
     * Whether light that a path has run into is a caustic that it is to leave alone; with its luminance by the path's throughput, cd/m2.
     */
    boolean leaves(float luminance) {
        if (how == BounceSettings.Caustics.PATH_TRACING || path.wide == 0 || path.from.pdf >= 0) return false;
        if (how == BounceSettings.Caustics.LEFT_OUT) leftOut += luminance;
        return true;
    }

    /** Luminance left out so far, summed over paths, cd/m2. */
    double leftOut() {
        return leftOut;
    }

    /** Adds what photons say of the path's point. */
    void add() {
        SurfacePoint p = path.point();
        if (map == null || !Scatter.mostlyMatt(p)) return;
        map.estimate(search, p.px, p.py, p.pz, p.gx, p.gy, p.gz, NEAREST, light);
        path.scatter.albedo(false, albedo);
        for (int c = 0; c < light.length; c += 3) {
            if (!(light[c] + light[c + 1] + light[c + 2] > 0)) continue;
            if (path.cells.on()) path.cells.lit(c / 3, light[c], light[c + 1], light[c + 2]);
            path.addBounced(c / 3, albedo[0] * light[c], albedo[1] * light[c + 1], albedo[2] * light[c + 2]);
        }
    }
}
