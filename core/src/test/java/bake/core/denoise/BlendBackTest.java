package bake.core.denoise;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What a denoiser smeared comes back, what it took rightly does not. */
class BlendBackTest {
    private static final int W = 64, H = 64;

    private static double error(float[] a, float[] b, int from, int to) {
        double sum = 0;
        int n = 0;
        for (int i = 0; i < W * H; i++) if (i % W >= from && i % W < to) {
            sum += Math.pow(a[3 * i] - b[3 * i], 2);
            n++;
        }
        return Math.sqrt(sum / n);
    }

    /** Left an even wall, right tiles that the denoised picture has lost. */
    @Test
    void textureComesBackAndNoiseStaysAway() {
        Random r = new Random(3);
        for (double sigma : new double[] {0.02, 0.1, 0.2}) {
            float[] truth = new float[3 * W * H];
            HalvedPicture p = new HalvedPicture(W, H);
            Arrays.fill(p.share, 0.5f);
            for (int i = 0; i < W * H; i++) {
                boolean right = i % W >= W / 2;
                float t = right && (i % W / 3 + i / W / 3) % 2 == 0 ? 1.4f : right ? 0.6f : 1, a = (float) (1.414 * sigma
                        * r.nextGaussian()),
                        b = (float) (1.414 * sigma * r.nextGaussian()), n = (a + b) / 2;
                p.odd[i] = t + a;
                p.even[i] = t + b;
                p.variance[i] = (float) (sigma * sigma);
                p.error[i] = (1 - t) * (1 - t);
                for (int c = 3 * i; c < 3 * i + 3; c++) {
                    truth[c] = t;
                    p.raw[c] = t + n;
                    p.clean[c] = 1;
                }
            }
            float[] smeared = p.clean.clone(), clean = p.clean;
            BlendBack.mix(p);
            double told = 0;
            for (int i = 0; i < W * H; i++) if (i % W >= W / 2 + 4) told += p.error[i] / (H * (W / 2 - 4));
            assertEquals(error(clean, truth, W / 2 + 4, W), Math.sqrt(told), 0.15 * Math.sqrt(told), "the error that is told, at " + sigma);
            assertTrue(error(clean, truth, 0, W / 2 - 4) < 0.2 * sigma, "on the wall at " + sigma + ": " + error(clean, truth, 0, W / 2 - 4));
            assertTrue(error(clean, truth, W / 2 + 4, W) < 0.65 * error(smeared, truth, W / 2 + 4, W) && error(clean, truth, W / 2 + 4,
                    W) < 1.5 * sigma
                    + 0.02, "on tiles at " + sigma + ": " + error(clean, truth, W / 2 + 4, W));
        }
    }

    /** Without noise the picture is the rendered one; stray pixels that the variance knows of stay away. */
    @Test
    void ends() {
        HalvedPicture p = new HalvedPicture(W, H);
        float[] raw = p.raw, clean = p.clean, variance = p.variance, odd = p.odd, even = p.even;
        Random r = new Random(4);
        for (int i = 0; i < raw.length; i++) raw[i] = r.nextFloat();
        for (int i = 0; i < odd.length; i++) odd[i] = even[i] = 0.2126f * raw[3 * i] + 0.7152f * raw[3 * i + 1] + 0.0722f * raw[3 * i + 2];
        Arrays.fill(clean, 0.5f);
        BlendBack.mix(p);
        for (int i = 0; i < raw.length; i++) assertEquals(raw[i], clean[i], 1e-4);
        Arrays.fill(raw, 1);
        Arrays.fill(clean, 1);
        int stray = 3 * (30 * W + 30);
        Arrays.fill(odd, 1);
        Arrays.fill(even, 1);
        even[30 * W + 30] = 999;
        Arrays.fill(raw, stray, stray + 3, 500);
        variance[30 * W + 30] = 500 * 500;
        BlendBack.mix(p);
        assertEquals(1, clean[stray], 2, "nearly all of it is gone");
        for (int i = 0; i < clean.length; i++) if (i < stray || i > stray + 2) assertEquals(1, clean[i], 1e-3);
    }

    /** A wall that three paths a pixel light by chance, most of them too little: no pixel of it stands out again. */
    @Test
    void strayPixelsStayAway() {
        Random r = new Random(5);
        HalvedPicture p = new HalvedPicture(W, H);
        Arrays.fill(p.share, 1 / 3f);
        for (int i = 0; i < W * H; i++) {
            float a = chance(r), b = chance(r), c = chance(r), m = (a + b + c) / 3;
            p.odd[i] = a;
            p.even[i] = (b + c) / 2;
            // Three samples know their own variance badly, their neighbours say little more.
            p.variance[i] = 0.5f * ((a - m) * (a - m) + (b - m) * (b - m) + (c - m) * (c - m)) / 3;
            Arrays.fill(p.raw, 3 * i, 3 * i + 3, m);
        }
        Arrays.fill(p.clean, 1);
        BlendBack.mix(p);
        float worst = 0;
        for (float l : p.clean) worst = Math.max(worst, Math.abs(l - 1));
        assertTrue(worst < 0.2, "a pixel stands out by " + worst);
    }

    /** One on average. */
    private static float chance(Random r) {
        return r.nextFloat() < 0.1f ? 2.8f : 0.8f;
    }
}
