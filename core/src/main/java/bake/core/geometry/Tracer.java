package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;

/**
 * Finds what rays meet: a top level over instances and lamp bodies, and below it one hierarchy of triangles for each
 * instance. Immutable and shared by all threads; the {@link Ray} carries all that changes.
 *
 * <p>Slab tests compare distances as raw integer bits: for non-negative floats the order is the same, an integer
 * minimum is one instruction, and {@code Math.min} on floats is not.
 */
public final class Tracer {
    private final Geometry geometry;
    private final LampShapes lamps;
    private final TriangleFilter filter;
    private final byte[] flags;
    private final Bvh top;
    private final int items;

    public Tracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        this.geometry = geometry;
        this.lamps = lamps;
        this.filter = filter;
        flags = filter.flags();
        items = geometry.items();
        float[] boxes = java.util.Arrays.copyOf(geometry.itemBoxes, 6 * (items + lamps.count()));
        for (int k = 0; k < lamps.count(); k++) lamps.bounds(k, boxes, 6 * (items + k));
        top = boxes.length == 0 ? null : BvhBuilder.build(boxes, 1, pool);
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
    private boolean walkTop(Ray ray, boolean shadow) {
        if (top == null) return false;
        float[] boxes = top.boxes();
        int[] children = top.children(), order = top.order(), stack = ray.topStack;
        float ox = ray.ox, oy = ray.oy, oz = ray.oz;
        float ix = 1 / nudge(ray.dx), iy = 1 / nudge(ray.dy), iz = 1 / nudge(ray.dz);
        int nx = ix < 0 ? 3 : 0, ny = iy < 0 ? 4 : 1, nz = iz < 0 ? 5 : 2;
        int fx = 3 - nx, fy = 5 - ny, fz = 7 - nz;
        int sp = 0, node = 0;
        while (true) {
            if (node < 0) {
                if (Bvh.leafCount(node) > 0 && visit(order[Bvh.leafStart(node)], ray, shadow)) return true;
                if (sp == 0) return false;
                node = stack[--sp];
                continue;
            }
            int b = 12 * node;
            int limit = Float.floatToRawIntBits(ray.t);
            int n0 = enter((boxes[b + nx] - ox) * ix, (boxes[b + ny] - oy) * iy, (boxes[b + nz] - oz) * iz);
            int f0 = leave((boxes[b + fx] - ox) * ix, (boxes[b + fy] - oy) * iy, (boxes[b + fz] - oz) * iz, limit);
            int n1 = enter((boxes[b + 6 + nx] - ox) * ix, (boxes[b + 6 + ny] - oy) * iy, (boxes[b + 6 + nz] - oz) * iz);
            int f1 = leave((boxes[b + 6 + fx] - ox) * ix, (boxes[b + 6 + fy] - oy) * iy, (boxes[b + 6 + fz] - oz) * iz, limit);
            int c0 = children[2 * node], c1 = children[2 * node + 1];
            if (n0 <= f0) {
                if (n1 <= f1) {
                    if (n1 < n0) {
                        stack[sp++] = c0;
                        node = c1;
                    } else {
                        stack[sp++] = c1;
                        node = c0;
                    }
                } else node = c0;
            } else if (n1 <= f1) node = c1;
            else {
                if (sp == 0) return false;
                node = stack[--sp];
            }
        }
    }

    private boolean visit(int item, Ray ray, boolean shadow) {
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

    private boolean walk(Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz,
            boolean shadow) {
        float[] boxes = blas.bvh().boxes();
        int[] children = blas.bvh().children(), stack = ray.stack;
        float ix = 1 / nudge(dx), iy = 1 / nudge(dy), iz = 1 / nudge(dz);
        int nx = ix < 0 ? 3 : 0, ny = iy < 0 ? 4 : 1, nz = iz < 0 ? 5 : 2;
        int fx = 3 - nx, fy = 5 - ny, fz = 7 - nz;
        int sp = 0, node = 0;
        while (true) {
            if (node < 0) {
                if (leaf(blas, item, node, ray, ox, oy, oz, dx, dy, dz, shadow)) return true;
                if (sp == 0) return false;
                node = stack[--sp];
                continue;
            }
            int b = 12 * node;
            int limit = Float.floatToRawIntBits(ray.t);
            int n0 = enter((boxes[b + nx] - ox) * ix, (boxes[b + ny] - oy) * iy, (boxes[b + nz] - oz) * iz);
            int f0 = leave((boxes[b + fx] - ox) * ix, (boxes[b + fy] - oy) * iy, (boxes[b + fz] - oz) * iz, limit);
            int n1 = enter((boxes[b + 6 + nx] - ox) * ix, (boxes[b + 6 + ny] - oy) * iy, (boxes[b + 6 + nz] - oz) * iz);
            int f1 = leave((boxes[b + 6 + fx] - ox) * ix, (boxes[b + 6 + fy] - oy) * iy, (boxes[b + 6 + fz] - oz) * iz, limit);
            int c0 = children[2 * node], c1 = children[2 * node + 1];
            if (n0 <= f0) {
                if (n1 <= f1) {
                    if (n1 < n0) {
                        stack[sp++] = c0;
                        node = c1;
                    } else {
                        stack[sp++] = c1;
                        node = c0;
                    }
                } else node = c0;
            } else if (n1 <= f1) node = c1;
            else {
                if (sp == 0) return false;
                node = stack[--sp];
            }
        }
    }

    /** Triangles of a leaf (Moeller and Trumbore 1997). Returns true when a shadow ray is blocked. */
    private boolean leaf(Blas blas, int item, int code, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz,
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
    private static float nudge(float d) {
        return Math.abs(d) < 1e-18f ? 1e-18f : d;
    }

    /** Entry distance of a box as raw bits, at least zero. */
    private static int enter(float a, float b, float c) {
        return Math.max(0, Math.max(Math.max(Float.floatToRawIntBits(a), Float.floatToRawIntBits(b)), Float.floatToRawIntBits(c)));
    }

    /** Exit distance as raw bits; negative when the box lies behind. The factor absorbs rounding (Ize 2013). */
    private static int leave(float a, float b, float c, int limit) {
        float k = 1.0000004f;
        return Math.min(limit, Math.min(Math.min(Float.floatToRawIntBits(a * k), Float.floatToRawIntBits(b * k)), Float.floatToRawIntBits(c * k)));
    }
}
