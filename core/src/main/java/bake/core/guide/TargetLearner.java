package bake.core.guide;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;

/**
 * Learns for each leaf of a {@link Space} what each of a fixed number of ways to look for light is worth: the root of the
 * mean square of what one look brought, which is the best chance to give it (the least variance of a sum of estimates).
 */
final class TargetLearner {
    private static final float UNIT = 1 << 24, MOST = 1L << 44;
    /** Looks that a leaf needs before what it learnt is used. */
    private static final int LEAST_LOOKS = 64;
    private static final VarHandle LONGS = MethodHandles.arrayElementVarHandle(long[].class),
            INTS = MethodHandles.arrayElementVarHandle(int[].class);

    private final int targets;
    private final long[] sums;
    private final int[] looks;

    TargetLearner(int leaves, int targets) {
        this.targets = targets;
        sums = new long[leaves * targets];
        looks = new int[leaves * targets];
    }

    /** @param value what was brought, as a multiple of a typical luminance, over the density within the way */
    void record(int leaf, int target, float value) {
        int at = leaf * targets + target;
        INTS.getAndAdd(looks, at, 1);
        float square = value * value * UNIT;
        if (square >= 1) LONGS.getAndAdd(sums, at, (long) Math.min(square, MOST));
    }

    /** Writes what the ways of a leaf are worth, from {@code out[o]} on; returns false, and zeros, where too little is known. */
    boolean weights(int leaf, float[] out, int o) {
        int first = leaf * targets, all = 0, tried = 0;
        double mean = 0;
        for (int k = 0; k < targets; k++) {
            int n = looks[first + k];
            out[o + k] = n > 0 ? (float) Math.sqrt(sums[first + k] / (double) n / UNIT) : 0;
            all += n;
            if (n > 0) tried++;
            mean += out[o + k];
        }
        boolean enough = all >= LEAST_LOOKS && mean > 0;
        for (int k = 0; k < targets; k++) {
            int n = looks[first + k];
            // Few looks that found nothing prove little.
            if (!enough) out[o + k] = 0;
            else if (n > 0) out[o + k] += (float) (mean / tried * 0.5 / Math.sqrt(1.0 + n));
        }
        return enough;
    }
}
