package bake.formats.model;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.FormatException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Packed buffers against streams that an independent library has written. */
class PackedViewTest {
    @TempDir
    Path dir;

    private static byte[] bytes(String name) throws IOException {
        try (InputStream in = PackedViewTest.class.getResourceAsStream("/bake/formats/models/" + name)) {
            return in.readAllBytes();
        }
    }

    /** Eight bytes an element: noise, steady ones, and rare changes. */
    @Test
    void attributes() throws IOException {
        assertArrayEquals(bytes("stream.bin"), PackedView.unpack(bytes("stream.packed"), 1000, 8, "ATTRIBUTES", "NONE"));
    }

    /** Triangles come back with the same corners in the same turn; a packer may begin with another of the three. */
    @Test
    void triangles() throws IOException {
        ByteBuffer want = ByteBuffer.wrap(bytes("tri.bin")).order(ByteOrder.LITTLE_ENDIAN),
                got = ByteBuffer.wrap(PackedView.unpack(bytes("tri.packed"), 900, 4, "TRIANGLES", "NONE")).order(ByteOrder.LITTLE_ENDIAN);
        for (int t = 0; t < 300; t++) {
            int a = want.getInt(12 * t), b = want.getInt(12 * t + 4), c = want.getInt(12 * t + 8), x = got.getInt(12 * t),
                    y = got.getInt(12 * t + 4), z = got.getInt(12 * t + 8);
            assertTrue(a == x && b == y && c == z || a == y && b == z && c == x || a == z && b == x && c == y, "triangle " + t);
        }
    }

    /** A whole file with all three modes and two filters, against the same file plain. */
    @Test
    void wholeFile() throws IOException {
        for (String n : new String[] {"sheet.gltf", "sheet-meshopt.gltf"}) Files.write(dir.resolve(n), bytes(n));
        ImportedModel plain = GltfReader.read(dir.resolve("sheet.gltf")), packed = GltfReader.read(dir.resolve("sheet-meshopt.gltf"));
        for (int i = 0; i < 2; i++) {
            assertArrayEquals(plain.meshes().get(i).positions(), packed.meshes().get(i).positions());
            assertArrayEquals(plain.meshes().get(i).normals(), packed.meshes().get(i).normals(), 0.01f);
            assertArrayEquals(plain.meshes().get(i).uvs(), packed.meshes().get(i).uvs(), 1e-4f);
            assertEquals(128, packed.meshes().get(i).triangles());
        }
        assertArrayEquals(plain.meshes().get(1).indices(), packed.meshes().get(1).indices());
    }

    /** Damaged streams end in a clear error, whatever byte is wrong. */
    @Test
    void damaged() throws IOException {
        String text = new String(bytes("sheet-meshopt.gltf"), java.nio.charset.StandardCharsets.UTF_8);
        SplittableRandom random = new SplittableRandom(6);
        int from = text.indexOf("base64,") + 7, to = text.indexOf('"', from), refused = 0;
        for (int k = 0; k < 60; k++) {
            StringBuilder s = new StringBuilder(text);
            for (int j = 0; j < 6; j++) s.setCharAt(random.nextInt(from, to - 8), "ABCDEFwxyz0189".charAt(random.nextInt(14)));
            Path f = dir.resolve("d.gltf");
            Files.writeString(f, s);
            try {
                GltfReader.read(f);
            } catch (FormatException e) {
                refused++;
                assertTrue(e.getMessage().startsWith("d.gltf"), e.getMessage());
            }
        }
        assertTrue(refused > 3, refused + " were refused");
        Path f = dir.resolve("huge.gltf");
        Files.writeString(f, text.replaceFirst("\"count\":81", "\"count\":2000000000"));
        assertThrows(FormatException.class, () -> GltfReader.read(f));
        assertThrows(IllegalArgumentException.class, () -> PackedView.unpack(new byte[] {1, 2, 3}, 1, 4, "ATTRIBUTES", "NONE"));
    }
}
