package bake.core.denoise;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * How alike the pixels around are, judged by the patches around both (non-local means; Buades et al. 2005, with the noise taken out of the
 * distance as Rousselle et al. 2012, eq. 3 do): weights of a tile's pixels, one plane for each step to another pixel.
 */
final class PatchWeights {
    /** How far other pixels lie at most, how far patches reach around both, and the number of steps. */
    static final int REACH = 9, PATCH = 3, SIDE = 2 * REACH + 1, STEPS = SIDE * SIDE;
    /** Differences that count, in standard deviations; a weight below which a pixel is left out. */
    private static final float BAND = 0.5f, LEAST = 0.01f;
    /**
     * Half of the relative difference that counts as one whatever the noise: light of caches has next to none, and a wall that gets lighter
     * by a hundredth from pixel to pixel would have no other pixel like it. Between 0.5 and 2 % pictures differ by a fiftieth of their
     * error.
     */
    private static final float UNSEEN = 0.01f;
    private static final int SIZE = 2 * PATCH + 1;
    private static final float TINY = 1e-12f;
    static final VectorSpecies<Float> LANES = FloatVector.SPECIES_PREFERRED;

    private final int width, height, wide, high;
    /** By step; row by row of the tile. */
    final float[][] weights;
    private final float[] distance, sums;

    /** @param width of a tile, a multiple of any number of lanes */
    PatchWeights(int width, int height) {
        this.width = width;
        this.height = height;
        // Room for whole vectors at the end of each row.
        wide = width + 2 * PATCH + (LANES.length() - 2 * PATCH % LANES.length()) % LANES.length();
        high = height + 2 * PATCH;
        weights = new float[STEPS][width * height];
        distance = new float[wide * high + LANES.length()];
        sums = new float[width * high];
    }

    /**
     * Weighs what lies around the pixels of a tile.
     *
     * @param light luminance, {@code variance} its variance, in rows of {@code across}
     * @param at the tile's first pixel; {@link #REACH} and {@link #PATCH} more lie around the tile
     */
    void weigh(float[] light, float[] variance, int across, int at) {
        for (int dy = -REACH, s = 0; dy <= REACH; dy++)
            for (int dx = -REACH; dx <= REACH; dx++, s++) {
                distances(light, variance, across, at, dy * across + dx);
                patches(weights[s]);
            }
    }

    /** Squared differences of single pixels, in their variance, which noise alone leaves at zero. */
    private void distances(float[] light, float[] variance, int across, int at, int step) {
        float[] out = distance;
        for (int y = 0; y < high; y++) {
            int p = at + (y - PATCH) * across - PATCH, q = p + step, o = y * wide;
            for (int x = 0; x < wide; x += LANES.length()) {
                // The last vector of a row may reach beyond the plane: it then begins earlier.
                int i = Math.min(x, Math.min(light.length - LANES.length() - p, light.length - LANES.length() - q));
                FloatVector vp = of(variance, p + i), vq = of(variance, q + i), lp = of(light, p + i), lq = of(light, q + i),
                        d = lp.sub(lq), unseen = lp.add(lq).mul(UNSEEN);
                d.mul(d).sub(vp.add(vp.min(vq))).div(vp.add(vq).mul(BAND * BAND).add(unseen.mul(unseen)).add(TINY)).intoArray(out, o + i);
            }
        }
    }

    /** Means over patches, and what they weigh: e to the minus distance, as the sixteenth power of a straight line. */
    private void patches(float[] out) {
        float[] d = distance, t = sums;
        for (int y = 0; y < high; y++)
            for (int x = 0; x < width; x += LANES.length()) {
                int i = y * wide + x;
                FloatVector s = of(d, i);
                for (int k = 1; k < SIZE; k++) s = s.add(of(d, i + k));
                s.intoArray(t, y * width + x);
            }
        for (int i = 0; i < width * height; i += LANES.length()) {
            FloatVector s = of(t, i);
            for (int k = 1; k < SIZE; k++) s = s.add(of(t, i + k * width));
            FloatVector e = s.mul(1f / (SIZE * SIZE)).max(0).mul(-1 / 16f).add(1).max(0);
            e = e.mul(e);
            e = e.mul(e);
            e = e.mul(e);
            e.mul(e).sub(LEAST).max(0).intoArray(out, i);
        }
    }

    static FloatVector of(float[] a, int i) {
        return FloatVector.fromArray(LANES, a, i);
    }
}
