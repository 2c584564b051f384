package bake.formats.model;

import earcut4j.Earcut;
import java.util.List;

/** Cuts flat polygons of any shape into triangles that face the way the polygon does. */
final class Polygons {
    private Polygons() {}

    /**
     * Triangles of a polygon.
     *
     * @param xyz corners, three numbers each
     * @return numbers of corners, three a triangle; empty for a polygon without area
     */
    static int[] triangles(double[] xyz) {
        int n = xyz.length / 3;
        if (n < 3) return new int[0];
        if (n == 3) return new int[] {0, 1, 2};
        double[] normal = normal(xyz);
        double[] flat = flat(xyz, normal);
        if (convex(flat)) return fan(n);
        List<Integer> cut = Earcut.earcut(flat, null, 2);
        int[] out = new int[cut.size()];
        for (int t = 0; t + 2 < out.length; t += 3) {
            int a = cut.get(t), b = cut.get(t + 1), c = cut.get(t + 2);
            boolean turned = cross(flat, a, b, c) < 0;
            out[t] = a;
            out[t + 1] = turned ? c : b;
            out[t + 2] = turned ? b : c;
        }
        return out;
    }

    private static int[] fan(int n) {
        int[] out = new int[3 * (n - 2)];
        for (int k = 0; k < n - 2; k++) {
            out[3 * k + 1] = k + 1;
            out[3 * k + 2] = k + 2;
        }
        return out;
    }

    /** Newell's method: the sum of the cross products of its edges (Sutherland, Sproull and Schumacker 1974). */
    private static double[] normal(double[] p) {
        double x = 0, y = 0, z = 0;
        int n = p.length / 3;
        for (int i = 0, j = n - 1; i < n; j = i++) {
            x += (p[3 * j + 1] - p[3 * i + 1]) * (p[3 * j + 2] + p[3 * i + 2]);
            y += (p[3 * j + 2] - p[3 * i + 2]) * (p[3 * j] + p[3 * i]);
            z += (p[3 * j] - p[3 * i]) * (p[3 * j + 1] + p[3 * i + 1]);
        }
        return new double[] {x, y, z};
    }

    /** The polygon seen along the axis that it faces most, counter-clockwise. */
    private static double[] flat(double[] p, double[] n) {
        double x = Math.abs(n[0]), y = Math.abs(n[1]), z = Math.abs(n[2]);
        int u = x > y && x > z ? 1 : y > z ? 2 : 0, v = (u + 1) % 3, axis = (u + 2) % 3;
        if (n[axis] < 0) {
            int t = u;
            u = v;
            v = t;
        }
        double[] out = new double[p.length / 3 * 2];
        for (int i = 0; i < p.length / 3; i++) {
            // From the first corner, so that far away models keep their shape.
            out[2 * i] = p[3 * i + u] - p[u];
            out[2 * i + 1] = p[3 * i + v] - p[v];
        }
        return out;
    }

    private static double cross(double[] f, int a, int b, int c) {
        return (f[2 * b] - f[2 * a]) * (f[2 * c + 1] - f[2 * a + 1]) - (f[2 * b + 1] - f[2 * a + 1]) * (f[2 * c] - f[2 * a]);
    }

    /** Whether it turns left at every corner, and once around in all. */
    private static boolean convex(double[] f) {
        int n = f.length / 2;
        double turn = 0;
        for (int i = 0; i < n; i++) {
            int j = (i + 1) % n, k = (i + 2) % n;
            double c = cross(f, i, j, k);
            if (c < 0) return false;
            double dot = (f[2 * j] - f[2 * i]) * (f[2 * k] - f[2 * j]) + (f[2 * j + 1] - f[2 * i + 1]) * (f[2 * k + 1] - f[2 * j + 1]);
            turn += Math.atan2(c, dot);
        }
        return turn < 1.5 * 2 * Math.PI;
    }
}
