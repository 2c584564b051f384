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
    private final float contrast, saturation, vibrance;
    /** Curves of display values by colour, or null. */
    private final float[][] curves;
    private final boolean keepHue, plain;

    /** @param saturates luminance that saturates the camera, cd/m2 */
    PixelGrade(double saturates, Look look) {
        this.look = look;
        gain = (float) (Math.pow(2, look.lighten()) / saturates);
        balance = new WhiteBalance(look.whiteBalance(), look.tint());
        ToneResponse r = look.response();
        response = new LightTable(x -> Srgb.encode(r.apply(x)));
        Look.Tones t = look.tones();
        tones = t.highlights() == 0 && t.shadows() == 0 ? null : new LightTable(x -> Math.pow(2, stops(t, x)));
        contrast = (float) t.contrast();
        saturation = (float) look.colours().saturation();
        vibrance = (float) look.colours().vibrance();
        keepHue = look.keepHue();
        curves = contrast != 0 || t.curved() || look.colours().graded() ? curves(look) : null;
        plain = curves == null && saturation == 0 && vibrance == 0 && look.lut() == null;
    }

    /** How many stops light of this much is raised: dark and light tones apart, so gently that none passes another. */
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

    /** Light in cd/m2 at {@code c[o]} balanced, in saturating luminances. */
    void scene(float[] c, int o) {
        c[o] *= gain;
        c[o + 1] *= gain;
        c[o + 2] *= gain;
        balance.apply(c, o);
    }

    /** Light and dark tones of such light raised or lowered. */
    void tones(float[] c, int o) {
        if (tones == null) return;
        float k = tones.at(0.2126f * c[o] + 0.7152f * c[o + 1] + 0.0722f * c[o + 2]);
        c[o] *= k;
        c[o + 1] *= k;
        c[o + 2] *= k;
    }

    /** Such light as the display encodes it, 0 to 1, its colours graded. */
    void display(float[] c, int o) {
        if (keepHue) {
            float most = Math.max(c[o], Math.max(c[o + 1], c[o + 2]));
            if (!(most > 0)) c[o] = c[o + 1] = c[o + 2] = 0;
            else hue(c, o, most);
        } else {
            c[o] = response.at(c[o]);
            c[o + 1] = response.at(c[o + 1]);
            c[o + 2] = response.at(c[o + 2]);
        }
        if (!plain) graded(c, o);
    }

    private void hue(float[] c, int o, float most) {
        // Linear ratios are kept, so that what is shown has the colour of the light.
        double shown = Srgb.decode(response.at(most)) / most;
        for (int k = o; k < o + 3; k++) c[k] = (float) Srgb.encode(Math.max(0, c[k]) * shown);
    }

    private void graded(float[] c, int o) {
        if (curves != null) for (int k = 0; k < 3; k++) c[o + k] = curve(curves[k], c[o + k]);
        if (saturation != 0 || vibrance != 0) {
            float l = 0.2126f * c[o] + 0.7152f * c[o + 1] + 0.0722f * c[o + 2], high = Math.max(c[o], Math.max(c[o + 1], c[o + 2])),
                    low = Math.min(c[o], Math.min(c[o + 1], c[o + 2])), had = high > 0 ? (high - low) / high : 0,
                    k = (1 + saturation) * (1 + vibrance * (1 - had));
            for (int i = o; i < o + 3; i++) c[i] = Math.clamp(l + k * (c[i] - l), 0f, 1f);
        }
        if (look.lut() != null) look.lut().apply(c, o, (float) look.lutStrength());
    }

    private static float curve(float[] t, float v) {
        float x = Math.clamp(v, 0f, 1f) * CURVE;
        int i = (int) x;
        return t[i] + (x - i) * (t[i + 1] - t[i]);
    }
}
