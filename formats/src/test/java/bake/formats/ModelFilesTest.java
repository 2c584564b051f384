package bake.formats;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import bake.core.scene.Texture;
import bake.formats.model.Finding;
import bake.formats.model.GltfWriter;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ModelFilesTest {
    @TempDir
    Path dir;

    private Path written() throws IOException {
        byte[] texel = new byte[4 * 4 * 4];
        java.util.Arrays.fill(texel, (byte) 200);
        Material wood = Material.glossy("wood", new Vec3(0.5, 0.4, 0.3), 0.4).withBaseImage(new Material.Image(0, 2, 3, 0.1, 0, 0));
        Material leaf = Material.diffuse("leaf", new Vec3(0.2, 0.4, 0.1)).withTranslucency(0.4).withAlpha(1, Material.AlphaMode.MASK, 0.3);
        Material pane = Material.glass("pane", new Vec3(1, 1, 1), 0, 1.52, true), lamp = Material.glowing("lamp", new Vec3(300, 200, 100));
        List<Mesh> meshes = List.of(Shapes.box("crate", 0, 0, 0, 1, 2, 3, 0), Shapes.sphere("ball", 1, 8, 1), Shapes.quad("sheet", 1, 1, 2),
                Shapes.quad("glow", 1, 1, 3));
        List<Instance> in = List.of(new Instance("crate 1", 0, Affine.translation(5, 6, 7), 0),
                new Instance("crate 2", 0, Affine.rotation(Vec3.UP, 0.5), 0), new Instance("ball", 1, Affine.scale(2, 1, 1), 1),
                new Instance("sheet", 2, Affine.IDENTITY, 1), new Instance("glow", 3, Affine.IDENTITY, 1));
        Path p = dir.resolve("m.gltf");
        GltfWriter.write(p, "test", meshes, in, List.of(wood, leaf, pane, lamp), List.of(new Texture("grain", 4, 4, texel, true)),
                List.of("Shell", "Things"));
        return p;
    }

    @Test
    void gltfComesBack() throws IOException {
        ImportedModel m = ModelReader.read(written(), null, null);
        assertEquals(List.of("Shell", "Things"), m.layers());
        assertEquals(5, m.instances().size());
        assertEquals(0, m.findings().size(), m.findings().toString());
        assertArrayEquals(Shapes.box("crate", 0, 0, 0, 1, 2, 3, 0).positions(),
                m.meshes().get(m.instances().getFirst().mesh()).positions());
        assertEquals(0, m.instances().getFirst().toWorld().origin().minus(new Vec3(5, 6, 7)).length(), 1e-6, "z up again");
        Material wood = m.materials().getFirst(), pane = m.materials().get(2), lamp = m.materials().get(3), leaf = m.materials().get(1);
        assertEquals(new Material.Image(0, 2, 3, 0.1, 0, 0), wood.baseImage());
        assertTrue(pane.thin() && pane.transmission() == 1 && pane.ior() == 1.52);
        assertEquals(300, lamp.emission().x(), 1e-6);
        assertEquals(0.4, leaf.translucency());
        assertEquals(Material.AlphaMode.MASK, leaf.alphaMode());
        assertEquals((byte) 200, m.textures().getFirst().rgba()[0]);
    }

    @Test
    void missingTextureIsAFinding() throws IOException {
        Path p = written();
        Files.delete(dir.resolve("grain.png"));
        ImportedModel m = ModelReader.read(p, null, null);
        assertTrue(m.findings().stream().anyMatch(f -> f.kind() == Finding.Kind.MISSING_TEXTURE && f.text().contains("grain.png")),
                m.findings().toString());
    }

    @Test
    void brokenFacesAreFindings() throws IOException {
        Mesh m = new Mesh("bad", new float[] {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 0, Float.NaN, 0, 0},
                new float[] {0, 0, -1, 0, 0, -1, 0, 0, -1, 0, 0, -1, 0, 0, -1}, null, new int[] {0, 1, 2, 0, 3, 0, 0, 1, 4}, 0);
        Path p = dir.resolve("b.gltf");
        GltfWriter.write(p, "b", List.of(m), List.of(new Instance("i", 0, Affine.IDENTITY, 0)),
                List.of(Material.diffuse("m", new Vec3(1, 1, 1))), List.of(), List.of("L"));
        // The writer's bounds hold NaN, which JSON has no word for: they are not needed.
        Files.writeString(p, Files.readString(p).replaceAll("\"(min|max)\":\\[[^\\]]*\\],?", "").replace(",}", "}"));
        ImportedModel r = ModelReader.read(p, null, null);
        assertEquals(1, r.meshes().getFirst().triangles());
        for (Finding.Kind k : new Finding.Kind[] {Finding.Kind.BROKEN_VALUES, Finding.Kind.ZERO_AREA, Finding.Kind.FLIPPED_NORMALS})
            assertTrue(r.findings().stream().anyMatch(f -> f.kind() == k), k + " in " + r.findings());
    }

    /** Hostile or damaged glTF: each is refused with the file's name and the place. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "\"uri\":\"m.bin\" | \"uri\":\"../../m.bin\" | leads out of the folder",
        "\"uri\":\"m.bin\" | \"uri\":\"/etc/passwd\" | leads out of the folder",
        "\"uri\":\"m.bin\" | \"uri\":\"none.bin\" | no such file",
        "\"version\":\"2.0\" | \"version\":\"1.0\" | only version 2",
        "\"count\":24 | \"count\":2400000 | past the end",
        "\"count\":24 | \"count\":-1 | not possible",
        "\"bufferView\":0, | \"bufferView\":999, | does not exist",
        "\"componentType\":5126 | \"componentType\":77 | unknown kind",
        "\"asset\":{ | \"extensionsRequired\":[\"XY_alien\"],\"asset\":{ | XY_alien",
        "\"mesh\":0 | \"mesh\":0,\"children\":[0] | own ancestor",
    })
    void hostileGltfIsRefused(String find, String replace, String expected) throws IOException {
        Path p = written();
        String text = Files.readString(p), changed = text.replaceFirst(java.util.regex.Pattern.quote(find),
                java.util.regex.Matcher.quoteReplacement(replace));
        assertTrue(!changed.equals(text), "the file holds " + find);
        Files.writeString(p, changed);
        FormatException e = assertThrows(FormatException.class, () -> ModelReader.read(p, null, null));
        assertTrue(e.getMessage().startsWith("m.gltf") && e.getMessage().contains(expected), e.getMessage());
    }

    /** Whatever is done to the bytes, reading ends with a model or a clear refusal. */
    @Test
    void damagedFilesNeverDoAnythingElse() throws IOException {
        Path p = written();
        byte[] json = Files.readAllBytes(p), bin = Files.readAllBytes(dir.resolve("m.bin")), glb = glb(json, bin);
        SplittableRandom r = new SplittableRandom(2);
        for (int i = 0; i < 120; i++) {
            byte[] bad = glb.clone();
            if (i % 3 == 0) bad = java.util.Arrays.copyOf(bad, r.nextInt(bad.length));
            else for (int k = 0; k < 6; k++) bad[r.nextInt(bad.length)] = (byte) r.nextInt(256);
            Files.write(dir.resolve("d.glb"), bad);
            try {
                ModelReader.read(dir.resolve("d.glb"), null, null);
            } catch (FormatException e) {
                assertTrue(e.getMessage().startsWith("d.glb"), e.getMessage());
            }
        }
    }

    private static byte[] glb(byte[] json, byte[] bin) {
        byte[] text = new String(json, StandardCharsets.UTF_8).replace("\"uri\":\"m.bin\",", "").getBytes(StandardCharsets.UTF_8);
        int a = (text.length + 3) & ~3, b = (bin.length + 3) & ~3;
        ByteBuffer o = ByteBuffer.allocate(12 + 8 + a + 8 + b).order(ByteOrder.LITTLE_ENDIAN);
        o.putInt(0x46546C67).putInt(2).putInt(o.capacity()).putInt(a).putInt(0x4E4F534A).put(text);
        while (o.position() < 20 + a) o.put((byte) ' ');
        o.putInt(b).putInt(0x004E4942).put(bin);
        return o.array();
    }

    @Test
    void glbComesBack() throws IOException {
        Path p = written();
        Files.write(dir.resolve("g.glb"), glb(Files.readAllBytes(p), Files.readAllBytes(dir.resolve("m.bin"))));
        assertEquals(5, ModelReader.read(dir.resolve("g.glb"), null, null).instances().size());
    }

    @Test
    void objWithMaterials() throws IOException {
        Files.writeString(dir.resolve("o.mtl"), "newmtl red\nKd 0.8 0.1 0.1\nNs 200\nnewmtl see\nKd 1 1 1\nd 0.4\nmap_Kd gone.png\n");
        Files.writeString(dir.resolve("o.obj"),
                "mtllib o.mtl\nv 0 0 0\nv 1 0 0\nv 1 0 -1\nv 0 0 -1\ng floor\nusemtl red\nf 1 2 3 4\ng lid\nusemtl see\nf 1 3 2\n");
        ImportedModel m = ModelReader.read(dir.resolve("o.obj"), (double) 0.01, "y");
        assertEquals(3, m.placedTriangles());
        assertEquals(List.of("floor", "lid"), m.layers());
        assertEquals(0.8, m.materials().getFirst().base().x(), 1e-6);
        Vec3 corner = m.instances().getFirst().toWorld().point(new Vec3(1, 0, -1));
        assertEquals(0, corner.minus(new Vec3(0.01, 0.01, 0)).length(), 1e-9, "y up and centimetres become z up and metres");
        assertTrue(m.findings().stream().anyMatch(f -> f.text().contains("gone.png")), m.findings().toString());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"v 0 0 0~v 1 0 0~v 0 1 0~f 1 2 9 | do not fit", "hello | holds no faces", "v 1 2~f 1 1 1 | o.obj"})
    void brokenObjIsRefused(String text, String expected) throws IOException {
        Files.writeString(dir.resolve("o.obj"), text.replace('~', '\n'));
        FormatException e = assertThrows(FormatException.class, () -> ModelReader.read(dir.resolve("o.obj"), null, null));
        assertTrue(e.getMessage().contains(expected), e.getMessage());
    }

    /** Names with spaces, behind options too, and a library whose own name has some. */
    @Test
    void objNamesMayHaveSpaces() throws IOException {
        for (String n : new String[] {"oak floor.png", "pine floor.png", "relief 2.png"})
            javax.imageio.ImageIO.write(new java.awt.image.BufferedImage(2, 2, java.awt.image.BufferedImage.TYPE_INT_RGB), "png",
                    dir.resolve(n).toFile());
        Files.writeString(dir.resolve("my house.mtl"),
                "newmtl a\nmap_Kd oak floor.png\nnewmtl b\nKd 1 1 1\nmap_Kd -s 2 2 1 -clamp on pine floor.png  \nnorm relief 2.png\nnewmtl c\nmap_Kd gone away.png\n");
        Files.writeString(dir.resolve("o.obj"),
                "mtllib my house.mtl\nv 0 0 0\nv 1 0 0\nv 1 0 -1\nusemtl a\nf 1 2 3\nusemtl b\nf 1 3 2\nusemtl c\nf 2 1 3\n");
        ImportedModel m = ModelReader.read(dir.resolve("o.obj"), null, null);
        assertEquals(List.of("oak floor.png", "pine floor.png", "relief 2.png"), m.textures().stream().map(Texture::name).toList());
        assertEquals(1, m.findings().size(), m.findings().toString());
        assertTrue(m.findings().getFirst().where().equals("gone away.png"), m.findings().toString());
    }

    /** A file that was cut off in its first bytes is told to be short, not to be something else. */
    @ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(ints = {0, 3, 4, 11})
    void stubsAreCutShort(int length) throws IOException {
        byte[] glb = glb(Files.readAllBytes(written()), Files.readAllBytes(dir.resolve("m.bin")));
        Path p = dir.resolve("stub.glb");
        Files.write(p, java.util.Arrays.copyOf(glb, length));
        FormatException e = assertThrows(FormatException.class, () -> ModelReader.read(p, null, null));
        assertTrue(e.getMessage().startsWith("stub.glb") && e.getMessage().contains("cut short"), e.getMessage());
    }
}
