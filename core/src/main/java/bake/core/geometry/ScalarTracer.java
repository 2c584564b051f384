package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;

/**
 * Walks binary hierarchies, one box pair at a time. The fallback where vectors are missing, and the reference that the
 * faster tracer is tested against.
 *
 * <p>Slab tests compare distances as raw integer bits: for non-negative floats the order is the same, an integer
 * minimum is one instruction, and {@code Math.min} on floats is not.
 */
public final class ScalarTracer extends Tracer {
    public ScalarTracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        super(geometry, lamps, filter, pool);
    }

    @Override
    boolean walkTop(Ray ray, boolean shadow) {
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

    @Override
    boolean walk(Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz,
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
