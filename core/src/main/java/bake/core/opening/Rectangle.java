package bake.core.opening;

import bake.core.math.Vec3;
import bake.core.scene.Portal;
import java.util.List;

/**
 * A rectangle on a wall.
 *
 * @param origin a corner
 * @param u unit vector along the first side
 * @param v unit vector along the second
 * @param n unit vector into the room; u, v, n are right-handed
 */
record Rectangle(Vec3 origin, Vec3 u, Vec3 v, Vec3 n, double width, double height) {
    double area() {
        return width * height;
    }

    Vec3 at(double a, double b) {
        return origin.plus(u.times(a)).plus(v.times(b));
    }

    Vec3 middle() {
        return at(width / 2, height / 2);
    }

    Portal portal(String name) {
        return new Portal(name, List.of(at(0, 0), at(width, 0), at(width, height), at(0, height)));
    }

    Rectangle flipped() {
        return new Rectangle(origin, v, u, n.times(-1), height, width);
    }

    /** Share of this rectangle that another one, seen along the normal and no farther away than {@code near}, covers. */
    double coveredBy(Rectangle o, double near) {
        if (Math.abs(n.dot(o.n)) < 0.95 || Math.abs(o.middle().minus(middle()).dot(n)) > near) return 0;
        int in = 0, steps = 9;
        for (int i = 0; i < steps; i++)
            for (int j = 0; j < steps; j++) {
                Vec3 p = at(width * (i + 0.5) / steps, height * (j + 0.5) / steps).minus(o.origin);
                double a = p.dot(o.u), b = p.dot(o.v);
                if (a > -0.02 && b > -0.02 && a < o.width + 0.02 && b < o.height + 0.02) in++;
            }
        return in / (double) (steps * steps);
    }

    /** Whether a ray goes through a portal. */
    static boolean meets(Portal p, Vec3 at, Vec3 d) {
        Vec3 n = p.normal(), o = p.corners().getFirst();
        double dn = d.dot(n), t = o.minus(at).dot(n) / dn;
        if (!(Math.abs(dn) > 1e-9) || !(t > 0)) return false;
        Vec3 q = at.plus(d.times(t));
        boolean in = false;
        // Crossings of a line in the plane (even-odd rule), along the two axes that the normal lies least along.
        int skip = Math.abs(n.x()) > Math.abs(n.y()) ? Math.abs(n.x()) > Math.abs(n.z()) ? 0 : 2 : Math.abs(n.y()) > Math.abs(n.z()) ? 1
                : 2, a = skip == 0 ? 1 : 0, b = skip == 2 ? 1 : 2;
        List<Vec3> c = p.corners();
        for (int i = 0, j = c.size() - 1; i < c.size(); j = i++) {
            double yi = axis(c.get(i), b), yj = axis(c.get(j), b);
            if (yi > axis(q, b) != yj > axis(q, b) && axis(q, a) < (axis(c.get(j), a) - axis(c.get(i), a)) * (axis(q, b) - yi) / (yj - yi)
                    + axis(c.get(i), a)) in = !in;
        }
        return in;
    }

    static double axis(Vec3 v, int k) {
        return k == 0 ? v.x() : k == 1 ? v.y() : v.z();
    }
}
