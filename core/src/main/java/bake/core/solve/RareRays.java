package bake.core.solve;

import java.util.Arrays;

/**
 * Tells apart what the brightest rays of a record bring: small and bright things far off, such as the inside of a lampshade or a lamp in
 * polished brass, are met by a ray or two or by none, by chance. Rare light is what the brightest hundredth of rays bring beyond the next
 * one: a place that sees little more than such things gets it all from so few of its rays, while of a window or a near lamp, which many
 * rays meet, next to nothing is rare. It is no more with more rays, so that records of few and of many can share it.
 */
final class RareRays {
    /** One of how many rays is among the brightest. */
    private static final int AMONG = 100;

    private final float[][] samples;
    private final float[] luminance;
    private final int[] rays;
    private final float[] rare;
    private int most;

    /** @param channels of a sample: three colours for each source group */
    RareRays(int rays, int channels) {
        int n = brightest(rays) + 1;
        samples = new float[n][channels];
        luminance = new float[n];
        this.rays = new int[n];
        rare = new float[channels];
    }

    private static int brightest(int rays) {
        return Math.max(1, rays / AMONG);
    }

    /** Begins a record of no more rays than the most there can be. */
    void begin(int ofRays) {
        most = brightest(ofRays);
        Arrays.fill(luminance, 0, most + 1, 0);
    }

    /** A ray has brought light. */
    void take(int ray, float l, float[] sample) {
        if (l <= luminance[most]) return;
        int k = most;
        float[] last = samples[most];
        for (; k > 0 && luminance[k - 1] < l; k--) {
            samples[k] = samples[k - 1];
            luminance[k] = luminance[k - 1];
            rays[k] = rays[k - 1];
        }
        samples[k] = last;
        System.arraycopy(sample, 0, last, 0, last.length);
        luminance[k] = l;
        rays[k] = ray;
    }

    /**
     * Ends a record: its rare light, summed over rays, by channel.
     *
     * @param each luminance of all rays; loses what is rare
     */
    float[] end(float[] each) {
        Arrays.fill(rare, 0);
        float usual = luminance[most];
        for (int k = 0; k < most && luminance[k] > usual; k++) {
            float share = 1 - usual / luminance[k];
            for (int c = 0; c < rare.length; c++) rare[c] += share * samples[k][c];
            each[rays[k]] = usual;
        }
        return rare;
    }
}
