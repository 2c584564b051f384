package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * Walks hierarchies of eight boxes a node with 256 bit vectors. No vector lives across a call, so none is ever boxed:
 * the ray is broadcast anew at each node, which costs less than an allocation.
 */
public final class WideTracer extends Tracer {
    private static final VectorSpecies<Float> F = FloatVector.SPECIES_256;
    private static final VectorSpecies<Integer> I = IntVector.SPECIES_256;
    private final WideBvh wideTop;

    public WideTracer(Geometry geometry, LampShapes lamps, TriangleFilter filter, ForkJoinPool pool) {
        super(geometry, lamps, filter, pool);
        wideTop = top == null ? null : WideBvh.of(top);
    }

    @Override
    boolean walkTop(Ray ray, boolean shadow) {
        if (wideTop == null) return false;
        float[] boxes = wideTop.boxes();
        int[] children = wideTop.children(), order = top.order(), stack = ray.topStack, near = ray.topNear;
        float ix = 1 / nudge(ray.dx), iy = 1 / nudge(ray.dy), iz = 1 / nudge(ray.dz);
        float ox = ray.ox, oy = ray.oy, oz = ray.oz;
        int nx = ix < 0 ? 24 : 0, ny = iy < 0 ? 32 : 8, nz = iz < 0 ? 40 : 16;
        int sp = 0, node = 0;
        while (true) {
            if (node >= 0) {
                long hits = enter(boxes, 48 * node, nx, ny, nz, ox, oy, oz, ix, iy, iz, ray.t, near);
                sp = push(children, 8 * node, hits, near, stack, sp);
            } else if (Bvh.leafCount(node) > 0 && visit(order[Bvh.leafStart(node)], ray, shadow)) return true;
            do {
                if (sp == 0) return false;
                sp -= 2;
            } while (stack[sp + 1] > Float.floatToRawIntBits(ray.t));
            node = stack[sp];
        }
    }

    @Override
    boolean walk(Blas blas, int item, Ray ray, float ox, float oy, float oz, float dx, float dy, float dz, boolean shadow) {
        float[] boxes = blas.wide().boxes();
        int[] children = blas.wide().children(), stack = ray.stack, near = ray.near;
        float ix = 1 / nudge(dx), iy = 1 / nudge(dy), iz = 1 / nudge(dz);
        int nx = ix < 0 ? 24 : 0, ny = iy < 0 ? 32 : 8, nz = iz < 0 ? 40 : 16;
        int sp = 0, node = 0;
        while (true) {
            if (node >= 0) {
                long hits = enter(boxes, 48 * node, nx, ny, nz, ox, oy, oz, ix, iy, iz, ray.t, near);
                sp = push(children, 8 * node, hits, near, stack, sp);
            } else if (leaf(blas, item, node, ray, ox, oy, oz, dx, dy, dz, shadow)) return true;
            do {
                if (sp == 0) return false;
                sp -= 2;
            } while (stack[sp + 1] > Float.floatToRawIntBits(ray.t));
            node = stack[sp];
        }
    }

    /**
     * Which of a node's eight boxes the ray enters, as bits; entry distances as raw bits go to {@code near}. Distances
     * are compared as integers, whose order is that of non-negative floats.
     */
    private static long enter(float[] b, int o, int nx, int ny, int nz, float ox, float oy, float oz, float ix, float iy, float iz, float t, int[] near) {
        FloatVector x = FloatVector.broadcast(F, ix), y = FloatVector.broadcast(F, iy), z = FloatVector.broadcast(F, iz);
        FloatVector p = FloatVector.broadcast(F, ox), q = FloatVector.broadcast(F, oy), r = FloatVector.broadcast(F, oz);
        IntVector a0 = FloatVector.fromArray(F, b, o + nx).sub(p).mul(x).reinterpretAsInts();
        IntVector a1 = FloatVector.fromArray(F, b, o + ny).sub(q).mul(y).reinterpretAsInts();
        IntVector a2 = FloatVector.fromArray(F, b, o + nz).sub(r).mul(z).reinterpretAsInts();
        IntVector in = a0.max(a1).max(a2.max(0));
        // The factor absorbs the rounding of the far planes (Ize 2013).
        IntVector b0 = FloatVector.fromArray(F, b, o + 24 - nx).sub(p).mul(x).mul(1.0000004f).reinterpretAsInts();
        IntVector b1 = FloatVector.fromArray(F, b, o + 40 - ny).sub(q).mul(y).mul(1.0000004f).reinterpretAsInts();
        IntVector b2 = FloatVector.fromArray(F, b, o + 56 - nz).sub(r).mul(z).mul(1.0000004f).reinterpretAsInts();
        IntVector out = b0.min(b1).min(b2.min(Float.floatToRawIntBits(t)));
        in.intoArray(near, 0);
        return in.compare(VectorOperators.LE, out).toLong();
    }

    /** Pushes the entered children so that the nearest ends on top; returns the new stack height. */
    private static int push(int[] children, int c, long hits, int[] near, int[] stack, int sp) {
        int base = sp;
        while (hits != 0) {
            int k = Long.numberOfTrailingZeros(hits);
            hits &= hits - 1;
            int d = near[k], at = sp;
            // Insertion sort, far to near; rarely more than three.
            while (at > base && stack[at - 1] < d) {
                stack[at] = stack[at - 2];
                stack[at + 1] = stack[at - 1];
                at -= 2;
            }
            stack[at] = children[c + k];
            stack[at + 1] = d;
            sp += 2;
        }
        return sp;
    }
}
