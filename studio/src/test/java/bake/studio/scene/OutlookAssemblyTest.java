package bake.studio.scene;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.scene.Outlook;
import bake.core.scene.Scene;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.BandedRender;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.lwjgl.PointerBuffer;
import org.lwjgl.system.MemoryStack;
import org.lwjgl.system.MemoryUtil;
import org.lwjgl.util.tinyexr.EXRHeader;
import org.lwjgl.util.tinyexr.EXRImage;
import org.lwjgl.util.tinyexr.EXRVersion;
import org.lwjgl.util.tinyexr.TinyEXR;

/** What a project says about what is seen, and picture files without it. */
class OutlookAssemblyTest {
    @TempDir
    Path dir;

    @BeforeEach
    void files() throws IOException {
        float[] rgb = new float[3 * 32 * 16];
        java.util.Arrays.fill(rgb, 700);
        HdrFile.write(dir.resolve("a.hdr"), new Raster(32, 16, rgb));
        BufferedImage i = new BufferedImage(8, 4, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 4; y++) for (int x = 0; x < 8; x++) i.setRGB(x, y, y < 2 ? 0x808080 : 0xf04010);
        DisplayPicture.writePng(dir.resolve("photo.png"), i, 72);
    }

    private Project project(String around) throws IOException {
        Files.writeString(dir.resolve("project.json"), """
            {"bake": 1, "name": "p", "materials": [{"name": "m", "base": [0.5, 0.5, 0.5], "ior": 1, "roughness": 1}, {"name": "c", "base": [0.3, 0.3, 0.3], "catcher": true}],
             "shapes": [{"name": "box", "type": "box", "center": [0, 0, 0.5], "size": [1, 1, 1], "material": "m"}, {"name": "g", "type": "disc", "center": [0, 0, 0], "size": [40], "material": "c"}],
             "views": [{"name": "V", "setting": "exterior", "camera": {"position": [0, -5, 1.5], "target": [0, 0, 0.6], "focal": 28, "shutter": 0.002}, "size": [48, 32], "around": %s}]}
            """.formatted(around));
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private Scene scene(Project p) throws IOException {
        return new SceneAssembly(dir).scene(p, p.views().getFirst());
    }

    private static final String SKY = "\"kind\": \"sun and sky\", \"date\": \"2027-06-21\", \"time\": \"15:00\", \"haze\": 4";

    /** What a backdrop does not say itself is that of the light. */
    @Test
    void missingValuesAreTheLights() throws IOException {
        Scene s = scene(project("{" + SKY
                + ", \"backdrop\": {\"kind\": \"sun and sky\", \"haze\": 2}, \"mirrored\": {\"kind\": \"hdri\", \"file\": \"a.hdr\", \"rotation\": 30, \"skyStops\": 1}}"));
        Surroundings.SunSky light = (Surroundings.SunSky) s.surroundings(),
                seen = (Surroundings.SunSky) ((Outlook.Far) s.outlook().backdrop()).of();
        assertEquals(light.toSun(), seen.toSun(), "the same hour");
        assertEquals(2, seen.haze());
        assertEquals(4, light.haze());
        Surroundings.Hdri m = (Surroundings.Hdri) ((Outlook.Far) s.outlook().mirrored()).of();
        assertEquals(2, m.factor());
        assertFalse(s.outlook().apart());
        assertTrue(s.catches());
        assertSame(Outlook.PLAIN, scene(project("{" + SKY + "}")).outlook());
    }

    /** A panorama on the ground is seen by camera and mirrors, and lights from far away. */
    @Test
    void grounded() throws IOException {
        Scene s = scene(project("{\"kind\": \"hdri\", \"file\": \"a.hdr\", \"ground\": {\"radius\": 12, \"z\": -0.5}}"));
        Outlook.Grounded g = (Outlook.Grounded) s.outlook().backdrop();
        assertEquals(s.outlook().backdrop(), s.outlook().mirrored());
        assertEquals(12, g.ground().radius());
        assertEquals(-0.5, g.ground().z());
        assertTrue(g.ground().tripod() > 0);
        assertEquals(s.surroundings(), g.of());
    }

    /** A photograph comes out as it went in, whatever the exposure and the tone curve; taken at another exposure it is so much brighter. */
    @Test
    void photographsStayThemselves() throws IOException {
        for (String curve : new String[] {"film", "linear"})
            for (double shutter : new double[] {0.001, 0.02}) {
                Project p = project("{" + SKY + ", \"backdrop\": {\"kind\": \"picture\", \"file\": \"photo.png\"}}");
                View v = p.views().getFirst().withCurve(curve);
                v = v.withCamera(v.camera().camera().withEv(10 - Math.log(shutter) / Math.log(2)));
                RenderScene s = RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING);
                try (Workers w = new Workers(2)) {
                    RenderJob j = new RenderJob(s, order(v, 4), w);
                    j.run(x -> {});
                    int[] argb = PictureOutput.argb(j.film(), j.finish(), null, j.order().region(), false);
                    int c = argb[2 * 48 + 5];
                    for (int k = 0; k < 24; k += 8) assertEquals(0x80, c >> k & 255, 1, curve + " at " + shutter);
                }
            }
        Outlook.Plate a = (Outlook.Plate) scene(project("{" + SKY
                + ", \"backdrop\": {\"kind\": \"picture\", \"file\": \"photo.png\", \"ev\": 12}}")).outlook().backdrop();
        Outlook.Plate b = (Outlook.Plate) scene(project("{" + SKY
                + ", \"backdrop\": {\"kind\": \"picture\", \"file\": \"photo.png\", \"ev\": 13, \"skyStops\": 1}}")).outlook().backdrop();
        assertEquals(4, b.factor() / a.factor(), 1e-9);
    }

    private static RenderJob.Order order(View v, int passes) {
        return new RenderJob.Order(v.name(), v.camera().camera(), v.look(),
                Preset.of("p", 1, "test", "exterior", 0, 0, 0, passes, 4, 0, false), 48, 32, null, 1, false);
    }

    @Test
    void whatCannotBe() throws IOException {
        assertThrows(FormatException.class, () -> scene(project("{\"kind\": \"picture\", \"file\": \"photo.png\"}")),
                "a flat picture gives no light");
        assertThrows(FormatException.class, () -> scene(project("{" + SKY + ", \"backdrop\": {\"kind\": \"picture\"}}")), "no file");
        FormatException gone = assertThrows(FormatException.class, () ->
                scene(project("{" + SKY + ", \"backdrop\": {\"kind\": \"picture\", \"file\": \"gone.png\"}}")));
        assertTrue(gone.getMessage().contains("gone.png"));
        assertThrows(FormatException.class,
                () -> scene(project("{" + SKY + ", \"backdrop\": {\"kind\": \"picture\", \"file\": \"../photo.png\"}}")),
                "outside of the project");
        Files.writeString(dir.resolve("torn.png"), "not a picture");
        assertThrows(FormatException.class,
                () -> scene(project("{" + SKY + ", \"backdrop\": {\"kind\": \"picture\", \"file\": \"torn.png\"}}")));
        for (String bad : new String[] {"{\"radius\": 0}", "{\"tripod\": -1}", "{\"softness\": 3}", "{\"stretch\": \"much\"}"})
            assertThrows(FormatException.class, () -> project("{\"kind\": \"hdri\", \"file\": \"a.hdr\", \"ground\": " + bad + "}"), bad);
        assertThrows(FormatException.class, () -> project("{" + SKY + ", \"backdrop\": {\"kind\": \"wall\"}}"));
    }

    /** What was read is written again, nested as it was. */
    @Test
    void writtenAgain() throws IOException {
        Project p = project("{\"kind\": \"hdri\", \"file\": \"a.hdr\", \"apart\": true, \"ground\": {\"radius\": 12}, \"backdrop\": {\"kind\": \"plain\", \"luminance\": [1, 2, 3]}}");
        ProjectFile.write(dir.resolve("again.json"), p);
        Project q = ProjectFile.read(dir.resolve("again.json"));
        View.Around a = q.views().getFirst().around();
        assertTrue(a.leavesBackdropOut());
        assertEquals(12, a.ground().radius());
        assertArrayEquals(new double[] {1, 2, 3}, a.backdrop().luminance());
        assertNull(a.backdrop().ground());
        assertEquals(true, q.materials().get(1).catcher());
    }

    /**
     * A picture's files without its backdrop: covered where the box is, part where its shadow lies, not at all in the sky; in bands as at
     * once.
     */
    @Test
    void filesWithoutTheBackdrop() throws IOException {
        Project p = project("{" + SKY + ", \"apart\": true}");
        View v = p.views().getFirst();
        RenderScene s = RenderScene.compile(scene(p), Workers.COMPILING);
        try (Workers w = new Workers(2)) {
            RenderJob j = new RenderJob(s, order(v, 24), w);
            j.run(x -> {});
            Film f = j.film();
            for (String ending : new String[] {".png", ".tif"})
                for (boolean denoise : new boolean[] {false, true}) {
                    Path file = dir.resolve("out" + ending);
                    PictureOutput.write(file, f, j.finish(), null, j.order().region(), denoise, bake.studio.render.FileOptions.SCREEN,
                            bake.formats.picture.ExrNotes.PLAIN);
                    BufferedImage i = ImageIO.read(file.toFile());
                    assertTrue(i.getColorModel().hasAlpha());
                    assertEquals(0, i.getRGB(3, 2) >>> 24, 2, "the sky");
                    assertEquals(255, i.getRGB(24, 16) >>> 24, 1, "the box");
                    int shadow = 0;
                    for (int y = 18; y < 30; y++) for (int x = 0; x < 48; x++) shadow = Math.max(shadow, i.getRGB(x, y) >>> 24);
                    assertTrue(shadow > 100, "a shadow: " + shadow);
                    assertEquals(0, i.getRGB(2, 30) >>> 24, 40, "open ground");
                }
            float[] a = alpha(write(j, "out.exr"));
            for (int k = 0; k < a.length; k++) assertEquals(f.cover(k % 48, k / 48), a[k], 1e-3);
            Raster whole = HdrFile.read(write(j, "out.hdr"));
            assertTrue(whole.rgb()[3 * (2 * 48 + 3)] > 100, "HDR has no room for it and shows the sky");
            assertEquals(0, ExrFile.read(dir.resolve("out.exr")).rgb()[3 * (2 * 48 + 3)], 1e-3);

            new BandedRender(s, order(v, 24), null, w).run(dir.resolve("bands.exr"), "id", 1, x -> {});
            assertArrayEquals(a, alpha(dir.resolve("bands.exr")), 0f);
            assertArrayEquals(ExrFile.read(dir.resolve("out.exr")).rgb(), ExrFile.read(dir.resolve("bands.exr")).rgb(), 0f, "bands make the same bits");
        }
    }

    private Path write(RenderJob j, String name) throws IOException {
        PictureOutput.write(dir.resolve(name), j.film(), j.finish(), null, j.order().region(), false, bake.studio.render.FileOptions.SCREEN,
                bake.formats.picture.ExrNotes.PLAIN);
        return dir.resolve(name);
    }

    /** Channel A of an EXR, as another reader finds it. */
    private static float[] alpha(Path file) {
        try (MemoryStack stack = MemoryStack.stackPush()) {
            EXRVersion version = EXRVersion.calloc(stack);
            EXRHeader header = EXRHeader.calloc(stack);
            EXRImage image = EXRImage.calloc(stack);
            PointerBuffer error = stack.callocPointer(1);
            assertEquals(0, TinyEXR.ParseEXRVersionFromFile(version, file.toString()));
            assertEquals(0, TinyEXR.ParseEXRHeaderFromFile(header, version, file.toString(), error));
            assertEquals("A", header.channels().get(0).nameString());
            for (int i = 0; i < header.num_channels(); i++) header.requested_pixel_types().put(i, TinyEXR.TINYEXR_PIXELTYPE_FLOAT);
            assertEquals(0, TinyEXR.LoadEXRImageFromFile(image, header, file.toString(), error));
            float[] out = new float[image.width() * image.height()];
            MemoryUtil.memFloatBuffer(image.images().get(0), out.length).get(out);
            TinyEXR.FreeEXRImage(image);
            TinyEXR.FreeEXRHeader(header);
            return out;
        }
    }
}
