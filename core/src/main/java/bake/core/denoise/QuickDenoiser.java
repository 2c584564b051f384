package bake.core.denoise;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * Takes noise out of a picture within a moment, for the easel: with an edge-avoiding wavelet transform (Dammertz et al. 2010) whose reach
 * in light is set by the estimated variance (Schied et al. 2017, section 4.2), on light from which the base colour has been divided
 * out, so that textures stay sharp. What it smears is put back as noise goes ({@link BlendBack}).
 */
public final class QuickDenoiser {
    private static final int LEVELS = 5;
    /** Greatest light of a pixel, in means of its neighbourhood, before it counts as stray; more while samples are few. */
    private static final float STRAY = 5;
    /** How far an edge pixel looks for company, and how alike their base colours should be. */
    private static final int JOIN = 4;
    private static final float SAME_BASE = 0.08f;

    private final Region region;
    private final Film film;
    private final int w, h;
    private float least = 1e-6f;
    private WaveletLevel.Planes light, light2;
    private final float[] base, normalX, normalY, normalZ, depth;
    /** Pixels that found nobody alike: edges where two surfaces share a pixel, thin bars, leaves. */
    private final boolean[] alone;

    private final BooleanSupplier stop;
    /** Whether only what lies before the backdrop is asked for. */
    private final boolean front;
    /** Variance of the luminance as it was rendered. */
    private final float[] rawVariance;
    /** Luminance of both halves of the samples. */
    private final float[] odd, even;

    private QuickDenoiser(Film film, float[] gains, boolean front, Region r, BooleanSupplier stop) {
        this.stop = stop;
        this.front = front;
        region = r;
        this.film = film;
        w = r.width();
        h = r.height();
        light = WaveletLevel.Planes.of(w * h);
        light2 = WaveletLevel.Planes.of(w * h);
        base = new float[3 * w * h];
        normalX = new float[w * h];
        normalY = new float[w * h];
        normalZ = new float[w * h];
        depth = new float[w * h];
        alone = new boolean[w * h];
        rawVariance = new float[w * h];
        odd = new float[w * h];
        even = new float[w * h];
        float[] c = new float[3], f = new float[7];
        for (int y = 0; y < h && !stop.getAsBoolean(); y++)
            for (int x = 0; x < w; x++) load(film, gains, x, y, c, f);
    }

    /** Linear light of the region after denoising, cd/m2, three for each pixel; gains as in {@link Film#mean}. */
    public static float[] run(Film film, float[] gains, Region r) {
        return run(film, gains, r, () -> false);
    }

    /** How much of the backdrop is covered, as {@link Film#cover} says it, after denoising; three alike for each pixel. */
    public static float[] cover(Film film, Region r) {
        QuickDenoiser d = new QuickDenoiser(film, null, false, r, () -> false);
        for (int y = 0; y < d.h; y++)
            for (int x = 0; x < d.w; x++) {
                int i = y * d.w + x;
                d.light.r()[i] = d.light.g()[i] = d.light.b()[i] = film.cover(r.x() + x, r.y() + y);
                d.light.weigh(i);
                java.util.Arrays.fill(d.base, 3 * i, 3 * i + 3, 1);
                d.light.variance()[i] = film.coverVariance(r.x() + x, r.y() + y);
            }
        d.smoothVariance();
        d.levels();
        return d.result();
    }

    /** The same; null when it was stopped, which is asked often. */
    public static float[] run(Film film, float[] gains, Region r, BooleanSupplier stop) {
        if (!film.hasFeatures()) throw new IllegalArgumentException("this picture is too large to denoise");
        return run(new QuickDenoiser(film, gains, false, r, stop));
    }

    /** The same of what lies before the backdrop, of a film that keeps that apart. */
    public static float[] front(Film film, Region r) {
        return run(new QuickDenoiser(film, film.front(), true, r, () -> false));
    }

    /** Light below which differences do not count, so that moonlit rooms are treated as sunny ones are. */
    private void judgeLevel() {
        double sum = 0;
        for (float v : light.luminance()) if (v < Float.POSITIVE_INFINITY) sum += v;
        least = (float) Math.max(Float.MIN_NORMAL, 1e-6 * sum / light.luminance().length);
    }

    private int samples(int x, int y) {
        return Math.max(1, film.samples(region.x() + x, region.y() + y));
    }

    private static float[] run(QuickDenoiser d) {
        d.judgeLevel();
        d.limitStray();
        float[] raw = d.result();
        d.smoothVariance();
        d.levels();
        d.joinEdges();
        if (d.stop.getAsBoolean()) return null;
        float[] out = d.result();
        if (!Denoiser.few(d.film, d.region)) BlendBack.mix(new HalvedPicture(d.w, d.h, out, raw, d.odd, d.even, d.rawVariance));
        return out;
    }

    /** Light with its base colours, three for each pixel. */
    private float[] result() {
        float[] out = base.clone();
        for (int i = 0; i < w * h; i++) {
            out[3 * i] *= light.r()[i];
            out[3 * i + 1] *= light.g()[i];
            out[3 * i + 2] *= light.b()[i];
        }
        return out;
    }

    private void load(Film film, float[] gains, int x, int y, float[] c, float[] f) {
        int i = y * w + x;
        film.mean(region.x() + x, region.y() + y, gains, c);
        film.features(region.x() + x, region.y() + y, f);
        float l = 0, b = 0, all = 0.2126f * c[0] + 0.7152f * c[1] + 0.0722f * c[2];
        for (int k = 0; k < 3; k++) {
            base[3 * i + k] = Math.max(0.02f, f[k]);
            l += c[k];
            b += c[k] / base[3 * i + k];
        }
        light.r()[i] = c[0] / base[3 * i];
        light.g()[i] = c[1] / base[3 * i + 1];
        light.b()[i] = c[2] / base[3 * i + 2];
        light.weigh(i);
        normalX[i] = f[3];
        normalY[i] = f[4];
        normalZ[i] = f[5];
        depth[i] = f[6];
        double v = front ? film.frontVariance(region.x() + x, region.y() + y) : film.variance(region.x() + x, region.y() + y);
        float scale = l > 0 ? b / l : 1, level = 1;
        if (gains != null && l > 0) {
            // The film's variance is that of light as it was deposited; faders change both.
            film.mean(region.x() + x, region.y() + y, null, c);
            float plain = c[0] + c[1] + c[2];
            if (plain > 0) level = l / plain;
            if (!front) scale *= level;
        }
        film.half(region.x() + x, region.y() + y, c);
        odd[i] = level * (0.2126f * c[0] + 0.7152f * c[1] + 0.0722f * c[2]);
        even[i] = Math.max(0, 2 * all - odd[i]);
        rawVariance[i] = Double.isFinite(v) ? (float) (front ? v : v * level * level) : Float.NaN;
        light.variance()[i] = Double.isFinite(v) ? (float) (v * scale * scale) : Float.NaN;
    }

    /** Scales down single pixels that are far brighter than everything around them. */
    private void limitStray() {
        float[] luminance = light.luminance();
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) {
                int i = y * w + x, n = 0;
                float sum = 0, most = 0;
                for (int dy = -2; dy <= 2; dy++)
                    for (int dx = -2; dx <= 2; dx++) {
                        int px = x + dx, py = y + dy;
                        if (dx == 0 && dy == 0 || px < 0 || py < 0 || px >= w || py >= h) continue;
                        float l = luminance[py * w + px];
                        sum += l;
                        most = Math.max(most, l);
                        n++;
                    }
                // The brightest neighbour is left out, so that two strays side by side do not vouch for each other.
                float mean = n > 1 ? (sum - most) / (n - 1) : sum, l = luminance[i], limit = STRAY * (1 + 16f / samples(x, y)) * mean;
                float k = l > limit && n > 8 ? limit / l : 1;
                light2.r()[i] = light.r()[i] * k;
                light2.g()[i] = light.g()[i] * k;
                light2.b()[i] = light.b()[i] * k;
                light2.weigh(i);
                light2.variance()[i] = light.variance()[i] * k * k;
                odd[i] *= k;
                even[i] *= k;
            }
        });
        swap();
    }

    private void swap() {
        WaveletLevel.Planes t = light;
        light = light2;
        light2 = t;
    }

    /** Few samples say little of their own variance: neighbours are asked too. Where there is none, the light's spread is. */
    private void smoothVariance() {
        float[] variance = light.variance(), luminance = light.luminance(), out = light2.variance(), kernel = WaveletLevel.KERNEL;
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) {
                float sum = 0, weight = 0, m1 = 0, m2 = 0;
                for (int dy = -2; dy <= 2; dy++)
                    for (int dx = -2; dx <= 2; dx++) {
                        int px = Math.clamp(x + dx, 0, w - 1), py = Math.clamp(y + dy, 0, h - 1), j = py * w + px;
                        float k = kernel[dx + 2] * kernel[dy + 2], l = luminance[j];
                        m1 += k * l;
                        m2 += k * l * l;
                        if (Float.isNaN(variance[j])) continue;
                        sum += k * variance[j];
                        weight += k;
                    }
                out[y * w + x] = weight > 0.5f ? sum / weight : Math.max(0, m2 - m1 * m1);
            }
        });
        System.arraycopy(out, 0, variance, 0, out.length);
    }

    private void levels() {
        WaveletLevel level = new WaveletLevel(w, h, normalX, normalY, normalZ, depth);
        for (int k = 0; k < LEVELS; k++) {
            int step = 1 << k;
            IntStream.range(0, h).parallel().forEach(y -> {
                if (!stop.getAsBoolean()) level.row(y, step, least, light, light2, step == 1 ? alone : null);
            });
            swap();
        }
    }

    /**
     * An edge pixel takes its light from the pixels around that it most resembles, mostly others of the same edge: they
     * mix the same two surfaces.
     */
    private void joinEdges() {
        System.arraycopy(light.r(), 0, light2.r(), 0, w * h);
        System.arraycopy(light.g(), 0, light2.g(), 0, w * h);
        System.arraycopy(light.b(), 0, light2.b(), 0, w * h);
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) if (alone[y * w + x]) join(x, y);
        });
        swap();
    }

    private void join(int x, int y) {
        int i = y * w + x;
        float r = 0, g = 0, b = 0, sum = 0, spread = SAME_BASE + 1f / samples(x, y);
        for (int dy = -JOIN; dy <= JOIN; dy++)
            for (int dx = -JOIN; dx <= JOIN; dx++) {
                int px = x + dx, py = y + dy;
                if (px < 0 || py < 0 || px >= w || py >= h) continue;
                int j = py * w + px;
                float d = (dx * dx + dy * dy) * 0.06f;
                for (int c = 0; c < 3; c++) d += Math.abs(base[3 * i + c] - base[3 * j + c]) / (3 * spread);
                d += 1.2f * (Math.abs(normalX[i] - normalX[j]) + Math.abs(normalY[i] - normalY[j]) + Math.abs(normalZ[i] - normalZ[j]));
                d += Math.min(2, 3 * Math.abs(depth[i] - depth[j]) / Math.max(1e-3f, Math.min(depth[i], depth[j])));
                if (d > 8) continue;
                // Its own light counts for little: a pixel without company is mostly noise.
                float k = (float) Math.exp(-d) * (j == i ? 0.4f : 1);
                r += k * light.r()[j];
                g += k * light.g()[j];
                b += k * light.b()[j];
                sum += k;
            }
        if (!(sum > 1e-6f)) return;
        light2.r()[i] = r / sum;
        light2.g()[i] = g / sum;
        light2.b()[i] = b / sum;
    }
}
