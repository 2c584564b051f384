package bake.core.light;

import bake.core.math.Distribution;

/** Aiming at all of the surroundings, or at one of the bins of directions of their dome: what is learnt where no opening is known. */
final class CompassAim extends Aim {
    /** Least chance of aiming at everything. */
    private static final float LEAST_WHOLE = 0.16f;
    /** A bin that is worth less than this share of what it could be is hidden. */
    private static final float HIDDEN = 0.05f;

    private final Dome dome;
    private final Distribution bins;
    /** For each bin its chance over that of the dome. */
    private final float[] factors;
    private final boolean indoors;

    private CompassAim(Dome dome, Distribution bins, float whole) {
        super(whole);
        this.dome = dome;
        this.bins = bins;
        factors = new float[dome.bins()];
        float hidden = 0;
        for (int b = 0; b < factors.length; b++) {
            factors[b] = dome.binChance(b) > 0 ? (1 - whole) * bins.probability(b) / dome.binChance(b) : 0;
            if (factors[b] < HIDDEN) hidden += dome.binChance(b);
        }
        indoors = hidden > 0.5f;
    }

    /** @param worth of each way, from {@code o} on: of everything, and of each bin */
    static CompassAim of(Dome dome, float[] weights, int o) {
        float[] w = new float[dome.bins()];
        float all = 0;
        for (int b = 0; b < w.length; b++) all += w[b] = dome.binChance(b) > 0 ? weights[o + 1 + b] : 0;
        return new CompassAim(dome, new Distribution(w), all > 0 ? LEAST_WHOLE : 1);
    }

    @Override
    public int sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out) {
        int b = bins.sample(Math.min(choose, 0x1.fffffep-1f));
        dome.sampleIn(b, u1, u2, out.rgb);
        out.x = out.rgb[0];
        out.y = out.rgb[1];
        out.z = out.rgb[2];
        return 1 + b;
    }

    @Override
    public float pdf(float px, float py, float pz, float dx, float dy, float dz, float whole, int bin) {
        return whole * (whole() + factors[bin]);
    }

    @Override
    public boolean indoors() {
        return indoors;
    }
}
