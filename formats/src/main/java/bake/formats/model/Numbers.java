package bake.formats.model;

import java.util.Arrays;

/** Growing lists of plain numbers. */
final class Numbers {
    private Numbers() {}

    static final class Ints {
        int[] a = new int[64];
        int n;

        void add(int v) {
            if (n == a.length) a = Arrays.copyOf(a, Math.addExact(n, n / 2 + 1));
            a[n++] = v;
        }
    }

    static final class Doubles {
        double[] a = new double[64];
        int n;

        void add(double v) {
            if (n == a.length) a = Arrays.copyOf(a, Math.addExact(n, n / 2 + 1));
            a[n++] = v;
        }
    }
}
