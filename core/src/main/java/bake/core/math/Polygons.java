package bake.core.math;

import java.util.ArrayList;
import java.util.List;

/** Flat polygons in space. */
public final class Polygons {
    private Polygons() {}

    /**
     * Cuts a polygon into triangles, or one parallelogram where it is one (four corners of which the second and last are joined to the
     * first by its edges), all turning the same way. By ears (Meisters 1975, "Polygons Have Ears").
     *
     * @param corners in one plane, without crossings
     */
    public static List<Vec3[]> pieces(List<Vec3> corners) {
        List<Vec3[]> out = new ArrayList<>();
        if (corners.size() == 4) {
            Vec3 a = corners.get(0), b = corners.get(1), c = corners.get(2), d = corners.get(3);
            if (b.plus(d).minus(a).minus(c).length() < 1e-3 * b.minus(d).length()) return List.of(new Vec3[][] {{a, b, c, d}});
        }
        Vec3 n = Vec3.ZERO;
        for (int i = 1; i + 1 < corners.size(); i++)
            n = n.plus(corners.get(i).minus(corners.getFirst()).cross(corners.get(i + 1).minus(corners.getFirst())));
        List<Vec3> left = new ArrayList<>(corners);
        while (left.size() > 3) {
            int ear = 0;
            while (ear < left.size() && !ear(left, ear, n)) ear++;
            // Crossings or doubled corners leave no ear: any will do.
            if (ear == left.size()) ear = 1;
            int m = left.size();
            out.add(new Vec3[] {left.get((ear + m - 1) % m), left.get(ear % m), left.get((ear + 1) % m)});
            left.remove(ear % m);
        }
        out.add(left.toArray(Vec3[]::new));
        return out;
    }

    private static boolean ear(List<Vec3> p, int i, Vec3 n) {
        int m = p.size();
        Vec3 a = p.get((i + m - 1) % m), b = p.get(i), c = p.get((i + 1) % m);
        if (!(b.minus(a).cross(c.minus(b)).dot(n) > 0)) return false;
        for (int k = 0; k < m; k++) {
            Vec3 q = p.get(k);
            if (q == a || q == b || q == c) continue;
            if (side(a, b, q, n) >= 0 && side(b, c, q, n) >= 0 && side(c, a, q, n) >= 0) return false;
        }
        return true;
    }

    private static double side(Vec3 a, Vec3 b, Vec3 q, Vec3 n) {
        return b.minus(a).cross(q.minus(a)).dot(n);
    }
}
