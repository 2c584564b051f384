package bake.core.opening;

import bake.core.math.Polygons;
import bake.core.math.Vec3;
import bake.core.scene.Portal;
import java.util.List;

/** The geometry of portals that are drawn on a face. */
public final class Drawing {
    /** Least area of a portal, square metres, and steepness from which a face counts as level. */
    private static final double LEAST = 1e-4, LEVEL = 0.9;

    private Drawing() {}

    /** Where a look meets the plane through a point with a normal; null when it does not, or only far away. */
    public static Vec3 meet(Vec3 at, Vec3 normal, Vec3 from, Vec3 along) {
        double d = along.dot(normal), t = at.minus(from).dot(normal) / d;
        return Math.abs(d) > 1e-4 && t > 0 && t < 1e4 ? from.plus(along.times(t)) : null;
    }

    /** The corners of the upright rectangle on a plane that has two opposite ones; on a level plane its sides lie along x and y. */
    public static List<Vec3> rectangle(Vec3 a, Vec3 b, Vec3 normal) {
        Vec3 u = Math.abs(normal.z()) > LEVEL ? new Vec3(1, 0, 0).minus(normal.times(normal.x())).normalized()
                : Vec3.UP.cross(normal).normalized(), v = normal.cross(u);
        Vec3 d = b.minus(a);
        return List.of(a, a.plus(u.times(d.dot(u))), a.plus(u.times(d.dot(u))).plus(v.times(d.dot(v))), a.plus(v.times(d.dot(v))));
    }

    /** A portal with these corners that faces where a look comes from. */
    public static Portal facing(String name, List<Vec3> corners, Vec3 along) {
        Portal p = new Portal(name, corners);
        return p.normal().dot(along) > 0 ? p.flipped() : p;
    }

    /** What forbids a portal with these corners, in words; null when nothing does. */
    public static String fault(List<Vec3> corners) {
        if (corners.size() < 3) return "A portal needs three corners.";
        Portal p = new Portal("drawn", corners);
        if (!(p.size() > LEAST)) return "The portal has no size; draw it larger.";
        double pieces = 0;
        for (Vec3[] c : Polygons.pieces(corners)) {
            Vec3 n = c[1].minus(c[0]).cross(c.length == 4 ? c[3].minus(c[0]) : c[2].minus(c[0]));
            pieces += c.length == 4 ? n.length() : n.length() / 2;
        }
        return pieces > 1.001 * p.size() ? "The portal's edges cross; draw it around the opening in one turn." : null;
    }
}
