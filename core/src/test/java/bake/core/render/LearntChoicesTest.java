package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.learn.BouncedShare;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.LightSamples;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What training decides besides where to look: how often, and whether bounces are exchanged. */
class LearntChoicesTest {
    /** Straight light that hardly varies, but from place to place, beside bounced light that comes rarely, and the other way round. */
    @Test
    void exchangePaysWhereBouncedLightIsNoisy() {
        assertTrue(new BouncedShare().pays(), "as long as nothing is known");
        for (boolean noisy : new boolean[] {true, false}) {
            BouncedShare s = new BouncedShare();
            SplittableRandom r = new SplittableRandom(4);
            for (int i = 0; i < 40_000; i++) {
                double x = r.nextDouble(), y = r.nextDouble(), there = 5 * x;
                double rare0 = r.nextInt(50) == 0 ? 10 : 0, rare1 = r.nextInt(50) == 0 ? 10 : 0, steady0 = there + r.nextDouble(0.2),
                        steady1 = there + r.nextDouble(0.2);
                if (noisy) s.add(x, y, steady0, steady1, rare0, rare1);
                else s.add(x, y, rare0, rare1, steady0, steady1);
            }
            assertEquals(noisy, s.pays());
            assertEquals(noisy, new BouncedShare(s).pays(), "a copy knows as much");
        }
        BouncedShare s = new BouncedShare();
        for (int i = 0; i < 1000; i++) s.add(0.5, 0.5, Double.NaN, Double.NaN, i % 2 == 0 ? Double.POSITIVE_INFINITY : 1, 1);
        assertTrue(s.pays(), "what is no number counts as nothing, what is endless as very bright");
    }

    /** The same paths in any order and from any thread give the same sums, to the bit. */
    @Test
    void orderDoesNotMatter() {
        SplittableRandom r = new SplittableRandom(8);
        double[][] paths = new double[20_000][];
        for (int i = 0; i < paths.length; i++)
            paths[i] = new double[] {r.nextDouble(), r.nextDouble(), r.nextDouble(), r.nextDouble(), r.nextDouble() * r.nextInt(3),
                    r.nextDouble()};
        BouncedShare one = new BouncedShare(), two = new BouncedShare();
        for (double[] p : paths) one.add(p[0], p[1], p[2], p[3], p[4], p[5]);
        IntStream.range(0, paths.length).parallel().forEach(i -> {
            double[] p = paths[paths.length - 1 - i];
            two.add(p[0], p[1], p[2], p[3], p[4], p[5]);
        });
        assertEquals(one.ratio(), two.ratio());
    }

    @Test
    void looksFollowTheShares() {
        assertEquals(new LightSamples(3, 1, 1, 0.25f), LightSamples.of(0.9, 0.0001));
        assertEquals(new LightSamples(1, 3, 0.25f, 1), LightSamples.of(0.0001, 0.99));
        assertEquals(new LightSamples(3, 3, 1, 1), LightSamples.of(0.5, 0.4));
        assertEquals(new LightSamples(1, 1, 1, 1), LightSamples.of(0.05, 0.05), "where the sun does most");
    }

    /** Looking seldom for a faint lamp, and often for the sky, leaves the light of each group as it is. */
    @Test
    @Tag("thorough")
    void howOftenOneLooksLeavesTheMean() {
        TestScene s = new TestScene().around(new Surroundings.Plain(grey(3000)));
        int wall = s.material(Material.diffuse("wall", grey(0.7))), glass = s.material(Material.glass("pane", grey(1), 0, 1.5, true));
        s.add(Shapes.quad("floor", 4, 4, wall)).add(Shapes.quad("ceiling", 4, 4, wall), Affine.translation(0, 0, 3));
        s.add(Shapes.quad("back", 4, 3, wall), Affine.pointing(new Vec3(0, 2, 1.5), new Vec3(0, -1, 0)))
                .add(Shapes.quad("front", 4, 3, wall), Affine.pointing(new Vec3(0, -2, 1.5), new Vec3(0, 1, 0)));
        s.add(Shapes.quad("right", 4, 3, wall), Affine.pointing(new Vec3(2, 0, 1.5), new Vec3(-1, 0, 0)))
                .add(Shapes.quad("pane", 4, 3, glass), Affine.pointing(new Vec3(-2, 0, 1.5), new Vec3(1, 0, 0)));
        s.lamp(new Lamp("l", "Lamps", Lamp.Kind.SPHERE, Affine.translation(1, 1, 2.2), 0.15, 0, 1, grey(1), 0, 60, true, false));
        RenderScene scene = s.compile();
        int groups = scene.lights().groups().size();
        double[][] mean = new double[2][groups], square = new double[2][groups];
        int pictures = 10;
        for (int learnt = 0; learnt < 2; learnt++)
            for (int k = 0; k < pictures; k++) {
                Film f = Film.byGroup(24, 16, groups);
                try (Workers w = new Workers(2)) {
                    Renderer r = new Renderer(scene, Camera.of(new Vec3(0.5, -1.8, 1.5), new Vec3(0, 2, 1.2), 24).withEv(9),
                            new PathSettings(5, 0, 100 + k, learnt == 1, new PixelFilter(PixelFilter.Shape.BOX, 0.5)), f,
                            Region.all(24, 16), w);
                    for (int p = 0; p < 48; p++) r.pass(p, w, () -> false);
                }
                double[] l = f.planeLuminance();
                for (int g = 0; g < groups; g++) {
                    mean[learnt][g] += l[g] / pictures;
                    square[learnt][g] += l[g] * l[g] / pictures;
                }
            }
        int lamp = scene.lights().groups().indexOf("Lamps");
        assertTrue(mean[0][lamp] > 0 && mean[0][lamp] < 0.002 * mean[0][1], "the lamp is faint: " + mean[0][lamp] + " of " + mean[0][1]);
        for (int g : new int[] {1, lamp}) {
            double error = 0;
            for (int k = 0; k < 2; k++) error += Math.max(0, square[k][g] - mean[k][g] * mean[k][g]) / (pictures - 1);
            error = Math.sqrt(error);
            assertEquals(mean[0][g], mean[1][g], 4 * error, "group " + g);
            assertTrue(error < 0.05 * mean[0][g], "sharp enough to tell: " + error / mean[0][g]);
        }
        assertFalse(mean[1][lamp] == mean[0][lamp], "they did look differently");
    }
}
