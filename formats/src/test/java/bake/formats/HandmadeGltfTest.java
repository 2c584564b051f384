package bake.formats;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** glTF as other programs write it: layouts, modes, node trees, materials and lights of the standard (glTF 2.0, Khronos). */
class HandmadeGltfTest {
    @TempDir
    Path dir;

    private static String data(ByteBuffer b) {
        return "{\"byteLength\": " + b.capacity() + ", \"uri\": \"data:application/octet-stream;base64,"
                + Base64.getEncoder().encodeToString(b.array()) + "\"}";
    }

    private static ByteBuffer bytes(int n) {
        return ByteBuffer.allocate(n).order(ByteOrder.LITTLE_ENDIAN);
    }

    private ImportedModel read(String body) throws IOException {
        Path p = dir.resolve("h.gltf");
        Files.writeString(p, "{\"asset\": {\"version\": \"2.0\"}, " + body + "}");
        return ModelReader.read(p, null, null);
    }

    /** Four corners of a square on the floor, and the rest of the file around them. */
    private ImportedModel square(String primitive, String more) throws IOException {
        ByteBuffer b = bytes(48 + 12);
        for (float f : new float[] {0, 0, 0, 1, 0, 0, 1, 0, -1, 0, 0, -1}) b.putFloat(f);
        for (int i : new int[] {0, 1, 2, 0, 2, 3}) b.putShort((short) i);
        return read("\"buffers\": [" + data(b)
                + "], \"bufferViews\": [{\"buffer\": 0, \"byteLength\": 48}, {\"buffer\": 0, \"byteOffset\": 48, \"byteLength\": 12}],"
                + "\"accessors\": [{\"bufferView\": 0, \"componentType\": 5126, \"count\": 4, \"type\": \"VEC3\"}, {\"bufferView\": 1, \"componentType\": 5123, \"count\": 6, \"type\": \"SCALAR\"}],"
                + "\"meshes\": [{\"name\": \"square\", \"primitives\": [" + primitive + "]}]" + more);
    }

    /** Positions and normals woven together with a stride, texture coordinates as normalised bytes. */
    @Test
    void wovenAndNormalised() throws IOException {
        ByteBuffer b = bytes(3 * 28);
        float[][] p = {{0, 0, 0}, {2, 0, 0}, {0, 2, 0}};
        int[][] uv = {{0, 0}, {255, 0}, {0, 255}};
        for (int i = 0; i < 3; i++) {
            for (float f : p[i]) b.putFloat(f);
            b.putFloat(0).putFloat(0).putFloat(1);
            b.put((byte) uv[i][0]).put((byte) uv[i][1]).putShort((short) 0);
        }
        ImportedModel m = read("\"nodes\": [{\"mesh\": 0}], \"buffers\": [" + data(b)
                + "], \"bufferViews\": [{\"buffer\": 0, \"byteLength\": 84, \"byteStride\": 28}],"
                + "\"accessors\": [{\"bufferView\": 0, \"componentType\": 5126, \"count\": 3, \"type\": \"VEC3\"}, {\"bufferView\": 0, \"byteOffset\": 12, \"componentType\": 5126, \"count\": 3, \"type\": \"VEC3\"},"
                + "{\"bufferView\": 0, \"byteOffset\": 24, \"componentType\": 5121, \"normalized\": true, \"count\": 3, \"type\": \"VEC2\"}],"
                + "\"meshes\": [{\"primitives\": [{\"attributes\": {\"POSITION\": 0, \"NORMAL\": 1, \"TEXCOORD_0\": 2}}]}]");
        Mesh mesh = m.meshes().getFirst();
        assertArrayEquals(new float[] {0, 0, 0, 2, 0, 0, 0, 2, 0}, mesh.positions());
        assertArrayEquals(new float[] {0, 0, 1, 0, 0, 1, 0, 0, 1}, mesh.normals());
        assertArrayEquals(new float[] {0, 0, 1, 0, 0, 1}, mesh.uvs(), 1e-6f);
        assertArrayEquals(new int[] {0, 1, 2}, mesh.indices(), "no indices: as they come");
    }

    /** Vertex colours with a fourth number, as normalised bytes; white ones are none. Written and read again they stay. */
    @Test
    void vertexColours() throws IOException {
        for (boolean white : new boolean[] {false, true}) {
            ByteBuffer b = bytes(36 + 12);
            for (float f : new float[] {0, 0, 0, 1, 0, 0, 0, 1, 0}) b.putFloat(f);
            int[][] c = white ? new int[][] {{255, 255, 255, 255}, {255, 255, 255, 9}, {255, 255, 255, 0}}
                    : new int[][] {{255, 0, 0, 255}, {0, 51, 0, 255}, {0, 0, 255, 0}};
            for (int[] x : c) for (int k : x) b.put((byte) k);
            ImportedModel m = read("\"nodes\": [{\"mesh\": 0}], \"buffers\": [" + data(b)
                    + "], \"bufferViews\": [{\"buffer\": 0, \"byteLength\": 36}, {\"buffer\": 0, \"byteOffset\": 36, \"byteLength\": 12}],"
                    + "\"accessors\": [{\"bufferView\": 0, \"componentType\": 5126, \"count\": 3, \"type\": \"VEC3\"}, {\"bufferView\": 1, \"componentType\": 5121, \"normalized\": true, \"count\": 3, \"type\": \"VEC4\"}],"
                    + "\"meshes\": [{\"primitives\": [{\"attributes\": {\"POSITION\": 0, \"COLOR_0\": 1}}]}]");
            float[] wanted = white ? null : new float[] {1, 0, 0, 0, 0.2f, 0, 0, 0, 1};
            assertArrayEquals(wanted, m.meshes().getFirst().colours());
            Path again = dir.resolve("again.gltf");
            bake.formats.model.GltfWriter.write(again, "again", m.meshes(), m.instances(), m.materials(), m.textures(), m.layers());
            assertArrayEquals(wanted, ModelReader.read(again, null, null).meshes().getFirst().colours());
        }
    }

    /** A sparse accessor replaces single elements. */
    @Test
    void sparse() throws IOException {
        ByteBuffer b = bytes(36 + 4 + 12);
        for (float f : new float[] {0, 0, 0, 1, 0, 0, 0, 1, 0}) b.putFloat(f);
        b.putShort((short) 2).putShort((short) 0);
        for (float f : new float[] {0, 5, 0}) b.putFloat(f);
        ImportedModel m = read("\"nodes\": [{\"mesh\": 0}], \"buffers\": [" + data(b) + "],"
                + "\"bufferViews\": [{\"buffer\": 0, \"byteLength\": 36}, {\"buffer\": 0, \"byteOffset\": 36, \"byteLength\": 4}, {\"buffer\": 0, \"byteOffset\": 40, \"byteLength\": 12}],"
                + "\"accessors\": [{\"bufferView\": 0, \"componentType\": 5126, \"count\": 3, \"type\": \"VEC3\", \"sparse\": {\"count\": 1, \"indices\": {\"bufferView\": 1, \"componentType\": 5123}, \"values\": {\"bufferView\": 2}}}],"
                + "\"meshes\": [{\"primitives\": [{\"attributes\": {\"POSITION\": 0}}]}]");
        assertArrayEquals(new float[] {0, 0, 0, 1, 0, 0, 0, 5, 0}, m.meshes().getFirst().positions());
    }

    /** Strips turn every other triangle, fans share their first corner. */
    @Test
    void stripsAndFans() throws IOException {
        ImportedModel strip = square("{\"mode\": 5, \"attributes\": {\"POSITION\": 0}}", ", \"nodes\": [{\"mesh\": 0}]");
        assertArrayEquals(new int[] {0, 1, 2, 2, 1, 3}, strip.meshes().getFirst().indices());
        ImportedModel fan = square("{\"mode\": 6, \"attributes\": {\"POSITION\": 0}}", ", \"nodes\": [{\"mesh\": 0}]");
        assertArrayEquals(new int[] {0, 1, 2, 0, 2, 3}, fan.meshes().getFirst().indices());
        ImportedModel lines = square("{\"mode\": 1, \"attributes\": {\"POSITION\": 0}}, {\"attributes\": {\"POSITION\": 0}, \"indices\": 1}", ", \"nodes\": [{\"mesh\": 0}]");
        assertEquals(1, lines.meshes().size());
        assertTrue(lines.findings().stream().anyMatch(f -> f.kind() == Finding.Kind.NOT_READ), "lines are named as left out");
    }

    /** A node's parents act on it, y up becomes z up, and one mesh in many nodes stays one mesh. */
    @Test
    void nodeTree() throws IOException {
        ImportedModel m = square("{\"attributes\": {\"POSITION\": 0}, \"indices\": 1}",
                ", \"scenes\": [{\"nodes\": [0]}], \"nodes\": [{\"name\": \"root\", \"children\": [1, 2]}, {\"name\": \"low\", \"mesh\": 0, \"translation\": [10, 0, 0]},"
                        + "{\"name\": \"high\", \"translation\": [0, 3, 0], \"scale\": [2, 2, 2], \"children\": [3]}, {\"name\": \"turned\", \"mesh\": 0, \"rotation\": [0, 0.7071067811865476, 0, 0.7071067811865476]}]");
        assertEquals(1, m.meshes().size());
        assertEquals(2, m.instances().size());
        assertEquals(java.util.List.of("low", "high"), m.layers(), "layers are where the tree first branches");
        Vec3 corner = new Vec3(1, 0, 0);
        assertEquals(0, m.instances().get(0).toWorld().point(corner).minus(new Vec3(11, 0, 0)).length(), 1e-9);
        // A quarter turn about y takes +x to -z, which is +y in the world; then twice the size, three metres up.
        assertEquals(0, m.instances().get(1).toWorld().point(corner).minus(new Vec3(0, 2, 3)).length(), 1e-6);
    }

    /** Materials of the standard and the extensions that the surface model has. */
    @Test
    void materials() throws IOException {
        ImportedModel m = square("{\"attributes\": {\"POSITION\": 0}, \"material\": 0}", ", \"nodes\": [{\"mesh\": 0}], \"materials\": ["
                + "{\"name\": \"brass\", \"pbrMetallicRoughness\": {\"baseColorFactor\": [0.8, 0.6, 0.3, 1], \"metallicFactor\": 1, \"roughnessFactor\": 0.2}},"
                + "{\"name\": \"window\", \"extensions\": {\"KHR_materials_transmission\": {\"transmissionFactor\": 1}, \"KHR_materials_ior\": {\"ior\": 1.52}}},"
                + "{\"name\": \"block\", \"extensions\": {\"KHR_materials_transmission\": {\"transmissionFactor\": 1}, \"KHR_materials_volume\": {\"thicknessFactor\": 0.1}}},"
                + "{\"name\": \"leaf\", \"alphaMode\": \"MASK\", \"alphaCutoff\": 0.3, \"extensions\": {\"KHR_materials_diffuse_transmission\": {\"diffuseTransmissionFactor\": 0.4}}},"
                + "{\"name\": \"sign\", \"emissiveFactor\": [1, 0.5, 0.25], \"extensions\": {\"KHR_materials_emissive_strength\": {\"emissiveStrength\": 200}}},"
                + "{\"name\": \"veil\", \"alphaMode\": \"BLEND\", \"pbrMetallicRoughness\": {\"baseColorFactor\": [1, 1, 1, 0.25]}}]");
        Material brass = m.materials().get(0), window = m.materials().get(1), block = m.materials().get(2), leaf = m.materials().get(3),
                sign = m.materials().get(4), veil = m.materials().get(5);
        assertEquals(1, brass.metallic());
        assertEquals(0.2, brass.roughness(), 1e-9);
        assertEquals(new Vec3(0.8, 0.6, 0.3), brass.base());
        assertTrue(window.thin() && window.transmission() == 1 && window.ior() == 1.52, "without a volume it is a sheet");
        assertTrue(!block.thin() && block.transmission() == 1, "with a volume it is a solid");
        assertEquals(Material.AlphaMode.MASK, leaf.alphaMode());
        assertEquals(0.3, leaf.cutoff(), 1e-9);
        assertEquals(0.4, leaf.translucency(), 1e-9);
        assertEquals(new Vec3(200, 100, 50), sign.emission());
        assertEquals(0.25, veil.alpha(), 1e-9);
        assertEquals(Material.AlphaMode.BLEND, veil.alphaMode());
    }

    /** Punctual lights: intensity in candela, cones, colour; directional ones are named as left out. */
    @Test
    void lights() throws IOException {
        ImportedModel m = square("{\"attributes\": {\"POSITION\": 0}}",
                ", \"nodes\": [{\"mesh\": 0}, {\"name\": \"bulb\", \"translation\": [0, 2, 0], \"extensions\": {\"KHR_lights_punctual\": {\"light\": 0}}},"
                + "{\"name\": \"spot\", \"extensions\": {\"KHR_lights_punctual\": {\"light\": 1}}}, {\"name\": \"sun\", \"extensions\": {\"KHR_lights_punctual\": {\"light\": 2}}}],"
                + "\"extensionsUsed\": [\"KHR_lights_punctual\"], \"extensions\": {\"KHR_lights_punctual\": {\"lights\": [{\"type\": \"point\", \"intensity\": 100, \"color\": [1, 1, 1]},"
                + "{\"type\": \"spot\", \"intensity\": 500, \"spot\": {\"innerConeAngle\": 0.3, \"outerConeAngle\": 0.3}}, {\"type\": \"directional\", \"intensity\": 3}]}}");
        assertEquals(2, m.lamps().size());
        Lamp bulb = m.lamps().get(0), spot = m.lamps().get(1);
        assertEquals(400 * Math.PI, bulb.lumens(), 0.01);
        assertEquals(0, bulb.position().minus(new Vec3(0, 0, 2)).length(), 1e-9);
        assertEquals(500 * 2 * Math.PI * (1 - Math.cos(0.3)), spot.lumens(), 0.1);
        assertTrue(m.findings().stream().anyMatch(f -> f.where().equals("sun")), m.findings().toString());
    }

    /** A camera keeps its vertical angle of view: the sensor is 36 mm wide. */
    @Test
    void camera() throws IOException {
        ImportedModel m = square("{\"attributes\": {\"POSITION\": 0}}",
                ", \"nodes\": [{\"mesh\": 0}, {\"name\": \"eye\", \"camera\": 0, \"translation\": [1, 2, 3]}],"
                + "\"cameras\": [{\"type\": \"perspective\", \"perspective\": {\"yfov\": 0.7, \"aspectRatio\": 1.5, \"znear\": 0.1}}, {\"type\": \"orthographic\", \"orthographic\": {}}]");
        var c = m.cameras().getFirst();
        assertEquals("eye", c.name());
        assertEquals(2 * Math.atan(36 / 1.5 / 2 / c.camera().focal()), 0.7, 1e-9);
        assertEquals(0, c.camera().position().minus(new Vec3(1, -3, 2)).length(), 1e-9, "z up");
        Vec3 look = c.camera().target().minus(c.camera().position()).normalized();
        assertEquals(0, look.minus(new Vec3(0, 1, 0)).length(), 1e-9, "-z becomes +y");
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "\"nodes\": [{\"mesh\": 7}]",
        "\"nodes\": [{\"mesh\": 0, \"matrix\": [1, 2, 3]}]",
        "\"nodes\": [{\"mesh\": 0, \"translation\": [\"a\", 0, 0]}]",
        "\"nodes\": [{\"children\": [1]}, {\"children\": [0]}], \"scenes\": [{\"nodes\": [0]}]",
        "\"scene\": 3, \"scenes\": [{\"nodes\": [0]}], \"nodes\": [{\"mesh\": 0}]",
        "\"scenes\": [{\"nodes\": [44]}], \"nodes\": [{\"mesh\": 0}]"})
    void brokenTreesAreRefused(String more) {
        FormatException e = assertThrows(FormatException.class, () -> square("{\"attributes\": {\"POSITION\": 0}}", ", " + more));
        assertTrue(e.getMessage().startsWith("h.gltf"), e.getMessage());
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "{\"attributes\": {}}",
        "{\"attributes\": {\"POSITION\": 1}}",
        "{\"attributes\": {\"POSITION\": 0, \"NORMAL\": 1}}",
        "{\"attributes\": {\"POSITION\": 0}, \"indices\": 0}",
        "{\"attributes\": {\"POSITION\": 0}, \"extensions\": {\"KHR_draco_mesh_compression\": {}}}"})
    void brokenPartsAreRefused(String primitive) {
        FormatException e = assertThrows(FormatException.class, () -> square(primitive, ", \"nodes\": [{\"mesh\": 0}]"));
        assertTrue(e.getMessage().startsWith("h.gltf") && e.getMessage().contains("export"), e.getMessage());
    }

    /** Copies of a mesh at one node: three places, the last turned a quarter about y and twice as large. */
    @Test
    void instancesOfANode() throws IOException {
        ByteBuffer b = bytes(48 + 12 + 36 + 48 + 36);
        for (float f : new float[] {0, 0, 0, 1, 0, 0, 1, 0, -1, 0, 0, -1}) b.putFloat(f);
        for (int i : new int[] {0, 1, 2, 0, 2, 3}) b.putShort((short) i);
        for (float f : new float[] {0, 0, 0, 5, 0, 0, 0, 7, 0}) b.putFloat(f);
        float h = (float) Math.sqrt(0.5);
        for (float f : new float[] {0, 0, 0, 1, 0, 0, 0, 1, 0, h, 0, h}) b.putFloat(f);
        for (float f : new float[] {1, 1, 1, 1, 1, 1, 2, 2, 2}) b.putFloat(f);
        String views = "", accessors = "";
        int[][] parts = {{0, 48}, {48, 12}, {60, 36}, {96, 48}, {144, 36}};
        for (int[] v : parts) views += (views.isEmpty() ? "" : ",") + "{\"buffer\": 0, \"byteOffset\": " + v[0] + ", \"byteLength\": "
                + v[1] + "}";
        String[] kinds = {"5126, \"count\": 4, \"type\": \"VEC3\"", "5123, \"count\": 6, \"type\": \"SCALAR\"",
                "5126, \"count\": 3, \"type\": \"VEC3\"",
            "5126, \"count\": 3, \"type\": \"VEC4\"", "5126, \"count\": 3, \"type\": \"VEC3\""};
        for (int i = 0; i < 5; i++) accessors += (i == 0 ? "" : ",") + "{\"bufferView\": " + i + ", \"componentType\": " + kinds[i] + "}";
        ImportedModel m = read("\"extensionsRequired\": [\"EXT_mesh_gpu_instancing\"], \"buffers\": [" + data(b) + "], \"bufferViews\": ["
                + views + "], \"accessors\": [" + accessors + "],"
                + "\"meshes\": [{\"primitives\": [{\"attributes\": {\"POSITION\": 0}, \"indices\": 1}]}],"
                + "\"nodes\": [{\"mesh\": 0, \"extensions\": {\"EXT_mesh_gpu_instancing\": {\"attributes\": {\"TRANSLATION\": 2, \"ROTATION\": 3, \"SCALE\": 4}}}}]");
        assertEquals(1, m.meshes().size());
        assertEquals(3, m.instances().size());
        assertEquals(5, m.instances().get(1).toWorld().point(Vec3.ZERO).x(), 1e-6);
        // y up becomes z up; the turn takes x to -z of the file, which is y here.
        Vec3 p = m.instances().get(2).toWorld().point(new Vec3(1, 0, 0));
        assertEquals(0, p.x(), 1e-5);
        assertEquals(2, p.y(), 1e-5);
        assertEquals(7, p.z(), 1e-5);
    }

    /** Positions as plain 16 bit numbers, to be scaled by the node (KHR_mesh_quantization). */
    @Test
    void quantisedPositions() throws IOException {
        ByteBuffer b = bytes(3 * 8);
        for (int[] p : new int[][] {{0, 0, 0}, {30000, 0, 0}, {0, -15000, 0}}) {
            for (int c : p) b.putShort((short) c);
            b.putShort((short) 0);
        }
        ImportedModel m = read("\"extensionsRequired\": [\"KHR_mesh_quantization\"], \"buffers\": [" + data(b)
                + "], \"bufferViews\": [{\"buffer\": 0, \"byteLength\": 24, \"byteStride\": 8}],"
                + "\"accessors\": [{\"bufferView\": 0, \"componentType\": 5122, \"count\": 3, \"type\": \"VEC3\"}], \"meshes\": [{\"primitives\": [{\"attributes\": {\"POSITION\": 0}}]}],"
                + "\"nodes\": [{\"mesh\": 0, \"scale\": [0.0001, 0.0001, 0.0001]}]");
        assertArrayEquals(new float[] {0, 0, 0, 30000, 0, 0, 0, -15000, 0}, m.meshes().getFirst().positions());
        assertEquals(3, m.instances().getFirst().toWorld().point(new Vec3(30000, 0, 0)).x(), 1e-6);
    }

    /** What lies on a surface: each value of the material extensions arrives, and is written and read back the same. */
    @Test
    void materialExtensions() throws IOException {
        ImportedModel m = square("{\"attributes\": {\"POSITION\": 0}, \"indices\": 1, \"material\": 0}",
                ", \"nodes\": [{\"mesh\": 0}], \"materials\": [{\"name\": \"all\", \"extensions\": {"
                + "\"KHR_materials_specular\": {\"specularFactor\": 0.4, \"specularColorFactor\": [1, 0.5, 0.25]}, \"KHR_materials_clearcoat\": {\"clearcoatFactor\": 0.7, \"clearcoatRoughnessFactor\": 0.2},"
                + "\"KHR_materials_sheen\": {\"sheenColorFactor\": [0.1, 0.2, 0.3], \"sheenRoughnessFactor\": 0.6}, \"KHR_materials_anisotropy\": {\"anisotropyStrength\": 0.5, \"anisotropyRotation\": 1.5},"
                + "\"KHR_materials_transmission\": {\"transmissionFactor\": 1}, \"KHR_materials_volume\": {\"thicknessFactor\": 0.1, \"attenuationDistance\": 0.2, \"attenuationColor\": [0.5, 0.6, 0.7]}}},"
                + "{\"name\": \"screen\", \"pbrMetallicRoughness\": {\"baseColorFactor\": [0.5, 0, 0, 1]}, \"extensions\": {\"KHR_materials_unlit\": {}}}]");
        bake.core.scene.Layers l = m.materials().getFirst().layers();
        assertEquals(new bake.core.scene.Layers(0.4, new Vec3(1, 0.5, 0.25), 0.7, 0.2, new Vec3(0.1, 0.2, 0.3), 0.6, 0.5, 1.5,
                new Vec3(0.5, 0.6, 0.7), 0.2, bake.core.scene.Layers.Images.NONE), l);
        assertEquals(false, m.materials().getFirst().thin());
        Material screen = m.materials().get(1);
        assertEquals(50, screen.emission().x(), 1e-9);
        assertTrue(m.findings().stream().anyMatch(f -> f.kind() == Finding.Kind.UNLIT));
        Path out = dir.resolve("again.gltf");
        bake.formats.model.GltfWriter.write(out, "again", m.meshes(), m.instances(), m.materials(), m.textures(), m.layers());
        assertEquals(l, ModelReader.read(out, null, null).materials().getFirst().layers());
    }

    /** Variants: the file's own materials unless one is asked for by name; a name that is not there is refused with those that are. */
    @Test
    void materialVariants() throws IOException {
        String more = ", \"nodes\": [{\"mesh\": 0}], \"materials\": [{\"name\": \"own\"}, {\"name\": \"dark\"}, {\"name\": \"light\"}],"
                + "\"extensions\": {\"KHR_materials_variants\": {\"variants\": [{\"name\": \"Night\"}, {\"name\": \"Day\"}]}}";
        String part = "{\"attributes\": {\"POSITION\": 0}, \"indices\": 1, \"material\": 0, \"extensions\": {\"KHR_materials_variants\": {\"mappings\": [{\"material\": 1, \"variants\": [0]}, {\"material\": 2, \"variants\": [1]}]}}}";
        ImportedModel m = square(part, more);
        assertEquals("own", m.materials().get(m.meshes().getFirst().material()).name());
        assertTrue(m.findings().stream().anyMatch(f -> f.kind() == Finding.Kind.VARIANTS && f.text().contains("Night, Day")));
        ImportedModel day = ModelReader.read(dir.resolve("h.gltf"), null, null, "Day");
        assertEquals("light", day.materials().get(day.meshes().getFirst().material()).name());
        FormatException e = assertThrows(FormatException.class, () -> ModelReader.read(dir.resolve("h.gltf"), null, null, "Noon"));
        assertTrue(e.getMessage().contains("Night, Day"), e.getMessage());
    }
}
