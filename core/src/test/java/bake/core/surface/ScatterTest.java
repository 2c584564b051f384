package bake.core.surface;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Energy, reciprocity and sampling of the surface model over a grid of kinds, roughness and angles. */
class ScatterTest {
    private static SurfacePoint point(double metallic, double roughness, double transmission, double translucency) {
        SurfacePoint p = new SurfacePoint();
        p.setMeter(0, 0, 0, 0, 0, 1);
        p.baseR = p.baseG = p.baseB = 0.8f;
        p.metallic = (float) metallic;
        p.alpha = p.alphaX = p.alphaY = Math.max(Ggx.MIN_ALPHA, (float) (roughness * roughness));
        p.ior = 1.5f;
        p.transmission = (float) transmission;
        p.translucency = (float) translucency;
        return p;
    }

    static List<Arguments> grid() {
        List<Arguments> out = new ArrayList<>();
        double[][] kinds = {{0, 0, 0}, {1, 0, 0}, {0.5, 0, 0}, {0, 0, 0.4}, {0, 1, 0}};
        for (double[] k : kinds) for (double r : new double[] {0.25, 0.5, 1}) for (double cos : new double[] {0.15, 0.6, 1})
            out.add(Arguments.of(k[0], k[1], k[2], r, cos));
        return out;
    }

    private static float[] direction(double cos, double turn) {
        double s = Math.sqrt(Math.max(0, 1 - cos * cos));
        return new float[] {(float) (s * Math.cos(turn)), (float) (s * Math.sin(turn)), (float) cos};
    }

    /** Cosines of a grid that crowds towards the poles, where glass bends light into a narrow lobe. */
    private static double height(int i, int n) {
        double v = 2 * (i + 0.5) / n - 1, u = 1 - Math.abs(v);
        return Math.copySign(1 - u * u, v);
    }

    /** Width in cosine of such a cell. */
    private static double cell(int i, int n) {
        return 2 * (1 - Math.abs(2 * (i + 0.5) / n - 1)) * 2 / n;
    }

    /** No surface gives more light than it gets, and the density integrates to at most one, by a fine grid over the sphere. */
    @ParameterizedTest
    @MethodSource("grid")
    void keepsEnergyAndDensity(double metallic, double transmission, double translucency, double roughness, double cos) {
        Scatter s = new Scatter();
        float[] o = direction(cos, 0.3);
        s.begin(point(metallic, roughness, transmission, translucency), o[0], o[1], o[2]);
        double light = 0, density = 0;
        int n = 1200, m = 360;
        for (int i = 0; i < n; i++)
            for (int j = 0; j < m; j++) {
                float[] d = direction(height(i, n), 2 * Math.PI * (j + 0.5) / m);
                s.eval(d[0], d[1], d[2]);
                assertTrue(s.g >= 0 && s.pdf >= 0 && s.g < 1e6);
                light += s.g * cell(i, n) * 2 * Math.PI / m;
                density += s.pdf * cell(i, n) * 2 * Math.PI / m;
            }
        assertTrue(light < 1.01, "gives " + light);
        assertTrue(density < 1.015 && density > 0.55, "density integrates to " + density);
    }

    /** Matt, glossy and metallic surfaces scatter the same in both directions (Helmholtz). */
    @ParameterizedTest
    @MethodSource("grid")
    void isReciprocal(double metallic, double transmission, double translucency, double roughness, double cos) {
        if (transmission > 0) return; // radiance changes across a boundary of glass
        SurfacePoint p = point(metallic, roughness, transmission, translucency);
        Scatter s = new Scatter();
        SplittableRandom r = new SplittableRandom(5);
        for (int i = 0; i < 50; i++) {
            float[] a = direction(cos, 0.3), b = direction(r.nextDouble(0.05, 1), r.nextDouble(6.28));
            s.begin(p, a[0], a[1], a[2]);
            s.eval(b[0], b[1], b[2]);
            double ab = s.g / b[2];
            s.begin(p, b[0], b[1], b[2]);
            s.eval(a[0], a[1], a[2]);
            assertEquals(ab, s.g / a[2], 2e-3 * Math.max(ab, 0.01));
        }
    }

    /** Samples estimate the same light as the grid does, so sampler and density agree. */
    @ParameterizedTest
    @MethodSource("grid")
    void samplesMatchTheirDensity(double metallic, double transmission, double translucency, double roughness, double cos) {
        Scatter s = new Scatter();
        float[] o = direction(cos, 0.3);
        SurfacePoint p = point(metallic, roughness, transmission, translucency);
        s.begin(p, o[0], o[1], o[2]);
        double grid = 0;
        int n = 1200, m = 360;
        for (int i = 0; i < n; i++)
            for (int j = 0; j < m; j++) {
                float[] d = direction(height(i, n), 2 * Math.PI * (j + 0.5) / m);
                s.eval(d[0], d[1], d[2]);
                grid += s.g * (1.5 + d[0]) * cell(i, n) * 2 * Math.PI / m;
            }
        SplittableRandom r = new SplittableRandom(11);
        double sum = 0, square = 0;
        int k = 60_000;
        for (int i = 0; i < k; i++) {
            if (!s.sample((float) r.nextDouble() * 0.9999999f, (float) r.nextDouble() * 0.9999999f, (float) r.nextDouble() * 0.9999999f))
                continue;
            double v = s.g / s.pdf * (1.5 + s.wx);
            sum += v / k;
            square += v * v / k;
        }
        double error = Math.sqrt(Math.max(0, square - sum * sum) / k);
        assertEquals(grid, sum, 4 * error + 0.006 * grid);
    }

    /** Smooth glass follows Snell's law and Fresnel's share. */
    @Test
    void smoothGlassBends() {
        SurfacePoint p = point(0, 0, 1, 0);
        p.alpha = p.alphaX = p.alphaY = Ggx.MIN_ALPHA;
        Scatter s = new Scatter();
        float[] o = direction(Math.cos(Math.toRadians(40)), 0);
        s.begin(p, o[0], o[1], o[2]);
        double mirrored = 0;
        for (int i = 0; i < 1000; i++) {
            assertTrue(s.sample(i / 1000f, 0.5f, 0.5f) && s.smooth);
            if (s.wz > 0) mirrored += 1e-3;
            else assertEquals(Math.sin(Math.toRadians(40)) / 1.5, Math.hypot(s.wx, s.wy), 1e-5);
        }
        assertEquals(Fresnel.dielectric((float) Math.cos(Math.toRadians(40)), 1.5f), mirrored, 2e-3);
        assertEquals(0.04, Fresnel.dielectric(1, 1.5f), 1e-6);
        assertEquals(1, Fresnel.dielectric(0.2f, 1 / 1.5f), 0, "total inner reflection");
    }

    /**
     * What caches make of a surface: its albedo is what it scatters of light from everywhere, and its weights of that light add up to one,
     * whether gloss is folded into the body, left to be traced or there is none.
     */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({"0.6, 0.3", "0.6, 1", "0.8, 0.6", "1, 0.6"})
    void albedoAndWeightsOfEvenLight(double roughness, double cos) {
        SurfacePoint p = point(0, roughness, 0, 0);
        Scatter s = new Scatter();
        float[] o = direction(cos, 0.3), albedo = new float[6], w = new float[3];
        s.begin(p, o[0], o[1], o[2]);
        int n = 256;
        double all = 0, matt = 0, folded = 0;
        for (int i = 0; i < n; i++)
            for (int j = 0; j < 2 * n; j++) {
                double z = (i + 0.5) / n, cell = 2 * Math.PI / (2.0 * n * n);
                float[] d = direction(z, Math.PI * (j + 0.5) / n);
                s.eval(d[0], d[1], d[2]);
                all += s.r * cell;
                s.matt(d[0], d[1], d[2], w);
                matt += w[0] * cell;
                s.lambert(d[0], d[1], d[2], true, w);
                folded += w[0] * cell;
            }
        s.albedo(true, albedo);
        assertEquals(all, albedo[0], 0.01 * all, "with gloss");
        s.albedo(false, albedo);
        assertEquals(matt, albedo[0], 0.01 * matt, "the body alone");
        assertEquals(1, folded, 0.01);
    }
}
