package bake.core.solve;

import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.Vec3;
import java.util.Arrays;

/**
 * How large the room is that one stands in: the diagonal of a box around it, seen from there. A ray in each of many directions finds what
 * bounds it; the outermost hundredth on each side is left out, so that what is seen through a window or a door does not count.
 *
 * @param diagonal metres; infinite outdoors, where half of the rays or more meet nothing near
 */
public record RoomSize(double diagonal) {
    private static final int RAYS = 1024;
    private static final double FAR = 100, OUTSIDE = 0.01;
    /** Share of the diagonal that a record reaches at most (common practice, no source), and what it is outdoors, metres. */
    private static final double SHARE = 0.1, OUTDOORS = 2;

    /** What a place stands in. */
    public static RoomSize around(Vec3 eye, Tracer tracer) {
        double[] x = new double[RAYS], y = new double[RAYS], z = new double[RAYS];
        Ray ray = new Ray();
        int n = 0;
        for (int k = 0; k < RAYS; k++) {
            // A spiral of equal areas over the sphere.
            double h = 1 - (2 * k + 1) / (double) RAYS, r = Math.sqrt(1 - h * h), a = k * Math.PI * (3 - Math.sqrt(5));
            double dx = r * Math.cos(a), dy = r * Math.sin(a);
            ray.set((float) eye.x(), (float) eye.y(), (float) eye.z(), (float) dx, (float) dy, (float) h, (float) FAR);
            if (!tracer.closest(ray)) continue;
            x[n] = dx * ray.t;
            y[n] = dy * ray.t;
            z[n++] = h * ray.t;
        }
        if (2 * n < RAYS) return new RoomSize(Double.POSITIVE_INFINITY);
        return new RoomSize(Math.hypot(Math.hypot(width(x, n), width(y, n)), width(z, n)));
    }

    private static double width(double[] at, int n) {
        Arrays.sort(at, 0, n);
        int out = (int) (OUTSIDE * n);
        return at[n - 1 - out] - at[out];
    }

    /** How far records reach at most where nobody says otherwise, metres. */
    public double gatherRadius() {
        return diagonal < FAR ? SHARE * diagonal : OUTDOORS;
    }
}
