package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.light.LightTable;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Outlook;
import bake.core.scene.Panorama;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What is seen behind the model and in its mirrors, and surfaces that catch shadows. */
class OutlookTest {
    private static final int W = 24, H = 16;
    private static final Surroundings.SunSky SUNNY = new Surroundings.SunSky(new Vec3(0.5, -0.4, 0.6).normalized(), 3, 0, 0, 0.533, 0.2);

    /** Luminance by colour that depends on the direction, told by {@code seed}. */
    private static Surroundings.Hdri pano(int seed) {
        int w = 128, h = 64;
        float[] rgb = new float[3 * w * h];
        for (int y = 0; y < h; y++)
            for (int x = 0; x < w; x++)
                for (int c = 0; c < 3; c++) rgb[3 * (y * w + x) + c] =
                        (float) (1000 * (2 + Math.sin(2 * Math.PI * x / w + c + seed) + (y < h / 2 ? 2 : 0.3 * Math.cos(5.0 * y / h))));
        return new Surroundings.Hdri(new Panorama("p" + seed, w, h, rgb), 0, 0);
    }

    private static Film render(RenderScene scene, Camera c, int passes) {
        Film film = Film.byGroup(W, H, scene.lights().groups().size());
        try (Workers w = new Workers(2)) {
            Renderer r = new Renderer(scene, c, new PathSettings(6, 0, 7), film, Region.all(W, H), w);
            for (int p = 0; p < passes; p++) assertTrue(r.pass(p, w, () -> false));
        }
        return film;
    }

    private static RenderScene with(TestScene s, Outlook o) {
        return RenderScene.compile(s.scene().withOutlook(o), null, Workers.COMPILING);
    }

    private static Camera down() {
        return Camera.of(new Vec3(0, -6, 3), new Vec3(0, 0, 0), 28).withEv(13);
    }

    private static double[] mean(Film f, float[] gains, int x0, int y0, int x1, int y1) {
        double[] out = new double[3];
        float[] c = new float[3];
        for (int y = y0; y < y1; y++)
            for (int x = x0; x < x1; x++) {
                f.mean(x, y, gains, c);
                for (int k = 0; k < 3; k++) out[k] += c[k] / ((x1 - x0) * (y1 - y0));
            }
        return out;
    }

    private static TestScene ground(Surroundings s, double tilt) {
        TestScene t = new TestScene().around(s);
        int m = t.material(Material.diffuse("ground", grey(0.4)).withCatcher(true));
        return t.add(Shapes.quad("ground", 400, 400, m), Affine.rotation(new Vec3(1, 0, 0), tilt));
    }

    /**
     * Where nothing throws a shadow a shadow catcher is not to be seen, on level ground and on a slope, under a sun and under a panorama.
     */
    @Test
    @Tag("thorough")
    void openCatcherLooksLikeWhatIsBehind() {
        Outlook o = new Outlook(new Outlook.Far(pano(5)), null, true);
        for (Surroundings s : new Surroundings[] {SUNNY, pano(2)})
            for (double tilt : new double[] {0, 0.3}) {
                Film caught = render(with(ground(s, tilt), o), down(), 200), bare = render(with(new TestScene().around(s), o), down(), 8);
                double[] a = mean(caught, null, 0, 8, W, H), b = mean(bare, null, 0, 8, W, H);
                for (int k = 0; k < 3; k++) assertEquals(b[k], a[k], 0.006 * b[k], s.getClass().getSimpleName() + " tilted by " + tilt);
                double cover = 0;
                for (int x = 0; x < W; x++) cover += caught.cover(x, 12) / W;
                assertEquals(0, cover, 0.03, "nothing is covered");
            }
    }

    /**
     * In the shadow of something black is left what the rest of the surroundings sheds; the cover says so, and what bounces is another
     * group's.
     */
    @Tag("thorough")
    @Test
    void shadowIsTheShareOfLightThatIsLeft() {
        // A wide black sheet over the ground takes the sun and most of the sky.
        TestScene t = ground(SUNNY, 0);
        int black = t.material(Material.diffuse("black", grey(0)));
        t.add(Shapes.quad("sheet", 6, 6, black), Affine.translation(0, 0, 1.2).times(Affine.rotation(new Vec3(1, 0, 0), Math.PI)));
        RenderScene scene = with(t, new Outlook(new Outlook.Far(new Surroundings.Plain(grey(3000))), null, true));
        Camera under = Camera.of(new Vec3(0.6, -0.6, 0.5), new Vec3(0, 0.001, 0), 50).withEv(13);
        Film f = render(scene, under, 300);
        var open = new LightMeter(new TestScene().around(SUNNY).compile(), 4).measure(new Vec3(0, 0, 0), Vec3.UP, 1 << 16, 3, 0);
        var left = new LightMeter(scene, 0).measure(new Vec3(0, 0, 1e-3), Vec3.UP, 1 << 16, 3, 0);
        double share = left.lux() / open.lux();
        assertTrue(share < 0.2, "most is taken: " + share);
        float[] c = new float[3];
        double l = 0, cover = 0;
        // Some centimetres around the middle.
        for (int y = H / 2 - 3; y < H / 2 + 3; y++)
            for (int x = W / 2 - 4; x < W / 2 + 4; x++) {
                f.mean(x, y, scene.lights().backdropGroup(), c);
                l += (0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2]) / 48;
                cover += f.cover(x, y) / 48;
            }
        assertEquals(3000 * share, l, 0.02 * 3000 * share);
        assertEquals(1 - share, cover, 0.005);
    }

    /** Light of a lamp and light off a red wall come on top of what is behind, in groups of their own. */
    @Test
    void bounceIsAdded() {
        TestScene t = ground(pano(2), 0);
        int red = t.material(Material.diffuse("red", new Vec3(0.8, 0.02, 0.02)));
        t.add(Shapes.box("wall", -3, 0.8, 0, 3, 1, 3, red));
        RenderScene scene = with(t, new Outlook(null, null, true));
        Film f = render(scene, down(), 200);
        float[] bounced = new float[3 * scene.lights().groups().size()];
        for (int i = 0; i < 3 * scene.lights().backdropGroup(); i++) bounced[i] = 1;
        double[] c = mean(f, bounced, W / 2 - 2, 9, W / 2 + 2, 11);
        assertTrue(c[0] > 8 * c[2] && c[0] > 10, "red light on the ground before the wall: " + c[0] + " " + c[2]);
        assertEquals("Backdrop", scene.lights().groups().get(scene.lights().backdropGroup()));
    }

    /**
     * Lamps light a catcher by its own base colour, on what lies behind it: by day, before a black backdrop, and by night when nothing
     * lights what is behind.
     */
    @Test
    @Tag("thorough")
    void lampsOnCatchers() {
        Surroundings black = new Surroundings.Plain(Vec3.ZERO);
        double[] lamp = new double[3];
        for (int i = 0; i < 3; i++) {
            TestScene t = ground(i == 2 ? black : pano(2), 0);
            t.lamp(new Lamp("l", "Lamps", Lamp.Kind.SPHERE, Affine.translation(0, 0, 2), 0.3, 0.3, 30_000, grey(1), 0, 60, false, false));
            RenderScene s = with(t, new Outlook(new Outlook.Far(i == 1 ? black : new Surroundings.Plain(grey(900))), null, true));
            Film f = render(s, down(), 300);
            float[] only = new float[3 * s.lights().groups().size()], back = new float[only.length];
            java.util.Arrays.fill(only, 3 * s.lights().groups().indexOf("Lamps"), 3 * s.lights().groups().indexOf("Lamps") + 3, 1);
            java.util.Arrays.fill(back, 3 * s.lights().backdropGroup(), 3 * s.lights().backdropGroup() + 3, 1);
            lamp[i] = mean(f, only, W / 2 - 1, H / 2 - 1, W / 2 + 1, H / 2 + 1)[1];
            assertEquals(i == 1 ? 0 : 900, mean(f, back, 0, 10, W, H)[1], i == 1 ? 1 : 15, "what is behind is seen");
            assertEquals(0, f.cover(3, 13), 0.1);
        }
        // A ball of 30,000 lm two metres above: 30,000 / (4 pi 4) lx, off a ground of 0.4; a little less beside the spot below it.
        assertEquals(30_000 / (16 * Math.PI) * 0.4 / Math.PI * 0.97, lamp[2], 0.05 * lamp[2]);
        for (double l : lamp) assertEquals(lamp[2], l, 0.03 * lamp[2]);
    }

    /** Cut-outs, panes and edges cover what they cover; a picture without its backdrop put over it again is the picture. */
    @Test
    void picturesGoTogetherAgain() {
        TestScene t = new TestScene().around(pano(1));
        int wall = t.material(Material.diffuse("wall", grey(0.5))), glass =
                t.material(Material.glass("pane", new Vec3(0.5, 0.5, 0.5), 0, 1.52, true));
        t.add(Shapes.box("wall", -3, 1, 0, -0.5, 1.2, 3, wall)).add(Shapes.quad("pane", 2, 3, glass),
                Affine.translation(1.2, 1, 1).times(Affine.rotation(new Vec3(1, 0, 0), Math.PI / 2)));
        Camera c = Camera.of(new Vec3(0, -4, 1.5), new Vec3(0, 0, 1.4), 30).withEv(11);
        RenderScene apart = with(t, new Outlook(null, null, true));
        Film f = render(apart, c, 150), bare = render(RenderScene.compile(new TestScene().around(pano(1)).scene(), null, Workers.COMPILING),
                c, 150), plain = render(t.compile(), c, 150);
        float[] front = new float[3 * apart.lights().groups().size()], a = new float[3], b = new float[3], whole = new float[3];
        for (int i = 0; i < 3 * apart.lights().backdropGroup(); i++) front[i] = 1;
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                f.mean(x, y, front, a);
                bare.mean(x, y, null, b);
                plain.mean(x, y, null, whole);
                for (int k = 0; k < 3; k++) assertEquals(whole[k], a[k] + (1 - f.cover(x, y)) * b[k], 0.03 * whole[k] + 20,
                        "at " + x + ", " + y);
            }
        double glassy = 0;
        for (int y = 5; y < 9; y++) glassy += f.cover(17, y) / 4;
        assertEquals(1 - 0.5 * bake.core.surface.Fresnel.paneTransmittance(0.95f, 1.52f), glassy, 0.05,
                "a grey pane covers what it swallows and mirrors");
    }

    /** Mirrors show what they are told to, matt surfaces are lit by the light alone, and gloss divides itself between the two. */
    @Test
    void mirrorsShowOtherSurroundings() {
        Outlook red = new Outlook(null, new Outlook.Far(new Surroundings.Plain(new Vec3(1000, 0, 0))), false);
        Camera c = Camera.of(new Vec3(0, -0.01, 4), new Vec3(0, 0, 0), 60).withEv(9);
        for (double rough : new double[] {0, 0.35}) {
            TestScene t = new TestScene().around(new Surroundings.Plain(new Vec3(0, 0, 1000)));
            int m = t.material(Material.glossy("varnish", grey(0.5), rough));
            t.add(Shapes.quad("table", 40, 40, m));
            RenderScene both = with(t, red), lit = t.compile();
            double[] two = mean(render(both, c, 100), null, 0, 0, W, H), one = mean(render(lit, c, 100), null, 0, 0, W, H);
            // A blue body and a red gloss, which together were blue before.
            assertEquals(one[2], two[0] + two[2], 0.01 * one[2]);
            assertEquals(0.04, two[0] / 1000, 0.004, "gloss of index 1.5 from above, roughness " + rough);
        }
        TestScene t = new TestScene().around(new Surroundings.Plain(new Vec3(0, 0, 1000)));
        t.add(Shapes.quad("matt", 40, 40, t.material(Material.diffuse("matt", grey(0.5)))));
        assertEquals(0, mean(render(with(t, red), c, 4), null, 0, 0, W, H)[0], 0);
    }

    /** From the tripod's own lens a grounded panorama is what it is from anywhere when it is far away. */
    @Test
    void groundedFromTheTripod() {
        Surroundings.Hdri p = pano(3);
        Outlook.Ground g = new Outlook.Ground(4, -2, 0.5, 15, 1.6, 0.4, 0.5);
        RenderScene far = with(new TestScene().around(p), new Outlook(new Outlook.Far(p), null, false)),
                near = with(new TestScene().around(p), new Outlook(new Outlook.Grounded(p, g), null, false));
        float[] a = new float[4], b = new float[4];
        for (int i = 0; i < 400; i++) {
            double z = 1 - (i + 0.5) / 200, f = i * 2.39996, r = Math.sqrt(1 - z * z);
            float x = (float) (r * Math.cos(f)), y = (float) (r * Math.sin(f));
            far.scenery().behind(4, -2, 2.1f, x, y, (float) z, 0, 0, a);
            near.scenery().behind(4, -2, 2.1f, x, y, (float) z, 0, 0, b);
            for (int k = 0; k < 3; k++) assertEquals(a[k], b[k], 0.002 * a[k] + 1, "towards " + x + " " + y + " " + z);
        }
    }

    /** A spot on the floor stays where it is, and what is upright on the wall stays upright and straight, wherever the camera goes. */
    @Test
    void groundedStands() {
        Surroundings.Hdri p = pano(3);
        RenderScene near = with(new TestScene().around(p),
                new Outlook(new Outlook.Grounded(p, new Outlook.Ground(0, 0, 0, 10, 1.6, 0.3, 1)), null, false));
        float[] want = new float[4], got = new float[4];
        Vec3[] floor = {new Vec3(3, 2, 0), new Vec3(-5, 1, 0), new Vec3(0.5, -6, 0)};
        for (Vec3 spot : floor)
            for (Vec3 eye : new Vec3[] {new Vec3(0, 0, 1.6), new Vec3(2, 3, 1.2), new Vec3(-4, -4, 4), new Vec3(1, 0, 0.3)}) {
                Vec3 d = spot.minus(eye).normalized(), from = spot.minus(new Vec3(0, 0, 1.6)).normalized();
                near.scenery().behind((float) eye.x(), (float) eye.y(), (float) eye.z(), (float) d.x(), (float) d.y(), (float) d.z(), 0, 0,
                        got);
                p.panorama().at(0);
                with(new TestScene().around(p), Outlook.PLAIN).scenery()
                        .behind(0, 0, 0, (float) from.x(), (float) from.y(), (float) from.z(), 0, 0, want);
                for (int k = 0; k < 3; k++) assertEquals(want[k], got[k], 0.003 * want[k], "spot " + spot + " from " + eye);
            }
        // One azimuth of the panorama, met on the wall at several heights from beside the tripod, lies on one upright line.
        for (double z : new double[] {0.5, 2, 5, 9}) {
            Vec3 onWall = new Vec3(10 * Math.sin(1), 10 * Math.cos(1), z), eye = new Vec3(-3, 4, 1.5), d = onWall.minus(eye).normalized(),
                    from = onWall.minus(new Vec3(0, 0, 1.6)).normalized();
            near.scenery().behind((float) eye.x(), (float) eye.y(), (float) eye.z(), (float) d.x(), (float) d.y(), (float) d.z(), 0, 0,
                    got);
            with(new TestScene().around(p), Outlook.PLAIN).scenery().behind(0, 0, 0, (float) from.x(), (float) from.y(), (float) from.z(),
                    0, 0, want);
            for (int k = 0; k < 3; k++) assertEquals(want[k], got[k], 0.003 * want[k], "at " + z + " m");
        }
        // Across the rim nothing jumps.
        float before = -1;
        for (double r = 5; r < 14; r += 0.01) {
            Vec3 d = new Vec3(0, r, -1.5).normalized();
            near.scenery().behind(0.2f, 0, 1.5f, (float) d.x(), (float) d.y(), (float) d.z(), 0, 0, got);
            if (before >= 0) assertEquals(before, got[1], 0.01 * before);
            before = got[1];
        }
    }

    /** A flat backdrop fills the frame whatever the camera does, shows no sun, and lights nothing. */
    @Test
    void plateFillsTheFrame() {
        float[] rgb = new float[3 * 6 * 4];
        for (int i = 0; i < 24; i++) for (int c = 0; c < 3; c++) rgb[3 * i + c] = 0.1f * (i % 6) + (c == 1 ? 0.05f * (i / 6) : 0);
        Outlook o = new Outlook(new Outlook.Plate(new Panorama("plate", 6, 4, rgb), 2000, 1, 0, 0), null, false);
        Camera atSun = Camera.of(new Vec3(0, 0, 0), SUNNY.toSun(), 60).withEv(12);
        for (Camera c : new Camera[] {down(), atSun}) {
            RenderScene s = with(new TestScene().around(SUNNY), o);
            Film f = render(s, c, 40);
            float[] v = new float[3];
            for (int y = 2; y < H - 2; y += 3)
                for (int x = 2; x < W - 2; x += 3) {
                    f.mean(x, y, null, v);
                    double u = Math.clamp((x + 0.5) / W * 6 - 0.5, 0, 5), w = Math.clamp((y + 0.5) / H * 4 - 0.5, 0, 3);
                    assertEquals(200 * u, v[0], 25, "red at " + x);
                    assertEquals(200 * u + 100 * w, v[1], 35, "green at " + y);
                    assertEquals(0, f.cover(x, y), 1e-4);
                }
            assertTrue(s.lights().groups().contains(LightTable.BACKDROP));
        }
        assertFalse(with(new TestScene().around(SUNNY), Outlook.PLAIN).lights().groups().contains(LightTable.BACKDROP));
    }
}
