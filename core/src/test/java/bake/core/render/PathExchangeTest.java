package bake.core.render;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.core.path.PathSettings;
import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Pixels that use each other's bounces: less noise, the same mean in every block, and pictures that stay the same to the bit. */
class PathExchangeTest {
    private static final int W = 48, H = 32, BLOCK = 8;
    private static final Camera CAMERA = Camera.of(new Vec3(1.2, -1.9, 1.5), new Vec3(-0.2, 1, 1.2), 18).withEv(10);
    private static final PathSettings PLAIN = new PathSettings(6, 0, 1, true, new PixelFilter(PixelFilter.Shape.BOX, 0.5))
            .withExchange(false);

    /** A room with every kind of surface that the first or the second point of a path may lie on, and panes in the way. */
    private static RenderScene room() {
        TestScene s = new TestScene().around(new Surroundings.SunSky(new Vec3(-0.8, -0.2, 0.6).normalized(), 3, 0, 0, 0.533, 0.2));
        int wall = s.material(Material.diffuse("wall", grey(0.7))), floor =
                s.material(Material.glossy("floor", new Vec3(0.5, 0.3, 0.2), 0.3));
        int glass = s.material(Material.glass("pane", new Vec3(0.9, 0.7, 0.5), 0, 1.52, true)),
                metal = s.material(Material.metal("metal", new Vec3(0.9, 0.7, 0.4), 0.35));
        int coated = s.material(Material.glossy("coated", new Vec3(0.2, 0.3, 0.7), 0.6).withLayers(Layers.NONE.withCoat(1, 0.1)));
        int cloth = s.material(Material.glossy("cloth", new Vec3(0.6, 0.2, 0.2), 0.8)
                .withLayers(Layers.NONE.withSheen(new Vec3(0.6, 0.5, 0.4), 0.4)));
        int curtain = s.material(Material.diffuse("curtain", grey(0.8)).withTranslucency(0.5)),
                gauze = s.material(Material.diffuse("gauze", grey(0.6)).withAlpha(0.4, Material.AlphaMode.BLEND, 0));
        int solid = s.material(Material.glass("solid", grey(1), 0.2, 1.5, false));
        s.add(Shapes.quad("floor", 4, 4, floor)).add(Shapes.quad("ceiling", 4, 4, wall), Affine.translation(0, 0, 3));
        s.add(Shapes.quad("back", 4, 3, coated), Affine.pointing(new Vec3(0, 2, 1.5), new Vec3(0, -1, 0)))
                .add(Shapes.quad("front", 4, 3, cloth), Affine.pointing(new Vec3(0, -2, 1.5), new Vec3(0, 1, 0)));
        s.add(Shapes.quad("right", 4, 3, wall), Affine.pointing(new Vec3(2, 0, 1.5), new Vec3(-1, 0, 0)));
        s.add(Shapes.box("sill", -2.1, -2, 0, -2, 2, 0.8, wall)).add(Shapes.box("lintel", -2.1, -2, 2.4, -2, 2, 3, wall));
        s.add(Shapes.quad("pane", 1.6, 4, glass), Affine.pointing(new Vec3(-2, 0, 1.6), new Vec3(1, 0, 0)));
        s.add(Shapes.quad("inner pane", 4, 3, glass), Affine.pointing(new Vec3(0, 0.8, 1.5), new Vec3(0, 1, 0)));
        s.add(Shapes.quad("curtain", 1, 2, curtain), Affine.pointing(new Vec3(-1.2, -0.4, 1.6), new Vec3(1, 0.3, 0)))
                .add(Shapes.quad("gauze", 2, 1.5, gauze), Affine.pointing(new Vec3(1, 0.3, 1), new Vec3(-1, -1, 0)));
        s.add(Shapes.sphere("ball", 0.5, 24, metal), Affine.translation(0.8, 1.2, 0.5))
                .add(Shapes.box("block", -0.6, 0.1, 0, -0.2, 0.5, 0.6, solid));
        return s.lamp(new Lamp("l", "Lamps", Lamp.Kind.SPHERE, Affine.translation(1, 1, 2.2), 0.15, 0, 30_000, grey(1), 0, 60, true, false))
                .compile();
    }

    private static Film render(RenderScene s, PathSettings p, int passes, Region part, int threads) {
        Film f = Film.merged(W, H, s.lights().groups().size());
        try (Workers w = new Workers(threads)) {
            Renderer r = new Renderer(s, CAMERA, p, f, part, w);
            for (int k = 0; k < passes; k++) r.pass(k, w, () -> false);
        }
        return f;
    }

    private static double luminance(Film f, int x, int y) {
        float[] c = new float[3];
        f.mean(x, y, null, c);
        return 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
    }

    /** Mean of each block over several pictures, and the variance of that mean between them: pixels of a block depend on each other. */
    private static double[][] blocks(RenderScene s, PathSettings p, int pictures, int passes) {
        int n = W / BLOCK * (H / BLOCK);
        double[][] out = new double[n + 1][2];
        for (int k = 0; k < pictures; k++) {
            Film f = render(s, p.withSeed(p.seed() + k), passes, Region.all(W, H), 2);
            double[] mean = new double[n + 1];
            for (int y = 0; y < H; y++)
                for (int x = 0; x < W; x++) {
                    mean[y / BLOCK * (W / BLOCK) + x / BLOCK] += luminance(f, x, y) / (BLOCK * BLOCK);
                    mean[n] += luminance(f, x, y) / (W * H);
                }
            for (int b = 0; b <= n; b++) {
                out[b][0] += mean[b] / pictures;
                out[b][1] += mean[b] * mean[b] / pictures;
            }
        }
        for (double[] o : out) o[1] = Math.max(0, o[1] - o[0] * o[0]) / (pictures - 1);
        return out;
    }

    @Test
    @Tag("thorough")
    void leavesTheMeanInEveryBlock() {
        RenderScene s = room();
        int pictures = 16;
        double[][] with = blocks(s, PLAIN.withExchange(true).withSeed(9700), pictures, 32),
                without = blocks(s, PLAIN.withSeed(700), pictures, 32);
        double z2 = 0;
        int n = with.length - 1;
        for (int b = 0; b < n; b++) {
            double z = (with[b][0] - without[b][0]) / Math.sqrt(with[b][1] + without[b][1]);
            assertTrue(Math.abs(z) < 5, "block " + b + " is off by " + z + " standard errors"); // of 30 degrees of freedom
            z2 += z * z;
        }
        // Mean of t^2 with 30 degrees of freedom is 1.07, its variance 2.6.
        assertTrue(z2 / n < 1.07 + 3.5 * Math.sqrt(2.6 / n), "mean square of the differences in standard errors: " + z2 / n);
        assertEquals(without[n][0], with[n][0], 3 * Math.sqrt(with[n][1] + without[n][1]), "the whole picture");
        assertTrue(Math.sqrt(with[n][1] + without[n][1]) < 0.015 * with[n][0],
                "and the test is sharp enough to tell, with an error of " + Math.sqrt(with[n][1]) / with[n][0] + " and "
                + Math.sqrt(without[n][1]) / without[n][0]);
    }

    @Test
    void takesNoiseAway() {
        RenderScene s = room();
        double[] median = new double[2];
        for (int k = 0; k < 2; k++) {
            Film f = render(s, PLAIN.withExchange(k == 1), 48, Region.all(W, H), 2);
            double[] v = new double[W * H];
            for (int i = 0; i < v.length; i++) v[i] = f.variance(i % W, i / W);
            java.util.Arrays.sort(v);
            median[k] = v[v.length / 2];
        }
        // Few rare paths by way of the metal and the solid make up most of the mean variance, and hide what happens elsewhere.
        assertTrue(median[0] > 1.5 * median[1], "the median variance is " + median[0] / median[1] + " times lower");
    }

    /** Neither threads nor the edges of a region, wherever they cut the groups, change a bit. */
    @Test
    void threadsAndRegionsDoNotMatter() {
        RenderScene s = room();
        PathSettings p = PLAIN.withExchange(true);
        Film whole = render(s, p, 3, Region.all(W, H), 1);
        Region part = new Region(5, 3, 22, 17);
        Film piece = render(s, p, 3, part, 3);
        float[] a = new float[3], b = new float[3], fa = new float[7], fb = new float[7];
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                if (!part.contains(x, y)) {
                    assertEquals(0, piece.samples(x, y));
                    continue;
                }
                whole.mean(x, y, null, a);
                piece.mean(x, y, null, b);
                assertArrayEquals(a, b);
                whole.features(x, y, fa);
                piece.features(x, y, fb);
                assertArrayEquals(fa, fb);
            }
    }

    /** What the clamp takes away is counted for the pixels that are kept, not for those that only help: halves add up to the whole. */
    @Test
    void clampIsCountedForTheRegionOnly() {
        RenderScene s = room();
        PathSettings p = new PathSettings(6, PathSettings.Kinds.ALL, 0.05, 1, true, PixelFilter.TENT);
        double[] sums = new double[3];
        Region[] parts = {Region.all(W, H), new Region(0, 0, 21, H), new Region(21, 0, W - 21, H)};
        try (Workers w = new Workers(2)) {
            for (int k = 0; k < 3; k++) {
                Renderer r = new Renderer(s, CAMERA, p, Film.merged(W, H, s.lights().groups().size()), parts[k], w);
                for (int pass = 0; pass < 3; pass++) r.pass(pass, w, () -> false);
                sums[k] = r.clampedSum();
            }
        }
        assertTrue(sums[0] > 0);
        assertEquals(sums[0], sums[1] + sums[2], 1e-6 * sums[0]);
    }

    /** A picture of one pixel has nobody to exchange with, and is what it is without. */
    @Test
    void onePixelIsAlone() {
        RenderScene s = room();
        double[] l = new double[2];
        try (Workers w = new Workers(1)) {
            for (int k = 0; k < 2; k++) {
                Film f = Film.merged(1, 1, s.lights().groups().size());
                Renderer r = new Renderer(s, CAMERA, PLAIN.withExchange(k == 0), f, Region.all(1, 1), w);
                for (int pass = 0; pass < 4096; pass++) assertTrue(r.pass(pass, w, () -> false));
                assertEquals(4096, f.samples(0, 0));
                l[k] = luminance(f, 0, 0);
                assertTrue(Math.sqrt(f.variance(0, 0)) < 0.1 * l[k]);
            }
        }
        assertEquals(l[1], l[0], 0.2 * l[1]);
    }

    /** Where a limit for one kind of bounce may end paths, nobody uses those of others. */
    @Test
    void limitsByKindKeepPathsApart() {
        assertTrue(PLAIN.withExchange(true).exchanges(true));
        var few = new PathSettings(6, new PathSettings.Kinds(2, 1000, 1000), 0, 1, true, PixelFilter.TENT);
        assertTrue(!few.exchanges(true));
        assertTrue(new PathSettings(6, new PathSettings.Kinds(6, 6, 6), 0, 1, true, PixelFilter.TENT).exchanges(true));
    }
}
