package bake.core.surface;

import bake.core.scene.Material;
import bake.core.scene.Texture;
import java.util.List;

/** Bilinear, repeating lookups in one texture with its transform; colours come back linear. */
final class TextureLookup {
    private static final float[] SRGB = new float[256], LINEAR = new float[256];

    static {
        for (int i = 0; i < 256; i++) {
            double c = i / 255.0; // IEC 61966-2-1
            SRGB[i] = (float) (c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4));
            LINEAR[i] = (float) c;
        }
    }

    private final byte[] data;
    private final int width, height;
    private final float[] curve;
    private final float m00, m01, m02, m10, m11, m12;

    private TextureLookup(Texture t, Material.Image i) {
        data = t.rgba();
        width = t.width();
        height = t.height();
        curve = t.srgb() ? SRGB : LINEAR;
        // KHR_texture_transform: translation * rotation * scale, rotation counter-clockwise in (u, v) with v down.
        double c = Math.cos(i.rotation()), s = Math.sin(i.rotation());
        m00 = (float) (c * i.scaleU());
        m01 = (float) (s * i.scaleV());
        m02 = (float) i.offsetU();
        m10 = (float) (-s * i.scaleU());
        m11 = (float) (c * i.scaleV());
        m12 = (float) i.offsetV();
    }

    static TextureLookup of(Material.Image image, List<Texture> textures) {
        if (image == null || image.texture() < 0 || image.texture() >= textures.size()) return null;
        return new TextureLookup(textures.get(image.texture()), image);
    }

    /** Fills {@code out[0..2]} with the linear colour at (u, v). */
    void colour(float u, float v, float[] out) {
        float x = wrap(m00 * u + m01 * v + m02) * width - 0.5f, y = wrap(m10 * u + m11 * v + m12) * height - 0.5f;
        int x0 = (int) Math.floor(x), y0 = (int) Math.floor(y);
        float fx = x - x0, fy = y - y0;
        int xa = x0 < 0 ? width - 1 : x0, xb = x0 + 1 >= width ? 0 : x0 + 1;
        int ya = y0 < 0 ? height - 1 : y0, yb = y0 + 1 >= height ? 0 : y0 + 1;
        int p = 4 * (ya * width + xa), q = 4 * (ya * width + xb), r = 4 * (yb * width + xa), s = 4 * (yb * width + xb);
        float wp = (1 - fx) * (1 - fy), wq = fx * (1 - fy), wr = (1 - fx) * fy, ws = fx * fy;
        for (int k = 0; k < 3; k++)
            out[k] = wp * curve[data[p + k] & 255] + wq * curve[data[q + k] & 255] + wr * curve[data[r + k] & 255]
                    + ws * curve[data[s + k] & 255];
    }

    /** Coverage at (u, v), 0 to 1. */
    float alpha(float u, float v) {
        float x = wrap(m00 * u + m01 * v + m02) * width, y = wrap(m10 * u + m11 * v + m12) * height;
        int i = Math.min((int) x, width - 1), j = Math.min((int) y, height - 1);
        return (data[4 * (j * width + i) + 3] & 255) / 255f;
    }

    private static float wrap(float x) {
        float f = x - (float) Math.floor(x);
        return f < 1 ? f : 0; // also turns NaN into something harmless
    }
}
