package bake.core.light;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Panorama;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class DomeTest {
    /** North bright, east half, the rest dim; the ground black. */
    private static Panorama compass() {
        int w = 64, h = 32;
        float[] rgb = new float[3 * w * h];
        for (int y = 0; y < h / 2; y++)
            for (int x = 0; x < w; x++) {
                double azimuth = 360 * ((x + 0.5) / w - 0.5);
                float l = Math.abs(azimuth) < 20 ? 1000 : Math.abs(azimuth - 90) < 20 ? 500 : 10;
                for (int c = 0; c < 3; c++) rgb[3 * (y * w + x) + c] = l;
            }
        return new Panorama("compass", w, h, rgb);
    }

    private static float at(Dome d, double azimuth, double height) {
        double a = Math.toRadians(azimuth), e = Math.toRadians(height);
        float[] out = new float[4];
        d.read((float) (Math.cos(e) * Math.sin(a)), (float) (Math.cos(e) * Math.cos(a)), (float) Math.sin(e), out);
        return out[1];
    }

    /** The middle column looks north, along +y; rotation turns the picture clockwise seen from above. */
    @Test
    void directions() {
        Dome d = new Dome(compass(), 1, 0);
        assertEquals(1000, at(d, 0, 30), 1);
        assertEquals(500, at(d, 90, 30), 1);
        assertEquals(10, at(d, 180, 30), 1);
        assertEquals(10, at(d, -90, 30), 1);
        assertEquals(0, at(d, 0, -40), 1e-3);
        Dome turned = new Dome(compass(), 2, 90);
        assertEquals(2000, at(turned, 90, 30), 2, "north has gone to the east");
        assertEquals(1000, at(turned, 180, 30), 2);
        assertEquals(1000, at(new Dome(compass(), 1, -360), 0, 30), 1, "a whole turn");
    }

    /** The density integrates to one over the sphere, wherever it is turned to. */
    @Test
    void densityIntegratesToOne() {
        for (double turn : new double[] {0, 33, 271.5}) {
            Dome d = new Dome(compass(), 1, turn);
            double sum = 0;
            int n = 512, m = 1024;
            for (int i = 0; i < n; i++)
                for (int j = 0; j < m; j++) {
                    double z = 1 - 2 * (i + 0.5) / n, t = 2 * Math.PI * (j + 0.37) / m, w = Math.sqrt(1 - z * z);
                    sum += d.read((float) (w * Math.cos(t)), (float) (w * Math.sin(t)), (float) z, new float[4]) * 4 * Math.PI
                            / ((double) n * m);
                }
            assertEquals(1, sum, 0.01, "turned by " + turn);
        }
    }

    /** Samples go where the light is, and each has the density that is said of it. */
    @Test
    void samplesFollowTheLight() {
        Dome d = new Dome(compass(), 1, 57);
        SplittableRandom r = new SplittableRandom(6);
        float[] v = new float[4], c = new float[4];
        double sum = 0;
        int north = 0, n = 100_000;
        for (int i = 0; i < n; i++) {
            d.sample(r.nextFloat(), r.nextFloat(), v);
            assertEquals(1, Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]), 1e-5);
            float p = d.read(v[0], v[1], v[2], new float[4]);
            assertTrue(p > 0);
            d.read(v[0], v[1], v[2], c);
            sum += c[1] * Math.max(0, v[2]) / p / n;
            double azimuth = Math.toDegrees(Math.atan2(v[0], v[1])) - 57;
            if (Math.abs(azimuth) < 20) north++;
        }
        assertEquals(d.horizontalIlluminance(), sum, 0.02 * sum, "the mean of light over density is the illuminance");
        assertTrue(north > 0.5 * n, "most samples go to the brightest part: " + north);
    }

    @Test
    void darkness() {
        assertTrue(new Dome(new Panorama("night", 4, 2, new float[24]), 1, 0).dark());
        assertTrue(new Dome(compass(), 0, 0).dark());
        assertFalse(new Dome(compass(), 1, 0).dark());
    }

    /** A sky of one luminance has an illuminance of pi times it. */
    @Test
    void evenSky() {
        float[] rgb = new float[3 * 64 * 32];
        java.util.Arrays.fill(rgb, 100);
        assertEquals(Math.PI * 100, new Dome(new Panorama("even", 64, 32, rgb), 1, 0).horizontalIlluminance(), 1,
                "within the rows' own coarseness");
    }
}
