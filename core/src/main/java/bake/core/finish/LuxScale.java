package bake.core.finish;

import java.util.List;

/**
 * False colours of illuminance, even in its logarithm, from {@link #LEAST} to {@link #MOST} lux. Every step is lighter than the one before,
 * so that it reads in grey as well.
 */
public final class LuxScale {
    public static final double LEAST = 5, MOST = 50_000;
    /** Where a scale is marked: values that lighting of rooms and sites is planned by (common practice, no source). */
    public static final List<Integer> MARKS = List.of(10, 30, 100, 300, 1000, 3000, 10_000, 30_000);
    /** sRGB codes along the scale, evenly spaced: night, slate, green, ochre, sand, paper. */
    private static final int[] STOPS = {0x14161C, 0x23374F, 0x2F6273, 0x4B8A6A, 0x93A645, 0xD9A93F, 0xF0C98C, 0xFBF3E4};

    private LuxScale() {}

    /** Where on the scale, 0 to 1, a value lies. */
    public static double place(double lux) {
        return lux > 0 ? Math.clamp(Math.log(lux / LEAST) / Math.log(MOST / LEAST), 0, 1) : 0;
    }

    /** sRGB code 0xFFRRGGBB of a value in lux. */
    public static int argb(double lux) {
        double t = place(lux) * (STOPS.length - 1);
        int i = Math.min((int) t, STOPS.length - 2), out = 0xFF;
        double f = t - i;
        for (int shift = 16; shift >= 0; shift -= 8) {
            double a = STOPS[i] >> shift & 255, b = STOPS[i + 1] >> shift & 255;
            out = out << 8 | (int) Math.round(a + (b - a) * f);
        }
        return out;
    }
}
