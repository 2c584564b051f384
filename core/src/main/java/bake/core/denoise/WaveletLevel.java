package bake.core.denoise;

/**
 * One level of the edge-avoiding wavelet transform (Dammertz et al. 2010, section 3), a row at a time and within it tap by tap.
 */
final class WaveletLevel {
    static final float[] KERNEL = {1 / 16f, 1 / 4f, 3 / 8f, 1 / 4f, 1 / 16f};
    /** Weight that a pixel of its own has. */
    static final float OWN = KERNEL[2] * KERNEL[2];

    private final int w, h;
    private final float[] normalX, normalY, normalZ, depth;

    /** Copies pixels from {@code at} on to places x0 to x1. */
    private void lay(WaveletTap.Pixels p, int at, int x0, int x1, Planes from) {
        int n = x1 - x0;
        System.arraycopy(normalX, at, p.nx, x0, n);
        System.arraycopy(normalY, at, p.ny, x0, n);
        System.arraycopy(normalZ, at, p.nz, x0, n);
        System.arraycopy(depth, at, p.z, x0, n);
        System.arraycopy(from.r, at, p.r, x0, n);
        System.arraycopy(from.g, at, p.g, x0, n);
        System.arraycopy(from.b, at, p.b, x0, n);
        System.arraycopy(from.luminance, at, p.l, x0, n);
        System.arraycopy(from.variance, at, p.v, x0, n);
    }

    private final ThreadLocal<WaveletTap> rows;

    /** @param normalX planes of w times h numbers, as {@code normalY}, {@code normalZ} and {@code depth}, metres */
    WaveletLevel(int w, int h, float[] normalX, float[] normalY, float[] normalZ, float[] depth) {
        this.w = w;
        this.h = h;
        this.normalX = normalX;
        this.normalY = normalY;
        this.normalZ = normalZ;
        this.depth = depth;
        rows = ThreadLocal.withInitial(() -> new WaveletTap(w));
    }

    /** Planes of light with its luminance, and of its variance. */
    record Planes(float[] r, float[] g, float[] b, float[] luminance, float[] variance) {
        static Planes of(int pixels) {
            return new Planes(new float[pixels], new float[pixels], new float[pixels], new float[pixels], new float[pixels]);
        }

        void weigh(int i) {
            luminance[i] = 0.2126f * r[i] + 0.7152f * g[i] + 0.0722f * b[i];
        }
    }

    /**
     * Filters a row.
     *
     * @param step between taps, pixels
     * @param least light that does not count
     * @param alone set for pixels that found nobody alike; or null
     */
    void row(int y, int step, float least, Planes from, Planes to, boolean[] alone) {
        WaveletTap a = rows.get();
        int start = y * w;
        lay(a.own, start, 0, w, from);
        for (int x = 0; x < w; x++) {
            int i = start + x;
            a.r[x] = a.g[x] = a.b[x] = a.v[x] = a.sum[x] = 0;
            a.reach[x] = 1 / (3.5f * (float) Math.sqrt(Math.max(0, from.variance[i])) + 0.01f * from.luminance[i] + least);
            a.slope[x] = slope(x, y) * step;
            a.still[x] = 0.004f * depth[i] + 1e-4f;
        }
        for (int dy = -2; dy <= 2; dy++) {
            int py = y + dy * step;
            if (py < 0 || py >= h) continue;
            for (int dx = -2; dx <= 2; dx++) {
                int shift = dx * step, x0 = Math.max(0, -shift), x1 = Math.min(w, w - shift);
                if (x1 <= x0) continue;
                lay(a.tap, py * w + shift + x0, x0, x1, from);
                a.add(x0, x1, KERNEL[dx + 2] * KERNEL[dy + 2], Math.abs(dx) + Math.abs(dy));
            }
        }
        for (int x = 0; x < w; x++) {
            int i = start + x;
            float sum = a.sum[x], inv = sum > 1e-12f ? 1 / sum : 0;
            to.r[i] = inv > 0 ? a.r[x] * inv : from.r[i];
            to.g[i] = inv > 0 ? a.g[x] * inv : from.g[i];
            to.b[i] = inv > 0 ? a.b[x] * inv : from.b[i];
            to.variance[i] = a.v[x] * inv * inv;
            to.weigh(i);
            if (alone != null) alone[i] = sum - OWN < 0.12f;
        }
    }

    /** How fast the distance changes from pixel to pixel here: a floor seen flat is still one floor. */
    private float slope(int x, int y) {
        int i = y * w + x;
        float a = x + 1 < w ? Math.abs(depth[i + 1] - depth[i]) : Float.MAX_VALUE,
                b = x > 0 ? Math.abs(depth[i] - depth[i - 1]) : Float.MAX_VALUE;
        float c = y + 1 < h ? Math.abs(depth[i + w] - depth[i]) : Float.MAX_VALUE,
                d = y > 0 ? Math.abs(depth[i] - depth[i - w]) : Float.MAX_VALUE;
        float across = Math.min(a, b), down = Math.min(c, d);
        return Math.max(across == Float.MAX_VALUE ? 0 : across, down == Float.MAX_VALUE ? 0 : down);
    }
}
