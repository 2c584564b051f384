package bake.core.finish;

import java.util.stream.IntStream;

/**
 * Puts back of the rendered light what the denoiser took by mistake. Around each pixel the difference between both is compared with the
 * noise that the rendered light has: where they differ by no more than that the denoised light is taken, where they differ by more the
 * denoiser has smeared something, and each counts as much as it errs less (the combination of two estimates by their squared errors; James
 * and Stein 1961, for denoised pictures Zheng et al. 2021 and Firmino et al. 2022). As noise goes the picture becomes the rendered one.
 */
final class BlendBack {
    /** Pixels around that are asked. */
    private static final int AROUND = 3;
    /**
     * Mean of the size of noise in standard deviations: 0.8 for normal noise, 1 for single bright finds, and more is taken for few samples,
     * which do not know their own noise. Sizes and not squares: single stray pixels would speak for all around them.
     */
    private static final float EXPECTED = 0.9f, FEW = 2, MOST = 1.4f, FROM_SIZES = (float) (Math.PI / 2);

    private BlendBack() {}

    /**
     * @param raw rendered light, three for each pixel
     * @param variance of its luminance; not finite where that is not known
     * @param clean denoised light; takes the result
     * @param samples of a pixel
     */
    static void mix(float[] raw, float[] variance, float[] clean, int w, int h, int samples) {
        float expected = Math.min(MOST, EXPECTED + FEW / samples);
        int n = w * h;
        float[] level = new float[n], differ = new float[n], noise = new float[n], spare = new float[n];
        for (int i = 0; i < n; i++) level[i] = Math.max(0, luminance(clean, i));
        mean(level, spare, w, h);
        double sum = 0;
        for (float l : level) sum += l;
        float least = (float) Math.max(Float.MIN_NORMAL, 1e-3 * sum / n);
        for (int i = 0; i < n; i++) {
            float k = 1 / (level[i] + least), d = (luminance(raw, i) - luminance(clean, i)) * k;
            differ[i] = Math.min(1, Math.abs(d));
            float v = variance[i];
            noise[i] = v >= 0 && v < Float.POSITIVE_INFINITY ? Math.min(1, (float) Math.sqrt(v) * k) : 1;
        }
        float[] own = noise.clone();
        mean(differ, spare, w, h);
        mean(noise, spare, w, h);
        IntStream.range(0, h).parallel().forEach(y -> {
            for (int i = y * w; i < (y + 1) * w; i++) {
                float s = expected * noise[i], smeared = FROM_SIZES * Math.max(0, differ[i] * differ[i] - s * s), v = Math.max(noise[i],
                        own[i]);
                v *= v;
                float k = v + smeared > 0 ? v / (v + smeared) : 0;
                for (int c = 3 * i; c < 3 * i + 3; c++) clean[c] = raw[c] + k * (clean[c] - raw[c]);
            }
        });
    }

    private static float luminance(float[] rgb, int i) {
        return 0.2126f * rgb[3 * i] + 0.7152f * rgb[3 * i + 1] + 0.0722f * rgb[3 * i + 2];
    }

    /** Means over squares of pixels, those beyond the edge left out; twice, so that near ones count more. */
    private static void mean(float[] p, float[] spare, int w, int h) {
        IntStream.range(0, h).parallel().forEach(y -> line(p, spare, y * w, 1, w));
        IntStream.range(0, w).parallel().forEach(x -> line(spare, p, x, w, h));
    }

    private static void line(float[] from, float[] to, int at, int step, int n) {
        for (int i = 0; i < n; i++) {
            float s = 0, k = 0;
            for (int j = Math.max(0, i - AROUND); j <= Math.min(n - 1, i + AROUND); j++) {
                float u = AROUND + 1 - Math.abs(i - j);
                s += u * from[at + j * step];
                k += u;
            }
            to[at + i * step] = s / k;
        }
    }
}
