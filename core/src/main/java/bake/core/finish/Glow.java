package bake.core.finish;

import java.util.ArrayList;
import java.util.List;

/**
 * Light that lens and eye scatter about: each octave of distance up to the size of the glow gets as much, which is how veiling glare falls,
 * with the square of the angle (Spencer et al. 1995, "Physically-Based Glare Effects for Digital Images", eq. 3). By a pyramid of halved
 * pictures; what is scattered is taken away where it comes from, so that no light is made.
 */
final class Glow {
    private static final int LEAST = 8;

    private Glow() {}

    /** Scatters a share of the light, three colours for each pixel. */
    static void add(float[] p, int w, int h, double share, double size) {
        List<float[]> levels = new ArrayList<>();
        List<int[]> sizes = new ArrayList<>();
        float[] at = p;
        int aw = w, ah = h;
        for (double reach = 2; reach <= Math.max(2, size * h) && Math.min(aw, ah) >= LEAST; reach *= 2) {
            at = half(at, aw, ah);
            aw = (aw + 1) / 2;
            ah = (ah + 1) / 2;
            levels.add(at);
            sizes.add(new int[] {aw, ah});
        }
        if (levels.isEmpty()) return;
        int n = levels.size();
        float[] sum = null;
        for (int k = n - 1; k >= 0; k--) {
            int[] s = sizes.get(k);
            float[] own = blurred(levels.get(k), s[0], s[1]);
            if (sum != null) twice(sum, sizes.get(k + 1)[0], sizes.get(k + 1)[1], own, s[0], s[1]);
            sum = own;
        }
        float[] all = sum;
        int[] s = sizes.getFirst();
        float keep = (float) (1 - share), give = (float) (share / n);
        Rows.each(h, y -> {
            for (int x = 0; x < w; x++) {
                int i = 3 * (y * w + x);
                for (int c = 0; c < 3; c++) p[i + c] = keep * p[i + c] + give * between(all, s[0], s[1], x, y, c);
            }
        });
    }

    private static float[] half(float[] p, int w, int h) {
        int hw = (w + 1) / 2, hh = (h + 1) / 2;
        float[] out = new float[3 * hw * hh];
        Rows.each(hh, y -> {
            int a = 2 * y * w, b = Math.min(2 * y + 1, h - 1) * w;
            for (int x = 0; x < hw; x++) {
                int l = 2 * x, r = Math.min(2 * x + 1, w - 1);
                for (int c = 0; c < 3; c++)
                    out[3 * (y * hw + x) + c] = (p[3 * (a + l) + c] + p[3 * (a + r) + c] + p[3 * (b + l) + c] + p[3 * (b + r) + c]) / 4;
            }
        });
        return out;
    }

    /** Binomial weights 1 4 6 4 1 both ways; beyond the edge it goes on. */
    private static float[] blurred(float[] p, int w, int h) {
        float[] t = new float[p.length], out = new float[p.length];
        Rows.each(h, y -> {
            for (int x = 0; x < w; x++)
                for (int c = 0; c < 3; c++) {
                    int r = 3 * y * w + c;
                    t[r + 3 * x] = (p[r + 3 * Math.max(0, x - 2)] + p[r + 3 * Math.min(w - 1, x + 2)] + 4 * (p[r + 3 * Math.max(0, x - 1)]
                            + p[r + 3 * Math.min(w - 1, x + 1)]) + 6 * p[r + 3 * x]) / 16;
                }
        });
        Rows.each(h, y -> {
            int a = 3 * w * Math.max(0, y - 2), b = 3 * w * Math.max(0, y - 1), m = 3 * w * y, d = 3 * w * Math.min(h - 1, y + 1),
                    e = 3 * w * Math.min(h - 1, y + 2);
            for (int i = 0; i < 3 * w; i++) out[m + i] = (t[a + i] + t[e + i] + 4 * (t[b + i] + t[d + i]) + 6 * t[m + i]) / 16;
        });
        return out;
    }

    /** Adds a picture at twice its size. */
    private static void twice(float[] from, int fw, int fh, float[] to, int w, int h) {
        Rows.each(h, y -> {
            for (int x = 0; x < w; x++) for (int c = 0; c < 3; c++) to[3 * (y * w + x) + c] += between(from, fw, fh, x, y, c);
        });
    }

    /** The value of a halved picture at a pixel of the whole one, straight between four of its own. */
    private static float between(float[] p, int w, int h, int x, int y, int c) {
        int x0 = x - 1 >> 1, y0 = y - 1 >> 1;
        float u = (x & 1) == 0 ? 0.75f : 0.25f, v = (y & 1) == 0 ? 0.75f : 0.25f;
        int l = Math.clamp(x0, 0, w - 1), r = Math.clamp(x0 + 1, 0, w - 1), a = Math.clamp(y0, 0, h - 1) * w, b = Math.clamp(y0 + 1, 0,
                h - 1) * w;
        float top = p[3 * (a + l) + c] + u * (p[3 * (a + r) + c] - p[3 * (a + l) + c]), low = p[3 * (b + l) + c] + u * (p[3 * (b + r) + c]
                - p[3 * (b + l) + c]);
        return top + v * (low - top);
    }
}
