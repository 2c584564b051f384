package bake.studio.render;

import java.util.ArrayList;
import java.util.List;

/**
 * How the noise of a picture falls with its passes. Where every sample is alike it falls with the root of them; where rare bright paths are
 * still to come it falls more slowly at first: in a sunny room by the power of 0.3 after ten passes, 0.36 after fifty and 0.44 after three
 * hundred (measured).
 */
final class NoiseFall {
    private static final double ROOT = 0.5, LEAST = 0.25, MOST = 0.6;
    /** How much is believed of what was seen of the last two thirds: later it will be nearer to the root. */
    private static final double BELIEF = 0.75;

    /** Passes and noise, in turn, as they were judged. */
    private final List<double[]> seen = new ArrayList<>();

    void judged(int passes, double noise) {
        if (Double.isFinite(noise) && noise > 0) seen.add(new double[] {passes, noise});
    }

    /** The power; that of the root while nothing is known. */
    double power() {
        if (seen.size() < 3) return ROOT;
        double[] last = seen.getLast(), before = seen.getFirst();
        for (double[] s : seen) if (s[0] <= last[0] / 3) before = s;
        if (last[0] < 2 * before[0]) return ROOT;
        double a = Math.log(before[1] / last[1]) / Math.log(last[0] / before[0]);
        return Math.clamp(BELIEF * a + (1 - BELIEF) * ROOT, LEAST, MOST);
    }
}
