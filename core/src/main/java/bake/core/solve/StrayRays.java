package bake.core.solve;

/**
 * Limits the few rays of a record that bring far more than all others. A pixel forgets a path that has met something very bright by chance
 * as samples add up; a record keeps such a ray, and spreads it over all pixels around as a coloured blotch. So the brightest few rays count
 * no more than twice the next one (a winsorized mean; Tukey 1962, from memory), unless what they bring is little. What is bright and not
 * tiny is met by more rays than these, and stays; with few rays little can be told apart, so that is for records of many.
 */
final class StrayRays {
    /** Rays of a record from which on it is done; how many of them may be stray. */
    static final int FEWEST = 400;
    private static final int MOST = 3;
    /**
     * How much more than the next one they may bring, and share of all other light that is always theirs: with a twentieth records of a
     * sunny room lose 1.7 % of their light, with 0.15 0.9 % and with 0.4 0.2 %.
     */
    private static final float SECOND = 2, SHARE = 0.25f;

    private final float[][] samples;
    private final float[] luminance = new float[MOST + 1];
    private final int[] rays = new int[MOST + 1];
    private float others;

    /** @param channels of a sample: three colours for each source group */
    StrayRays(int channels) {
        samples = new float[MOST + 1][channels];
    }

    void begin() {
        java.util.Arrays.fill(luminance, 0);
        others = 0;
    }

    /** A ray has brought light. */
    void take(int ray, float l, float[] sample) {
        int k = MOST + 1;
        while (k > 0 && luminance[k - 1] < l) k--;
        if (k > MOST) {
            others += l;
            return;
        }
        others += luminance[MOST];
        float[] last = samples[MOST];
        for (int i = MOST; i > k; i--) {
            samples[i] = samples[i - 1];
            luminance[i] = luminance[i - 1];
            rays[i] = rays[i - 1];
        }
        samples[k] = last;
        System.arraycopy(sample, 0, last, 0, last.length);
        luminance[k] = l;
        rays[k] = ray;
    }

    /** Takes from the sum of all rays, and from the luminance of each, what stray ones bring too much. */
    void limit(float[] sum, float[] each) {
        // Where next to nothing is lit, these are not stray but all there is.
        if (luminance[MOST] == 0) return;
        float most = Math.max(SECOND * luminance[MOST], SHARE * (others + luminance[MOST]));
        for (int k = 0; k < MOST; k++) {
            if (luminance[k] <= most) continue;
            float less = 1 - most / luminance[k];
            for (int c = 0; c < sum.length; c++) sum[c] = Math.max(0, sum[c] - less * samples[k][c]);
            each[rays[k]] = most;
        }
    }
}
