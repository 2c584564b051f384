package bake.formats;

import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.PanoramaReader;
import bake.formats.picture.Raster;
import bake.formats.picture.TextureReader;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.SplittableRandom;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever is done to a picture's bytes, reading ends soon: with a picture or with a refusal that names the file. */
class DamagedPicturesTest {
    @TempDir
    Path dir;

    private interface Reader {
        Object read(Path p) throws IOException;
    }

    private static Raster raster() {
        float[] rgb = new float[3 * 40 * 20];
        for (int i = 0; i < rgb.length; i++) rgb[i] = (float) Math.sin(i * 0.1) * 50 + 60;
        return new Raster(40, 20, rgb);
    }

    private void damage(byte[] good, String name, int rounds, Reader reader) {
        SplittableRandom r = new SplittableRandom(name.hashCode());
        assertTimeoutPreemptively(Duration.ofSeconds(60), () -> {
            int refused = 0;
            for (int i = 0; i < rounds; i++) {
                byte[] bad = good.clone();
                if (i % 3 == 0) bad = java.util.Arrays.copyOf(bad, r.nextInt(bad.length));
                else for (int k = 0; k < 1 + i % 5; k++) bad[i % 2 == 0 ? r.nextInt(Math.min(400, bad.length)) : r.nextInt(bad.length)] =
                        (byte) r.nextInt(256);
                Path p = dir.resolve(name);
                Files.write(p, bad);
                try {
                    reader.read(p);
                } catch (FormatException e) {
                    refused++;
                    assertTrue(e.getMessage().contains(name), e.getMessage());
                }
            }
            assertTrue(refused > rounds / 10, refused + " of " + rounds + " refused");
        });
    }

    @Test
    void radiance() throws IOException {
        Path p = dir.resolve("good.hdr");
        HdrFile.write(p, raster());
        damage(Files.readAllBytes(p), "bad.hdr", 400, HdrFile::read);
    }

    @Test
    void openExr() throws IOException {
        Raster r = raster();
        TreeMap<String, float[]> planes = new TreeMap<>();
        for (int k = 0; k < 3; k++) {
            float[] plane = new float[800];
            for (int i = 0; i < 800; i++) plane[i] = r.rgb()[3 * i + k];
            planes.put("RGB".substring(k, k + 1), plane);
        }
        Path p = dir.resolve("good.exr");
        ExrFile.write(p, 40, 20, planes, true, bake.formats.picture.ExrNotes.PLAIN);
        damage(Files.readAllBytes(p), "bad.exr", 400, ExrFile::read);
    }

    @Test
    void textures() throws IOException {
        BufferedImage i = new BufferedImage(30, 20, BufferedImage.TYPE_INT_ARGB);
        for (int k = 0; k < 600; k++) i.setRGB(k % 30, k / 30, k * 7919);
        for (String kind : new String[] {"png", "jpg"}) {
            Path p = dir.resolve("good." + kind);
            if (kind.equals("png")) DisplayPicture.writePng(p, i, 72);
            else {
                BufferedImage opaque = new BufferedImage(30, 20, BufferedImage.TYPE_INT_RGB);
                opaque.createGraphics().drawImage(i, 0, 0, null);
                javax.imageio.ImageIO.write(opaque, "jpg", p.toFile());
            }
            damage(Files.readAllBytes(p), "bad." + kind, 200, q -> TextureReader.read(Files.readAllBytes(q), q.getFileName().toString(),
                    true));
        }
    }

    /** Sizes that would fill the memory are refused from the header alone. */
    @ParameterizedTest
    @ValueSource(strings = {"-Y 2000000000 +X 2000000000", "-Y 100000 +X 100000", "-Y 0 +X 10", "-Y -5 +X 10", "-Y 10", "+Z 10 +X 10",
            "-Y ten +X ten"})
    void hugeRadiance(String size) throws IOException {
        Path p = dir.resolve("huge.hdr");
        Files.write(p, ("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n" + size + "\n").getBytes(StandardCharsets.ISO_8859_1));
        FormatException e = assertThrows(FormatException.class, () -> HdrFile.read(p));
        assertTrue(e.getMessage().contains("huge.hdr"), e.getMessage());
    }

    /** A panorama is twice as wide as high; anything else is named. */
    @Test
    void panoramasHaveTheirShape() throws IOException {
        Path p = dir.resolve("square.hdr");
        HdrFile.write(p, new Raster(20, 20, new float[1200]));
        FormatException e = assertThrows(FormatException.class, () -> PanoramaReader.read(p));
        assertTrue(e.getMessage().contains("square.hdr"), e.getMessage());
        Path text = Files.writeString(dir.resolve("note.exr"), "this is no picture");
        assertThrows(FormatException.class, () -> PanoramaReader.read(text));
    }
}
