package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;

/**
 * Finds what rays meet: a top level over instances and lamp bodies, and below it one hierarchy of triangles for each
 * instance. Immutable and shared by all threads; the {@link Ray} carries all that changes.
 */
public abstract class Tracer {
    private final Geometry geometry;
    private final LampShapes lamps;
    private final TriangleFilter filter;
    private final byte[] flags;
    final Bvh top;
    private final int items;

    Tracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        this.geometry = geometry;
        this.lamps = lamps;
        this.filter = filter;
        flags = filter.flags();
        items = geometry.items();
        float[] boxes = java.util.Arrays.copyOf(geometry.itemBoxes, 6 * (items + lamps.count()));
        for (int k = 0; k < lamps.count(); k++) lamps.bounds(k, boxes, 6 * (items + k));
        top = boxes.length == 0 ? null : BvhBuilder.build(boxes, 1, pool);
    }

    /** The fastest tracer that this machine runs: eight boxes at a time where the vector module is there. */
    public static Tracer of(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        return WideBvh.AVAILABLE ? new WideTracer(geometry, lamps, filter, pool) : new ScalarTracer(geometry, lamps, filter, pool);
    }

    /** First lamp item; items from here on are lamp bodies. */
    public int firstLamp() {
        return items;
    }

    public Geometry geometry() {
        return geometry;
    }

    public LampShapes lamps() {
        return lamps;
    }

    /** Bounds of everything, min x y z max x y z, or null when there is nothing. */
    public float[] bounds() {
        return top == null ? null : top.bounds();
    }

    /** The nearest thing within {@code ray.t}; fills the hit fields and returns whether there is one. */
    public boolean closest(Ray ray) {
        ray.traced++;
        ray.item = -1;
        walkTop(ray, false);
        return ray.item >= 0;
    }

    /**
     * Whether light passes along the ray within {@code ray.t}. On true, {@code tr, tg, tb} hold what the panes on
     * the way let through. Visible lamp bodies block, so a ray to a lamp must end short of its skin.
     */
    public boolean open(Ray ray) {
        ray.traced++;
        ray.tr = ray.tg = ray.tb = 1;
        return !walkTop(ray, true);
    }

    /** Walks the top level; returns true when a shadow ray is blocked. */
    abstract boolean walkTop(Ray ray, boolean shadow);

    /** Walks one mesh's hierarchy in its own space; returns true when a shadow ray is blocked. */
    abstract boolean walk(Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow);

    final boolean visit(int item, Ray ray, boolean shadow) {
        if (item >= items) {
            if (shadow && lamps.lamp(item - items) == ray.skipLamp) return false;
            float t = lamps.intersect(item - items, ray);
            if (shadow) return t > 0;
            if (t > 0) {
                ray.t = t;
                ray.item = item;
            }
            return false;
        }
        Blas blas = geometry.blasOf[item];
        if (geometry.instanceOf[item] < 0)
            return walk(blas, item, ray, ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, shadow);
        float[] m = geometry.toLocal;
        int o = 12 * item;
        // The direction keeps its scale, so distances stay those of world space.
        return walk(blas, item, ray,
                m[o] * ray.ox + m[o + 1] * ray.oy + m[o + 2] * ray.oz + m[o + 3],
                m[o + 4] * ray.ox + m[o + 5] * ray.oy + m[o + 6] * ray.oz + m[o + 7],
                m[o + 8] * ray.ox + m[o + 9] * ray.oy + m[o + 10] * ray.oz + m[o + 11],
                m[o] * ray.dx + m[o + 1] * ray.dy + m[o + 2] * ray.dz,
                m[o + 4] * ray.dx + m[o + 5] * ray.dy + m[o + 6] * ray.dz,
                m[o + 8] * ray.dx + m[o + 9] * ray.dy + m[o + 10] * ray.dz, shadow);
    }

    /** Triangles of a leaf (Moeller and Trumbore 1997). Returns true when a shadow ray is blocked. */
    final boolean leaf(Blas blas, int item, int code, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz,
            boolean shadow) {
        float[] c = blas.corners();
        int start = Bvh.leafStart(code), end = start + Bvh.leafCount(code);
        for (int i = start; i < end; i++) {
            int o = 9 * i;
            float e1x = c[o + 3], e1y = c[o + 4], e1z = c[o + 5], e2x = c[o + 6], e2y = c[o + 7], e2z = c[o + 8];
            float px = dy * e2z - dz * e2y, py = dz * e2x - dx * e2z, pz = dx * e2y - dy * e2x;
            float det = e1x * px + e1y * py + e1z * pz;
            float inv = 1 / det;
            float sx = ox - c[o], sy = oy - c[o + 1], sz = oz - c[o + 2];
            float u = (sx * px + sy * py + sz * pz) * inv;
            if (!(u >= 0 && u <= 1)) continue;
            float qx = sy * e1z - sz * e1y, qy = sz * e1x - sx * e1z, qz = sx * e1y - sy * e1x;
            float v = (dx * qx + dy * qy + dz * qz) * inv;
            if (!(v >= 0 && u + v <= 1)) continue;
            float t = (e2x * qx + e2y * qy + e2z * qz) * inv;
            if (!(t > 0 && t < ray.t)) continue;
            byte flag = flags[blas.materials()[i]];
            if (flag != TriangleFilter.SOLID) {
                if ((flag & TriangleFilter.CUT_OUT) != 0 && !filter.present(blas, i, u, v)) continue;
                if (shadow && filter.pass(blas, i, u, v, cosine(c, o, dx, dy, dz), ray)) continue;
            }
            if (shadow) return true;
            ray.t = t;
            ray.u = u;
            ray.v = v;
            ray.prim = i;
            ray.item = item;
        }
        return false;
    }

    private static float cosine(float[] c, int o, float dx, float dy, float dz) {
        float nx = c[o + 4] * c[o + 8] - c[o + 5] * c[o + 7];
        float ny = c[o + 5] * c[o + 6] - c[o + 3] * c[o + 8];
        float nz = c[o + 3] * c[o + 7] - c[o + 4] * c[o + 6];
        float nd = nx * dx + ny * dy + nz * dz;
        return Math.abs(nd) / (float) Math.sqrt((nx * nx + ny * ny + nz * nz) * (dx * dx + dy * dy + dz * dz));
    }

    /** Keeps a direction component away from zero, so that slabs never multiply zero by infinity. */
    static float nudge(float d) {
        return Math.abs(d) < 1e-18f ? 1e-18f : d;
    }
}
