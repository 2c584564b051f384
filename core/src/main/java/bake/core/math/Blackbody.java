package bake.core.math;

/**
 * Colour of a Planckian radiator.
 *
 * <p>Planck's law integrated against the CIE 1931 2 degree observer, tabulated every 10 nm (CIE 15, table T.4; the numbers from memory).
 * Spectra as smooth as these lose less than 0.0005 in x and y by the coarse steps.
 */
public final class Blackbody {
    /** Colour matching functions from 380 to 770 nm. */
    private static final double[] X = {0.0014, 0.0042, 0.0143, 0.0435, 0.1344, 0.2839, 0.3483, 0.3362, 0.2908, 0.1954, 0.0956, 0.0320,
            0.0049, 0.0093, 0.0633, 0.1655, 0.2904, 0.4334,
            0.5945, 0.7621, 0.9163, 1.0263, 1.0622, 1.0026, 0.8544, 0.6424, 0.4479, 0.2835, 0.1649, 0.0874, 0.0468, 0.0227, 0.0114, 0.0058,
            0.0029, 0.0014, 0.0007, 0.0003, 0.0002, 0.0001};
    private static final double[] Y = {0.0000, 0.0001, 0.0004, 0.0012, 0.0040, 0.0116, 0.0230, 0.0380, 0.0600, 0.0910, 0.1390, 0.2080,
            0.3230, 0.5030, 0.7100, 0.8620, 0.9540, 0.9950,
            0.9950, 0.9520, 0.8700, 0.7570, 0.6310, 0.5030, 0.3810, 0.2650, 0.1750, 0.1070, 0.0610, 0.0320, 0.0170, 0.0082, 0.0041, 0.0021,
            0.0010, 0.0005, 0.0003, 0.0001, 0.0001, 0.0000};
    private static final double[] Z = {0.0065, 0.0201, 0.0679, 0.2074, 0.6456, 1.3856, 1.7471, 1.7721, 1.6692, 1.2876, 0.8130, 0.4652,
            0.2720, 0.1582, 0.0782, 0.0422, 0.0203, 0.0087,
            0.0039, 0.0021, 0.0017, 0.0011, 0.0008, 0.0003, 0.0002};

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
        for (int i = 0; i < X.length; i++) {
            double nm = 380 + 10 * i;
            // Second radiation constant hc/k = 1.438777e-2 m K (CODATA 2018); the first one cancels.
            double p = Math.pow(nm * 1e-3, -5) / Math.expm1(1.438777e7 / (nm * kelvin));
            x += p * X[i];
            y += p * Y[i];
            if (i < Z.length) z += p * Z[i];
        }
        return new double[] {x, y, z};
    }
}
