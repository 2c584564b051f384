package bake.core.light;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import bake.core.scene.Surroundings;
import org.junit.jupiter.api.Test;

class SkyTest {
    private static Surroundings.SunSky sun(double degrees, double haze) {
        double h = Math.toRadians(degrees);
        return new Surroundings.SunSky(new Vec3(Math.cos(h), 0, Math.sin(h)), haze, 0, 0, 0.533, 0.2);
    }

    /**
     * Clear-sky illuminances. Common practice, no source: with the sun at 60 degrees full sun gives about 100,000 lx on
     * a surface facing it, the blue sky 8,000 to 25,000 lx on the ground; both fall with the sun.
     */
    @Test
    void levelsAreThoseOfAClearDay() {
        Surround s = Surround.of(sun(60, 2.5));
        assertTrue(s.sunLux().luminance() > 75_000 && s.sunLux().luminance() < 112_000, "sun " + s.sunLux().luminance());
        double sky = s.dome().horizontalIlluminance();
        assertTrue(sky > 8_000 && sky < 25_000, "sky " + sky);
        assertTrue(Surround.of(sun(10, 2.5)).sunLux().luminance() < 0.6 * s.sunLux().luminance());
    }

    /** The zenith is blue by day, the low sun is red, haze whitens the sky and weakens the sun. */
    @Test
    void colours() {
        Atmosphere air = new Atmosphere(2, 0.2), thick = new Atmosphere(6, 0.2);
        Vec3 noon = new Vec3(0.5, 0, Math.sqrt(0.75)), up = air.sky(new Vec3(-0.3, 0, 0.954).normalized(), noon),
                hazy = thick.sky(new Vec3(-0.3, 0, 0.954).normalized(), noon);
        assertTrue(up.z() > 1.5 * up.x(), "zenith " + up);
        assertTrue(hazy.z() / hazy.x() < up.z() / up.x());
        Vec3 low = air.sunIlluminance(Math.toRadians(2));
        assertTrue(low.x() > 3 * low.z(), "low sun " + low);
        assertTrue(thick.sunIlluminance(0.8).luminance() < air.sunIlluminance(0.8).luminance());
    }

    /** Twilight fades: some light at -3 degrees, much less at -10, no sun either time. */
    @Test
    void twilight() {
        double dusk = Surround.of(sun(-3, 2.5)).dome().horizontalIlluminance(),
                late = Surround.of(sun(-10, 2.5)).dome().horizontalIlluminance();
        assertTrue(dusk > 20 && dusk < 400, "at -3 degrees: " + dusk);
        assertTrue(late < dusk / 20 && late >= 0, "at -10 degrees: " + late);
        assertEquals(0, Surround.of(sun(-3, 2.5)).sunLux().luminance());
    }

    /** Rendering an open plane gives the dome's own cosine integral plus the sun. */
    @Test
    void renderedSkyEqualsItsIntegral() {
        Surroundings.SunSky s = sun(35, 3);
        Surround t = Surround.of(s);
        double expected = t.dome().horizontalIlluminance() + t.sunLux().luminance() * Math.sin(Math.toRadians(35));
        var r = new TestScene().around(s).measure(Vec3.ZERO, Vec3.UP, 1 << 16);
        assertEquals(expected, r.lux(), 0.005 * expected);
        assertTrue(r.error() < 0.0015 * expected, "standard error " + r.error());
    }

    /** A panorama with a sun of 10,000 times the mean in four pixels still gives its own cosine integral within 0.3 %. */
    @Test
    void panoramaWithASmallSun() {
        int w = 256, h = 128;
        float[] rgb = new float[3 * w * h];
        for (int i = 0; i < w * h; i++) for (int c = 0; c < 3; c++) rgb[3 * i + c] = 100 + 20 * (i % 7);
        for (int y = 40; y < 42; y++) for (int x = 70; x < 72; x++) for (int c = 0; c < 3; c++) rgb[3 * (y * w + x) + c] = 1.6e6f;
        var s = new Surroundings.Hdri(new Panorama("test", w, h, rgb), 33, 0);
        double expected = Surround.of(s).dome().horizontalIlluminance();
        var r = new TestScene().around(s).measure(Vec3.ZERO, Vec3.UP, 1 << 18);
        assertTrue(r.error() < 0.001 * expected, "standard error " + r.error() + " of " + expected);
        // The lookup blends texels across, the integral above does not: both see the same light.
        assertEquals(expected, r.lux(), 0.003 * expected + 3 * r.error());
    }

    /** The dome's density integrates to one, and samples follow it (chi-square over a coarse grid). */
    @Test
    void densityMatchesSampler() {
        int w = 64, h = 32;
        float[] rgb = new float[3 * w * h];
        for (int i = 0; i < rgb.length; i++) rgb[i] = (i * 31 % 97) + (i > 2000 && i < 2060 ? 4000 : 0);
        Dome d = new Dome(new Panorama("test", w, h, rgb), 1, 77);
        int a = 16, b = 8, n = 200_000;
        double[] expected = new double[a * b];
        double total = 0;
        for (int y = 0; y < 384; y++)
            for (int x = 0; x < 768; x++) {
                double t = Math.PI * (y + 0.5) / 384, f = 2 * Math.PI * (x + 0.5) / 768,
                        dw = Math.sin(t) * Math.PI / 384 * 2 * Math.PI / 768;
                double p = d.read((float) (Math.sin(t) * Math.sin(f)), (float) (Math.sin(t) * Math.cos(f)), (float) Math.cos(t),
                        new float[4]) * dw;
                expected[y * b / 384 * a + x * a / 768] += p;
                total += p;
            }
        assertEquals(1, total, 0.01);
        double[] seen = new double[a * b];
        PathSampler r = new PathSampler();
        float[] dir = new float[4];
        for (int i = 0; i < n; i++) {
            r.start(i, 0, 0, 3);
            r.next2();
            d.sample(r.u, r.v, dir);
            int x = (int) (Math.floorMod((long) Math.floor(Math.atan2(dir[0], dir[1]) / (2 * Math.PI) * 1e6), 1_000_000L) / 1e6 * a),
                    y = (int) (Math.acos(dir[2]) / Math.PI * b);
            seen[y * a + x]++;
        }
        double chi = 0;
        for (int i = 0; i < seen.length; i++) chi += Math.pow(seen[i] - n * expected[i] / total, 2) / (n * expected[i] / total);
        // 127 degrees of freedom: 99.9 % lie below 181; the grid's own integral adds a little.
        assertTrue(chi < 210, "chi-square " + chi);
    }
}
