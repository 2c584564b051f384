package bake.core.finish;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Srgb;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** The steps of a look, each against its formula, a value worked out by hand, or what it must leave alone. */
class LookTest {
    private static final int W = 64, H = 48;

    private static Look with(Look.Tones t, Look.Colours c, Look.Optics o, Look.Drawing d) {
        return new Look(ToneCurve.FILM, 0, 0, false, 0, Look.NEUTRAL, 0, t, c, o, d, Look.Sky.NONE, null, 1);
    }

    private static Look tones(double highlights, double shadows, double contrast) {
        SplineCurve s = SplineCurve.STRAIGHT;
        return with(new Look.Tones(highlights, shadows, contrast, s, s, s, s), Look.Colours.NONE, Look.Optics.NONE, Look.Drawing.NONE);
    }

    private static int grey(Look l, double light) {
        return grey(new Finish(1, l), light);
    }

    private static int grey(Finish f, double light) {
        float v = (float) light;
        return f.argb(new float[] {v, v, v}, Place.whole(1, 1), null)[0] & 255;
    }

    /** All curves but the straight one show middle grey alike, rise, and end at white. */
    @ParameterizedTest
    @EnumSource(ToneCurve.class)
    void curvesAgreeOnGrey(ToneCurve c) {
        for (double toe : new double[] {-1, 0, 1}) for (double shoulder : new double[] {-1, 0, 1}) {
            ToneResponse r = new ToneResponse(c, toe, shoulder);
            if (c != ToneCurve.LINEAR) assertEquals(0.18, r.apply(0.104), 1e-9);
            double last = -1;
            for (double s = -16; s < 8; s += 0.05) {
                double x = Math.pow(2, s), v = r.apply(x), d = (r.apply(x * 1.0001) - r.apply(x * 0.9999)) / (0.0002 * x);
                assertTrue(v >= last && v <= 1, c + " rises");
                last = v;
                if (v < 0.999) assertEquals(d, r.slope(x), 1e-3 * Math.max(1, d), c + "'s slope at " + x);
            }
            if (c == ToneCurve.FILM || c == ToneCurve.PHOTOGRAPHIC) assertEquals(1, r.apply(c == ToneCurve.FILM ? 16 * Math.pow(4,
                    shoulder) : 16), 1e-9);
        }
    }

    /** Reinhard et al. 2002, eq. 4, with the white that was solved for; and the exponential by its formula. */
    @Test
    void publishedCurves() {
        ToneResponse r = new ToneResponse(ToneCurve.PHOTOGRAPHIC, 0, 0);
        // For small light the operator is its factor.
        double f = r.apply(1e-6) / 1e-6, w = 16 * f;
        for (double x : new double[] {0.05, 0.4, 2, 9}) {
            double l = f * x;
            assertEquals(l * (1 + l / (w * w)) / (1 + l), r.apply(x), 1e-4);
        }
        ToneResponse e = new ToneResponse(ToneCurve.EXPONENTIAL, 0, 0);
        double k = e.apply(1e-6) / 1e-6;
        for (double x : new double[] {0.05, 0.4, 2}) assertEquals(1 - Math.exp(-k * x), e.apply(x), 1e-5);
    }

    /** A steep toe darkens shadows, a long shoulder keeps bright ones apart. */
    @Test
    void toeAndShoulder() {
        ToneResponse plain = new ToneResponse(ToneCurve.FILM, 0, 0), toe = new ToneResponse(ToneCurve.FILM, 1, 0), far = new ToneResponse(
                ToneCurve.FILM, 0, 1);
        assertTrue(toe.apply(0.01) < 0.8 * plain.apply(0.01));
        assertTrue(far.apply(4) < plain.apply(4) && far.apply(40) < 1 && plain.apply(40) == 1);
    }

    /** With the hue kept, what is shown has the proportions of the light. */
    @Test
    void hueIsKept() {
        Look l = new Look(ToneCurve.FILM, 0, 0, true, 0, Look.NEUTRAL, 0, Look.Tones.NONE, Look.Colours.NONE, Look.Optics.NONE,
                Look.Drawing.NONE, Look.Sky.NONE, null, 1);
        int c = new Finish(1, l).argb(new float[] {3, 1, 0.5f}, Place.whole(1, 1), null)[0];
        double r = Srgb.decode((c >> 16 & 255) / 255.0), g = Srgb.decode((c >> 8 & 255) / 255.0), b = Srgb.decode((c & 255) / 255.0);
        assertEquals(3, r / g, 0.05);
        assertEquals(2, g / b, 0.05);
    }

    /** Highlights and shadows apart: the others stay, and no tone passes another. */
    @Test
    void lightsAndDarks() {
        assertTrue(grey(tones(0, 1, 0), 0.005) > grey(Look.PLAIN, 0.005) + 20);
        assertEquals(grey(Look.PLAIN, 0.9), grey(tones(0, 1, 0), 0.9), 1);
        assertTrue(grey(tones(-1, 0, 0), 1.5) < grey(Look.PLAIN, 1.5) - 20);
        assertEquals(grey(Look.PLAIN, 0.01), grey(tones(-1, 0, 0), 0.01), 1);
        for (Look l : List.of(tones(1, -1, 0), tones(-1, 1, 0), tones(-1, -1, 1), tones(1, 1, -1))) {
            int last = -1;
            Finish f = new Finish(1, l);
            for (double s = -14; s < 6; s += 0.02) {
                int g = grey(f, Math.pow(2, s));
                assertTrue(g >= last, "tones pass each other at " + s);
                last = g;
            }
        }
    }

    @Test
    void contrastIsAboutTheMiddle() {
        double middle = new ToneResponse(ToneCurve.FILM, 0, 0).invert(Srgb.decode(0.5));
        assertEquals(grey(Look.PLAIN, middle), grey(tones(0, 0, 0.6), middle), 1);
        assertTrue(grey(tones(0, 0, 0.6), 0.02) < grey(Look.PLAIN, 0.02) && grey(tones(0, 0, 0.6), 1) > grey(Look.PLAIN, 1));
    }

    /** Through its points, never past them, and with the slopes of Fritsch and Carlson: on a parabola's points their mean. */
    @Test
    void splines() {
        SplineCurve s = new SplineCurve(List.of(0.0, 0.0, 0.2, 0.1, 0.5, 0.1, 0.6, 0.9, 1.0, 1.0));
        for (int i = 0; i < s.points().size(); i += 2) assertEquals(s.points().get(i + 1), s.at(s.points().get(i)), 1e-12);
        double last = -1;
        for (double x = 0; x <= 1; x += 1e-3) {
            assertTrue(s.at(x) >= last - 1e-12, "turns back at " + x);
            last = s.at(x);
        }
        assertEquals(0.1, s.at(0.35), 1e-12, "level between two that are alike");
        SplineCurve p = new SplineCurve(List.of(0.0, 0.0, 0.5, 0.25, 1.0, 1.0));
        // Slopes 0.5, 1 and 1.5 there: the Hermite cubic at 1/4 is 0.5 * 0.25 + 0.5 * (0.5 - 1) / 8.
        assertEquals(0.125 - 0.5 * 0.5 / 8, p.at(0.25), 1e-12);
        assertThrows(IllegalArgumentException.class, () -> new SplineCurve(List.of(0.5, 0.0, 0.2, 1.0)));
        assertThrows(IllegalArgumentException.class, () -> new SplineCurve(List.of(0.0, 2.0, 1.0, 1.0)));
        assertEquals(3, SplineCurve.STRAIGHT.with(0.4, 0.6).points().size() / 2);
        assertTrue(SplineCurve.STRAIGHT.with(0.4, 0.6).without(1).straight());
    }

    /** Slope, offset and power by the formula of the color decision list. */
    @Test
    void slopeOffsetPower() {
        Look l = with(Look.Tones.NONE, new Look.Colours(0, 0, List.of(1.2, 1.0, 0.8), List.of(0.05, 0.0, -0.1), List.of(1.0, 1.5, 2.0)),
                Look.Optics.NONE, Look.Drawing.NONE);
        int before = grey(Look.PLAIN, 0.2), after = new Finish(1, l).argb(new float[] {0.2f, 0.2f, 0.2f}, Place.whole(1, 1), null)[0];
        double v = before / 255.0;
        assertEquals(255 * (1.2 * v + 0.05), after >> 16 & 255, 1.2);
        assertEquals(255 * Math.pow(v, 1.5), after >> 8 & 255, 1.2);
        assertEquals(255 * Math.pow(0.8 * v - 0.1, 2), after & 255, 1.2);
    }

    @Test
    void saturationAndVibrance() {
        float[] rgb = {0.3f, 0.2f, 0.1f};
        Look grey = with(Look.Tones.NONE, new Look.Colours(-1, 0, Look.Colours.NONE.slope(), Look.Colours.NONE.offset(),
                Look.Colours.NONE.power()),
                Look.Optics.NONE, Look.Drawing.NONE);
        int c = new Finish(1, grey).argb(rgb, Place.whole(1, 1), null)[0];
        assertTrue((c >> 16 & 255) == (c >> 8 & 255) && (c & 255) == (c >> 8 & 255));
        Look vivid = with(Look.Tones.NONE, new Look.Colours(0, 1, Look.Colours.NONE.slope(), Look.Colours.NONE.offset(),
                Look.Colours.NONE.power()),
                Look.Optics.NONE, Look.Drawing.NONE);
        assertTrue(spread(vivid, new float[] {0.3f, 0.28f, 0.27f}) > 1.7 * spread(Look.PLAIN, new float[] {0.3f, 0.28f, 0.27f}));
        assertTrue(spread(vivid, new float[] {0.3f, 0.02f, 0.01f}) < 1.2 * spread(Look.PLAIN, new float[] {0.3f, 0.02f, 0.01f}));
    }

    private static double spread(Look l, float[] rgb) {
        int c = new Finish(1, l).argb(rgb, Place.whole(1, 1), null)[0];
        return (c >> 16 & 255) - (c & 255);
    }

    /** A cube that changes nothing, and one whose value between eight corners was worked out by hand. */
    @Test
    void colourTables() {
        int n = 5;
        float[] same = new float[3 * n * n * n];
        for (int i = 0; i < n * n * n; i++) {
            same[3 * i] = i % n / (n - 1f);
            same[3 * i + 1] = i / n % n / (n - 1f);
            same[3 * i + 2] = i / n / n / (n - 1f);
        }
        ColourTable t = new ColourTable(n, true, new float[3], new float[] {1, 1, 1}, same);
        Random r = new Random(2);
        for (int k = 0; k < 1000; k++) {
            float[] c = {r.nextFloat(), r.nextFloat(), r.nextFloat()}, d = c.clone();
            t.apply(d, 0, 1);
            assertArrayEquals(c, d, 1e-6f);
        }
        // Corners 000 to 111, red fastest; only the last is lit. Within a cell the tetrahedron gives the least of the three.
        float[] last = new float[24];
        last[21] = last[22] = last[23] = 1;
        ColourTable one = new ColourTable(2, true, new float[3], new float[] {1, 1, 1}, last);
        float[] c = {0.7f, 0.4f, 0.6f};
        one.apply(c, 0, 1);
        assertArrayEquals(new float[] {0.4f, 0.4f, 0.4f}, c, 1e-6f);
        ColourTable curve = new ColourTable(3, false, new float[3], new float[] {2, 2, 2}, new float[] {0, 0, 0, 0.5f, 0.6f, 0.7f, 1, 1,
                1});
        float[] e = {0.5f, 1.5f, 1};
        curve.apply(e, 0, 1);
        assertArrayEquals(new float[] {0.25f, 0.8f, 0.7f}, e, 1e-6f);
        float[] half = {0.5f, 1.5f, 1};
        curve.apply(half, 0, 0.5f);
        assertArrayEquals(new float[] {0.375f, 1.15f, 0.85f}, half, 1e-6f);
    }

    /** What glows is spread and not made. */
    @Test
    void glowKeepsEnergy() {
        int w = 256, h = 200;
        float[] p = new float[3 * w * h];
        int at = 3 * (h / 2 * w + w / 2);
        p[at] = 1000;
        p[at + 1] = 500;
        Glow.add(p, w, h, 0.3, 0.2);
        double red = 0, green = 0;
        for (int i = 0; i < p.length; i += 3) {
            red += p[i];
            green += p[i + 1];
        }
        assertEquals(1000, red, 5);
        assertEquals(500, green, 2.5);
        assertTrue(p[at] > 700 && p[at] < 760 && p[at + 30] > 0 && p[at + 30] > p[at + 60], "it falls");
        float[] even = new float[3 * w * h];
        Arrays.fill(even, 7);
        Glow.add(even, w, h, 0.5, 1);
        for (float v : even) assertEquals(7, v, 1e-3);
    }

    /** cos^4 of an angle whose tangent is 1 in the corner: a quarter. A part of the picture is a part of the whole. */
    @Test
    void vignette() {
        float[] p = new float[3 * W * H];
        Arrays.fill(p, 1);
        LensEffects.vignette(p, Place.whole(W, H), 1);
        double r = Math.hypot(W / 2.0 - 0.5, H / 2.0 - 0.5) / Math.hypot(W / 2.0, H / 2.0);
        assertEquals(1 / Math.pow(1 + r * r, 2), p[0], 1e-5);
        assertEquals(1, p[3 * (H / 2 * W + W / 2)], 1e-3);
        float[] q = new float[3 * 10 * 8];
        Arrays.fill(q, 1);
        LensEffects.vignette(q, new Place(20, 16, 10, 8, W, H), 1);
        assertEquals(p[3 * (17 * W + 23)], q[3 * (10 + 3)], 1e-6);
    }

    /** The balance that was picked makes the colour grey. */
    @ParameterizedTest
    @CsvSource({"1, 0.75, 0.5", "0.6, 0.7, 1", "1, 1, 1", "0.8, 1, 0.7"})
    void greyIsPicked(float r, float g, float b) {
        double[] found = Finish.balanceOf(new float[] {r, g, b});
        float[] c = {r, g, b};
        new WhiteBalance(found[0], found[1]).apply(c, 0);
        assertEquals(1, c[0] / c[1], 0.015, Arrays.toString(found));
        assertEquals(1, c[2] / c[1], 0.015, Arrays.toString(found));
    }

    @Test
    void noLightMakesThatGrey() {
        assertNull(Finish.balanceOf(new float[] {0, 0.2f, 1}));
        assertNull(Finish.balanceOf(new float[] {0, 0, 0}));
    }

    /** Lines where depth steps, and nowhere on a slanted plane; none without what is seen. */
    @Test
    void outlines() {
        float[] v = new float[7 * W * H];
        for (int i = 0; i < W * H; i++) {
            int x = i % W;
            v[7 * i + 5] = 1;
            v[7 * i + 6] = x < 40 ? 5 + 0.02f * x : 12;
        }
        Look l = with(Look.Tones.NONE, Look.Colours.NONE, Look.Optics.NONE, new Look.Drawing(1, 20, 0, 0, 6));
        float[] rgb = new float[3 * W * H];
        Arrays.fill(rgb, 0.3f);
        int[] p = new Finish(1, l).argb(rgb, Place.whole(W, H), new Seen(v, null));
        int plain = grey(Look.PLAIN, 0.3);
        assertTrue((p[10 * W + 40] & 255) < 0.3 * plain, "a line");
        assertEquals(plain, p[10 * W + 20] & 255, 1);
        assertEquals(plain, p[10 * W + 55] & 255, 1);
        int[] none = new Finish(1, l).argb(rgb, Place.whole(W, H), null);
        assertEquals(plain, none[10 * W + 40] & 255, 1);
    }

    /** Tones run together, and an edge stays where it is. */
    @Test
    void wash() {
        float[] p = new float[3 * W * H];
        Random r = new Random(6);
        for (int i = 0; i < W * H; i++) Arrays.fill(p, 3 * i, 3 * i + 3, (i % W < 30 ? 0.3f : 0.7f) + 0.04f * (float) r.nextGaussian());
        float[] q = Wash.run(p, W, H, 1, 4);
        double before = 0, after = 0;
        for (int y = 8; y < 40; y++) for (int x = 8; x < 24; x++) {
            before += Math.pow(p[3 * (y * W + x)] - 0.3, 2);
            after += Math.pow(q[3 * (y * W + x)] - 0.3, 2);
        }
        assertTrue(after < 0.12 * before, before + " " + after);
        assertEquals(0.3, q[3 * (20 * W + 29)], 0.05);
        assertEquals(0.7, q[3 * (20 * W + 30)], 0.05);
    }

    /** Grain has no mean, spares black and white, and is the same each time; what is even stays even under sharpening. */
    @Test
    void grainAndSharpening() {
        float[] p = new float[3 * 256 * 256], q = p.clone(), black = p.clone();
        Arrays.fill(p, 0.5f);
        Arrays.fill(q, 0.5f);
        LensEffects.grain(p, Place.whole(256, 256), 0.5, 1);
        LensEffects.grain(q, Place.whole(256, 256), 0.5, 1);
        assertArrayEquals(p, q);
        double mean = 0, square = 0;
        for (float v : p) {
            mean += v / p.length;
            square += (v - 0.5) * (v - 0.5) / p.length;
        }
        assertEquals(0.5, mean, 0.003);
        assertTrue(Math.sqrt(square) > 0.03 && Math.sqrt(square) < 0.15, "" + Math.sqrt(square));
        LensEffects.grain(black, Place.whole(256, 256), 1, 1);
        for (float v : black) assertEquals(0, v);
        float[] even = new float[3 * W * H];
        Arrays.fill(even, 0.4f);
        assertArrayEquals(even, LensEffects.sharpen(even, W, H, 2), 1e-6f);
        float[] step = new float[3 * W * H];
        for (int i = 0; i < W * H; i++) Arrays.fill(step, 3 * i, 3 * i + 3, i % W < 30 ? 0.3f : 0.6f);
        float[] sharp = LensEffects.sharpen(step, W, H, 1);
        assertTrue(sharp[3 * (5 * W + 29)] < 0.25 && sharp[3 * (5 * W + 30)] > 0.65, "an edge is steeper");
    }

    /** Red and blue lie apart by thousandths of the half diagonal in the corner, not in the middle. */
    @Test
    void fringe() {
        int w = 400, h = 300;
        float[] p = new float[3 * w * h];
        for (int y = 0; y < h; y++) for (int c = 0; c < 3; c++) {
            p[3 * (y * w + 380) + c] = 1;
            p[3 * (y * w + 200) + c] = 1;
        }
        float[] q = LensEffects.fringe(p, Place.whole(w, h), 5);
        // At 180 pixels from the middle 5 thousandths are 0.9 pixels, red outwards.
        assertTrue(q[3 * (150 * w + 381)] > 0.7 && q[3 * (150 * w + 379) + 2] > 0.7);
        assertEquals(1, q[3 * (150 * w + 380) + 1]);
        assertEquals(1, q[3 * (150 * w + 200)], 0.02);
    }
}
