package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Outlook;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Small scenes that paths once got wrong, each with what it must be. */
class PathDefectsTest {
    /** Integrating spheres of paint so white that light goes on for a hundred bounces: E = Phi rho / (A (1 - rho)). */
    @Tag("thorough")
    @ParameterizedTest
    @ValueSource(doubles = {0.95, 0.98})
    void lightGoesOnInWhiteSpheres(double rho) {
        TestScene s = new TestScene();
        int m = s.material(Material.diffuse("paint", grey(rho)));
        Mesh round = Shapes.sphere("shell", 1, 96, m);
        // Flat facets: bent vertex normals lose a little light at every bounce, and here there are a hundred.
        Mesh shell = new Mesh("shell", round.positions(), null, null, round.indices(), m);
        s.add(shell).lamp(new Lamp("lamp", "l", Lamp.Kind.POINT, Affine.IDENTITY, 0, 0, 1000, grey(1), 0, 60, true, false));
        double inscribed = 0.9993, direct = 1000 / (4 * Math.PI * inscribed * inscribed), area = 0;
        for (int t = 0; t < shell.triangles(); t++) area += area(shell.positions(), shell.indices(), t);
        double expected = direct + 1000 * rho / (area * (1 - rho));
        LightMeter.Reading r = new LightMeter(s.compile(), LightMeter.ALL).measure(new Vec3(0, 0, -inscribed), Vec3.UP, 1 << 14, 7, 0);
        assertTrue(r.error() < 0.009 * expected, "standard error " + r.error());
        assertEquals(expected, r.lux(), 3.5 * r.error() + 0.002 * expected);
    }

    private static double area(float[] p, int[] idx, int t) {
        Vec3[] v = new Vec3[3];
        for (int k = 0; k < 3; k++) v[k] = new Vec3(p[3 * idx[3 * t + k]], p[3 * idx[3 * t + k] + 1], p[3 * idx[3 * t + k] + 2]);
        return v[1].minus(v[0]).cross(v[2].minus(v[0])).length() / 2;
    }

    private static double look(TestScene s, Vec3 from, Vec3 to, int n) {
        PathTracer t = new PathTracer(s.compile(), 64, 0);
        PathSampler random = new PathSampler();
        Vec3 d = to.minus(from).normalized();
        float[] out = new float[t.channels()];
        for (int i = 0; i < n; i++) {
            random.start(3, 4, i, 9);
            t.radiance((float) from.x(), (float) from.y(), (float) from.z(), (float) d.x(), (float) d.y(), (float) d.z(), random, out);
        }
        double sum = 0;
        for (int c = 1; c < out.length; c += 3) sum += out[c] / n;
        return sum;
    }

    /**
     * What stands in a clear solid is seen through the solid: Beer's law down to it, though the way does not end on the solid's own back.
     */
    @Test
    void absorptionInFrontOfWhatASolidHolds() {
        double[] seen = new double[2];
        for (int k = 0; k < 2; k++) {
            TestScene s = new TestScene();
            Material solid = Material.glass("solid", grey(1), 0, 1, false);
            int water = s.material(k == 0 ? solid : solid.withLayers(Layers.NONE.withAttenuation(grey(0.5), 0.1))),
                    stone = s.material(Material.glowing("stone", grey(10)));
            s.add(Shapes.box("water", -1, -1, 0, 1, 1, 1, water)).add(Shapes.box("stone", -0.5, -0.5, 0.2, 0.5, 0.5, 0.8, stone));
            seen[k] = look(s, new Vec3(0, 0, 3), Vec3.ZERO, 64);
        }
        assertEquals(10, seen[0], 0.01);
        assertEquals(10 * Math.pow(0.5, 0.2 / 0.1), seen[1], 0.01);
    }

    /** Rough gloss below a dark sky shows all of what other surroundings mirrors are given. */
    @Test
    void otherMirroredSurroundingsUnderADarkSky() {
        double[] seen = new double[2];
        for (int k = 0; k < 2; k++) {
            double light = k == 0 ? 0 : 1e-3;
            TestScene s = new TestScene().around(light);
            s.add(Shapes.quad("floor", 20, 20, s.material(Material.metal("metal", grey(0.9), 0.5))));
            Outlook o = new Outlook(null, new Outlook.Far(new Surroundings.Plain(grey(100))), false);
            RenderScene r = RenderScene.compile(s.scene().withOutlook(o), java.util.concurrent.ForkJoinPool.commonPool());
            Film f = Film.merged(24, 16, r.lights().groups().size());
            try (Workers w = new Workers(2)) {
                Renderer render = new Renderer(r, Camera.of(new Vec3(0, -3, 2), new Vec3(0, 0, 0), 30).withEv(8), new PathSettings(4, 0, 1),
                        f, Region.all(24, 16), w);
                for (int p = 0; p < 32; p++) render.pass(p, w, () -> false);
            }
            seen[k] = f.planeLuminance()[0];
        }
        assertEquals(seen[1], seen[0], 0.01 * seen[1]);
        assertTrue(seen[0] > 80);
    }

    /** A pane tinted at its vertices dims shadow rays as it dims paths. */
    @Test
    void paneTintedAtItsVertices() {
        double[] lux = new double[2];
        for (int k = 0; k < 2; k++) {
            TestScene s = new TestScene().lamp(new Lamp("p", "g", Lamp.Kind.POINT, Affine.translation(0.2, 0.1, 3), 0, 0, 1000, grey(1), 0,
                    60, true, false));
            int glass = s.material(Material.glass("pane", grey(k == 0 ? 0.5 : 1), 0, 1.5, true));
            Mesh q = Shapes.quad("pane", 40, 40, glass);
            float[] tint = new float[q.positions().length];
            java.util.Arrays.fill(tint, 0.5f);
            s.add(k == 0 ? q : new Mesh("pane", q.positions(), q.normals(), q.uvs(), tint, q.indices(), q.material()),
                    Affine.translation(0, 0, 1));
            lux[k] = s.measure(Vec3.ZERO, Vec3.UP, 64).lux();
        }
        assertEquals(lux[0], lux[1], 1e-3 * lux[0]);
    }

    /** Every pixel gets one sample a pass, whatever the seed. */
    @Test
    void everyPixelOncePerPass() {
        RenderScene s = new TestScene().around(10).compile();
        try (Workers w = new Workers(2)) {
            for (int seed = 1; seed <= 40; seed++) {
                Film f = Film.merged(37, 29, s.lights().groups().size());
                new Renderer(s, Camera.of(Vec3.ZERO, new Vec3(0, 1, 0), 30), new PathSettings(1, 0, seed, false, PixelFilter.TENT), f,
                        Region.all(37, 29), w).pass(seed, w, () -> false);
                for (int i = 0; i < 37 * 29; i++) assertEquals(1, f.samples(i % 37, i / 37), "pixel " + i + " of seed " + seed);
            }
        }
    }
}
