package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * Walks hierarchies eight boxes at a time with 256 bit vectors, and tests triangles four at a time. The vectors that hold
 * the ray live through a run of inner nodes and end before a leaf is called, so none is ever boxed. The walk is one method
 * on purpose: the compiler stops inlining, and then boxes vectors, when a method with vectors grows any larger.
 *
 * <p>Distances are compared as integers, whose order is that of non-negative floats: {@code Math.min} on floats is slow.
 */
public final class WideTracer extends Tracer {
    /** Absorbs the rounding of far planes (Ize 2013, "Robust BVH Ray Traversal"). */
    static final float ROUND = 1.0000006f;

    private static final VectorSpecies<Float> F = FloatVector.SPECIES_256, Q = FloatVector.SPECIES_128;
    private static final VectorSpecies<Integer> I = IntVector.SPECIES_256;

    public WideTracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        super(geometry, lamps, filter, pool);
    }

    @Override
    boolean walk(Bvh bvh, Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow,
            int base) {
        int[] nodes = bvh.nodes(), near = ray.near;
        long[] stack = ray.stack;
        // Planes are met at (o - b) * (-1 / d): unlike b / d - o / d this loses nothing where the two terms are large and alike.
        float ix = -1 / nudge(dx), iy = -1 / nudge(dy), iz = -1 / nudge(dz);
        int nx = ix > 0 ? 24 : 0, ny = iy > 0 ? 32 : 8, nz = iz > 0 ? 40 : 16;
        int sp = base, node = 0, limit = Float.floatToRawIntBits(ray.t);
        if (blas != null) ray.shear(ox, oy, oz, dx, dy, dz);
        while (true) {
            if (node >= 0) {
                FloatVector px = FloatVector.broadcast(F, ox), py = FloatVector.broadcast(F, oy), pz = FloatVector.broadcast(F, oz);
                FloatVector x = FloatVector.broadcast(F, ix), y = FloatVector.broadcast(F, iy), z = FloatVector.broadcast(F, iz);
                FloatVector fx = FloatVector.broadcast(F, ix * ROUND), fy = FloatVector.broadcast(F, iy * ROUND),
                        fz = FloatVector.broadcast(F, iz * ROUND);
                IntVector least = IntVector.broadcast(I, Float.floatToRawIntBits(ray.tMin)), most = IntVector.broadcast(I, limit);
                do {
                    int o = node;
                    IntVector in = slab(nodes, o + nx, px, x).max(slab(nodes, o + ny, py, y)).max(slab(nodes, o + nz, pz, z).max(least));
                    IntVector out = slab(nodes, o + 24 - nx, px, fx).min(slab(nodes, o + 40 - ny, py, fy))
                            .min(slab(nodes, o + 56 - nz, pz, fz).min(most));
                    long hits = in.compare(VectorOperators.LE, out).toLong();
                    o += Bvh.CHILDREN;
                    if (hits == 0) {
                        do {
                            if (sp == base) return false;
                            sp--;
                        } while ((int) (stack[sp] >> 32) > limit);
                        node = (int) stack[sp];
                        continue;
                    }
                    int k = Long.numberOfTrailingZeros(hits);
                    hits &= hits - 1;
                    if (hits == 0) {
                        node = nodes[o + k];
                        continue;
                    }
                    if (shadow) {
                        // Any hit will do, so the order does not matter.
                        node = nodes[o + k];
                        do {
                            k = Long.numberOfTrailingZeros(hits);
                            hits &= hits - 1;
                            stack[sp++] = nodes[o + k] & 0xffffffffL;
                        } while (hits != 0);
                        continue;
                    }
                    // The nearest stays in hand, the others lie far to near on the stack. Two and three, the usual case, take no branch.
                    in.intoArray(near, 0);
                    long a = (long) near[k] << 32 | nodes[o + k] & 0xffffffffL;
                    k = Long.numberOfTrailingZeros(hits);
                    hits &= hits - 1;
                    long c = (long) near[k] << 32 | nodes[o + k] & 0xffffffffL;
                    long b = Math.max(a, c);
                    a = Math.min(a, c);
                    if (hits == 0) {
                        stack[sp++] = b;
                        node = (int) a;
                        continue;
                    }
                    k = Long.numberOfTrailingZeros(hits);
                    hits &= hits - 1;
                    c = (long) near[k] << 32 | nodes[o + k] & 0xffffffffL;
                    int first = sp;
                    stack[sp++] = Math.max(b, c);
                    b = Math.min(b, c);
                    stack[sp++] = Math.max(a, b);
                    a = Math.min(a, b);
                    while (hits != 0) {
                        k = Long.numberOfTrailingZeros(hits);
                        hits &= hits - 1;
                        c = (long) near[k] << 32 | nodes[o + k] & 0xffffffffL;
                        b = Math.max(a, c);
                        a = Math.min(a, c);
                        int at = sp++;
                        while (at > first && stack[at - 1] < b) {
                            stack[at] = stack[at - 1];
                            at--;
                        }
                        stack[at] = b;
                    }
                    node = (int) a;
                } while (node >= 0);
            }
            if (blas == null) {
                if (visit(bvh.order()[~node], ray, shadow, sp)) return true;
            } else if (leaf(blas, item, ~node, ray, dx, dy, dz, shadow)) return true;
            limit = Float.floatToRawIntBits(ray.t);
            do {
                if (sp == base) return false;
                sp--;
            } while ((int) (stack[sp] >> 32) > limit);
            node = (int) stack[sp];
        }
    }

    private static IntVector slab(int[] nodes, int o, FloatVector origin, FloatVector inverse) {
        return origin.sub(IntVector.fromArray(I, nodes, o).reinterpretAsFloats()).mul(inverse).reinterpretAsInts();
    }

    /** A packet of four triangles; see {@link Ray#shear}. Returns true when a shadow ray is blocked. */
    private boolean leaf(Blas blas, int item, int leaf, Ray ray, float dx, float dy, float dz, boolean shadow) {
        float[] c = blas.packets(), p = ray.packet;
        int o = Blas.STRIDE * leaf, x = o + ray.ax, y = o + ray.ay, z = o + ray.az;
        FloatVector from = FloatVector.broadcast(Q, ray.lz), shear = FloatVector.broadcast(Q, ray.sx);
        FloatVector az = FloatVector.fromArray(Q, c, z).sub(from), bz = FloatVector.fromArray(Q, c, z + 12).sub(from),
                cz = FloatVector.fromArray(Q, c, z + 24).sub(from);
        from = FloatVector.broadcast(Q, ray.lx);
        FloatVector ax = az.fma(shear, FloatVector.fromArray(Q, c, x).sub(from)),
                bx = bz.fma(shear, FloatVector.fromArray(Q, c, x + 12).sub(from)),
                cx = cz.fma(shear, FloatVector.fromArray(Q, c, x + 24).sub(from));
        from = FloatVector.broadcast(Q, ray.ly);
        shear = FloatVector.broadcast(Q, ray.sy);
        FloatVector ay = az.fma(shear, FloatVector.fromArray(Q, c, y).sub(from)),
                by = bz.fma(shear, FloatVector.fromArray(Q, c, y + 12).sub(from)),
                cy = cz.fma(shear, FloatVector.fromArray(Q, c, y + 24).sub(from));
        FloatVector w = cx.mul(by).sub(cy.mul(bx)), u = ax.mul(cy).sub(ay.mul(cx)), v = bx.mul(ay).sub(by.mul(ax));
        FloatVector inv = FloatVector.broadcast(Q, 1).div(u.add(v).add(w));
        w = w.mul(inv);
        u = u.mul(inv);
        v = v.mul(inv);
        FloatVector t = w.fma(az, u.fma(bz, v.mul(cz))).mul(ray.sz);
        int hits = (int) t.compare(VectorOperators.LT, ray.t).and(t.compare(VectorOperators.GT, ray.tMin))
                .and(u.compare(VectorOperators.GE, 0f))
                .and(v.compare(VectorOperators.GE, 0f)).and(w.compare(VectorOperators.GE, 0f)).toLong();
        if (hits == 0) return false;
        t.intoArray(p, 0);
        w.intoArray(p, 4);
        u.intoArray(p, 8);
        v.intoArray(p, 12);
        do {
            int k = Integer.numberOfTrailingZeros(hits);
            hits &= hits - 1;
            if (p[k] < ray.t && meet(blas, item, Blas.PACKET * leaf + k, ray, p[k], p[4 + k], p[8 + k], p[12 + k], dx, dy, dz, shadow))
                return true;
        } while (hits != 0);
        return false;
    }
}
