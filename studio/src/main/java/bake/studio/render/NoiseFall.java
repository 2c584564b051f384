package bake.studio.render;

import java.util.ArrayList;
import java.util.List;

/**
 * How the noise of a picture falls with its passes. Where every sample is alike it falls with the root of them; where rare bright paths are
 * still to come it falls more slowly at first: in a sunny room by the power of 0.3 after ten passes, 0.36 after fifty and 0.44 after three
 * hundred (measured): what is missing to the root goes with about the power of 0.3 of the passes. What is left after denoising falls
 * more slowly the longer, since more and more of it is what all samples have in common: its power, 0.1 to 0.6 after six passes, comes back
 * to the usual one.
 */
public final class NoiseFall {
    private static final double LEAST = 0.1, MOST = 0.6;
    /** Power of passes with which noise falls that nothing takes away. */
    public static final double ROOT = 0.5;
    /** How fast the power comes to that in the end, of noise and of what denoising leaves. */
    private static final double CATCHING_UP = 0.3, COMING_BACK = 1;
    /** Spread of judgements, relative, and of the power from picture to picture (measured on five views, cached and traced). */
    private static final double JUDGED = 0.04, USUAL = 0.12;
    /** Share of the passes since which the fall is looked at: it was another one before. */
    private static final double LATELY = 0.25;

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
     * @param denoised whether it is what is left after denoising
     * @param noise after {@code from} passes, at which it falls with {@code power}
     */
    public static double noise(boolean denoised, double from, double noise, double power, double passes) {
        double l = Math.log(Math.max(1e-9, passes / from)), end = denoised ? DENOISED : Math.max(ROOT, power),
                c = denoised ? COMING_BACK : CATCHING_UP;
        if (l <= 0) return noise * Math.exp(-power * l);
        // The power changes on the way: the integral of end - (end - power) exp(-c l).
        return noise * Math.exp((end - power) / c * (1 - Math.exp(-c * l)) - end * l);
    }

    /** Passes after which noise is at an aim. */
    public static double passes(boolean denoised, double from, double noise, double power, double aim) {
        if (!(noise > aim)) return from * Math.pow(noise / aim, 1 / power);
        double lo = 0, hi = 60;
        for (int i = 0; i < 60; i++) {
            double mid = (lo + hi) / 2;
            if (noise(denoised, from, noise, power, from * Math.exp(mid)) > aim) lo = mid;
            else hi = mid;
        }
        return from * Math.exp(hi);
    }

    /** The power: the slope of a line through what was judged lately, drawn to the usual one as far as that says little. */
    double power() {
        double n = 0, x = 0, y = 0, xx = 0, xy = 0;
        for (double[] s : seen) {
            if (s[0] < LATELY * seen.getLast()[0]) continue;
            double u = Math.log(s[0]), v = -Math.log(s[1]);
            n++;
            x += u;
            y += v;
            xx += u * u;
            xy += u * v;
        }
        if (n < 2) return usual;
        double prior = JUDGED * JUDGED / (USUAL * USUAL);
        return Math.clamp((xy - x * y / n + prior * usual) / (xx - x * x / n + prior), LEAST, MOST);
    }
}
