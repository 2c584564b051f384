package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * Walks hierarchies eight boxes at a time with 256 bit vectors, and tests triangles four at a time. The vectors that hold
 * the ray live through a run of inner nodes and end before a leaf is called, so none is ever boxed.
 *
 * <p>Distances are compared as integers, whose order is that of non-negative floats: {@code Math.min} on floats is slow.
 */
public final class WideTracer extends Tracer {
    /** Absorbs the rounding of far planes (Ize 2013, "Robust BVH Ray Traversal"). */
    static final float ROUND = 1.0000006f;

    private static final VectorSpecies<Float> F = FloatVector.SPECIES_256, Q = FloatVector.SPECIES_128;
    private static final VectorSpecies<Integer> I = IntVector.SPECIES_256, J = IntVector.SPECIES_128;

    public WideTracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        super(geometry, lamps, filter, pool);
    }

    @Override
    boolean walk(Bvh bvh, Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow, int base) {
        int[] nodes = bvh.nodes(), stack = ray.stack, near = ray.near;
        float ix = 1 / nudge(dx), iy = 1 / nudge(dy), iz = 1 / nudge(dz);
        float cx = -ox * ix, cy = -oy * iy, cz = -oz * iz, sx = slack(cx), sy = slack(cy), sz = slack(cz);
        int nx = ix < 0 ? 24 : 0, ny = iy < 0 ? 32 : 8, nz = iz < 0 ? 40 : 16;
        int sp = base, node = 0, limit = Float.floatToRawIntBits(ray.t);
        while (true) {
            if (node >= 0) {
                FloatVector x = FloatVector.broadcast(F, ix), y = FloatVector.broadcast(F, iy), z = FloatVector.broadcast(F, iz);
                FloatVector ax = FloatVector.broadcast(F, cx - sx), ay = FloatVector.broadcast(F, cy - sy), az = FloatVector.broadcast(F, cz - sz);
                FloatVector bx = FloatVector.broadcast(F, cx + sx), by = FloatVector.broadcast(F, cy + sy), bz = FloatVector.broadcast(F, cz + sz);
                IntVector least = IntVector.broadcast(I, Float.floatToRawIntBits(ray.tMin)), most = IntVector.broadcast(I, limit);
                do {
                    int o = Bvh.STRIDE * node;
                    IntVector in = slab(nodes, o + nx, x, ax).max(slab(nodes, o + ny, y, ay)).max(slab(nodes, o + nz, z, az).max(least));
                    IntVector out = slab(nodes, o + 24 - nx, x, bx).min(slab(nodes, o + 40 - ny, y, by)).min(slab(nodes, o + 56 - nz, z, bz));
                    out = out.reinterpretAsFloats().mul(ROUND).reinterpretAsInts().min(most);
                    long hits = in.compare(VectorOperators.LE, out).toLong();
                    o += Bvh.CHILDREN;
                    if (hits == 0) {
                        do {
                            if (sp == base) return false;
                            sp -= 2;
                        } while (stack[sp + 1] > limit);
                        node = stack[sp];
                        continue;
                    }
                    int k = Long.numberOfTrailingZeros(hits);
                    node = nodes[o + k];
                    hits &= hits - 1;
                    if (hits == 0) continue;
                    in.intoArray(near, 0);
                    int d = near[k], first = sp;
                    do {
                        k = Long.numberOfTrailingZeros(hits);
                        hits &= hits - 1;
                        int child = nodes[o + k], e = near[k], at = sp;
                        // The nearest so far stays in hand; the others lie far to near on the stack.
                        if (e < d) {
                            int c = node;
                            node = child;
                            child = c;
                            int f = d;
                            d = e;
                            e = f;
                        }
                        while (at > first && stack[at - 1] < e) {
                            stack[at] = stack[at - 2];
                            stack[at + 1] = stack[at - 1];
                            at -= 2;
                        }
                        stack[at] = child;
                        stack[at + 1] = e;
                        sp += 2;
                    } while (hits != 0);
                } while (node >= 0);
            }
            if (blas == null) {
                if (visit(bvh.order()[~node], ray, shadow, sp)) return true;
            } else if (leaf(blas, item, ~node, ray, ox, oy, oz, dx, dy, dz, shadow)) return true;
            limit = Float.floatToRawIntBits(ray.t);
            do {
                if (sp == base) return false;
                sp -= 2;
            } while (stack[sp + 1] > limit);
            node = stack[sp];
        }
    }

    private static IntVector slab(int[] nodes, int o, FloatVector inverse, FloatVector term) {
        return IntVector.fromArray(I, nodes, o).reinterpretAsFloats().fma(inverse, term).reinterpretAsInts();
    }

    /** A packet of four triangles (Moeller and Trumbore 1997). Returns true when a shadow ray is blocked. */
    private boolean leaf(Blas blas, int item, int leaf, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow) {
        int hits = packet(blas.packets(), Blas.STRIDE * leaf, ox, oy, oz, dx, dy, dz, ray.tMin, ray.t, ray.packet);
        float[] p = ray.packet;
        while (hits != 0) {
            int k = Integer.numberOfTrailingZeros(hits);
            hits &= hits - 1;
            if (p[k] < ray.t && meet(blas, item, Blas.PACKET * leaf + k, ray, p[k], p[4 + k], p[8 + k], dx, dy, dz, shadow)) return true;
        }
        return false;
    }

    /** Which of four triangles a ray meets, as bits; distances and barycentric coordinates go to {@code out}. */
    private static int packet(float[] c, int o, float ox, float oy, float oz, float dx, float dy, float dz, float tMin, float tMax, float[] out) {
        FloatVector e1x = FloatVector.fromArray(Q, c, o + 12), e1y = FloatVector.fromArray(Q, c, o + 16), e1z = FloatVector.fromArray(Q, c, o + 20);
        FloatVector e2x = FloatVector.fromArray(Q, c, o + 24), e2y = FloatVector.fromArray(Q, c, o + 28), e2z = FloatVector.fromArray(Q, c, o + 32);
        FloatVector px = e2z.mul(dy).sub(e2y.mul(dz)), py = e2x.mul(dz).sub(e2z.mul(dx)), pz = e2y.mul(dx).sub(e2x.mul(dy));
        FloatVector inv = FloatVector.broadcast(Q, 1).div(e1x.mul(px).add(e1y.mul(py)).add(e1z.mul(pz)));
        FloatVector sx = FloatVector.broadcast(Q, ox).sub(FloatVector.fromArray(Q, c, o)), sy = FloatVector.broadcast(Q, oy).sub(FloatVector.fromArray(Q, c, o + 4)),
                sz = FloatVector.broadcast(Q, oz).sub(FloatVector.fromArray(Q, c, o + 8));
        FloatVector u = sx.mul(px).add(sy.mul(py)).add(sz.mul(pz)).mul(inv);
        FloatVector qx = sy.mul(e1z).sub(sz.mul(e1y)), qy = sz.mul(e1x).sub(sx.mul(e1z)), qz = sx.mul(e1y).sub(sy.mul(e1x));
        FloatVector v = qx.mul(dx).add(qy.mul(dy)).add(qz.mul(dz)).mul(inv);
        FloatVector t = e2x.mul(qx).add(e2y.mul(qy)).add(e2z.mul(qz)).mul(inv);
        FloatVector w = FloatVector.broadcast(Q, 1).sub(u).sub(v);
        int hits = (int) t.compare(VectorOperators.LT, tMax).and(t.compare(VectorOperators.GT, tMin)).and(u.compare(VectorOperators.GE, 0f))
                .and(v.compare(VectorOperators.GE, 0f)).and(w.compare(VectorOperators.GE, 0f)).toLong();
        if (hits != 0) {
            t.intoArray(out, 0);
            u.intoArray(out, 4);
            v.intoArray(out, 8);
        }
        return hits;
    }
}
