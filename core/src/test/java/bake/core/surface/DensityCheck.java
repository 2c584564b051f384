package bake.core.surface;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.SplittableRandom;

/**
 * Pearson's chi-square over cells of equal height and turn of the whole sphere: what is sampled falls where the density says, and
 * the density says no more than one. The bound is the 99.99 % quantile by Wilson and Hilferty 1931.
 */
final class DensityCheck {
    private static final int ROWS = 24, COLUMNS = 16, FINE = 24, SAMPLES = 200_000;

    private DensityCheck() {}

    /** Checks a surface that has begun to scatter. */
    static void check(Scatter s, String kind) {
        double[] expected = new double[ROWS * COLUMNS], seen = new double[ROWS * COLUMNS];
        double whole = expect(s, expected);
        assertTrue(whole <= 1.02, kind + ": density integrates to " + whole);
        SplittableRandom random = new SplittableRandom(31);
        int smooth = 0;
        for (int i = 0; i < SAMPLES; i++) {
            if (!s.sample((float) random.nextDouble(), (float) random.nextDouble(), (float) random.nextDouble())) continue;
            if (s.smooth) smooth++;
            double turn = Math.atan2(s.wy, s.wx) / (2 * Math.PI);
            seen[Math.clamp((int) ((s.wz + 1) / 2 * ROWS), 0, ROWS - 1) * COLUMNS
                    + Math.min(COLUMNS - 1, (int) ((turn - Math.floor(turn)) * COLUMNS))]++;
        }
        assertTrue(smooth == 0, "a density has no place for what is perfectly smooth");
        double chi = 0, rest = 0, restSeen = 0;
        int free = 0;
        for (int k = 0; k < seen.length; k++) {
            double e = expected[k] * SAMPLES;
            if (e < 8) {
                rest += e;
                restSeen += seen[k];
                continue;
            }
            // The grid integrates narrow lobes to about a hundredth.
            chi += (seen[k] - e) * (seen[k] - e) / (e + 1e-4 * e * e);
            free++;
        }
        if (rest > 8) chi += (restSeen - rest) * (restSeen - rest) / rest;
        double q = free * Math.pow(1 - 2 / (9.0 * free) + 3.72 * Math.sqrt(2 / (9.0 * free)), 3);
        assertTrue(chi < q, kind + ": chi-square " + chi + " of " + free + " cells, bound " + q);
    }

    private static double expect(Scatter s, double[] expected) {
        double whole = 0;
        for (int i = 0; i < ROWS * FINE; i++)
            for (int j = 0; j < COLUMNS * FINE; j++) {
                double z = 2 * (i + 0.5) / (ROWS * FINE) - 1, r = Math.sqrt(1 - z * z), turn = 2 * Math.PI * (j + 0.5) / (COLUMNS * FINE);
                s.eval((float) (r * Math.cos(turn)), (float) (r * Math.sin(turn)), (float) z);
                double mass = s.pdf * 4 * Math.PI / (ROWS * FINE * COLUMNS * FINE);
                expected[i / FINE * COLUMNS + j / FINE] += mass;
                whole += mass;
            }
        return whole;
    }
}
