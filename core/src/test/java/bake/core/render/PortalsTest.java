package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.light.Openings;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Material;
import bake.core.scene.Panorama;
import bake.core.scene.Portal;
import bake.core.scene.Scene;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Looking for the surroundings through portals, and as the sky guide learnt: the mean stays, the noise falls (Bitterli, Wyman and Pharr
 * 2015).
 */
class PortalsTest {
    /**
     * A room with one bare window of 0.8 x 0.8 m; its walls overlap, so that no light leaks, under a sky that is much brighter on one side.
     */
    private static Scene room(List<Portal> portals) {
        TestScene s = new TestScene();
        int wall = s.material(Material.diffuse("wall", grey(0.5)));
        s.add(Shapes.box("floor", -0.4, -0.4, -0.3, 5.4, 4.4, 0, wall)).add(Shapes.box("roof", -0.4, -0.4, 2.6, 5.4, 4.4, 2.9, wall));
        s.add(Shapes.box("west", -0.3, -0.3, -0.1, 0, 4.3, 2.7, wall)).add(Shapes.box("east", 5, -0.3, -0.1, 5.3, 4.3, 2.7, wall))
                .add(Shapes.box("north", -0.1, 4, -0.1, 5.1, 4.3, 2.7, wall));
        s.add(Shapes.box("s1", -0.1, -0.3, -0.1, 2, 0, 2.7, wall)).add(Shapes.box("s2", 2.8, -0.3, -0.1, 5.1, 0, 2.7, wall))
                .add(Shapes.box("s3", 1.9, -0.3, -0.1, 2.9, 0, 1, wall)).add(Shapes.box("s4", 1.9, -0.3, 1.8, 2.9, 0, 2.7, wall));
        int w = 64, h = 32;
        float[] rgb = new float[3 * w * h];
        for (int i = 0; i < rgb.length; i++) rgb[i] = i / 3 % w < w / 4 ? 9000 : i / 3 / w < h / 2 ? 2000 : 300;
        return s.around(new Surroundings.Hdri(new Panorama("sky", w, h, rgb), 0, 0)).scene().withPortals(portals);
    }

    private static final Portal WINDOW =
            new Portal("w", List.of(new Vec3(2.8, 0, 1), new Vec3(2, 0, 1), new Vec3(2, 0, 1.8), new Vec3(2.8, 0, 1.8)));
    /** The same window as a polygon of six corners, one of them dented. */
    private static final Portal POLYGON =
            new Portal("p", List.of(new Vec3(2.8, 0, 1), new Vec3(2.4, 0, 0.97), new Vec3(2, 0, 1), new Vec3(2.05, 0, 1.4),
            new Vec3(2, 0, 1.8), new Vec3(2.8, 0, 1.8)));

    @Tag("thorough")
    @Test
    void theMeanStaysAndNoiseFalls() {
        RenderScene none = RenderScene.compile(room(List.of()), ForkJoinPool.commonPool());
        assertEquals(0, none.openings().count());
        for (Vec3 at : List.of(new Vec3(2.4, 1, 0.01), new Vec3(1, 3, 0.8), new Vec3(4.5, 0.5, 1.2))) {
            var whole = new LightMeter(none, 4).measure(at, Vec3.UP, 1 << 16, 5, 0);
            for (Portal p : List.of(WINDOW, POLYGON, WINDOW.flipped())) {
                RenderScene with = RenderScene.compile(room(List.of(p)), ForkJoinPool.commonPool());
                assertTrue(with.openings().count() > 0);
                var through = new LightMeter(with, 4).measure(at, Vec3.UP, 1 << 14, 8, 3);
                assertEquals(whole.lux(), through.lux(), 3.5 * Math.hypot(whole.error(), through.error()) + 0.002 * whole.lux(),
                        p.name() + " at " + at);
                if (p == WINDOW) assertTrue(4 * through.error() * through.error() < whole.error() * whole.error() * 4 * 4 / 2,
                        "portal " + through.error() + ", whole " + whole.error() + " with four times the paths");
            }
        }
    }

    private static double[] picture(RenderScene s, boolean guided, long seed, int passes) {
        int w = 48, h = 32;
        Film f = Film.merged(w, h, s.lights().groups().size());
        try (Workers workers = new Workers(2)) {
            Camera c = new Camera(new Vec3(0.6, 0.5, 1.5), new Vec3(3.5, 3.9, 1), 22, 8, 0.01, 100, 5, false, true, 0, 0);
            Renderer r = new Renderer(s, c, new PathSettings(1, 0, seed, guided, PixelFilter.TENT).withExchange(false), f, Region.all(w, h),
                    workers);
            for (int p = 0; p < passes; p++) r.pass(p, workers, () -> false);
        }
        double[] out = new double[w * h];
        float[] c = new float[3];
        for (int i = 0; i < out.length; i++) {
            f.mean(i % w, i / w, null, c);
            out[i] = 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
        }
        return out;
    }

    private static double[] compare(double[] a, double[] b) {
        double mean = 0, square = 0;
        for (int i = 0; i < a.length; i++) {
            mean += (a[i] + b[i]) / 2 / a.length;
            square += (a[i] - b[i]) * (a[i] - b[i]) / 2 / a.length;
        }
        return new double[] {mean, square / mean / mean};
    }

    /**
     * Light straight from the sky, at as many passes: what is learnt without any portal comes near to what a portal gives, and all means
     * agree.
     */
    @Test
    @Tag("thorough")
    void theLightGuideAlone() {
        RenderScene none = RenderScene.compile(room(List.of()), ForkJoinPool.commonPool()),
                with = RenderScene.compile(room(List.of(WINDOW)), ForkJoinPool.commonPool());
        double[] whole = compare(picture(none, false, 1, 64), picture(none, false, 2, 64)),
                guide = compare(picture(none, true, 3, 64), picture(none, true, 4, 64)),
                portal = compare(picture(with, true, 5, 64), picture(with, true, 6, 64));
        double[] unlearnt = compare(picture(with, false, 5, 64), picture(with, false, 6, 64));
        assertTrue(portal[1] < 0.9 * unlearnt[1], "learnt " + portal[1] + ", unlearnt " + unlearnt[1]);
        double tolerance = 3.5 * Math.sqrt(whole[1] / (2 * 48 * 32)) + 0.002;
        assertEquals(1, guide[0] / whole[0], tolerance);
        assertEquals(1, portal[0] / whole[0], tolerance);
        assertTrue(portal[1] * 3 < whole[1], "portal " + portal[1] + ", whole " + whole[1]);
        // So small a picture teaches little; what it is worth in a real one is measured by a bench.
        assertTrue(guide[1] * 1.3 < whole[1], "guide " + guide[1] + ", portal " + portal[1] + ", whole " + whole[1]);
    }

    /** Openings of portals alone leave glass out, and glass near a portal is left to it. */
    @Test
    void portalsAndGlass() {
        TestScene s = new TestScene();
        int glass = s.material(Material.glass("glass", grey(1), 0, 1.52, true));
        s.add(Shapes.quad("near", 0.7, 0.7, glass), bake.core.math.Affine.pointing(new Vec3(2.4, -0.1, 1.4), new Vec3(0, 1, 0)))
                .add(Shapes.quad("far", 1, 1, glass), bake.core.math.Affine.pointing(new Vec3(9, 0, 1), new Vec3(0, 1, 0)));
        RenderScene r = RenderScene.compile(s.around(100).scene().withPortals(List.of(WINDOW)), ForkJoinPool.commonPool());
        assertEquals(2, r.openings().count(), "the portal, and the glass that it does not cover");
        assertEquals(1, Openings.of(List.of(WINDOW), r.geometry(), r.surfaces(), ForkJoinPool.commonPool()).count());
    }
}
