package bake.core.finish;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Pictures in other gamuts, and the sky's own finish. */
class GamutTest {
    private static Look look(Look.Colours c, Look.Sky s) {
        return new Look(ToneCurve.LINEAR, 0, 0, false, 0, Look.NEUTRAL, 0, Look.Tones.NONE, c, Look.Optics.NONE, Look.Drawing.NONE, s,
                null, 1);
    }

    private static Look saturated(double s) {
        return look(new Look.Colours(s, 0, Look.Colours.NONE.slope(), Look.Colours.NONE.offset(), Look.Colours.NONE.power()),
                Look.Sky.NONE);
    }

    private static double[] codes(Finish f, float... rgb) {
        short[] c = f.rgb16(rgb, Place.whole(1, 1), null);
        return new double[] {(c[0] & 0xffff) / 65535.0, (c[1] & 0xffff) / 65535.0, (c[2] & 0xffff) / 65535.0};
    }

    /** Luminance factors of the primaries as the standards print them (ITU-R BT.709, BT.2020 table 4; P3 with D65 from memory). */
    @Test
    void luminanceOfThePrimaries() {
        double[][] printed = {{0.2126, 0.7152, 0.0722}, {0.2290, 0.6917, 0.0793}, {0.2627, 0.6780, 0.0593}};
        for (Gamut g : Gamut.values()) {
            double[] m = g.toXyz();
            assertArrayEquals(printed[g.ordinal()], new double[] {m[3], m[4], m[5]}, 6e-5, g.name());
        }
    }

    /**
     * Linear sRGB red in BT.2020 is the first column of the matrix in ITU-R BT.2087, equation for BT.709 to BT.2020: 0.6274,
     * 0.0691, 0.0164.
     */
    @Test
    void redOfTheOldInTheNew() {
        double[] c = codes(new Finish(1, look(Look.Colours.NONE, Look.Sky.NONE), Gamut.BT2020), 1, 0, 0);
        double[] printed = {0.6274, 0.0691, 0.0164};
        for (int k = 0; k < 3; k++) assertEquals(printed[k], Gamut.BT2020.decode(c[k]), 1e-4);
    }

    /** Greys are greys, white is white, and both curves go back to where they came from. */
    @ParameterizedTest
    @EnumSource(Gamut.class)
    void greys(Gamut g) {
        Finish f = new Finish(1, look(Look.Colours.NONE, Look.Sky.NONE), g);
        for (float v : new float[] {0, 0.004f, 0.18f, 0.6f, 1}) {
            double[] c = codes(f, v, v, v);
            assertEquals(c[0], c[1], 3e-5);
            assertEquals(c[1], c[2], 3e-5);
            assertEquals(v, g.decode(c[0]), 2e-4);
        }
        assertEquals(0.5, g.decode(g.encode(0.5)), 1e-12);
        assertEquals(0.01, g.decode(g.encode(0.01)), 1e-12);
    }

    /** What saturation drives out of sRGB is cut there and kept in a wider gamut; colours within are the same colour in all. */
    @Test
    void keepsWhatSrgbCuts() {
        float[] green = {0.02f, 0.8f, 0.02f};
        double[] narrow = codes(new Finish(1, saturated(0.8)), green), wide = codes(new Finish(1, saturated(0.8), Gamut.BT2020), green);
        float[] back = new float[3];
        double[] m = WhiteBalance.times(WhiteBalance.inverse(Gamut.SRGB.toXyz()), Gamut.BT2020.toXyz());
        for (int r = 0; r < 3; r++) for (int c = 0; c < 3; c++) back[r] += (float) (m[3 * r + c] * Gamut.BT2020.decode(wide[c]));
        assertEquals(0, narrow[0]);
        assertTrue(back[0] < -0.01, "its red lies outside of sRGB: " + back[0]);
        // The same without saturation is the same light.
        wide = codes(new Finish(1, saturated(0), Gamut.BT2020), green);
        for (int r = 0; r < 3; r++) {
            double v = 0;
            for (int c = 0; c < 3; c++) v += m[3 * r + c] * Gamut.BT2020.decode(wide[c]);
            assertEquals(green[r], v, 3e-4);
        }
    }

    /**
     * A stop for the sky is a stop where sky is seen, nothing where none is, and at an edge what the sky's part of the light makes
     * of it.
     */
    @Test
    void skyByItsShare() {
        float[] open = {1, 1, 1, 0.5f, 0, 0, 0}, light = new float[21];
        for (int i = 0; i < 7; i++) for (int c = 0; c < 3; c++) light[3 * i + c] = open[i] * 0.4f + (1 - open[i]) * 0.1f;
        float[] out = SkyGrade.run(light, 7, 1, open, new Look.Sky(1, 0, 0));
        float[] expected = {0.8f, 0.8f, 0.8f, 0.45f, 0.1f, 0.1f, 0.1f};
        // The edge's own light is in the mean of what is open around it, for a sixteenth.
        for (int i = 0; i < 7; i++) assertEquals(expected[i], out[3 * i + 1], i == 3 ? 0.005 : 1e-6, "pixel " + i);
        float[] blue = {0.1f, 0.2f, 0.4f}, grey = SkyGrade.run(blue, 1, 1, new float[] {1}, new Look.Sky(0, -1, 0));
        assertEquals(grey[0], grey[2], 1e-6);
        assertEquals(0.2126f * 0.1f + 0.7152f * 0.2f + 0.0722f * 0.4f, grey[0], 1e-5);
        float[] warm = SkyGrade.run(new float[] {0.3f, 0.3f, 0.3f}, 1, 1, new float[] {1}, new Look.Sky(0, 0, 0.5));
        assertTrue(warm[0] > 0.3f && warm[2] < 0.3f);
        Finish f = new Finish(1, look(Look.Colours.NONE, new Look.Sky(1, 0, 0)));
        float[] one = {0.2f, 0.2f, 0.2f};
        assertTrue((f.argb(one, Place.whole(1, 1), new Seen(null, new float[] {1}))[0] & 255)
                > (f.argb(one, Place.whole(1, 1), new Seen(null, null))[0] & 255) + 20);
    }

    /** A slow finish ends between its steps. */
    @Test
    void stops() {
        Look l = new Look(ToneCurve.FILM, 0, 0, false, 0, Look.NEUTRAL, 0, Look.Tones.NONE, Look.Colours.NONE,
                new Look.Optics(0.2, 0.2, 0, 0, 0, 0, 1), Look.Drawing.NONE, Look.Sky.NONE, null, 1);
        assertNull(new Finish(1, l).argb(new float[3 * 64], Place.whole(8, 8), null, () -> true));
    }
}
