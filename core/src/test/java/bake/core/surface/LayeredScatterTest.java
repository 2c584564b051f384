package bake.core.surface;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Coat, fuzz, tinted gloss and stretched gloss: energy, reciprocity, and samplers against their densities by chi-square. */
class LayeredScatterTest {
    private static final List<String> KINDS = List.of("coat", "rough coat", "sheen", "coated sheen", "stretched", "stretched metal",
            "tinted", "coated metal");

    private static SurfacePoint point(String kind, double roughness) {
        SurfacePoint p = new SurfacePoint();
        p.setMeter(0, 0, 0, 0, 0, 1);
        p.baseR = p.baseG = p.baseB = 0.9f;
        p.alpha = p.alphaX = p.alphaY = (float) (roughness * roughness);
        p.ior = 1.5f;
        p.layered = true;
        p.specular = p.specR = p.specG = p.specB = 1;
        p.metallic = kind.endsWith("metal") ? 1 : 0;
        if (kind.contains("coat")) {
            p.coat = 1;
            p.coatAlpha = kind.equals("rough coat") ? 0.3f : 0.02f;
        }
        if (kind.contains("sheen")) {
            p.sheenR = 0.7f;
            p.sheenG = 0.8f;
            p.sheenB = 0.4f;
            p.sheenRoughness = (float) roughness;
        }
        if (kind.startsWith("stretched")) {
            p.alphaX = p.alpha + (1 - p.alpha) * 0.36f;
            p.alpha = (float) Math.sqrt(p.alphaX * p.alphaY);
        }
        if (kind.equals("tinted")) {
            p.specR = 3;
            p.specG = 0.5f;
            p.specular = 0.8f;
        }
        return p;
    }

    private static float[] direction(double cos, double turn) {
        double s = Math.sqrt(Math.max(0, 1 - cos * cos));
        return new float[] {(float) (s * Math.cos(turn)), (float) (s * Math.sin(turn)), (float) cos};
    }

    /**
     * No more light leaves than came, at any angle. Two per cent of grace: the stretched gloss takes the energy tables of the
     * round one of the same mean width.
     */
    @Test
    void keepsEnergy() {
        SplittableRandom random = new SplittableRandom(3);
        for (String kind : KINDS)
            for (double roughness : new double[] {0.2, 0.5, 0.9})
                for (double cos : new double[] {0.1, 0.3, 0.7, 1}) {
                    Scatter s = new Scatter();
                    float[] o = direction(cos, 0.8);
                    s.begin(point(kind, roughness), o[0], o[1], o[2]);
                    double sum = 0, square = 0;
                    int n = 20_000;
                    for (int i = 0; i < n; i++) {
                        if (!s.sample((float) random.nextDouble(), (float) random.nextDouble(), (float) random.nextDouble())) continue;
                        double v = Math.max(s.r, Math.max(s.g, s.b)) / s.pdf;
                        sum += v / n;
                        square += v * v / n;
                    }
                    double error = Math.sqrt(Math.max(0, square - sum * sum) / n);
                    assertTrue(sum < 1.02 + 3 * error, kind + " " + roughness + " " + cos + " gives " + sum);
                }
    }

    @Test
    void isReciprocal() {
        SplittableRandom random = new SplittableRandom(9);
        for (String kind : KINDS)
            for (int i = 0; i < 200; i++) {
                SurfacePoint p = point(kind, random.nextDouble(0.2, 1));
                float[] a = direction(random.nextDouble(0.05, 1), random.nextDouble(6.28)),
                        b = direction(random.nextDouble(0.05, 1), random.nextDouble(6.28));
                Scatter s = new Scatter();
                s.begin(p, a[0], a[1], a[2]);
                s.eval(b[0], b[1], b[2]);
                double ab = s.g / b[2];
                s.begin(p, b[0], b[1], b[2]);
                s.eval(a[0], a[1], a[2]);
                assertEquals(ab, s.g / a[2], 3e-3 * Math.max(ab, 0.01), kind);
            }
    }

    @ParameterizedTest
    @CsvSource({"coat, 0.5", "rough coat, 0.5", "sheen, 0.6", "coated sheen, 0.4", "stretched, 0.4", "stretched metal, 0.5",
            "coated metal, 0.6"})
    void samplesFallAsTheDensitySays(String kind, double roughness) {
        Scatter s = new Scatter();
        float[] o = direction(0.6, 0.8);
        s.begin(point(kind, roughness), o[0], o[1], o[2]);
        DensityCheck.check(s, kind);
    }

    /** The surfaces that have no layers, on both sides of them. */
    @ParameterizedTest
    @CsvSource({"0, 0, 0, 1, 1", "0, 0, 0, 0.4, 1.5", "0, 0, 0, 0.8, 1.5", "1, 0, 0, 0.4, 1.5", "0.5, 0, 0, 0.6, 1.5",
            "0, 0, 0.5, 0.6, 1.5", "0, 1, 0, 0.5, 1.5", "0, 0.5, 0, 0.7, 1.5"})
    void plainSamplesFallAsTheDensitySays(float metallic, float transmission, float translucency, double roughness, float ior) {
        for (double cos : new double[] {0.25, 0.8}) {
            SurfacePoint p = point("", roughness);
            p.layered = false;
            p.metallic = metallic;
            p.transmission = transmission;
            p.translucency = translucency;
            p.ior = ior;
            Scatter s = new Scatter();
            float[] o = direction(cos, 2.1);
            s.begin(p, o[0], o[1], o[2]);
            DensityCheck.check(s, metallic + " " + transmission + " " + translucency + " " + roughness + " under " + cos);
        }
    }

    /** The stretched gloss with equal widths is the round one. */
    @Test
    void stretchedByNothingIsRound() {
        SplittableRandom r = new SplittableRandom(1);
        for (int i = 0; i < 100; i++) {
            float a = (float) r.nextDouble(0.05, 1);
            float[] h = direction(r.nextDouble(0.1, 1), r.nextDouble(6)), o = direction(r.nextDouble(0.1, 1), r.nextDouble(6));
            assertEquals(Ggx.d(h[2], a), Ggx.d(h[0], h[1], h[2], a, a), 1e-4 * Ggx.d(h[2], a));
            assertEquals(Ggx.g1(o[2], a), Ggx.g1(o[0], o[1], o[2], a, a), 1e-5);
            assertEquals(Ggx.g2(o[2], h[2], a), Ggx.g2(o[0], o[1], o[2], h[0], h[1], h[2], a, a), 1e-5);
        }
    }

    /** Light on a bent normal fades out before the true face's horizon instead of being cut off there. */
    @Test
    void bentNormalsFadeToTheHorizon() {
        SurfacePoint p = point("tinted", 1);
        p.layered = false;
        float t = (float) Math.sin(0.6);
        p.nx = t;
        p.nz = (float) Math.cos(0.6);
        p.tx = p.nz;
        p.tz = -t;
        p.bent = p.nz;
        Scatter s = new Scatter();
        s.begin(p, 0, 0, 1);
        float last = -1;
        for (double height = 0.0005; height < 0.12; height += 0.01) {
            float[] d = direction(height, 0);
            s.eval(d[0], d[1], d[2]);
            assertTrue(s.g > last, "rises from the horizon on");
            if (last < 0) assertTrue(s.g < 0.01, "begins dark: " + s.g);
            last = s.g;
        }
    }
}
