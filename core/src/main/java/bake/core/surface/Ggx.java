package bake.core.surface;

/**
 * The isotropic GGX microfacet distribution: Walter et al. 2007 (eq. 33, 34), visible normals sampled as in Heitz
 * 2018 (JCGT 7(4)), height-correlated masking (Heitz 2014, eq. 99), and the tables of the energy that a single
 * bounce keeps. Directions are in the local frame, z being the normal; {@code a} is the width alpha = roughness^2.
 */
final class Ggx {
    private static final int N = 32;
    /** Directional albedo at Fresnel one: row alpha, column cosine. */
    private static final float[] ESS = new float[N * N];
    /** Part of it weighted with Schlick's (1-cos)^5, for any F0: E(F0) = F0 (ESS - EB) + EB. */
    private static final float[] EB = new float[N * N];
    private static final float[] ESS_MEAN = new float[N], EB_MEAN = new float[N];
    static final float MIN_ALPHA = 0.0016f;

    static {
        for (int i = 0; i < N; i++) {
            for (int j = 0; j < N; j++) integrate(i, j);
            for (int j = 0; j < N; j++) {
                // Cosine-weighted mean over the hemisphere: 2 int E(mu) mu dmu, midpoint in the table's own nodes.
                float mu = cosineAt(j), w = 2 * mu / N;
                ESS_MEAN[i] += ESS[i * N + j] * w;
                EB_MEAN[i] += EB[i * N + j] * w;
            }
        }
    }

    private Ggx() {}

    private static float cosineAt(int j) {
        return (j + 0.5f) / N;
    }

    private static float alphaAt(int i) {
        float r = (float) i / (N - 1);
        return Math.max(MIN_ALPHA, r * r);
    }

    private static void integrate(int i, int j) {
        float mu = cosineAt(j), a = alphaAt(i), sin = (float) Math.sqrt(1 - mu * mu);
        int n = 24, m = 12;
        float sum = 0, sumB = 0;
        float[] h = new float[3];
        for (int p = 0; p < n; p++) {
            // The tail of the distribution sits at u1 near one: steps shrink towards it.
            float t = 1 - (p + 0.5f) / n, u1 = 1 - t * t * t, share = 3 * t * t;
            for (int q = 0; q < m; q++) {
                visibleNormal(sin, 0, mu, a, u1, (q + 0.5f) / m, h);
                float vh = sin * h[0] + mu * h[2];
                float lz = 2 * vh * h[2] - mu;
                if (lz <= 0) continue;
                float w = share * g2(mu, lz, a) / g1(mu, a);
                sum += w;
                sumB += w * pow5(1 - vh);
            }
        }
        ESS[i * N + j] = Math.min(1, sum / (n * m));
        EB[i * N + j] = sumB / (n * m);
    }

    static float pow5(float x) {
        float y = x * x;
        return y * y * x;
    }

    /** Normal distribution D(h). */
    static float d(float hz, float a) {
        float a2 = a * a, t = hz * hz * (a2 - 1) + 1;
        return a2 / ((float) Math.PI * t * t);
    }

    /** Normal distribution with two widths (Burley 2012, eq. 13). */
    static float d(float hx, float hy, float hz, float ax, float ay) {
        float x = hx / ax, y = hy / ay, t = x * x + y * y + hz * hz;
        return 1 / ((float) Math.PI * ax * ay * t * t);
    }

    private static float lambda(float x, float y, float z, float ax, float ay) {
        float sx = ax * x, sy = ay * y;
        return 0.5f * ((float) Math.sqrt(1 + (sx * sx + sy * sy) / (z * z)) - 1);
    }

    /** Smith masking of one direction, two widths (Heitz 2014, eq. 80 and 86). */
    static float g1(float x, float y, float z, float ax, float ay) {
        return 1 / (1 + lambda(x, y, z, ax, ay));
    }

    /** Height-correlated masking and shadowing, two widths. */
    static float g2(float ox, float oy, float oz, float ix, float iy, float iz, float ax, float ay) {
        return 1 / (1 + lambda(ox, oy, oz, ax, ay) + lambda(ix, iy, iz, ax, ay));
    }

    private static float lambda(float cos, float a) {
        float c2 = cos * cos;
        return 0.5f * ((float) Math.sqrt(1 + a * a * (1 - c2) / c2) - 1);
    }

    /** Smith masking of one direction. */
    static float g1(float cos, float a) {
        return 1 / (1 + lambda(Math.abs(cos), a));
    }

    /** Height-correlated masking and shadowing. */
    static float g2(float cosO, float cosI, float a) {
        return 1 / (1 + lambda(Math.abs(cosO), a) + lambda(Math.abs(cosI), a));
    }

    /** Samples a normal visible from v (v.z > 0) into {@code h}; its density is D G1 max(0, v.h) / v.z. */
    static void visibleNormal(float vx, float vy, float vz, float a, float u1, float u2, float[] h) {
        visibleNormal(vx, vy, vz, a, a, u1, u2, h);
    }

    /** The same for two widths. */
    static void visibleNormal(float vx, float vy, float vz, float ax, float ay, float u1, float u2, float[] h) {
        float sx = ax * vx, sy = ay * vy, len = 1 / (float) Math.sqrt(sx * sx + sy * sy + vz * vz);
        sx *= len;
        sy *= len;
        float sz = vz * len;
        float l2 = sx * sx + sy * sy, tx = 1, ty = 0;
        if (l2 > 1e-12f) {
            float il = 1 / (float) Math.sqrt(l2);
            tx = -sy * il;
            ty = sx * il;
        }
        float bx = -sz * ty, by = sz * tx, bz = sx * ty - sy * tx;
        float r = (float) Math.sqrt(u1), phi = 2 * (float) Math.PI * u2;
        float p1 = r * (float) Math.cos(phi), p2 = r * (float) Math.sin(phi), s = 0.5f * (1 + sz);
        p2 = (1 - s) * (float) Math.sqrt(Math.max(0, 1 - p1 * p1)) + s * p2;
        float p3 = (float) Math.sqrt(Math.max(0, 1 - p1 * p1 - p2 * p2));
        float nx = ax * (p1 * tx + p2 * bx + p3 * sx), ny = ay * (p1 * ty + p2 * by + p3 * sy);
        float nz = Math.max(1e-7f, p2 * bz + p3 * sz);
        float n = 1 / (float) Math.sqrt(nx * nx + ny * ny + nz * nz);
        h[0] = nx * n;
        h[1] = ny * n;
        h[2] = nz * n;
    }

    /** Directional albedo at Fresnel one. */
    static float ess(float cos, float a) {
        return lookup(ESS, cos, a);
    }

    /** Directional albedo with Schlick's Fresnel from {@code f0} to one. */
    static float energy(float cos, float a, float f0) {
        float b = lookup(EB, cos, a);
        return f0 * (lookup(ESS, cos, a) - b) + b;
    }

    /** Cosine-weighted mean of {@link #ess}. */
    static float essMean(float a) {
        return lookup1(ESS_MEAN, a);
    }

    /** Cosine-weighted mean of {@link #energy}. */
    static float energyMean(float a, float f0) {
        float b = lookup1(EB_MEAN, a);
        return f0 * (lookup1(ESS_MEAN, a) - b) + b;
    }

    /** Place of a width in the tables, for lookups that share it. */
    static float row(float a) {
        return Math.min(Math.max((float) Math.sqrt(a) * (N - 1), 0), N - 1.001f);
    }

    /** {@link #ess} times {@code k} plus {@link #energy} at F0 zero times {@code kb}, for the width of a row. */
    static float blend(float cos, float row, float k, float kb) {
        float x = Math.min(Math.max(cos * N - 0.5f, 0), N - 1.001f);
        int i = (int) row, j = (int) x, o = i * N + j;
        float fy = row - i, fx = x - j, p = (1 - fx) * (1 - fy), q = fx * (1 - fy), r = (1 - fx) * fy, s = fx * fy;
        return k * (p * ESS[o] + q * ESS[o + 1] + r * ESS[o + N] + s * ESS[o + N + 1])
                + kb * (p * EB[o] + q * EB[o + 1] + r * EB[o + N] + s * EB[o + N + 1]);
    }

    private static float lookup(float[] t, float cos, float a) {
        float y = row(a);
        float x = Math.min(Math.max(cos * N - 0.5f, 0), N - 1.001f);
        int i = (int) y, j = (int) x, o = i * N + j;
        float fy = y - i, fx = x - j;
        return (t[o] * (1 - fx) + t[o + 1] * fx) * (1 - fy) + (t[o + N] * (1 - fx) + t[o + N + 1] * fx) * fy;
    }

    private static float lookup1(float[] t, float a) {
        float y = row(a);
        int i = (int) y;
        return t[i] + (t[i + 1] - t[i]) * (y - i);
    }
}
