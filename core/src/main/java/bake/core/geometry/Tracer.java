package bake.core.geometry;

import java.util.Arrays;
import java.util.concurrent.ForkJoinPool;

/**
 * Finds what rays meet: a top level over instances and lamp bodies, and below it one hierarchy of triangles for each
 * instance. Immutable and shared by all threads; the {@link Ray} carries all that changes.
 */
public abstract class Tracer {
    /** Whether the vector module was resolved at start. */
    static final boolean VECTORS = ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent() && !Boolean.getBoolean("bake.scalar");

    private final Geometry geometry;
    private final LampShapes lamps;
    private final TriangleFilter filter;
    private final byte[] flags;
    /** What lies in world space already is met first and needs no instance; null when there is none. */
    private final Blas world;
    /** Over all else: instances and lamp bodies, numbered from {@link #first} on. */
    private final Bvh top;
    private final int items, first;

    Tracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        this.geometry = geometry;
        this.lamps = lamps;
        this.filter = filter;
        flags = filter.flags();
        items = geometry.items();
        first = items > 0 && geometry.isWorld(0) ? 1 : 0;
        world = first == 1 ? geometry.blas(0) : null;
        float[] boxes = Arrays.copyOfRange(geometry.itemBoxes, 6 * first, 6 * (items + lamps.count()));
        for (int k = 0; k < lamps.count(); k++) lamps.bounds(k, boxes, 6 * (items - first + k));
        top = boxes.length == 0 ? null : BvhBuilder.build(boxes, 1, pool);
    }

    /** The fastest tracer that this machine runs: eight boxes at a time where the vector module is there. */
    public static Tracer of(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        return VECTORS ? new WideTracer(geometry, lamps, filter, pool) : new ScalarTracer(geometry, lamps, filter, pool);
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
        if (top == null) return world == null ? null : world.bvh().bounds();
        float[] b = top.bounds().clone();
        for (int k = 0; k < 3 && world != null; k++) {
            b[k] = Math.min(b[k], world.bvh().bounds()[k]);
            b[3 + k] = Math.max(b[3 + k], world.bvh().bounds()[3 + k]);
        }
        return b;
    }

    /** The nearest thing within {@code ray.tMin} to {@code ray.t}; fills the hit fields and returns whether there is one. */
    public boolean closest(Ray ray) {
        ray.traced++;
        ray.item = -1;
        if (world != null) walk(world.bvh(), world, 0, ray, ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, false, 0);
        if (top != null) walk(top, null, -1, ray, ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, false, 0);
        return ray.item >= 0;
    }

    /**
     * Whether light passes along the ray within {@code ray.tMin} to {@code ray.t}. On true, {@code tr, tg, tb} hold what
     * the panes on the way let through, and {@code chance} the chance of a path to pass them. Visible lamp bodies
     * block, so a ray to a lamp must end short of its skin.
     */
    public boolean open(Ray ray) {
        ray.traced++;
        ray.tr = ray.tg = ray.tb = ray.chance = 1;
        if (world != null && walk(world.bvh(), world, 0, ray, ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, true, 0)) return false;
        return top == null || !walk(top, null, -1, ray, ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, true, 0);
    }

    /**
     * Walks one hierarchy in its own space; returns true when a shadow ray is blocked.
     *
     * @param blas the triangles below, or null at the top level
     * @param base where on the ray's stack this walk may begin
     */
    abstract boolean walk(Bvh bvh, Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow,
            int base);

    /** Looks into an item of the top level. */
    final boolean visit(int entry, Ray ray, boolean shadow, int base) {
        int item = first + entry;
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
        float[] m = geometry.toLocal;
        int o = 12 * item;
        // The direction keeps its scale, so distances stay those of world space.
        return walk(blas.bvh(), blas, item, ray,
                m[o] * ray.ox + m[o + 1] * ray.oy + m[o + 2] * ray.oz + m[o + 3],
                m[o + 4] * ray.ox + m[o + 5] * ray.oy + m[o + 6] * ray.oz + m[o + 7],
                m[o + 8] * ray.ox + m[o + 9] * ray.oy + m[o + 10] * ray.oz + m[o + 11],
                m[o] * ray.dx + m[o + 1] * ray.dy + m[o + 2] * ray.dz,
                m[o + 4] * ray.dx + m[o + 5] * ray.dy + m[o + 6] * ray.dz,
                m[o + 8] * ray.dx + m[o + 9] * ray.dy + m[o + 10] * ray.dz, shadow, base);
    }

    /** Takes a triangle that a ray meets at {@code t}, if it is there at all; returns true when a shadow ray is blocked. */
    final boolean meet(Blas blas, int item, int prim, Ray ray, float t, float w, float u, float v, float dx, float dy, float dz,
            boolean shadow) {
        byte flag = flags[blas.materials()[prim]];
        if (flag != TriangleFilter.SOLID) {
            if ((w == 0 || u == 0 || v == 0) && !owns(blas, prim, ray, w, u, v)) return false;
            if ((flag & TriangleFilter.CUT_OUT) != 0 && !filter.present(blas, prim, u, v)) return false;
            if (shadow && filter.pass(blas, prim, u, v, cosine(blas, prim, dx, dy, dz), ray)) return false;
        }
        if (shadow) return true;
        ray.t = t;
        ray.u = u;
        ray.v = v;
        ray.prim = prim;
        ray.item = item;
        return false;
    }

    /**
     * Whether an edge that a ray meets exactly belongs to this triangle, and not to the one on its other side: light that both
     * let through would be dimmed twice. Of the two one has the edge run upwards in the sheared plane, with itself at the left.
     */
    private static boolean owns(Blas blas, int prim, Ray ray, float w, float u, float v) {
        float[] c = blas.packets();
        int o = Blas.first(prim);
        float ax = ray.sheared(c, o, ray.ax, ray.lx, ray.sx), ay = ray.sheared(c, o, ray.ay, ray.ly, ray.sy);
        float bx = ray.sheared(c, o + 12, ray.ax, ray.lx, ray.sx), by = ray.sheared(c, o + 12, ray.ay, ray.ly, ray.sy);
        float cx = ray.sheared(c, o + 24, ray.ax, ray.lx, ray.sx), cy = ray.sheared(c, o + 24, ray.ay, ray.ly, ray.sy);
        boolean turned = cx * by - cy * bx + (ax * cy - ay * cx) + (bx * ay - by * ax) < 0;
        return (w != 0 || upwards(cx - bx, cy - by) != turned) && (u != 0 || upwards(ax - cx, ay - cy) != turned)
                && (v != 0 || upwards(bx - ax, by - ay) != turned);
    }

    private static boolean upwards(float x, float y) {
        return y > 0 || y == 0 && x < 0;
    }

    private static float cosine(Blas b, int prim, float dx, float dy, float dz) {
        float ax = b.edge(prim, 1, 0), ay = b.edge(prim, 1, 1), az = b.edge(prim, 1, 2), bx = b.edge(prim, 2, 0), by = b.edge(prim, 2, 1),
                bz = b.edge(prim, 2, 2);
        float nx = ay * bz - az * by, ny = az * bx - ax * bz, nz = ax * by - ay * bx;
        float nd = nx * dx + ny * dy + nz * dz;
        return Math.abs(nd) / (float) Math.sqrt((nx * nx + ny * ny + nz * nz) * (dx * dx + dy * dy + dz * dz));
    }

    /** Keeps a direction component away from zero, so that slabs never multiply zero by infinity. */
    static float nudge(float d) {
        return Math.abs(d) < 1e-18f ? 1e-18f : d;
    }
}
