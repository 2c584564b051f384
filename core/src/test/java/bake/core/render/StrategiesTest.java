package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.surface.Fresnel;
import bake.core.work.Workers;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whatever way a picture is made, it goes to one value; and layers, panes and lenses against closed forms. */
@Tag("thorough")
class StrategiesTest {
    private static TestScene room() {
        TestScene s = new TestScene().around(new Surroundings.SunSky(new Vec3(-0.8, -0.2, 0.6).normalized(), 3, 0, 0, 0.533, 0.2));
        int wall = s.material(Material.diffuse("wall", grey(0.6))), gloss =
                s.material(Material.glossy("floor", new Vec3(0.4, 0.3, 0.2), 0.25)),
                glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        s.add(Shapes.quad("floor", 4, 4, gloss)).add(Shapes.quad("ceiling", 4, 4, wall), Affine.translation(0, 0, 3));
        s.add(Shapes.quad("back", 4, 3, wall), Affine.pointing(new Vec3(0, 2, 1.5), new Vec3(0, -1, 0)))
                .add(Shapes.quad("front", 4, 3, wall), Affine.pointing(new Vec3(0, -2, 1.5), new Vec3(0, 1, 0)));
        s.add(Shapes.quad("right", 4, 3, wall), Affine.pointing(new Vec3(2, 0, 1.5), new Vec3(-1, 0, 0)));
        s.add(Shapes.box("sill", -2.1, -2, 0, -2, 2, 1, wall)).add(Shapes.box("lintel", -2.1, -2, 2.2, -2, 2, 3, wall));
        s.add(Shapes.quad("pane", 1.2, 4, glass), Affine.pointing(new Vec3(-2, 0, 1.6), new Vec3(1, 0, 0)));
        return s.lamp(new Lamp("l", "Lamps", Lamp.Kind.SPHERE, Affine.translation(1, 1, 2), 0.3, 0, 60_000, grey(1), 0, 60, true, false));
    }

    private static double[] mean(RenderScene s, PathSettings p, int threads, Region part, int passes) {
        int w = 24, h = 18, batches = 8;
        double sum = 0, square = 0;
        try (Workers workers = new Workers(threads)) {
            for (int b = 0; b < batches; b++) {
                Film f = Film.merged(w, h, s.lights().groups().size());
                Renderer r = new Renderer(s, Camera.of(new Vec3(0, -1.9, 1.5), new Vec3(0, 1, 1.2), 18).withEv(10),
                        p.withSeed(p.seed() + b), f, part == null ? Region.all(w, h) : part, workers);
                for (int k = 0; k < passes; k++) r.pass(k, workers, () -> false);
                double l = f.planeLuminance()[0];
                sum += l / batches;
                square += l * l / batches;
            }
        }
        return new double[] {sum, Math.sqrt(Math.max(0, square - sum * sum) / (batches - 1))};
    }

    /** Learnt or not, any filter, thread count and number of passes: one mean, within three and a half standard errors. */
    @Test
    void allWaysGoToOneMean() {
        RenderScene s = room().compile();
        List<double[]> means = new ArrayList<>();
        List<String> names = new ArrayList<>();
        for (PixelFilter.Shape f : PixelFilter.Shape.values()) {
            means.add(mean(s, new PathSettings(64, 0, 100 * f.ordinal() + 1, f != PixelFilter.Shape.BOX, new PixelFilter(f, f.radius)),
                    1 + f.ordinal() % 3, null, 40));
            names.add(f + "");
        }
        means.add(mean(s, new PathSettings(64, 0, 7777), 2, null, 120));
        names.add("more passes");
        double best = means.getLast()[0];
        for (int i = 0; i < means.size(); i++) {
            double[] m = means.get(i);
            double error = Math.hypot(m[1], means.getLast()[1]);
            assertTrue(error < 0.02 * best, names.get(i) + " has an error of " + error);
            // Filters reach over the picture's rim; the few pixels there make up to a hundredth.
            assertEquals(best, m[0], 3.5 * error + 0.01 * best, names.get(i));
        }
    }

    /** No diffuse bounce is direct light alone; without mirrored ones a mirror shows what glows and nothing else. */
    @Test
    void limitsByKind() {
        RenderScene s = room().compile();
        PixelFilter box = new PixelFilter(PixelFilter.Shape.BOX, 0.5);
        double[] direct = mean(s, new PathSettings(0, PathSettings.Kinds.ALL, 0, 1, true, box), 2, null, 40);
        double[] none = mean(s, new PathSettings(64, new PathSettings.Kinds(0, 0, 0), 0, 50, true, box), 2, null, 40);
        assertTrue(none[0] >= direct[0] - 3 * Math.hypot(none[1], direct[1]));
        double[] matt = mean(s, new PathSettings(64, new PathSettings.Kinds(1000, 0, 0), 0, 50, true, box), 2, null, 40),
                all = mean(s, new PathSettings(64, 0, 90, true, box), 2, null, 40);
        assertTrue(none[0] < 0.8 * all[0] && matt[0] > none[0] && matt[0] <= all[0] + 3 * Math.hypot(matt[1], all[1]),
                none[0] + " " + matt[0] + " " + all[0]);
    }

    /** Two mirrors face to face under a plain sky: the number of mirrored bounces is the number of pictures in the picture. */
    @Test
    void mirrorsRunOut() {
        TestScene s = new TestScene().around(100);
        int mirror = s.material(Material.metal("mirror", grey(1), 0));
        s.add(Shapes.quad("m", 2, 2, mirror), Affine.translation(0, 0, 0));
        float[] out = new float[12];
        for (int most : new int[] {0, 1}) {
            PathTracer t = new PathTracer(s.compile(), 64, new PathSettings.Kinds(1000, most, 1000), 0);
            double sum = 0;
            PathSampler r = new PathSampler();
            for (int i = 0; i < 256; i++) {
                java.util.Arrays.fill(out, 0);
                r.start(1, 1, i, 4);
                t.radiance(0, 0, 3, 0, 0, -1, r, out);
                sum += out[3 * 1 + 1] / 256;
            }
            assertEquals(100, sum, 1, "the last bounce still meets the light itself");
        }
    }

    /**
     * Light through two panes, one behind the other: with T and R of one, T2 = T^2 / (1 - R^2) (geometric series of the
     * reflections between them; each pane as in Born and Wolf), here at five angles for unpolarised light, which this renderer
     * assumes anew at each pane.
     */
    @ParameterizedTest
    @CsvSource({"0", "30", "45", "60", "75"})
    void doublePane(double degrees) {
        TestScene s = new TestScene();
        double a = Math.toRadians(degrees);
        Vec3 d = new Vec3(Math.sin(a), 0, Math.cos(a));
        // A small glowing patch far away: what is seen of it is what passes.
        int glow = s.material(Material.glowing("glow", grey(1000))), glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        s.add(Shapes.quad("glow", 20, 20, glow), Affine.pointing(d.times(100), d.times(-1)));
        s.add(Shapes.quad("a", 200, 200, glass), Affine.translation(0, 0, 1))
                .add(Shapes.quad("b", 200, 200, glass), Affine.translation(0, 0, 1.02));
        PathTracer t = new PathTracer(s.compile(), 0, 0);
        PathSampler r = new PathSampler();
        float[] out = new float[t.channels()];
        double sum = 0;
        int n = 1 << 15;
        for (int i = 0; i < n; i++) {
            java.util.Arrays.fill(out, 0);
            r.start(2, 1, i, 4);
            t.radiance(0, 0, 0, (float) d.x(), 0, (float) d.z(), r, out);
            sum += out[out.length - 2] / 1000.0 / n;
        }
        double one = Fresnel.paneTransmittance((float) Math.cos(a), 1.52f), back = 1 - one;
        assertEquals(one * one / (1 - back * back), sum, 0.006);
    }

    /** A solid of tinted glass: Beer's law on the straight way through, between two boundaries at right angles. */
    @Test
    void tintedSolid() {
        TestScene s = new TestScene().around(500);
        int glass = s.material(Material.glass("g", grey(1), 0, 1.5, false)
                .withLayers(Layers.NONE.withAttenuation(new Vec3(0.5, 0.25, 1), 0.1)));
        s.add(Shapes.box("block", -5, -5, 0, 5, 5, 0.2, glass));
        PathTracer t = new PathTracer(s.compile(), 64, 0);
        PathSampler r = new PathSampler();
        float[] out = new float[t.channels()];
        double[] sum = new double[3];
        int n = 1 << 14;
        for (int i = 0; i < n; i++) {
            java.util.Arrays.fill(out, 0);
            r.start(2, 1, i, 4);
            t.radiance(0, 0, 2, 0, 0, -1, r, out);
            for (int c = 0; c < 3; c++) sum[c] += out[3 + c] / 500.0 / n;
        }
        double f = 0.04;
        double[] once = {0.25, 0.0625, 1};
        for (int c = 0; c < 3; c++) {
            double a = once[c], through = (1 - f) * (1 - f) * a / (1 - f * f * a * a),
                    mirrored = f + f * a * a * (1 - f) * (1 - f) / (1 - f * f * a * a);
            assertEquals(through + mirrored, sum[c], 0.006);
        }
    }

    /** Field of view from focal length and sensor: the picture's edge lies at half the sensor over the focal length. */
    @Test
    void fieldOfView() {
        for (double focal : new double[] {18, 35, 85}) {
            float[] out = new float[6];
            new Lens(Camera.of(Vec3.ZERO, new Vec3(0, 1, 0), focal), 300, 200).ray(1, 0.5f, 0, 0, out);
            assertEquals(Math.atan(Camera.SENSOR_WIDTH / 2 / focal), Math.atan2(out[3], out[4]), 1e-6);
        }
    }

    /**
     * Circle of confusion: a point at distance d, with the lens focused at s, spreads over c = A |d - s| / d * f / (s - f) of the
     * thin lens, A being the aperture; in object space, on the plane of focus, over A |d - s| / d.
     */
    @ParameterizedTest
    @CsvSource({"2, 4", "2, 1.2", "5, 50"})
    void circleOfConfusion(double focus, double distance) {
        Camera c = new Camera(Vec3.ZERO, new Vec3(0, 1, 0), 50, 2, 0.01, 100, focus, true, true, 0, 0);
        Lens lens = new Lens(c, 300, 200);
        float[] out = new float[6];
        double most = 0;
        PathSampler r = new PathSampler();
        for (int i = 0; i < 4096; i++) {
            r.start(0, 0, i, 1);
            r.next2();
            lens.ray(0.5f, 0.5f, r.u, r.v, out);
            // Where the ray meets the plane of the point, and how far off its axis, seen back on the plane of focus.
            double k = (distance - out[1]) / out[4], x = out[0] + k * out[3], z = out[2] + k * out[5];
            most = Math.max(most, Math.hypot(x, z));
        }
        double aperture = 0.050 / 2, blur = aperture * Math.abs(distance - focus) / focus;
        assertEquals(blur / 2, most, 0.01 * blur);
    }

    /** A hard edge with a radius shows a normal half way between its faces at the edge, and the face's own beyond the radius. */
    @Test
    void edgesLookRounded() {
        TestScene s = new TestScene().around(1);
        int m = s.material(Material.diffuse("m", grey(0.5)).withRelief(bake.core.scene.Relief.NONE.withRound(0.1)));
        s.add(Shapes.box("b", -1, -1, -1, 1, 1, 1, m));
        RenderScene scene = s.compile();
        PathTracer t = new PathTracer(scene, 0, 0);
        float[] out = new float[t.channels()];
        PathSampler r = new PathSampler();
        double[] tilt = new double[3];
        float[] at = {0.9995f, 0.95f, 0.5f};
        for (int k = 0; k < 3; k++)
            for (int i = 0; i < 64; i++) {
                r.start(k, 0, i, 9);
                t.radiance(at[k], 0.1f, 5, 0, 0, -1, r, out);
                tilt[k] += Math.toDegrees(Math.atan2(t.first.values[3], t.first.values[5])) / 64;
                assertEquals(0, t.first.values[4], 0.02);
            }
        assertEquals(45, tilt[0], 3);
        assertEquals(Math.toDegrees(Math.atan2(0.5, 1.5)), tilt[1], 2);
        assertEquals(0, tilt[2], 0.01);
    }

    /** Fewer paths from a surface leave the mean as it is; a mirror of short reach sees the surroundings in place of what is far. */
    @Test
    void thrift() {
        double[] lux = new double[2];
        double[] error = new double[2];
        for (int k = 0; k < 2; k++) {
            TestScene s = new TestScene().around(100);
            int m = s.material(Material.diffuse("m", grey(0.8))
                    .withThrift(new bake.core.scene.Thrift(Double.POSITIVE_INFINITY, k == 0 ? 1 : 0.3)));
            s.add(Shapes.quad("roof", 3, 3, m), Affine.translation(0, 0, 1))
                    .add(Shapes.quad("floor", 3, 3, m), Affine.translation(0, 0, -0.01));
            var r = s.measure(Vec3.ZERO, Vec3.UP, 1 << 15);
            lux[k] = r.lux();
            error[k] = r.error();
        }
        assertTrue(error[1] > error[0], "and noise rises");
        assertEquals(lux[0], lux[1], 3.5 * Math.hypot(error[0], error[1]));
        for (double reach : new double[] {1, 10}) {
            TestScene s = new TestScene().around(100);
            int mirror = s.material(Material.metal("m", grey(1), 0).withThrift(new bake.core.scene.Thrift(reach, 1))),
                    black = s.material(Material.diffuse("b", grey(0)));
            s.add(Shapes.quad("m", 2, 2, mirror)).add(Shapes.quad("black", 40, 40, black), Affine.translation(0, 0, 5));
            PathTracer t = new PathTracer(s.compile(), 8, 0);
            float[] out = new float[t.channels()];
            PathSampler r = new PathSampler();
            r.start(0, 0, 0, 1);
            t.radiance(0, 0, 3, 0, 0, -1, r, out);
            assertEquals(reach < 5 ? 100 : 0, out[4], 0.5);
        }
    }
}
