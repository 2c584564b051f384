package bake.formats.model;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Mesh;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** OBJ files as they are met with. */
class ObjFileTest {
    private static final String SQUARE = "v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\n";

    @TempDir
    Path dir;

    private ImportedModel read(String obj) throws IOException {
        Files.writeString(dir.resolve("a.obj"), obj);
        return ObjFile.read(dir.resolve("a.obj"), 1, false);
    }

    private static double area(Mesh m) {
        double sum = 0;
        int[] i = m.indices();
        float[] p = m.positions();
        for (int t = 0; t < i.length; t += 3) {
            double ax = p[3 * i[t + 1]] - p[3 * i[t]], ay = p[3 * i[t + 1] + 1] - p[3 * i[t] + 1], bx = p[3 * i[t + 2]] - p[3 * i[t]],
                    by = p[3 * i[t + 2] + 1] - p[3 * i[t] + 1];
            sum += (ax * by - ay * bx) / 2;
        }
        return sum;
    }

    private static String material(ImportedModel m, String group) {
        return m.instances().stream().filter(i -> i.name().equals(group))
                .map(i -> m.materials().get(m.meshes().get(i.mesh()).material()).name()).collect(Collectors.joining(","));
    }

    @Test
    void aMaterialGoesOnInTheNextGroup() throws IOException {
        Files.writeString(dir.resolve("m.mtl"), "newmtl red\nKd 1 0 0\n");
        ImportedModel m = read("mtllib m.mtl\n" + SQUARE + "g one\nusemtl red\nf 1 2 3\ng two\nf 1 3 4\no three\nusemtl red\nf 1 2 4\n");
        assertEquals("red", material(m, "two"));
        assertEquals(List.of("one", "two", "three"), m.layers());
        assertEquals(1, m.materials().size());
    }

    /** An L, a ring cut open, and a door with a pane left out: what is not in the polygon stays empty, and it faces the same way. */
    @Test
    void concaveFacesKeepTheirShape() throws IOException {
        ImportedModel l = read("v 0 0 0\nv 3 0 0\nv 3 1 0\nv 1 1 0\nv 1 3 0\nv 0 3 0\nf 1 2 3 4 5 6\n");
        assertEquals(5, area(l.meshes().getFirst()), 1e-6);
        ImportedModel back = read("v 0 0 0\nv 3 0 0\nv 3 1 0\nv 1 1 0\nv 1 3 0\nv 0 3 0\nf 6 5 4 3 2 1\n");
        assertEquals(-5, area(back.meshes().getFirst()), 1e-6);
        ImportedModel ring = read("v 0 0 0\nv 4 0 0\nv 4 4 0\nv 0 4 0\nv 1 1 0\nv 1 3 0\nv 3 3 0\nv 3 1 0\nf 1 2 3 4 1 5 6 7 8 5\n");
        assertEquals(12, area(ring.meshes().getFirst()), 1e-6);
        // A dart: four corners, one of them turned in, begun at either side of it.
        for (String f : new String[] {"1 2 3 4", "2 3 4 1", "3 4 1 2", "4 1 2 3"})
            assertEquals(2, area(read("v 0 0 0\nv 2 2 0\nv 0 1 0\nv -2 2 0\nf " + f + "\n").meshes().getFirst()), 1e-6, f);
    }

    @Test
    void manyCornersTakeNoTime() throws IOException {
        int n = 20_000;
        StringBuilder o = new StringBuilder(), f = new StringBuilder("f");
        double area = 0, px = 0, py = 0;
        for (int i = 0; i <= n; i++) {
            double r = i % 2 == 0 ? 1 : 0.7, a = 2 * Math.PI * (i % n) / n, x = r * Math.cos(a), y = r * Math.sin(a);
            if (i > 0) area += (px * y - py * x) / 2;
            px = x;
            py = y;
            if (i == n) break;
            o.append(String.format(java.util.Locale.ROOT, "v %.9f %.9f 0\n", x, y));
            f.append(' ').append(i + 1);
        }
        long start = System.nanoTime();
        ImportedModel m = read(o.append(f).append('\n').toString());
        assertEquals(n - 2, m.meshes().getFirst().triangles());
        assertEquals(area, area(m.meshes().getFirst()), 1e-3);
        assertTrue(System.nanoTime() - start < 5_000_000_000L);
    }

    @Test
    void namesInEitherEncoding() throws IOException {
        for (Charset c : new Charset[] {StandardCharsets.UTF_8, Charset.forName("windows-1252")}) {
            Files.write(dir.resolve("m.mtl"), "newmtl Tür grün\nKd 0 1 0\n".getBytes(c));
            Files.write(dir.resolve("a.obj"), ("mtllib m.mtl\n" + SQUARE + "g Wände\nusemtl Tür grün\nf 1 2 3\n").getBytes(c));
            ImportedModel m = ObjFile.read(dir.resolve("a.obj"), 1, false);
            assertEquals(List.of("Wände"), m.layers(), c.name());
            assertEquals("Tür grün", m.materials().getFirst().name());
            assertEquals(1, m.materials().getFirst().base().y(), 1e-9);
        }
    }

    @Test
    void coloursOfVertices() throws IOException {
        ImportedModel m = read("v 0 0 0\nv 1 0 0 1 0 0\nv 0 1 0 0.5 1 1\nf 1 2 3\n");
        assertArrayEquals(new float[] {1, 1, 1, 1, 0, 0, 0.214f, 1, 1}, m.meshes().getFirst().colours(), 1e-3f);
        // A fourth number alone is a weight and no colour.
        assertEquals(null, read("v 0 0 0 1\nv 1 0 0 1\nv 0 1 0 1\nf 1 2 3\n").meshes().getFirst().colours());
    }

    @Test
    void oddNumbersCostOnlyTheirFaces() throws IOException {
        ImportedModel m = read(SQUARE + "v 1,5 0 0\nf 1 2 3\nf 1 2 5\nf 1 3 4\n");
        assertEquals(2, m.meshes().getFirst().triangles());
        assertTrue(m.findings().getFirst().text().contains("'1,5' in line 5"), m.findings().toString());
        ImportedModel far = read(SQUARE + "vt 0 0\nf 1/1 2/9 3/1\nf 1 2 77\n");
        assertEquals(1, far.meshes().getFirst().triangles());
        assertTrue(far.findings().getFirst().text().contains("line 7"), far.findings().toString());
        String none = assertThrows(FormatException.class, () -> read(SQUARE + "f 1 2 9\n")).getMessage();
        assertTrue(none.contains("line 5") && none.contains("do not fit"), none);
    }

    @Test
    void whatElseIsWrittenIsTaken() throws IOException {
        // Counted backwards, continued lines, carriage returns, remarks, exponents, lines and points between.
        ImportedModel m = read("# begun\r\nv 0 0 0\r\nv 1e0 +0 -.0\r\nv 1 1. 0\r\nv 0 \\\r\n 10.0E-1 0 # last\r\nvn 0 0 1\r\nl 1 2\r\np 1\r\ns off\r\n"
                + "f -4//1 -3//1 -2//-1\r\nf 1//1 \\\r\n3//1 4//1\r\n");
        assertEquals(1, area(m.meshes().getFirst()), 1e-6);
        assertEquals(4, m.meshes().getFirst().positions().length / 3);
        assertEquals(List.of(), m.findings());
        // Old computers ended lines with a carriage return alone.
        assertEquals(0.5, area(read("v 0 0 0\rv 1 0 0\rv 1 1 0\rf 1 2 3\r").meshes().getFirst()), 1e-6);
    }

    /** Coordinates of a survey: the shape keeps its millimetres. */
    @Test
    void farFromTheOrigin() throws IOException {
        ImportedModel m = read("v 2600000.001 1200000 400\nv 2600001.002 1200000 400\nv 2600001.002 1200001 400\nf 1 2 3\n");
        float[] p = m.meshes().getFirst().positions();
        assertEquals(1.001, p[3] - p[0], 1e-6);
        assertEquals(2_600_000.001, m.instances().getFirst().toWorld().point(new bake.core.math.Vec3(p[0], p[1], p[2])).x(), 1e-6);
    }
}
