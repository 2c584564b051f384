package bake.formats.model;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Texture;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ModelTexturesTest {
    @TempDir
    Path dir;

    private static byte[] png(int w, int h) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    @Test
    void theLargestAreHalvedUntilAllFit() {
        assertArrayEquals(new int[] {0, 0}, ModelTextures.halvings(new int[] {256, 16}, new int[] {128, 16}, 1 << 20));
        assertArrayEquals(new int[] {1, 0}, ModelTextures.halvings(new int[] {256, 16}, new int[] {128, 16}, 60_000));
        assertArrayEquals(new int[] {8, 4}, ModelTextures.halvings(new int[] {256, 16}, new int[] {128, 16}, 1));
    }

    /** What is too much is known before anything is decoded: sizes are read first, and each picture is opened just once more. */
    @Test
    void sizesAreCountedBeforeMemoryIsTaken() throws IOException {
        List<String> opened = new ArrayList<>();
        ModelTextures t = new ModelTextures(60_000);
        byte[] big = png(256, 128), small = png(16, 16);
        assertEquals(0, t.add("big", true, () -> {
            opened.add("big");
            return new ByteArrayInputStream(big);
        }));
        assertEquals(1, t.add("small", false, () -> {
            opened.add("small");
            return new ByteArrayInputStream(small);
        }));
        assertThrows(IOException.class, () -> t.add("none", false, () -> new ByteArrayInputStream(new byte[] {1, 2})));
        assertEquals(2, t.plain("none", false));
        List<Finding> findings = new ArrayList<>();
        List<Texture> out = t.decode(findings);
        assertEquals(4, opened.size());
        assertEquals(128, out.getFirst().width());
        assertEquals(64, out.getFirst().height());
        assertEquals(16, out.get(1).width());
        assertEquals(1, out.get(2).width());
        assertEquals(2, findings.size());
        assertTrue(findings.getFirst().text().contains("128x64 instead of 256x128"), findings.toString());
    }

    /** All readers keep to it. */
    @Test
    void modelsKeepToTheirMemory() throws IOException {
        Files.write(dir.resolve("a.png"), png(64, 64));
        Files.writeString(dir.resolve("m.mtl"), "newmtl wall\nmap_Kd a.png\n");
        Path obj = Files.writeString(dir.resolve("m.obj"),
                "mtllib m.mtl\nv 0 0 0\nv 4 0 0\nv 4 3 0\nvt 0 0\nvt 1 0\nvt 1 1\nusemtl wall\nf 1/1 2/2 3/3\n");
        assertEquals(64, ModelReader.read(obj, null, null).textures().getFirst().width());
        assertEquals(32, ModelReader.read(obj, null, null, null, () -> false, 6000).textures().getFirst().width());
        Path gltf = Files.writeString(dir.resolve("m.gltf"), """
            {"asset": {"version": "2.0"}, "images": [{"uri": "a.png"}], "textures": [{"source": 0}], "scene": 0, "scenes": [{"nodes": []}],
             "materials": [{"name": "wall", "pbrMetallicRoughness": {"baseColorTexture": {"index": 0}}}]}
            """);
        assertEquals(32, GltfReader.read(gltf, null, 6000).textures().getFirst().width());
    }
}
