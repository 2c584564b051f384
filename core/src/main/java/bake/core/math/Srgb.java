package bake.core.math;

/** The sRGB transfer curve (IEC 61966-2-1). */
public final class Srgb {
    private Srgb() {}

    /** Linear 0 to 1 to encoded 0 to 1. */
    public static double encode(double linear) {
        return linear <= 0.0031308 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
    }

    /** Encoded 0 to 1 to linear 0 to 1. */
    public static double decode(double encoded) {
        return encoded <= 0.04045 ? encoded / 12.92 : Math.pow((encoded + 0.055) / 1.055, 2.4);
    }
}
