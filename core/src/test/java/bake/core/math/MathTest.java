package bake.core.math;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.finish.ToneCurve;
import bake.core.scene.Camera;
import org.junit.jupiter.api.Test;

class MathTest {
    /**
     * CIE 15: illuminant A, 2856 K, x 0.4476 y 0.4074; and the chromaticity of 6500 K on Planck's curve, x 0.3135 y 0.3237 (the latter from
     * memory).
     */
    @Test
    void illuminantA() {
        double[] c = Blackbody.chromaticity(2856);
        assertEquals(0.4476, c[0], 0.0004);
        assertEquals(0.4074, c[1], 0.0004);
        double[] d = Blackbody.chromaticity(6500);
        assertEquals(0.3135, d[0], 0.0005);
        assertEquals(0.3237, d[1], 0.0005);
        assertEquals(1, Blackbody.rgb(2700).luminance(), 1e-9);
    }

    /** IEC 61966-2-1, both directions and both sides of the knee. */
    @Test
    void srgb() {
        assertEquals(12.92 * 0.0031308, Srgb.encode(0.0031308), 1e-12);
        assertEquals(0.04045 / 12.92, Srgb.decode(0.04045), 1e-12);
        assertEquals(0.7353569830524495, Srgb.encode(0.5), 1e-6);
        for (double x = 0; x <= 1; x += 0.01) assertEquals(x, Srgb.decode(Srgb.encode(x)), 1e-7);
    }

    /** ISO 2720 and ISO 12232: f/16 at 1/100 s and ISO 100 is EV 14.64; saturation is 1.2 x 2^EV. Sunny 16 is common practice. */
    @Test
    void exposure() {
        Camera c = new Camera(Vec3.ZERO, new Vec3(0, 1, 0), 50, 16, 0.01, 100, 5, false, true, 0, 0);
        assertEquals(Math.log(16 * 16 / 0.01) / Math.log(2), c.ev100(), 1e-12);
        assertEquals(1.2 * Math.pow(2, c.ev100()), c.saturation(), 1e-9);
        assertEquals(15, c.ev100(), 0.5);
        assertEquals(9.3, c.withEv(9.3).ev100(), 1e-9);
    }

    @Test
    void toneCurveKeepsGreyAndWhite() {
        assertEquals(0.18, ToneCurve.FILM.apply(0.104), 1e-9);
        assertEquals(1, ToneCurve.FILM.apply(16), 1e-9);
        double last = -1;
        for (double x = 0; x < 20; x += 0.01) {
            double y = ToneCurve.FILM.apply(x);
            assertTrue(y >= last);
            last = y;
        }
        double e = 1e-6;
        assertEquals((ToneCurve.FILM.apply(0.3 + e) - ToneCurve.FILM.apply(0.3 - e)) / (2 * e), ToneCurve.FILM.slope(0.3), 1e-6);
    }

    @Test
    void affineInverts() {
        Affine a = Affine.translation(1, -2, 3).times(Affine.rotation(new Vec3(1, 2, 3), 0.7)).times(Affine.scale(2, 0.5, -1));
        Vec3 p = new Vec3(0.3, -4, 9), q = a.inverse().point(a.point(p));
        assertEquals(0, q.minus(p).length(), 1e-12);
        assertThrows(ArithmeticException.class, () -> Affine.scale(1, 0, 1).inverse());
    }

    /** Each pair of dimensions is stratified: 256 samples of one pixel fill a 16 x 16 grid once each, as a (0,2) sequence must. */
    @Test
    void samplesAreStratified() {
        for (int dimension = 0; dimension < 5; dimension++) {
            boolean[] seen = new boolean[256];
            PathSampler s = new PathSampler();
            for (int i = 0; i < 256; i++) {
                s.start(12, 7, i, 99);
                for (int d = 0; d <= dimension; d++) s.next2();
                int cell = (int) (s.v * 16) * 16 + (int) (s.u * 16);
                assertTrue(!seen[cell], "two samples in cell " + cell);
                seen[cell] = true;
            }
        }
    }

    /** The integration error of a smooth function falls much faster than one over the root of the samples. */
    @Test
    void samplesConvergeFast() {
        double[] error = new double[2];
        int[] n = {64, 1024};
        for (int k = 0; k < 2; k++)
            for (int pixel = 0; pixel < 64; pixel++) {
                PathSampler s = new PathSampler();
                double sum = 0;
                for (int i = 0; i < n[k]; i++) {
                    s.start(pixel, 3, i, 1);
                    s.next2();
                    sum += Math.sin(3 * s.u) * Math.exp(s.v);
                }
                double exact = (1 - Math.cos(3)) / 3 * (Math.E - 1);
                error[k] += Math.pow(sum / n[k] - exact, 2) / 64;
            }
        double slope = Math.log(Math.sqrt(error[1] / error[0])) / Math.log(16);
        assertTrue(slope < -0.9, "slope " + slope + "; independent numbers have -0.5");
    }

    @Test
    void distributionNeverGivesEmptyEntries() {
        Distribution d = new Distribution(new float[] {0, 3, 0, 1, 0});
        for (int i = 0; i < 1000; i++) {
            int k = d.sample(i / 1000f);
            assertTrue(k == 1 || k == 3, "entry " + k);
        }
        assertEquals(0.75f, d.probability(1), 1e-6);
    }

    /** The fast inverse tangent against Java's own, in all quadrants. */
    @Test
    void inverseTangent() {
        for (int i = 0; i < 5000; i++) {
            double a = -Math.PI + 2 * Math.PI * (i + 0.5) / 5000, r = Math.pow(10, i % 13 - 6);
            assertEquals(a, Angles.atan2(r * Math.sin(a), r * Math.cos(a)), 3e-8);
        }
        assertEquals(0, Angles.atan2(0, 0));
        assertEquals(Math.PI / 2, Angles.atan2(1, 0), 1e-12);
        assertEquals(Math.PI, Angles.atan2(0, -1), 1e-12);
    }

    /**
     * The root mean square error over the samples of one pixel falls with a slope near -1 for points on the screen and off it,
     * against -1/2 of independent numbers; and on the screen the error that is left after blurring is far below theirs.
     */
    @Test
    void errorFallsFastAndIsBlue() {
        int side = 64;
        double exact = (1 - Math.cos(3)) / 3 * (Math.E - 1);
        double[][] slopes = new double[3][2];
        double[] blurred = new double[3], plain = new double[3];
        java.util.SplittableRandom chance = new java.util.SplittableRandom(5);
        for (int kind = 0; kind < 3; kind++)
            for (int step = 0; step < 2; step++) {
                int n = step == 0 ? 1 : 256;
                double[] error = new double[side * side];
                double square = 0;
                PathSampler s = new PathSampler();
                for (int p = 0; p < error.length; p++) {
                    double sum = 0;
                    for (int i = 0; i < n; i++) {
                        if (kind == 0) s.startPixel(p % side, p / side, i, 3);
                        else s.start(p % side, p / side, i, 3);
                        s.next2();
                        double u = kind == 2 ? chance.nextDouble() : s.u, v = kind == 2 ? chance.nextDouble() : s.v;
                        sum += Math.sin(3 * u) * Math.exp(v) / n;
                    }
                    error[p] = sum - exact;
                    square += error[p] * error[p] / error.length;
                }
                slopes[kind][step] = Math.sqrt(square);
                if (step == 1) continue;
                plain[kind] = square;
                for (int p = 0; p < error.length; p++) {
                    double mean = 0;
                    for (int k = 0; k < 25; k++) mean += error[((p / side + k / 5) % side) * side + (p % side + k % 5) % side] / 25;
                    blurred[kind] += mean * mean / error.length;
                }
            }
        for (int kind = 0; kind < 3; kind++) {
            double slope = Math.log(slopes[kind][1] / slopes[kind][0]) / Math.log(256);
            if (kind < 2) assertTrue(slope < -0.85, "slope " + slope);
            else assertEquals(-0.5, slope, 0.05);
        }
        assertEquals(1, plain[0] / plain[2], 0.15, "one sample has the same error");
        assertTrue(blurred[0] < 0.4 * blurred[2], "blurred error " + blurred[0] + ", of independent numbers " + blurred[2]);
    }
}
