package bake.core.compare;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * FLIP against what its paper says (Andersson et al. 2020) where that can be worked out by hand: on even pictures filters change nothing,
 * and what is left are the colour distance and its mapping. The authors' own test pictures are not at hand.
 */
class FlipTest {
    private static final int W = 48, H = 40;

    private static int[] even(int rgb) {
        int[] p = new int[W * H];
        Arrays.fill(p, rgb);
        return p;
    }

    private static double mean(int[] a, int[] b) {
        return Flip.mean(Flip.map(a, b, W, H, Flip.PIXELS_PER_DEGREE));
    }

    @Test
    void theUsualViewerSees67PixelsADegree() {
        assertEquals(67.02, Flip.PIXELS_PER_DEGREE, 0.005);
    }

    /** The same is 0; green against blue, the two farthest apart, is 1. */
    @Test
    void theEndsOfTheScale() {
        assertEquals(0, mean(even(0x406080), even(0x406080)), 1e-9);
        assertEquals(1, mean(even(0x00ff00), even(0x0000ff)), 1e-3);
    }

    /** Black against white is 100 in lightness alone: (100^0.7 - 0.4 m) / (0.6 m) of the last twentieth, with m the greatest to the 0.7. */
    @Test
    void blackAgainstWhite() {
        // Green is L* 87.73, a* -86.18, b* 83.18, blue 32.30, 79.19, -107.86 (CIE 1976 of the sRGB primaries), a* and b* times L* / 100.
        double da = -86.18 * 0.8773 - 79.19 * 0.3230, db = 83.18 * 0.8773 + 107.86 * 0.3230;
        double m = Math.pow(87.73 - 32.30 + Math.hypot(da, db), 0.7), d = Math.pow(100, 0.7);
        double expected = d < 0.4 * m ? 0.95 * d / (0.4 * m) : 0.95 + 0.05 * (d - 0.4 * m) / (0.6 * m);
        assertEquals(expected, mean(even(0), even(0xffffff)), 1e-3);
    }

    /** Two greys one code apart: nearly nothing, by the straight part of the mapping. */
    @Test
    void smallDifferencesAreSmall() {
        double l1 = 116 * Math.cbrt(Math.pow((128 / 255.0 + 0.055) / 1.055, 2.4)) - 16, l2 = 116 * Math.cbrt(Math.pow((129 / 255.0
                + 0.055) / 1.055, 2.4)) - 16;
        double da = -86.18 * 0.8773 - 79.19 * 0.3230, db = 83.18 * 0.8773 + 107.86 * 0.3230;
        double m = Math.pow(87.73 - 32.30 + Math.hypot(da, db), 0.7);
        assertEquals(0.95 * Math.pow(l2 - l1, 0.7) / (0.4 * m), mean(even(0x808080), even(0x818181)), 2e-4);
    }

    /** An edge that is only in one of two pictures counts more where it stands than the same step of lightness on a plain. */
    @Test
    void edgesThatComeCountMore() {
        int[] plain = even(0x808080), line = plain.clone();
        for (int y = 0; y < H; y++) line[y * W + W / 2] = 0x909090;
        float[] map = Flip.map(plain, line, W, H, Flip.PIXELS_PER_DEGREE);
        double far = map[20 * W + 2], at = map[20 * W + W / 2];
        assertTrue(at > 20 * Math.max(1e-6, far), at + " against " + far);
        // Fine noise of the same strength as an even step is seen less than the step: the eye averages.
        Random r = new Random(5);
        int[] noise = plain.clone();
        for (int i = 0; i < noise.length; i++) noise[i] = r.nextBoolean() ? 0x848484 : 0x7c7c7c;
        assertTrue(mean(plain, noise) < 1.2 * mean(plain, even(0x848484)) + 0.05);
    }

    @Test
    void whichOfTheTwoComesFirstDoesNotMatter() {
        Random r = new Random(9);
        int[] a = r.ints(W * H, 0, 0x1000000).toArray(), b = r.ints(W * H, 0, 0x1000000).toArray();
        assertArrayEquals(Flip.map(a, b, W, H, 67), Flip.map(b, a, W, H, 67), 1e-6f);
        assertThrows(IllegalArgumentException.class, () -> Flip.map(a, new int[3], W, H, 67));
    }
}
