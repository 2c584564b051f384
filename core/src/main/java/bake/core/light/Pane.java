package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.math.Polygons;
import bake.core.math.Vec3;
import bake.core.scene.Portal;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.List;

/** A flat piece of glass that daylight comes through: a triangle, or the parallelogram that two of them make. */
final class Pane {
    private static final float LEAST_AREA = 0.015f, SAME = 0.06f, TOUCH = 1e-3f;
    private static final int MOST_KEPT = 4096;
    /** What rounding may put a point beside the pane that it was chosen on. */
    private static final float EDGE = 1e-5f;
    private static final float[] ONE = {1};

    /** A corner, the two edges from it, and what turns a point into shares of them. */
    private final float ox, oy, oz, ax, ay, az, bx, by, bz, ux, uy, uz, vx, vy, vz;
    private final float nx, ny, nz, area;
    private final boolean triangle, oneSided;

    private Pane(float[] o, float[] a, float[] b, boolean triangle, boolean oneSided) {
        this.triangle = triangle;
        this.oneSided = oneSided;
        ox = o[0];
        oy = o[1];
        oz = o[2];
        ax = a[0];
        ay = a[1];
        az = a[2];
        bx = b[0];
        by = b[1];
        bz = b[2];
        float cx = ay * bz - az * by, cy = az * bx - ax * bz, cz = ax * by - ay * bx, l = (float) Math.sqrt(cx * cx + cy * cy + cz * cz);
        area = triangle ? l / 2 : l;
        nx = cx / l;
        ny = cy / l;
        nz = cz / l;
        float aa = ax * ax + ay * ay + az * az, bb = bx * bx + by * by + bz * bz, ab = ax * bx + ay * by + az * bz,
                det = 1 / (aa * bb - ab * ab);
        ux = (bb * ax - ab * bx) * det;
        uy = (bb * ay - ab * by) * det;
        uz = (bb * az - ab * bz) * det;
        vx = (aa * bx - ab * ax) * det;
        vy = (aa * by - ab * ay) * det;
        vz = (aa * bz - ab * az) * det;
    }

    /** All panes of a model, largest first; of the sheets of a double pane only one. */
    static List<Pane> find(Geometry geometry, SurfaceTable surfaces) {
        List<float[]> triangles = new ArrayList<>();
        for (int item = 0; item < geometry.items(); item++) {
            Blas b = geometry.blas(item);
            for (int p = 0; p < b.places() && triangles.size() < MOST_KEPT; p++)
                if (b.materials()[p] >= 0 && surfaces.isPane(b.materials()[p])) triangles.add(world(geometry, item, p));
        }
        List<Pane> out = new ArrayList<>();
        boolean[] used = new boolean[triangles.size()];
        for (int i = 0; i < used.length; i++) {
            if (used[i]) continue;
            Pane p = null;
            for (int j = i + 1; j < used.length && p == null; j++)
                if (!used[j] && (p = joined(triangles.get(i), triangles.get(j))) != null) used[j] = true;
            keep(out, p != null ? p : of(triangles.get(i)));
        }
        out.sort((a, b) -> Float.compare(b.area, a.area));
        return out;
    }

    private static void keep(List<Pane> out, Pane p) {
        if (p == null || !(p.area >= LEAST_AREA)) return;
        float k = p.triangle ? 1 / 3f : 0.5f;
        for (Pane q : out) {
            float m = q.triangle ? 1 / 3f : 0.5f;
            float d = Math.abs(p.ox + k * (p.ax + p.bx) - q.ox - m * (q.ax + q.bx))
                    + Math.abs(p.oy + k * (p.ay + p.by) - q.oy - m * (q.ay + q.by))
                    + Math.abs(p.oz + k * (p.az + p.bz) - q.oz - m * (q.az + q.bz));
            if (d < SAME) return;
        }
        out.add(p);
    }

    private static float[] world(Geometry g, int item, int prim) {
        float[] out = new float[9];
        for (int v = 0; v < 3; v++)
            for (int r = 0; r < 3; r++) {
                float s = g.toWorld(item, 4 * r + 3);
                for (int k = 0; k < 3; k++) s += g.toWorld(item, 4 * r + k) * g.blas(item).corner(prim, v, k);
                out[3 * v + r] = s;
            }
        return out;
    }

    private static float[] corner(float[] t, int v) {
        return new float[] {t[3 * v], t[3 * v + 1], t[3 * v + 2]};
    }

    private static float[] edge(float[] t, int from, int to) {
        return new float[] {t[3 * to] - t[3 * from], t[3 * to + 1] - t[3 * from + 1], t[3 * to + 2] - t[3 * from + 2]};
    }

    private static Pane of(float[] t) {
        return new Pane(corner(t, 0), edge(t, 0, 1), edge(t, 0, 2), true, false);
    }

    /** The parallelogram of two triangles: the second holds the corner across from one of the first, and its other two. */
    private static Pane joined(float[] s, float[] t) {
        for (int c = 0; c < 3; c++) {
            int d = (c + 1) % 3, e = (c + 2) % 3, found = 0;
            for (int v = 0; v < 3; v++) {
                boolean across = true, one = true, other = true;
                for (int k = 0; k < 3; k++) {
                    float x = t[3 * v + k];
                    across &= Math.abs(s[3 * d + k] + s[3 * e + k] - s[3 * c + k] - x) < TOUCH;
                    one &= Math.abs(s[3 * d + k] - x) < TOUCH;
                    other &= Math.abs(s[3 * e + k] - x) < TOUCH;
                }
                found |= across ? 1 : one ? 2 : other ? 4 : 0;
            }
            if (found == 7) return new Pane(corner(s, c), edge(s, c, d), edge(s, c, e), false, false);
        }
        return null;
    }

    /** The pieces of a portal, which is used only from the side it faces. */
    static List<Pane> of(Portal p) {
        List<Pane> out = new ArrayList<>();
        for (Vec3[] c : Polygons.pieces(p.corners()))
            out.add(new Pane(floats(c[0]), floats(c[1].minus(c[0])), floats(c[c.length - 1].minus(c[0])), c.length == 3, true));
        out.removeIf(x -> !(x.area > 1e-6f) || !Float.isFinite(x.nx + x.ux + x.vx));
        return out;
    }

    private static float[] floats(Vec3 v) {
        return new float[] {(float) v.x(), (float) v.y(), (float) v.z()};
    }

    /** Whether a place is on a side from which this is looked through. */
    boolean faces(float px, float py, float pz) {
        return !oneSided || (px - ox) * nx + (py - oy) * ny + (pz - oz) * nz > 0;
    }

    /** Whether this covers the middle of another, near its plane. */
    boolean covers(Pane q, float near) {
        float k = q.triangle ? 1 / 3f : 0.5f, x = q.ox + k * (q.ax + q.bx) - ox, y = q.oy + k * (q.ay + q.by) - oy,
                z = q.oz + k * (q.az + q.bz) - oz;
        if (Math.abs(x * nx + y * ny + z * nz) > near) return false;
        float u = x * ux + y * uy + z * uz, v = x * vx + y * vy + z * vz;
        return u >= -0.05f && v >= -0.05f && (triangle ? u + v <= 1.05f : u <= 1.05f && v <= 1.05f);
    }

    boolean oneSided() {
        return oneSided;
    }

    float area() {
        return area;
    }

    float least(int axis) {
        return extreme(axis, -1);
    }

    float most(int axis) {
        return extreme(axis, 1);
    }

    private float extreme(int axis, int sign) {
        float o = axis == 0 ? ox : axis == 1 ? oy : oz, a = axis == 0 ? ax : axis == 1 ? ay : az, b = axis == 0 ? bx : axis == 1 ? by : bz;
        return o + sign * Math.max(Math.max(0, sign * a), Math.max(sign * b, triangle ? 0 : sign * (a + b)));
    }

    /** About the solid angle that the pane fills from a place. */
    float weight(float px, float py, float pz) {
        float k = triangle ? 1 / 3f : 0.5f, x = ox + k * (ax + bx) - px, y = oy + k * (ay + by) - py, z = oz + k * (az + bz) - pz,
                d2 = x * x + y * y + z * z;
        float cos = Math.abs(x * nx + y * ny + z * nz) / (float) Math.sqrt(d2 + 1e-12f);
        return area * (0.1f + cos) / Math.max(d2, area);
    }

    /** The direction from a place to a point of the pane into {@code out}; returns the distance. */
    float aim(float px, float py, float pz, float u1, float u2, float[] out) {
        float s = u1, t = u2;
        if (triangle) {
            float r = (float) Math.sqrt(u1);
            s = r * (1 - u2);
            t = r * u2;
        }
        float x = ox + s * ax + t * bx - px, y = oy + s * ay + t * by - py, z = oz + s * az + t * bz - pz;
        float d = (float) Math.sqrt(Math.max(1e-20f, x * x + y * y + z * z)), k = 1 / d;
        out[0] = x * k;
        out[1] = y * k;
        out[2] = z * k;
        return d;
    }

    /** Area as it looks along a direction; one that faces into a room lets nothing out. */
    float across(float dx, float dy, float dz) {
        float c = dx * nx + dy * ny + dz * nz;
        return area * (oneSided ? Math.max(0, c) : Math.abs(c));
    }

    /** Whether a line crosses it the way light may. */
    boolean crossed(float px, float py, float pz, float dx, float dy, float dz) {
        float dn = dx * nx + dy * ny + dz * nz, sx = px - ox, sy = py - oy, sz = pz - oz;
        if (oneSided ? !(dn > 0) : dn == 0) return false;
        float t = -(sx * nx + sy * ny + sz * nz) / dn, x = sx + t * dx, y = sy + t * dy, z = sz + t * dz;
        float u = x * ux + y * uy + z * uz, v = x * vx + y * vy + z * vz;
        return u >= -EDGE && v >= -EDGE && (triangle ? u + v <= 1 + EDGE : u <= 1 + EDGE && v <= 1 + EDGE);
    }

    /** Density per steradian, seen from a place, of a point chosen evenly on the pane; zero beside it. */
    float perSteradian(float px, float py, float pz, float dx, float dy, float dz) {
        return perSteradian(px, py, pz, dx, dy, dz, 1, ONE, 0);
    }

    /**
     * The same for a pane cut into pieces, {@code cuts} along each of the two numbers that {@link #aim} takes.
     *
     * @param chances of the pieces, from place {@code o} on, each to be divided by its size
     */
    float perSteradian(float px, float py, float pz, float dx, float dy, float dz, int cuts, float[] chances, int o) {
        return faces(px, py, pz) ? spread(px, py, pz, dx, dy, dz, cuts, chances, o) : 0;
    }

    /** {@link #perSteradian(float, float, float, float, float, float)} from either side. */
    float perSteradianBothWays(float px, float py, float pz, float dx, float dy, float dz) {
        return spread(px, py, pz, dx, dy, dz, 1, ONE, 0);
    }

    private float spread(float px, float py, float pz, float dx, float dy, float dz, int cuts, float[] chances, int o) {
        float dn = dx * nx + dy * ny + dz * nz, sx = px - ox, sy = py - oy, sz = pz - oz;
        float t = -(sx * nx + sy * ny + sz * nz) / dn;
        if (!(t > 0) || t == Float.POSITIVE_INFINITY) return 0;
        float x = sx + t * dx, y = sy + t * dy, z = sz + t * dz;
        float u = x * ux + y * uy + z * uz, v = x * vx + y * vy + z * vz;
        if (!(u >= 0 && v >= 0) || (triangle ? u + v > 1 : u > 1 || v > 1)) return 0;
        float size = t * t / (area * Math.abs(dn));
        if (cuts == 1) return size * chances[o];
        if (triangle) {
            float r = u + v;
            v = r > 0 ? v / r : 0;
            u = r * r;
        }
        int i = Math.min(cuts - 1, (int) (u * cuts)), j = Math.min(cuts - 1, (int) (v * cuts));
        return size * cuts * cuts * chances[o + j * cuts + i];
    }
}
