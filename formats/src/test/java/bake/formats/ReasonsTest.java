package bake.formats;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.light.IesFile;
import bake.formats.model.Finding;
import bake.formats.model.ModelReader;
import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrFile;
import bake.formats.picture.ExrNotes;
import bake.formats.picture.HdrFile;
import bake.formats.picture.PanoramaReader;
import bake.formats.picture.Raster;
import bake.formats.picture.TextureReader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files that are wrong: the reason is the true one and in words; what can be used all the same is said once. */
class ReasonsTest {
    @TempDir
    private Path dir;

    private Path file(String name, String text, Charset c) throws IOException {
        return Files.write(dir.resolve(name), text.getBytes(c));
    }

    private static final String TRIANGLE = "{\"asset\":{\"version\":\"2.0\"},\"scene\":0,\"scenes\":[{\"nodes\":[0]}],\"nodes\":[{\"mesh\":0}],"
            + "\"meshes\":[{\"primitives\":[{\"attributes\":{\"POSITION\":0},\"material\":0}]}],\"accessors\":[{\"bufferView\":0,"
            + "\"componentType\":5126,\"count\":3,\"type\":\"VEC3\"}],\"bufferViews\":[{\"buffer\":0,\"byteLength\":36}],"
            + "\"buffers\":[{\"uri\":\"URI\",\"byteLength\":36}],\"materials\":[{\"name\":\"oak\",\"pbrMetallicRoughness\":{\"roughnessFactor\":R}}]S}";
    private static final String BYTES = "data:application/octet-stream;base64,AAAAAAAAAAAAAAAAAACAPwAAAAAAAAAAAAAAAAAAgD8AAAAA";

    private String refusal(Path f) {
        return assertThrows(FormatException.class, () -> ModelReader.read(f, null, null, null)).getMessage();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"nan.obj|v nan 0 0\\nv 1 0 0\\nv 0 1 0\\nf 1 2 3\\n|'nan' is no number",
        "magic.glb|NOPE, this is something else altogether|does not begin with the letters glTF",
        "cut.gltf|{\"asset\":{\"version\":\"2.0\"|ends before it is complete",
        "odd.gltf|{\"asset\": nothing at all}|not valid JSON from there on",
        "twice.gltf|{\"asset\":1,\"asset\":{\"version\":\"2.0\"}}|has the key 'asset' twice"})
    void inWordsAndNotInJavas(String name, String text, String reason) throws IOException {
        String said = refusal(file(name, text.replace("\\n", "\n"), StandardCharsets.UTF_8));
        assertTrue(said.contains(reason) && said.contains(name), said);
        assertTrue(!said.contains("Exception") && !said.contains("StreamRead") && !said.contains("expecting"), said);
    }

    @Test
    void whatIsTooDeepOrOfAnotherAlphabetSaysSo() throws IOException {
        assertTrue(refusal(file("deep.gltf", "{\"extras\":" + "[".repeat(5000) + "]".repeat(5000) + "}", StandardCharsets.UTF_8)).contains("nested more"));
        assertTrue(refusal(file("wide.gltf", TRIANGLE, StandardCharsets.UTF_16)).contains("UTF-16"));
        assertTrue(refusal(file("far.gltf", TRIANGLE.replace("URI", "https://example.org/a.bin").replace("R}", "1}").replace("S}", "}"),
                StandardCharsets.UTF_8)).contains("lies on the network"));
    }

    @Test
    void valuesOutOfRangeAndBonesAreSaid() throws IOException {
        Path f = file("a.gltf", TRIANGLE.replace("URI", BYTES).replace("R}", "7}").replace("S}", ",\"skins\":[{\"joints\":[0]}]}"), StandardCharsets.UTF_8);
        List<Finding> found = ModelReader.read(f, null, null, null).findings();
        assertEquals(List.of(Finding.Kind.BROKEN_VALUES, Finding.Kind.POSED), found.stream().map(Finding::kind).toList(), found.toString());
        assertTrue(found.getFirst().text().contains("1 value is outside"), found.toString());
        Path sound = file("b.gltf", TRIANGLE.replace("URI", BYTES).replace("R}", "0.7}").replace("S}", "}"), StandardCharsets.UTF_8);
        assertEquals(List.of(), ModelReader.read(sound, null, null, null).findings());
    }

    @Test
    void aFlatBodyOfLightNamesItsType() throws IOException {
        Path f = file("b.ies", "IESNA:LM-63-2002\nTILT=NONE\n1 1000 1 3 1 2 2 0 0 0\n1 1 10\n0 45 90\n0\n100 50 10\n", StandardCharsets.US_ASCII);
        String said = assertThrows(FormatException.class, () -> IesFile.read(f)).getMessage();
        assertTrue(said.contains("type B") && !said.contains("all zero"), said);
    }

    @Test
    void aWindowThatEndsBeforeItBeginsSaysSo() throws IOException {
        TreeMap<String, float[]> planes = new TreeMap<>();
        for (String k : new String[] {"B", "G", "R"}) planes.put(k, new float[8]);
        Path f = dir.resolve("w.exr");
        ExrFile.write(f, 4, 2, planes, true, ExrNotes.PLAIN);
        byte[] b = Files.readAllBytes(f);
        int at = new String(b, StandardCharsets.ISO_8859_1).indexOf("dataWindow") + "dataWindow\0box2i\0".length() + 4;
        b[at] = 40; // the left edge, right of the right one
        Files.write(f, b);
        String said = assertThrows(FormatException.class, () -> ExrFile.read(f)).getMessage();
        assertTrue(said.contains("data window ends before it begins (from 40, 0 to 3, 1)"), said);
    }

    @Test
    void valuesThatAreNoNumbersAreCounted() throws IOException {
        float[] rgb = new float[3 * 8 * 4];
        Arrays.fill(rgb, 2f);
        rgb[5] = Float.NaN;
        rgb[20] = Float.POSITIVE_INFINITY;
        TreeMap<String, float[]> planes = new TreeMap<>();
        for (int k = 0; k < 3; k++) {
            float[] p = new float[32];
            for (int i = 0; i < 32; i++) p[i] = rgb[3 * i + k];
            planes.put("RGB".substring(k, k + 1), p);
        }
        ExrFile.write(dir.resolve("p.exr"), 8, 4, planes, false, ExrNotes.PLAIN);
        long[] odd = new long[1];
        PanoramaReader.read(dir.resolve("p.exr"), d -> {}, () -> false, n -> odd[0] = n);
        assertEquals(2, odd[0]);
        HdrFile.write(dir.resolve("q.hdr"), new Raster(8, 4, new float[96]));
        PanoramaReader.read(dir.resolve("q.hdr"), d -> {}, () -> false, n -> odd[0] = n);
        assertEquals(0, odd[0]);
    }

    @Test
    void halfAPictureIsReadAndSaid() throws IOException {
        BufferedImage image = new BufferedImage(256, 256, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < 256 * 256; i++) image.setRGB(i % 256, i / 256, i * 2654435 & 0xffffff);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "jpg", out);
        List<String> said = new ArrayList<>();
        TextureReader.read(new java.io.ByteArrayInputStream(out.toByteArray()), "whole.jpg", true, said::add);
        assertEquals(List.of(), said);
        byte[] half = Arrays.copyOf(out.toByteArray(), out.size() / 2);
        assertEquals(256, TextureReader.read(new java.io.ByteArrayInputStream(half), "half.jpg", true, said::add).height());
        assertTrue(said.size() == 1 && said.getFirst().contains("cut short"), said.toString());
    }

    /** Resolution and colour profile of a TIFF, read by the class library. */
    @Test
    void aTiffSaysHowLargeItIsAndInWhichColours() throws IOException {
        DisplayPicture.writeTiff(dir.resolve("a.tif"), DisplayPicture.image16(2, 1, new short[6]), 240, bake.core.finish.Gamut.SRGB);
        try (ImageInputStream in = ImageIO.createImageInputStream(dir.resolve("a.tif").toFile())) {
            // The Java library's own reader: another one that is there converts what it reads.
            ImageReader r = ImageIO.getImageReadersByFormatName("tiff").next();
            for (var i = ImageIO.getImageReadersByFormatName("tiff"); i.hasNext() && !r.getClass().getName().startsWith("com.sun"); ) r = i.next();
            r.setInput(in);
            var d = javax.imageio.plugins.tiff.TIFFDirectory.createFromMetadata(r.getImageMetadata(0));
            assertEquals(240, d.getTIFFField(282).getAsDouble(0), 1e-6);
            assertEquals(240, d.getTIFFField(283).getAsDouble(0), 1e-6);
            assertEquals(2, d.getTIFFField(296).getAsInt(0), "inches");
            assertTrue(d.getTIFFField(34675).getCount() > 100, "a profile");
            r.dispose();
        }
    }
}
