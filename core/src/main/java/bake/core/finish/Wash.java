package bake.core.finish;

/**
 * Lets tones run together within their edges, as a wash of colour does: each pixel takes the mean of that square beside
 * it whose tones agree
 * best (Kuwahara et al. 1976), all four weighed by how well they do, with the fourth power of their spread (Papari, Petkov and Campisi
 * 2007, eq. 13).
 */
final class Wash {
    private static final float TINY = 1e-5f;

    private Wash() {}

    /** @param radius half the side of what runs together, pixels */
    static float[] run(float[] p, int w, int h, double strength, double radius) {
        int r = Math.max(1, (int) Math.round(radius));
        // Means of squares of r + 1 pixels, whose corner is the pixel: colours and squared luminance.
        float[] q = new float[4 * w * h];
        Rows.each(h, y -> {
            for (int i = y * w; i < (y + 1) * w; i++) {
                float l = 0.2126f * p[3 * i] + 0.7152f * p[3 * i + 1] + 0.0722f * p[3 * i + 2];
                q[4 * i] = p[3 * i];
                q[4 * i + 1] = p[3 * i + 1];
                q[4 * i + 2] = p[3 * i + 2];
                q[4 * i + 3] = l * l;
            }
        });
        float[] t = means(q, w, h, r, 4, 4 * w, true), m = means(t, w, h, r, 4 * w, 4, false);
        float[] out = new float[p.length];
        float k = (float) strength;
        Rows.each(h, y -> {
            float[] sum = new float[3];
            for (int x = 0; x < w; x++) {
                float all = 0;
                sum[0] = sum[1] = sum[2] = 0;
                for (int c = 0; c < 4; c++) {
                    // A square that begins at its corner: to the right and below, or moved by its own side.
                    int i = 4 * (Math.max(0, y - (c >> 1) * r) * w + Math.max(0, x - (c & 1) * r));
                    float l = 0.2126f * m[i] + 0.7152f * m[i + 1] + 0.0722f * m[i + 2], v = Math.max(0, m[i + 3] - l * l) + TINY,
                            g = TINY / v * (TINY / v);
                    all += g;
                    for (int j = 0; j < 3; j++) sum[j] += g * m[i + j];
                }
                int o = 3 * (y * w + x);
                for (int j = 0; j < 3; j++) out[o + j] = p[o + j] + k * (sum[j] / all - p[o + j]);
            }
        });
        return out;
    }

    /** Means over the next r + 1 places along a line, fewer at its end. */
    private static float[] means(float[] q, int w, int h, int r, int step, int next, boolean across) {
        float[] out = new float[q.length];
        int lines = across ? h : w, n = across ? w : h;
        Rows.each(lines, line -> {
            for (int c = 0; c < 4; c++) {
                int o = line * next + c;
                float sum = 0;
                int count = 0;
                for (int i = 0; i <= Math.min(r, n - 1); i++, count++) sum += q[o + i * step];
                for (int i = 0; i < n; i++) {
                    out[o + i * step] = sum / count;
                    sum -= q[o + i * step];
                    if (i + r + 1 < n) sum += q[o + (i + r + 1) * step];
                    else count--;
                }
            }
        });
        return out;
    }
}
