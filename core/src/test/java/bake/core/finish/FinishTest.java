package bake.core.finish;

import bake.core.math.Srgb;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class FinishTest {
    private static float[] colour(Vec3 v) {
        return new float[] {(float) v.x(), (float) v.y(), (float) v.z()};
    }

    /** The light that the balance is set to comes out without a tint; the light of others does not. */
    @ParameterizedTest
    @ValueSource(doubles = {2000, 2700, 3300, 4000, 5000, 6504, 8000, 12000})
    void whiteOfItsOwnLight(double kelvin) {
        float[] c = colour(Blackbody.rgb(kelvin)), neutral = colour(Blackbody.rgb(Look.NEUTRAL));
        new WhiteBalance(kelvin).apply(c, 0);
        // The display's white and the radiator nearest to it differ by a hair of green.
        for (int k = 0; k < 3; k++) assertEquals(neutral[k], c[k], 0.02 * neutral[k], "component " + k + " at " + kelvin + " K");
    }

    /** Set to warm light, daylight turns blue; set to cool light, lamps turn red. */
    @Test
    void otherLightIsTinted() {
        float[] day = {1, 1, 1}, lamp = colour(Blackbody.rgb(2700));
        new WhiteBalance(3000).apply(day, 0);
        assertTrue(day[2] > 1.4 * day[0], day[0] + " " + day[2]);
        float before = lamp[0] / lamp[2];
        new WhiteBalance(10_000).apply(lamp, 0);
        assertTrue(lamp[0] / Math.max(1e-6, lamp[2]) > before);
    }

    @Test
    void neutralChangesNothing() {
        float[] c = {0.2f, 0.7f, 0.4f};
        new WhiteBalance(Look.NEUTRAL).apply(c, 0);
        assertArrayEquals(new float[] {0.2f, 0.7f, 0.4f}, c);
    }

    /** Strong colours may leave the display's gamut; they are cut, never negative and never broken. */
    @Test
    void gamutIsCut() {
        float[] c = {1, 0, 0, 0, 1, 0, 0, 0, 1};
        WhiteBalance w = new WhiteBalance(2000);
        for (int o = 0; o < 9; o += 3) w.apply(c, o);
        for (float v : c) assertTrue(v >= 0 && Float.isFinite(v));
    }

    private static Film flat(float value, int passes) {
        Film f = Film.merged(5, 4, 1);
        for (int p = 0; p < passes; p++) for (int y = 0; y < 4; y++) for (int x = 0; x < 5; x++) if (x < 4)
            f.add(x, y, new float[] {value, value, value});
        return f;
    }

    /** 8 and 16 bit codes of all ways into them agree, and pixels without a sample are clear. */
    @Test
    void codesAgree() {
        Finish f = new Finish(100, new Look(ToneCurve.FILM, 4200));
        Film film = flat(37, 3);
        int[] eight = f.argb(film, null);
        short[] sixteen = f.rgb16(Finish.light(film, null, new Region(0, 0, 4, 4)), Place.whole(4, 4), null);
        float[] light = new float[3 * 16];
        java.util.Arrays.fill(light, 37);
        int[] fromLight = f.argb(light, Place.whole(4, 4), null);
        short[] fromLight16 = f.rgb16(light, Place.whole(4, 4), null);
        assertEquals(0, eight[4], "no sample");
        for (int i = 0; i < 16; i++) {
            int argb = eight[i / 4 * 5 + i % 4];
            assertEquals(argb, fromLight[i]);
            for (int c = 0; c < 3; c++) {
                int code8 = argb >> 16 - 8 * c & 255, code16 = sixteen[3 * i + c] & 0xffff;
                assertEquals(code16 / 257.0, code8, 0.75);
                assertEquals(sixteen[3 * i + c], fromLight16[3 * i + c]);
            }
        }
    }

    /** The table of the fast way meets the exact curve within about half a code over 24 stops. */
    @Test
    void tableIsExact() {
        for (ToneCurve curve : ToneCurve.values()) {
            Finish f = new Finish(1, new Look(curve, Look.NEUTRAL));
            for (double stop = -18; stop < 9; stop += 0.013) {
                float v = (float) Math.pow(2, stop);
                int code = f.argb(new float[] {v, v, v}, Place.whole(1, 1), null)[0] & 255;
                double exact = 255 * Srgb.encode(curve.apply(v));
                assertEquals(exact, code, 0.54, curve + " at " + stop + " stops");
            }
        }
    }

    @Test
    void noiseOfAnEvenPictureIsNone() {
        Finish f = new Finish(100, Look.PLAIN);
        assertEquals(0, f.noise(flat(50, 8), new Region(0, 0, 4, 4)), 0.02);
        assertEquals(Double.POSITIVE_INFINITY, f.noise(flat(50, 1), new Region(0, 0, 4, 4)));
        assertEquals(0, f.noise(flat(0, 4), new Region(0, 0, 4, 4)));
    }

    /** Turned back through a tone curve light comes out as it went in. */
    @Test
    void curvesAreInverted() {
        for (ToneCurve c : ToneCurve.values())
            for (double x = 0.001; x < 1; x += 0.037) assertEquals(x, c.apply(c.invert(x)), 1e-9, c + " of " + x);
        for (ToneCurve c : ToneCurve.values()) {
            assertEquals(0, c.invert(0));
            assertEquals(1, c.apply(c.invert(1)), 1e-9);
        }
        assertEquals(1, ToneCurve.LINEAR.invert(1), 1e-9, "the least that is white");
    }
}
