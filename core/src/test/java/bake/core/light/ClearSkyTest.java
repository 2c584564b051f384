package bake.core.light;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The simulated clear sky beside a standard one, and its own consistency. */
class ClearSkyTest {
    private static Vec3 at(double height, double azimuth) {
        return new Vec3(Math.cos(height) * Math.sin(azimuth), Math.cos(height) * Math.cos(azimuth), Math.sin(height));
    }

    /**
     * Luminance over that of the zenith of the standard general sky, type 12, clear with low turbidity (ISO 15469:2004,
     * eq. 1 to 4: gradation a -1, b -0.32; indicatrix c 10, d -3, e 0.45).
     */
    private static double cie12(Vec3 view, Vec3 sun) {
        double z = Math.acos(view.z()), zs = Math.acos(sun.z()), chi = Math.acos(Math.clamp(view.dot(sun), -1, 1));
        return indicatrix(chi) * gradation(z) / (indicatrix(zs) * gradation(0));
    }

    private static double gradation(double z) {
        return 1 - Math.exp(-0.32 / Math.cos(z));
    }

    private static double indicatrix(double chi) {
        return 1 + 10 * (Math.exp(-3 * chi) - Math.exp(-3 * Math.PI / 2)) + 0.45 * Math.cos(chi) * Math.cos(chi);
    }

    /**
     * Mean relative difference over the dome, both skies brought to the same horizontal illuminance, the 15 degrees about
     * the sun and the lowest 5 left out. Measured at haze 2.5: 21, 20 and 18 % at 20, 40 and 60 degrees.
     */
    @ParameterizedTest
    @CsvSource({"20,0.23", "40,0.22", "60,0.2"})
    void nearTheStandardClearSky(double degrees, double bound) {
        Vec3 sun = at(Math.toRadians(degrees), 1);
        Atmosphere air = new Atmosphere(2.5, 0.2);
        double ours = 0, theirs = 0;
        for (int i = 0; i < 18; i++)
            for (int j = 0; j < 36; j++) {
                double h = Math.toRadians(2.5 + 5 * i);
                Vec3 v = at(h, 2 * Math.PI * j / 36);
                double w = Math.cos(h) * Math.sin(h);
                ours += w * air.sky(v, sun).luminance();
                theirs += w * cie12(v, sun);
            }
        double difference = 0, weight = 0;
        for (int i = 1; i < 18; i++)
            for (int j = 0; j < 36; j++) {
                double h = Math.toRadians(2.5 + 5 * i);
                Vec3 v = at(h, 2 * Math.PI * j / 36);
                if (v.dot(sun) > Math.cos(Math.toRadians(15))) continue;
                double a = air.sky(v, sun).luminance() / ours, b = cie12(v, sun) / theirs;
                difference += Math.cos(h) * Math.abs(a - b) / b;
                weight += Math.cos(h);
            }
        assertTrue(difference / weight < bound, "mean relative difference at " + degrees + " degrees: " + difference / weight);
    }

    /** More haze: a darker zenith cannot be, the horizon whitens, and direct light falls. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 2, 4, 8})
    void everythingIsFiniteAndPositive(double haze) {
        Atmosphere air = new Atmosphere(haze, 0.2);
        for (double s = -18; s <= 90; s += 9)
            for (double v = -90; v <= 90; v += 7.5) {
                Vec3 c = air.sky(at(Math.toRadians(v), 0.4), at(Math.toRadians(s), 2));
                assertTrue(c.x() >= 0 && c.y() >= 0 && c.z() >= 0 && c.isFinite(), "sun " + s + ", view " + v + ": " + c);
            }
    }

    /** The table that pictures use is the sky itself, within a few percent everywhere but beside the sun. */
    @ParameterizedTest
    @ValueSource(doubles = {-4, 5, 35, 70})
    void tableFollowsTheSky(double degrees) {
        Vec3 sun = at(Math.toRadians(degrees), 2.2);
        Atmosphere air = new Atmosphere(2.5, 0.2);
        Dome d = new Dome(SkyImage.clear(air, sun, 320), 1, 0);
        float[] out = new float[4];
        for (double h = -60; h <= 88; h += 3.7)
            for (double a = 0; a < 6.28; a += 0.31) {
                if (Math.abs(h) < 2.5) continue; // the horizon is sharper than a texel
                Vec3 v = at(Math.toRadians(h), a);
                double exact = air.sky(v, sun).luminance();
                d.read((float) v.x(), (float) v.y(), (float) v.z(), out);
                double table = 0.2126 * out[0] + 0.7152 * out[1] + 0.0722 * out[2];
                assertEquals(exact, table, 0.04 * exact + 0.02, "sun " + degrees + ", view " + h + " at " + a);
            }
    }

    /** The sun sets over half a degree; its light only ever falls on the way. */
    @ParameterizedTest
    @ValueSource(doubles = {1.5, 3, 6})
    void sunFallsSteadily(double haze) {
        Atmosphere air = new Atmosphere(haze, 0.2);
        double last = Double.POSITIVE_INFINITY;
        for (double h = 90; h > -2; h -= 0.25) {
            double lux = air.sunIlluminance(Math.toRadians(h)).luminance();
            assertTrue(lux <= last * 1.0001 && lux >= 0, "at " + h + " degrees " + lux + " after " + last);
            last = lux;
        }
        assertEquals(0, last);
    }
}
