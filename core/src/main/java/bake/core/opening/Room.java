package bake.core.opening;

import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.Vec3;
import java.util.ArrayList;
import java.util.List;

/** The rooms around places that are known to be indoors: points all over them, and the box they fill. */
final class Room {
    private static final double GOLDEN = Math.PI * (3 - Math.sqrt(5)), OFF = 0.03, AROUND = 1.2, FARTHEST = 60;
    private static final int FIRST = 192, AGAIN = 24, MOST = 1500;

    private final List<Vec3> points = new ArrayList<>();
    final double[] low = {1e30, 1e30, 1e30}, high = {-1e30, -1e30, -1e30};

    /** @param inside places, such as cameras; those under the open sky count for nothing */
    Room(Tracer tracer, List<Vec3> inside) {
        Openness open = new Openness(tracer);
        Ray ray = new Ray();
        for (Vec3 p : inside) {
            // Open air is no room.
            if (open.of(p, Vec3.UP, 96, List.of()) > 0.5) continue;
            List<Vec3> met = spread(tracer, ray, p, FIRST);
            points.add(p);
            points.addAll(met);
            // From what was met once more: into niches and behind screens.
            for (int k = 0; k < met.size() && points.size() < MOST; k += 4) points.addAll(spread(tracer, ray, met.get(k), AGAIN));
        }
        for (Vec3 p : points)
            for (int k = 0; k < 3; k++) {
                low[k] = Math.min(low[k], Rectangle.axis(p, k) - AROUND);
                high[k] = Math.max(high[k], Rectangle.axis(p, k) + AROUND);
            }
    }

    boolean isEmpty() {
        return points.isEmpty();
    }

    /** What is met from a place all around, a little before it. Glass ends a room. */
    private static List<Vec3> spread(Tracer tracer, Ray ray, Vec3 p, int n) {
        List<Vec3> out = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            double z = 1 - 2 * (i + 0.5) / n, r = Math.sqrt(1 - z * z), a = i * GOLDEN + p.x() + p.y();
            Vec3 d = new Vec3(r * Math.cos(a), r * Math.sin(a), z);
            ray.set((float) p.x(), (float) p.y(), (float) p.z(), (float) d.x(), (float) d.y(), (float) d.z(), (float) FARTHEST);
            if (tracer.closest(ray) && ray.t > 2 * OFF) out.add(p.plus(d.times(ray.t - OFF)));
        }
        return out;
    }

    boolean touches(Vec3[] triangle) {
        for (int k = 0; k < 3; k++) {
            double a = Rectangle.axis(triangle[0], k), b = Rectangle.axis(triangle[1], k), c = Rectangle.axis(triangle[2], k);
            if (Math.min(a, Math.min(b, c)) > high[k] || Math.max(a, Math.max(b, c)) < low[k]) return false;
        }
        return true;
    }

    /** Whether a place is seen from the room, be it through glass. */
    boolean sees(Openness open, Vec3 at) {
        for (int k = 0; k < 3; k++) if (Rectangle.axis(at, k) < low[k] || Rectangle.axis(at, k) > high[k]) return false;
        int tried = 0;
        for (int i = 0; i < points.size() && tried < 120; i += 1 + points.size() / 240, tried++) {
            Vec3 d = at.minus(points.get(i));
            double l = d.length();
            if (l < 0.05 || open.open(points.get(i), d.times(1 / l), l)) return true;
        }
        return false;
    }
}
