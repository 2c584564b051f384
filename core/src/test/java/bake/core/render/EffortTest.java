package bake.core.render;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.PathSettings;
import bake.core.scene.Camera;
import bake.core.scene.Effort;
import bake.core.scene.Material;
import bake.core.scene.Scene;
import bake.core.scene.Shapes;
import bake.core.work.Workers;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** More paths where something ends, and where a thing is seen that more is done for. */
class EffortTest {
    private static final int W = 48, H = 36;
    private static final Camera CAMERA = Camera.of(new Vec3(0, -4, 0.5), new Vec3(0, 0, 0.5), 35).withEv(8);

    /** Glowing slats, turned a little, before a wall. */
    private static TestScene slats() {
        TestScene s = new TestScene().around(50);
        int glow = s.material(Material.glowing("slat", grey(800))), wall = s.material(Material.diffuse("wall", grey(0.5)));
        for (int i = 0; i < 6; i++) s.add(Shapes.box("slat " + i, -1.5, -0.01, -0.02, 1.5, 0.01, 0.02, glow),
                Affine.translation(0, 0, i * 0.21).times(Affine.rotation(new Vec3(0, 1, 0), 0.13)));
        return s.add(Shapes.box("wall", -3, 1, -1, 3, 1.1, 3, wall));
    }

    private static Film render(RenderScene s, PathSettings p, Region region, int threads, int passes) {
        Film film = Film.merged(W, H, s.lights().groups().size());
        try (Workers w = new Workers(threads)) {
            Renderer r = new Renderer(s, CAMERA, p, film, region, w);
            for (int k = 0; k < passes; k++) assertTrue(r.pass(k, w, () -> false));
        }
        return film;
    }

    private static double[] luminance(Film f) {
        double[] out = new double[W * H];
        float[] c = new float[3];
        for (int i = 0; i < out.length; i++) {
            f.mean(i % W, i / W, 0, c);
            out[i] = 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
        }
        return out;
    }

    private static double error(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) sum += (a[i] - b[i]) * (a[i] - b[i]);
        return Math.sqrt(sum / a.length);
    }

    private static PathSettings settings(int edges, long seed) {
        return new PathSettings(2, 0, seed).withEdges(edges);
    }

    /** With a filter for which what glows is not looked at beforehand: here paths alone are to make edges smooth. */
    private static PathSettings sharp(int edges, long seed) {
        return new PathSettings(2, 0, seed, true, new PixelFilter(PixelFilter.Shape.MITCHELL_NETRAVALI, 2)).withEdges(edges);
    }

    @Tag("thorough")
    @Test
    void edgesGetSmootherAndTheMeanStays() {
        RenderScene s = slats().compile();
        Region all = Region.all(W, H);
        double[] truth = luminance(render(s, sharp(1, 9), all, 2, 120));
        Film fine = render(s, sharp(4, 1), all, 2, 4);
        double plain = error(luminance(render(s, sharp(1, 1), all, 2, 4)), truth), four = error(luminance(fine), truth);
        assertTrue(four < 0.65 * plain, "error with four paths at edges " + four + ", with one " + plain);
        int edges = 0, even = 0;
        for (int i = 0; i < W * H; i++) if (fine.samples(i % W, i / W) == 16) edges++;
        else {
            assertEquals(4, fine.samples(i % W, i / W));
            even++;
        }
        assertTrue(edges > 120 && even > edges / 4, edges + " pixels with edges, " + even + " without");
        double mean = 0, want = 0;
        double[] many = luminance(render(s, sharp(6, 5), all, 2, 20));
        for (int i = 0; i < many.length; i++) {
            mean += many[i];
            want += truth[i];
        }
        assertEquals(1, mean / want, 0.015);
    }

    /** In pieces, with other threads, and gone on with: the same bits. */
    @Test
    void nothingElseDecidesOnThePicture() {
        RenderScene s = slats().compile();
        PathSettings p = settings(3, 4);
        double[] whole = luminance(render(s, p, Region.all(W, H), 2, 3)), alone = luminance(render(s, p, Region.all(W, H), 1, 3));
        assertArrayEquals(whole, alone);
        Region part = new Region(13, 7, 20, 11);
        double[] piece = luminance(render(s, p, part, 2, 3));
        for (int i = 0; i < piece.length; i++) assertEquals(part.contains(i % W, i / W) ? whole[i] : 0, piece[i]);
        Film film = Film.merged(W, H, s.lights().groups().size());
        try (Workers w = new Workers(2)) {
            for (int k = 0; k < 3; k++) assertTrue(new Renderer(s, CAMERA, p, film, Region.all(W, H), w).pass(k, w, () -> false));
        }
        assertArrayEquals(whole, luminance(film));
    }

    /** A material, and an instance, that more is done for. */
    @Test
    void singleThings() {
        Scene plain = slats().scene();
        Effort five = new Effort(5, 0, Effort.ALL), edge = new Effort(1, 3, Effort.ALL);
        Scene s = plain.withEfforts(new Effort.Table(List.of(Effort.USUAL, five), List.of()));
        Film f = render(RenderScene.compile(s, ForkJoinPool.commonPool()), settings(1, 1), Region.all(W, H), 2, 1);
        assertEquals(5, f.samples(W / 2, 1), "the wall above the slats");
        Scene slat = plain.withEfforts(new Effort.Table(List.of(), List.of(edge, Effort.USUAL, Effort.USUAL, Effort.USUAL, Effort.USUAL,
                Effort.USUAL, Effort.USUAL)));
        Film g = render(RenderScene.compile(slat, ForkJoinPool.commonPool()), settings(1, 1), Region.all(W, H), 2, 1);
        int three = 0;
        for (int i = 0; i < W * H; i++) if (g.samples(i % W, i / W) == 3) three++;
        assertTrue(three > 25 && three < 200, three + " pixels at the edges of one slat");
        assertThrows(IllegalArgumentException.class, () -> new Effort(0, 0, 1));
        assertThrows(IllegalArgumentException.class, () -> new Effort(1, 17, 1));
    }

    /** Two mirrors that face each other: without reflections from the first the second shows only its own light. */
    @Test
    void reflectionsEnd() {
        TestScene t = new TestScene().around(0);
        int mirror = t.material(Material.metal("mirror", grey(1), 0)), glow = t.material(Material.glowing("lamp", grey(900)));
        // From the camera over the first mirror to the second, and from there to the lamp behind the camera.
        t.add(Shapes.quad("first", 8, 8, mirror), Affine.translation(0, 4, 0).times(Affine.rotation(new Vec3(1, 0, 0), Math.PI / 4)));
        t.add(Shapes.quad("second", 8, 8, mirror), Affine.translation(0, 4, 8).times(Affine.rotation(new Vec3(1, 0, 0), 3 * Math.PI / 4)));
        t.add(Shapes.box("lamp", -20, -20.1, -20, 20, -20, 20, glow));
        double free = 0, none = 0, one = 0;
        for (int limit : new int[] {Effort.ALL, 0, 1}) {
            Scene s = t.scene().withEfforts(limit == Effort.ALL ? Effort.Table.NONE
                    : new Effort.Table(List.of(new Effort(1, 0, limit), Effort.USUAL), List.of()));
            double[] l = luminance(render(RenderScene.compile(s, ForkJoinPool.commonPool()), settings(1, 1), Region.all(W, H), 2, 2));
            double middle = l[H / 2 * W + W / 2];
            if (limit == 0) none = middle;
            else if (limit == 1) one = middle;
            else free = middle;
        }
        assertEquals(900, free, 1);
        assertEquals(free, one, 1e-6);
        assertEquals(0, none, 1e-6);
    }
}
