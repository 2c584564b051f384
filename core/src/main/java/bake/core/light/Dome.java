package bake.core.light;

import bake.core.math.Angles;
import bake.core.math.Distribution;
import bake.core.scene.Panorama;

/**
 * The surroundings as light from a dome infinitely far away: lookup by direction, and sampling in proportion to
 * luminance (Pharr, Jakob and Humphreys, "Physically Based Rendering", piecewise-constant 2D distribution).
 * Immutable; shared by all threads.
 */
public final class Dome {
    private final int width, height;
    private final float[] rgb;
    private final float scale, turn;
    private final Distribution rows;
    private final Distribution[] columns;
    /** By texel: density over the unit square of the map, over 2 pi^2. */
    private final float[] density;
    private final double irradianceUp;

    /**
     * @param scale factor on every luminance
     * @param rotation degrees clockwise seen from above
     */
    public Dome(Panorama p, double scale, double rotation) {
        width = p.width();
        height = p.height();
        rgb = p.rgb();
        this.scale = (float) scale;
        turn = (float) (Math.floorMod((long) Math.round(rotation * 1e6), 360_000_000L) / 360e6);
        columns = new Distribution[height];
        float[] w = new float[width * height], rowSum = new float[height];
        double mean = 0;
        for (int i = 0; i < width * height; i++) mean += luminance(i) / (width * (double) height);
        double up = 0;
        for (int y = 0; y < height; y++) {
            double sin = Math.sin(Math.PI * (y + 0.5) / height), cos = Math.cos(Math.PI * (y + 0.5) / height);
            for (int x = 0; x < width; x++) {
                int i = y * width + x;
                // Lookups blend neighbours, so a dark texel beside a bright one must not be given up: the best constant
                // density for a texel goes with the root of its mean square, here of the bilinear blend.
                int xa = (x + width - 1) % width, xb = (x + 1) % width, ya = Math.max(0, y - 1) * width, yb = Math.min(height - 1, y + 1) * width, yc = y * width;
                float l = (float) Math.sqrt(0.82f * square(i) + 0.042f * (square(yc + xa) + square(yc + xb) + square(ya + x) + square(yb + x))
                        + 0.002f * (square(ya + xa) + square(ya + xb) + square(yb + xa) + square(yb + xb)));
                w[i] = (float) ((l + 0.01 * mean) * sin);
                if (cos > 0) up += luminance(i) * cos * sin * 2 * Math.PI * Math.PI / (width * (double) height);
            }
            columns[y] = new Distribution(w, y * width, width);
            rowSum[y] = (float) columns[y].total();
        }
        rows = new Distribution(rowSum);
        density = new float[width * height];
        for (int y = 0; y < height; y++)
            for (int x = 0; x < width; x++)
                density[y * width + x] = (float) (rows.probability(y) * (double) columns[y].probability(x) * width * height / (2 * Math.PI * Math.PI));
        irradianceUp = up * scale;
    }

    private float luminance(int i) {
        return 0.2126f * rgb[3 * i] + 0.7152f * rgb[3 * i + 1] + 0.0722f * rgb[3 * i + 2];
    }

    private float square(int i) {
        float l = luminance(i);
        return l * l;
    }

    /** Horizontal illuminance from the upper half of the dome, lux. */
    public double horizontalIlluminance() {
        return irradianceUp;
    }

    public boolean dark() {
        return rows.total() <= 0 || scale <= 0;
    }

    private float mapU(float x, float y) {
        float u = (float) (Angles.atan2(x, y) / (2 * Math.PI)) + 0.5f - turn;
        return u < 0 ? u + 1 : u >= 1 ? u - 1 : u;
    }

    /** Angle from the zenith as a share of pi. */
    private static float mapV(float x, float y, float z) {
        return (float) (Angles.atan2(Math.sqrt(x * x + y * y), z) / Math.PI);
    }

    /**
     * Reads luminance by colour in direction (x, y, z) of length one, cd/m2, bilinear, into {@code out}; returns the density per
     * steradian with which {@link #sample} gives that direction.
     */
    public float read(float x, float y, float z, float[] out) {
        float u = mapU(x, y), v = mapV(x, y, z);
        blend(u, v, out);
        int i = Math.min((int) (u * width), width - 1), j = Math.min((int) (v * height), height - 1);
        return density[j * width + i] / (float) Math.sqrt(Math.max(1e-12f, 1 - z * z));
    }

    private void blend(float across, float down, float[] out) {
        float u = across * width - 0.5f, v = down * height - 0.5f;
        int i = (int) Math.floor(u), j = (int) Math.floor(v);
        float fx = u - i, fy = v - j;
        int ia = i < 0 ? width - 1 : i, ib = i + 1 >= width ? 0 : i + 1;
        int ja = Math.clamp(j, 0, height - 1), jb = Math.min(j + 1, height - 1);
        int a = 3 * (ja * width + ia), b = 3 * (ja * width + ib), c = 3 * (jb * width + ia), d = 3 * (jb * width + ib);
        for (int k = 0; k < 3; k++)
            out[k] = scale * ((rgb[a + k] * (1 - fx) + rgb[b + k] * fx) * (1 - fy) + (rgb[c + k] * (1 - fx) + rgb[d + k] * fx) * fy);
    }

    /** A direction into {@code out[0..2]}; its density is what {@link #read} returns. */
    public void sample(float u1, float u2, float[] out) {
        int j = rows.sample(u2);
        float fy = rows.remap(u2, j);
        int i = columns[j].sample(u1);
        float fx = columns[j].remap(u1, i);
        double theta = Math.PI * (j + fy) / height, phi = 2 * Math.PI * ((i + fx) / width - 0.5 + turn);
        double s = Math.sin(theta);
        out[0] = (float) (s * Math.sin(phi));
        out[1] = (float) (s * Math.cos(phi));
        out[2] = (float) Math.cos(theta);
    }
}
