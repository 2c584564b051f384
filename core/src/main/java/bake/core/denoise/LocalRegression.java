package bake.core.denoise;

import static bake.core.denoise.HalvedStrip.PAD;
import static bake.core.denoise.HalvedStrip.ROWS;
import static bake.core.denoise.PatchWeights.LANES;
import static bake.core.denoise.PatchWeights.REACH;
import static bake.core.denoise.PatchWeights.SIDE;

import java.util.Arrays;
import java.util.function.BooleanSupplier;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorOperators;

/**
 * Fits light around each pixel as a first-order function of what the pixels show, and takes what the fit says of the pixel
 * itself (locally weighted regression; Cleveland and Devlin 1988, for rendered pictures Moon et al. 2014, eq. 4). Normal
 * equations are summed up for many pixels side by side.
 */
final class LocalRegression {
    /** Pixels of a tile across. */
    static final int WIDTH = 32;
    /** Unknowns: a constant and a slope for each feature; entries of half of their matrix; and sums in all, with three colours. */
    private static final int N = HalvedStrip.FEATURES + 1, MATRIX = N * (N + 1) / 2, SUMS = MATRIX + 3 * N;
    /** What keeps slopes flat that the pixels say nothing of, in weights; and the least of a pivot. */
    private static final float RIDGE = 1e-3f, PIVOT = 1e-9f, NOTHING = 1e-6f, FAR = 3;

    private final HalvedStrip strip;
    private final PatchWeights weights = new PatchWeights(WIDTH, ROWS);
    private final float[] sums = new float[SUMS * WIDTH], differences = new float[N * LANES.length()];
    private final float[] matrix = new float[N * N], right = new float[3 * N];
    /** Fits to one half and to the other, three for each pixel of the strip; and how much of each pixel's own light is in them. */
    private final float[] first, second, ownFirst, ownSecond;

    LocalRegression(HalvedStrip strip) {
        this.strip = strip;
        first = new float[3 * ROWS * strip.w];
        second = new float[3 * ROWS * strip.w];
        ownFirst = new float[ROWS * strip.w];
        ownSecond = new float[ROWS * strip.w];
    }

    /** Makes the rows from {@code y0} on. */
    void strip(int y0, HalvedPicture out, BooleanSupplier stop) {
        HalvedStrip s = strip;
        s.load(y0);
        int rows = Math.min(ROWS, s.h - y0);
        for (int x0 = 0; x0 < s.w; x0 += WIDTH) {
            if (stop.getAsBoolean()) return;
            tile(x0, y0, rows, s.oddLuminance, s.oddVariance, s.even, second, ownSecond);
            tile(x0, y0, rows, s.evenLuminance, s.evenVariance, s.odd, first, ownFirst);
        }
        for (int y = 0; y < rows; y++) {
            s.rendered(y0 + y, out);
            errors(y0 + y, y, out);
        }
        // Each half counts by its samples: of three, one and two.
        for (int i = 0; i < rows * s.w; i++)
            for (int c = 3 * i; c < 3 * i + 3; c++)
                out.clean[3 * y0 * s.w + c] = Math.max(0, second[c] + out.share[y0 * s.w + i] * (first[c] - second[c]));
    }

    /**
     * The squared error of the mean of both fits that is noise, by what they differ (Rousselle et al. 2012, section 4.3, for halves that
     * need not have as many samples: a mean of n has the squared difference of its halves times their shares); what is smeared is found
     * later. And how much of it is the noise of the pixel itself: a fit holds that by its diagonal of the hat matrix.
     */
    private void errors(int y, int row, HalvedPicture out) {
        HalvedStrip s = strip;
        int from = (HalvedStrip.PAD + row) * s.across + HalvedStrip.PAD;
        for (int x = 0; x < s.w; x++) {
            int i = row * s.w + x, o = y * s.w + x;
            float f = HalvedPicture.luminance(first, i), g = HalvedPicture.luminance(second, i),
                    apart = s.oddLuminance[from + x] - s.evenLuminance[from + x], share = s.share[from + x],
                    own = ownSecond[i] + share * (ownFirst[i] - ownSecond[i]), mean = share * (1 - share);
            out.error[o] = mean * (f - g) * (f - g);
            out.shared[o] = own * mean * apart * apart;
        }
    }

    /** @param judged luminance by which pixels are alike, and its variance; {@code light} of the other half, to which is fitted */
    private void tile(int x0, int y0, int rows, float[] judged, float[] variance, float[][] light, float[] out, float[] own) {
        HalvedStrip s = strip;
        weights.weigh(judged, variance, s.across, PAD * s.across + PAD + x0);
        if (x0 < REACH || x0 + WIDTH + REACH > s.w) outside(x0);
        for (int y = 0; y < rows; y++) {
            Arrays.fill(sums, 0);
            int p = (PAD + y) * s.across + PAD + x0;
            for (int dy = Math.max(-REACH, -y0 - y); dy <= Math.min(REACH, s.h - 1 - y0 - y); dy++)
                for (int dx = -REACH; dx <= REACH; dx++)
                    gather(p, p + dy * s.across + dx, weights.weights[(dy + REACH) * SIDE + dx + REACH], y * WIDTH, light);
            for (int x = 0; x < WIDTH && x0 + x < s.w; x++) {
                own[y * s.w + x0 + x] = solve(x, out, 3 * (y * s.w + x0 + x), weights.weights[REACH * SIDE + REACH][y * WIDTH + x]);
            }
        }
    }

    /** Beside the picture there is nothing. */
    private void outside(int x0) {
        for (int dx = -REACH; dx <= REACH; dx++)
            for (int x = 0; x < WIDTH; x++) {
                if (x0 + x + dx >= 0 && x0 + x + dx < strip.w) continue;
                for (int dy = 0; dy < SIDE; dy++)
                    for (int y = 0; y < ROWS; y++) weights.weights[dy * SIDE + dx + REACH][y * WIDTH + x] = 0;
            }
    }

    /** Adds the pixels from {@code q} on to the sums of those from {@code p} on. */
    private void gather(int p, int q, float[] weight, int at, float[][] light) {
        float[] a = sums, d = differences, red = light[0], green = light[1], blue = light[2];
        float[][] features = strip.features;
        int lanes = LANES.length();
        for (int x = 0; x < WIDTH; x += lanes) {
            FloatVector w = PatchWeights.of(weight, at + x);
            if (!w.compare(VectorOperators.GT, 0).anyTrue()) continue;
            FloatVector r = PatchWeights.of(red, q + x), g = PatchWeights.of(green, q + x), b = PatchWeights.of(blue, q + x);
            add(a, x, w);
            add(a, MATRIX * WIDTH + x, w.mul(r));
            add(a, (MATRIX + N) * WIDTH + x, w.mul(g));
            add(a, (MATRIX + 2 * N) * WIDTH + x, w.mul(b));
            for (int k = 1, m = WIDTH + x; k < N; k++) {
                float[] f = features[k - 1];
                FloatVector e = PatchWeights.of(f, q + x).sub(PatchWeights.of(f, p + x)), t = w.mul(e);
                e.intoArray(d, k * lanes);
                add(a, m, t);
                m += WIDTH;
                for (int j = 1; j <= k; j++, m += WIDTH) add(a, m, t.mul(PatchWeights.of(d, j * lanes)));
                add(a, (MATRIX + k) * WIDTH + x, t.mul(r));
                add(a, (MATRIX + N + k) * WIDTH + x, t.mul(g));
                add(a, (MATRIX + 2 * N + k) * WIDTH + x, t.mul(b));
            }
        }
    }

    private static void add(float[] a, int i, FloatVector v) {
        PatchWeights.of(a, i).add(v).intoArray(a, i);
    }

    /**
     * Solves the normal equations of a pixel by Cholesky's factors; the constants are its light, since features count from it on.
     *
     * @param weight of the pixel itself
     * @return how much of its own light is in the fit
     */
    private float solve(int x, float[] out, int at, float weight) {
        for (int k = 0, m = x; k < N; k++) for (int j = 0; j <= k; j++, m += WIDTH) matrix[k * N + j] = sums[m];
        float all = matrix[0];
        if (!(all > NOTHING)) {
            for (int c = 0; c < 3; c++) out[at + c] = all > 0 ? sums[(MATRIX + c * N) * WIDTH + x] / all : 0;
            return 1;
        }
        for (int k = 1; k < N; k++) matrix[k * N + k] += RIDGE * all;
        for (int k = 0; k < N; k++)
            for (int j = 0; j <= k; j++) {
                float v = matrix[k * N + j];
                for (int i = 0; i < j; i++) v -= matrix[k * N + i] * matrix[j * N + i];
                // The diagonal holds what its rows are divided by.
                matrix[k * N + j] = j == k ? 1 / (float) Math.sqrt(Math.max(PIVOT * all, v)) : v * matrix[j * N + j];
            }
        for (int c = 0; c < 3; c++) {
            float even = sums[(MATRIX + c * N) * WIDTH + x] / all;
            // What lies far from all that it is fitted to is a fit gone astray; filters with negative parts may leave less than nothing.
            out[at + c] = even > 0 ? Math.clamp(constant(c, x), even / FAR, even * FAR) : 0;
        }
        return Math.min(1, weight * inverse());
    }

    /** The first entry of the matrix' inverse. */
    private float inverse() {
        float sum = 0;
        for (int k = 0; k < N; k++) {
            float v = k == 0 ? 1 : 0;
            for (int i = 0; i < k; i++) v -= matrix[k * N + i] * right[i];
            right[k] = v * matrix[k * N + k];
            sum += right[k] * right[k];
        }
        return sum;
    }

    private float constant(int colour, int x) {
        int o = colour * N;
        for (int k = 0; k < N; k++) {
            float v = sums[(MATRIX + o + k) * WIDTH + x];
            for (int i = 0; i < k; i++) v -= matrix[k * N + i] * right[o + i];
            right[o + k] = v * matrix[k * N + k];
        }
        for (int k = N - 1; k >= 0; k--) {
            float v = right[o + k];
            for (int i = k + 1; i < N; i++) v -= matrix[i * N + k] * right[o + i];
            right[o + k] = v * matrix[k * N + k];
        }
        return right[o];
    }
}
