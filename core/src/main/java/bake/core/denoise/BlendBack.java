package bake.core.denoise;

import java.util.stream.IntStream;

/**
 * Puts back of the rendered light what the denoiser took by mistake. Where it has smeared something both halves of the samples lie on the
 * same side of what it made, where it took noise they do not: the product of both differences, over the pixels around, is the square of its
 * error. Denoised and rendered light each count as much as they err less (the combination of two estimates by their squared errors; James
 * and Stein 1961, for denoised pictures Zheng et al. 2021 and Firmino et al. 2022). As noise goes the picture becomes the rendered one.
 */
final class BlendBack {
    /** Pixels around that are asked. */
    private static final int AROUND = 3;
    /** About half of the standard error of that product over the pixels around, in variances of the rendered light. */
    private static final float MARGIN = 0.15f;
    /**
     * Most that is put back into a pixel, in root mean squares of what was smeared around it, where that is no more than noise: what lies
     * farther off is a stray pixel. With three samples, walls that a path tracer lights by chance had dots; half as much takes the last of
     * them and sharpens less. As noise goes, so does the limit.
     */
    private static final float MOST = 0.5f;
    /** By how much what was smeared stands out of no noise at all. */
    private static final float NO_NOISE = 1e9f;
    /** Share of the mean light below which differences do not count. */
    private static final float LEAST = 1e-3f;

    private BlendBack() {}

    /** Puts light back into the denoised one, and takes the error along. */
    static void mix(HalvedPicture p) {
        int w = p.w, h = p.h, n = w * h;
        float[] clean = p.clean, raw = p.raw;
        float[] level = new float[n], smeared = new float[n], noise = new float[n], spare = new float[n];
        for (int i = 0; i < n; i++) level[i] = Math.max(0, HalvedPicture.luminance(clean, i));
        mean(level, spare, w, h);
        double sum = 0;
        for (float l : level) sum += l;
        float least = (float) Math.max(Float.MIN_NORMAL, LEAST * sum / n);
        for (int i = 0; i < n; i++) {
            float k = 1 / (level[i] + least), c = HalvedPicture.luminance(clean, i);
            smeared[i] = limited((p.odd[i] - c) * k) * limited((p.even[i] - c) * k);
            float v = p.variance[i];
            noise[i] = v >= 0 && v < Float.POSITIVE_INFINITY ? Math.min(1, v * k * k) : 1;
        }
        float[] own = noise.clone();
        mean(smeared, spare, w, h);
        mean(noise, spare, w, h);
        IntStream.range(0, h).parallel().forEach(y -> {
            for (int i = y * w; i < (y + 1) * w; i++) {
                float v = Math.max(noise[i], own[i]), s = Math.max(0, smeared[i] - MARGIN * v), k = v + s > 0 ? v / (v + s) : 0;
                // More than one where what was smeared stands out of the noise.
                float sure = v > 0 ? s / v : NO_NOISE, scale = level[i] + least,
                        back = (1 - k) * Math.abs(HalvedPicture.luminance(raw, i) - HalvedPicture.luminance(clean, i)),
                        most = MOST * Math.max(1, sure) * (float) Math.sqrt(s) * scale;
                if (back > most) k = 1 - (1 - k) * most / back;
                for (int c = 3 * i; c < 3 * i + 3; c++) clean[c] = raw[c] + k * (clean[c] - raw[c]);
                if (p.error == null) continue;
                float apart = p.odd[i] - p.even[i], rendered = apart * apart * p.share[i] * (1 - p.share[i]);
                // The error of a sum of two estimates that have some of their noise in common. What seems smeared but does not stand out of
                // the noise is mostly noise itself, and of a stray pixel no more comes back than the limit.
                p.error[i] = k * k * (p.error[i] + Math.min(1, sure) * s * scale * scale)
                        + Math.min(most * most, (1 - k) * (1 - k) * rendered) + 2 * k * (1 - k) * p.shared[i];
            }
        });
    }

    private static float limited(float difference) {
        return Math.clamp(difference, -1, 1);
    }

    /** Means over squares of pixels, those beyond the edge left out; near ones count more. */
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
