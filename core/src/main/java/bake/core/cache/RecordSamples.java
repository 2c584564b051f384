package bake.core.cache;

import java.util.Arrays;

/** Irradiance records that one chunk of a round has made, in the order in which it made them. Used by one thread at a time. */
public final class RecordSamples {
    final int stride;
    float[] data;
    /** For each record how far what is rare in it may be shared, metres, 0 for not at all; and what that is, by channel. */
    float[] rare;
    /** For each record by what its luminance scatters, squared, (cd/m2)^2. */
    float[] scatter;
    int count;
    private final int channels;

    /** @param channels three colours for each source group */
    public RecordSamples(int channels) {
        this.channels = channels;
        stride = IrradianceCache.LIGHT + channels;
        data = new float[16 * stride];
        rare = new float[16 * (1 + channels)];
        scatter = new float[16];
    }

    /**
     * Adds a record.
     *
     * @param radius within which the record may be used, metres
     * @param gradients relative change of irradiance with rotation (an axis times radians) and with translation (per metre)
     * @param light irradiance over pi by source group, cd/m2
     */
    public void add(float x, float y, float z, float nx, float ny, float nz, float radius, float[] gradients, float[] light) {
        int o = row();
        place(o, x, y, z, nx, ny, nz, radius);
        data[o + IrradianceCache.KIND] = IrradianceCache.WHOLE;
        System.arraycopy(gradients, 0, data, o + IrradianceCache.ROTATION, 6);
        System.arraycopy(light, 0, data, o + IrradianceCache.LIGHT, stride - IrradianceCache.LIGHT);
    }

    /**
     * Says of the last record what part of its light is rare, as in {@link RareIrradiance}.
     *
     * @param wide how far records share it, metres
     * @param light irradiance over pi by source group, cd/m2, no more than the record's
     */
    public void rare(float wide, float[] light) {
        int o = (count - 1) * (1 + channels);
        rare[o] = wide;
        System.arraycopy(light, 0, rare, o + 1, channels);
    }

    /** Says by what the luminance of the last record scatters about what it should be: its variance, (cd/m2)^2. */
    public void scatter(float variance) {
        scatter[count - 1] = variance;
    }

    /** Adds a mark that around a place nothing is to be interpolated. */
    public void mark(float x, float y, float z, float nx, float ny, float nz, float radius) {
        int o = row();
        place(o, x, y, z, nx, ny, nz, radius);
        Arrays.fill(data, o + IrradianceCache.ROTATION, o + stride, 0);
        data[o + IrradianceCache.KIND] = IrradianceCache.MARK;
    }

    /**
     * Adds a record of what is far.
     *
     * @param near where the near field ends, metres
     * @param open share of irradiance's directions that are open up to there, 0 to 1
     * @param light irradiance over pi from beyond it by source group, cd/m2
     */
    public void far(float x, float y, float z, float nx, float ny, float nz, float radius, float near, float open, float[] light) {
        int o = row();
        place(o, x, y, z, nx, ny, nz, radius);
        Arrays.fill(data, o + IrradianceCache.ROTATION, o + IrradianceCache.LIGHT, 0);
        data[o + IrradianceCache.KIND] = IrradianceCache.FAR;
        data[o + IrradianceCache.NEAR] = near;
        data[o + IrradianceCache.OPEN] = open;
        System.arraycopy(light, 0, data, o + IrradianceCache.LIGHT, stride - IrradianceCache.LIGHT);
    }

    private int row() {
        if ((count + 1) * stride > data.length) {
            data = Arrays.copyOf(data, 2 * data.length);
            rare = Arrays.copyOf(rare, 2 * rare.length);
            scatter = Arrays.copyOf(scatter, 2 * scatter.length);
        }
        return count++ * stride;
    }

    private void place(int o, float x, float y, float z, float nx, float ny, float nz, float radius) {
        data[o] = x;
        data[o + 1] = y;
        data[o + 2] = z;
        data[o + IrradianceCache.NORMAL] = nx;
        data[o + IrradianceCache.NORMAL + 1] = ny;
        data[o + IrradianceCache.NORMAL + 2] = nz;
        data[o + IrradianceCache.RADIUS] = radius;
    }

    public int count() {
        return count;
    }
}
