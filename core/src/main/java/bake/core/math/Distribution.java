package bake.core.math;

/** A discrete distribution over {@code n} weights with its running sums, sampled by bisection. */
public final class Distribution {
    private final float[] cdf;
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
        int lo = 0, hi = cdf.length - 1;
        while (hi - lo > 1) {
            int mid = (lo + hi) >>> 1;
            if (cdf[mid] <= u) lo = mid;
            else hi = mid;
        }
        return lo;
    }

    public float probability(int i) {
        return cdf[i + 1] - cdf[i];
    }

    /** Position of {@code u} within entry {@code i}, in [0, 1): lets one number serve two choices. */
    public float remap(float u, int i) {
        float p = probability(i);
        return p > 0 ? Math.min((u - cdf[i]) / p, 0x1.fffffep-1f) : 0;
    }
}
