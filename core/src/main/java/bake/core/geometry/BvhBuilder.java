package bake.core.geometry;

import java.util.Arrays;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.RecursiveAction;

/**
 * Builds a {@link Bvh} from boxes: binned surface area heuristic (Wald 2007, "On fast Construction of SAH-based
 * Bounding Volume Hierarchies"), 16 bins on each axis (on the widest one near the root), subtrees in parallel.
 *
 * <p>The tree does not depend on timing: a subtree of n primitives owns n-1 node numbers from the start, and the
 * gaps left by larger leaves are closed at the end.
 */
public final class BvhBuilder {
    private static final int BINS = 16;
    private static final int PARALLEL_FROM = 8_192;
    /** Above this many primitives only the widest axis is tried: near the root it is nearly always the best. */
    private static final int ALL_AXES = 2_000;
    private static final float VISIT_COST = 1.2f;

    private final float[] boxes;
    private final int[] order;
    private final int[] scratch;
    private final int maxLeaf;
    private float[] nodeBoxes;
    private int[] nodeChildren;

    private BvhBuilder(float[] boxes, int maxLeaf) {
        this.boxes = boxes;
        this.maxLeaf = maxLeaf;
        int n = boxes.length / 6;
        order = new int[n];
        scratch = new int[n];
        Arrays.setAll(order, i -> i);
    }

    /**
     * @param boxes min x y z, max x y z for each primitive, all finite; at least one primitive
     * @param maxLeaf greatest number of primitives in a leaf, 1 to {@link Bvh#MAX_LEAF}
     */
    public static Bvh build(float[] boxes, int maxLeaf, ForkJoinPool pool) {
        return new BvhBuilder(boxes, maxLeaf).run(pool);
    }

    private Bvh run(ForkJoinPool pool) {
        int n = order.length;
        if (n == 0) throw new IllegalArgumentException("a hierarchy needs at least one primitive");
        int nodes = Math.max(1, n - 1);
        nodeBoxes = new float[12 * nodes];
        nodeChildren = new int[2 * nodes];
        float[] bounds = empty();
        for (int i = 0; i < n; i++) grow(bounds, i);
        if (n == 1) {
            // A lone primitive still needs a node: its twin is an empty box that no ray enters.
            System.arraycopy(bounds, 0, nodeBoxes, 0, 6);
            System.arraycopy(empty(), 0, nodeBoxes, 6, 6);
            nodeChildren[0] = Bvh.leaf(0, 1);
            nodeChildren[1] = Bvh.leaf(0, 0);
        } else {
            pool.invoke(new Split(0, 0, n));
            compact();
        }
        return new Bvh(nodeBoxes, nodeChildren, order, bounds);
    }

    private static final float INF = Float.POSITIVE_INFINITY;
    private static final float[] EMPTY = {INF, INF, INF, -INF, -INF, -INF};

    private static float[] empty() {
        return EMPTY.clone();
    }

    private void grow(float[] b, int prim) {
        int o = 6 * prim;
        for (int k = 0; k < 3; k++) {
            if (boxes[o + k] < b[k]) b[k] = boxes[o + k];
            if (boxes[o + 3 + k] > b[3 + k]) b[3 + k] = boxes[o + 3 + k];
        }
    }

    private static float halfArea(float[] b, int o) {
        float x = b[o + 3] - b[o], y = b[o + 4] - b[o + 1], z = b[o + 5] - b[o + 2];
        return x < 0 ? 0 : x * y + y * z + z * x;
    }

    /** Splits primitives [from, to) into the two children of node {@code node}. */
    private final class Split extends RecursiveAction {
        private final int node, from, to;

        Split(int node, int from, int to) {
            this.node = node;
            this.from = from;
            this.to = to;
        }

        @Override
        protected void compute() {
            int mid = partition(from, to);
            Split left = child(0, node + 1, from, mid);
            Split right = child(1, node + (mid - from), mid, to);
            if (left != null && right != null && to - from > PARALLEL_FROM) invokeAll(left, right);
            else {
                if (left != null) left.compute();
                if (right != null) right.compute();
            }
        }

        private Split child(int side, int first, int a, int b) {
            float[] box = empty();
            for (int i = a; i < b; i++) grow(box, order[i]);
            System.arraycopy(box, 0, nodeBoxes, 12 * node + 6 * side, 6);
            if (b - a <= maxLeaf && (b - a <= 2 || !worthSplitting(box, a, b))) {
                nodeChildren[2 * node + side] = Bvh.leaf(a, b - a);
                return null;
            }
            nodeChildren[2 * node + side] = first;
            return new Split(first, a, b);
        }
    }

    private boolean worthSplitting(float[] box, int from, int to) {
        BestSplit best = bestSplit(from, to);
        return best.axis >= 0 && best.cost + VISIT_COST * halfArea(box, 0) < (to - from) * halfArea(box, 0);
    }

    private static final class Bins {
        final float[] boxes = new float[6 * BINS], rightCost = new float[BINS];
        final int[] counts = new int[BINS];
    }

    private static final ThreadLocal<Bins> BINS_OF_THREAD = ThreadLocal.withInitial(Bins::new);

    private static final class BestSplit {
        int axis = -1, bin;
        float cost = Float.POSITIVE_INFINITY;
        final float[] lo = new float[3], scale = new float[3];
    }

    private float centre(int prim, int axis) {
        return 0.5f * (boxes[6 * prim + axis] + boxes[6 * prim + 3 + axis]);
    }

    private BestSplit bestSplit(int from, int to) {
        BestSplit best = new BestSplit();
        float[] hi = new float[3];
        Arrays.fill(best.lo, Float.POSITIVE_INFINITY);
        Arrays.fill(hi, Float.NEGATIVE_INFINITY);
        for (int i = from; i < to; i++)
            for (int k = 0; k < 3; k++) {
                float c = centre(order[i], k);
                if (c < best.lo[k]) best.lo[k] = c;
                if (c > hi[k]) hi[k] = c;
            }
        Bins s = BINS_OF_THREAD.get();
        float[] bins = s.boxes;
        int[] counts = s.counts;
        float[] rightCost = s.rightCost;
        float widest = Math.max(hi[0] - best.lo[0], Math.max(hi[1] - best.lo[1], hi[2] - best.lo[2]));
        for (int axis = 0; axis < 3; axis++) {
            float extent = hi[axis] - best.lo[axis];
            if (!(extent > 0) || to - from > ALL_AXES && extent < widest) continue;
            best.scale[axis] = BINS * 0.9999f / extent;
            if (Float.isInfinite(best.scale[axis])) continue;
            scanAxis(best, axis, from, to, bins, counts, rightCost);
        }
        return best;
    }

    private void scanAxis(BestSplit best, int axis, int from, int to, float[] bins, int[] counts, float[] rightCost) {
        Arrays.fill(counts, 0);
        for (int b = 0; b < BINS; b++) System.arraycopy(EMPTY, 0, bins, 6 * b, 6);
        for (int i = from; i < to; i++) {
            int p = order[i];
            int b = (int) ((centre(p, axis) - best.lo[axis]) * best.scale[axis]);
            counts[b]++;
            merge(bins, 6 * b, boxes, 6 * p);
        }
        float[] run = empty();
        int n = 0;
        for (int b = BINS - 1; b > 0; b--) {
            merge(run, 0, bins, 6 * b);
            n += counts[b];
            rightCost[b] = n == 0 ? 0 : n * halfArea(run, 0);
        }
        run = empty();
        int left = 0;
        for (int b = 0; b < BINS - 1; b++) {
            merge(run, 0, bins, 6 * b);
            left += counts[b];
            if (left == 0 || left == to - from) continue;
            float cost = left * halfArea(run, 0) + rightCost[b + 1];
            if (cost < best.cost) {
                best.cost = cost;
                best.axis = axis;
                best.bin = b;
            }
        }
    }

    private static void merge(float[] into, int at, float[] from, int o) {
        for (int k = 0; k < 3; k++) {
            if (from[o + k] < into[at + k]) into[at + k] = from[o + k];
            if (from[o + 3 + k] > into[at + 3 + k]) into[at + 3 + k] = from[o + 3 + k];
        }
    }

    /** Reorders [from, to) so that the left child's primitives come first; returns where the right begins. */
    private int partition(int from, int to) {
        BestSplit best = bestSplit(from, to);
        if (best.axis < 0) return (from + to) >>> 1; // all centres coincide: any halves will do
        int left = from, right = 0;
        for (int i = from; i < to; i++) {
            int p = order[i];
            int b = (int) ((centre(p, best.axis) - best.lo[best.axis]) * best.scale[best.axis]);
            if (b <= best.bin) order[left++] = p;
            else scratch[from + right++] = p;
        }
        System.arraycopy(scratch, from, order, left, right);
        return left;
    }

    /** Moves the used nodes together in depth-first order. */
    private void compact() {
        int n = nodeChildren.length / 2;
        float[] newBoxes = new float[nodeBoxes.length];
        int[] newChildren = new int[nodeChildren.length];
        int[] oldOf = new int[n];
        int[] stack = new int[n + 1];
        int[] parentSlot = new int[n + 1];
        int used = 0, top = 0;
        stack[top] = 0;
        parentSlot[top++] = -1;
        while (top > 0) {
            int old = stack[--top], slot = parentSlot[top], now = used++;
            if (slot >= 0) newChildren[slot] = now;
            oldOf[now] = old;
            System.arraycopy(nodeBoxes, 12 * old, newBoxes, 12 * now, 12);
            for (int side = 1; side >= 0; side--) {
                int c = nodeChildren[2 * old + side];
                newChildren[2 * now + side] = c;
                if (c >= 0) {
                    stack[top] = c;
                    parentSlot[top++] = 2 * now + side;
                }
            }
        }
        nodeBoxes = Arrays.copyOf(newBoxes, 12 * used);
        nodeChildren = Arrays.copyOf(newChildren, 2 * used);
    }
}
