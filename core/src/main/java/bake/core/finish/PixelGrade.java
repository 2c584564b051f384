package bake.core.finish;

import bake.core.math.Srgb;

/** The steps of a look that need nothing but a pixel's own light: before the picture is drawn and after. Immutable. */
final class PixelGrade {
    private static final int CURVE = 4096;
    /** Where light and dark part, in stops under saturation, and how many stops it takes. */
    private static final double MIDDLE = -3.3, WIDE = 4, STOPS = 2;

    private final Look look;
    private final float gain;
    private final WhiteBalance balance;
    private final LightTable tones, response;
    private final CodeTable codes;
    private final float saturation, vibrance;
    /** Curves of display values by colour, or null. */
    private final float[][] curves;
    private final boolean keepHue, plain, wide;

    /**
     * @param saturates luminance that saturates the camera, cd/m2
     * @param wide whether colours that sRGB has not go on, as values below 0 and above 1
     */
    PixelGrade(double saturates, Look look, boolean wide) {
        this.look = look;
        this.wide = wide;
        gain = (float) (Math.pow(2, look.lighten()) / saturates);
        balance = new WhiteBalance(look.whiteBalance(), look.tint());
        ToneResponse r = look.response();
        response = new LightTable(x -> Srgb.encode(r.apply(x)), false);
        codes = new CodeTable(x -> Srgb.encode(r.apply(x)));
        Look.Tones t = look.tones();
        tones = t.highlights() == 0 && t.shadows() == 0 ? null : new LightTable(x -> Math.pow(2, stops(t, x)), true);
        saturation = (float) look.colours().saturation();
        vibrance = (float) look.colours().vibrance();
        keepHue = look.keepHue();
        curves = t.contrast() != 0 || t.curved() || look.colours().graded() ? curves(look) : null;
        plain = curves == null && saturation == 0 && vibrance == 0 && look.lut() == null;
    }

    /** How many stops light of this much is raised: shadows and highlights apart, so gently that no tone passes another. */
    private static double stops(Look.Tones t, double x) {
        if (!(x > 0)) return STOPS * t.shadows();
        double s = Math.clamp((Math.log(x) / Math.log(2) - MIDDLE) / WIDE, -1, 1), k = Math.abs(s), w = k * k * (3 - 2 * k);
        return STOPS * w * (s < 0 ? t.shadows() : t.highlights());
    }

    /** Curves of all and of each colour, contrast, then slope, offset and power, in one table for each colour. */
    private static float[][] curves(Look look) {
        Look.Tones t = look.tones();
        Look.Colours c = look.colours();
        SplineCurve[] own = {t.red(), t.green(), t.blue()};
        float[][] out = new float[3][CURVE + 2];
        double k = Math.pow(4, t.contrast());
        for (int i = 0; i < 3; i++)
            for (int j = 0; j < CURVE + 2; j++) {
                double x = Math.min(1, j / (double) CURVE);
                // About the middle of the display, through black and white: a power on each side (a sigmoid of two pieces).
                x = x < 0.5 ? 0.5 * Math.pow(2 * x, k) : 1 - 0.5 * Math.pow(2 - 2 * x, k);
                x = own[i].at(Math.clamp(t.all().at(x), 0, 1));
                x = Math.pow(Math.clamp(x * c.slope().get(i) + c.offset().get(i), 0, 1), c.power().get(i));
                out[i][j] = (float) x;
            }
        return out;
    }

    /** Light in cd/m2 of pixels from one on, three colours each, balanced, in saturating luminances. */
    void scene(float[] c, int from, int to) {
        for (int i = from; i < to; i++) c[i] *= gain;
        if (balance.neutral()) return;
        if (wide) for (int i = from; i < to; i += 3) balance.whole(c, i);
        else for (int i = from; i < to; i += 3) balance.apply(c, i);
    }

    /** Highlights and shadows of such light raised or lowered. */
    void tones(float[] c, int from, int to) {
        if (tones == null) return;
        for (int i = from; i < to; i += 3) {
            float k = tones.at(0.2126f * c[i] + 0.7152f * c[i + 1] + 0.0722f * c[i + 2]);
            c[i] *= k;
            c[i + 1] *= k;
            c[i + 2] *= k;
        }
    }

    /** Whether nothing but {@link #code} is needed of light to show it. */
    boolean simple() {
        return plain && !keepHue && tones == null && !wide;
    }

    /** 0xFFRRGGBB of light in cd/m2 where that is all there is to do. */
    int code(float r, float g, float b) {
        float x = gain * r, y = gain * g, z = gain * b;
        if (balance.neutral()) return 0xff000000 | codes.at(x) << 16 | codes.at(y) << 8 | codes.at(z);
        return 0xff000000 | codes.at(balance.row(0, x, y, z)) << 16 | codes.at(balance.row(3, x, y, z)) << 8 | codes.at(balance.row(6, x,
                y, z));
    }

    /** Such light as the display encodes it, 0 to 1, its colours graded. */
    void display(float[] c, int from, int to) {
        if (keepHue) for (int i = from; i < to; i += 3) hue(c, i);
        else if (wide) for (int i = from; i < to; i++) c[i] = c[i] < 0 ? -response.at(-c[i]) : response.at(c[i]);
        else for (int i = from; i < to; i++) c[i] = response.at(c[i]);
        if (curves != null) for (int k = 0; k < 3; k++) {
            float[] t = curves[k];
            for (int i = from + k; i < to; i += 3) c[i] = curve(t, c[i]);
        }
        if (saturation != 0 || vibrance != 0) for (int i = from; i < to; i += 3) saturate(c, i);
        if (look.lut() != null) for (int i = from; i < to; i += 3) look.lut().apply(c, i, (float) look.lutStrength());
    }

    private void hue(float[] c, int o) {
        float most = Math.max(c[o], Math.max(c[o + 1], c[o + 2]));
        if (!(most > 0)) {
            c[o] = c[o + 1] = c[o + 2] = 0;
            return;
        }
        // Linear ratios are kept, so that what is shown has the colour of the light.
        double shown = Srgb.decode(response.at(most)) / most;
        for (int k = o; k < o + 3; k++) c[k] = (float) (c[k] < 0 ? wide ? -Srgb.encode(-c[k] * shown) : 0 : Srgb.encode(c[k] * shown));
    }

    private void saturate(float[] c, int o) {
        float r = c[o], g = c[o + 1], b = c[o + 2], l = 0.2126f * r + 0.7152f * g + 0.0722f * b, high = Math.max(r, Math.max(g, b)),
                low = Math.min(r, Math.min(g, b)), had = high > 0 ? (high - low) / high : 0, k = (1 + saturation) * (1 + vibrance * (
                        1 - had));
        c[o] = l + k * (r - l);
        c[o + 1] = l + k * (g - l);
        c[o + 2] = l + k * (b - l);
        if (!wide) for (int i = o; i < o + 3; i++) c[i] = Math.clamp(c[i], 0f, 1f);
    }

    /** @param v 0 to 1; what is below goes on beside the curve */
    private static float curve(float[] t, float v) {
        if (v < 0) return t[0] + v;
        float x = v * CURVE;
        int i = (int) x;
        return t[i] + (x - i) * (t[i + 1] - t[i]);
    }
}
