package bake.core.finish;

/** Kinds of curves from scene light to display light; {@link ToneResponse} is one of them with its values. */
public enum ToneCurve {
    /**
     * The response of a receptor, x^a / (x^a + c) (Naka and Rushton 1966, as used by Reinhard and Devlin 2005),
     * scaled so that four stops above saturation are white and middle grey, 0.104, is shown at 0.18.
     */
    FILM,
    /** No curve: cut at saturation. */
    LINEAR,
    /**
     * The photographic operator for a whole picture, L (1 + L / w^2) / (1 + L) (Reinhard et al. 2002, eq. 4), for the
     * same grey and white.
     */
    PHOTOGRAPHIC,
    /** 1 - e^(-k x), as film darkens (an exponential mapping: Ferschin, Tastl and Purgathofer 1994, from memory), for the same grey. */
    EXPONENTIAL;

    private static final ToneResponse[] STANDARD = new ToneResponse[values().length];

    static {
        for (ToneCurve c : values()) STANDARD[c.ordinal()] = new ToneResponse(c, 0, 0);
    }

    /** Display light 0 to 1 for scene light {@code x}, at least 0, with 1 the saturating luminance. */
    public double apply(double x) {
        return STANDARD[ordinal()].apply(x);
    }

    /** The scene light that is shown as {@code display}, 0 to 1: for 0 none, for 1 the least that is shown so. */
    public double invert(double display) {
        return STANDARD[ordinal()].invert(display);
    }

    /** Derivative of {@link #apply}. */
    public double slope(double x) {
        return STANDARD[ordinal()].slope(x);
    }
}
