package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;

/**
 * Walks hierarchies one box and one triangle at a time. The fallback where vectors are missing, and the reference that
 * the faster tracer is tested against.
 */
public final class ScalarTracer extends Tracer {
    public ScalarTracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        super(geometry, lamps, filter, pool);
    }

    @Override
    boolean walk(Bvh bvh, Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow,
            int base) {
        int[] nodes = bvh.nodes();
        long[] stack = ray.stack;
        float ix = -1 / nudge(dx), iy = -1 / nudge(dy), iz = -1 / nudge(dz);
        int nx = ix > 0 ? 24 : 0, ny = iy > 0 ? 32 : 8, nz = iz > 0 ? 40 : 16;
        int sp = base, node = 0;
        if (blas != null) ray.shear(ox, oy, oz, dx, dy, dz);
        while (true) {
            if (node >= 0) {
                int o = node, first = sp;
                for (int k = 0; k < Bvh.WIDTH; k++) {
                    int child = nodes[o + Bvh.CHILDREN + k];
                    if (child == Bvh.NOTHING) continue;
                    float in = most(slab(nodes[o + nx + k], ox, ix), slab(nodes[o + ny + k], oy, iy), slab(nodes[o + nz + k], oz, iz));
                    float out = -most(-slab(nodes[o + 24 - nx + k], ox, ix), -slab(nodes[o + 40 - ny + k], oy, iy),
                            -slab(nodes[o + 56 - nz + k], oz, iz));
                    if (in < ray.tMin) in = ray.tMin;
                    if (in <= out * WideTracer.ROUND && in <= ray.t) sp = push(stack, first, sp, child, Float.floatToRawIntBits(in));
                }
            } else if (leaf(bvh, blas, item, ~node, ray, dx, dy, dz, shadow, sp)) return true;
            do {
                if (sp == base) return false;
                sp--;
            } while ((int) (stack[sp] >> 32) > Float.floatToRawIntBits(ray.t));
            node = (int) stack[sp];
        }
    }

    private static float slab(int bits, float origin, float inverse) {
        return (origin - Float.intBitsToFloat(bits)) * inverse;
    }

    private static float most(float a, float b, float c) {
        float m = a > b ? a : b;
        return m > c ? m : c;
    }

    /** Pushes a child so that the entries from {@code first} on lie far to near; returns the new height. */
    private static int push(long[] stack, int first, int sp, int child, int distance) {
        long entry = (long) distance << 32 | child & 0xffffffffL;
        int at = sp;
        while (at > first && stack[at - 1] < entry) {
            stack[at] = stack[at - 1];
            at--;
        }
        stack[at] = entry;
        return sp + 1;
    }

    private boolean leaf(Bvh bvh, Blas blas, int item, int leaf, Ray ray, float dx, float dy, float dz, boolean shadow, int sp) {
        if (blas == null) return visit(bvh.order()[leaf], ray, shadow, sp);
        for (int prim = Blas.PACKET * leaf; prim < Blas.PACKET * leaf + Blas.PACKET; prim++)
            if (triangle(blas, item, prim, ray, dx, dy, dz, shadow)) return true;
        return false;
    }

    /** Rounded as the vector kernel rounds, so that both give the same picture to the bit; see {@link Ray#shear}. */
    private boolean triangle(Blas blas, int item, int prim, Ray ray, float dx, float dy, float dz, boolean shadow) {
        float[] c = blas.packets();
        int o = Blas.first(prim), x = o + ray.ax, y = o + ray.ay, z = o + ray.az;
        float az = c[z] - ray.lz, bz = c[z + 12] - ray.lz, cz = c[z + 24] - ray.lz;
        float ax = Math.fma(az, ray.sx, c[x] - ray.lx), bx = Math.fma(bz, ray.sx, c[x + 12] - ray.lx),
                cx = Math.fma(cz, ray.sx, c[x + 24] - ray.lx);
        float ay = Math.fma(az, ray.sy, c[y] - ray.ly), by = Math.fma(bz, ray.sy, c[y + 12] - ray.ly),
                cy = Math.fma(cz, ray.sy, c[y + 24] - ray.ly);
        float w = cx * by - cy * bx, u = ax * cy - ay * cx, v = bx * ay - by * ax, inv = 1 / (u + v + w);
        w *= inv;
        u *= inv;
        v *= inv;
        if (!(w >= 0 && u >= 0 && v >= 0)) return false;
        float t = Math.fma(w, az, Math.fma(u, bz, v * cz)) * ray.sz;
        if (!(t > ray.tMin && t < ray.t)) return false;
        return meet(blas, item, prim, ray, t, w, u, v, dx, dy, dz, shadow);
    }
}
