package bake.core.denoise;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class DenoiserTest {
    private static final int W = 64, H = 48;
    private static final double WHITE = 1000;

    /** Two matt walls that meet in a corner, one lit twice as much, with a striped base colour; noise of a known size. */
    private static Film noisy(int samples, double spread) {
        Film film = Film.merged(W, H, 1);
        SplittableRandom r = new SplittableRandom(8);
        for (int s = 0; s < samples; s++)
            for (int y = 0; y < H; y++)
                for (int x = 0; x < W; x++) {
                    float base = base(x), l = (float) (truth(x) * base
                            * (1 + spread * (r.nextDouble() + r.nextDouble() + r.nextDouble() - 1.5)));
                    film.add(x, y, new float[] {l, l, l});
                    boolean left = x < W / 2;
                    film.addFeatures(x, y, new float[] {base, base, base, left ? 1 : 0, left ? 0 : 1, 0, 5});
                }
        return film;
    }

    private static float base(int x) {
        return x % 8 < 4 ? 0.7f : 0.3f;
    }

    private static double truth(int x) {
        return x < W / 2 ? 100 : 200;
    }

    private static double error(float[] rgb) {
        double e = 0;
        for (int i = 0; i < W * H; i++) e += Math.pow(rgb[3 * i] / (truth(i % W) * base(i % W)) - 1, 2) / (W * H);
        return Math.sqrt(e);
    }

    @Test
    void takesNoiseAwayAndKeepsEdgesAndTexture() {
        Film f = noisy(8, 1.4);
        float[] raw = new float[3 * W * H], c = new float[3];
        for (int i = 0; i < W * H; i++) {
            f.mean(i % W, i / W, null, c);
            System.arraycopy(c, 0, raw, 3 * i, 3);
        }
        float[] clean = Denoiser.run(f, null, Region.all(W, H), WHITE);
        float[] quick = QuickDenoiser.run(f, null, Region.all(W, H));
        assertTrue(error(clean) < error(raw) / 3.5, "from " + error(raw) + " to " + error(clean));
        assertTrue(error(quick) < error(raw) / 5.5, "from " + error(raw) + " to " + error(quick));
        double mean = 0, truth = 0;
        for (int i = 0; i < W * H; i++) {
            mean += clean[3 * i];
            truth += truth(i % W) * base(i % W);
        }
        assertEquals(1, mean / truth, 0.02, "no light is made or lost");
        // Just beside the corner the two sides stay apart.
        int y = H / 2, a = 3 * (y * W + W / 2 - 1), b = 3 * (y * W + W / 2);
        assertEquals(100 * base(W / 2 - 1), clean[a], 8);
        assertEquals(200 * base(W / 2), clean[b], 12);
    }

    /** How wrong the picture still is, judged by its halves alone. */
    @Test
    void tellsTheErrorThatIsLeft() {
        for (int samples : new int[] {8, 32}) {
            Denoiser.Judged j = Denoiser.judged(noisy(samples, 1.4), null, Region.all(W, H), WHITE, () -> false);
            double told = 0, real = 0;
            for (int i = 0; i < W * H; i++) {
                told += j.error()[i];
                real += Math.pow(j.light()[3 * i] - truth(i % W) * base(i % W), 2);
            }
            assertEquals(1, Math.sqrt(told / real), 0.25, samples + " samples");
        }
    }

    /** Of three samples one half has one and the other two: the picture lies between those of two and of four, and its error is told. */
    @Test
    void halvesCountByTheirSamples() {
        double[] real = new double[3];
        for (int n = 2; n <= 4; n++) {
            Denoiser.Judged j = Denoiser.judged(noisy(n, 1.4), null, Region.all(W, H), WHITE, () -> false);
            double told = 0;
            for (int i = 0; i < W * H; i++) {
                told += j.error()[i];
                real[n - 2] += Math.pow(j.light()[3 * i] - truth(i % W) * base(i % W), 2);
            }
            assertEquals(1, Math.sqrt(told / real[n - 2]), 0.25, n + " samples");
        }
        assertTrue(real[1] < 0.85 * real[0] && real[2] < 0.95 * real[1], real[0] + ", " + real[1] + ", " + real[2]);
    }

    @Test
    void aStrayPixelIsPutInItsPlace() {
        Film f = noisy(8, 0.2);
        for (int s = 0; s < 1; s++) {
            f.add(20, 20, new float[] {1e6f, 1e6f, 1e6f});
            f.addFeatures(20, 20, new float[] {base(20), base(20), base(20), 1, 0, 0, 5});
        }
        float[] clean = Denoiser.run(f, null, Region.all(W, H), WHITE);
        assertTrue(clean[3 * (20 * W + 20)] < 3 * 100 * base(20), "stray pixel left at " + clean[3 * (20 * W + 20)]);
    }

    /** How many samples other pixels have decides nothing of what is far from them: not in the middle of the picture either. */
    @Test
    void samplesElsewhereDoNotMatter() {
        Region all = Region.all(W, H);
        Film few = noisy(3, 1.4), more = noisy(3, 1.4);
        for (Film f : new Film[] {few, more}) f.add(8, 8, new float[] {1e4f, 1e4f, 1e4f});
        for (int s = 0; s < 60; s++) {
            float base = base(W / 2), l = 200 * base;
            more.add(W / 2, H / 2, new float[] {l, l, l});
            more.addFeatures(W / 2, H / 2, new float[] {base, base, base, 0, 1, 0, 5});
        }
        for (int i = 0; i < 2; i++) {
            float[] a = i == 0 ? Denoiser.run(few, null, all, WHITE) : QuickDenoiser.run(few, null, all),
                    b = i == 0 ? Denoiser.run(more, null, all, WHITE) : QuickDenoiser.run(more, null, all);
            for (int y = 6; y <= 10; y++) for (int x = 6; x <= 10; x++) assertEquals(a[3 * (y * W + x)], b[3 * (y * W + x)], 0.02f);
        }
        Film one = noisy(1, 1.4);
        float[] quick = Denoiser.run(one, null, all, WHITE);
        one.add(W / 2, H / 2, new float[] {60, 60, 60});
        assertEquals(quick[0], Denoiser.run(one, null, all, WHITE)[0], 0.02f, "one pixel with halves does not give halves to the others");
    }

    @Test
    void aCleanPictureStaysAsItIs() {
        float[] clean = Denoiser.run(noisy(8, 0), null, Region.all(W, H), WHITE);
        for (int i = 0; i < W * H; i++) assertEquals(truth(i % W) * base(i % W), clean[3 * i], 0.02 * truth(i % W) * base(i % W));
    }

    /** How much of a backdrop is covered comes out even where it was noise, and with its edge where two surfaces meet. */
    @Test
    void coverIsCleaned() {
        int w = 48, h = 32;
        Film f = Film.apart(w, h, 2, 1, Region.all(w, h));
        java.util.SplittableRandom r = new java.util.SplittableRandom(5);
        for (int y = 0; y < h; y++)
            for (int x = 0; x < w; x++)
                for (int s = 0; s < 8; s++) {
                    boolean solid = x < w / 2;
                    f.add(x, y, new float[] {solid ? 5 : 0, solid ? 5 : 0, solid ? 5 : 0, 0, 0, 0});
                    f.addFeatures(x, y, new float[] {0.5f, 0.5f, 0.5f, solid ? 1 : 0, solid ? 0 : 1, 0, 5});
                    f.addCover(x, y, solid ? 1 : r.nextInt(4) == 0 ? 1 : 0);
                }
        float[] c = Denoiser.cover(f, Region.all(w, h));
        double before = 0, after = 0;
        for (int y = 4; y < h - 4; y++)
            for (int x = w / 2 + 4; x < w - 4; x++) {
                before += Math.pow(f.cover(x, y) - 0.25, 2);
                after += Math.pow(c[3 * (y * w + x)] - 0.25, 2);
            }
        org.junit.jupiter.api.Assertions.assertTrue(after < 0.1 * before, before + " " + after);
        for (int y = 0; y < h; y++) org.junit.jupiter.api.Assertions.assertEquals(1, c[3 * (y * w + w / 2 - 1)], 1e-3, "the edge");
        float[] front = Denoiser.front(f, Region.all(w, h), WHITE);
        org.junit.jupiter.api.Assertions.assertEquals(5, front[3 * (10 * w + 5)], 0.05);
        org.junit.jupiter.api.Assertions.assertEquals(0, front[3 * (10 * w + 40)], 0.05);
    }

    /** A lamp a thousand times as bright as the wall: its noisy edge stays its own. */
    @Test
    void aLampDoesNotDrownWhatIsBesideIt() {
        Film f = Film.merged(W, H, 1);
        SplittableRandom r = new SplittableRandom(11);
        int edge = W / 2;
        for (int s = 0; s < 16; s++)
            for (int y = 0; y < H; y++)
                for (int x = 0; x < W; x++) {
                    boolean lamp = x < edge || x == edge && r.nextDouble() < 0.3;
                    float l = lamp ? 100_000 : (float) (100 * (1 + r.nextDouble() - 0.5));
                    f.add(x, y, new float[] {l, l, l});
                    f.addFeatures(x, y, new float[] {1, 1, 1, 0, 0, 1, lamp ? 3 : 5});
                }
        float[] clean = Denoiser.run(f, null, Region.all(W, H), WHITE);
        for (int y = 4; y < H - 4; y++) {
            assertEquals(100, clean[3 * (y * W + edge + 1)], 20, "beside the lamp");
            assertEquals(100_000, clean[3 * (y * W + edge - 2)], 3000, "the lamp itself");
        }
    }

    /** Fine lines that features do not show, such as a shadow's, are kept once the samples show them. */
    @Test
    void convergesToWhatWasRendered() {
        double before = Double.MAX_VALUE;
        for (int n : new int[] {8, 64, 1024}) {
            Film f = Film.merged(W, H, 1);
            SplittableRandom r = new SplittableRandom(12);
            for (int s = 0; s < n; s++)
                for (int y = 0; y < H; y++)
                    for (int x = 0; x < W; x++) {
                        float l = (float) ((x % 5 == 0 ? 60 : 100) * (1 + r.nextGaussian()));
                        f.add(x, y, new float[] {l, l, l});
                        f.addFeatures(x, y, new float[] {0.5f, 0.5f, 0.5f, 0, 0, 1, 5});
                    }
            float[] clean = Denoiser.run(f, null, Region.all(W, H), WHITE);
            double e = 0;
            for (int i = 0; i < W * H; i++) e += Math.pow(clean[3 * i] - (i % W % 5 == 0 ? 60 : 100), 2) / (W * H);
            e = Math.sqrt(e);
            assertTrue(e < 0.75 * before && e < 140 / Math.sqrt(n), "error " + e + " with " + n + " samples");
            before = e;
        }
    }

    /** The number of threads changes no bit, and faders act as they do on the film. */
    @Test
    void threadsAndFaders() throws Exception {
        Film f = noisy(8, 0.8);
        float[] many = Denoiser.run(f, null, Region.all(W, H), WHITE);
        try (java.util.concurrent.ForkJoinPool one = new java.util.concurrent.ForkJoinPool(1)) {
            assertArrayEquals(many, one.submit(() -> Denoiser.run(f, null, Region.all(W, H), WHITE)).get());
        }
        float[] half = Denoiser.run(f, new float[] {0.5f, 0.5f, 0.5f}, Region.all(W, H), WHITE / 2);
        for (int i = 0; i < many.length; i++) assertEquals(many[i] / 2, half[i], 2e-3 * many[i] + 1e-3);
    }

    /** A wish to stop is heard, and a picture of single samples is denoised as well as that allows. */
    @Test
    void endsOfWhatIsAsked() {
        assertNull(Denoiser.run(noisy(4, 1), null, Region.all(W, H), WHITE, () -> true));
        assertTrue(error(Denoiser.run(noisy(1, 0.3), null, Region.all(W, H), WHITE)) < 0.2);
        float[] part = Denoiser.run(noisy(8, 0), null, new Region(5, 7, 13, 9), WHITE);
        assertEquals(3 * 13 * 9, part.length);
        assertEquals(100 * base(5), part[0], 2);
    }

    /** Sharp filters leave less than nothing in places, and a path may go astray altogether: neither takes the picture with it. */
    @Test
    void oddSamples() {
        Film f = noisy(8, 0.3);
        for (int x = 0; x < 20; x++) f.add(x, 9, new float[] {-2000, -2000, -2000});
        f.add(50, 30, new float[] {Float.NaN, 1, 1});
        float[] clean = Denoiser.run(f, null, Region.all(W, H), WHITE);
        for (float v : clean) assertTrue(v >= 0, "found " + v);
        assertEquals(200 * base(52), clean[3 * (30 * W + 52)], 40 * base(52), "beside the path that went astray");
    }
}
