package bake.core.math;

/**
 * Colour of a Planckian radiator.
 *
 * <p>Planck's law integrated against the CIE 1931 2 degree observer. The observer is taken from the
 * multi-lobe Gaussian fit of Wyman, Sloan and Shirley 2013 (JCGT 2(2), eq. 4), whose greatest error against
 * the tables is about 1 %.
 */
public final class Blackbody {
    private Blackbody() {}

    /** CIE 1931 x, y chromaticity of a Planckian radiator at {@code kelvin}, 800 to 40,000 K. */
    public static double[] chromaticity(double kelvin) {
        double[] c = xyz(kelvin);
        double s = c[0] + c[1] + c[2];
        return new double[] {c[0] / s, c[1] / s};
    }

    /**
     * Linear Rec. 709 colour of a Planckian radiator, scaled to luminance one; negative components (outside
     * the gamut below about 1,900 K) are cut at zero before scaling.
     *
     * @param kelvin 800 to 40,000; values outside are clamped
     */
    public static Vec3 rgb(double kelvin) {
        double[] c = xyz(Math.clamp(kelvin, 800, 40_000));
        Vec3 v = xyzToRgb(c[0] / c[1], 1, c[2] / c[1]);
        Vec3 cut = new Vec3(Math.max(0, v.x()), Math.max(0, v.y()), Math.max(0, v.z()));
        return cut.times(1 / cut.luminance());
    }

    /** CIE XYZ to linear Rec. 709 with white D65 (IEC 61966-2-1). */
    public static Vec3 xyzToRgb(double x, double y, double z) {
        return new Vec3(
                3.2404542 * x - 1.5371385 * y - 0.4985314 * z,
                -0.9692660 * x + 1.8760108 * y + 0.0415560 * z,
                0.0556434 * x - 0.2040259 * y + 1.0572252 * z);
    }

    private static double[] xyz(double kelvin) {
        double x = 0, y = 0, z = 0;
        for (double nm = 360; nm <= 830; nm += 2) {
            // Second radiation constant hc/k = 1.438777e-2 m K (CODATA 2018); the first one cancels.
            double p = Math.pow(nm * 1e-3, -5) / Math.expm1(1.438777e7 / (nm * kelvin));
            x += p * (1.056 * lobe(nm, 599.8, 37.9, 31.0) + 0.362 * lobe(nm, 442.0, 16.0, 26.7)
                    - 0.065 * lobe(nm, 501.1, 20.4, 26.2));
            y += p * (0.821 * lobe(nm, 568.8, 46.9, 40.5) + 0.286 * lobe(nm, 530.9, 16.3, 31.1));
            z += p * (1.217 * lobe(nm, 437.0, 11.8, 36.0) + 0.681 * lobe(nm, 459.0, 26.0, 13.8));
        }
        return new double[] {x, y, z};
    }

    private static double lobe(double nm, double mean, double below, double above) {
        double t = (nm - mean) / (nm < mean ? below : above);
        return Math.exp(-0.5 * t * t);
    }
}
