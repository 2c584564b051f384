package bake.core.solve;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.api.Test;

/** Few rays that bring far more than all others are limited; what many rays have met is not. */
class StrayRaysTest {
    private static float[] record(int rays, int bright, float how) {
        StrayRays s = new StrayRays(3);
        float[] sum = new float[3], each = new float[rays];
        s.begin();
        for (int i = 0; i < rays; i++) {
            // Bright ones lie anywhere among the others, and are green.
            float l = i * 11 % rays < bright ? how : 1;
            float[] sample = {l == 1 ? 1 : 0, l == 1 ? 1 : l / 0.7152f, l == 1 ? 1 : 0};
            each[i] = l;
            for (int c = 0; c < 3; c++) sum[c] += sample[c];
            s.take(i, l, sample);
        }
        s.limit(sum, each);
        double all = 0;
        for (float l : each) all += l;
        assertEquals(all, 0.2126 * sum[0] + 0.7152 * sum[1] + 0.0722 * sum[2], 1e-3 * all, "both say the same");
        return sum;
    }

    @Test
    void strayRaysAreLimited() {
        // Each of the two may bring a quarter of what the others do.
        assertEquals(698 + 2 * 0.25 * 698 / 0.7152, record(700, 2, 1000)[1], 1);
        assertEquals(698, record(700, 2, 1000)[0], 0.01, "their colour alone");
    }

    @Test
    void whatIsNotTinyStays() {
        assertEquals(696 + 4 * 1000 / 0.7152, record(700, 4, 1000)[1], 1);
        assertEquals(697 + 3 * 20 / 0.7152, record(700, 3, 20)[1], 0.1, "a few that bring little");
        assertEquals(700, record(700, 0, 1)[1], 0.01);
        // Of two rays that bring all there is both count.
        assertEquals(2 * 5 / 0.7152, record(2, 2, 5)[1], 1e-3);
    }
}
