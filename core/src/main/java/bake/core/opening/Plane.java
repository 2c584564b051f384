package bake.core.opening;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.math.Vec3;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/** Triangles that lie in one plane and face one way, such as the plaster of a wall. */
final class Plane {
    /** Least area of what may be a wall, m2. */
    private static final double LEAST = 1.5;
    private static final double SAME = 0.02;

    final Vec3 n, u, v;
    final double offset;
    private double area;
    /** Corners in the plane's own two coordinates, six a triangle. */
    private double[] corners = new double[12];
    private int count;
    double u0 = 1e30, v0 = 1e30, u1 = -1e30, v1 = -1e30;

    private Plane(Vec3 n, double offset) {
        this.n = n;
        this.offset = offset;
        u = Math.abs(n.z()) < 0.9 ? Vec3.UP.cross(n).normalized() : new Vec3(1, 0, 0).minus(n.times(n.x())).normalized();
        v = n.cross(u);
    }

    /** The planes at a room that are large enough for walls and ceilings, largest first. Glass is none. */
    static List<Plane> find(Geometry g, SurfaceTable surfaces, Room room) {
        Map<Long, Plane> all = new HashMap<>();
        Vec3[] c = new Vec3[3];
        for (int item = 0; item < g.items(); item++) {
            Blas b = g.blas(item);
            for (int p = 0; p < b.places(); p++) {
                if (b.materials()[p] < 0 || surfaces.isPane(b.materials()[p])) continue;
                corners(g, item, p, c);
                Vec3 cross = c[1].minus(c[0]).cross(c[2].minus(c[0]));
                double area = cross.length() / 2;
                // Walls are made of few, large triangles; what is smaller is furniture, or a leaf.
                if (!(area > 0.02) || !room.touches(c)) continue;
                Vec3 n = cross.times(0.5 / area);
                // Both faces of a thin wall may be meant.
                for (int side = 0; side < 2; side++) add(all, side == 0 ? n : n.times(-1), c, area);
            }
        }
        return all.values().stream().filter(p -> p.area >= LEAST).sorted((a, b) -> a.area != b.area ? Double.compare(b.area, a.area)
                : Double.compare(a.offset, b.offset)).toList();
    }

    static void corners(Geometry g, int item, int prim, Vec3[] out) {
        for (int k = 0; k < 3; k++) {
            double[] w = new double[3];
            for (int r = 0; r < 3; r++) {
                w[r] = g.toWorld(item, 4 * r + 3);
                for (int a = 0; a < 3; a++) w[r] += g.toWorld(item, 4 * r + a) * (double) g.blas(item).corner(prim, k, a);
            }
            out[k] = new Vec3(w[0], w[1], w[2]);
        }
    }

    private static void add(Map<Long, Plane> all, Vec3 n, Vec3[] c, double area) {

        double d = n.dot(c[0]);
        long key = ((Math.round(n.x() * 64) + 64) << 48) ^ ((Math.round(n.y() * 64) + 64) << 40) ^ ((Math.round(n.z() * 64)
                + 64) << 32) ^ (Math.round(d / SAME) & 0xffffffffL);
        Plane p = all.computeIfAbsent(key, k -> new Plane(n, d));
        p.take(c, area);
    }

    private void take(Vec3[] c, double a) {
        if (6 * count + 6 > corners.length) corners = Arrays.copyOf(corners, 2 * corners.length);
        for (int k = 0; k < 3; k++) {
            double x = c[k].dot(u), y = c[k].dot(v);
            corners[6 * count + 2 * k] = x;
            corners[6 * count + 2 * k + 1] = y;
            u0 = Math.min(u0, x);
            u1 = Math.max(u1, x);
            v0 = Math.min(v0, y);
            v1 = Math.max(v1, y);
        }
        count++;
        area += a;
    }

    /** Whether one of a few places on its triangles is indoors, as a test says. */
    boolean indoors(Predicate<Vec3> test) {
        int step = Math.max(1, count / 12);
        for (int t = 0; t < count; t += step) {
            int o = 6 * t;
            for (int k = 0; k < 3; k++) {
                // Near each corner, and so in several parts of a large wall.
                double x = 0.15 * (corners[o] + corners[o + 2] + corners[o + 4]) + 0.55 * corners[o + 2 * k],
                        y = 0.15 * (corners[o + 1] + corners[o + 3] + corners[o + 5]) + 0.55 * corners[o + 2 * k + 1];
                if (test.test(at(x, y))) return true;
            }
        }
        return false;
    }

    Vec3 at(double x, double y) {
        return u.times(x).plus(v.times(y)).plus(n.times(offset));
    }

    /** Which cells of a grid over the plane's extent its triangles cover; row by row. */
    boolean[] cover(int across, int down, double cell) {
        boolean[] out = new boolean[across * down];
        for (int t = 0; t < count; t++) {
            int o = 6 * t;
            double ax = corners[o], ay = corners[o + 1], bx = corners[o + 2], by = corners[o + 3], cx = corners[o + 4], cy = corners[o + 5];
            int i0 = (int) Math.floor((Math.min(ax, Math.min(bx, cx)) - u0) / cell),
                    i1 = (int) Math.ceil((Math.max(ax, Math.max(bx, cx)) - u0) / cell);
            int j0 = (int) Math.floor((Math.min(ay, Math.min(by, cy)) - v0) / cell),
                    j1 = (int) Math.ceil((Math.max(ay, Math.max(by, cy)) - v0) / cell);
            double det = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
            if (Math.abs(det) < 1e-12) continue;
            for (int j = Math.max(0, j0); j < Math.min(down, j1); j++)
                for (int i = Math.max(0, i0); i < Math.min(across, i1); i++) {
                    double x = u0 + (i + 0.5) * cell - ax, y = v0 + (j + 0.5) * cell - ay, s = (x * (cy - ay) - (cx - ax) * y) / det,
                            r = ((bx - ax) * y - x * (by - ay)) / det;
                    if (s >= 0 && r >= 0 && s + r <= 1) out[j * across + i] = true;
                }
        }
        return out;
    }

    /** Groups of neighbouring cells of one grid that are set, as lists of cell numbers. */
    static List<int[]> groups(boolean[] set, int across) {
        List<int[]> out = new ArrayList<>();
        boolean[] seen = new boolean[set.length];
        int[] queue = new int[set.length];
        for (int s = 0; s < set.length; s++) {
            if (!set[s] || seen[s]) continue;
            int head = 0, tail = 0;
            queue[tail++] = s;
            seen[s] = true;
            while (head < tail) {
                int c = queue[head++], x = c % across;
                int[] next = {x > 0 ? c - 1 : -1, x < across - 1 ? c + 1 : -1, c - across, c + across};
                for (int k : next)
                    if (k >= 0 && k < set.length && set[k] && !seen[k]) {
                        seen[k] = true;
                        queue[tail++] = k;
                    }
            }
            out.add(Arrays.copyOf(queue, tail));
        }
        return out;
    }
}
