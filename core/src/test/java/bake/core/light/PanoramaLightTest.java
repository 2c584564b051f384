package bake.core.light;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import bake.core.scene.Surroundings;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Panoramas as light: irradiance is the panorama's own cosine integral, whatever is in it and however it is turned. */
@Tag("thorough")
class PanoramaLightTest {
    /** A sky with a gradient and clouds, dark land, and a sun of four texels with {@code times} the mean of all else. */
    private static float[] sky(int w, double times, double sunHeight) {
        int h = w / 2;
        float[] rgb = new float[3 * w * h];
        for (int y = 0; y < h; y++)
            for (int x = 0; x < w; x++) {
                double l = y < h / 2 ? 2000 + 1500 * Math.sin(9.0 * x / w * 2 * Math.PI) * Math.sin(5.0 * y / h * Math.PI) + 3000.0 * y / h
                        : 250;
                for (int c = 0; c < 3; c++) rgb[3 * (y * w + x) + c] = (float) (l * (c == 0 ? 0.8 : c == 1 ? 1 : 1.3));
            }
        int sy = (int) ((90 - sunHeight) / 180 * h), sx = w * 5 / 8;
        for (int k = 0; k < 4 && times > 0; k++) for (int c = 0; c < 3; c++)
            rgb[3 * ((sy + k / 2) * w + sx + k % 2) + c] = (float) (1500 * times);
        return rgb;
    }

    /** The cosine integral by texels, lux; {@code turn} clockwise from above, degrees. */
    private static double integral(float[] rgb, int w, Vec3 n, double turn) {
        int h = w / 2;
        double sum = 0;
        for (int y = 0; y < h; y++) {
            double t = Math.PI * (y + 0.5) / h, solid = 2 * Math.PI / w * (Math.cos(Math.PI * y / h) - Math.cos(Math.PI * (y + 1) / h));
            for (int x = 0; x < w; x++) {
                double a = 2 * Math.PI * ((x + 0.5) / w - 0.5) + Math.toRadians(turn);
                double cos = n.x() * Math.sin(t) * Math.sin(a) + n.y() * Math.sin(t) * Math.cos(a) + n.z() * Math.cos(t);
                int i = 3 * (y * w + x);
                if (cos > 0) sum += cos * solid * (0.2126 * rgb[i] + 0.7152 * rgb[i + 1] + 0.0722 * rgb[i + 2]);
            }
        }
        return sum;
    }

    private static void agrees(Surroundings s, double want, Vec3 n) {
        var r = new TestScene().around(s).measure(new Vec3(0, 0, 0), n, 1 << 17);
        assertTrue(r.error() < 0.001 * want, "standard error " + r.error() + " of " + want);
        assertEquals(want, r.lux(), 0.003 * want, "facing " + n);
    }

    /**
     * Within 0.3 %: without a sun, with one of ten thousand times the mean in four texels, high and low, and in a panorama finer than the
     * table it is chosen by.
     */
    @ParameterizedTest
    @ValueSource(strings = {"256 0 40", "512 10000 40", "512 10000 8", "1024 10000 75", "4096 10000 35", "3000 10000 50"})
    void irradiance(String what) {
        String[] p = what.split(" ");
        int w = Integer.parseInt(p[0]);
        float[] rgb = sky(w, Double.parseDouble(p[1]), Double.parseDouble(p[2]));
        Panorama pano = new Panorama("p", w, w / 2, rgb);
        for (Vec3 n : new Vec3[] {Vec3.UP, new Vec3(1, 0, 0), new Vec3(0.3, -0.8, 0.4).normalized()})
            agrees(new Surroundings.Hdri(pano, 25, 0), integral(rgb, w, n, 25), n);
    }

    /** Kept in 16 bit floats the light is the same. */
    @Test
    void packed() {
        float[] rgb = sky(512, 10_000, 30);
        short[] half = new short[rgb.length];
        float unit = 1024;
        for (int i = 0; i < half.length; i++) half[i] = Float.floatToFloat16(rgb[i] / unit);
        agrees(new Surroundings.Hdri(Panorama.packed("p", 512, 256, half, unit), 0, 0), integral(rgb, 512, Vec3.UP, 0), Vec3.UP);
    }

    /** A tilted horizon sheds on a plane what the level one does on a plane tilted the other way. */
    @Test
    void tilted() {
        float[] rgb = sky(512, 2000, 45);
        Panorama p = new Panorama("p", 512, 256, rgb);
        double a = Math.toRadians(20);
        // Tilt lowers the middle, +y: the old zenith moves towards +y.
        agrees(new Surroundings.Hdri(p, 0, 20, 0, 1, null), integral(rgb, 512, new Vec3(0, -Math.sin(a), Math.cos(a)), 0), Vec3.UP);
        agrees(new Surroundings.Hdri(p, 0, 0, 20, 1, null), integral(rgb, 512, new Vec3(-Math.sin(a), 0, Math.cos(a)), 0), Vec3.UP);
        assertEquals(integral(rgb, 512, new Vec3(0, -Math.sin(a), Math.cos(a)), 0), new Dome(p, 1, 0, 20, 0).horizontalIlluminance(), 50);
    }

    /** The sun taken out: it stands where it stood, and with the rest it sheds what the whole did, within a percent. */
    @ParameterizedTest
    @ValueSource(doubles = {12, 40, 70})
    void sunOut(double height) {
        int w = 1024;
        float[] rgb = sky(w, 10_000, height);
        Panorama whole = new Panorama("p", w, w / 2, rgb);
        PanoramaEdits.Parted parts = PanoramaEdits.sunOut(whole, 0.533);
        assertEquals(height, Math.toDegrees(Math.asin(parts.sun().towards().z())), 0.4);
        assertEquals(45, Math.toDegrees(Math.atan2(parts.sun().towards().x(), parts.sun().towards().y())), 0.4,
                "five eighths across is 45 degrees to the right of the middle");
        Surroundings out = new Surroundings.Hdri(parts.rest(), 30, 0, 0, 1, parts.sun());
        for (Vec3 n : new Vec3[] {Vec3.UP, new Vec3(1, 0.2, 0.3).normalized()}) {
            double want = integral(rgb, w, n, 30);
            assertEquals(want, new TestScene().around(out).measure(Vec3.ZERO, n, 1 << 16).lux(), 0.01 * want, "facing " + n);
        }
        float most = 0;
        for (int i = 0; i < w * w / 2; i++) most = Math.max(most, parts.rest().luminance(i));
        assertTrue(most < 10_000, "nothing of the sun is left: " + most);
    }

    @Test
    void noSunNoLamp() {
        assertNull(PanoramaEdits.sunOut(new Panorama("p", 256, 128, sky(256, 0, 40)), 0.533));
        assertNull(PanoramaEdits.sunOut(new Panorama("p", 64, 32, new float[3 * 64 * 32]), 0.533), "night");
    }

    /** Grading keeps the mean, and grey is grey. */
    @Test
    void graded() {
        float[] rgb = sky(256, 20, 40);
        Panorama p = new Panorama("p", 256, 128, rgb), deep = PanoramaEdits.graded(p, 1.6, 1), grey = PanoramaEdits.graded(p, 1, 0);
        double a = 0, b = 0;
        for (int y = 0; y < 128; y++)
            for (int x = 0; x < 256; x++) {
                double s = Math.sin(Math.PI * (y + 0.5) / 128);
                a += s * p.luminance(y * 256 + x);
                b += s * deep.luminance(y * 256 + x);
            }
        assertEquals(1, b / a, 1e-3);
        assertEquals(grey.at(3000), grey.at(3002), 1e-3 * grey.at(3000));
        assertTrue(deep.luminance(256 * 120) < p.luminance(256 * 120), "dark parts get darker");
    }

    /**
     * Illuminance of the clear day that daylight design is done with, from the sun's height (IES, "Recommended Practice for the Calculation
     * of Daylight Availability", 1984; constants from memory): sun on a plane facing it 127.5 exp(-0.21 / sin h) klx, sky on the level 0.8
     * + 15.5 sqrt(sin h) klx. Its sun is that of haze 3 here, its sky that of 2.5. Published clear skies give 15 to
     * 21 klx at 64 degrees (range from memory, no source at hand).
     */
    @ParameterizedTest
    @ValueSource(doubles = {10, 20, 30, 45, 64})
    void clearDay(double h) {
        double r = Math.toRadians(h), ies = 127_500 * Math.exp(-0.21 / Math.sin(r));
        assertEquals(ies, new Atmosphere(3, 0.2).sunIlluminance(r).luminance(), 0.04 * ies);
        double sky = 800 + 15_500 * Math.sqrt(Math.sin(r));
        assertEquals(sky, sky(2.5, r), 0.15 * sky);
        if (h == 64) assertTrue(sky(3, r) > 15_000 && sky(3, r) < 21_000, sky(3, r) + " lx");
    }

    private static double sky(double haze, double r) {
        return new Dome(SkyImage.clear(new Atmosphere(haze, 0.2), new Vec3(0, Math.cos(r), Math.sin(r)), 320), 1, 0)
                .horizontalIlluminance();
    }

    /** A full moon on the level gives some tenths of a lux, and the sky beside it far less. */
    @Test
    void moon() {
        double h = Math.toRadians(50);
        Vec3 sun = new Vec3(0, -Math.cos(h), -Math.sin(h));
        Surround s = Surround.of(new Surroundings.SunSky(sun, 2, 0, 0, 0.533, 0.2, true, true));
        double moon = s.sunLux().luminance() * s.toSun().z();
        assertTrue(moon > 0.1 && moon < 0.4, moon + " lx");
        assertTrue(s.dome().horizontalIlluminance() < moon && s.dome().horizontalIlluminance() > 0.005,
                s.dome().horizontalIlluminance() + " lx");
        assertEquals(0, Surround.of(new Surroundings.SunSky(sun, 2, 0, 0, 0.533, 0.2)).sunLux().luminance());
    }
}
