package bake.core.geometry;

import java.util.Arrays;
import java.util.concurrent.ForkJoinTask;
import java.util.concurrent.RecursiveAction;

/** References sorted into bins along each axis by their centres: how many, the box around them and the one around their centres. */
final class Bins {
    static final int MOST = 32;
    /** Ints of a bin: the box around its boxes, then from {@link #CENTRES} on the one around its centres, as in {@link Range}. */
    static final int STRIDE = 2 * Range.REF, CENTRES = Range.REF;
    /** Runs longer than this are binned in parts, in parallel. */
    private static final int PART = 100_000;

    /** {@link #MOST} bins an axis. */
    final int[] boxes = new int[3 * MOST * STRIDE];
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
        for (int a = 0; a < 3; a++) Arrays.fill(boxes, STRIDE * a * MOST, STRIDE * (a * MOST + used), Integer.MAX_VALUE);
    }

    /** Sorts the references of a run in; the result does not depend on the number of threads. */
    void fill(int[] refs, Range r) {
        if (r.size() <= PART) {
            fillPart(refs, r.from, r.to, r.centres);
            return;
        }
        Part[] parts = new Part[(r.size() + PART - 1) / PART];
        for (int k = 0; k < parts.length; k++)
            parts[k] = new Part(this, refs, r, r.from + k * PART, Math.min(r.to, r.from + (k + 1) * PART));
        ForkJoinTask.invokeAll(parts);
        for (Part p : parts) add(p.bins);
    }

    private void fillPart(int[] refs, int from, int to, float[] centres) {
        if (Tracer.VECTORS) WideRefs.fill(refs, from, to, centres, this);
        else fill(refs, from, to, centres);
    }

    /** One number at a time, where there are no vectors. */
    void fill(int[] r, int from, int to, float[] centres) {
        for (int o = Range.REF * from; o < Range.REF * to; o += Range.REF) {
            int x = bin(r, o, 0, centres), y = MOST + bin(r, o, 1, centres), z = 2 * MOST + bin(r, o, 2, centres);
            r[o + Range.BINS] = pack(x, y, z);
            counts[x]++;
            counts[y]++;
            counts[z]++;
            add(x, r, o);
            add(y, r, o);
            add(z, r, o);
        }
    }

    private void add(int bin, int[] r, int o) {
        int b = STRIDE * bin;
        for (int k = 0; k < 3; k++) {
            int c = Range.sortable(Range.value(r[o + k]) + Range.value(~r[o + 3 + k]));
            boxes[b + k] = Math.min(boxes[b + k], r[o + k]);
            boxes[b + 3 + k] = Math.min(boxes[b + 3 + k], r[o + 3 + k]);
            boxes[b + CENTRES + k] = Math.min(boxes[b + CENTRES + k], c);
            boxes[b + CENTRES + 3 + k] = Math.min(boxes[b + CENTRES + 3 + k], ~c);
        }
    }

    private int bin(int[] r, int o, int a, float[] centres) {
        return (int) ((Range.value(r[o + a]) + Range.value(~r[o + 3 + a]) - centres[a]) * scale[a]);
    }

    /** The three bins of a reference, axis by axis, in one number. */
    static int pack(int x, int y, int z) {
        return x | (y - MOST) << 8 | (z - 2 * MOST) << 16;
    }

    /** The bin along an axis that a reference was last sorted into. */
    static int unpack(int packed, int axis) {
        return packed >> 8 * axis & 255;
    }

    private void add(Bins b) {
        for (int a = 0; a < 3; a++)
            for (int k = a * MOST; k < a * MOST + used; k++) {
                counts[k] += b.counts[k];
                Range.merge(boxes, STRIDE * k, b.boxes, STRIDE * k);
                Range.merge(boxes, STRIDE * k + CENTRES, b.boxes, STRIDE * k + CENTRES);
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
            bins.fillPart(refs, from, to, run.centres);
        }
    }
}
