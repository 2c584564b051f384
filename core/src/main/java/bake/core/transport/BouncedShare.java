package bake.core.transport;

import java.util.concurrent.atomic.AtomicLongArray;

/**
 * How much of a picture's noise is light that has bounced, cell by cell of the picture, learnt from a few paths. Where it is little,
 * using the bounces of other pixels costs more time than it saves. Whole numbers only, so that the order of paths does not matter.
 */
final class BouncedShare {
    private static final int ACROSS = 24, DOWN = 16;
    /** Variance of bounced light, in those of straight light, from which on exchange pays: it takes four fifths of it, for half the time of a path. */
    private static final double PAYS = 0.85;
    private static final double STEPS = 1 << 16, MOST = 64;
    private static final int SEEN = 16;
    /** Keeps what is as good as black from counting. */
    private static final double LEAST = 1e-3;

    /** By cell: paths, straight light, its square, bounced light, its square. */
    private final AtomicLongArray sums;

    BouncedShare() {
        sums = new AtomicLongArray(5 * ACROSS * DOWN);
    }

    BouncedShare(BouncedShare from) {
        this();
        for (int i = 0; i < sums.length(); i++) sums.set(i, from.sums.get(i));
    }

    private static int cell(double x, double y) {
        return 5 * (Math.clamp((int) (y * DOWN), 0, DOWN - 1) * ACROSS + Math.clamp((int) (x * ACROSS), 0, ACROSS - 1));
    }

    /**
     * Takes in a path.
     *
     * @param x in shares of the picture's width
     * @param y in shares of its height
     * @param straight light that came without a bounce, in units of white
     * @param bounced light that came with one or more
     */
    void add(double x, double y, double straight, double bounced) {
        int i = cell(x, y);
        double s = limited(straight), b = limited(bounced);
        sums.incrementAndGet(i);
        sums.addAndGet(i + 1, Math.round(s * STEPS));
        sums.addAndGet(i + 2, Math.round(s * s * STEPS));
        sums.addAndGet(i + 3, Math.round(b * STEPS));
        sums.addAndGet(i + 4, Math.round(b * b * STEPS));
    }

    private static double limited(double light) {
        return light > 0 ? Math.min(light, MOST) : 0;
    }

    /** Whether exchange pays in this picture; as long as nothing is known it is taken to. */
    boolean pays() {
        return ratio() >= PAYS;
    }

    /** Variance of bounced light over that of straight light; endless as long as nothing is known. */
    double ratio() {
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
        double n = sums.get(cell) * STEPS, mean = sums.get(cell + of) / n;
        return sums.get(cell + of + 1) / n - mean * mean;
    }
}
