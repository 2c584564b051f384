package bake.core.film;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.film.PixelFilter.Shape;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.api.Test;

final class PixelFilterTest {
    /** Weighted samples add up to the filter itself, step by step, and to one in all. */
    @ParameterizedTest
    @EnumSource(Shape.class)
    void samplesAreTheFilter(Shape shape) {
        PixelFilter f = new PixelFilter(shape, shape.radius);
        int n = 400_000, bins = 40;
        double[] got = new double[bins];
        double sum = 0, mean = 0;
        for (int i = 0; i < n; i++) {
            float u = (i + 0.5f) / n, x = f.offset(u), w = f.weight(u);
            assertTrue(Math.abs(x) <= shape.radius);
            got[Math.min(bins - 1, (int) ((x / shape.radius + 1) / 2 * bins))] += (double) w / n;
            sum += (double) w / n;
            mean += (double) w * x / n;
        }
        assertEquals(1, sum, 1e-3);
        assertEquals(0, mean, 1e-3, "even about the middle");
        double net = 0;
        for (int i = 0; i < 100_000; i++) net += shape.at(2 * (i + 0.5) / 100_000 - 1) / 100_000;
        for (int b = 0; b < bins; b++) {
            double want = 0;
            for (int i = 0; i < 100; i++) want += shape.at(2 * (b + (i + 0.5) / 100) / bins - 1) / 100 / bins / net;
            assertEquals(want, got[b], 2e-3, shape + " step " + b);
        }
    }

    /** Values at whole pixels: the published cubics (Mitchell and Netravali 1988) and the window's ends (Harris 1978). */
    @Test
    void knownValues() {
        assertEquals(8 / 9.0, Shape.MITCHELL_NETRAVALI.at(0), 1e-12);
        assertEquals(1 / 18.0, Shape.MITCHELL_NETRAVALI.at(0.5), 1e-12);
        assertEquals(1, Shape.CATMULL_ROM.at(0), 1e-12);
        assertEquals(0, Shape.CATMULL_ROM.at(0.5), 1e-12, "passes through its samples");
        assertTrue(Shape.CATMULL_ROM.at(0.75) < 0 && Shape.MITCHELL_NETRAVALI.at(0.8) < 0, "both have negative lobes");
        assertEquals(1, Shape.BLACKMAN_HARRIS.at(0), 1e-12);
        assertEquals(6e-5, Shape.BLACKMAN_HARRIS.at(1), 1e-12);
        for (Shape s : Shape.values()) assertEquals(0, s.at(1.01));
    }

    @Test
    void refusesSillyRadii() {
        assertThrows(IllegalArgumentException.class, () -> new PixelFilter(Shape.BOX, 0.4));
        assertThrows(IllegalArgumentException.class, () -> new PixelFilter(Shape.BOX, Double.NaN));
    }
}
