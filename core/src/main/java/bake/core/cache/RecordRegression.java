package bake.core.cache;

import bake.core.math.Frame;
import java.util.Arrays;

/**
 * Smooths the records of an irradiance cache: each takes the value at its place of a plane that is fitted to those around it on the same
 * surface (local linear regression: Cleveland 1979; Fan and Gijbels 1996, section 3.1). How far around is chosen for each by itself: the
 * farthest whose fit still agrees with all nearer ones within what chance may make of them (intersection of confidence intervals:
 * Goldenshluger and Nemirovski 1997, "On Spatially Adaptive Estimation of Nonparametric Regression"). A record of few rays scatters by a
 * tenth and more, which is seen as a cloud as wide as the record, while what really comes to a surface changes little from one to the next.
 * Records are fitted to those that they see, so that none passes a wall.
 */
public final class RecordRegression {
    /** How far around records are fitted to, in radii of the record, least first. */
    private static final float[] WIDTHS = {1.2f, 1.8f, 2.7f};
    /** Standard deviations within which fits agree. */
    private static final float AGREE = 1;
    /** What keeps a fit to records along a line from tilting across it. */
    private static final float LEVEL = 0.02f;
    /** Records that tell of a slope. */
    private static final int SLOPED = 5;

    private final IrradianceCache records, around;
    private final int from;
    private int[] whole = new int[64];
    private int count;
    private final float[] fitted;

    /** @param from the first record that is smoothed; those before only say what is around */
    public RecordRegression(IrradianceCache records, int from) {
        this.records = records;
        this.from = from;
        around = new IrradianceCache(0);
        RecordSamples wide = new RecordSamples(0);
        float[] h = records.heads(), none = new float[6];
        for (int i = 0, o = 0; i < records.records(); i++, o += IrradianceCache.HEAD) {
            if (h[o + IrradianceCache.KIND] != IrradianceCache.WHOLE) continue;
            wide.add(h[o], h[o + 1], h[o + 2], h[o + IrradianceCache.NORMAL], h[o + IrradianceCache.NORMAL + 1],
                    h[o + IrradianceCache.NORMAL + 2], WIDTHS[WIDTHS.length - 1] * h[o + IrradianceCache.RADIUS], none, new float[0]);
            if (count == whole.length) whole = Arrays.copyOf(whole, 2 * count);
            whole[count++] = i;
        }
        around.append(wide);
        fitted = new float[Math.multiplyExact(records.records() - from, records.channels())];
    }

    /** Records that are smoothed. */
    public int count() {
        return records.records() - from;
    }

    /** What a thread needs. */
    public final class Fitter implements IrradianceCache.Found {
        private final Sight sight;
        private final Frame across = new Frame();
        private int[] near = new int[64];
        private float[] s = new float[64], t = new float[64], far = new float[64], facing = new float[64], hat = new float[64],
                best = new float[64];
        private int n, at;

        public Fitter(Sight sight) {
            this.sight = sight;
        }

        @Override
        public void record(int number, float weight) {
            float[] h = records.heads();
            int j = whole[number], o = at * IrradianceCache.HEAD, q = j * IrradianceCache.HEAD;
            float dx = h[q] - h[o], dy = h[q + 1] - h[o + 1], dz = h[q + 2] - h[o + 2],
                    d = (float) Math.sqrt(dx * dx + dy * dy + dz * dz), r = h[o + IrradianceCache.RADIUS];
            if (d >= WIDTHS[WIDTHS.length - 1] * r) return;
            float nx = h[o + IrradianceCache.NORMAL], ny = h[o + IrradianceCache.NORMAL + 1], nz = h[o + IrradianceCache.NORMAL + 2];
            // Within their radii records are interpolated, so nothing stands there.
            if (d > Math.min(r, h[q + IrradianceCache.RADIUS])
                    && !sight.clear(h[o], h[o + 1], h[o + 2], nx, ny, nz, h[q], h[q + 1], h[q + 2])) return;
            if (n == near.length) {
                int m = 2 * n;
                near = Arrays.copyOf(near, m);
                s = Arrays.copyOf(s, m);
                t = Arrays.copyOf(t, m);
                far = Arrays.copyOf(far, m);
                facing = Arrays.copyOf(facing, m);
                hat = new float[m];
                best = Arrays.copyOf(best, m);
            }
            near[n] = j;
            far[n] = d / r;
            s[n] = (dx * across.tx + dy * across.ty + dz * across.tz) / r;
            t[n] = (dx * across.bx + dy * across.by + dz * across.bz) / r;
            facing[n++] = nx * h[q + IrradianceCache.NORMAL] + ny * h[q + IrradianceCache.NORMAL + 1]
                    + nz * h[q + IrradianceCache.NORMAL + 2];
        }

        /** Fits some of the records. */
        public void fit(int first, int last) {
            for (int i = first; i < last; i++) fit(i);
        }

        private void fit(int number) {
            at = from + number;
            int channels = records.channels(), o = at * IrradianceCache.HEAD;
            float[] h = records.heads();
            for (int c = 0; c < channels; c++) fitted[number * channels + c] = records.light(at, c);
            if (h[o + IrradianceCache.KIND] != IrradianceCache.WHOLE) return;
            n = 0;
            across.around(h[o + IrradianceCache.NORMAL], h[o + IrradianceCache.NORMAL + 1], h[o + IrradianceCache.NORMAL + 2]);
            around.each(h[o], h[o + 1], h[o + 2], h[o + IrradianceCache.NORMAL], h[o + IrradianceCache.NORMAL + 1],
                    h[o + IrradianceCache.NORMAL + 2], this);
            float scatter = 0;
            int known = 0;
            for (int k = 0; k < n; k++) if (records.scatter(near[k]) > 0) {
                scatter += records.scatter(near[k]);
                known++;
            }
            if (n < 2 || known == 0) return;
            scatter /= known;
            float low = 0, high = Float.POSITIVE_INFINITY;
            boolean any = false;
            for (float w : WIDTHS) {
                if (!plane(w)) continue;
                float mean = 0, v = 0;
                for (int k = 0; k < n; k++) {
                    mean += hat[k] * records.luminance(near[k]);
                    v += hat[k] * hat[k];
                }
                float off = AGREE * (float) Math.sqrt(v * scatter);
                low = Math.max(low, mean - off);
                high = Math.min(high, mean + off);
                if (any && low > high) break;
                any = true;
                System.arraycopy(hat, 0, best, 0, n);
            }
            if (!any) return;
            for (int c = 0; c < channels; c++) {
                float sum = 0, most = 0;
                for (int k = 0; k < n; k++) {
                    if (best[k] == 0) continue;
                    float l = records.light(near[k], c);
                    sum += best[k] * l;
                    most = Math.max(most, l);
                }
                fitted[number * channels + c] = Math.clamp(sum, 0, most);
            }
        }

        /** What each record counts for the value of the plane at the place itself. */
        private boolean plane(float wide) {
            double w = 0, ws = 0, wt = 0, wss = 0, wst = 0, wtt = 0;
            int used = 0;
            for (int k = 0; k < n; k++) {
                float d = far[k] / wide, f = 1 - d * d;
                hat[k] = d < 1 ? f * f * Math.max(0, 1 - (1 - facing[k]) / IrradianceCache.TURN) : 0;
                if (!(hat[k] > 0)) continue;
                used++;
                double x = s[k] / wide, y = t[k] / wide;
                w += hat[k];
                ws += hat[k] * x;
                wt += hat[k] * y;
                wss += hat[k] * x * x;
                wst += hat[k] * x * y;
                wtt += hat[k] * y * y;
            }
            if (used < 2) return false;
            double a = 1 / w, b = 0, c = 0;
            wss += LEVEL * w;
            wtt += LEVEL * w;
            if (used >= SLOPED) {
                // First row of the inverse of the normal equations, by cofactors.
                double aa = wss * wtt - wst * wst, bb = wst * wt - ws * wtt, cc = ws * wst - wss * wt, det = w * aa + ws * bb + wt * cc;
                if (det > 1e-6 * w * w * w) {
                    a = aa / det;
                    b = bb / det;
                    c = cc / det;
                }
            }
            for (int k = 0; k < n; k++) hat[k] *= a + b * s[k] / wide + c * t[k] / wide;
            return true;
        }
    }

    /** Puts what was fitted into the records. */
    public void apply() {
        for (int i = 0; i < records.records() - from; i++) records.relight(from + i, fitted, i * records.channels());
    }
}
