package bake.core.path;

import bake.core.geometry.Ray;
import bake.core.surface.SurfacePoint;

/**
 * What the first pane before the camera mirrors. Whether a path passes a pane or is mirrored is decided by chance; of the pane that the
 * camera looks through both are followed (splitting: Arvo and Kirk 1990, section 4), since one in twelve paths that come back from a bright
 * room would speckle whatever is dark behind the glass, and tell the denoiser of surfaces that are elsewhere. One for each
 * {@link PathTracer}.
 */
final class MirroredLook {
    private boolean may, kept;
    private float x, y, z, dx, dy, dz, width, spread, travelled, r, g, b;
    private final float[] behind = new float[FirstSeen.LENGTH];

    /** @param may whether the path that begins is one that is seen */
    void begin(boolean may) {
        this.may = may;
        kept = false;
    }

    /** Keeps what the pane at the path's point mirrors; false where the path has met another before. */
    boolean keep(PathTracer path, float mirror, float cos) {
        if (!may || !path.onlook.straight) return false;
        may = false;
        kept = true;
        Ray ray = path.ray;
        SurfacePoint p = path.point;
        float e = p.offset, k = 2 * cos;
        x = p.px + e * p.gx;
        y = p.py + e * p.gy;
        z = p.pz + e * p.gz;
        dx = ray.dx + k * p.nx;
        dy = ray.dy + k * p.ny;
        dz = ray.dz + k * p.nz;
        width = ray.width + ray.spread * ray.t;
        spread = ray.spread;
        travelled = path.travelled;
        r = mirror * path.br;
        g = mirror * path.bg;
        b = mirror * path.bb;
        return true;
    }

    /** Sets the path on its way there, if there is one; what it has seen so far is kept. */
    boolean go(PathTracer path) {
        if (!kept) return false;
        kept = false;
        System.arraycopy(path.first.values, 0, behind, 0, behind.length);
        path.ray.set(x, y, z, dx, dy, dz, Float.POSITIVE_INFINITY);
        path.ray.width = width;
        path.ray.spread = spread;
        path.travelled = travelled;
        path.br = r;
        path.bg = g;
        path.bb = b;
        return true;
    }

    /** What is behind the pane is what the path has seen first. */
    void end(PathTracer path) {
        System.arraycopy(behind, 0, path.first.values, 0, behind.length);
    }
}
