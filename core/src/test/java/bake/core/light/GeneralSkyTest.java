package bake.core.light;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Vec3;
import bake.core.scene.Surroundings;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The fifteen skies against the standard's formula (ISO 15469:2004, equations 1 to 4), written here once more, and what follows from it.
 */
@Tag("thorough")
class GeneralSkyTest {
    private static Vec3 at(double height, double azimuth) {
        double h = Math.toRadians(height), a = Math.toRadians(azimuth);
        return new Vec3(Math.cos(h) * Math.sin(a), Math.cos(h) * Math.cos(a), Math.sin(h));
    }

    /** Gradation groups I to VI and indicatrix groups 1 to 6 of table 1 (values from memory): gradation a, b; indicatrix c, d, e. */
    @ParameterizedTest
    @CsvSource({"1, 4, -0.7, 0, -1, 0", "2, 4, -0.7, 2, -1.5, 0.15", "3, 1.1, -0.8, 0, -1, 0", "4, 1.1, -0.8, 2, -1.5, 0.15",
            "5, 0, -1, 0, -1, 0", "6, 0, -1, 2, -1.5, 0.15",
        "7, 0, -1, 5, -2.5, 0.3", "8, 0, -1, 10, -3, 0.45", "9, -1, -0.55, 2, -1.5, 0.15", "10, -1, -0.55, 5, -2.5, 0.3",
        "11, -1, -0.55, 10, -3, 0.45",
        "12, -1, -0.32, 10, -3, 0.45", "13, -1, -0.32, 16, -3, 0.3", "14, -1, -0.15, 16, -3, 0.3", "15, -1, -0.15, 24, -2.8, 0.15"})
    void followsTheFormula(int type, double a, double b, double c, double d, double e) {
        for (double sun : new double[] {5, 35, 70}) {
            GeneralSky sky = new GeneralSky(type, at(sun, 140));
            Dome dome = new Dome(sky.image(1440, Vec3.ZERO), 1, 0);
            float[] rgb = new float[4];
            for (double h = 2; h < 90; h += 4)
                for (double az = 1; az < 360; az += 11) {
                    double z = Math.toRadians(90 - h), zs = Math.toRadians(90 - sun);
                    double chi = Math.acos(Math.clamp(Math.cos(zs) * Math.cos(z) + Math.sin(zs) * Math.sin(z)
                            * Math.cos(Math.toRadians(az - 140)), -1, 1));
                    double f = 1 + c * (Math.exp(d * chi) - Math.exp(d * Math.PI / 2)) + e * Math.pow(Math.cos(chi), 2);
                    double fz = 1 + c * (Math.exp(d * zs) - Math.exp(d * Math.PI / 2)) + e * Math.pow(Math.cos(zs), 2);
                    double expected = f * (1 + a * Math.exp(b / Math.cos(z))) / (fz * (1 + a * Math.exp(b)));
                    Vec3 v = at(h, az);
                    assertEquals(expected, sky.relative(v), 1e-3 * expected, "sun " + sun + ", view " + h + " " + az);
                    if (chi < 0.05) continue; // what a table of a quarter degree blends beside the sun
                    dome.read((float) v.x(), (float) v.y(), (float) v.z(), rgb);
                    double l = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
                    assertEquals(sky.luminance(v), l, 1e-3 * l, "in the table");
                }
        }
    }

    /**
     * Type 1 is the older overcast sky (1 + 2 sin h) / 3 (Moon and Spencer 1942) high up and a third of the zenith at the horizon; type 5
     * is even.
     */
    @Test
    void knownSkies() {
        GeneralSky one = new GeneralSky(1, at(30, 0)), five = new GeneralSky(5, at(30, 0));
        for (double h = 5; h <= 90; h += 5) {
            if (h > 27) assertEquals((1 + 2 * Math.sin(Math.toRadians(h))) / 3, one.relative(at(h, 77)), 0.03);
            assertEquals(1, five.relative(at(h, 200)), 1e-12);
        }
        assertEquals(1 / 3.0, one.relative(at(0.01, 77)), 0.003);
        assertEquals(five.horizontalLux() / Math.PI, five.luminance(at(50, 10)), 1e-3 * five.luminance(at(50, 10)));
        assertThrows(IllegalArgumentException.class, () -> new GeneralSky(16, at(30, 0)));
    }

    /** What a meter on the ground reads, and the table's own sum, are the sky's illuminance within half a percent. */
    @ParameterizedTest
    @ValueSource(ints = {1, 4, 5, 8, 10, 12, 15})
    void metersReadIt(int type) {
        var s = new Surroundings.General(type, at(40, 200), 2.5, 0, 1, 0.533, 0.2);
        var t = Surround.of(s);
        double sky = 2 * new GeneralSky(type, at(40, 200)).horizontalLux(), sun = t.sunLux().luminance() * Math.sin(Math.toRadians(40));
        assertEquals(sky, t.dome().horizontalIlluminance(), 0.005 * sky);
        assertEquals(GeneralSky.hidesSun(type), sun == 0);
        TestScene scene = new TestScene().around(s);
        var read = scene.measure(Vec3.ZERO, Vec3.UP, 1 << 16);
        assertEquals(sky + sun, read.lux(), 0.005 * (sky + sun));
        assertTrue(read.error() < 0.0017 * (sky + sun), "standard error " + read.error());
    }

    /** The table that renders is as bright beside the sun as the formula, where skies change fastest. */
    @ParameterizedTest
    @ValueSource(ints = {7, 12, 13, 15})
    void brightBesideTheSun(int type) {
        for (double height : new double[] {17.3, 41.9}) {
            Vec3 sun = at(height, 200.2);
            GeneralSky sky = new GeneralSky(type, sun);
            Dome tabulated = Surround.of(new Surroundings.General(type, sun, 2.5, 0, 0, 0.533, 0.2)).dome();
            float[] rgb = new float[4];
            for (double away : new double[] {0, 0.5, 1, 2, 4}) {
                Vec3 v = at(height + away, 200.2);
                tabulated.read((float) v.x(), (float) v.y(), (float) v.z(), rgb);
                double l = sky.luminance(v);
                assertEquals(l, 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2], 0.01 * l, away + " degrees from the sun");
            }
        }
    }

    /** Light falls with the sun, and on into the night. */
    @Test
    void dusk() {
        for (int type = 1; type <= GeneralSky.TYPES; type++) {
            double last = Double.POSITIVE_INFINITY;
            for (double h = 60; h >= -18; h -= 3) {
                GeneralSky g = new GeneralSky(type, at(h, 20));
                assertTrue(g.horizontalLux() <= last && g.horizontalLux() > 0 && Double.isFinite(g.luminance(at(3, 20))), type + " " + h);
                last = g.horizontalLux();
            }
            assertTrue(last < 0.5, "night");
            assertTrue(!GeneralSky.name(type).isBlank());
        }
    }
}
