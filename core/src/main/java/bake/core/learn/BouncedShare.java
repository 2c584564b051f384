package bake.core.learn;

import java.util.concurrent.atomic.AtomicLongArray;

/**
 * How much of a picture's noise is light that has bounced, cell by cell of the picture, learnt from a few paths. Where it is little,
 * using the bounces of other pixels costs more time than it saves. Whole numbers only, so that the order of paths does not matter.
 */
public final class BouncedShare {
    private static final int ACROSS = 24, DOWN = 16;
    /**
     * Variance of bounced light, in those of straight light, from which on exchange pays: it takes four fifths of it, for half the time of
     * a path.
     */
    private static final double PAYS = 2;
    private static final double STEPS = 1 << 16, MOST = 64;
    private static final int SEEN = 8;
    /** Keeps what is as good as black from counting. */
    private static final double LEAST = 1e-3;

    /** By cell: pairs of paths, straight light, its variance, bounced light, its variance. */
    private final AtomicLongArray sums;

    public BouncedShare() {
        sums = new AtomicLongArray(5 * ACROSS * DOWN);
    }

    public BouncedShare(BouncedShare from) {
        this();
        for (int i = 0; i < sums.length(); i++) sums.set(i, from.sums.get(i));
    }

    /** @throws IllegalArgumentException when these are not what {@link #data} gave */
    public BouncedShare(long[] data) {
        this();
        if (data.length != sums.length()) throw new IllegalArgumentException("not a guide");
        for (int i = 0; i < data.length; i++) sums.set(i, Math.max(0, data[i]));
    }

    public long[] data() {
        long[] out = new long[sums.length()];
        for (int i = 0; i < out.length; i++) out[i] = sums.get(i);
        return out;
    }

    private static int cell(double x, double y) {
        return 5 * (Math.clamp((int) (y * DOWN), 0, DOWN - 1) * ACROSS + Math.clamp((int) (x * ACROSS), 0, ACROSS - 1));
    }

    /**
     * Takes in two paths through one place of the picture, whose difference is noise alone.
     *
     * @param x in shares of the picture's width
     * @param y in shares of its height
     * @param s0 light that came to the first without a bounce, in units of white; s1 to the second
     * @param b0 light that came to the first with one or more; b1 to the second
     */
    public void add(double x, double y, double s0, double s1, double b0, double b1) {
        int i = cell(x, y);
        s0 = limited(s0);
        s1 = limited(s1);
        b0 = limited(b0);
        b1 = limited(b1);
        sums.incrementAndGet(i);
        sums.addAndGet(i + 1, Math.round((s0 + s1) / 2 * STEPS));
        sums.addAndGet(i + 2, Math.round((s0 - s1) * (s0 - s1) / 2 * STEPS));
        sums.addAndGet(i + 3, Math.round((b0 + b1) / 2 * STEPS));
        sums.addAndGet(i + 4, Math.round((b0 - b1) * (b0 - b1) / 2 * STEPS));
    }

    private static double limited(double light) {
        return light > 0 ? Math.min(light, MOST) : 0;
    }

    /** Whether exchange pays in this picture; as long as nothing is known it is taken to. */
    public boolean pays() {
        return ratio() >= PAYS;
    }

    /** Variance of bounced light over that of straight light; endless as long as nothing is known. */
    public double ratio() {
        double straight = 0, bounced = 0;
        for (int i = 0; i < sums.length(); i += 5) {
            if (sums.get(i) < SEEN) continue;
            double n = sums.get(i) * STEPS, mean = (sums.get(i + 1) + sums.get(i + 3)) / n + LEAST, k = 1 / (mean * mean);
            straight += k * variance(i, 1);
            bounced += k * variance(i, 3);
        }
        return straight > 0 || bounced > 0 ? bounced / straight : Double.POSITIVE_INFINITY;
    }

    private double variance(int cell, int of) {
        return sums.get(cell + of + 1) / (sums.get(cell) * STEPS);
    }
}
