package bake.core.math;

/** Inverse tangent fast enough for every ray. */
public final class Angles {
    private static final double HALF_PI = Math.PI / 2;

    private Angles() {}

    /**
     * Angle of the point (x, y) from the x axis, radians, -pi to pi, within 3e-8; 0 at the origin. The polynomial is that of
     * Abramowitz and Stegun 1964, "Handbook of Mathematical Functions", 4.4.49 (coefficients from memory; a test compares).
     */
    public static double atan2(double y, double x) {
        double ax = Math.abs(x), ay = Math.abs(y);
        boolean steep = ay > ax;
        double large = steep ? ay : ax, t = large > 0 ? (steep ? ax : ay) / large : 0, s = t * t;
        double a = t * (1 + s * (-0.3333314528 + s * (0.1999355085 + s * (-0.1420889944 + s * (0.1065626393
                + s * (-0.0752896400 + s * (0.0429096138 + s * (-0.0161657367 + s * 0.0028662257))))))));
        if (steep) a = HALF_PI - a;
        if (x < 0) a = Math.PI - a;
        return y < 0 ? -a : a;
    }
}
