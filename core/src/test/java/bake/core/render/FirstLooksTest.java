package bake.core.render;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.LightPart;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.work.Workers;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Edges of what glows are known from looks: nearly without noise after one pass, with the same mean, whatever is kept apart. */
class FirstLooksTest {
    private static final int W = 48, H = 32;

    /** A glowing panel, turned so that its edges cross pixels anywhere, before a wall that is lit by it. */
    private static TestScene panel() {
        TestScene s = new TestScene().around(1);
        int glow = s.material(Material.glowing("glow", new Vec3(4000, 3000, 2000))), wall = s.material(Material.diffuse("wall",
                new Vec3(0.5, 0.5, 0.5)));
        s.add(Shapes.quad("panel", 0.9, 0.7, glow), Affine.pointing(new Vec3(0, 0, 1), new Vec3(0.2, -1, 0.15)));
        return s.add(Shapes.quad("wall", 6, 6, wall), Affine.pointing(new Vec3(0, 1, 1), new Vec3(0, -1, 0)));
    }

    private static final Camera CAMERA = Camera.of(new Vec3(0, -3, 1), new Vec3(0, 0, 1), 30).withEv(9);

    private static Film film(TestScene s, Film film, PixelFilter filter, Region r, int passes) {
        try (Workers w = new Workers(2)) {
            Renderer t = new Renderer(s.compile(), CAMERA, new PathSettings(2, 0, 7, false, filter), film, r, w);
            for (int p = 0; p < passes; p++) t.pass(p, w, () -> false);
        }
        return film;
    }

    private static Film merged(PixelFilter filter, int passes) {
        TestScene s = panel();
        return film(s, Film.merged(W, H, s.compile().lights().groups().size()), filter, Region.all(W, H), passes);
    }

    @Test
    void edgesAreKnownBeforeTheLightIs() {
        known(merged(PixelFilter.TENT, 2), merged(PixelFilter.TENT, 500));
    }

    /** Two grey panes, of which the second mirrors or is passed by chance, take the same from looks and from paths. */
    @Tag("thorough")
    @Test
    void edgesBehindPanesAreKnownToo() {
        known(behindPanes(2), behindPanes(500));
    }

    private static Film behindPanes(int passes) {
        TestScene s = panel();
        int pane = s.material(Material.glass("pane", new Vec3(0.8, 0.9, 0.85), 0, 1.5, true));
        for (double y = -2; y < -1.8; y += 0.1)
            s.add(Shapes.quad("pane", 6, 6, pane), Affine.pointing(new Vec3(0, y, 1), new Vec3(0.1, -1, 0)));
        return film(s, Film.merged(W, H, s.compile().lights().groups().size()), PixelFilter.TENT, Region.all(W, H), passes);
    }

    private static void known(Film few, Film many) {
        float[] a = new float[3], b = new float[3];
        double off = 0, mean = 0;
        int n = 0;
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                if (!few.keepsGlow(x, y)) continue;
                few.mean(x, y, null, a);
                many.mean(x, y, null, b);
                off += Math.pow(a[1] - b[1], 2);
                mean += a[1] - b[1];
                n++;
            }
        assertTrue(n > 60 && n < W * H / 2, "edges only: " + n);
        // Two samples of something that is there or not are off by a quarter of 3000 cd/m2 and more.
        assertTrue(Math.sqrt(off / n) < 150, "off by " + Math.sqrt(off / n));
        assertEquals(0, mean / n, 25, "the mean is the same");
        // What it says of its own noise holds as well.
        double said = 0;
        for (int y = 0; y < H; y++) for (int x = 0; x < W; x++) if (few.keepsGlow(x, y)) said += few.variance(x, y) / n;
        assertTrue(Math.sqrt(said) < 200, "said " + Math.sqrt(said));
    }

    /** What pixels at edges show is known before the first pass, and a region's in the same way as the whole's. */
    @Test
    void edgesAreLookedAtMoreOften() {
        Film whole = merged(PixelFilter.TENT, 1), many = merged(PixelFilter.TENT, 200);
        Region r = new Region(9, 7, 21, 16);
        Film part = film(panel(), Film.merged(W, H, panel().compile().lights().groups().size()), PixelFilter.TENT, r, 1);
        float[] a = new float[7], b = new float[7];
        int few = 0, often = 0;
        double off = 0;
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                whole.features(x, y, a);
                if (whole.looks(x, y) == 2) few++;
                else {
                    often++;
                    many.features(x, y, b);
                    off += Math.abs(a[0] - b[0]);
                }
                if (!r.contains(x, y)) continue;
                assertEquals(whole.looks(x, y), part.looks(x, y));
                part.features(x, y, b);
                assertEquals(a[6], b[6], "at " + x + ", " + y);
            }
        assertTrue(often > 60 && few > 2 * often, few + " in the flat, " + often + " at edges");
        // A sample alone is off by a third and more of what the base colours differ by.
        assertTrue(off / often < 0.05, "off by " + off / often);
    }

    /** Kept apart by source and by way it adds up; a region is the same as in the whole; what takes light away is left alone. */
    @Test
    void whateverIsKeptApart() {
        TestScene s = panel();
        int groups = s.compile().lights().groups().size();
        Film whole = merged(PixelFilter.TENT, 4);
        Film split = film(s, Film.split(W, H, groups, LightPart.COUNT, Film.Split.BOTH), PixelFilter.TENT, Region.all(W, H), 4);
        Film part = film(s, Film.merged(W, H, groups), PixelFilter.TENT, new Region(10, 8, 20, 14), 4);
        float[] a = new float[3], b = new float[3];
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                whole.mean(x, y, null, a);
                split.mean(x, y, null, b);
                assertEquals(a[1], b[1], 1e-3 * a[1] + 1e-3);
                if (x < 10 || y < 8 || x >= 30 || y >= 22) continue;
                part.mean(x, y, null, b);
                assertEquals(a[0], b[0]);
            }
        Film sharp = merged(new PixelFilter(PixelFilter.Shape.MITCHELL_NETRAVALI, 2), 1);
        for (int y = 0; y < H; y++) for (int x = 0; x < W; x++) assertTrue(!sharp.keepsGlow(x, y));
    }
}
