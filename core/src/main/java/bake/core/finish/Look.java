package bake.core.finish;

/**
 * How scene light becomes display light, beside the exposure.
 *
 * @param whiteBalance colour temperature of the light that is to look white, kelvin, 1500 to 25,000; {@link #NEUTRAL}
 *     changes nothing
 */
public record Look(ToneCurve curve, double whiteBalance) {
    /** Colour temperature nearest to that of the display's own white, D65. */
    public static final double NEUTRAL = 6504;
    public static final Look PLAIN = new Look(ToneCurve.FILM, NEUTRAL);
}
