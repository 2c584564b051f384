package bake.core.finish;

import java.util.List;

/**
 * How scene light becomes the picture, beside the exposure; docs/finish.md says the order of the steps. All strengths are 0 for nothing.
 *
 * @param curve kind of tone curve
 * @param toe how steeply the film curve leaves black, -1 to 1; {@code shoulder} how far it holds highlights, -1 to 1
 * @param keepHue whether the curve is taken of the brightest colour alone, so that hue and saturation stay
 * @param lighten stops after the fact, -10 to 10
 * @param whiteBalance colour temperature of the light that is to look white, kelvin, 1500 to 25,000; {@link #NEUTRAL}
 *     changes nothing
 * @param tint how much greener that light is than a black body, -1 (magenta) to 1 (green), in 0.05 of v in CIE 1960 u, v
 * @param lut table that display colours go through last; null for none
 */
public record Look(ToneCurve curve, double toe, double shoulder, boolean keepHue, double lighten, double whiteBalance, double tint,
        Tones tones, Colours colours, Optics optics, Drawing drawing, Sky sky, ColourTable lut, double lutStrength) {
    /** Colour temperature nearest to that of the display's own white, D65. */
    public static final double NEUTRAL = 6504;
    public static final Look PLAIN = new Look(ToneCurve.FILM, NEUTRAL);

    /** A tone curve and a white balance, and nothing else. */
    public Look(ToneCurve curve, double whiteBalance) {
        this(curve, 0, 0, false, 0, whiteBalance, 0, Tones.NONE, Colours.NONE, Optics.NONE, Drawing.NONE, Sky.NONE, null, 1);
    }

    /**
     * Tones.
     *
     * @param highlights how highlights are darkened (below 0) or lightened, -1 to 1, two stops at most; {@code shadows} the same of dark
     * ones
     * @param contrast about the middle of the display, -1 to 1
     * @param all curve of all colours, then those of {@code red}, {@code green} and {@code blue}
     */
    public record Tones(double highlights, double shadows, double contrast, SplineCurve all, SplineCurve red, SplineCurve green,
            SplineCurve blue) {
        public static final Tones NONE = new Tones(0, 0, 0, SplineCurve.STRAIGHT, SplineCurve.STRAIGHT, SplineCurve.STRAIGHT,
                SplineCurve.STRAIGHT);

        boolean curved() {
            return !(all.straight() && red.straight() && green.straight() && blue.straight());
        }
    }

    /**
     * Colours, on what is displayed, 0 to 1.
     *
     * @param saturation -1 (grey) to 1; {@code vibrance} the same where there is little of it
     * @param slope three factors, {@code offset} what is added, {@code power} to which it is raised (the color decision list's
     *     formula: clamp(in * slope + offset) ^ power)
     */
    public record Colours(double saturation, double vibrance, List<Double> slope, List<Double> offset, List<Double> power) {
        private static final List<Double> ONES = List.of(1.0, 1.0, 1.0), ZEROS = List.of(0.0, 0.0, 0.0);
        public static final Colours NONE = new Colours(0, 0, ONES, ZEROS, ONES);

        boolean graded() {
            return !(slope.equals(ONES) && offset.equals(ZEROS) && power.equals(ONES));
        }
    }

    /**
     * What lens, eye and film do.
     *
     * @param glow share of the light that is scattered, 0 to 1, {@code glowSize} over which part of the picture's height, 0.01 to 1
     * @param vignette 0 to 1: how far corners darken, as cos^4 does at an angle whose tangent this is
     * @param fringe how far red and blue are apart in the corners, thousandths of the picture's half diagonal, -5 to 5
     * @param sharpen 0 to 2
     * @param grain 0 to 1, {@code grainSize} pixels, 1 to 8
     */
    public record Optics(double glow, double glowSize, double vignette, double fringe, double sharpen, double grain, double grainSize) {
        public static final Optics NONE = new Optics(0, 0.2, 0, 0, 0, 0, 1.5);
    }

    /**
     * What makes a drawing of a picture.
     *
     * @param outline strength of lines where something ends, 0 to 1, {@code weight} their width, thousandths of the picture's height, 0.5
     * to 10
     * @param wobble how far a hand strays, 0 to 1
     * @param wash how far tones run together within their edges, 0 to 1, {@code washSize} thousandths of the picture's height, 1 to 30
     */
    public record Drawing(double outline, double weight, double wobble, double wash, double washSize) {
        public static final Drawing NONE = new Drawing(0, 1.5, 0, 0, 6);
    }

    /**
     * What is done to sky and backdrop alone.
     *
     * @param lighten stops, -5 to 5
     * @param saturation -1 (grey) to 1
     * @param warmth -1 (bluer) to 1 (warmer): octaves of the colour temperature it is balanced for
     */
    public record Sky(double lighten, double saturation, double warmth) {
        public static final Sky NONE = new Sky(0, 0, 0);
    }

    /** The response of the chosen curve. */
    public ToneResponse response() {
        return new ToneResponse(curve, toe, shoulder);
    }

    public Look withLut(ColourTable table) {
        return new Look(curve, toe, shoulder, keepHue, lighten, whiteBalance, tint, tones, colours, optics, drawing, sky, table,
                lutStrength);
    }

    /** Whether a pixel depends on those around it, or on where it lies. */
    public boolean spatial() {
        Optics o = optics;
        return o.glow > 0 || o.vignette > 0 || o.fringe != 0 || o.sharpen > 0 || o.grain > 0 || drawing.outline > 0 || drawing.wash > 0;
    }
}
