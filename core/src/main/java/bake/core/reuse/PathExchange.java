package bake.core.reuse;

import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.path.Clamp;
import bake.core.path.PathHead;
import bake.core.path.PathTrail;
import bake.core.surface.SurfacePoint;

/**
 * Lets the paths of a group of pixels use each other's finds: every first point looks at every second point, for one shadow
 * ray instead of a whole path (Bekaert, Sbert and Halton 2002, "Accelerating Path Tracing by Re-Using Paths").
 *
 * <p>A path is its second point x and the direction w in which light came to x. Path i's find counts for pixel k with
 * f_k(x, w) V_k(x) L(w) / sum over j of p_j(x) V_j(x) q_j(w | x), where p_j is the density per area with which pixel j's bounce
 * would have met x, and q_j the density with which it would have looked from there along w: by the next bounce, which depends on
 * where j sees x from, by light sampling, or both. That is the balance heuristic over all paths of the group and both ways of
 * looking (Veach and Guibas 1995), which leaves the mean of every pixel as it is. Light by way of perfectly smooth surfaces is
 * not exchanged; it stays with the path that found it.
 *
 * <p>One instance per thread.
 */
public final class PathExchange {
    private static final int BOUNCE = PathHead.MOST;

    private final Tracer tracer;
    private final float clamp;
    private final Ray ray = new Ray();
    /** For each pixel: density of meeting the second point, what it would carry from there, and where it looks from. */
    private final float[] p, cr, cg, cb, ox, oy, oz;
    /** For each light and pixel: scattering at the second point, and its density. */
    private final float[][] fr, fg, fb, q;

    /**
     * @param clamp greatest luminance that one pixel may get from one find, cd/m2
     * @param most size of the largest group
     */
    public PathExchange(Tracer tracer, float clamp, int most) {
        this.tracer = tracer;
        this.clamp = clamp;
        p = new float[most];
        cr = new float[most];
        cg = new float[most];
        cb = new float[most];
        ox = new float[most];
        oy = new float[most];
        oz = new float[most];
        fr = new float[BOUNCE + 1][most];
        fg = new float[BOUNCE + 1][most];
        fb = new float[BOUNCE + 1][most];
        q = new float[BOUNCE + 1][most];
    }

    public long rays() {
        return ray.traced;
    }

    /** Adds to each of the first {@code n} heads what the second points of all bring it. */
    public void run(PathHead[] heads, int n) {
        for (int i = 0; i < n; i++) if (heads[i].offers && (heads[i].lights > 0 || heads[i].anyLater)) share(heads, n, heads[i]);
    }

    private void share(PathHead[] heads, int n, PathHead from) {
        boolean bounce = from.anyLater;
        for (int m = 0; m < from.lights; m++) bounce |= from.along[m];
        for (int k = 0; k < n; k++) {
            p[k] = density(heads[k], from, k);
            if (p[k] > 0) scatter(from, k, bounce);
        }
        for (int m = 0; m < from.lights; m++) {
            int e = from.along[m] ? BOUNCE : m;
            float sum = 0;
            for (int k = 0; k < n; k++) if (p[k] > 0) sum += p[k] * (from.density[m] + (from.both[m] ? q[e][k] : 0));
            if (!(sum > 0)) continue;
            for (int k = 0; k < n; k++) if (p[k] > 0) give(heads[k], from.group[m], from.lr[m], from.lg[m], from.lb[m], e, k, sum);
        }
        if (from.anyLater) later(heads, n, from);
    }

    private void later(PathHead[] heads, int n, PathHead from) {
        float sum = 0;
        for (int k = 0; k < n; k++) if (p[k] > 0) sum += p[k] * q[BOUNCE][k];
        if (!(sum > 0)) return;
        float[] l = from.later;
        for (int c = 0; c < l.length; c += 3) {
            if (!(l[c] + l[c + 1] + l[c + 2] > 0)) continue;
            for (int k = 0; k < n; k++) if (p[k] > 0) give(heads[k], c / 3, l[c], l[c + 1], l[c + 2], BOUNCE, k, sum);
        }
    }

    /** Density per area with which a pixel's bounce would have met a second point. Sets what it would have carried, and the view. */
    private float density(PathHead to, PathHead from, int k) {
        if (!to.open) return 0;
        SurfacePoint a = to.point, x = from.met;
        float dx = x.px - a.px, dy = x.py - a.py, dz = x.pz - a.pz, d2 = dx * dx + dy * dy + dz * dz, d = (float) Math.sqrt(d2), l = 1 / d;
        dx *= l;
        dy *= l;
        dz *= l;
        float face = -(dx * x.gx + dy * x.gy + dz * x.gz), cos = -(dx * x.nx + dy * x.ny + dz * x.nz);
        if (!(face > 0) || !(cos >= PathTrail.LEAST_COSINE) && to != from) return 0;
        to.scatter.eval(dx, dy, dz);
        float pdf = to.scatter.pdf, r = to.scatter.r, g = to.scatter.g, b = to.scatter.b, chance = from.chance;
        if (!(pdf > 0)) return 0;
        float tr = from.tr, tg = from.tg, tb = from.tb;
        if (to != from) {
            float e = dx * a.gx + dy * a.gy + dz * a.gz > 0 ? a.offset : -a.offset, reach = d * 0.9999f - 2 * x.offset;
            if (!(reach > 0)) return 0;
            ray.set(a.px + e * a.gx, a.py + e * a.gy, a.pz + e * a.gz, dx, dy, dz, reach);
            if (!tracer.open(ray)) return 0;
            tr = ray.tr;
            tg = ray.tg;
            tb = ray.tb;
            chance = ray.chance;
        }
        float area = face / d2;
        cr[k] = to.br * r * tr * area;
        cg[k] = to.bg * g * tg * area;
        cb[k] = to.bb * b * tb * area;
        ox[k] = -dx;
        oy[k] = -dy;
        oz[k] = -dz;
        return pdf * chance * area;
    }

    /** How the second point scatters its light to a pixel, and how likely the pixel's path would have looked there for it. */
    private void scatter(PathHead from, int k, boolean bounce) {
        from.metScatter.begin(from.met, ox[k], oy[k], oz[k]);
        for (int m = 0; m < from.lights; m++) if (!from.along[m]) scatter(from, k, m, from.lx[m], from.ly[m], from.lz[m]);
        if (bounce) scatter(from, k, BOUNCE, from.wx, from.wy, from.wz);
    }

    private void scatter(PathHead from, int k, int e, float x, float y, float z) {
        var s = from.metScatter;
        s.eval(x, y, z);
        fr[e][k] = s.r;
        fg[e][k] = s.g;
        fb[e][k] = s.b;
        q[e][k] = s.pdf;
    }

    private void give(PathHead to, int group, float r, float g, float b, int e, int k, float sum) {
        float w = 1 / sum;
        r *= cr[k] * fr[e][k] * w;
        g *= cg[k] * fg[e][k] * w;
        b *= cb[k] * fb[e][k] * w;
        to.clamped += Clamp.add(to.out, to.bounced + group, r, g, b, clamp);
    }
}
