package bake.formats.picture;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.finish.Gamut;
import java.awt.color.ICC_ColorSpace;
import java.awt.color.ICC_Profile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Pictures say which gamut their codes are of, in ways that others read. */
class GamutFilesTest {
    @TempDir
    Path dir;

    /** Java's colour management reads the profile and finds white and primaries where the standards put them. */
    @ParameterizedTest
    @EnumSource(Gamut.class)
    void profileIsRead(Gamut g) {
        ICC_ColorSpace s = new ICC_ColorSpace(ICC_Profile.getInstance(GamutProfile.icc(g)));
        float[] white = s.toCIEXYZ(new float[] {1, 1, 1});
        assertArrayEquals(new float[] {0.9642f, 1, 0.8249f}, white, 2e-3f);
        // Back from D50 by the Bradford adaptation, as ICC.1 annex E has it.
        double[] d = {0.9555766, -0.0230393, 0.0631636, -0.0282895, 1.0099416, 0.0210077, 0.0122982, -0.0204830, 1.3299098};
        for (int c = 0; c < 3; c++) {
            float[] p = new float[3];
            p[c] = 1;
            float[] x = s.toCIEXYZ(p);
            double[] y = new double[3];
            for (int r = 0; r < 3; r++) for (int k = 0; k < 3; k++) y[r] += d[3 * r + k] * x[k];
            double sum = y[0] + y[1] + y[2];
            // The reds of wide gamuts have a Z of down to -0.002 under D50, which Java cuts at 0.
            double near = g != Gamut.SRGB && c == 0 ? 3e-3 : 1e-3;
            assertEquals(g.primaries()[2 * c], y[0] / sum, near, g + " x of " + c);
            assertEquals(g.primaries()[2 * c + 1], y[1] / sum, near, g + " y of " + c);
        }
        float[] half = s.toCIEXYZ(new float[] {0.5f, 0.5f, 0.5f});
        assertEquals(g.decode(0.5), half[1], 2e-3);
    }

    /** PNG, TIFF and JPEG carry it. */
    @Test
    void filesSayIt() throws Exception {
        short[] codes = {(short) 65535, 0, 0, (short) 32768, (short) 32768, (short) 32768};
        Path png = dir.resolve("a.png"), tif = dir.resolve("a.tif"), jpg = dir.resolve("a.jpg");
        DisplayPicture.writePng(png, DisplayPicture.image16(2, 1, codes), 300, Gamut.P3);
        DisplayPicture.writeTiff(tif, DisplayPicture.image16(2, 1, codes), 300, Gamut.BT2020);
        DisplayPicture.writeJpeg(jpg, DisplayPicture.image8(2, 1, new int[] {0xffff0000, 0xff808080}, false), 300, 0.9f, Gamut.P3);
        String text = new String(Files.readAllBytes(png), StandardCharsets.ISO_8859_1);
        assertTrue(text.contains("iCCP") && !text.contains("sRGB\0\0"), "a profile in place of the plain tag");
        int at = text.indexOf("cICP");
        assertTrue(at > 0 && at < text.indexOf("IDAT"), "code points before the picture");
        assertArrayEquals(new byte[] {12, 13, 0, 1}, java.util.Arrays.copyOfRange(Files.readAllBytes(png), at + 4, at + 8));
        for (Path f : new Path[] {tif, jpg})
            assertTrue(new String(Files.readAllBytes(f), StandardCharsets.ISO_8859_1).contains("acsp"), f + " has a profile");
        assertEquals(2, ImageIO.read(jpg.toFile()).getWidth());
        byte[] all = Files.readAllBytes(png), icc = GamutProfile.icc(Gamut.P3), found = new byte[icc.length];
        int from = text.indexOf("iCCP") + 4, packed = text.indexOf('\0', from) + 2;
        java.util.zip.Inflater i = new java.util.zip.Inflater();
        i.setInput(all, packed, all.length - packed);
        assertEquals(icc.length, i.inflate(found));
        assertArrayEquals(icc, found);
    }
}
