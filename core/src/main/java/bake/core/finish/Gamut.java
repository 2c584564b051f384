package bake.core.finish;

import bake.core.math.Srgb;

/**
 * Colours that a picture file can hold, all with white at D65 (x 0.3127, y 0.3290): those of sRGB (ITU-R BT.709 primaries), the P3
 * primaries
 * (SMPTE RP 431-2) with the transfer curve of sRGB, and ITU-R BT.2020 with its own.
 */
public enum Gamut {
    SRGB(0.640, 0.330, 0.300, 0.600, 0.150, 0.060), P3(0.680, 0.320, 0.265, 0.690, 0.150, 0.060), BT2020(0.708, 0.292, 0.170, 0.797,
            0.131, 0.046);

    private static final double[] WHITE = {0.3127, 0.3290};
    /** Of BT.2020's curve, table 4, in full precision. */
    private static final double ALPHA = 1.09929682680944, BETA = 0.018053968510807;

    private final double[] primaries;

    Gamut(double... xy) {
        primaries = xy;
    }

    /** x and y of red, green and blue in CIE 1931. */
    public double[] primaries() {
        return primaries.clone();
    }

    /** Linear colours to CIE XYZ, white's Y 1; row by row (the construction of SMPTE RP 177). */
    public double[] toXyz() {
        double[] m = new double[9];
        for (int c = 0; c < 3; c++) {
            double x = primaries[2 * c], y = primaries[2 * c + 1];
            m[c] = x / y;
            m[3 + c] = 1;
            m[6 + c] = (1 - x - y) / y;
        }
        double[] inverse = WhiteBalance.inverse(m), w = {WHITE[0] / WHITE[1], 1, (1 - WHITE[0] - WHITE[1]) / WHITE[1]};
        for (int c = 0; c < 3; c++) {
            double s = inverse[3 * c] * w[0] + inverse[3 * c + 1] * w[1] + inverse[3 * c + 2] * w[2];
            for (int r = 0; r < 3; r++) m[3 * r + c] *= s;
        }
        return m;
    }

    /** CIE XYZ under this white to XYZ under another, by cone responses (Bradford; ICC.1:2022, annex E.3); row by row. */
    public double[] adaptedTo(double[] white) {
        double[] xyz = toXyz(), own = {xyz[0] + xyz[1] + xyz[2], 1, xyz[6] + xyz[7] + xyz[8]}, scaled = WhiteBalance.TO_CONE.clone();
        for (int r = 0; r < 3; r++) {
            double from = 0, to = 0;
            for (int c = 0; c < 3; c++) {
                from += WhiteBalance.TO_CONE[3 * r + c] * own[c];
                to += WhiteBalance.TO_CONE[3 * r + c] * white[c];
            }
            for (int c = 0; c < 3; c++) scaled[3 * r + c] *= to / from;
        }
        return WhiteBalance.times(WhiteBalance.inverse(WhiteBalance.TO_CONE), scaled);
    }

    /** Linear sRGB to linear colours of this gamut. */
    float[] fromSrgb() {
        double[] m = WhiteBalance.times(WhiteBalance.inverse(toXyz()), SRGB.toXyz());
        float[] out = new float[9];
        for (int i = 0; i < 9; i++) out[i] = (float) m[i];
        return out;
    }

    /** Linear 0 to 1 to encoded 0 to 1. */
    public double encode(double linear) {
        if (this != BT2020) return Srgb.encode(linear);
        return linear < BETA ? 4.5 * linear : ALPHA * Math.pow(linear, 0.45) - (ALPHA - 1);
    }

    /** Encoded 0 to 1 to linear 0 to 1. */
    public double decode(double encoded) {
        if (this != BT2020) return Srgb.decode(encoded);
        return encoded < 4.5 * BETA ? encoded / 4.5 : Math.pow((encoded + ALPHA - 1) / ALPHA, 1 / 0.45);
    }

    /** Display values as sRGB encodes them, below 0 and above 1 where they are none of its colours, as this encodes them, 0 to 1. */
    void encoded(float[] c, int from, int to, float[] m) {
        for (int i = from; i < to; i += 3) {
            float r = linear(c[i]), g = linear(c[i + 1]), b = linear(c[i + 2]);
            for (int k = 0; k < 3; k++) c[i + k] = (float) encode(Math.clamp(m[3 * k] * r + m[3 * k + 1] * g + m[3 * k + 2] * b, 0f, 1f));
        }
    }

    private static float linear(float v) {
        return (float) (v < 0 ? -Srgb.decode(-v) : Srgb.decode(v));
    }
}
