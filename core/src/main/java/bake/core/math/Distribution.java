package bake.core.math;

/**
 * A discrete distribution over {@code n} weights with its running sums, sampled by a table of where to begin (Chen and Asau 1974, "On
 * generating random variates from an empirical distribution").
 */
public final class Distribution {
    private final float[] cdf;
    /** For each of as many equal parts of [0, 1) as there are entries: the entry that its beginning falls into. */
    private final int[] begin;
    private final double total;

    /**
     * @param weights non-negative finite weights; when all are zero the distribution is uniform
     */
    public Distribution(float[] weights) {
        this(weights, 0, weights.length);
    }

    public Distribution(float[] weights, int from, int n) {
        double sum = 0;
        for (int i = 0; i < n; i++) sum += weights[from + i];
        total = sum;
        cdf = new float[n + 1];
        double run = 0;
        for (int i = 0; i < n; i++) {
            run += sum > 0 ? weights[from + i] / sum : 1.0 / n;
            cdf[i + 1] = (float) run;
        }
        cdf[n] = 1;
        begin = new int[n];
        for (int k = 0, i = 0; k < n; k++) {
            while (cdf[i + 1] <= k / (float) n) i++;
            begin[k] = i;
        }
    }

    /** Sum of the weights. */
    public double total() {
        return total;
    }

    public int size() {
        return cdf.length - 1;
    }

    /** Index of the entry that {@code u} in [0, 1) falls into; entries of weight zero are never returned. */
    public int sample(float u) {
        int i = begin[Math.min((int) (u * begin.length), begin.length - 1)];
        // Rounding may have begun one entry too far.
        while (cdf[i] > u) i--;
        while (cdf[i + 1] <= u) i++;
        return i;
    }

    public float probability(int i) {
        return cdf[i + 1] - cdf[i];
    }

    /** Chance of all entries before {@code i}; 1 for {@code i} past the last. */
    public float below(int i) {
        return cdf[i];
    }

    /** Position of {@code u} within entry {@code i}, in [0, 1): lets one number serve two choices. */
    public float remap(float u, int i) {
        float p = probability(i);
        return p > 0 ? Math.min((u - cdf[i]) / p, 0x1.fffffep-1f) : 0;
    }
}
