package bake.studio.render;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Look;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.picture.ExrFile;
import bake.formats.picture.ExrRows;
import bake.formats.picture.Raster;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.project.Settings;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Pictures that go on after a stop, and pictures made in bands: both end with the bits of one made at once. */
class CheckpointTest {
    @TempDir
    Path dir;

    /** A small room whose window is a pane, so that the sky guide is at work too. */
    private Project project() throws IOException {
        Files.writeString(dir.resolve("project.json"), """
            {"bake": 1, "name": "room", "place": {"latitude": 48, "longitude": 11, "zone": "+01:00", "north": 0},
             "materials": [{"name": "wall", "base": [0.7, 0.6, 0.5], "ior": 1}, {"name": "glass", "base": [1, 1, 1], "transmission": 1, "thin": true, "roughness": 0}],
             "shapes": [
              {"name": "floor", "type": "quad", "size": [4, 4], "center": [0, 0, 0], "material": "wall"},
              {"name": "back", "type": "quad", "size": [4, 4], "center": [0, 2, 1.5], "normal": [0, -1, 0], "material": "wall"},
              {"name": "pane", "type": "quad", "size": [4, 3], "center": [-2, 0, 1.5], "normal": [1, 0, 0], "material": "glass"}],
             "views": [{"name": "One", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "setting": "interior", "size": [48, 30],
              "around": {"kind": "sun and sky", "date": "2026-06-21", "time": "15:00"}}]}
            """);
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private RenderJob.Order order(Project p, int samples, long seed) {
        View v = p.views().getFirst();
        return new RenderJob.Order(v.name(), v.camera().camera(), Look.PLAIN,
                Preset.of("p", 1, "final", "interior", 0, 0, 0, samples, 6, 0.3, true), 48, 30, null, seed, false);
    }

    private RenderScene scene(Project p) throws IOException {
        return RenderScene.compile(new SceneAssembly(dir).scene(p, p.views().getFirst()), Workers.COMPILING);
    }

    private static float[] pixels(Film f) {
        float[] out = new float[3 * f.width() * f.height()], c = new float[3];
        for (int i = 0; i < f.width() * f.height(); i++) {
            f.mean(i % f.width(), i / f.width(), null, c);
            System.arraycopy(c, 0, out, 3 * i, 3);
        }
        return out;
    }

    @Test
    void goesOnToTheSameBits() throws IOException {
        Project p = project();
        RenderScene s = scene(p);
        Path file = Checkpoint.beside(dir.resolve("a.png"));
        assertEquals("a.png.unfinished", file.getFileName().toString());
        try (Workers w = new Workers(2)) {
            RenderJob once = new RenderJob(s, order(p, 24, 5), w);
            once.run(g -> {});
            RenderJob first = new RenderJob(s, order(p, 24, 5), w);
            first.keepIn(new Checkpoint(file, Checkpoint.identity(p, dir, p.views().getFirst(), order(p, 24, 5)), e -> {
                throw new IllegalStateException(e);
            }));
            first.run(g -> {
                if (g.passes() == 8) first.saveSoon();
                if (g.passes() == 11) first.stop();
            });
            assertEquals(RenderJob.State.STOPPED, first.state());
            // More passes are asked for now: limits are no part of what a picture is.
            RenderJob second = new RenderJob(s, order(p, 24, 5), w);
            Checkpoint c = new Checkpoint(file, Checkpoint.identity(p, dir, p.views().getFirst(), order(p, 999, 5)), e -> {});
            assertTrue(c.exists());
            second.keepIn(c);
            second.run(g -> {});
            assertEquals(9, second.resumedAt());
            assertEquals(24, second.progress().passes());
            assertArrayEquals(pixels(once.film()), pixels(second.film()), 0);
            assertTrue(once.clampedShare() > 0);
            assertEquals(once.clampedShare(), second.clampedShare(), 1e-6 * once.clampedShare(), "what was clamped before counts too");
            assertTrue(second.progress().rays() >= once.progress().rays(), "and so do the rays");
            assertTrue(Files.exists(file), "until the picture is in its file it is needed");
            second.written();
            assertFalse(Files.exists(file), "a picture that is done needs none");
        }
    }

    @Test
    void belongsToOnePictureOnly() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        String one = Checkpoint.identity(p, dir, v, order(p, 4, 1));
        assertEquals(one, Checkpoint.identity(p.withName("other"), dir, v, order(p, 99, 1)));
        assertNotEquals(one, Checkpoint.identity(p, dir, v, order(p, 4, 2)));
        Path model = Files.createDirectories(dir.resolve("model"));
        Project withModel = p.withModels(java.util.List.of(Project.ModelRef.of("model/a.gltf")));
        String before = Checkpoint.identity(withModel, dir, v, order(p, 4, 1));
        Files.writeString(model.resolve("a.bin"), "buffers belong to the picture too");
        assertNotEquals(before, Checkpoint.identity(withModel, dir, v, order(p, 4, 1)));
        assertNotEquals(one, Checkpoint.identity(Settings.set(p, "shapes[0].size=[4,5]"), dir, v, order(p, 4, 1)));
        RenderScene s = scene(p);
        Path file = dir.resolve("x.unfinished");
        try (Workers w = new Workers(1)) {
            RenderJob j = new RenderJob(s, order(p, 3, 1), w);
            j.keepIn(new Checkpoint(file, one, e -> {}));
            j.run(g -> {
                if (g.passes() == 1) j.saveSoon();
                if (g.passes() == 2) j.stop();
            });
            assertTrue(Files.exists(file));
            RenderJob other = new RenderJob(s, order(p, 3, 2), w);
            other.keepIn(new Checkpoint(file, "another picture", e -> {}));
            other.run(g -> {});
            assertEquals(0, other.resumedAt());
            byte[] all = Files.readAllBytes(dir.resolve("project.json"));
            Files.write(file, all);
            assertFalse(new Checkpoint(file, one, e -> {}).exists());
        }
    }

    @Test
    void brokenFilesAreSaidToBe() throws IOException {
        Project p = project();
        RenderScene s = scene(p);
        Path file = dir.resolve("x.unfinished");
        String id = Checkpoint.identity(p, dir, p.views().getFirst(), order(p, 9, 1));
        try (Workers w = new Workers(1)) {
            RenderJob j = new RenderJob(s, order(p, 9, 1), w);
            j.keepIn(new Checkpoint(file, id, e -> {}));
            j.run(g -> {
                if (g.passes() == 1) j.saveSoon();
                if (g.passes() == 3) j.stop();
            });
            byte[] all = Files.readAllBytes(file);
            Files.write(file, java.util.Arrays.copyOf(all, all.length / 2));
            RenderJob again = new RenderJob(s, order(p, 9, 1), w);
            again.keepIn(new Checkpoint(file, id, e -> {}));
            FormatException e = assertThrows(FormatException.class, () -> again.run(g -> {}));
            assertTrue(e.getMessage().contains("x.unfinished") && e.getMessage().contains("delete"), e.getMessage());
        }
    }

    /** Bands of 16 rows against the whole, read back by an independent library. */
    @Test
    void bandsAreThePicture() throws IOException {
        Project p = project();
        RenderScene s = scene(p);
        try (Workers w = new Workers(2)) {
            RenderJob once = new RenderJob(s, order(p, 6, 3), w);
            once.run(g -> {});
            double[] last = {0};
            RenderJob.Progress g = new BandedRender(s, order(p, 6, 3), null, w).run(dir.resolve("b.exr"), "id", 1, x -> {
                assertTrue(x.fraction() >= last[0] - 1e-9, "goes forward");
                last[0] = x.fraction();
            });
            assertEquals(6, g.passes());
            assertEquals(1, last[0], 1e-9);
            Raster r = ExrFile.read(dir.resolve("b.exr"));
            float[] whole = pixels(once.film());
            for (int i = 0; i < whole.length; i++) assertEquals(Float.float16ToFloat(Float.floatToFloat16(whole[i])), r.rgb()[i], 0);
            FormatException e = assertThrows(FormatException.class, () ->
                    new BandedRender(s, order(p, 1, 3), null, w).run(dir.resolve("b.png"), "id", 1, x -> {}));
            assertTrue(e.getMessage().contains(".exr"));
        }
        assertTrue(BandedRender.needed(20_000, 14_000, 2L << 30) && !BandedRender.needed(4000, 2250, 2L << 30));
        assertEquals(16, BandedRender.rows(20_000, 1));
        // Whatever the width, a band keeps to its memory.
        assertTrue((long) BandedRender.rows(20_000, 500 << 20) * 20_000 * Film.bytesPerPixel(1) <= 500L << 20);
    }

    /** Stopped after some bands, with a torn end, the picture goes on and is the same; another picture's bands are not used. */
    @Test
    void bandsGoOn() throws IOException {
        Project p = project();
        RenderScene s = scene(p);
        Path f = dir.resolve("c.exr"), kept = Checkpoint.beside(f);
        try (Workers w = new Workers(2)) {
            new BandedRender(s, order(p, 2, 3), null, w).run(dir.resolve("once.exr"), "id", 1, x -> {});
            BandedRender first = new BandedRender(s, order(p, 2, 3), null, w);
            RenderJob.Progress stopped = first.run(f, "id", 1, x -> {
                if (x.fraction() > 0.6) first.stop();
            });
            assertEquals(RenderJob.State.STOPPED, stopped.state());
            assertTrue(stopped.fraction() > 0 && stopped.fraction() < 1 && !Files.exists(f));
            long whole = Files.size(kept);
            Files.write(kept, new byte[] {16, 0, 0, 0, 2, 0, 0, 0, 1, 2, 3}, java.nio.file.StandardOpenOption.APPEND);
            double[] least = {1};
            new BandedRender(s, order(p, 2, 3), null, w).run(f, "id", 1, x -> least[0] = Math.min(least[0], x.fraction()));
            assertTrue(least[0] > stopped.fraction(), "what was done is not done again");
            assertTrue(!Files.exists(kept) && whole > 0);
            org.junit.jupiter.api.Assertions.assertArrayEquals(ExrFile.read(dir.resolve("once.exr")).rgb(), ExrFile.read(f).rgb());
            BandedRender third = new BandedRender(s, order(p, 2, 3), null, w);
            third.run(f, "id", 1, x -> {
                if (x.fraction() > 0.6) third.stop();
            });
            new BandedRender(s, order(p, 2, 3), null, w).run(f, "another", 1, x -> least[0] = Math.min(least[0], x.fraction()));
            assertTrue(least[0] < stopped.fraction(), "another picture begins anew");
        }
    }

    /** Rows of any number and width, noise and flat, come back as they were. */
    @Test
    void rowsAreReadBack() throws IOException {
        SplittableRandom random = new SplittableRandom(8);
        for (int[] size : new int[][] {{1, 1}, {7, 16}, {33, 17}, {5, 40}}) {
            Path f = dir.resolve("r.exr");
            float[][] rows = new float[size[1]][3 * size[0]];
            try (ExrRows out = new ExrRows(f, size[0], size[1], ExrRows.colours(false, true), bake.formats.picture.ExrNotes.PLAIN)) {
                for (float[] row : rows) {
                    for (int i = 0; i < row.length; i++) row[i] = size[0] == 5 ? 0.25f : (float) random.nextDouble(0, 1e5);
                    out.row(row);
                }
                out.finish();
            }
            Raster r = ExrFile.read(f);
            assertEquals(size[0], r.width());
            for (int y = 0; y < size[1]; y++)
                for (int i = 0; i < 3 * size[0]; i++)
                    assertEquals(Float.float16ToFloat(Float.floatToFloat16(Math.min(65_504f, rows[y][i]))), r.rgb()[3 * size[0] * y + i],
                            0);
        }
        try (ExrRows out = new ExrRows(dir.resolve("never.exr"), 4, 4, ExrRows.colours(false, true), bake.formats.picture.ExrNotes.PLAIN)) {
            out.row(new float[12]);
            assertThrows(IllegalStateException.class, out::finish);
        }
        assertFalse(Files.exists(dir.resolve("never.exr")));
        try (var left = Files.list(dir)) {
            assertTrue(left.noneMatch(x -> x.toString().endsWith(".part")), "nothing is left behind");
        }
    }

    /** A film that keeps a part of the picture holds the same there as one that keeps all. */
    @Test
    void filmsOfAPart() {
        Film whole = Film.merged(20, 10, 2), part = new Film(20, 10, new int[2], new Region(5, 3, 6, 4));
        SplittableRandom r = new SplittableRandom(3);
        float[] g = new float[6], a = new float[3], b = new float[3];
        for (int y = 3; y < 7; y++)
            for (int x = 5; x < 11; x++)
                for (int k = 0; k < 3; k++) {
                    for (int i = 0; i < 6; i++) g[i] = (float) r.nextDouble();
                    whole.add(x, y, g);
                    part.add(x, y, g);
                }
        assertEquals(whole.samples(), part.samples());
        assertArrayEquals(whole.planeLuminance(), part.planeLuminance(), 1e-12);
        for (int y = 3; y < 7; y++)
            for (int x = 5; x < 11; x++) {
                whole.mean(x, y, null, a);
                part.mean(x, y, null, b);
                assertArrayEquals(a, b);
                assertEquals(whole.variance(x, y), part.variance(x, y), 0);
            }
    }
}
