package bake.core.finish;

/** What a lens does by the place in the picture. */
final class LensEffects {
    private LensEffects() {}

    /** Darkens towards the corners: cos^4 of an angle whose tangent is {@code strength} there. */
    static void vignette(float[] p, Place at, double strength) {
        float cx = at.width() / 2f, cy = at.height() / 2f, k = (float) (strength * strength / (cx * cx + cy * cy));
        Rows.each(at.h(), y -> {
            float dy = at.y() + y + 0.5f - cy;
            for (int x = 0; x < at.w(); x++) {
                float dx = at.x() + x + 0.5f - cx, d = 1 + k * (dx * dx + dy * dy), f = 1 / (d * d);
                int i = 3 * (y * at.w() + x);
                p[i] *= f;
                p[i + 1] *= f;
                p[i + 2] *= f;
            }
        });
    }

    /** Red and blue at slightly other scales than green (lateral chromatic aberration), by thousandths in the corners. */
    static float[] fringe(float[] p, Place at, double thousandths) {
        float[] out = p.clone();
        float cx = at.width() / 2f, cy = at.height() / 2f;
        Rows.each(at.h(), y -> {
            for (int x = 0; x < at.w(); x++) {
                int i = 3 * (y * at.w() + x);
                float dx = at.x() + x + 0.5f - cx, dy = at.y() + y + 0.5f - cy;
                for (int c = 0; c < 3; c += 2) {
                    float k = (float) (1 + (c == 0 ? -1 : 1) * thousandths * 1e-3);
                    out[i + c] = read(p, at, cx + k * dx - 0.5f - at.x(), cy + k * dy - 0.5f - at.y(), c);
                }
            }
        });
        return out;
    }

    /** Between pixels; beyond the edge it goes on. */
    static float read(float[] p, Place at, float x, float y, int c) {
        float cx = Math.clamp(x, 0f, at.w() - 1f), cy = Math.clamp(y, 0f, at.h() - 1f);
        int l = Math.min((int) cx, at.w() - 1), t = Math.min((int) cy, at.h() - 1), r = Math.min(l + 1, at.w() - 1), b = Math.min(t + 1,
                at.h() - 1);
        float u = cx - l, v = cy - t;
        float top = p[3 * (t * at.w() + l) + c] * (1 - u) + p[3 * (t * at.w() + r) + c] * u,
                low = p[3 * (b * at.w() + l) + c] * (1 - u) + p[3 * (b * at.w() + r) + c] * u;
        return top * (1 - v) + low * v;
    }

    /**
     * Brings out fine detail: what a pixel has over the mean around it once more (unsharp masking); of the luminance alone,
     * which makes no colour.
     */
    static float[] sharpen(float[] p, int w, int h, double strength) {
        float[] l = new float[w * h], out = p.clone();
        Rows.each(h, y -> {
            for (int i = y * w; i < (y + 1) * w; i++) l[i] = 0.2126f * p[3 * i] + 0.7152f * p[3 * i + 1] + 0.0722f * p[3 * i + 2];
        });
        float k = (float) strength;
        Rows.each(h, y -> {
            int a = Math.max(0, y - 1) * w, m = y * w, b = Math.min(h - 1, y + 1) * w;
            for (int x = 0; x < w; x++) {
                int u = Math.max(0, x - 1), v = Math.min(w - 1, x + 1);
                float mean = (l[a + u] + l[a + v] + l[b + u] + l[b + v] + 2 * (l[a + x] + l[b + x] + l[m + u] + l[m + v]) + 4 * l[m
                        + x]) / 16,
                        d = k * (l[m + x] - mean);
                for (int c = 0; c < 3; c++) out[3 * (m + x) + c] = p[3 * (m + x) + c] + d;
            }
        });
        return out;
    }

    /**
     * Grain as film has it: most in the middle tones, none in black and white. The same for the same place, whatever else changes.
     *
     * @param size of a grain, pixels
     */
    static void grain(float[] p, Place at, double strength, double size) {
        float k = (float) (0.2 * strength), s = (float) (1 / Math.max(1, size));
        Rows.each(at.h(), y -> {
            for (int x = 0; x < at.w(); x++) {
                float g = k * noise((at.x() + x) * s, (at.y() + y) * s, 77);
                int i = 3 * (y * at.w() + x);
                float l = 0.2126f * p[i] + 0.7152f * p[i + 1] + 0.0722f * p[i + 2], a = g * 2 * (float) Math.sqrt(Math.max(0, l * (1 - l)));
                for (int c = 0; c < 3; c++) p[i + c] += a;
            }
        });
    }

    /** Smooth noise about 0 between random values at whole places (value noise), -1 to 1. */
    static float noise(float x, float y, int seed) {
        int ix = (int) Math.floor(x), iy = (int) Math.floor(y);
        float u = x - ix, v = y - iy;
        float su = u * u * (3 - 2 * u), sv = v * v * (3 - 2 * v);
        float top = random(ix, iy, seed) * (1 - su) + random(ix + 1, iy, seed) * su, low = random(ix, iy + 1, seed) * (1 - su)
                + random(ix + 1, iy + 1, seed) * su;
        return top * (1 - sv) + low * sv;
    }

    private static final int CELLS = 256;
    private static final float[] RANDOM = new float[CELLS * CELLS];

    static {
        for (int i = 0; i < RANDOM.length; i++) RANDOM[i] = hashed(i % CELLS, i / CELLS);
    }

    /** From a table that repeats after 256 places, turned otherwise by each seed. */
    private static float random(int x, int y, int seed) {
        return RANDOM[(y + 59 * seed & CELLS - 1) * CELLS + (x + 101 * seed & CELLS - 1)];
    }

    private static float hashed(int x, int y) {
        int h = x * 0x27d4eb2f ^ y * 0x9e3779b1;
        h = (h ^ h >>> 15) * 0x2c1b3c6d;
        h = (h ^ h >>> 12) * 0x297a2d39;
        return ((h ^ h >>> 15) >> 8) * 0x1p-23f;
    }
}
