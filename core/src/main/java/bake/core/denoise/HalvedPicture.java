package bake.core.denoise;

/** The planes of a picture on its way through the denoiser, row by row, its highlights compressed. */
final class HalvedPicture {
    final int w, h;
    /** Denoised light and light as it was rendered, stray pixels limited; three for each pixel. */
    final float[] clean, raw;
    /**
     * Luminance of one half of the samples and of the other, and the variance of both together; that is not finite
     * where it is not known.
     */
    final float[] odd, even, variance;
    /**
     * Squared error of the denoised luminance, and how much of it is noise of the rendered one; right only as means over many
     * pixels. Or null.
     */
    final float[] error, shared;
    /** Share of the first half in the samples; or null. */
    final float[] share;

    HalvedPicture(int w, int h) {
        this(w, h, new float[3 * w * h], new float[3 * w * h], new float[w * h], new float[w * h], new float[w * h], new float[w * h],
                new float[w * h], new float[w * h]);
    }

    /** One whose error nobody asks for. */
    HalvedPicture(int w, int h, float[] clean, float[] raw, float[] odd, float[] even, float[] variance) {
        this(w, h, clean, raw, odd, even, variance, null, null, null);
    }

    private HalvedPicture(int w, int h, float[] clean, float[] raw, float[] odd, float[] even, float[] variance, float[] error,
            float[] shared, float[] share) {
        this.w = w;
        this.h = h;
        this.clean = clean;
        this.raw = raw;
        this.odd = odd;
        this.even = even;
        this.variance = variance;
        this.error = error;
        this.shared = shared;
        this.share = share;
    }

    static float luminance(float[] rgb, int i) {
        return 0.2126f * rgb[3 * i] + 0.7152f * rgb[3 * i + 1] + 0.0722f * rgb[3 * i + 2];
    }
}
