package bake.core.finish;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.Srgb;

/** Turns film into display values: exposure, white balance, tone curve, transfer curve. Immutable. */
public final class Finish {
    private static final int TABLE = 4096;

    private final double saturation;
    private final ToneCurve curve;
    private final WhiteBalance balance;

    /**
     * @param saturation luminance that saturates the camera, cd/m2
     */
    public Finish(double saturation, Look look) {
        this.saturation = saturation;
        curve = look.curve();
        balance = new WhiteBalance(look.whiteBalance());
    }

    /** Luminance that saturates the camera, cd/m2. */
    public double saturation() {
        return saturation;
    }

    /** Display light 0 to 1, before the transfer curve, of a luminance that is {@code l} of the saturating one. */
    double display(double l) {
        return curve.apply(l);
    }

    /** Derivative of {@link #display}. */
    double displaySlope(double l) {
        return curve.slope(l);
    }

    /** sRGB codes as 0xAARRGGBB, row by row; pixels with no sample are transparent. */
    public int[] argb(Film film, float[] gains) {
        int[] out = new int[film.width() * film.height()];
        argb(film, gains, 0, film.height(), out);
        return out;
    }

    /** Rows [from, to) of {@link #argb} into {@code out}. */
    public void argb(Film film, float[] gains, int from, int to, int[] out) {
        float[] table = table();
        float[] c = new float[3];
        for (int y = from; y < to; y++)
            for (int x = 0; x < film.width(); x++) {
                if (film.samples(x, y) == 0) {
                    out[y * film.width() + x] = 0;
                    continue;
                }
                film.mean(x, y, gains, c);
                balance.apply(c, 0);
                int r = code8(table, c[0]), g = code8(table, c[1]), b = code8(table, c[2]);
                out[y * film.width() + x] = 0xff000000 | r << 16 | g << 8 | b;
            }
    }

    /** sRGB codes of light such as a denoiser gives. */
    public int[] argb(float[] rgb) {
        float[] table = table();
        int[] out = new int[rgb.length / 3];
        float[] c = new float[3];
        for (int i = 0; i < out.length; i++) {
            System.arraycopy(rgb, 3 * i, c, 0, 3);
            balance.apply(c, 0);
            out[i] = 0xff000000 | code8(table, c[0]) << 16 | code8(table, c[1]) << 8 | code8(table, c[2]);
        }
        return out;
    }

    /** sRGB codes 0 to 65535 of such light. */
    public short[] rgb16(float[] rgb) {
        short[] out = new short[rgb.length];
        float[] c = new float[3];
        for (int i = 0; i < out.length; i += 3) {
            System.arraycopy(rgb, i, c, 0, 3);
            balance.apply(c, 0);
            for (int k = 0; k < 3; k++) out[i + k] = code16(c[k]);
        }
        return out;
    }

    private short code16(float v) {
        return (short) Math.clamp(Math.round(65535 * Srgb.encode(curve.apply(v / saturation))), 0, 65535);
    }

    private int code8(float[] table, float v) {
        return Math.clamp((int) (255 * lookup(table, v) + 0.5f), 0, 255);
    }

    /** sRGB codes 0 to 65535, three for each pixel of the region. */
    public short[] rgb16(Film film, float[] gains, Region r) {
        short[] out = new short[3 * r.width() * r.height()];
        float[] c = new float[3];
        int i = 0;
        for (int y = r.y(); y < r.y() + r.height(); y++)
            for (int x = r.x(); x < r.x() + r.width(); x++) {
                film.mean(x, y, gains, c);
                balance.apply(c, 0);
                for (float v : c) out[i++] = code16(v);
            }
        return out;
    }

    /** Encoded response over the logarithm of light: 24 stops, fine enough for 8 bit codes. */
    private float[] table() {
        float[] t = new float[TABLE + 1];
        for (int i = 0; i <= TABLE; i++) t[i] = (float) Srgb.encode(curve.apply(Math.pow(2, 24.0 * i / TABLE - 16)));
        return t;
    }

    private float lookup(float[] table, float v) {
        double x = v / saturation;
        if (!(x > 0x1p-16)) return (float) Srgb.encode(curve.apply(Math.max(0, x)));
        double f = (Math.log(x) / Math.log(2) + 16) * TABLE / 24;
        int i = Math.min((int) f, TABLE - 1);
        float k = (float) Math.min(1, f - i);
        return table[i] * (1 - k) + table[i + 1] * k;
    }

    /**
     * Noise of the picture: estimated relative standard error after the tone curve, root of the mean square over the
     * region, in percent. Infinite before the second pass.
     */
    public double noise(Film film, Region r) {
        double error = 0, signal = 0;
        float[] c = new float[3];
        long n = 0;
        for (int y = r.y(); y < r.y() + r.height(); y++)
            for (int x = r.x(); x < r.x() + r.width(); x++) {
                if (film.samples(x, y) < 2) continue;
                double e = error(film, x, y, c), d = curve.apply(luminance(film, x, y, c));
                error += e * e;
                signal += d * d;
                n++;
            }
        if (n == 0) return Double.POSITIVE_INFINITY;
        return signal > 0 ? 100 * Math.sqrt(error / signal) : 0;
    }

    private double luminance(Film film, int x, int y, float[] c) {
        film.mean(x, y, null, c);
        return (0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2]) / saturation;
    }

    /**
     * Estimated standard error of a pixel as it is displayed, before the transfer curve, 0 to 1.
     *
     * @param c room for three numbers
     */
    public double error(Film film, int x, int y, float[] c) {
        double l = luminance(film, x, y, c), d = curve.apply(l);
        // The curve bends within one standard error of bright noise; the display cannot move by more than itself.
        return Math.min(curve.slope(l) * Math.sqrt(film.variance(x, y)) / saturation, Math.max(d, 1 - d));
    }
}
