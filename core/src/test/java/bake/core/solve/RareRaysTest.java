package bake.core.solve;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.api.Test;

/** Of what a record's rays bring, that of few far brighter ones is rare. */
class RareRaysTest {
    /** Luminance in green of what is rare among rays that bring 1 in all colours, but for some that bring green alone. */
    private static double rare(RareRays r, int rays, int bright, float how) {
        float[] each = new float[rays];
        r.begin(rays);
        for (int i = 0; i < rays; i++) {
            boolean green = i * 11 % rays < bright;
            each[i] = green ? how : 1;
            r.take(i, each[i], new float[] {green ? 0 : 1, green ? how / 0.7152f : 1, green ? 0 : 1});
        }
        double before = 0, after = 0;
        for (float l : each) before += l;
        float[] rare = r.end(each);
        for (float l : each) after += l;
        assertEquals(0, rare[0] + rare[2], 1e-3, "their colour alone");
        assertEquals(before - after, 0.7152 * rare[1], 1e-3 * before, "both say the same");
        return 0.7152 * rare[1];
    }

    @Test
    void whatFewRaysBringIsRare() {
        RareRays r = new RareRays(800, 3);
        assertEquals(2 * 999, rare(r, 700, 2, 1000), 0.1);
        assertEquals(7 * 999, rare(r, 700, 7, 1000), 0.5);
        assertEquals(0, rare(r, 700, 0, 1), 1e-6, "nothing is brighter");
    }

    @Test
    void whatAHundredthOfThemBringsIsNot() {
        RareRays r = new RareRays(800, 3);
        assertEquals(0, rare(r, 700, 8, 1000), 1e-3);
        assertEquals(0, rare(r, 700, 350, 20), 1e-3);
        assertEquals(19, rare(r, 90, 1, 20), 1e-3, "of fewer than a hundred the brightest alone");
        assertEquals(0, rare(r, 90, 2, 20), 1e-3);
    }
}
