package bake.core.surface;

/**
 * The fuzz of cloth: the "Charlie" distribution of normals with soft shadowing of Neubelt and Pettineo 2013, as in Estevez
 * and Kulla 2017, "Production Friendly Microfacet Sheen BRDF" (eq. 2), and its directional albedo in a table. Where the model
 * would give more light than it gets, near grazing, it is scaled down as a whole.
 */
final class Sheen {
    private static final int N = 32;
    private static final float[] ALBEDO = new float[N * N], SCALE = new float[N];

    static {
        for (int i = 0; i < N; i++) {
            float a = widthAt(i), most = 0;
            for (int j = 0; j < N; j++) most = Math.max(most, ALBEDO[i * N + j] = integrate(cosineAt(j), a));
            SCALE[i] = 1 / Math.max(1, most);
        }
    }

    private Sheen() {}

    private static float cosineAt(int j) {
        return (j + 0.5f) / N;
    }

    private static float widthAt(int i) {
        float r = (float) i / (N - 1);
        return Math.max(0.05f, r * r);
    }

    private static float integrate(float cos, float a) {
        int n = 64, m = 32;
        double sum = 0, s = Math.sqrt(1 - cos * cos);
        for (int p = 0; p < n; p++)
            for (int q = 0; q < m; q++) {
                double z = (p + 0.5) / n, t = Math.sqrt(1 - z * z), phi = Math.PI * (q + 0.5) / m;
                double hx = s + t * Math.cos(phi), hy = t * Math.sin(phi), hz = cos + z, l = Math.sqrt(hx * hx + hy * hy + hz * hz);
                sum += raw((float) (hz / l), cos, (float) z, a) * z * 2 * Math.PI / (n * m);
            }
        return (float) sum;
    }

    private static float raw(float hz, float o, float i, float a) {
        float inv = 1 / a, sin2 = Math.max(0, 1 - hz * hz);
        float d = (2 + inv) * (float) Math.pow(sin2, 0.5f * inv) / (2 * (float) Math.PI);
        return d / (4 * (o + i - o * i));
    }

    private static float row(float roughness) {
        return Math.min(Math.max(roughness, 0), 1) * (N - 1.001f);
    }

    /** Scattering per steradian without the cosine, for white fuzz. */
    static float value(float hz, float o, float i, float roughness) {
        float y = row(roughness);
        int k = (int) y;
        float f = y - k;
        return raw(hz, o, i, Math.max(0.05f, roughness * roughness)) * (SCALE[k] * (1 - f) + SCALE[k + 1] * f);
    }

    /** Directional albedo of white fuzz. */
    static float albedo(float cos, float roughness) {
        float y = row(roughness), x = Math.min(Math.max(cos * N - 0.5f, 0), N - 1.001f);
        int i = (int) y, j = (int) x, o = i * N + j;
        float fy = y - i, fx = x - j, low = ALBEDO[o] * (1 - fx) + ALBEDO[o + 1] * fx,
                high = ALBEDO[o + N] * (1 - fx) + ALBEDO[o + N + 1] * fx;
        return Math.min(1, (low * (1 - fy) + high * fy) * (SCALE[i] * (1 - fy) + SCALE[i + 1] * fy));
    }
}
