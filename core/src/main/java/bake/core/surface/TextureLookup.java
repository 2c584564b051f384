package bake.core.surface;

import bake.core.math.PathSampler;
import bake.core.scene.Material;

/** Filtered, repeating lookups in one texture with its transform; colours come back linear. */
final class TextureLookup {
    private final Pyramid pyramid;
    private final float m00, m01, m02, m10, m11, m12;
    /** Binary logarithm of texels per unit of texture coordinate, along the denser side. */
    private final float density;
    private final boolean scatter;

    private TextureLookup(Pyramid p, Material.Image i, boolean scatter) {
        pyramid = p;
        this.scatter = scatter;
        // KHR_texture_transform: translation * rotation * scale, rotation counter-clockwise in (u, v) with v down.
        double c = Math.cos(i.rotation()), s = Math.sin(i.rotation());
        m00 = (float) (c * i.scaleU());
        m01 = (float) (s * i.scaleV());
        m02 = (float) i.offsetU();
        m10 = (float) (-s * i.scaleU());
        m11 = (float) (c * i.scaleV());
        m12 = (float) i.offsetV();
        double most = Math.max(Math.abs(i.scaleU()) * p.widths[0], Math.abs(i.scaleV()) * p.heights[0]);
        density = (float) (Math.log(Math.max(most, 1e-9)) / Math.log(2));
    }

    /**
     * @param pyramids of all textures
     * @param scatter whether repeats are broken up
     */
    static TextureLookup of(Material.Image image, Pyramid[] pyramids, boolean scatter) {
        if (image == null || image.texture() < 0 || image.texture() >= pyramids.length) return null;
        return new TextureLookup(pyramids[image.texture()], image, scatter);
    }

    /**
     * Fills {@code out[0..3]} with the linear colour and the coverage around (u, v).
     *
     * @param spread binary logarithm of the side of the footprint in texture coordinates; very small for the sharpest
     */
    void colour(float u, float v, float spread, float[] out) {
        float x = m00 * u + m01 * v + m02, y = m10 * u + m11 * v + m12, level = spread + density;
        if (scatter) {
            patches(x, y, level, out);
            return;
        }
        filtered(x, y, level, out);
    }

    /** Height-field slopes: the red channel's change along u and v, per unit of texture coordinate, into {@code out[0..1]}. */
    void slope(float u, float v, float spread, float[] out) {
        float step = 1 / Math.max(1, (float) Math.exp((density - Math.max(0, spread + density)) * 0.6931472f));
        colour(u + step, v, spread, out);
        float a = out[0];
        colour(u - step, v, spread, out);
        float b = out[0];
        colour(u, v + step, spread, out);
        float c = out[0];
        colour(u, v - step, spread, out);
        float d = out[0];
        out[0] = (a - b) / (2 * step);
        out[1] = (c - d) / (2 * step);
    }

    private void filtered(float x, float y, float level, float[] out) {
        int last = pyramid.levels.length - 1;
        if (!(level > 0) || last == 0) {
            bilinear(0, x, y, 1, out, true);
            return;
        }
        int k = (int) level;
        if (k >= last) {
            bilinear(last, x, y, 1, out, true);
            return;
        }
        float f = level - k;
        bilinear(k, x, y, 1 - f, out, true);
        bilinear(k + 1, x, y, f, out, false);
    }

    private void bilinear(int level, float u, float v, float weight, float[] out, boolean first) {
        byte[] data = pyramid.levels[level];
        float[] curve = pyramid.curve;
        int width = pyramid.widths[level], height = pyramid.heights[level];
        float x = wrap(u) * width - 0.5f, y = wrap(v) * height - 0.5f;
        int x0 = (int) Math.floor(x), y0 = (int) Math.floor(y);
        float fx = x - x0, fy = y - y0;
        int xa = x0 < 0 ? width - 1 : x0, xb = x0 + 1 >= width ? 0 : x0 + 1;
        int ya = y0 < 0 ? height - 1 : y0, yb = y0 + 1 >= height ? 0 : y0 + 1;
        int p = 4 * (ya * width + xa), q = 4 * (ya * width + xb), r = 4 * (yb * width + xa), s = 4 * (yb * width + xb);
        float wp = (1 - fx) * (1 - fy) * weight, wq = fx * (1 - fy) * weight, wr = (1 - fx) * fy * weight, ws = fx * fy * weight;
        if (first) out[0] = out[1] = out[2] = out[3] = 0;
        for (int k = 0; k < 3; k++)
            out[k] += wp * curve[data[p + k] & 255] + wq * curve[data[q + k] & 255] + wr * curve[data[r + k] & 255]
                    + ws * curve[data[s + k] & 255];
        out[3] += (wp * (data[p + 3] & 255) + wq * (data[q + 3] & 255) + wr * (data[r + 3] & 255) + ws * (data[s + 3] & 255)) * (1 / 255f);
    }

    /**
     * Patches of the picture moved about on a lattice of triangles, three of them blended at each point with weights that
     * keep the contrast (after Heitz and Neyret 2018 and Mikkelsen 2022, without their histogram step).
     */
    private void patches(float x, float y, float level, float[] out) {
        // Skewed so that cells are equilateral triangles of about a third of a repeat.
        float sx = 3.4641016f * (x - 0.57735027f * y), sy = 3.4641016f * 1.1547005f * y;
        int bx = (int) Math.floor(sx), by = (int) Math.floor(sy);
        float fx = sx - bx, fy = sy - by, fz = 1 - fx - fy, r = 0, g = 0, b = 0, a = 0, sum = 0;
        boolean upper = fz < 0;
        for (int k = 0; k < 3; k++) {
            int vx = bx + (upper ? k == 1 ? 0 : 1 : k == 1 ? 1 : 0), vy = by + (upper ? k == 2 ? 0 : 1 : k == 2 ? 1 : 0);
            float w = upper ? k == 0 ? -fz : k == 1 ? 1 - fx : 1 - fy : k == 0 ? fz : k == 1 ? fx : fy;
            w = w * w * w;
            w *= w;
            if (w < 1e-4f) continue;
            int h = PathSampler.hash(vx * 0x9e3779b1 ^ PathSampler.hash(vy * 0x85ebca77));
            filtered(x + (h & 0xffff) / 65536f, y + (h >>> 16) / 65536f, level, out);
            r += w * out[0];
            g += w * out[1];
            b += w * out[2];
            a += w * out[3];
            sum += w;
        }
        float k = 1 / sum;
        out[0] = r * k;
        out[1] = g * k;
        out[2] = b * k;
        out[3] = a * k;
    }

    /** Coverage at (u, v), 0 to 1, unfiltered: what is cut out has hard edges. */
    float alpha(float u, float v) {
        int width = pyramid.widths[0], height = pyramid.heights[0];
        float x = wrap(m00 * u + m01 * v + m02) * width, y = wrap(m10 * u + m11 * v + m12) * height;
        int i = Math.min((int) x, width - 1), j = Math.min((int) y, height - 1);
        return (pyramid.levels[0][4 * (j * width + i) + 3] & 255) / 255f;
    }

    private static float wrap(float x) {
        float f = x - (float) Math.floor(x);
        return f < 1 ? f : 0; // also turns NaN into something harmless
    }
}
