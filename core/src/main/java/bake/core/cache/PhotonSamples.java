package bake.core.cache;

import java.util.Arrays;

/** Photons that one chunk of a round has left on surfaces, in the order in which it did. Used by one thread at a time. */
public final class PhotonSamples {
    /** Place, normal, flux by colour, source group. */
    static final int NORMAL = 3, FLUX = 6, GROUP = 9, STRIDE = 10;
    float[] data = new float[64 * STRIDE];
    private int count;

    /** Adds a photon: where it came to, the unit normal on its side, and luminous flux by colour of one emission, lm. */
    public void add(float x, float y, float z, float nx, float ny, float nz, float r, float g, float b, int group) {
        if ((count + 1) * STRIDE > data.length) data = Arrays.copyOf(data, 2 * data.length);
        int o = count++ * STRIDE;
        data[o] = x;
        data[o + 1] = y;
        data[o + 2] = z;
        data[o + NORMAL] = nx;
        data[o + NORMAL + 1] = ny;
        data[o + NORMAL + 2] = nz;
        data[o + FLUX] = r;
        data[o + FLUX + 1] = g;
        data[o + FLUX + 2] = b;
        data[o + GROUP] = group;
    }

    public int count() {
        return count;
    }
}
