package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.ToneCurve;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.surface.Fresnel;
import bake.core.work.Workers;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PictureTest {
    private static final int W = 48, H = 32;

    private static TestScene room() {
        TestScene s = new TestScene().around(new Surroundings.SunSky(new Vec3(0.5, -0.4, 0.6).normalized(), 3, 0, 0, 0.533, 0.2));
        int floor = s.material(Material.glossy("floor", new Vec3(0.5, 0.35, 0.2), 0.3)),
                glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true)),
                ball = s.material(Material.metal("ball", new Vec3(0.9, 0.7, 0.4), 0.2)),
                solid = s.material(Material.glass("solid", grey(1), 0, 1.5, false)), wall = s.material(Material.diffuse("wall", grey(0.7)));
        s.add(Shapes.quad("floor", 10, 10, floor)).add(Shapes.sphere("ball", 0.5, 32, ball), Affine.translation(-0.7, 0, 0.5))
                .add(Shapes.sphere("drop", 0.4, 32, solid), Affine.translation(0.5, -0.5, 0.4));
        s.add(Shapes.quad("pane", 2, 2, glass), Affine.translation(1.5, 0, 1).times(Affine.rotation(new Vec3(0, 1, 0), Math.PI / 2)))
                .add(Shapes.box("wall", -3, 2, 0, 3, 2.2, 3, wall));
        return s.lamp(new Lamp("l", "Lamps", Lamp.Kind.RECTANGLE, Affine.pointing(new Vec3(0, 0, 2.5), new Vec3(0, 0, -1)), 1, 0.5, 2000,
                grey(1), 0, 60, true, false));
    }

    private static Camera camera() {
        return Camera.of(new Vec3(0, -4, 1.5), new Vec3(0, 0, 0.6), 28).withEv(12);
    }

    private static Film render(RenderScene scene, Region region, int threads, int passes) {
        Film film = Film.byGroup(W, H, scene.lights().groups().size());
        try (Workers w = new Workers(threads)) {
            Renderer r = new Renderer(scene, camera(), new PathSettings(8, 0, 42), film, region, w);
            for (int p = 0; p < passes; p++) assertTrue(r.pass(p, w, () -> false));
        }
        return film;
    }

    private static int[] shown(Film f) {
        return new Finish(camera().saturation(), bake.core.finish.Look.PLAIN).argb(f, null);
    }

    /** The same picture to the bit for any number of threads. */
    @Test
    void threadsDoNotMatter() {
        RenderScene s = room().compile();
        Film a = render(s, Region.all(W, H), 1, 5), b = render(s, Region.all(W, H), 3, 5);
        float[] x = new float[3], y = new float[3];
        for (int j = 0; j < H; j++)
            for (int i = 0; i < W; i++)
                for (int p = 0; p < a.planes(); p++) {
                    a.mean(i, j, p, x);
                    b.mean(i, j, p, y);
                    assertArrayEquals(x, y);
                }
    }

    /** A region is the same piece that the whole picture has there. */
    @Test
    void regionIsAPieceOfTheWhole() {
        RenderScene s = room().compile();
        int[] whole = shown(render(s, Region.all(W, H), 2, 4)), part = shown(render(s, new Region(10, 5, 20, 17), 2, 4));
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                boolean in = x >= 10 && x < 30 && y >= 5 && y < 22;
                assertEquals(in ? whole[y * W + x] : 0, part[y * W + x]);
            }
        assertThrows(IllegalArgumentException.class, () -> new Region(60, 0, 5, 5).within(W, H));
    }

    /** An edit of the light reuses the geometry and gives what a fresh start gives. */
    @Test
    void editedSceneEqualsFreshOne() {
        RenderScene first = room().compile();
        Surroundings around = new Surroundings.Plain(grey(500));
        RenderScene edited = RenderScene.compile(first.scene().withSurroundings(around), first, ForkJoinPool.commonPool());
        assertEquals(first.geometry(), edited.geometry());
        RenderScene fresh = RenderScene.compile(first.scene().withSurroundings(around), ForkJoinPool.commonPool());
        assertArrayEquals(shown(render(fresh, Region.all(W, H), 2, 3)), shown(render(edited, Region.all(W, H), 2, 3)));
    }

    /** Groups add up: the light of each source alone is what the common picture keeps for it. */
    @Test
    void groupsAreWhatTheSourcesGiveAlone() {
        TestScene all = room();
        var meter = new LightMeter(all.compile(), 8);
        var at = new Vec3(-1.5, -1, 0.01);
        var r = meter.measure(at, Vec3.UP, 1 << 15, 5, 0);
        double sum = 0;
        for (double g : r.luxByGroup()) sum += g;
        assertEquals(r.lux(), sum, 1e-6 * r.lux());
        var lampOnly = RenderScene.compile(all.scene().withSurroundings(new Surroundings.Plain(Vec3.ZERO)), ForkJoinPool.commonPool());
        var l = new LightMeter(lampOnly, 8).measure(at, Vec3.UP, 1 << 15, 6, 0);
        assertEquals(l.lux(), r.luxByGroup()[2], 4 * l.error() + 0.002 * l.lux());
    }

    /** Noise falls as one over the root of the passes, and the estimate is about the true error. */
    @Test
    @Tag("thorough")
    void noiseEstimateIsHonest() {
        RenderScene s = room().compile();
        Finish f = new Finish(camera().saturation(), bake.core.finish.Look.PLAIN);
        Film few = render(s, Region.all(W, H), 2, 16), many = render(s, Region.all(W, H), 2, 240);
        double error = 0, signal = 0;
        float[] a = new float[3], b = new float[3];
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                few.mean(x, y, null, a);
                many.mean(x, y, null, b);
                double p = ToneCurve.FILM.apply((0.2126 * a[0] + 0.7152 * a[1] + 0.0722 * a[2]) / f.saturation()),
                        q = ToneCurve.FILM.apply((0.2126 * b[0] + 0.7152 * b[1] + 0.0722 * b[2]) / f.saturation());
                error += (p - q) * (p - q);
                signal += q * q;
            }
        double truth = 100 * Math.sqrt(error / signal), estimate = f.noise(few, Region.all(W, H));
        // Stratified samples do better than their variance says, stray bright ones worse.
        assertTrue(estimate > truth * 0.6 && estimate < truth * 2.5, "estimated " + estimate + ", true " + truth);
    }

    /** Fresnel with inner reflections, n 1.52: 0.918 at normal incidence (value from memory), else by its definition. */
    @ParameterizedTest
    @CsvSource({"0", "30", "45", "60", "75", "85"})
    void paneTransmits(double degrees) {
        double n = 1.52, c = Math.cos(Math.toRadians(degrees)), st = Math.sin(Math.toRadians(degrees)) / n, ct = Math.sqrt(1 - st * st);
        double rs = Math.pow((c - n * ct) / (c + n * ct), 2), rp = Math.pow((n * c - ct) / (n * c + ct), 2), sum = 0;
        // Summed bounce by bounce instead of in closed form.
        for (double r : new double[] {rs, rp}) for (int k = 0; k < 60; k++) sum += 0.5 * (1 - r) * (1 - r) * Math.pow(r, 2 * k);
        assertEquals(sum, Fresnel.paneTransmittance((float) c, (float) n), 1e-5);
        if (degrees == 0) assertEquals(0.918, sum, 0.0005);
    }

    /** A pane between a lamp and a meter dims it by exactly its transmittance at that angle. */
    @ParameterizedTest
    @CsvSource({"0", "45", "75"})
    void paneInTheWay(double degrees) {
        TestScene s = new TestScene();
        int glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        // Off the middle: a ray exactly along the quad's diagonal would meet both of its triangles.
        s.add(Shapes.quad("pane", 40, 40, glass), Affine.translation(3, 0, 1)
                .times(Affine.rotation(new Vec3(1, 0, 0), Math.toRadians(degrees))));
        s.lamp(new Lamp("l", "g", Lamp.Kind.POINT, Affine.translation(0, 0, 4), 0, 0, 1000, grey(1), 0, 60, true, false));
        double t = Fresnel.paneTransmittance((float) Math.cos(Math.toRadians(degrees)), 1.52f);
        // Meter in the lamp's axis; light mirrored by the pane from elsewhere cannot reach a plane that faces the lamp.
        var r = s.measure(Vec3.ZERO, Vec3.UP, 256);
        double expected = 1000 / (4 * Math.PI) / 16 * t;
        assertEquals(expected, r.lux(), expected * 2e-3);
    }

    /** The clamp takes light away and says how much; without it none goes missing. */
    @Test
    void clampIsReported() {
        RenderScene s = room().compile();
        double[] seen = new double[2], clamped = new double[2];
        for (int k = 0; k < 2; k++) {
            Film film = Film.merged(4 * W, 4 * H, s.lights().groups().size());
            try (Workers w = new Workers(2)) {
                // A first pass that has learnt nothing, so that both follow the same paths.
                PathSettings p = new PathSettings(8, k == 0 ? 0 : 0.05, 42).promptly();
                Renderer r = new Renderer(s, camera(), p, film, Region.all(4 * W, 4 * H), w);
                r.pass(0, w, () -> false);
                clamped[k] = r.clampedLuminance();
            }
            for (double l : film.planeLuminance()) seen[k] += l;
        }
        assertEquals(0, clamped[0]);
        assertTrue(clamped[1] > 0);
        assertEquals(seen[0], seen[1] + clamped[1], 1e-5 * seen[0]);
    }

    /** Stopping in the middle of a pass keeps what is there; no pixel is left half done. */
    @Test
    void stopKeepsWholeSamples() {
        RenderScene s = room().compile();
        Film film = Film.merged(W, H, s.lights().groups().size());
        try (Workers w = new Workers(2)) {
            Renderer r = new Renderer(s, camera(), new PathSettings(4, 0, 1), film, Region.all(W, H), w);
            assertTrue(r.pass(0, w, () -> false));
            int[] asked = {0};
            assertTrue(!r.pass(1, w, () -> ++asked[0] > 2));
        }
        for (int y = 0; y < H; y++) for (int x = 0; x < W; x++) assertTrue(film.samples(x, y) == 1 || film.samples(x, y) == 2);
    }

    /** Field of view from focal length and sensor; a straight-verticals camera keeps verticals vertical. */
    @Test
    void lensGeometry() {
        Lens l = new Lens(Camera.of(Vec3.ZERO, new Vec3(0, 10, 3), 24), 300, 200);
        float[] r = new float[6];
        l.ray(1, 0.5f, 0, 0, r);
        float[] q = new float[6];
        l.ray(0, 0.5f, 0, 0, q);
        assertEquals(2 * Math.toDegrees(Math.atan(18 / 24.0)), Math.toDegrees(Math.atan2(r[3], r[4]) - Math.atan2(q[3], q[4])), 1e-3);
        float[] top = new float[6];
        l.ray(0.8f, 0, 0, 0, top);
        l.ray(0.8f, 1, 0, 0, q);
        assertEquals(top[3] / top[4], q[3] / q[4], 1e-5f, "a vertical line stays one column");
        l.ray(0.5f, 0.5f, 0, 0, r);
        assertEquals(0.3, r[5] / r[4], 1e-5, "the target is in the middle");
        assertThrows(IllegalArgumentException.class, () -> new Lens(Camera.of(Vec3.ZERO, Vec3.ZERO, 24), 10, 10));
    }

    /** Depth of field: rays through the whole lens meet at the focus distance, and spread by the thin-lens formula elsewhere. */
    @Test
    void depthOfField() {
        Camera c = new Camera(Vec3.ZERO, new Vec3(0, 1, 0), 50, 2, 0.01, 100, 4, true, true, 0, 0);
        Lens l = new Lens(c, 100, 100);
        float[] a = new float[6], b = new float[6];
        l.ray(0.5f, 0.5f, 0.9999f, 0, a);
        l.ray(0.5f, 0.5f, 0.9999f, 0.5f, b);
        double atFocus = (a[0] + a[3] / a[4] * (4 - a[1])) - (b[0] + b[3] / b[4] * (4 - b[1]));
        assertEquals(0, atFocus, 1e-5);
        double atEight = Math.abs((a[0] + a[3] / a[4] * 8) - (b[0] + b[3] / b[4] * 8));
        assertEquals(0.025 * (8 - 4) / 4, atEight, 1e-4, "blur disc in object space: aperture times (d - focus) / focus");
    }

    /** Sampling daylight through panes changes the noise but not the mean. */
    @Test
    @Tag("thorough")
    void panesDoNotChangeTheMean() {
        TestScene s = new TestScene().around(new Surroundings.SunSky(new Vec3(-0.3, 0.5, 0.2).normalized(), 3, -20, 0, 0.533, 0.2));
        int wall = s.material(Material.diffuse("wall", grey(0.5))), glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        box(s, wall);
        s.add(Shapes.quad("pane", 0.98, 0.98, glass), Affine.translation(2, 0, 1.5).times(Affine.rotation(new Vec3(0, 1, 0), Math.PI / 2)));
        RenderScene with = s.compile();
        assertTrue(with.openings().share(0, 0, 1, new bake.core.geometry.Ray()) > 0.5f, "the pane is found, and indoors it is preferred");
        var r = new LightMeter(with, 12).measure(new Vec3(0, 0, 0.2), Vec3.UP, 1 << 16, 3, 0);
        RenderScene without = new RenderScene(with.scene(), with.geometry(), with.surfaces(), with.surround(), with.lights(), with.tracer(),
                bake.core.light.Openings.none(), with.scenery());
        var q = new LightMeter(without, 12).measure(new Vec3(0, 0, 0.2), Vec3.UP, 1 << 18, 4, 0);
        assertEquals(q.lux(), r.lux(), 3 * Math.hypot(q.error(), r.error()));
        double gain = q.error() * q.error() * 4 / (r.error() * r.error());
        assertTrue(gain > 2, "variance is " + gain + " times lower");
    }

    /** The sky guide takes noise away and leaves the mean, over the picture and in blocks of it; and threads do not matter to it. */
    @Tag("thorough")
    @Test
    void theLightGuideDoesNotChangeTheMean() {
        TestScene s = new TestScene().around(new Surroundings.SunSky(new Vec3(-0.3, 0.5, 0.2).normalized(), 3, -20, 0, 0.533, 0.2));
        int wall = s.material(Material.diffuse("wall", grey(0.5))), glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        box(s, wall);
        s.add(Shapes.quad("pane", 0.98, 0.98, glass), Affine.translation(2, 0, 1.5).times(Affine.rotation(new Vec3(0, 1, 0), Math.PI / 2)));
        // Outside, a black screen hides all of the window but its upper edge from the floor; it has no noise of its own.
        s.add(Shapes.box("screen", 3, -3, -1, 3.1, 3, 2.5, s.material(Material.diffuse("black", grey(0)))));
        RenderScene scene = s.compile();
        double[][] with = blocks(scene, true, 2, 63), without = blocks(scene, false, 2, 63), again = blocks(scene, true, 1, 63);
        double variance = 0, plain = 0;
        int n = with.length, far = 0;
        for (int k = 0; k < n; k++) {
            assertArrayEquals(with[k], again[k], 0, "one thread or two");
            variance += with[k][1];
            plain += without[k][1];
            if (Math.abs(with[k][0] - without[k][0]) > 3 * Math.sqrt(with[k][1] + without[k][1])) far++;
        }
        assertTrue(far <= 1, far + " of " + n + " blocks differ by more than three standard errors");
        double a = 0, b = 0;
        for (int k = 0; k < n; k++) {
            a += with[k][0] / n;
            b += without[k][0] / n;
        }
        assertEquals(b, a, 3 * Math.sqrt(variance + plain) / n);
        assertTrue(plain > 0.6 * variance, "in a room that test rays judge well there is little left to learn: " + plain / variance
                + " times lower");
    }

    /** The mean of the picture is the same for every pixel filter; what lies just outside of its edge is let in by some. */
    @Tag("thorough")
    @Test
    void theFilterDoesNotChangeTheMean() {
        RenderScene s = room().compile();
        double first = 0, error = 0;
        for (PixelFilter.Shape shape : PixelFilter.Shape.values()) {
            Film film = Film.merged(W, H, s.lights().groups().size());
            try (Workers w = new Workers(2)) {
                Renderer r = new Renderer(s, camera(), new PathSettings(4, 0.05, 5, false, new PixelFilter(shape, shape.radius)), film,
                        Region.all(W, H), w);
                for (int p = 0; p < 24; p++) r.pass(p, w, () -> false);
            }
            double variance = 0;
            for (int y = 0; y < H; y++) for (int x = 0; x < W; x++) variance += film.variance(x, y) / (W * H) / (W * H);
            double mean = film.planeLuminance()[0];
            if (first == 0) {
                first = mean;
                error = variance;
            }
            assertEquals(first, mean, 3 * Math.sqrt(variance + error) + 0.01 * first, shape + "");
        }
    }

    /** Mean luminance and its variance in blocks of 8 x 8 pixels. */
    private static double[][] blocks(RenderScene scene, boolean guided, int threads, int passes) {
        int w = 48, h = 32;
        Film film = Film.merged(w, h, scene.lights().groups().size());
        Camera c = Camera.of(new Vec3(-1.8, -1.5, 1.2), new Vec3(1, 0.4, 0.8), 20).withEv(6);
        try (Workers t = new Workers(threads)) {
            Renderer r = new Renderer(scene, c, new PathSettings(1, 0, 7, guided, PixelFilter.TENT), film, Region.all(w, h), t);
            for (int p = 0; p < passes; p++) r.pass(p, t, () -> false);
        }
        double[][] out = new double[w / 8 * (h / 8)][2];
        float[] rgb = new float[3];
        for (int y = 0; y < h; y++)
            for (int x = 0; x < w; x++) {
                film.mean(x, y, null, rgb);
                double[] o = out[y / 8 * (w / 8) + x / 8];
                o[0] += (0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]) / 64;
                o[1] += film.variance(x, y) / 64 / 64;
            }
        return out;
    }

    /** A closed room of 4 x 4 x 3 with a hole of 1 x 1 in its east wall. */
    private static void box(TestScene s, int m) {
        s.add(Shapes.box("floor", -2.2, -2.2, -0.2, 2.2, 2.2, 0, m)).add(Shapes.box("roof", -2.2, -2.2, 3, 2.2, 2.2, 3.2, m));
        s.add(Shapes.box("west", -2.2, -2.2, -0.1, -2, 2.2, 3.1, m)).add(Shapes.box("north", -2.2, 2, -0.1, 2.2, 2.2, 3.1, m))
                .add(Shapes.box("south", -2.2, -2.2, -0.1, 2.2, -2, 3.1, m));
        s.add(Shapes.box("e1", 1.99, -2.2, -0.1, 2.2, -0.5, 3.1, m)).add(Shapes.box("e2", 1.99, 0.5, -0.1, 2.2, 2.2, 3.1, m))
                .add(Shapes.box("e3", 1.99, -0.6, -0.1, 2.2, 0.6, 1, m)).add(Shapes.box("e4", 1.99, -0.6, 2, 2.2, 0.6, 3.1, m));
    }
}
