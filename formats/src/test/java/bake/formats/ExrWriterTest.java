package bake.formats;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.formats.picture.ExrFile;
import bake.formats.picture.ExrNotes;
import bake.formats.picture.HdrFile;
import bake.formats.picture.PanoramaReader;
import bake.formats.picture.Raster;
import java.io.IOException;
import java.nio.FloatBuffer;
import java.nio.IntBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.SplittableRandom;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.lwjgl.PointerBuffer;
import org.lwjgl.system.MemoryStack;
import org.lwjgl.system.MemoryUtil;
import org.lwjgl.util.tinyexr.TinyEXR;

/** OpenEXR pictures as others read them, here the tinyexr library. */
class ExrWriterTest {
    private static final int W = 37, H = 41;

    @TempDir
    Path dir;

    private static TreeMap<String, float[]> planes(double most) {
        SplittableRandom r = new SplittableRandom(5);
        TreeMap<String, float[]> out = new TreeMap<>();
        for (String c : new String[] {"R", "G", "B", "A"}) {
            float[] p = new float[W * H];
            for (int i = 0; i < p.length; i++) p[i] = c.equals("A") ? (float) r.nextDouble() : (float) (most * r.nextDouble());
            out.put(c, p);
        }
        return out;
    }

    private static float[] othersRead(Path f) throws IOException {
        try (MemoryStack s = MemoryStack.stackPush()) {
            PointerBuffer out = s.mallocPointer(1), error = s.callocPointer(1);
            IntBuffer w = s.mallocInt(1), h = s.mallocInt(1);
            assertEquals(0, TinyEXR.LoadEXRWithLayer(out, w, h, s.UTF8(f.toString()), s.UTF8(""), error), "it is read");
            assertEquals(W, w.get(0));
            assertEquals(H, h.get(0));
            FloatBuffer rgba = MemoryUtil.memFloatBuffer(out.get(0), 4 * W * H);
            float[] all = new float[4 * W * H];
            rgba.get(all);
            org.lwjgl.system.libc.LibCStdlib.nfree(out.get(0));
            return all;
        }
    }

    @Test
    void othersReadTheSameNumbers() throws IOException {
        for (double most : new double[] {5000, 2e9}) {
            TreeMap<String, float[]> c = planes(most);
            ExrFile.write(dir.resolve("a.exr"), W, H, c, true, ExrNotes.of("Room", Camera.of(Vec3.ZERO, Vec3.UP, 24)));
            float[] rgba = othersRead(dir.resolve("a.exr"));
            for (int i = 0; i < W * H; i++)
                for (int k = 0; k < 4; k++) {
                    float v = c.get("RGBA".substring(k, k + 1))[i];
                    // Numbers that 16 bit do not hold are kept in 32.
                    assertEquals(most > 65_504 ? v : Float.float16ToFloat(Float.floatToFloat16(v)), rgba[4 * i + k], 0);
                }
        }
        String head = new String(Files.readAllBytes(dir.resolve("a.exr")), 0, 1200, StandardCharsets.ISO_8859_1);
        for (String s : new String[] {"chromaticities", "whiteLuminance", "software", "Bake", "Room", "expTime", "aperture", "isoSpeed"})
            assertTrue(head.contains(s), s);
    }

    /** A panorama of others, as .hdr and as .exr with the same numbers, lights the same; one of ours says cd/m2 and is taken so. */
    @Test
    void onePanoramaOneLevel() throws IOException {
        float[] light = new float[3 * 8 * 4];
        java.util.Arrays.fill(light, 179 * 0.5f);
        HdrFile.write(dir.resolve("p.hdr"), new Raster(8, 4, light));
        TreeMap<String, float[]> c = new TreeMap<>();
        for (String k : new String[] {"R", "G", "B"}) {
            float[] p = new float[8 * 4];
            java.util.Arrays.fill(p, 0.5f);
            c.put(k, p);
        }
        ExrFile.write(dir.resolve("ours.exr"), 8, 4, c, false, ExrNotes.PLAIN);
        assertEquals(0.5, PanoramaReader.read(dir.resolve("ours.exr")).at(0), 1e-4);
        // Others say nothing of white.
        byte[] b = Files.readAllBytes(dir.resolve("ours.exr"));
        int at = new String(b, StandardCharsets.ISO_8859_1).indexOf("whiteLuminance");
        b[at] = 'w' + 1;
        Files.write(dir.resolve("p.exr"), b);
        assertEquals(PanoramaReader.read(dir.resolve("p.hdr")).at(0), PanoramaReader.read(dir.resolve("p.exr")).at(0), 0.4);
    }
}
