package bake.formats;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.picture.exr.Reader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Files written by the format's reference library (OpenEXR 3.1.5), of the picture that {@link #value} describes. */
class ExrReaderTest {
    private static final int W = 64, H = 32;

    @TempDir
    Path dir;

    static double value(int c, int x, int y) {
        double s = 0.6 + 0.4 * Math.sin(0.11 * x + 0.7 * c) * Math.cos(0.09 * y);
        if (x > 20 && x < 24 && y > 10 && y < 14) s *= 300;
        return s * (c + 1) * 100;
    }

    private Path file(String name) throws IOException {
        Path p = dir.resolve(name);
        try (InputStream in = ExrReaderTest.class.getResourceAsStream("/exr/" + name)) {
            Files.copy(in, p);
        }
        return p;
    }

    private static float[] read(Path p) throws IOException {
        float[][] out = new float[1][];
        Reader.read(p, (w, h) -> {
            assertEquals(W, w);
            assertEquals(H, h);
            float[] rgb = out[0] = new float[3 * w * h];
            return (x, y, row, n) -> {
                for (int i = 0; i < n; i++) if (x + i >= 0 && x + i < w && y >= 0 && y < h)
                    System.arraycopy(row, 3 * i, rgb, 3 * (y * w + x + i), 3);
            };
        }, d -> {}, () -> false);
        // These files say nothing of white, so their numbers come as 179 times what is stored.
        for (int i = 0; i < out[0].length; i++) out[0][i] /= 179;
        return out[0];
    }

    private static void same(float[] rgb, double tolerance, String name, int x0, int y0, int x1, int y1) {
        double worst = 0, sum = 0, want = 0;
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++)
                for (int c = 0; c < 3; c++) {
                    float v = rgb[3 * (y * W + x) + c];
                    if (x < x0 || y < y0 || x > x1 || y > y1) {
                        assertEquals(0, v, name + ": nothing outside of the data window");
                        continue;
                    }
                    double w = name.startsWith("grey") ? value(0, x, y) : value(c, x, y);
                    // Blocks of 4 x 4 that hold both spot and sky are coarse.
                    if (!name.startsWith("b44") || x >= 28) worst = Math.max(worst, Math.abs(v - w) / w);
                    sum += v;
                    want += w;
                }
        // Cosine blocks ring around the bright spot: there only the sum is judged.
        if (!name.contains("dwa")) assertTrue(worst < tolerance, name + " is off by " + worst);
        assertEquals(1, sum / want, name.contains("dwa") ? 0.02 : name.startsWith("b44") && !name.contains("float") ? 0.025 : tolerance,
                name);
    }

    @ParameterizedTest
    @ValueSource(strings = {"none", "rle", "zips", "zip", "piz", "pxr24", "b44", "b44a", "dwaa", "dwab"})
    void everyCompression(String coding) throws IOException {
        for (String kind : new String[] {"half", "float", "alpha", "tiled"}) {
            double t = coding.startsWith("b44") && !kind.equals("float") ? 0.02 : kind.equals("float")
                    && !coding.equals("pxr24") ? 2e-7 : 6e-4;
            same(read(file(coding + "-" + kind + ".exr")), t, coding + "-" + kind, 0, 0, W, H);
        }
    }

    /** Away from the bright spot the lossy coding is within two hundredths of what was written. */
    @ParameterizedTest
    @ValueSource(strings = {"dwaa-half", "dwab-half", "dwaa-float", "dwaa-tiled", "dwab-alpha", "grey-dwaa"})
    void cosineBlocks(String name) throws IOException {
        float[] rgb = read(file(name + ".exr"));
        for (int y = 0; y < H; y++)
            for (int x = 32; x < W; x++)
                for (int c = 0; c < 3; c++) {
                    double w = value(name.startsWith("grey") ? 0 : c, x, y);
                    assertEquals(w, rgb[3 * (y * W + x) + c], 0.03 * w, name + " at " + x + ", " + y);
                }
    }

    @ParameterizedTest
    @ValueSource(strings = {"mip-zip", "parts-piz", "overscan-dwab"})
    void layouts(String name) throws IOException {
        same(read(file(name + ".exr")), 6e-4, name, 0, 0, W, H);
    }

    @Test
    void offsetDataWindow() throws IOException {
        same(read(file("window-piz.exr")), 6e-4, "window", 8, 4, 51, 27);
    }

    /** Damage of any kind ends in a message, never in anything else. */
    @ParameterizedTest
    @ValueSource(strings = {"none-half", "rle-half", "zip-float", "piz-half", "pxr24-float", "b44a-half", "dwaa-half", "dwab-alpha",
            "zip-tiled", "parts-piz", "mip-zip"})
    void damage(String name) throws IOException {
        byte[] good = Files.readAllBytes(file(name + ".exr"));
        SplittableRandom r = new SplittableRandom(name.hashCode());
        int refused = 0;
        for (int k = 0; k < 120; k++) {
            byte[] bad = k % 3 == 0 ? java.util.Arrays.copyOf(good, r.nextInt(good.length)) : good.clone();
            for (int i = 0; i < (k % 3 == 0 ? 0 : 1 + r.nextInt(6)) && bad.length > 0; i++) bad[r.nextInt(bad.length)] = (byte) r.nextInt();
            Path p = Files.write(dir.resolve("bad" + k + ".exr"), bad);
            try {
                Reader.read(p, (w, h) -> (x, y, row, n) -> {}, d -> {}, () -> false);
            } catch (FormatException e) {
                assertTrue(e.getMessage().startsWith("bad" + k + ".exr: "), e.getMessage());
                refused++;
            }
        }
        assertTrue(refused > 40, refused + " of 120 were refused");
    }

    @Test
    void stopped() throws IOException {
        Path p = file("zip-half.exr");
        assertTrue(assertThrows(FormatException.class, () -> Reader.read(p, (w, h) -> (x, y, row, n) -> {}, d -> {}, () -> true))
                .getMessage().contains("stopped"));
    }
}
