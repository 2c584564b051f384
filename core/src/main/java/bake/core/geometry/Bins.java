package bake.core.geometry;

import java.util.Arrays;
import java.util.concurrent.ForkJoinTask;
import java.util.concurrent.RecursiveAction;

/** References sorted into bins along each axis by their centres: how many, and the box around them. */
final class Bins {
    static final int MOST = 32, BOX = 6;
    /** Runs longer than this are binned in parts, in parallel. */
    private static final int PART = 100_000;

    /** Boxes as in {@link Range}, {@link #MOST} an axis. */
    final int[] boxes = new int[3 * MOST * BOX];
    final int[] counts = new int[3 * MOST];
    /** Bins for each unit of min plus max along an axis; zero where all centres coincide. */
    final float[] scale = new float[3];
    int used;

    /** Sets how a run is cut into bins, and empties them. */
    void prepare(Range r) {
        used = Math.min(MOST, 4 + r.size() / 10);
        for (int a = 0; a < 3; a++) {
            float extent = r.centres[3 + a] - r.centres[a];
            scale[a] = extent > 0 ? used * 0.9999f / extent : 0;
            if (scale[a] == Float.POSITIVE_INFINITY) scale[a] = 0;
        }
        clear();
    }

    private void clear() {
        Arrays.fill(counts, 0);
        for (int a = 0; a < 3; a++) for (int b = 0; b < used; b++) Range.clear(boxes, BOX * (a * MOST + b));
    }

    /** Sorts the references of a run in; the result does not depend on the number of threads. */
    void fill(int[] refs, Range r) {
        if (r.size() <= PART) {
            fill(refs, r.from, r.to, r.centres);
            return;
        }
        Part[] parts = new Part[(r.size() + PART - 1) / PART];
        for (int k = 0; k < parts.length; k++) parts[k] = new Part(this, refs, r, r.from + k * PART, Math.min(r.to, r.from + (k + 1) * PART));
        ForkJoinTask.invokeAll(parts);
        for (Part p : parts) add(p.bins);
    }

    private void fill(int[] r, int from, int to, float[] centres) {
        float sx = scale[0], sy = scale[1], sz = scale[2], cx = centres[0], cy = centres[1], cz = centres[2];
        int[] into = boxes, n = counts;
        for (int o = Range.REF * from; o < Range.REF * to; o += Range.REF) {
            int x = (int) ((Range.value(r[o]) + Range.value(r[o + 3]) - cx) * sx), y = MOST + (int) ((Range.value(r[o + 1]) + Range.value(r[o + 4]) - cy) * sy),
                    z = 2 * MOST + (int) ((Range.value(r[o + 2]) + Range.value(r[o + 5]) - cz) * sz);
            n[x]++;
            n[y]++;
            n[z]++;
            Range.merge(into, BOX * x, r, o);
            Range.merge(into, BOX * y, r, o);
            Range.merge(into, BOX * z, r, o);
        }
    }

    private void add(Bins b) {
        for (int a = 0; a < 3; a++)
            for (int k = a * MOST; k < a * MOST + used; k++) {
                counts[k] += b.counts[k];
                Range.merge(boxes, BOX * k, b.boxes, BOX * k);
            }
    }

    private static final class Part extends RecursiveAction {
        private final transient Bins bins = new Bins();
        private final int[] refs;
        private final transient Range run;
        private final int from, to;

        Part(Bins like, int[] refs, Range run, int from, int to) {
            this.refs = refs;
            this.run = run;
            this.from = from;
            this.to = to;
            bins.used = like.used;
            System.arraycopy(like.scale, 0, bins.scale, 0, 3);
            bins.clear();
        }

        @Override
        protected void compute() {
            bins.fill(refs, from, to, run.centres);
        }
    }
}
