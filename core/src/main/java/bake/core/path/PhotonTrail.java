package bake.core.path;

import bake.core.cache.PhotonSamples;
import bake.core.geometry.Ray;
import bake.core.light.Emission;
import bake.core.light.Openings;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * A path that brings light instead of looking for it (Jensen 1996): what it leaves on each matt surface that it comes by. One for each
 * {@link PathTracer}; off unless photons are sent out.
 */
final class PhotonTrail {
    private PhotonSamples all, caustic;
    private int group;
    /** Flux of the path as it began, by which its throughput is to be multiplied, lm. */
    private float flux;
    private float heaviness;
    private boolean on;
    private final Openings openings;
    private final float[] towards = new float[3];
    private final Ray spare = new Ray();
    /** Whether anything smooth has turned the path. */
    private boolean turned;

    PhotonTrail(Openings openings) {
        this.openings = openings;
    }

    /** Where photons go from now on: those that came by smooth surfaces alone may go elsewhere as well; null for nowhere. */
    void fill(PhotonSamples all, PhotonSamples caustic) {
        this.all = all;
        this.caustic = caustic;
    }

    /** A path takes up the light of an emission. */
    void begin(PathTracer p, Emission e) {
        flux = Math.max(e.r, Math.max(e.g, e.b));
        p.br = e.r / flux;
        p.bg = e.g / flux;
        p.bb = e.b / flux;
        p.ray.set(e.x, e.y, e.z, e.dx, e.dy, e.dz, Float.POSITIVE_INFINITY);
        group = e.group;
        heaviness = e.heaviness;
        on = true;
        turned = false;
    }

    void end() {
        on = false;
    }

    boolean on() {
        return on;
    }

    /** Something smooth sends the path another way. */
    void turned() {
        turned = true;
    }

    /** Chance of going on with a throughput: what is heavier than most must not be killed before it is as light as they are. */
    float survival(float throughput) {
        return heaviness * throughput;
    }

    /**
     * Chooses where the path goes on from a surface. Out in the open some go through openings, or what the ground sends into rooms would
     * come by few photons of great flux; a direction is weighed by the density of both ways to choose it (Veach and Guibas 1995, balance
     * heuristic, one sample).
     *
     * @param c with {@code u1} and {@code u2}, numbers as {@link Scatter#sample} takes them
     */
    boolean sample(PathTracer p, float c, float u1, float u2) {
        Scatter s = p.scatter;
        SurfacePoint at = p.point();
        float in = Scatter.onlyStraight(at) ? 0 : openings.inward(at.px, at.py, at.pz, spare);
        if (in == 0) return s.sample(c, u1, u2);
        if (c < in) {
            openings.through(at.px, at.py, at.pz, c / in, u1, u2, towards, spare);
            s.towards(towards[0], towards[1], towards[2]);
        } else if (!s.sample((c - in) / (1 - in), u1, u2)) return false;
        s.pdf *= 1 - in;
        if (!s.smooth) s.pdf += in * openings.throughPdf(at.px, at.py, at.pz, s.wx, s.wy, s.wz, spare);
        return s.pdf > 0;
    }

    /** The path is at a surface: it leaves its light there and goes on, or does not. */
    boolean carry(PathTracer p, int bounce) {
        leave(p);
        Ray ray = p.ray;
        float dx = ray.dx, dy = ray.dy, dz = ray.dz;
        p.scatter.begin(p.point, -dx, -dy, -dz);
        if (!p.scatterOn(bounce)) return false;
        if (p.scatter.smooth) turned();
        float k = adjoint(p.point, dx, dy, dz, p.scatter);
        p.scale(k, k, k);
        return true;
    }

    private void leave(PathTracer p) {
        SurfacePoint s = p.point();
        if (!Scatter.mostlyMatt(s)) return;
        float r = flux * p.br, g = flux * p.bg, b = flux * p.bb;
        if (all != null) all.add(s.px, s.py, s.pz, s.gx, s.gy, s.gz, r, g, b, group);
        if (caustic != null && turned && p.wide == 0) caustic.add(s.px, s.py, s.pz, s.gx, s.gy, s.gz, r, g, b, group);
    }

    /**
     * What shading normals make of light that comes from the source rather than of what is seen (Veach 1997, section 5.3.2): a factor on
     * the throughput.
     *
     * @param dx with {@code dy} and {@code dz}, the direction that the photon came along
     */
    static float adjoint(SurfacePoint s, float dx, float dy, float dz, Scatter to) {
        float is = Math.abs(dx * s.nx + dy * s.ny + dz * s.nz), ig = Math.abs(dx * s.gx + dy * s.gy + dz * s.gz);
        float os = Math.abs(to.wx * s.nx + to.wy * s.ny + to.wz * s.nz), og = Math.abs(to.wx * s.gx + to.wy * s.gy + to.wz * s.gz);
        return Math.min(10, is * og / Math.max(1e-6f, ig * os));
    }
}
