package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.guide.Guides;
import bake.core.guide.LightGuide;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.meters.GuideMap;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Guides that one picture has learnt and another begins with. */
class KeptGuidesTest {
    private static final int W = 60, H = 40;

    /** A room with a small bare hole in one wall, under an overcast sky: nothing tells where the light comes from but what is learnt. */
    private static TestScene room() {
        TestScene s = new TestScene().around(new Surroundings.General(1, new Vec3(0, -0.6, 0.8), 3, 0, 0, 0.5, 0.2));
        int m = s.material(Material.diffuse("wall", grey(0.6)));
        s.add(Shapes.box("floor", -3, -3, -0.2, 3, 3, 0, m)).add(Shapes.box("roof", -3, -3, 2.6, 3, 3, 2.8, m))
                .add(Shapes.box("w", -3.2, -3, -0.2, -3, 3, 2.8, m)).add(Shapes.box("n", -3, 3, -0.2, 3, 3.2, 2.8, m))
                .add(Shapes.box("s", -3, -3.2, -0.2, 3, -3, 2.8, m));
        return s.add(Shapes.box("e1", 3, -3, -0.2, 3.2, 0.5, 2.8, m)).add(Shapes.box("e2", 3, 1.1, -0.2, 3.2, 3, 2.8, m))
                .add(Shapes.box("e3", 3, 0.5, -0.2, 3.2, 1.1, 1, m)).add(Shapes.box("e4", 3, 0.5, 1.6, 3.2, 1.1, 2.8, m));
    }

    /** With the hole behind it. */
    private static Camera camera() {
        return Camera.of(new Vec3(2.7, 2.2, 1.5), new Vec3(-2, -1.5, 0.6), 18).withEv(4);
    }

    private static Renderer render(RenderScene s, Guides g, long seed, int passes, int threads) {
        return render(s, 1, g, seed, passes, threads);
    }

    /** Larger pictures learn more. */
    private static Renderer render(RenderScene s, int scale, Guides g, long seed, int passes, int threads) {
        Camera c = camera();
        Region all = Region.all(scale * W, scale * H);
        Film film = Film.merged(scale * W, scale * H, s.lights().groups().size());
        try (Workers w = new Workers(threads)) {
            Renderer r = new Renderer(s, c, new PathSettings(3, 0, seed).withExchange(false), film, all, w);
            if (g != null) assertTrue(r.begin(g));
            for (int p = 0; p < passes; p++) assertTrue(r.pass(p, w, () -> false));
            return r;
        }
    }

    private static RenderScene scene;
    private static Guides learnt;

    @BeforeAll
    static void learn() {
        scene = room().compile();
        learnt = render(scene, 4, null, 5, 9, 2).guides();
    }

    private static float[] pixels(Film f) {
        float[] out = new float[3 * W * H], c = new float[3];
        for (int i = 0; i < W * H; i++) {
            f.mean(i % W, i / W, null, c);
            System.arraycopy(c, 0, out, 3 * i, 3);
        }
        return out;
    }

    private static double sum(float[] a) {
        double s = 0;
        for (float v : a) s += v;
        return s;
    }

    /** A first pass that begins with a guide is less noisy than one that knows nothing yet, and means the same light. */
    @Test
    void firstPassesGain() {
        RenderScene s = scene;
        assertTrue(learnt.places() > 10);
        double[] variance = new double[2], mean = new double[2];
        for (int k = 0; k < 2; k++)
            for (int i = 0; i < 6; i++) {
                float[] a = pixels(render(s, k == 0 ? null : learnt, 100 + 2 * i, 1, 2).film()),
                        b = pixels(render(s, k == 0 ? null : learnt, 101 + 2 * i, 1, 2).film());
                for (int p = 0; p < a.length; p++) variance[k] += (a[p] - b[p]) * (double) (a[p] - b[p]);
                mean[k] += (sum(a) + sum(b)) / 12;
            }
        double error = Math.sqrt((variance[0] + variance[1]) / 24);
        assertEquals(mean[0], mean[1], 4 * error, "the same light");
        assertTrue(variance[1] < 0.7 * variance[0], "variance of the first pass is " + variance[0] / variance[1] + " times lower");
    }

    /** The same bits for any number of threads, and guides that come out as they went in. */
    @Test
    void keptAndTheSame() {
        RenderScene s = scene;
        Guides g = learnt;
        Guides again = new Guides(LightGuide.of(g.sky().data()), null, g.rounds(), g.brought(), g.bounced());
        assertArrayEquals(pixels(render(s, g, 9, 3, 1).film()), pixels(render(s, again, 9, 3, 3).film()));
        assertFalse(java.util.Arrays.equals(pixels(render(s, null, 9, 3, 2).film()), pixels(render(s, g, 9, 3, 2).film())), "it is in use");
        assertNull(render(new TestScene().around(0).compile(), null, 1, 1, 1).guides(), "nothing to learn without light");
    }

    /** Many lamps have a guide of their own that is kept with the other. */
    @Test
    @Tag("thorough")
    void lampsToo() {
        TestScene t = room();
        for (int i = 0; i < 120; i++) t.lamp(new Lamp("l" + i, "Lamps", Lamp.Kind.SPHERE,
                Affine.translation(-2.5 + i % 12 * 0.45, -2.5 + i / 12 * 0.5, 2.3), 0.05, 0.05, 50, grey(1), 0, 60, true, false));
        RenderScene s = t.compile();
        Guides g = render(s, null, 5, 3, 2).guides();
        assertTrue(g.lamps() != null && g.lamps().places() > 0);
        render(s, g, 6, 2, 2);
        // What was learnt of other light is not taken.
        RenderScene other = room().compile();
        Film film = Film.merged(W, H, other.lights().groups().size());
        try (Workers w = new Workers(1)) {
            assertFalse(new Renderer(other, Camera.of(Vec3.ZERO, new Vec3(1, 0, 0), 30), new PathSettings(3, 0, 1), film, Region.all(W, H),
                    w).begin(g));
        }
    }

    /** Arrays that no guide could have are refused, whatever is wrong with them. */
    @Test
    void damagedArrays() {
        LightGuide.Data d = learnt.sky().data();
        LightGuide.of(d);
        assertTrue(d.cuts().length > 2);
        LightGuide.Data[] broken = {
            new LightGuide.Data(0, d.nodes(), d.cuts(), d.roots(), d.weights(), d.learnt()),
                    new LightGuide.Data(d.targets() + 1, d.nodes(), d.cuts(), d.roots(), d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), changed(d.nodes(), 1, 0), d.cuts(), d.roots(), d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), changed(d.nodes(), 0, 3), d.cuts(), d.roots(), d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), changed(d.nodes(), 2, Integer.MAX_VALUE), d.cuts(), d.roots(), d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), changed(d.nodes(), 2, Integer.MIN_VALUE), d.cuts(), d.roots(), d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), d.nodes(), d.cuts(), changed(d.roots(), 3, ~d.learnt().length), d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), d.nodes(), d.cuts(), new int[5], d.weights(), d.learnt()),
            new LightGuide.Data(d.targets(), d.nodes(), d.cuts(), d.roots(), d.weights(),
                    changed(d.learnt(), 0, d.weights().length / d.targets())),
            new LightGuide.Data(d.targets(), d.nodes(), d.cuts(), d.roots(), d.weights(), changed(d.learnt(), 0, -2)),
            new LightGuide.Data(d.targets(), d.nodes(), d.cuts(), d.roots(), with(d.weights(), Float.NaN), d.learnt()),
            new LightGuide.Data(d.targets(), d.nodes(), d.cuts(), d.roots(), with(d.weights(), -1), d.learnt()),
            new LightGuide.Data(d.targets(), d.nodes(), with(d.cuts(), Float.POSITIVE_INFINITY), d.roots(), d.weights(), d.learnt())};
        for (int i = 0; i < broken.length; i++) {
            LightGuide.Data b = broken[i];
            assertThrows(IllegalArgumentException.class, () -> LightGuide.of(b), "damage " + i);
        }
    }

    private static int[] changed(int[] a, int at, int to) {
        int[] out = a.clone();
        out[at] = to;
        return out;
    }

    private static float[] with(float[] a, float v) {
        float[] out = a.clone();
        out[0] = v;
        return out;
    }

    /** The map of a guide: surfaces lit by the hole are coloured, what was never looked from is grey. */
    @Test
    void map() {
        RenderScene s = scene;
        Guides g = learnt;
        Camera c = camera();
        float[][] seen = new float[2][3];
        for (int k = 0; k < 2; k++) {
            Film film = Film.merged(W, H, s.lights().groups().size());
            try (Workers w = new Workers(2)) {
                assertTrue(new GuideMap(s, k == 0 ? g.sky() : LightGuide.nothing(1), true, c, film, w).pass(0, w, () -> false));
            }
            film.mean(W / 2, H - 4, null, seen[k]);
        }
        assertTrue(Math.max(seen[0][0], Math.max(seen[0][1], seen[0][2])) > 1.15 * Math.min(seen[0][0], Math.min(seen[0][1], seen[0][2])),
                "coloured");
        assertEquals(seen[1][0], seen[1][2], 1e-3 * seen[1][0], "grey");
        assertTrue(seen[1][0] > 0);
    }
}
