package bake.core.surface;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Srgb;
import bake.core.scene.Material;
import bake.core.scene.Texture;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class PyramidTest {
    private static Texture noise(int w, int h, boolean srgb) {
        byte[] b = new byte[4 * w * h];
        new SplittableRandom(4).nextBytes(b);
        return new Texture("noise", w, h, b, srgb);
    }

    /** Every level keeps the mean in linear light, within the rounding to bytes; sizes need not be powers of two. */
    @Test
    void levelsKeepTheMean() {
        for (boolean srgb : new boolean[] {true, false}) {
            Texture t = noise(96, 40, srgb);
            double mean = 0;
            for (int i = 0; i < 96 * 40; i++) {
                double c = (t.rgba()[4 * i] & 255) / 255.0;
                mean += (srgb ? Srgb.decode(c) : c) / (96 * 40);
            }
            Pyramid p = new Pyramid(t);
            TextureLookup look = TextureLookup.of(new Material.Image(0), new Pyramid[] {p}, false);
            float[] out = new float[4];
            for (int level = 0; level < 4; level++) {
                double sum = 0;
                int n = 200;
                for (int i = 0; i < n * n; i++) {
                    look.colour((i % n + 0.5f) / n, (i / n + 0.5f) / n, (float) (level - Math.log(96) / Math.log(2)), out);
                    sum += out[0] / (n * n);
                }
                assertEquals(mean, sum, 0.012 * mean + 0.002, "level " + level);
            }
            assertEquals(1, p.widths[p.widths.length - 1]);
        }
    }

    /** A wide footprint sees the mean, a narrow one the texel, and one between blends two levels without a step. */
    @Test
    void footprintsChooseTheLevel() {
        byte[] b = new byte[4 * 64 * 64];
        for (int i = 0; i < 64 * 64; i++) b[4 * i] = b[4 * i + 1] = b[4 * i + 2] = (byte) ((i % 64 + i / 64) % 2 == 0 ? 255 : 0);
        TextureLookup look = TextureLookup.of(new Material.Image(0), new Pyramid[] {new Pyramid(new Texture("checks", 64, 64, b, false))},
                false);
        float[] out = new float[4];
        look.colour(0.5f / 64, 0.5f / 64, -100, out);
        assertEquals(1, out[0], 1e-4);
        look.colour(0.5f / 64, 0.5f / 64, -3, out);
        assertEquals(0.5, out[0], 0.01);
        float last = 1;
        for (float spread = -6; spread <= -5; spread += 0.05f) {
            look.colour(0.5f / 64, 0.5f / 64, spread, out);
            assertTrue(out[0] <= last + 1e-4 && last - out[0] < 0.05);
            last = out[0];
        }
    }

    /** Patches moved about keep the mean but break the period; without them the picture repeats to the bit. */
    @Test
    void patchesBreakRepeats() {
        Pyramid[] p = {new Pyramid(noise(64, 64, false))};
        TextureLookup plain = TextureLookup.of(new Material.Image(0), p, false), moved = TextureLookup.of(new Material.Image(0), p, true);
        float[] a = new float[4], b = new float[4];
        double plainSame = 0, movedSame = 0, mean = 0;
        int n = 4000;
        SplittableRandom r = new SplittableRandom(2);
        for (int i = 0; i < n; i++) {
            float u = (float) r.nextDouble(), v = (float) r.nextDouble();
            plain.colour(u, v, -100, a);
            plain.colour(u + 3, v + 2, -100, b);
            plainSame += Math.abs(a[0] - b[0]) / n;
            moved.colour(u, v, -100, a);
            moved.colour(u + 3, v + 2, -100, b);
            movedSame += Math.abs(a[0] - b[0]) / n;
            mean += a[0] / n;
        }
        assertTrue(plainSame < 1e-3, "plain differs by " + plainSame);
        assertTrue(movedSame > 0.1, "moved differs by " + movedSame);
        assertEquals(0.5, mean, 0.02);
    }

    /** The slope of a ramp is its rise. */
    @Test
    void slopeOfARamp() {
        byte[] b = new byte[4 * 128 * 128];
        for (int i = 0; i < 128 * 128; i++) b[4 * i] = (byte) (i % 128);
        TextureLookup look = TextureLookup.of(new Material.Image(0), new Pyramid[] {new Pyramid(new Texture("ramp", 128, 128, b, false))},
                false);
        float[] out = new float[4];
        look.slope(0.4f, 0.3f, -100, out);
        assertEquals(128 / 255.0, out[0], 0.01);
        assertEquals(0, out[1], 1e-4);
    }
}
