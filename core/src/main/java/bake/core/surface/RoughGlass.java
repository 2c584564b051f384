package bake.core.surface;

/**
 * What a single bounce off the facets of a rough boundary of clear glass keeps of the light, reflected and let through together: the rest
 * bounces between facets, and {@link Scatter} gives it back in the shape of the first bounce (Turquin 2019, "Practical multiple scattering
 * compensation for microfacet models", eq. 16, there for mirrored light). Exact for even light; light and view are not quite
 * interchangeable any more. Made when the first rough glass is met.
 */
final class RoughGlass {
    private static final int ALPHAS = 12, COSINES = 20, INDICES = 9;
    /** Least and greatest index of what lies beyond over what lies before; nodes are even in its logarithm. */
    private static final double LEAST = Math.log(1 / 2.6), MOST = Math.log(2.6);
    private static final float[] KEPT = new float[INDICES * ALPHAS * COSINES];

    static {
        for (int row = 0; row < INDICES * ALPHAS; row++) {
            float eta = (float) Math.exp(LEAST + (MOST - LEAST) * (row / ALPHAS) / (INDICES - 1)), a = alpha(row % ALPHAS);
            for (int j = 0; j < COSINES; j++) KEPT[row * COSINES + j] = kept((j + 0.5f) / COSINES, a, eta);
        }
    }

    private RoughGlass() {}

    private static float alpha(int i) {
        float r = i / (ALPHAS - 1f);
        return Math.max(Ggx.MIN_ALPHA, r * r);
    }

    private static float kept(float mu, float a, float eta) {
        int n = 24, m = 10;
        float sin = (float) Math.sqrt(1 - mu * mu), sum = 0;
        float[] h = new float[3];
        for (int p = 0; p < n; p++) {
            // The tail of the distribution sits at u1 near one: steps shrink towards it.
            float t = 1 - (p + 0.5f) / n, share = 3 * t * t;
            for (int q = 0; q < m; q++) {
                Ggx.visibleNormal(sin, 0, mu, a, 1 - t * t * t, (q + 0.5f) / m, h);
                float vh = sin * h[0] + mu * h[2];
                if (vh <= 0) continue;
                float f = Fresnel.dielectric(Math.min(1, vh), eta), up = 2 * vh * h[2] - mu;
                float ct = (float) Math.sqrt(Math.max(0, 1 - (1 - vh * vh) / (eta * eta))), down = (vh / eta - ct) * h[2] - mu / eta;
                float through = up > 0 ? f * Ggx.g2(mu, up, a) : 0;
                if (down < 0 && f < 1) through += (1 - f) * Ggx.g2(mu, down, a);
                sum += share * through / Ggx.g1(mu, a);
            }
        }
        return Math.min(1, sum / (n * m));
    }

    /**
     * Share of the light that one bounce keeps, 0 to 1.
     *
     * @param cos to the view, 0 to 1
     * @param a width alpha
     * @param eta index on the far side over the one on the view's
     */
    static float kept(float cos, float a, double eta) {
        float z = Math.clamp((float) ((Math.log(eta) - LEAST) / (MOST - LEAST) * (INDICES - 1)), 0, INDICES - 1.001f);
        float y = Math.clamp((float) Math.sqrt(a) * (ALPHAS - 1), 0, ALPHAS - 1.001f),
                x = Math.clamp(cos * COSINES - 0.5f, 0, COSINES - 1.001f);
        int k = (int) z, i = (int) y, j = (int) x, o = (k * ALPHAS + i) * COSINES + j;
        return mix(z - k, plane(o, x - j, y - i), plane(o + ALPHAS * COSINES, x - j, y - i));
    }

    private static float plane(int o, float fx, float fy) {
        return mix(fy, mix(fx, KEPT[o], KEPT[o + 1]), mix(fx, KEPT[o + COSINES], KEPT[o + COSINES + 1]));
    }

    private static float mix(float t, float a, float b) {
        return a + t * (b - a);
    }
}
