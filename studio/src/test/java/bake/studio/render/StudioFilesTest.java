package bake.studio.render;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.project.LampSpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.first.NewProject;
import bake.studio.preset.Presets;
import bake.studio.preset.Shelves;
import bake.studio.project.ProjectSession;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.scene.SceneAssembly;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the studio writes and reads: pictures, proofs, presets, imported models. */
class StudioFilesTest {
    private static final Shelves NO_SHELVES = new Shelves(List.of());

    @TempDir
    Path dir;

    private Project project() throws IOException {
        Files.writeString(dir.resolve("project.json"), StudioTest.ROOM);
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private RenderScene scene(Project p) throws IOException {
        return RenderScene.compile(new SceneAssembly(dir).scene(p, p.views().getFirst()), Workers.COMPILING);
    }

    private static Film render(RenderScene s, View v, Region r, int passes) {
        try (Workers w = new Workers(2)) {
            Film f = Film.byGroup(48, 30, s.lights().groups().size());
            Renderer render = new Renderer(s, v.camera().camera(), new PathSettings(4, 0, 3), f, r, w);
            for (int i = 0; i < passes; i++) assertTrue(render.pass(i, w, () -> false));
            return f;
        }
    }

    /** The kernel that needs no warming makes the same picture, to the bit. */
    @Test
    void quickToStartIsTheSamePicture() throws IOException {
        Project p = project();
        RenderScene s = scene(p);
        Film a = render(s, p.views().getFirst(), Region.all(48, 30), 4),
                b = render(s.quickToStart(Workers.COMPILING), p.views().getFirst(), Region.all(48, 30), 4);
        float[] x = new float[3], y = new float[3];
        for (int i = 0; i < 48 * 30; i++) {
            a.mean(i % 48, i / 48, null, x);
            b.mean(i % 48, i / 48, null, y);
            assertArrayEquals(x, y, "pixel " + i);
        }
    }

    /** Every kind of file holds the region's pixels, and scene light survives in the two that keep it. */
    @Test
    void everyKindOfPicture() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        Region r = new Region(8, 5, 20, 12);
        Film f = render(scene(p), v, r, 6);
        Finish finish = new Finish(v.camera().camera().saturation(), Look.PLAIN);
        for (String ending : PictureOutput.ENDINGS) PictureOutput.write(dir.resolve("p" + ending), f, finish, null, r, false, FileOptions.USUAL.withDpi(150), bake.formats.picture.ExrNotes.PLAIN);
        float[] c = new float[3];
        f.mean(8 + 3, 5 + 7, null, c);
        Raster exr = ExrFile.read(dir.resolve("p.exr")), hdr = HdrFile.read(dir.resolve("p.hdr"));
        assertEquals(20, exr.width());
        assertEquals(12, hdr.height());
        for (int k = 0; k < 3; k++) {
            assertEquals(c[k], exr.rgb()[3 * (7 * 20 + 3) + k], 2e-3 * c[k] + 1e-3, "half float");
            assertEquals(c[k], hdr.rgb()[3 * (7 * 20 + 3) + k], 0.012 * Math.max(c[0], Math.max(c[1], c[2])), "shared exponent");
        }
        BufferedImage png = ImageIO.read(dir.resolve("p.png").toFile());
        assertEquals(20, png.getWidth());
        assertEquals(16, png.getColorModel().getComponentSize(0));
        PictureOutput.writePng8(dir.resolve("p8.png"), f, finish, null, r, false);
        BufferedImage small = ImageIO.read(dir.resolve("p8.png").toFile());
        assertEquals(8, small.getColorModel().getComponentSize(0));
        for (int y = 0; y < 12; y++)
            for (int x = 0; x < 20; x++) for (int shift = 0; shift <= 16; shift += 8)
                assertEquals(png.getRGB(x, y) >> shift & 255, small.getRGB(x, y) >> shift & 255, 1, "16 and 8 bit agree");
        BufferedImage jpeg = ImageIO.read(dir.resolve("p.jpg").toFile());
        assertEquals(small.getRGB(10, 6) >> 8 & 255, jpeg.getRGB(10, 6) >> 8 & 255, 12);
        PictureOutput.write(dir.resolve("p8.tif"), f, finish, null, r, false, new FileOptions(300, 8, 90, false, null, null),
                bake.formats.picture.ExrNotes.PLAIN);
        assertEquals(8, ImageIO.read(dir.resolve("p8.tif").toFile()).getColorModel().getComponentSize(0));
        assertThrows(IllegalArgumentException.class, () -> new FileOptions(0, 8, 90, false, null, null));
        assertThrows(IllegalArgumentException.class, () -> new FileOptions(72, 12, 90, false, null, null));
        FormatException e = assertThrows(FormatException.class, () -> PictureOutput.write(dir.resolve("p.bmp"), f, finish, null, r, false,
                FileOptions.SCREEN, bake.formats.picture.ExrNotes.PLAIN));
        assertTrue(e.getMessage().contains(".png"), e.getMessage());
    }

    @Test
    void presetsSuitTheirView() throws IOException {
        Project p = project();
        View inside = p.views().getFirst(), outside = p.views().get(1);
        assertEquals("Interior test", Presets.named(p, inside, "test", NO_SHELVES).name());
        assertEquals("Exterior final", Presets.named(p, outside, "FINAL", NO_SHELVES).name());
        assertEquals("Exterior test", Presets.named(p, inside, "exterior TEST", NO_SHELVES).name());
        // Outside, what lamps light once the sun is down is another thing; without lamps it is not.
        View dusk = outside.withAround(View.Around.sunAndSky("2027-10-09", "21:05", 2.5)), noon = outside.withAround(
                View.Around.sunAndSky("2027-10-09", "12:00", 2.5));
        Project lit = p.withLamps(List.of(LampSpec.of("bulb", "Bulbs", "point", new double[] {0, 0, 2}, null)));
        assertEquals("Dusk final, lamps only", Presets.suiting(lit, dusk, true).name());
        assertEquals("Dusk test, lamps only", Presets.suiting(lit, dusk, false).name());
        assertEquals("Exterior final", Presets.suiting(lit, noon, true).name());
        assertEquals("Exterior final", Presets.suiting(lit, dusk.withOff(List.of("Bulbs")), true).name());
        assertEquals("Exterior final", Presets.suiting(p.withLamps(List.of()), dusk, true).name());
        IllegalArgumentException e = assertThrows(IllegalArgumentException.class, () -> Presets.named(p, inside, "best", NO_SHELVES));
        assertTrue(e.getMessage().contains("Interior final"), "it says which there are: " + e.getMessage());
        assertArrayEquals(new int[] {640, 400}, Presets.size(Presets.suiting(p, inside, false), inside),
                "a test is as wide as its preset says");
        assertArrayEquals(new int[] {64, 40}, Presets.size(Presets.suiting(p, inside, true), inside), "a final is as large as its view");
        // One of the project's own takes the place of a shipped one of its name.
        Preset mine = Preset.of("Interior test", 7, "test", "interior", 320, 3, 0, 0, 4, 0, true);
        Project q = p.withPresets(List.of(mine));
        assertEquals(7, Presets.named(q, inside, "test", NO_SHELVES).version());
        assertEquals(1, Presets.all(q).stream().filter(x -> x.name().equals("Interior test")).count());
    }

    /** A proof whose file was damaged is passed over, the others stay, and its number is not given again. */
    @Test
    void damagedProofsArePassedOver() throws IOException {
        Project p = project();
        RenderScene s = scene(p);
        ProofStore store = new ProofStore(dir);
        try (Workers w = new Workers(2)) {
            for (int i = 0; i < 3; i++) {
                RenderJob j = new RenderJob(s, new RenderJob.Order("One", p.views().getFirst().camera().camera(), Look.PLAIN,
                        Preset.of("p", 1, "test", "interior", 32, 0, 0, 2, 2, 0, true), 32, 20, null, i, false), w);
                j.run(g -> {});
                assertEquals(i + 1, store.keep(j, p.views().getFirst(), p, 1).number());
            }
            Files.writeString(dir.resolve("proofs/0002/proof.json"), "{\"number\": 2, \"view\": ");
            Files.writeString(dir.resolve("proofs/notes.txt"), "mine");
            assertEquals(List.of(3, 1), store.list().stream().map(Proof::number).toList());
            Proof named = store.list().getFirst().withTitle("low sun").withPinned(true);
            store.save(named);
            assertEquals("low sun", store.list().getFirst().title());
            assertTrue(store.list().getFirst().pinned());
            store.delete(store.list().get(1));
            assertEquals(List.of(3), store.list().stream().map(Proof::number).toList());
            assertTrue(Files.exists(dir.resolve("proofs/notes.txt")), "what is not ours stays");
        }
    }

    /** What is taken off and put back while the disk is looked at is no error, and what stays is counted. */
    @Test
    void proofsVanishWhileTheyAreCounted() throws Exception {
        ProofStore store = new ProofStore(dir);
        for (int i = 1; i <= 40; i++) Files.write(Files.createDirectories(dir.resolve("proofs/%04d".formatted(i))).resolve("picture.png"),
                new byte[100]);
        AtomicBoolean done = new AtomicBoolean();
        Thread hand = Thread.ofPlatform().start(() -> {
            try {
                while (!done.get()) for (boolean away : new boolean[] {true, false}) for (int i = 2; i <= 40; i++) {
                    Path there = dir.resolve("proofs/%04d".formatted(i)), elsewhere = dir.resolve("%04d".formatted(i));
                    Files.move(away ? there : elsewhere, away ? elsewhere : there);
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        for (int i = 0; i < 300; i++) assertTrue(store.bytes() >= 100);
        done.set(true);
        hand.join();
        assertEquals(4000, store.bytes());
    }

    /** The files that a model means come along into the project, also from a folder beside it. */
    @Test
    void importBringsTexturesAlong() throws IOException {
        Path src = Files.createDirectories(dir.resolve("from/maps"));
        ImageIO.write(new BufferedImage(4, 4, BufferedImage.TYPE_INT_RGB), "png", src.resolve("oak floor.png").toFile());
        ImageIO.write(new BufferedImage(4, 4, BufferedImage.TYPE_INT_RGB), "png", src.resolve("unused.png").toFile());
        Files.writeString(dir.resolve("from/hall.mtl"), "newmtl oak\nKd 1 1 1\nmap_Kd maps/oak floor.png\n");
        Files.writeString(dir.resolve("from/hall.obj"), "mtllib hall.mtl\nv 0 0 0\nv 9 0 0\nv 9 0 -9\nvt 0 0\nusemtl oak\nf 1/1 2/1 3/1\n");
        Path file = NewProject.create(dir.resolve("from/hall.obj"), dir.resolve("to")).file();
        Project p = ProjectFile.read(file);
        Path model = dir.resolve("to").resolve(p.models().getFirst().file()).getParent();
        assertTrue(Files.isRegularFile(model.resolve("maps/oak floor.png")));
        assertFalse(Files.exists(model.resolve("maps/unused.png")));
        SceneAssembly a = new SceneAssembly(file.getParent());
        a.scene(p, p.currentView());
        assertEquals(List.of(), a.findings());
        double[] middle = new Lens(p.currentView().camera().camera(), 1920, 1080).project(6, 6, 0);
        assertTrue(middle[0] > 0.2 && middle[0] < 0.8 && middle[1] > 0.2 && middle[1] < 0.8, "the first view sees the model");
        assertThrows(FormatException.class, () -> NewProject.create(dir.resolve("from/hall.obj"), dir.resolve("to")),
                "a project is not overwritten");
        Files.writeString(dir.resolve("from/empty.obj"), "v 0 0 0\n");
        assertThrows(FormatException.class, () -> NewProject.create(dir.resolve("from/empty.obj"), dir.resolve("to2")));
        assertFalse(Files.exists(dir.resolve("to2/project.json")));
    }

    /** A kill at any moment: what was edited a second ago is offered at the next start; saved work is not. */
    @Test
    void workSurvivesAKill() throws Exception {
        project();
        ProjectSession s = ProjectSession.open(dir);
        s.editView("haze", v -> v.withAround(v.around().withHaze(5.0)));
        Path auto = dir.resolve(ProjectSession.AUTOSAVE);
        for (int i = 0; i < 100 && !Files.exists(auto); i++) Thread.sleep(50);
        // No close, no save: whoever had it answers no more.
        ProjectSession next = ProjectSession.open(dir);
        next.takeOver();
        assertEquals(5.0, next.recovered().currentView().around().haze());
        next.recover();
        assertTrue(next.changed() && next.canUndo());
        next.save();
        assertFalse(Files.exists(auto));
        next.close();
        s.close();
        try (ProjectSession last = ProjectSession.open(dir)) {
            assertFalse(last.readOnly());
            assertEquals(null, last.recovered());
        }
    }
}
