package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.cache.IrradianceCache;
import bake.core.cache.RecordSamples;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.geometry.Ray;
import bake.core.math.Affine;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.path.BounceSettings.Caustics;
import bake.core.path.BounceSettings.First;
import bake.core.path.BounceSettings.Later;
import bake.core.path.BounceSettings;
import bake.core.path.Occlusion;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.solve.Caches;
import bake.core.solve.HemisphereGather;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Solvers of bounced light against closed forms and against path tracing; caches that leak nothing and depend on no thread. */
class CachedBouncesTest {
    private static final int W = 48, H = 36, SEEDS = 4;

    private static PathSettings settings(First first, Later later) {
        return new PathSettings(64, 0, 3).withBounced(new BounceSettings(first, later));
    }

    private static Film render(RenderScene s, Camera c, PathSettings p, int passes, int threads) {
        Film f = Film.byGroup(W, H, s.lights().groups().size());
        try (Workers w = new Workers(threads)) {
            Renderer r = new Renderer(s, c, p, f, Region.all(W, H), w);
            for (int k = 0; k < passes; k++) r.pass(k, w, () -> false);
        }
        return f;
    }

    private static double mean(Film f) {
        double sum = 0;
        for (double l : f.planeLuminance()) sum += l;
        return sum;
    }

    /** Inside an integrating sphere of reflectance rho all light but the first is even: L = Phi rho / (pi A (1 - rho)). */
    @ParameterizedTest
    @CsvSource({"PATH_TRACING, RADIANCE_CACHE, 0.7", "IRRADIANCE_CACHE, RADIANCE_CACHE, 0.7", "IRRADIANCE_CACHE, PATH_TRACING, 0.5",
            "IRRADIANCE_CACHE, RADIANCE_CACHE, 0.9", "IRRADIANCE_CACHE, PHOTON_MAP, 0.7", "PATH_TRACING, PHOTON_MAP, 0.5"})
    void closedSphere(First first, Later later, double rho) {
        double lumens = 1000;
        TestScene t = new TestScene();
        int m = t.material(Material.diffuse("paint", grey(rho)));
        t.add(Shapes.sphere("shell", 1, 64, m))
                .lamp(new Lamp("lamp", "l", Lamp.Kind.POINT, Affine.IDENTITY, 0, 0, lumens, grey(1), 0, 60, true, false));
        RenderScene scene = t.compile();
        Camera c = Camera.of(new Vec3(0, -0.5, 0), new Vec3(0, 1, 0.1), 20).withEv(8);
        double area = 4 * Math.PI, even = lumens / area / (1 - rho) * rho / Math.PI, found = 0;
        // Photons cost most and are even here.
        int seeds = later == Later.PHOTON_MAP ? 1 : rho > 0.8 ? SEEDS : 2;
        for (int seed = 1; seed <= seeds; seed++) found += mean(render(scene, c, settings(first, later).withSeed(seed), 8, 2)) / seeds;
        assertEquals(even, found, (later == Later.PHOTON_MAP ? 0.02 : 0.012) * even,
                "the faceted shell is a little small, at most half a percent");
    }

    private static TestScene twoRooms(boolean lit) {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.8))), wood =
                t.material(Material.glossy("wood", new Vec3(0.4, 0.3, 0.2), 0.4));
        t.add(Shapes.box("floor", -0.1, -0.1, -0.1, 4.1, 3.1, 0, wood)).add(Shapes.box("ceiling", -0.1, -0.1, 2.5, 4.1, 3.1, 2.6, white));
        t.add(Shapes.box("west", -0.1, -0.1, 0, 0, 3.1, 2.5, white)).add(Shapes.box("east", 4, -0.1, 0, 4.1, 3.1, 2.5, white));
        t.add(Shapes.box("south", 0, -0.1, 0, 4, 0, 2.5, white)).add(Shapes.box("north", 0, 3, 0, 4, 3.1, 2.5, white));
        t.add(Shapes.box("wall", 1.95, 0, 0, 2.05, 3, 2.5, white));
        if (lit) t.lamp(new Lamp("here", "Here", Lamp.Kind.SPHERE, Affine.translation(3, 1.5, 2), 0.2, 0, 2000, grey(1), 0, 60, true,
                false));
        return t.lamp(new Lamp("there", "There", Lamp.Kind.SPHERE, Affine.translation(1, 1.5, 2), 0.2, 0, 50_000, grey(1), 0, 60, true,
                false));
    }

    private static final Camera HERE = Camera.of(new Vec3(2.2, 0.2, 1.5), new Vec3(3.4, 3, 1.2), 16).withEv(7);

    /** Through a wall of 10 cm nothing comes from a room that is lit twenty-five times brighter. */
    @Test
    void nothingLeaksThroughWalls() {
        RenderScene s = twoRooms(true).compile();
        Film f = render(s, HERE, settings(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE), 4, 2);
        double[] by = f.planeLuminance();
        int there = s.lights().groups().indexOf("There"), here = s.lights().groups().indexOf("Here");
        assertTrue(by[here] > 1);
        assertEquals(0, by[there], 1e-9 * by[here]);
    }

    /** Photons come through no wall either. */
    @Test
    void noPhotonLeaksThroughWalls() {
        RenderScene s = twoRooms(true).compile();
        double[] by = render(s, HERE, settings(First.IRRADIANCE_CACHE, Later.PHOTON_MAP), 4, 2).planeLuminance();
        assertTrue(by[s.lights().groups().indexOf("Here")] > 1);
        assertEquals(0, by[s.lights().groups().indexOf("There")], 1e-9 * by[s.lights().groups().indexOf("Here")]);
    }

    /**
     * A patch as bright as in full sun is what lights such a room: the clamp is for paths that bring a pixel too much, not for what caches
     * gather.
     */
    @Test
    void theClampLeavesWhatCachesGather() {
        TestScene t = twoRooms(true).lamp(new Lamp("sun", "Sun patch", Lamp.Kind.SPOT,
                Affine.pointing(new Vec3(3.2, 1.5, 2.2), new Vec3(0, 0, -1)), 0.01, 0, 20_000, grey(1), 0, 20, true, false));
        RenderScene s = t.compile();
        double open = 0, clamped = 0;
        for (int seed = 1; seed <= 2; seed++) {
            BounceSettings how = new BounceSettings(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE);
            open += mean(render(s, HERE, new PathSettings(64, 0, seed).withBounced(how), 6, 2));
            clamped += mean(render(s, HERE, new PathSettings(64, 20, seed).withBounced(how), 6, 2));
        }
        assertEquals(open, clamped, 0.01 * open);
    }

    /**
     * Where everything is near, darkened corners keep light that comes straight, and of bounced light what the strength leaves; where
     * nothing is, all of it.
     */
    @Tag("thorough")
    @ParameterizedTest
    @CsvSource({"PATH_TRACING, PATH_TRACING, true", "PATH_TRACING, PATH_TRACING, false", "PATH_TRACING, RADIANCE_CACHE, false",
            "IRRADIANCE_CACHE, RADIANCE_CACHE, false"})
    void darkenedCorners(First first, Later later, boolean exchange) {
        RenderScene s = twoRooms(true).compile();
        int passes = first == First.PATH_TRACING ? 48 : 8;
        PathSettings p = settings(first, later).withExchange(exchange);
        double whole = mean(render(s, HERE, p, passes, 2)), straight =
                mean(render(s, HERE, settings(First.PATH_TRACING, Later.NONE).with(new Occlusion(1, 100)), 16, 2));
        assertEquals(straight, mean(render(s, HERE, p.with(new Occlusion(1, 100)), passes, 2)), 0.02 * whole);
        assertEquals((straight + whole) / 2, mean(render(s, HERE, p.with(new Occlusion(0.5, 100)), passes, 2)), 0.02 * whole);
        assertEquals(whole, mean(render(s, HERE, p.with(new Occlusion(1, 0.002)), passes, 2)), 0.02 * whole);
    }

    /** A near field means the same light, whatever its distance. */
    @ParameterizedTest
    @CsvSource({"0.1", "0.5", "100"})
    void nearFieldKeepsTheMean(double metres) {
        RenderScene s = twoRooms(true).compile();
        double exact = mean(render(s, HERE, settings(First.PATH_TRACING, Later.PATH_TRACING), 96, 2)), near = 0;
        for (int seed = 1; seed <= 2; seed++) {
            PathSettings p = settings(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE).withSeed(seed);
            near += mean(render(s, HERE, p.withBounced(p.bounced().withNearField(metres)), 16, 2)) / 2;
        }
        assertEquals(exact, near, 0.015 * exact);
    }

    /** What a mirror throws on a floor: by photons as much as by paths; left out, so much less as is told. */
    @Test
    void causticsOffMirrors() {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.6))), mirror = t.material(Material.metal("mirror", grey(0.95), 0));
        t.add(Shapes.quad("floor", 3, 3, white)).add(Shapes.quad("mirror", 2, 2, mirror),
                Affine.pointing(new Vec3(0, 1.2, 1), new Vec3(0, -1, 0)));
        t.lamp(new Lamp("l", "L", Lamp.Kind.SPHERE, Affine.translation(0, -0.5, 1.2), 0.4, 0, 1000, grey(1), 0, 60, true, false));
        RenderScene s = t.compile();
        Camera c = Camera.of(new Vec3(0, -2.5, 1.5), new Vec3(0, 0.2, 0), 20).withEv(8);
        double[] mean = new double[3], told = new double[1];
        for (Caustics how : Caustics.values()) {
            PathSettings p = new PathSettings(8, 0, 3).withBounced(new BounceSettings(First.PATH_TRACING, Later.PATH_TRACING).with(how)
                    .withPhotons(100_000));
            Film f = Film.byGroup(W, H, s.lights().groups().size());
            try (Workers w = new Workers(2)) {
                Renderer r = new Renderer(s, c, p.withExchange(false), f, Region.all(W, H), w);
                for (int k = 0; k < 128; k++) r.pass(k, w, () -> false);
                told[0] = r.leftOut();
            }
            mean[how.ordinal()] = mean(f);
        }
        double traced = mean[Caustics.PATH_TRACING.ordinal()], left = mean[Caustics.LEFT_OUT.ordinal()];
        assertTrue(left < 0.99 * traced, "there is something to leave out: " + left + " of " + traced);
        assertEquals(traced, mean[Caustics.PHOTON_MAP.ordinal()], 0.003 * traced);
        assertEquals(traced - left, told[0], 0.1 * (traced - left));
    }

    /**
     * A hut on a wide sunny ground is lit by what comes up from it in front of its window: few of the photons that are spread over a ground
     * of two kilometres would find it.
     */
    @Test
    void photonsComeUpFromTheGroundOutside() {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.7))), grass = t.material(Material.diffuse("ground", grey(0.4))),
                glass = t.material(Material.glass("pane", grey(1), 0, 1.52, true));
        t.add(Shapes.quad("ground", 2000, 2000, grass), Affine.translation(0, 0, -0.05));
        t.add(Shapes.box("floor", -0.2, -0.2, -0.04, 3.2, 3.2, 0, white)).add(Shapes.box("roof", -0.2, -0.2, 2.5, 3.2, 3.2, 2.6, white));
        t.add(Shapes.box("west", -0.2, -0.2, 0, 0, 3.2, 2.5, white)).add(Shapes.box("east", 3, -0.2, 0, 3.2, 3.2, 2.5, white));
        t.add(Shapes.box("north", 0, 3, 0, 3, 3.2, 2.5, white)).add(Shapes.box("under", 0, -0.2, 0, 3, 0, 0.9, white));
        t.add(Shapes.box("over", 0, -0.2, 2, 3, 0, 2.5, white)).add(Shapes.box("pane", 0, -0.11, 0.9, 3, -0.1, 2, glass));
        t.around(new Surroundings.SunSky(new Vec3(0.3, 0.6, 0.75).normalized(), 3, 0, 0, 0.533, 0.2));
        RenderScene s = t.compile();
        Camera c = Camera.of(new Vec3(1.5, 0.3, 1.2), new Vec3(1.5, 2.6, 2.4), 18).withEv(10);
        double exact = mean(render(s, c, settings(First.PATH_TRACING, Later.PATH_TRACING), 64, 2)), mapped = 0;
        for (int seed = 1; seed <= 2; seed++)
            mapped += mean(render(s, c, settings(First.IRRADIANCE_CACHE, Later.PHOTON_MAP).withSeed(seed), 2, 2)) / 2;
        assertEquals(exact, mapped, 0.05 * exact);
    }

    /** All pairs of solvers mean the same light in a room with gloss, a quarter of a percent of which records move by roughening it. */
    @ParameterizedTest
    @CsvSource({"PATH_TRACING, RADIANCE_CACHE", "IRRADIANCE_CACHE, PATH_TRACING"})
    @Tag("thorough")
    void sameMeanAsPathTracing(First first, Later later) {
        RenderScene s = twoRooms(true).compile();
        double exact = mean(render(s, HERE, settings(First.PATH_TRACING, Later.PATH_TRACING), 96, 2)), cached = 0;
        // Small pictures fill their cells with few paths, whose noise stays in them.
        for (int seed = 1; seed <= SEEDS; seed++) cached += mean(render(s, HERE, settings(first, later).withSeed(seed), 8, 2)) / SEEDS;
        assertEquals(exact, cached, 0.012 * exact);
    }

    @Test
    void bothCachesMeanTheSame() {
        sameMeanAsPathTracing(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE);
    }

    @Test
    void sameBitsForAnyNumberOfThreads() {
        RenderScene s = twoRooms(true).compile();
        Film a = render(s, HERE, settings(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE), 3, 1),
                b = render(s, HERE, settings(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE), 3, 3);
        assertArrayEquals(a.planeLuminance(), b.planeLuminance(), 0);
    }

    /** Caches are filled in the same order whether a picture is begun or gone on with. */
    @Test
    void goesOnToTheSameBits() {
        RenderScene s = twoRooms(true).compile();
        PathSettings p = settings(First.IRRADIANCE_CACHE, Later.RADIANCE_CACHE);
        Film whole = render(s, HERE, p, 6, 2), parts = Film.byGroup(W, H, s.lights().groups().size());
        try (Workers w = new Workers(2)) {
            Renderer first = new Renderer(s, HERE, p, parts, Region.all(W, H), w);
            for (int k = 0; k < 3; k++) first.pass(k, w, () -> false);
            Renderer second = new Renderer(s, HERE, p, parts, Region.all(W, H), w);
            for (int k = 3; k < 6; k++) second.pass(k, w, () -> false);
        }
        assertArrayEquals(whole.planeLuminance(), parts.planeLuminance(), 0);
    }

    /**
     * Without later bounces there is less light, and it is that of one bounce: a path tracer's that may touch one surface after the first.
     */
    @Test
    void oneBounceOnly() {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.8)));
        t.add(Shapes.quad("floor", 4, 4, white)).add(Shapes.quad("wall", 4, 4, white),
                Affine.pointing(new Vec3(0, 2, 2), new Vec3(0, -1, 0)));
        t.lamp(new Lamp("l", "L", Lamp.Kind.POINT, Affine.translation(0, 0, 2), 0, 0, 1000, grey(1), 0, 60, true, false));
        Camera c = Camera.of(new Vec3(0, -3, 1.5), new Vec3(0, 1, 1), 20).withEv(7);
        RenderScene s = t.compile();
        double one = mean(render(s, c, new PathSettings(2, 0, 3), 64, 2)),
                none = mean(render(s, c, settings(First.PATH_TRACING, Later.NONE), 64, 2));
        assertEquals(one, none, 0.005 * one);
        assertEquals(one, mean(render(s, c, settings(First.IRRADIANCE_CACHE, Later.NONE), 32, 2)), 0.012 * one);
    }

    /**
     * Gradients of a record against finite differences of path traced irradiance (Ward and Heckbert 1992): on a floor beside a lit wall.
     */
    @Test
    void gradientsAgreeWithFiniteDifferences() {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.8))), black = t.material(Material.diffuse("black", grey(0)));
        t.add(Shapes.quad("floor", 8, 8, black)).add(Shapes.box("wall", 1, -3, 0, 1.2, 3, 2, white));
        t.lamp(new Lamp("l", "L", Lamp.Kind.POINT, Affine.translation(-1, 0.5, 1.2), 0, 0, 1000, grey(1), 0, 60, true, false));
        RenderScene s = t.compile();
        PathTracer tracer = new PathTracer(s, 8, 0);
        int group = s.lights().groups().indexOf("L");
        double at = record(tracer, s, 0, 0, 0, group), step = 0.06;
        double moved = (record(tracer, s, step, 0, 0, group) - record(tracer, s, -step, 0, 0, group)) / (2 * step);
        // Read aside of one record: what its gradient makes of it.
        double slope = (read(tracer, s, step, 0, group) - read(tracer, s, -step, 0, group)) / (2 * step);
        assertTrue(Math.abs(moved) > 0.2 * at, "there is something to see: " + moved + " of " + at);
        assertEquals(moved, slope, 0.1 * Math.abs(moved));
        double turn = 0.1, turned = (tilted(tracer, s, turn, group) - tilted(tracer, s, -turn, group)) / (2 * turn),
                predicted = (read(tracer, s, 0, turn, group) - read(tracer, s, 0, -turn, group)) / (2 * turn);
        assertEquals(turned, predicted, 0.1 * Math.abs(turned));
    }

    private static SurfacePoint floor(RenderScene s, double x) {
        Ray ray = new Ray();
        SurfacePoint p = new SurfacePoint();
        ray.set((float) x, 0.02f, 0.5f, 0, 0, -1, 9);
        assertTrue(s.tracer().closest(ray));
        p.load(s.geometry(), s.surfaces(), ray);
        return p;
    }

    private static IrradianceCache one(PathTracer t, RenderScene s, double x) {
        RecordSamples out = new RecordSamples(t.channels());
        PathSampler random = new PathSampler();
        random.start(1, 1, 1, 5);
        IrradianceCache c = new IrradianceCache(t.channels());
        BounceSettings how = new BounceSettings(First.IRRADIANCE_CACHE, Later.PATH_TRACING).withRays(8000);
        new HemisphereGather(t, how).record(floor(s, x), random, 0.01f, 0.5f, c, out);
        c.merge(new RecordSamples[] {out});
        return c;
    }

    /** Rays go to records that reach as far as they may; of those that reach little there are many. */
    @Test
    void raysByReach() {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.8)));
        t.add(Shapes.quad("floor", 8, 8, white)).add(Shapes.box("wall", 1, -3, 0, 1.2, 3, 2, white));
        RenderScene s = t.around(1000).compile();
        long[] rays = new long[3];
        float[] most = {0.05f, 4, 40};
        for (int i = 0; i < 3; i++) {
            PathTracer tracer = new PathTracer(s, 8, 0);
            PathSampler random = new PathSampler();
            random.start(1, 1, 1, 5);
            new HemisphereGather(tracer, new BounceSettings(First.IRRADIANCE_CACHE, Later.NONE).withRays(4000))
                    .record(floor(s, 0), random, 0.01f, most[i], new IrradianceCache(tracer.channels()),
                    new RecordSamples(tracer.channels()));
            rays[i] = tracer.rays();
        }
        assertTrue(rays[0] > 1.5 * rays[1] && rays[1] > 1.5 * rays[2], "never more than it may, never fewer than are enough: "
                + java.util.Arrays.toString(rays));
        assertTrue(rays[2] > 300, java.util.Arrays.toString(rays));
    }

    /** Irradiance over pi of a record made at a place, facing up. */
    private static double record(PathTracer t, RenderScene s, double x, double y, double z, int group) {
        SurfacePoint p = floor(s, x);
        float[] out = new float[t.channels()];
        one(t, s, x).read(p.px, p.py, p.pz, p.nx, p.ny, p.nz, out);
        return out[3 * group + 1];
    }

    /** The same as a record at the middle says it for a place beside it, or for another facing there. */
    private static double read(PathTracer t, RenderScene s, double x, double turn, int group) {
        float[] out = new float[t.channels()];
        SurfacePoint p = floor(s, 0);
        one(t, s, 0).read(p.px + (float) x, p.py, p.pz, (float) Math.sin(turn), 0, (float) Math.cos(turn), out);
        return out[3 * group + 1];
    }

    /** Irradiance over pi that a meter reads of the wall alone, tilted about the y axis. */
    private static double tilted(PathTracer t, RenderScene s, double turn, int group) {
        PathSampler random = new PathSampler();
        float[] out = new float[t.channels()];
        double nx = Math.sin(turn), nz = Math.cos(turn), sum = 0;
        int n = 200;
        for (int i = 0; i < n; i++)
            for (int k = 0; k < n; k++) {
                double r = Math.sqrt((i + 0.5) / n), phi = 2 * Math.PI * (k + 0.5) / n, a = r * Math.cos(phi), b = r * Math.sin(phi),
                        c = Math.sqrt(1 - r * r);
                double dx = a * nz + c * nx, dz = -a * nx + c * nz;
                if (dz <= 0) continue;
                java.util.Arrays.fill(out, 0);
                random.start(i, k, 1, 5);
                t.gather(0, 0.02f, 1e-4f, (float) dx, (float) b, (float) dz, (float) c, 1, 0, random, out);
                sum += out[3 * group + 1] / n / n;
            }
        return sum;
    }
}
