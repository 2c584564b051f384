package bake.studio.look;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.finish.Look;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.project.FinishSpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.SavedLook;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.render.Channel;
import bake.studio.render.FileOptions;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Looks on shelves, and pictures that are finished again from their files. */
class LooksTest {
    private static final String ROOM = """
            {"bake": 1, "name": "Room",
             "materials": [{"name": "wall", "base": [0.7,0.4,0.2], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"},
                        {"name": "box", "type": "box", "center": [0.2,0,1], "size": [1,1,2], "material": "wall"}],
             "lamps": [{"name": "a", "group": "Lamps", "kind": "sphere", "position": [-2,-1,3], "diameter": 0.2, "lumens": 3000}],
             "views": [{"name": "One", "camera": {"position": [0,-5,1], "target": [0,0,1], "focal": 24, "iso": 3200}, "size": [60, 40], "whiteBalance": 3100,
                        "curve": "photographic", "around": {"kind": "plain", "luminance": [3,4,5]},
                        "finish": {"highlights": -0.3, "contrast": 0.2, "curve": [0,0.02,0.5,0.55,1,1], "saturation": 0.1, "slope": [1,1.02,0.97],
                                   "glow": 0.1, "vignette": 0.4, "fringe": 1, "sharpen": 0.4, "grain": 0.2, "outline": 0.7, "wobble": 0.3, "wash": 0.4, "skyLighten": 0.7, "skySaturation": -0.4, "lut": "warm.cube"}}]}""";
    @TempDir
    private Path dir;

    private Project project() throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM);
        Files.writeString(dir.resolve("warm.cube"), "LUT_1D_SIZE 2\n0.02 0 0\n1 0.98 0.9\n");
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private RenderJob job(Workers w, Project p, View v, boolean denoise) throws IOException {
        RenderScene s = RenderScene.compile(new SceneAssembly(dir).scene(p, v), null, Workers.COMPILING, HierarchyCache.shared());
        Preset q = Preset.of("P", 1, "test", "interior", 0, 0, 0, 8, 3, 0, denoise);
        RenderJob j = new RenderJob(s, new RenderJob.Order("One", v.camera().camera(), Looks.of(dir, v), q, 60, 40, null, 3, Film.Split.NONE), w);
        j.run(g -> {});
        return j;
    }

    /** What was rendered, denoised and finished with every step is made again from its file, to the bit. */
    @Test
    void finishedAgainToTheBit() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        Path png = dir.resolve("one.png"), exr = dir.resolve("one.exr"), again = dir.resolve("again.png"), plain = dir.resolve("plain.png");
        try (Workers w = new Workers(2)) {
            RenderJob j = job(w, p, v, true);
            FileOptions how = FileOptions.SCREEN.withChannels(List.of(Channel.CLEAN));
            PictureOutput.write(png, j, how);
            PictureOutput.write(exr, j, how);
        }
        StoredPicture s = StoredPicture.read(exr);
        assertTrue(s.clean());
        assertNotNull(s.seen());
        assertEquals(v.camera().camera().saturation(), s.saturation("one.exr"));
        SavedLook own = s.look("one.exr");
        assertEquals("photographic", own.curve());
        assertEquals(v.finish().withLut(null), own.finish(), "all but the table, which is a file of the project");
        s.write(again, s.saturation("one.exr"), Looks.of(dir, v), how());
        assertArrayEquals(Files.readAllBytes(png), Files.readAllBytes(again));
        try (Workers w = new Workers(2)) {
            PictureOutput.write(png, job(w, p, v, true), how().withGamut(bake.core.finish.Gamut.BT2020));
        }
        s.write(again, s.saturation("one.exr"), Looks.of(dir, v), how().withGamut(bake.core.finish.Gamut.BT2020));
        assertArrayEquals(Files.readAllBytes(png), Files.readAllBytes(again), "in another gamut, too");
        s.write(plain, s.saturation("one.exr"), Look.PLAIN, how());
        assertFalse(java.util.Arrays.equals(pixels(png), pixels(plain)));
        // What the file says of itself is enough where there is no table.
        View bare = v.withFinish(v.finish().withLut(null));
        s.write(again, s.saturation("one.exr"), own.look(Look.NEUTRAL), how());
        s.write(plain, s.saturation("one.exr"), Looks.of(dir, bare), how());
        assertArrayEquals(Files.readAllBytes(plain), Files.readAllBytes(again));
    }

    private static FileOptions how() {
        return FileOptions.SCREEN;
    }

    private static int[] pixels(Path f) throws IOException {
        BufferedImage i = ImageIO.read(f.toFile());
        return i.getRGB(0, 0, i.getWidth(), i.getHeight(), null, 0, i.getWidth());
    }

    @Test
    void tablesThatAreNotThere() throws IOException {
        Project p = project();
        Files.delete(dir.resolve("warm.cube"));
        String m = assertThrows(FormatException.class, () -> Looks.of(dir, p.views().getFirst())).getMessage();
        assertTrue(m.contains("warm.cube") && m.contains("One"), m);
        Files.writeString(dir.resolve("project.json"), ROOM.replace("warm.cube", "../../etc/passwd"));
        Project out = ProjectFile.read(dir.resolve("project.json"));
        assertThrows(FormatException.class, () -> Looks.of(dir, out.views().getFirst()));
    }

    /** Many who save one name at a time lose nothing, and every version has a number of its own. */
    @Test
    void versionsAreOnlyAdded() throws Exception {
        LookShelf shelf = new LookShelf("own", dir.resolve("looks"));
        View v = project().views().getFirst();
        try (ExecutorService pool = Executors.newFixedThreadPool(6)) {
            for (int i = 0; i < 30; i++) {
                double c = i / 100.0;
                pool.submit(() -> shelf.save(SavedLook.of(v.withFinish(FinishSpec.NONE.withContrast(c)), "Evening warm"), "somebody",
                        null));
            }
            pool.shutdown();
            assertTrue(pool.awaitTermination(30, TimeUnit.SECONDS));
        }
        List<SavedLook> all = shelf.versions();
        assertEquals(30, all.size());
        for (int i = 0; i < 30; i++) assertEquals(i + 1, all.get(i).version());
        assertEquals(30, all.stream().map(l -> l.finish().contrast()).distinct().count());
        assertEquals(30, shelf.find("evening WARM").version());
        Files.writeString(dir.resolve("looks/broken.v1.look.json"), "{\"bakeLook\": 1, \"name\": \"x\", \"finish\": {\"glow\": 7}}");
        assertEquals(30, shelf.versions().size(), "what is no look is passed over");
        String m = assertThrows(FormatException.class, () -> LookShelf.read(dir.resolve("looks/broken.v1.look.json"))).getMessage();
        assertTrue(m.contains("glow"), m);
        assertEquals(1, LookShelf.current(List.of(shelf)).size());
    }

    /** A look goes to other views and leaves their light's white alone. */
    @Test
    void givenToOthers() throws IOException {
        View v = project().views().getFirst(), other = v.withName("Two").withWhiteBalance(5200.0).withFinish(FinishSpec.NONE)
                .withCurve("film");
        SavedLook l = SavedLook.parse(SavedLook.of(v, "Mine").text(), "mine.look.json");
        View got = l.on(other);
        assertEquals(v.finish().withLook("Mine v0"), got.finish(), "and says where it comes from");
        assertTrue(l.differences(got).isEmpty());
        assertEquals(List.of("tone curve", "glow", "skyWarmth"),
                l.differences(got.withCurve("film").withFinish(got.finish().withGlow(null).withSkyWarmth(0.2))));
        assertEquals(null, SavedLook.of(got, "Again").finish().look(), "a look is no other one");
        assertEquals("photographic", got.curve());
        assertEquals(5200, got.whiteBalance());
        assertTrue(v.neutral().finish().isNothing() && v.neutral().look().equals(Look.PLAIN), "nothing of it is rendered");
    }
}
