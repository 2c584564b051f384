package bake.core.light;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Choosing among many emitters: chances are what is said of them, nothing is left out, and it is worth it. */
class LightTreeTest {
    private static final Lamp.Kind[] KINDS = {Lamp.Kind.SPHERE, Lamp.Kind.RECTANGLE, Lamp.Kind.SPOT, Lamp.Kind.DISC, Lamp.Kind.TUBE,
            Lamp.Kind.POINT};

    /** Lamps all over a hall of 20 by 10 m, facing every way. */
    private static TestScene hall(int n, long seed) {
        SplittableRandom r = new SplittableRandom(seed);
        TestScene s = new TestScene();
        for (int i = 0; i < n; i++) {
            Vec3 d = new Vec3(r.nextDouble(-1, 1), r.nextDouble(-1, 1), r.nextDouble(-1, 0.4));
            Affine at = Affine.pointing(new Vec3(r.nextDouble(-10, 10), r.nextDouble(-5, 5), r.nextDouble(0.5, 4)), d);
            s.lamp(new Lamp("l" + i, "g", KINDS[i % KINDS.length], at, 0.1, 0.3, r.nextDouble(10, 2000), grey(1), 30, 80, false,
                    i % 7 == 0));
        }
        int glow = s.material(Material.glowing("glow", grey(300)));
        return s.add(Shapes.quad("sign", 0.5, 0.3, glow), Affine.translation(3, 0, 2));
    }

    /** How often each emitter is chosen agrees with the chance that is given for it, and all chances add up to one. */
    @Test
    void chances() {
        Emitters e = hall(200, 4).compile().lights().emitters();
        LightTree tree = new LightTree(e);
        LightSample out = new LightSample();
        SplittableRandom r = new SplittableRandom(9);
        for (int place = 0; place < 20; place++) {
            float x = (float) r.nextDouble(-10, 10), y = (float) r.nextDouble(-5, 5), z = (float) r.nextDouble(0, 4);
            // Every other place with a guide, which doubts some of the parts.
            float[] weights = place % 2 == 0 ? null : new float[tree.clusters()];
            for (int k = 0; weights != null && k < weights.length; k++) weights[k] = (float) r.nextDouble(0.05, 3);
            double sum = 0;
            double[] chance = new double[e.count()];
            for (int i = 0; i < e.count(); i++) sum += chance[i] = tree.chance(i, x, y, z, out, weights, 0);
            assertTrue(sum > 0.9 && sum < 1.0001, "chances add up to " + sum);
            int[] hits = new int[e.count()];
            int n = 40_000, none = 0;
            for (int k = 0; k < n; k++) {
                int i = tree.choose(x, y, z, (k + 0.5f) / n, out, weights, 0);
                if (i < 0) none++;
                else {
                    hits[i]++;
                    if (k % 50 == 0) assertEquals(chance[i], out.chance, 1e-3 * chance[i] + 1e-7);
                }
            }
            assertEquals(1 - sum, none / (double) n, 1e-3);
            for (int i = 0; i < hits.length; i++) assertEquals(chance[i], hits[i] / (double) n, 2e-3 + 0.02 * chance[i]);
        }
    }

    /** Everything that can light a place has a chance there: the mean agrees with that of looking at all lamps one by one. */
    @Tag("thorough")
    @Test
    void leavesNothingOut() {
        TestScene all = hall(60, 5);
        LightMeter many = new LightMeter(all.compile(), 0);
        for (int k = 0; k < 6; k++) {
            Vec3 at = new Vec3(-9 + 3.3 * k, -4 + 1.5 * k, 0.2 * k), up = new Vec3(0.2 * (k - 3), 0.3, 1);
            double want = 0;
            for (Lamp l : all.scene().lamps())
                want += new LightMeter(new TestScene().lamp(l).compile(), 0).measure(at, up, 512, 3, k).lux();
            int glow = 0;
            TestScene sign = new TestScene();
            glow = sign.material(Material.glowing("glow", grey(300)));
            want += new LightMeter(sign.add(Shapes.quad("sign", 0.5, 0.3, glow), Affine.translation(3, 0, 2)).compile(), 0)
                    .measure(at, up, 4096, 3, k).lux();
            var got = many.measure(at, up, 1 << 16, 3, k);
            assertEquals(want, got.lux(), 4 * got.error() + 0.004 * want, "at " + at);
        }
    }

    /** The error of a choice by the tree against one by power alone, at as many samples. */
    @Test
    void isWorthIt() {
        Emitters e = hall(500, 6).compile().lights().emitters();
        LightTree tree = new LightTree(e);
        LightSample s = new LightSample();
        SplittableRandom r = new SplittableRandom(2);
        double total = 0;
        for (int i = 0; i < e.count(); i++) total += e.power(i);
        double byTree = 0, byPower = 0;
        for (int place = 0; place < 40; place++) {
            float x = (float) r.nextDouble(-10, 10), y = (float) r.nextDouble(-5, 5), z = (float) r.nextDouble(0, 1);
            double mean = 0, tree2 = 0, power2 = 0;
            for (int i = 0; i < e.count(); i++) {
                double w = e.weight(i, x, y, z, s), c = tree.chance(i, x, y, z, s, null, 0);
                mean += w;
                if (c > 0) tree2 += w * w / c;
                power2 += w * w / (e.power(i) / total);
            }
            byTree += tree2 / (mean * mean) - 1;
            byPower += power2 / (mean * mean) - 1;
        }
        assertTrue(byPower > 8 * byTree, "variance by power " + byPower / 40 + ", by the tree " + byTree / 40);
    }
}
