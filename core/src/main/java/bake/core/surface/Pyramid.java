package bake.core.surface;

import bake.core.math.Srgb;
import bake.core.scene.Texture;

/**
 * A texture at its own size and at halves of it, each level the mean of the one below in linear light, so that far away
 * surfaces cost no noise and no memory traffic (Williams 1983, "Pyramidal Parametrics"). Immutable.
 */
final class Pyramid {
    private static final float[] SRGB = new float[256], LINEAR = new float[256];
    /** Bytes on the sRGB curve for linear values in steps of 1/4095. */
    private static final byte[] ENCODE = new byte[4096];

    static {
        for (int i = 0; i < 256; i++) {
            double c = i / 255.0;
            SRGB[i] = (float) Srgb.decode(c);
            LINEAR[i] = (float) c;
        }
        for (int i = 0; i < ENCODE.length; i++) {
            ENCODE[i] = (byte) Math.round(255 * Srgb.encode(i / 4095.0));
        }
    }

    final byte[][] levels;
    final int[] widths, heights;
    final float[] curve;
    final Texture of;

    Pyramid(Texture t) {
        of = t;
        curve = t.srgb() ? SRGB : LINEAR;
        int n = 1;
        for (int m = Math.max(t.width(), t.height()); m > 1; m >>= 1) n++;
        byte[][] all = new byte[n][];
        int[] w = new int[n], h = new int[n];
        all[0] = t.rgba();
        w[0] = t.width();
        h[0] = t.height();
        for (int k = 1; k < n; k++) {
            w[k] = Math.max(1, w[k - 1] / 2);
            h[k] = Math.max(1, h[k - 1] / 2);
            all[k] = half(all[k - 1], w[k - 1], h[k - 1], w[k], h[k], t.srgb());
        }
        levels = all;
        widths = w;
        heights = h;
    }

    static Texture halved(Texture t) {
        int w = Math.max(1, t.width() / 2), h = Math.max(1, t.height() / 2);
        return new Texture(t.name(), w, h, half(t.rgba(), t.width(), t.height(), w, h, t.srgb()), t.srgb());
    }

    private static byte[] half(byte[] from, int w, int h, int nw, int nh, boolean srgb) {
        float[] curve = srgb ? SRGB : LINEAR;
        byte[] out = new byte[4 * nw * nh];
        for (int y = 0; y < nh; y++) {
            int ya = Math.min(2 * y, h - 1), yb = Math.min(2 * y + 1, h - 1);
            for (int x = 0; x < nw; x++) {
                int xa = Math.min(2 * x, w - 1), xb = Math.min(2 * x + 1, w - 1);
                int a = 4 * (ya * w + xa), b = 4 * (ya * w + xb), c = 4 * (yb * w + xa), d = 4 * (yb * w + xb), o = 4 * (y * nw + x);
                for (int k = 0; k < 3; k++) {
                    float mean = 0.25f * (curve[from[a + k] & 255] + curve[from[b + k] & 255] + curve[from[c + k] & 255]
                            + curve[from[d + k] & 255]);
                    out[o + k] = srgb ? ENCODE[(int) (mean * 4095 + 0.5f)] : (byte) (int) (mean * 255 + 0.5f);
                }
                out[o + 3] = (byte) ((from[a + 3] & 255) + (from[b + 3] & 255) + (from[c + 3] & 255) + (from[d + 3] & 255) + 2 >> 2);
            }
        }
        return out;
    }
}
