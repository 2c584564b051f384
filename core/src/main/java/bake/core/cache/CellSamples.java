package bake.core.cache;

import java.util.Arrays;

/** Samples of irradiance that one chunk of a round found, in the order in which it found them. Used by one thread at a time. */
public final class CellSamples {
    /** Place, facing and free distance come before the light. */
    static final int X = 0, Y = 1, Z = 2, FACING = 3, FREE = 4, LIGHT = 5;

    final int stride;
    float[] data;
    int count;

    /** @param channels three colours for each source group */
    public CellSamples(int channels) {
        stride = LIGHT + channels;
        data = new float[64 * stride];
    }

    /**
     * Adds a sample.
     *
     * @param free distance from the place to what its bounce met, metres; infinite where it met nothing
     * @param light irradiance over pi by source group, cd/m2, from {@code o} on
     */
    public void add(float x, float y, float z, float nx, float ny, float nz, float free, float[] light, int o) {
        if ((count + 1) * stride > data.length) data = Arrays.copyOf(data, 2 * data.length);
        int at = count++ * stride;
        data[at + X] = x;
        data[at + Y] = y;
        data[at + Z] = z;
        data[at + FACING] = CellGrid.facing(nx, ny, nz);
        data[at + FREE] = free;
        System.arraycopy(light, o, data, at + LIGHT, stride - LIGHT);
    }

    /** Luminance of the light of all groups that begins at a place. */
    static float luminance(float[] v, int o, int channels) {
        float l = 0;
        for (int c = o; c < o + channels; c += 3) l += 0.2126f * v[c] + 0.7152f * v[c + 1] + 0.0722f * v[c + 2];
        return l;
    }

    public int count() {
        return count;
    }

    public void clear() {
        count = 0;
    }
}
