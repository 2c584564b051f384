package bake.core.geometry;

/** Splits runs of references in two where the binned surface area heuristic is least. One instance per task. */
final class SplitFinder {
    private final int[] refs;
    private final int block;
    private final Bins bins = new Bins();
    private final int[] run = new int[Range.REF];
    private final float[] rightCost = new float[Bins.MOST];
    private int bestAxis, bestBin;
    private float bestCost;

    SplitFinder(int[] refs, int block) {
        this.refs = refs;
        this.block = block;
    }

    /** Leaves the left part in {@code left} and puts the right one into {@code right}. */
    void split(Range left, Range right) {
        int from = left.from, to = left.to;
        bins.prepare(left);
        bins.fill(refs, left);
        bestAxis = -1;
        bestCost = Float.POSITIVE_INFINITY;
        for (int a = 0; a < 3; a++) if (bins.scale[a] > 0) sweep(a, to - from);
        // Where all centres coincide any halves will do.
        int mid = bestAxis < 0 ? (from + to) >>> 1 : partition(from, to);
        left.to = right.from = mid;
        right.to = to;
        if (bestAxis < 0) {
            left.measure(refs);
            right.measure(refs);
            return;
        }
        gather(left, 0, bestBin + 1);
        gather(right, bestBin + 1, bins.used);
    }

    /** The boxes around what lies in bins [a, b). */
    private void gather(Range r, int a, int b) {
        Range.clear(r.box, 0);
        Range.clear(run, 0);
        for (int k = a; k < b; k++) {
            int o = Bins.STRIDE * (bestAxis * Bins.MOST + k);
            Range.merge(r.box, 0, bins.boxes, o);
            Range.merge(run, 0, bins.boxes, o + Bins.CENTRES);
        }
        for (int k = 0; k < 6; k++) r.centres[k] = Range.coordinate(run, 0, k);
    }

    private void sweep(int axis, int n) {
        int first = axis * Bins.MOST, right = 0, left = 0;
        Range.clear(run, 0);
        for (int b = bins.used - 1; b > 0; b--) {
            Range.merge(run, 0, bins.boxes, Bins.STRIDE * (first + b));
            right += bins.counts[first + b];
            rightCost[b] = blocks(right) * Range.halfArea(run, 0);
        }
        Range.clear(run, 0);
        for (int b = 0; b < bins.used - 1; b++) {
            Range.merge(run, 0, bins.boxes, Bins.STRIDE * (first + b));
            left += bins.counts[first + b];
            if (left == 0 || left == n) continue;
            float cost = blocks(left) * Range.halfArea(run, 0) + rightCost[b + 1];
            if (cost < bestCost) {
                bestCost = cost;
                bestAxis = axis;
                bestBin = b;
            }
        }
    }

    private int blocks(int n) {
        return (n + block - 1) / block;
    }

    /** Brings the references of the left bins to the front; returns where the right ones begin. */
    private int partition(int from, int to) {
        int axis = bestAxis, last = bestBin, i = Range.REF * from, j = Range.REF * (to - 1);
        int[] r = refs;
        while (true) {
            while (i <= j && Bins.unpack(r[i + Range.BINS], axis) <= last) i += Range.REF;
            while (i <= j && Bins.unpack(r[j + Range.BINS], axis) > last) j -= Range.REF;
            if (i > j) return i / Range.REF;
            if (Tracer.VECTORS) WideRefs.swap(r, i, j);
            else for (int k = 0; k < Range.REF; k++) {
                int t = r[i + k];
                r[i + k] = r[j + k];
                r[j + k] = t;
            }
            i += Range.REF;
            j -= Range.REF;
        }
    }
}
