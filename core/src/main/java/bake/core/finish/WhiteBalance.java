package bake.core.finish;

import bake.core.math.Blackbody;
import bake.core.math.Vec3;

/**
 * Adapts colours so that the light of a Planckian radiator looks as white as the display's white: scaling of cone
 * responses (von Kries) with the Bradford matrix (Lam 1985, as given by Lindbloom; matrix from memory).
 */
final class WhiteBalance {
    static final double[] TO_CONE = {0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296};
    /** Linear Rec. 709 to CIE XYZ (IEC 61966-2-1). */
    private static final double[] TO_XYZ = {0.4124564, 0.3575761, 0.1804375, 0.2126729, 0.7151522, 0.0721750, 0.0193339, 0.1191920,
            0.9503041};

    private final boolean neutral;
    private final float[] m = new float[9];

    /** Of v in CIE 1960 u, v that a whole unit of tint is: more green than any old tube. */
    private static final double TINT = 0.05;

    WhiteBalance(double kelvin) {
        this(kelvin, 0);
    }

    /** @param tint how far the light lies off the black bodies, towards green above 0 */
    WhiteBalance(double kelvin, double tint) {
        double k = Math.clamp(kelvin, 1500, 25_000);
        neutral = Math.abs(k - Look.NEUTRAL) < 1 && tint == 0;
        double[] from = cones(tinted(Blackbody.chromaticity(k), tint)), to = cones(Blackbody.chromaticity(Look.NEUTRAL));
        double[] toCone = times(TO_CONE, TO_XYZ), back = inverse(toCone), scaled = toCone.clone();
        for (int r = 0; r < 3; r++) for (int c = 0; c < 3; c++) scaled[3 * r + c] *= to[r] / from[r];
        double[] all = times(back, scaled);
        for (int i = 0; i < 9; i++) m[i] = (float) all[i];
    }

    /** Moves a chromaticity along v of CIE 1960 u, v, about at right angles to the black bodies. */
    private static double[] tinted(double[] xy, double tint) {
        double d = -2 * xy[0] + 12 * xy[1] + 3, u = 4 * xy[0] / d, v = 6 * xy[1] / d + TINT * tint, e = 2 * u - 8 * v + 4;
        return new double[] {3 * u / e, 2 * v / e};
    }

    /**
     * The balance that makes a colour grey: colour temperature and tint, searched for by both in turn.
     *
     * @param rgb linear light that is to be without colour, none below 0
     * @return {kelvin, tint}; null where no light within 1500 to 25,000 K does
     */
    static double[] of(float[] rgb) {
        double best = Double.POSITIVE_INFINITY, kelvin = Look.NEUTRAL, tint = 0, spread = 1, wide = 1;
        for (int round = 0; round < 8; round++, spread /= 3, wide /= 3) {
            double from = 1e6 / kelvin, around = tint;
            for (int i = -12; i <= 12; i++)
                for (int j = -12; j <= 12; j++) {
                    double k = 1e6 / Math.clamp(from + i * spread * 25, 40, 1e6 / 1500), t = Math.clamp(around + j * wide / 12, -1, 1);
                    float[] c = rgb.clone();
                    new WhiteBalance(k, t).apply(c, 0);
                    double l = (c[0] + c[1] + c[2]) / 3, off = Math.abs(c[0] - l) + Math.abs(c[1] - l) + Math.abs(c[2] - l);
                    if (l > 0 && off / l < best) {
                        best = off / l;
                        kelvin = k;
                        tint = t;
                    }
                }
        }
        return best < 0.02 ? new double[] {kelvin, tint} : null;
    }

    /** Cone responses of a white of luminance one. */
    private static double[] cones(double[] xy) {
        double[] w = {xy[0] / xy[1], 1, (1 - xy[0] - xy[1]) / xy[1]}, out = new double[3];
        for (int r = 0; r < 3; r++) out[r] = TO_CONE[3 * r] * w[0] + TO_CONE[3 * r + 1] * w[1] + TO_CONE[3 * r + 2] * w[2];
        return out;
    }

    static double[] times(double[] a, double[] b) {
        double[] out = new double[9];
        for (int r = 0; r < 3; r++) for (int c = 0; c < 3; c++) for (int k = 0; k < 3; k++) out[3 * r + c] += a[3 * r + k] * b[3 * k + c];
        return out;
    }

    static double[] inverse(double[] a) {
        Vec3 x = new Vec3(a[0], a[1], a[2]), y = new Vec3(a[3], a[4], a[5]), z = new Vec3(a[6], a[7], a[8]);
        Vec3 p = y.cross(z), q = z.cross(x), r = x.cross(y);
        double d = 1 / x.dot(p);
        return new double[] {p.x() * d, q.x() * d, r.x() * d, p.y() * d, q.y() * d, r.y() * d, p.z() * d, q.z() * d, r.z() * d};
    }

    boolean neutral() {
        return neutral;
    }

    /** One adapted colour, 0 for red, 3 for green, 6 for blue. */
    float row(int o, float r, float g, float b) {
        return m[o] * r + m[o + 1] * g + m[o + 2] * b;
    }

    /** Adapts the colour at {@code rgb[o]}; what leaves sRGB is cut at zero. */
    void apply(float[] rgb, int o) {
        if (neutral) return;
        whole(rgb, o);
        for (int k = o; k < o + 3; k++) rgb[k] = Math.max(0, rgb[k]);
    }

    /** The same; colours that sRGB has not are below zero. */
    void whole(float[] rgb, int o) {
        if (neutral) return;
        float r = rgb[o], g = rgb[o + 1], b = rgb[o + 2];
        rgb[o] = m[0] * r + m[1] * g + m[2] * b;
        rgb[o + 1] = m[3] * r + m[4] * g + m[5] * b;
        rgb[o + 2] = m[6] * r + m[7] * g + m[8] * b;
    }
}
