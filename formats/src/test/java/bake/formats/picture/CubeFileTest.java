package bake.formats.picture;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.finish.ColourTable;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CubeFileTest {
    @TempDir
    private Path dir;

    private ColourTable read(String text) throws IOException {
        return CubeFile.read(Files.writeString(dir.resolve("t.cube"), text));
    }

    private static final String CUBE = "# by hand\r\nTITLE \"swap\"\r\nLUT_3D_SIZE 2\r\nDOMAIN_MIN 0 0 0\r\nDOMAIN_MAX 1 1 1\r\n\r\n"
            + "0 0 0\r\n0 0 1\r\n0 1 0\r\n0 1 1\r\n1 0 0\r\n1 0 1\r\n1 1 0\r\n1 1 1\r\n";

    @Test
    void cubesAndCurves() throws IOException {
        ColourTable t = read(CUBE);
        assertTrue(t.cube());
        assertEquals(2, t.size());
        assertArrayEquals(new float[] {0, 0, 1}, new float[] {t.values()[3], t.values()[4], t.values()[5]}, "red runs fastest");
        ColourTable c = read("LUT_1D_SIZE 3\nLUT_1D_INPUT_RANGE 0.0 2.0\n0 0 0\n.5 .6 0.7\n1 1 1e0\n");
        assertFalse(c.cube());
        assertArrayEquals(new float[] {2, 2, 2}, c.high());
        assertEquals(0.6f, c.values()[4]);
    }

    @Test
    void reasons() {
        String[][] wrong = {{"", "no size"}, {"LUT_3D_SIZE 2\n0 0 0\n", "ends after 1 of 8"}, {"LUT_3D_SIZE 900\n", "line 1"},
            {"0 0 0\n", "before the size"}, {CUBE + "1 1 1\n", "more values"}, {"LUT_3D_SIZE 2\n0 0\n", "line 2"},
            {"LUT_3D_SIZE 2\n0 0 x\n", "'x'"}, {"LUT_3D_SIZE 2\nLUT_1D_SIZE 2\n", "second time"}, {CUBE.replace("DOMAIN_MAX 1 1 1", "DOMAIN_MAX 0 1 1"), "domain"}};
        for (String[] w : wrong) {
            String m = assertThrows(FormatException.class, () -> read(w[0]), w[0]).getMessage();
            assertTrue(m.contains(w[1]) && m.contains("t.cube"), m);
        }
    }

    @Test
    void damagedOnesAreRefused() throws IOException {
        Random r = new Random(4);
        byte[] b = CUBE.getBytes();
        for (int k = 0; k < 2000; k++) {
            byte[] d = java.util.Arrays.copyOf(b, r.nextInt(b.length + 1));
            for (int i = 0; i < 3 && d.length > 0; i++) d[r.nextInt(d.length)] = (byte) r.nextInt(256);
            try {
                CubeFile.read(Files.write(dir.resolve("d.cube"), d));
            } catch (FormatException e) {
                assertTrue(e.getMessage().contains("d.cube"));
            }
        }
    }
}
