package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.denoise.Denoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.work.Workers;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** More paths where noise is: the same picture, less noise for the same number of paths. */
class AdaptivityTest {
    private static final int W = 48, H = 32;
    private static final Camera CAMERA = Camera.of(new Vec3(0, -5, 1.2), new Vec3(0, 0, 1.2), 28).withEv(9);

    /** A plain wall, and in front of a part of it a lamp behind a grid of bars, whose shadow is hard to find. */
    private static RenderScene scene() {
        TestScene s = new TestScene().around(40);
        int wall = s.material(Material.diffuse("wall", grey(0.6)));
        s.add(Shapes.box("wall", -6, 1, -3, 6, 1.2, 6, wall));
        for (int i = 0; i < 6; i++) s.add(Shapes.box("bar" + i, 0.8 + 0.1 * i, 0.4, 0, 0.86 + 0.1 * i, 0.45, 2, wall));
        return s.lamp(new Lamp("l", "Lamps", Lamp.Kind.RECTANGLE, Affine.pointing(new Vec3(1.1, -0.4, 1), new Vec3(0, 1, 0)), 0.8, 0.8, 4000,
                grey(1), 0, 60, true, false)).compile();
    }

    private static Film film(RenderScene s) {
        return Film.merged(W, H, s.lights().groups().size());
    }

    private static Renderer renderer(RenderScene s, Film f, Workers w, double strength, long seed) {
        return renderer(s, f, w, strength, seed, false);
    }

    private static Renderer renderer(RenderScene s, Film f, Workers w, double strength, long seed, boolean denoised) {
        return new Renderer(s, CAMERA, new PathSettings(4, 0, seed), f, Region.all(W, H), w, new Adaptivity(strength, display(), denoised));
    }

    private static Finish display() {
        return new Finish(CAMERA.saturation(), Look.PLAIN);
    }

    private static float[] bits(Film f) {
        float[] out = new float[3 * W * H], c = new float[3];
        for (int i = 0; i < W * H; i++) {
            f.mean(i % W, i / W, null, c);
            System.arraycopy(c, 0, out, 3 * i, 3);
        }
        return out;
    }

    private static double mean(Film f) {
        double sum = 0;
        for (float v : bits(f)) sum += v;
        return sum / 3 / W / H;
    }

    /** Mean square error of displayed pixels against a picture that has many more paths. */
    private static double error(Film f, float[] truth) {
        return error(bits(f), truth);
    }

    private static double error(float[] light, float[] truth) {
        Finish d = display();
        int[] a = d.argb(light, bake.core.finish.Place.whole(W, H), null), b = d.argb(truth, bake.core.finish.Place.whole(W, H), null);
        double e = 0;
        for (int i = 0; i < a.length; i++) e += Math.pow((a[i] >> 8 & 255) - (b[i] >> 8 & 255), 2) / a.length;
        return e;
    }

    @Tag("thorough")
    @Test
    void lessNoiseForTheSamePaths() {
        RenderScene s = scene();
        Film even = film(s), uneven = film(s), reference = film(s);
        try (Workers w = new Workers(2)) {
            Renderer x = renderer(s, even, w, 0, 1), y = renderer(s, uneven, w, 1, 1), z = renderer(s, reference, w, 0, 77);
            for (int p = 0; p < 64; p++) {
                x.pass(p, w, () -> false);
                y.pass(p, w, () -> false);
            }
            assertEquals(x.rays(), y.rays(), 0.1 * x.rays(), "a pass costs the same");
            for (int p = 0; p < 250; p++) z.pass(p, w, () -> false);
        }
        float[] truth = bits(reference);
        double a = display().noise(uneven, Region.all(W, H)), b = display().noise(even, Region.all(W, H));
        assertTrue(a < 0.85 * b, "noise " + a + " and " + b + " % evenly");
        assertTrue(error(uneven, truth) < 0.92 * error(even, truth), error(uneven, truth) + " and " + error(even, truth) + " evenly");
        assertEquals(1, mean(uneven) / mean(reference), 0.01, "no light is made or lost");
        int least = Integer.MAX_VALUE, most = 0;
        for (int i = 0; i < W * H; i++) {
            least = Math.min(least, uneven.samples(i % W, i / W));
            most = Math.max(most, uneven.samples(i % W, i / W));
        }
        assertTrue(least >= 8 + 56 / 4 - 2 && most > 100, least + " to " + most);
    }

    /** What the denoiser cleans gets fewer paths than what it leaves noisy: the shadow's edges. */
    @Test
    void wherePathsAreLeftToDenoising() {
        RenderScene s = scene();
        Film raw = film(s), denoised = film(s), reference = film(s);
        try (Workers w = new Workers(2)) {
            Renderer x = renderer(s, raw, w, 1, 1), y = renderer(s, denoised, w, 1, 1, true), z = renderer(s, reference, w, 0, 77);
            for (int p = 0; p < 32; p++) {
                x.pass(p, w, () -> false);
                y.pass(p, w, () -> false);
            }
            assertEquals(x.rays(), y.rays(), 0.1 * x.rays(), "a pass costs the same");
            for (int p = 0; p < 250; p++) z.pass(p, w, () -> false);
            assertFalse(new Adaptivity(1, display(), true).share(denoised, Region.all(W, H), null, 32, () -> true), "it can be stopped");
        }
        float[] truth = bits(reference);
        double a = error(clean(denoised), truth), b = error(clean(raw), truth);
        assertTrue(a < b, a + " and " + b + " by the noise before denoising");
        assertEquals(1, mean(denoised) / mean(reference), 0.02, "no light is made or lost");
    }

    private static float[] clean(Film f) {
        return Denoiser.run(f, null, Region.all(W, H), CAMERA.saturation());
    }

    /** The same bits for any number of threads, and after a picture was put aside and gone on with. */
    @Test
    void threadsAndGoingOn() {
        RenderScene s = scene();
        Film one = film(s), three = film(s), gone = film(s), on = film(s);
        ByteArrayOutputStream kept = new ByteArrayOutputStream();
        try (Workers w1 = new Workers(1); Workers w3 = new Workers(3)) {
            Renderer a = renderer(s, one, w1, 1, 5), b = renderer(s, three, w3, 1, 5), c = renderer(s, gone, w3, 1, 5), d = renderer(s,
                    on, w1, 1, 5);
            for (int p = 0; p < 40; p++) {
                a.pass(p, w1, () -> false);
                b.pass(p, w3, () -> false);
            }
            for (int p = 0; p < 21; p++) c.pass(p, w3, () -> false);
            gone.save(x -> {
                byte[] y = new byte[x.remaining()];
                x.get(y);
                kept.writeBytes(y);
            });
            ByteBuffer in = ByteBuffer.wrap(kept.toByteArray());
            on.load(x -> {
                byte[] y = new byte[x.remaining()];
                in.get(y);
                x.put(y);
            });
            for (int p = 21; p < 40; p++) d.pass(p, w1, () -> false);
        }
        assertArrayEquals(bits(one), bits(three));
        assertArrayEquals(bits(one), bits(on));
    }

    /** Whatever the rate, the passes of a period come to it. */
    @Test
    void rates() {
        for (boolean denoised : new boolean[] {false, true}) {
            Adaptivity a = new Adaptivity(1, display(), denoised);
            // What denoising leaves is known as soon as it can be judged.
            int first = denoised ? 6 : 8, all = 0;
            for (double r : new double[] {0.25, 0.4, 1, 1.7, 12}) {
                int sum = 0;
                for (int p = 2 * first; p < 4 * first; p++) sum += a.paths(r, p);
                assertEquals(2 * first * r, sum, 1);
            }
            for (int p = 0; p < first; p++) assertEquals(1, a.paths(5, p));
            for (int p = 0; p <= 8 * first; p++) if (a.due(p)) all++;
            assertEquals(4, all);
            assertTrue(a.due(first) && a.due(2 * first) && a.due(4 * first) && a.due(8 * first));
        }
    }
}
