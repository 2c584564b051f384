package bake.core.finish;

/**
 * Lines where something ends, drawn from what the pixels show and not from their light: where depth steps away from a plane,
 * where the surface turns, and where its base colour changes (edges in the geometry buffer: Saito and Takahashi 1990). A hand
 * that strays moves the place that is asked.
 */
final class Outline {
    /** Steps in depth, of itself, turns of the normal and changes of colour that make a whole line. */
    private static final float STEP = 0.03f, TURN = 0.35f, COLOUR = 0.45f;
    /** Of the picture's height: how far a hand strays, over which way, and within what lines crowd. */
    private static final float STRAY = 0.006f, WAY = 0.03f, CROWD = 0.02f;
    private static final float INK = 0.06f;

    private Outline() {}

    /** Draws lines over display colours. */
    static void draw(float[] p, Place at, Seen film, Look.Drawing d) {
        int w = at.w(), h = at.h();
        float reach = (float) Math.max(0.51, d.weight() * 1e-3 * at.height() / 2), stray = (float) d.wobble() * STRAY * at.height(),
                scale = 1 / (WAY * at.height());
        float strength = (float) d.outline();
        Seen seen = smoothed(film, w, h);
        float[] edges = new float[w * h];
        Rows.each(h, y -> {
            for (int x = 0; x < w; x++) {
                float sx = x, sy = y;
                if (stray > 0) {
                    float gx = (at.x() + x) * scale, gy = (at.y() + y) * scale;
                    sx += stray * (LensEffects.noise(gx, gy, 3) + 0.4f * LensEffects.noise(3 * gx, 3 * gy, 5));
                    sy += stray * (LensEffects.noise(gx, gy, 11) + 0.4f * LensEffects.noise(3 * gx, 3 * gy, 13));
                }
                edges[y * w + x] = edge(seen, w, h, sx, sy, reach);
            }
        });
        float[] around = around(edges, w, h, Math.max(5, Math.round(CROWD * at.height())));
        Rows.each(h, y -> {
            for (int x = 0; x < w; x++) {
                float e = edges[y * w + x];
                if (!(e > 0)) continue;
                // Where lines crowd, as in leaves and on rough stone, a hand leaves most of them out.
                float spared = Math.clamp(1.5f - 3.2f * around[y * w + x], 0.06f, 1f);
                float gx = (at.x() + x) * scale, gy = (at.y() + y) * scale;
                // A pencil presses unevenly.
                float press = d.wobble() > 0 ? 1 - 0.5f * (float) d.wobble() * Math.abs(LensEffects.noise(2 * gx, 2 * gy, 29)) : 1;
                float k = strength * Math.min(1, e) * press * spared;
                int i = 3 * (y * w + x);
                for (int c = 0; c < 3; c++) p[i + c] += k * (INK - p[i + c]) * (p[i + c] > INK ? 1 : 0);
            }
        });
    }

    /** What is seen, the mean with its neighbours: relief of single pixels makes no lines. Distance stays, so that its steps do. */
    private static Seen smoothed(Seen s, int w, int h) {
        float[] v = s.values(), out = new float[v.length];
        Rows.each(h, y -> {
            int a = Math.max(0, y - 1) * w, m = y * w, b = Math.min(h - 1, y + 1) * w;
            for (int x = 0; x < w; x++) {
                int l = Math.max(0, x - 1), r = Math.min(w - 1, x + 1), o = 7 * (m + x);
                for (int c = 0; c < 6; c++)
                    out[o + c] = (v[7 * (a + l) + c] + v[7 * (a + r) + c] + v[7 * (b + l) + c] + v[7 * (b + r) + c] + 2 * (v[7 * (a + x)
                            + c] + v[7 * (b + x)
                            + c] + v[7 * (m + l) + c] + v[7 * (m + r) + c]) + 4 * v[o + c]) / 16;
                float n = (float) Math.sqrt(out[o + 3] * out[o + 3] + out[o + 4] * out[o + 4] + out[o + 5] * out[o + 5]), k = n > 0.2f
                        ? 1 / n : 0;
                for (int c = 3; c < 6; c++) out[o + c] *= k;
                out[o + 6] = v[o + 6];
            }
        });
        return new Seen(out, null);
    }

    /** Means over squares, by running sums. */
    private static float[] around(float[] e, int w, int h, int r) {
        float[] t = new float[e.length], out = new float[e.length];
        Rows.each(h, y -> line(e, t, y * w, 1, w, r));
        Rows.each(w, x -> line(t, out, x, w, h, r));
        return out;
    }

    private static void line(float[] from, float[] to, int at, int step, int n, int r) {
        double sum = 0;
        int count = 0;
        for (int i = 0; i < Math.min(r, n); i++, count++) sum += from[at + i * step];
        for (int i = 0; i < n; i++) {
            if (i + r < n) {
                sum += from[at + (i + r) * step];
                count++;
            }
            if (i - r - 1 >= 0) {
                sum -= from[at + (i - r - 1) * step];
                count--;
            }
            to[at + i * step] = (float) (sum / count);
        }
    }

    /** How much of a line runs through a place: 0 for none. */
    private static float edge(Seen s, int w, int h, float x, float y, float reach) {
        return Math.max(along(s, w, h, x, y, reach, 0), along(s, w, h, x, y, 0, reach));
    }

    private static float along(Seen s, int w, int h, float x, float y, float dx, float dy) {
        int a = at(w, h, x - dx, y - dy), b = at(w, h, x + dx, y + dy), m = at(w, h, x, y);
        float[] v = s.values();
        float za = v[a + 6], zb = v[b + 6], zm = v[m + 6];
        // Where nothing is met there is no depth: its edge is a line, too.
        boolean na = !(za > 0), nb = !(zb > 0);
        if (na && nb) return 0;
        if (na != nb) return 1;
        float bend = zm > 0 ? Math.abs(za + zb - 2 * zm) / Math.min(za, zb) / STEP : 1;
        float turn = (1 - (v[a + 3] * v[b + 3] + v[a + 4] * v[b + 4] + v[a + 5] * v[b + 5])) / TURN;
        float colour = (Math.abs(v[a] - v[b]) + Math.abs(v[a + 1] - v[b + 1]) + Math.abs(v[a + 2] - v[b + 2])) / 3 / COLOUR;
        float e = Math.max(bend, Math.max(turn, colour)) - 0.4f;
        return Math.clamp(e / 0.6f, 0f, 1f);
    }

    private static int at(int w, int h, float x, float y) {
        return 7 * (Math.clamp(Math.round(y), 0, h - 1) * w + Math.clamp(Math.round(x), 0, w - 1));
    }
}
