package bake.core.finish;

import java.util.ArrayList;
import java.util.List;

/**
 * A curve through points that never turns back between them: cubic pieces with the slopes of Fritsch and Carlson (1980, "Monotone piecewise
 * cubic interpolation"). Before the first point and after the last it is level.
 *
 * @param points x and y in turn, each 0 to 1, the xs rising
 */
public record SplineCurve(List<Double> points) {
    public static final SplineCurve STRAIGHT = new SplineCurve(List.of());
    private static final int MOST = 32;

    /** @throws IllegalArgumentException for points that make no curve, with what is wrong */
    public SplineCurve {
        points = List.copyOf(points);
        int n = points.size();
        if (n % 2 != 0 || n == 2 || n > 2 * MOST) throw new IllegalArgumentException("a curve has two to " + MOST + " points of x and y, or none");
        for (int i = 0; i < n; i++) {
            double v = points.get(i);
            if (!(v >= 0 && v <= 1)) throw new IllegalArgumentException("points of a curve lie between 0 and 1, not at " + v);
            if (i >= 2 && i % 2 == 0 && !(v > points.get(i - 2))) throw new IllegalArgumentException("points of a curve come from left to right");
        }
    }

    public static SplineCurve of(List<Double> points) {
        return points == null || points.isEmpty() ? STRAIGHT : new SplineCurve(points);
    }

    public boolean straight() {
        return points.isEmpty() || points.equals(List.of(0.0, 0.0, 1.0, 1.0));
    }

    /** The value at {@code x}, 0 to 1. */
    public double at(double x) {
        if (points.isEmpty()) return x;
        int n = points.size() / 2;
        if (x <= px(0)) return py(0);
        if (x >= px(n - 1)) return py(n - 1);
        int k = 0;
        while (px(k + 1) < x) k++;
        double h = px(k + 1) - px(k), t = (x - px(k)) / h, t2 = t * t, t3 = t2 * t;
        return (2 * t3 - 3 * t2 + 1) * py(k) + (t3 - 2 * t2 + t) * h * slope(k) + (3 * t2 - 2 * t3) * py(k + 1) + (t3 - t2) * h * slope(k
                + 1);
    }

    private double px(int k) {
        return points.get(2 * k);
    }

    private double py(int k) {
        return points.get(2 * k + 1);
    }

    private double secant(int k) {
        return (py(k + 1) - py(k)) / (px(k + 1) - px(k));
    }

    /** The slope at a point: the mean of both sides, nothing at a turn, and never so steep that a piece turns back. */
    private double slope(int k) {
        int n = points.size() / 2;
        if (k == 0) return limited(secant(0), secant(0), secant(0));
        if (k == n - 1) return limited(secant(n - 2), secant(n - 2), secant(n - 2));
        double a = secant(k - 1), b = secant(k);
        return a * b <= 0 ? 0 : limited((a + b) / 2, a, b);
    }

    private static double limited(double m, double a, double b) {
        double most = 3 * Math.min(Math.abs(a), Math.abs(b));
        return Math.clamp(m, -most, most);
    }

    /** The curve with a point put in or moved to; points nearer than a hundredth across become one. */
    public SplineCurve with(double x, double y) {
        List<Double> p = new ArrayList<>(points.isEmpty() ? List.of(0.0, 0.0, 1.0, 1.0) : points);
        double cx = Math.clamp(x, 0, 1), cy = Math.clamp(y, 0, 1);
        for (int i = 0; i < p.size(); i += 2) if (Math.abs(p.get(i) - cx) < 0.01) {
            p.set(i + 1, cy);
            return new SplineCurve(p);
        }
        int at = 0;
        while (at < p.size() && p.get(at) < cx) at += 2;
        p.addAll(at, List.of(cx, cy));
        return p.size() > 2 * MOST ? this : new SplineCurve(p);
    }

    /** The curve without one of its points, counted from 0; ends stay. */
    public SplineCurve without(int k) {
        if (k <= 0 || k >= points.size() / 2 - 1) return this;
        List<Double> p = new ArrayList<>(points);
        p.remove(2 * k);
        p.remove(2 * k);
        return new SplineCurve(p);
    }
}
