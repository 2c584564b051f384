package bake.core.scene;

import bake.core.math.Angles;
import java.util.Arrays;

/**
 * Luminous intensity by direction, as a goniophotometer measured it (ANSI/IES LM-63-2002; the three systems of angles as in IES
 * LM-75, from memory). Light leaves a lamp along +z of its frame; +x is the direction of horizontal angle 0. Between the
 * measured angles intensity is linear in both. Immutable.
 */
public final class PhotometricWeb {
    /** System of angles: C about the lamp's axis, B about its x axis, A about its y axis. */
    public enum Angle { C, B, A }

    private final Angle system;
    private final float[] vertical, horizontal, candela;
    private final double lumens, peak;

    /**
     * @param vertical degrees, ascending: C from 0 (straight ahead) to 180; A and B from -90 to 90
     * @param horizontal degrees, ascending: C within 0 to 360, and what symmetry leaves of it; A and B from -90 to 90
     * @param candela of each horizontal angle all vertical ones, cd
     * @throws IllegalArgumentException when sizes do not agree or angles do not ascend
     */
    public PhotometricWeb(Angle system, float[] vertical, float[] horizontal, float[] candela) {
        if (vertical.length < 1 || horizontal.length < 1 || candela.length != vertical.length * horizontal.length)
            throw new IllegalArgumentException("angles and intensities do not agree");
        ascending(vertical);
        ascending(horizontal);
        this.system = system;
        this.vertical = vertical.clone();
        this.horizontal = horizontal.clone();
        this.candela = candela.clone();
        double most = 0;
        for (float c : candela) most = Math.max(most, c);
        peak = most;
        lumens = integral();
    }

    private static void ascending(float[] a) {
        for (int i = 1; i < a.length; i++) if (!(a[i] > a[i - 1])) throw new IllegalArgumentException("angles must ascend");
    }

    /** Luminous flux, lm: the integral of intensity over all directions. */
    public double lumens() {
        return lumens;
    }

    /** Whether it was measured hanging, its angles about the vertical (type C); floodlights are measured about their beam. */
    public boolean hangs() {
        return system == Angle.C;
    }

    /** Greatest intensity, cd. */
    public double peak() {
        return peak;
    }

    /**
     * Intensity along a unit vector of the lamp's frame, cd; 0 where nothing was measured. The frame's z axis is the way the luminaire
     * shines, its x axis the horizontal angle 0 of type C; those angles rise counter-clockwise for who looks down on a luminaire that
     * shines down (LM-63 and LM-75, from memory).
     */
    public float candela(double x, double y, double z) {
        switch (system) {
            case C -> {
                // Seen from where the light comes from angles rise counter-clockwise, which about the light's own axis is clockwise.
                double h = Math.toDegrees(Angles.atan2(-y, x));
                return at(Math.toDegrees(Angles.atan2(Math.sqrt(x * x + y * y), z)), folded(h < 0 ? h + 360 : h));
            }
            case B -> {
                return at(Math.toDegrees(Angles.atan2(y, z)), mirrored(Math.toDegrees(Angles.atan2(x, Math.sqrt(y * y + z * z)))));
            }
            default -> {
                return at(Math.toDegrees(Angles.atan2(y, Math.sqrt(x * x + z * z))), mirrored(Math.toDegrees(Angles.atan2(x, z))));
            }
        }
    }

    /** A horizontal angle of 0 to 360 brought to where the symmetry of the web has its like. */
    private double folded(double h) {
        double first = horizontal[0], last = horizontal[horizontal.length - 1];
        if (horizontal.length == 1) return first;
        if (first == 0 && last == 90) {
            double q = h > 180 ? 360 - h : h;
            return q > 90 ? 180 - q : q;
        }
        if (first == 0 && last == 180) return h > 180 ? 360 - h : h;
        if (first == 90 && last == 270) return h < 90 ? 180 - h : h > 270 ? 540 - h : h;
        return h;
    }

    private double mirrored(double h) {
        return horizontal[0] == 0 ? Math.abs(h) : h;
    }

    private float at(double v, double h) {
        int n = vertical.length;
        double ends = 1e-4;
        if (v < vertical[0] - ends || v > vertical[n - 1] + ends) return 0;
        int i = place(vertical, v), j = place(horizontal, h);
        // A full turn may be given without its end: between the last angle and 360 it goes on to the first.
        int m = horizontal.length, next = j + 1 < m ? j + 1 : m > 1 && system == Angle.C && horizontal[0] == 0 && horizontal[m - 1] > 180
                && horizontal[m - 1] < 360 ? 0 : j;
        double hNext = next == 0 && j > 0 ? 360 : horizontal[next];
        if (system != Angle.C && (h > horizontal[m - 1] + ends || h < horizontal[0] - ends)) return 0;
        int up = Math.min(i + 1, n - 1);
        double fv = up > i ? Math.clamp((v - vertical[i]) / (vertical[up] - vertical[i]), 0, 1) : 0;
        double fh = next != j ? Math.clamp((h - horizontal[j]) / (hNext - horizontal[j]), 0, 1) : 0;
        double a = candela[j * n + i] * (1 - fv) + candela[j * n + up] * fv,
                b = candela[next * n + i] * (1 - fv) + candela[next * n + up] * fv;
        return (float) (a * (1 - fh) + b * fh);
    }

    /** The last entry that is not above a value; the first where there is none. */
    private static int place(float[] angles, double v) {
        int k = Arrays.binarySearch(angles, (float) v);
        return k >= 0 ? k : Math.max(0, -k - 2);
    }

    /** By the middles of cells of half a degree, which is finer than webs are measured. */
    private double integral() {
        int rows = 360, turns = horizontal.length == 1 && system == Angle.C ? 1 : 360;
        double sum = 0;
        for (int r = 0; r < rows; r++) {
            double t = Math.PI * (r + 0.5) / rows, s = Math.sin(t), z = Math.cos(t),
                    ring = 2 * Math.PI * (Math.cos(Math.PI * r / rows) - Math.cos(Math.PI * (r + 1) / rows));
            for (int k = 0; k < turns; k++) {
                double p = 2 * Math.PI * (k + 0.5) / turns;
                sum += candela(s * Math.cos(p), s * Math.sin(p), z) * ring / turns;
            }
        }
        return sum;
    }
}
