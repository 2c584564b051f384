package bake.core.finish;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * Takes noise out of a picture with an edge-avoiding wavelet transform (Dammertz et al. 2010) whose reach in light is
 * set by the estimated variance (Schied et al. 2017, section 4.2), on light from which the base colour has been divided
 * out, so that textures stay sharp. What it does is an estimate: fine shadows and reflections may soften. Scene-referred
 * files are never denoised.
 */
public final class Denoiser {
    private static final int LEVELS = 5;
    private static final float[] KERNEL = {1 / 16f, 1 / 4f, 3 / 8f, 1 / 4f, 1 / 16f};
    /** Greatest light of a pixel, in means of its neighbourhood, before it counts as stray; more while samples are few. */
    private static final float STRAY = 5;
    /** How far an edge pixel looks for company, and how alike their base colours should be. */
    private static final int JOIN = 4;
    private static final float SAME_BASE = 0.08f;

    private final Region region;
    private final int w, h, samples;
    private float least = 1e-6f;
    private float[] light, variance, light2, variance2;
    private final float[] base, normal, depth;
    /** Pixels that found nobody alike: edges where two surfaces share a pixel, thin bars, leaves. */
    private final boolean[] alone;

    private final BooleanSupplier stop;
    /** Whether only what lies before the backdrop is asked for. */
    private final boolean front;

    private Denoiser(Film film, float[] gains, boolean front, Region r, BooleanSupplier stop) {
        this.stop = stop;
        this.front = front;
        region = r;
        samples = Math.max(1, film.samples(r.x() + r.width() / 2, r.y() + r.height() / 2));
        w = r.width();
        h = r.height();
        light = new float[3 * w * h];
        light2 = new float[3 * w * h];
        variance = new float[w * h];
        variance2 = new float[w * h];
        base = new float[3 * w * h];
        normal = new float[3 * w * h];
        depth = new float[w * h];
        alone = new boolean[w * h];
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
        Denoiser d = new Denoiser(film, null, false, r, () -> false);
        for (int y = 0; y < d.h; y++)
            for (int x = 0; x < d.w; x++) {
                int i = y * d.w + x;
                java.util.Arrays.fill(d.light, 3 * i, 3 * i + 3, film.cover(r.x() + x, r.y() + y));
                java.util.Arrays.fill(d.base, 3 * i, 3 * i + 3, 1);
                d.variance[i] = film.coverVariance(r.x() + x, r.y() + y);
            }
        d.smoothVariance();
        for (int i = 0; i < LEVELS; i++) d.level(1 << i);
        return d.light;
    }

    /** The same; null when it was stopped, which is asked often. */
    public static float[] run(Film film, float[] gains, Region r, BooleanSupplier stop) {
        if (!film.hasFeatures()) throw new IllegalArgumentException("this picture is too large to denoise");
        return run(new Denoiser(film, gains, false, r, stop));
    }

    /** The same of what lies before the backdrop, of a film that keeps that apart. */
    public static float[] front(Film film, Region r) {
        return run(new Denoiser(film, film.front(), true, r, () -> false));
    }

    /** Light below which differences do not count, so that moonlit rooms are treated as sunny ones are. */
    private void judgeLevel() {
        double sum = 0;
        for (float v : light) if (v < Float.POSITIVE_INFINITY) sum += v;
        least = (float) Math.max(Float.MIN_NORMAL, 1e-6 * sum / light.length);
    }

    private static float[] run(Denoiser d) {
        d.judgeLevel();
        d.limitStray();
        d.smoothVariance();
        for (int i = 0; i < LEVELS; i++) d.level(1 << i);
        d.joinEdges();
        for (int i = 0; i < d.light.length; i++) d.light[i] *= d.base[i];
        return d.stop.getAsBoolean() ? null : d.light;
    }

    private void load(Film film, float[] gains, int x, int y, float[] c, float[] f) {
        int i = y * w + x;
        film.mean(region.x() + x, region.y() + y, gains, c);
        film.features(region.x() + x, region.y() + y, f);
        float l = 0, b = 0;
        for (int k = 0; k < 3; k++) {
            float a = Math.max(0.02f, f[k]);
            base[3 * i + k] = a;
            light[3 * i + k] = c[k] / a;
            normal[3 * i + k] = f[3 + k];
            l += c[k];
            b += c[k] / a;
        }
        depth[i] = f[6];
        double v = front ? film.frontVariance(region.x() + x, region.y() + y) : film.variance(region.x() + x, region.y() + y);
        float scale = l > 0 ? b / l : 1;
        if (gains != null && !front && l > 0) {
            // The film's variance is that of light as it was deposited; faders change both.
            film.mean(region.x() + x, region.y() + y, null, c);
            float plain = c[0] + c[1] + c[2];
            if (plain > 0) scale *= l / plain;
        }
        variance[i] = Double.isFinite(v) ? (float) (v * scale * scale) : Float.NaN;
    }

    private float luminance(float[] a, int i) {
        return 0.2126f * a[3 * i] + 0.7152f * a[3 * i + 1] + 0.0722f * a[3 * i + 2];
    }

    /** Scales down single pixels that are far brighter than everything around them. */
    private void limitStray() {
        float[] out = light2;
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) {
                int i = y * w + x, n = 0;
                float sum = 0, most = 0;
                for (int dy = -2; dy <= 2; dy++)
                    for (int dx = -2; dx <= 2; dx++) {
                        int px = x + dx, py = y + dy;
                        if (dx == 0 && dy == 0 || px < 0 || py < 0 || px >= w || py >= h) continue;
                        float l = luminance(light, py * w + px);
                        sum += l;
                        most = Math.max(most, l);
                        n++;
                    }
                // The brightest neighbour is left out, so that two strays side by side do not vouch for each other.
                float mean = n > 1 ? (sum - most) / (n - 1) : sum, l = luminance(light, i), limit = STRAY * (1 + 16f / samples) * mean;
                float k = l > limit && n > 8 ? limit / l : 1;
                for (int c = 0; c < 3; c++) out[3 * i + c] = light[3 * i + c] * k;
                variance2[i] = variance[i] * k * k;
            }
        });
        swap();
    }

    private void swap() {
        float[] t = light;
        light = light2;
        light2 = t;
        t = variance;
        variance = variance2;
        variance2 = t;
    }

    /** Few samples say little of their own variance: neighbours are asked too. Where there is none, the light's spread is. */
    private void smoothVariance() {
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) {
                float sum = 0, weight = 0, m1 = 0, m2 = 0;
                for (int dy = -2; dy <= 2; dy++)
                    for (int dx = -2; dx <= 2; dx++) {
                        int px = Math.clamp(x + dx, 0, w - 1), py = Math.clamp(y + dy, 0, h - 1), j = py * w + px;
                        float k = KERNEL[dx + 2] * KERNEL[dy + 2], l = luminance(light, j);
                        m1 += k * l;
                        m2 += k * l * l;
                        if (Float.isNaN(variance[j])) continue;
                        sum += k * variance[j];
                        weight += k;
                    }
                variance2[y * w + x] = weight > 0.5f ? sum / weight : Math.max(0, m2 - m1 * m1);
            }
        });
        float[] t = variance;
        variance = variance2;
        variance2 = t;
    }

    private void level(int step) {
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) pixel(x, y, step);
        });
        swap();
    }

    private void pixel(int x, int y, int step) {
        int i = y * w + x;
        float lc = luminance(light, i), reach = 1 / (3.5f * (float) Math.sqrt(Math.max(0, variance[i])) + 0.01f * lc + least);
        float nx = normal[3 * i], ny = normal[3 * i + 1], nz = normal[3 * i + 2], z = depth[i];
        float slope = slope(x, y), r = 0, g = 0, b = 0, v = 0, sum = 0;
        for (int dy = -2; dy <= 2; dy++) {
            int py = y + dy * step;
            if (py < 0 || py >= h) continue;
            for (int dx = -2; dx <= 2; dx++) {
                int px = x + dx * step;
                if (px < 0 || px >= w) continue;
                int j = py * w + px;
                float cos = nx * normal[3 * j] + ny * normal[3 * j + 1] + nz * normal[3 * j + 2];
                if (cos < 0.7f) continue;
                float wn = cos * cos;
                wn *= wn;
                wn *= wn;
                wn *= wn;
                float dz = Math.abs(z - depth[j]) / (slope * step * (Math.abs(dx) + Math.abs(dy)) + 0.004f * z + 1e-4f);
                float dl = Math.abs(lc - luminance(light, j)) * reach, q = dz + dl;
                if (q > 8) continue;
                float k = KERNEL[dx + 2] * KERNEL[dy + 2] * wn * (float) Math.exp(-q);
                r += k * light[3 * j];
                g += k * light[3 * j + 1];
                b += k * light[3 * j + 2];
                v += k * k * variance[j];
                sum += k;
            }
        }
        if (step == 1) alone[i] = sum - KERNEL[2] * KERNEL[2] < 0.12f;
        float inv = sum > 1e-12f ? 1 / sum : 0;
        light2[3 * i] = sum > 1e-12f ? r * inv : light[3 * i];
        light2[3 * i + 1] = sum > 1e-12f ? g * inv : light[3 * i + 1];
        light2[3 * i + 2] = sum > 1e-12f ? b * inv : light[3 * i + 2];
        variance2[i] = v * inv * inv;
    }

    /**
     * An edge pixel takes its light from the pixels around that it most resembles, mostly others of the same edge: they
     * mix the same two surfaces.
     */
    private void joinEdges() {
        System.arraycopy(light, 0, light2, 0, light.length);
        IntStream.range(0, h).parallel().forEach(y -> {
            if (stop.getAsBoolean()) return;
            for (int x = 0; x < w; x++) if (alone[y * w + x]) join(x, y);
        });
        float[] t = light;
        light = light2;
        light2 = t;
    }

    private void join(int x, int y) {
        int i = y * w + x;
        float r = 0, g = 0, b = 0, sum = 0, spread = SAME_BASE + 1f / samples;
        for (int dy = -JOIN; dy <= JOIN; dy++)
            for (int dx = -JOIN; dx <= JOIN; dx++) {
                int px = x + dx, py = y + dy;
                if (px < 0 || py < 0 || px >= w || py >= h) continue;
                int j = py * w + px;
                float d = (dx * dx + dy * dy) * 0.06f;
                for (int c = 0; c < 3; c++) d += Math.abs(base[3 * i + c] - base[3 * j + c]) / (3 * spread) + 1.2f
                        * Math.abs(normal[3 * i + c] - normal[3 * j + c]);
                d += Math.min(2, 3 * Math.abs(depth[i] - depth[j]) / Math.max(1e-3f, Math.min(depth[i], depth[j])));
                if (d > 8) continue;
                // Its own light counts for little: a pixel without company is mostly noise.
                float k = (float) Math.exp(-d) * (j == i ? 0.4f : 1);
                r += k * light[3 * j];
                g += k * light[3 * j + 1];
                b += k * light[3 * j + 2];
                sum += k;
            }
        if (!(sum > 1e-6f)) return;
        light2[3 * i] = r / sum;
        light2[3 * i + 1] = g / sum;
        light2[3 * i + 2] = b / sum;
    }

    /** How fast the distance changes from pixel to pixel here: a floor seen flat is still one floor. */
    private float slope(int x, int y) {
        int i = y * w + x;
        float a = x + 1 < w ? Math.abs(depth[i + 1] - depth[i]) : Float.MAX_VALUE,
                b = x > 0 ? Math.abs(depth[i] - depth[i - 1]) : Float.MAX_VALUE;
        float c = y + 1 < h ? Math.abs(depth[i + w] - depth[i]) : Float.MAX_VALUE,
                d = y > 0 ? Math.abs(depth[i] - depth[i - w]) : Float.MAX_VALUE;
        float across = Math.min(a, b), down = Math.min(c, d);
        return Math.max(across == Float.MAX_VALUE ? 0 : across, down == Float.MAX_VALUE ? 0 : down);
    }
}
