package bake.core.finish;

/**
 * Lines where something ends, drawn from what the pixels show and not from their light: where depth steps away from a plane, where the
 * surface turns, and where its base colour changes (edges in the geometry buffer: Saito and Takahashi 1990). A hand that strays moves the place that is asked.
 */
final class Outline {
    /** Steps in depth, of itself, turns of the normal and changes of colour that make a whole line. */
    private static final float STEP = 0.02f, TURN = 0.25f, COLOUR = 0.35f;
    /** Of the picture's height: how far a hand strays, and over which way. */
    private static final float STRAY = 0.006f, WAY = 0.03f;
    private static final float INK = 0.06f;

    private Outline() {}

    /** Draws lines over display colours. */
    static void draw(float[] p, Place at, Seen seen, Look.Drawing d) {
        int w = at.w(), h = at.h();
        float reach = (float) Math.max(0.51, d.weight() * 1e-3 * at.height() / 2), stray = (float) d.wobble() * STRAY * at.height(), scale = 1 / (WAY * at.height());
        float strength = (float) d.outline();
        Rows.each(h, y -> {
            for (int x = 0; x < w; x++) {
                float gx = (at.x() + x) * scale, gy = (at.y() + y) * scale;
                float sx = x, sy = y;
                if (stray > 0) {
                    sx += stray * (LensEffects.noise(gx, gy, 3) + 0.4f * LensEffects.noise(3 * gx, 3 * gy, 5));
                    sy += stray * (LensEffects.noise(gx, gy, 11) + 0.4f * LensEffects.noise(3 * gx, 3 * gy, 13));
                }
                float e = edge(seen, w, h, sx, sy, reach);
                if (!(e > 0)) continue;
                // A pencil presses unevenly.
                float press = d.wobble() > 0 ? 1 - 0.5f * (float) d.wobble() * Math.abs(LensEffects.noise(2 * gx, 2 * gy, 29)) : 1;
                float k = strength * Math.min(1, e) * press;
                int i = 3 * (y * w + x);
                for (int c = 0; c < 3; c++) p[i + c] += k * (INK - p[i + c]) * (p[i + c] > INK ? 1 : 0);
            }
        });
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
