package bake.formats;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrFile;
import bake.formats.picture.ExrNotes;
import bake.formats.picture.HdrFile;
import bake.formats.picture.PanoramaReader;
import bake.formats.picture.Raster;
import bake.formats.picture.TextureReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.SplittableRandom;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PictureFilesTest {
    @TempDir
    Path dir;

    private static Raster noise(int w, int h) {
        SplittableRandom r = new SplittableRandom(w * 31L + h);
        float[] rgb = new float[3 * w * h];
        for (int i = 0; i < rgb.length; i++) rgb[i] = (i / 3) % 11 < 6 ? 5 : (float) Math.pow(10, r.nextDouble(-2, 5));
        return new Raster(w, h, rgb);
    }

    /** Run-length coded, flat (narrow) and wide pictures come back within the format's shared exponent. */
    @ParameterizedTest
    @ValueSource(ints = {1, 7, 8, 200, 1000})
    void hdrComesBack(int w) throws IOException {
        Raster r = noise(w, 9);
        HdrFile.write(dir.resolve("a.hdr"), r);
        Raster b = HdrFile.read(dir.resolve("a.hdr"));
        assertEquals(w, b.width());
        for (int i = 0; i < r.rgb().length; i += 3) {
            float m = Math.max(r.rgb()[i], Math.max(r.rgb()[i + 1], r.rgb()[i + 2]));
            for (int k = 0; k < 3; k++) assertEquals(r.rgb()[i + k], b.rgb()[i + k], m / 128);
        }
    }

    @Test
    void flippedHdrIsTurnedUpright() throws IOException {
        ByteArrayOutputStream o = new ByteArrayOutputStream();
        o.write("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n+Y 2 +X 1\n".getBytes(StandardCharsets.US_ASCII));
        o.write(new byte[] {10, 10, 10, (byte) 136, 20, 20, 20, (byte) 136});
        Files.write(dir.resolve("f.hdr"), o.toByteArray());
        Raster r = HdrFile.read(dir.resolve("f.hdr"));
        assertTrue(r.rgb()[0] > r.rgb()[3], "the file's last row is the top");
    }

    @Test
    void exrComesBack() throws IOException {
        Raster r = noise(33, 17);
        TreeMap<String, float[]> c = new TreeMap<>();
        for (int k = 0; k < 3; k++) {
            float[] p = new float[33 * 17];
            for (int i = 0; i < p.length; i++) p[i] = r.rgb()[3 * i + k];
            c.put("BGR".substring(2 - k, 3 - k), p);
        }
        for (boolean half : new boolean[] {false, true}) {
            ExrFile.write(dir.resolve("a.exr"), 33, 17, c, half, ExrNotes.PLAIN);
            Raster b = ExrFile.read(dir.resolve("a.exr"));
            assertEquals(33, b.width());
            for (int i = 0; i < r.rgb().length; i++)
                assertEquals(r.rgb()[i], b.rgb()[i], half ? r.rgb()[i] / 1000 : 0);
        }
    }

    @Test
    void pngIsSixteenBitAndTagged() throws IOException {
        short[] rgb = {0, (short) 1, (short) 65535, (short) 300, (short) 40000, 7};
        DisplayPicture.writePng(dir.resolve("a.png"), DisplayPicture.image16(2, 1, rgb), 200);
        byte[] all = Files.readAllBytes(dir.resolve("a.png"));
        assertTrue(new String(all, StandardCharsets.ISO_8859_1).contains("sRGB"));
        assertEquals(16, all[24], "bit depth");
        int[] p = ImageIO.read(dir.resolve("a.png").toFile()).getRaster().getPixel(1, 0, (int[]) null);
        assertEquals(300, p[0]);
        assertEquals(40000, p[1]);
        DisplayPicture.writeTiff(dir.resolve("a.tif"), DisplayPicture.image16(2, 1, rgb), 240, bake.core.finish.Gamut.SRGB);
        assertEquals(40000, ImageIO.read(dir.resolve("a.tif").toFile()).getRaster().getPixel(1, 0, (int[]) null)[1]);
    }

    /** A cut or changed file gives a message that names it, never another exception or a hang. */
    @Test
    void brokenPicturesAreRefused() throws IOException {
        HdrFile.write(dir.resolve("g.hdr"), noise(64, 8));
        TreeMap<String, float[]> c = new TreeMap<>();
        for (String k : new String[] {"B", "G", "R"}) c.put(k, new float[64 * 32]);
        ExrFile.write(dir.resolve("g.exr"), 64, 32, c, true, ExrNotes.PLAIN);
        SplittableRandom r = new SplittableRandom(1);
        for (String name : new String[] {"g.hdr", "g.exr"}) {
            byte[] good = Files.readAllBytes(dir.resolve(name));
            for (int i = 0; i < 60; i++) {
                byte[] bad = i % 2 == 0 ? java.util.Arrays.copyOf(good, r.nextInt(good.length)) : good.clone();
                if (i % 2 == 1) for (int k = 0; k < 4; k++) bad[r.nextInt(Math.min(bad.length, 300))] = (byte) r.nextInt(256);
                Path p = dir.resolve("bad" + i + "-" + name);
                Files.write(p, bad);
                try {
                    if (name.endsWith("hdr")) HdrFile.read(p);
                    else ExrFile.read(p);
                } catch (FormatException e) {
                    assertTrue(e.getMessage().startsWith(p.getFileName().toString()), e.getMessage());
                }
            }
        }
        Files.writeString(dir.resolve("huge.hdr"), "#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 900000 +X 900000\n");
        assertTrue(assertThrows(FormatException.class, () -> HdrFile.read(dir.resolve("huge.hdr"))).getMessage().contains("900000x900000"));
        Files.write(dir.resolve("t.png"), new byte[] {1, 2, 3});
        assertThrows(FormatException.class, () -> TextureReader.read(Files.newInputStream(dir.resolve("t.png")), "t.png", true));
        HdrFile.write(dir.resolve("square.hdr"), noise(16, 16));
        assertTrue(assertThrows(FormatException.class, () -> PanoramaReader.read(dir.resolve("square.hdr"))).getMessage()
                .contains("twice as wide"));
    }

    /** What fails in the middle leaves the old file and no litter. */
    @Test
    void writesAreWholeOrNotAtAll() throws IOException {
        Path p = dir.resolve("x.txt");
        AtomicFile.write(p, o -> o.write("old".getBytes(StandardCharsets.UTF_8)));
        assertThrows(IOException.class, () -> AtomicFile.write(p, o -> {
            o.write("half".getBytes(StandardCharsets.UTF_8));
            throw new IOException("disk full");
        }));
        assertEquals("old", Files.readString(p));
        try (var s = Files.list(dir)) {
            assertEquals(1, s.count());
        }
        assertFalse(Files.exists(dir.resolve("none")));
    }
}
