package bake.core.denoise;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.Arrays;

/**
 * Some rows of a picture with those around them, as planes: the light of both halves of the samples, its variance, and
 * what the pixels show.
 * Beyond the picture its edge goes on.
 */
final class HalvedStrip {
    /** Rows that a strip makes, and pixels around them that are asked. */
    static final int ROWS = 16, AROUND = PatchWeights.REACH + PatchWeights.PATCH, PAD = AROUND + 2;
    /** Base colour, normal, inverse depth and place. */
    static final int FEATURES = 9;
    /** Scales that make a difference that matters about as large for each of them. */
    private static final float BASE = 3, NORMAL = 0.5f, PLACE = 0.02f, NEAR = 0.3f;
    /**
     * Greatest light of a half, in medians of its neighbourhood, and in what its second brightest neighbour and its other half have, before
     * it counts as stray; more while samples are few; and in means before it is looked at.
     */
    private static final float STRAY = 2, FEW = 12, SECOND = 1.2f, SUSPECT = 1.5f;

    private final Film film;
    private final float[] gains;
    private final boolean front;
    private final Region r;
    private final Highlights highlights;
    /** Size of the picture, and of the planes. */
    final int w, h, across, down;
    /** Light by colour and half. */
    final float[][] odd = new float[3][], even = new float[3][];
    /** Luminance of both, and its variance. */
    final float[] oddLuminance, evenLuminance, oddVariance, evenVariance;
    final float[][] features = new float[FEATURES][];
    /** As it was rendered: the luminance, and its variance. */
    private final float[] luminance, own;
    /** Share of the first half in a pixel's samples: a third of three. */
    final float[] share;
    private final float[] mean = new float[3], half = new float[3], plain = new float[3], seen = new float[7], around = new float[24];
    private int top;

    /** @param gains as in {@link Film#mean}; {@code front} whether they leave out the backdrop */
    HalvedStrip(Film film, float[] gains, boolean front, Region r, Highlights highlights) {
        this.film = film;
        this.gains = gains;
        this.front = front;
        this.r = r;
        this.highlights = highlights;
        w = r.width();
        h = r.height();
        across = (w + LocalRegression.WIDTH - 1) / LocalRegression.WIDTH * LocalRegression.WIDTH + 2 * PAD;
        down = ROWS + 2 * PAD;
        int n = across * down;
        for (int c = 0; c < 3; c++) {
            odd[c] = new float[n];
            even[c] = new float[n];
        }
        for (int k = 0; k < FEATURES; k++) features[k] = new float[n];
        oddLuminance = new float[n];
        evenLuminance = new float[n];
        oddVariance = new float[n];
        evenVariance = new float[n];
        luminance = new float[n];
        own = new float[n];
        share = new float[n];
    }

    /** Takes the rows from {@code y0} on from the film. */
    void load(int y0) {
        top = y0;
        for (int py = 0; py < down; py++)
            for (int px = 0; px < across; px++) pixel(px, py);
        for (int py = 0; py < down; py++)
            for (int px = 0; px < across; px++) limit(px, py);
        for (int py = 0; py < down; py++)
            for (int px = 0; px < across; px++) smooth(px, py);
    }

    private int x(int px) {
        return Math.clamp(px - PAD, 0, w - 1);
    }

    private int y(int py) {
        return Math.clamp(top + py - PAD, 0, h - 1);
    }

    private void pixel(int px, int py) {
        int i = py * across + px, fx = r.x() + x(px), fy = r.y() + y(py), n = film.samples(fx, fy), odds = n / 2;
        film.mean(fx, fy, gains, mean);
        film.half(fx, fy, half);
        film.features(fx, fy, seen);
        // One path gone astray must not take the pixels around with it.
        if (!usual(mean) || !usual(half)) {
            Arrays.fill(mean, 0);
            Arrays.fill(half, 0);
        }
        float scale = 1;
        if (gains != null) {
            // The film's half is of light as it was deposited; what is shown of it is taken to be the same share in both.
            film.mean(fx, fy, null, plain);
            scale = plain[0] + plain[1] + plain[2] > 0 ? (mean[0] + mean[1] + mean[2]) / (plain[0] + plain[1] + plain[2]) : 1;
            for (int c = 0; c < 3; c++) half[c] *= plain[c] > 0 ? mean[c] / plain[c] : 1;
        }
        for (int c = 0; c < 3; c++) {
            odd[c][i] = half[c];
            even[c][i] = n < 2 ? mean[c] : Math.max(0, (mean[c] * n - half[c] * odds) / (n - odds));
            features[c][i] = BASE * seen[c];
            features[3 + c][i] = NORMAL * seen[3 + c];
        }
        features[6][i] = 1 / (NEAR + seen[6]);
        features[7][i] = PLACE * (px - PAD);
        features[8][i] = PLACE * (top + py - PAD);
        share[i] = n < 2 ? 0.5f : odds / (float) n;
        oddLuminance[i] = compress(odd, i);
        evenLuminance[i] = compress(even, i);
        float l = 0.2126f * mean[0] + 0.7152f * mean[1] + 0.0722f * mean[2], slope = highlights.slope(l);
        luminance[i] = l * highlights.compress(l);
        double v = front ? film.frontVariance(fx, fy) : film.variance(fx, fy);
        own[i] = Double.isFinite(v) ? (float) (v * slope * slope * (front ? 1 : scale * scale)) : luminance[i] * luminance[i];
    }

    private static boolean usual(float[] c) {
        return Float.isFinite(c[0]) && Float.isFinite(c[1]) && Float.isFinite(c[2]);
    }

    private float compress(float[][] light, int i) {
        float l = luminance(light, i), k = highlights.compress(l);
        for (float[] plane : light) plane[i] *= k;
        return l * k;
    }

    private static float luminance(float[][] light, int i) {
        return 0.2126f * light[0][i] + 0.7152f * light[1][i] + 0.0722f * light[2][i];
    }

    /** Scales down halves that are far brighter than everything around them and than the other half. */
    private void limit(int px, int py) {
        int i = py * across + px, n = 0;
        float sum = 0;
        for (int dy = -2; dy <= 2; dy++)
            for (int dx = -2; dx <= 2; dx++) {
                if ((dx | dy) == 0) continue;
                float l = luminance[Math.clamp(py + dy, 0, down - 1) * across + Math.clamp(px + dx, 0, across - 1)];
                around[n++] = l;
                sum += l;
            }
        if (Math.max(oddLuminance[i], evenLuminance[i]) * n <= SUSPECT * sum) return;
        Arrays.sort(around);
        float o = oddLuminance[i], e = evenLuminance[i], samples = Math.max(1, film.samples(r.x() + x(px), r.y() + y(py)));
        float most = Math.max(STRAY * (1 + FEW / samples) * around[n / 2], SECOND * around[n - 2]);
        // What both halves have found is there.
        limit(odd, oddLuminance, i, Math.max(most, SECOND * e));
        limit(even, evenLuminance, i, Math.max(most, SECOND * o));
    }

    private static void limit(float[][] light, float[] luminance, int i, float most) {
        if (luminance[i] <= most) return;
        for (float[] plane : light) plane[i] *= most / luminance[i];
        luminance[i] = most;
    }

    /** Few samples say little of their own variance: neighbours are asked too. A half has about twice that of the whole. */
    private void smooth(int px, int py) {
        float sum = 0, weight = 0;
        for (int dy = -1; dy <= 1; dy++)
            for (int dx = -1; dx <= 1; dx++) {
                float k = (2 - Math.abs(dx)) * (2 - Math.abs(dy));
                sum += k * own[Math.clamp(py + dy, 0, down - 1) * across + Math.clamp(px + dx, 0, across - 1)];
                weight += k;
            }
        int i = py * across + px;
        oddVariance[i] = sum / weight / share[i];
        evenVariance[i] = sum / weight / (1 - share[i]);
    }

    /** Hands out the light of a row as it was rendered, stray pixels limited, and what is known of its halves. */
    void rendered(int y, HalvedPicture out) {
        int from = (y - top + PAD) * across + PAD;
        for (int x = 0; x < w; x++)
            for (int c = 0; c < 3; c++)
                out.raw[3 * (y * w + x) + c] = even[c][from + x] + share[from + x] * (odd[c][from + x] - even[c][from + x]);
        System.arraycopy(oddLuminance, from, out.odd, y * w, w);
        System.arraycopy(evenLuminance, from, out.even, y * w, w);
        System.arraycopy(own, from, out.variance, y * w, w);
        System.arraycopy(share, from, out.share, y * w, w);
    }
}
