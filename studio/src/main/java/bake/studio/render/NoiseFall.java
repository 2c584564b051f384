package bake.studio.render;

import java.util.ArrayList;
import java.util.List;

/**
 * How the noise of a picture falls with its passes. Where every sample is alike it falls with the root of them; where rare bright paths are
 * still to come it falls more slowly at first: in a sunny room by the power of 0.3 after ten passes, 0.36 after fifty and 0.44 after three
 * hundred (measured): what is missing to the root goes with about the power of 0.3 of the passes.
 */
public final class NoiseFall {
    private static final double ROOT = 0.5, LEAST = 0.2, MOST = 0.6;
    /** How much is believed of what was seen of the last two thirds, and how what is missing to the root goes. */
    private static final double BELIEF = 0.9, CATCHING_UP = 0.3;

    /** With which power of its passes what is left after denoising falls, about: 0.16 and 0.3 were seen (docs/decisions/0023). */
    public static final double DENOISED = 0.3;

    /** The power while nothing is known. */
    private final double usual;
    /** Passes and noise, in turn, as they were judged. */
    private final List<double[]> seen = new ArrayList<>();

    /** @param denoised whether it is what is left after denoising that falls */
    NoiseFall(boolean denoised) {
        usual = denoised ? DENOISED : ROOT;
    }

    void judged(int passes, double noise) {
        if (Double.isFinite(noise) && noise > 0) seen.add(new double[] {passes, noise});
    }

    /**
     * Noise after some passes.
     *
     * @param noise after {@code from} passes, at which it falls with {@code power}
     */
    public static double noise(double from, double noise, double power, double passes) {
        double l = Math.log(Math.max(1e-9, passes / from));
        if (l <= 0 || power >= ROOT) return noise * Math.exp(-power * l);
        // The power grows on the way: the integral of root - (root - power) exp(-c l).
        return noise * Math.exp((ROOT - power) / CATCHING_UP * (1 - Math.exp(-CATCHING_UP * l)) - ROOT * l);
    }

    /** Passes after which noise is at an aim. */
    public static double passes(double from, double noise, double power, double aim) {
        if (!(noise > aim) || power >= ROOT) return from * Math.pow(noise / aim, 1 / power);
        double lo = 0, hi = 60;
        for (int i = 0; i < 60; i++) {
            double mid = (lo + hi) / 2;
            if (noise(from, noise, power, from * Math.exp(mid)) > aim) lo = mid;
            else hi = mid;
        }
        return from * Math.exp(hi);
    }

    /** The power; the usual one while nothing is known. */
    double power() {
        if (seen.size() < 3) return usual;
        double[] last = seen.getLast(), before = seen.getFirst();
        for (double[] s : seen) if (s[0] <= last[0] / 3) before = s;
        if (last[0] < 2 * before[0]) return usual;
        double a = Math.log(before[1] / last[1]) / Math.log(last[0] / before[0]);
        return Math.clamp(BELIEF * a + (1 - BELIEF) * usual, LEAST, MOST);
    }
}
