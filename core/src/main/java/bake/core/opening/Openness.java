package bake.core.opening;

import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.Vec3;
import bake.core.scene.Portal;
import java.util.List;

/** How open a place is: the share of directions in which nothing but glass stands before the sky. One instance per thread. */
final class Openness {
    private static final double GOLDEN = Math.PI * (3 - Math.sqrt(5));
    private static final int MOST_GROUND = 4;
    private static final double LOWEST = -0.02;

    private final Tracer tracer;
    private final Ray ray = new Ray();

    Openness(Tracer tracer) {
        this.tracer = tracer;
    }

    /**
     * Share of the directions around a normal, weighed by their cosine, that lead out.
     *
     * @param but ways through these portals do not count
     */
    double of(Vec3 at, Vec3 normal, int rays, List<Portal> but) {
        Vec3 x = (Math.abs(normal.z()) < 0.9 ? Vec3.UP : new Vec3(0, 1, 0)).cross(normal).normalized(), y = normal.cross(x);
        int out = 0;
        for (int i = 0; i < rays; i++) {
            double r = Math.sqrt((i + 0.5) / rays), phi = i * GOLDEN + at.x() * 7 + at.y() * 5 + at.z() * 3;
            Vec3 d = x.times(r * Math.cos(phi)).plus(y.times(r * Math.sin(phi))).plus(normal.times(Math.sqrt(1 - r * r)));
            if (leadsOut(at, d) && !through(at, d, but)) out++;
        }
        return out / (double) rays;
    }

    /** Whether a way leads out into the open: to the sky, or to a place from which the sky is seen straight above. */
    private boolean leadsOut(Vec3 at, Vec3 d) {
        if (open(at, d, Double.POSITIVE_INFINITY)) return d.z() > LOWEST; // below the horizon there is nothing, or the land is not modelled
        // Ground and walls outside are outside as well: from what was met one looks up.
        double t = solid(at, d);
        if (!(t > 0.05)) return false;
        Vec3 p = at.plus(d.times(t - 0.02));
        return open(p, Vec3.UP, Double.POSITIVE_INFINITY) && !overhead(p);
    }

    /** Whether there is glass above a place, which then is indoors. */
    private boolean overhead(Vec3 p) {
        ray.set((float) p.x(), (float) p.y(), (float) p.z(), 0, 0, 1, Float.POSITIVE_INFINITY);
        return tracer.closest(ray);
    }

    /** Distance to the first thing that is no glass, or 0. */
    private double solid(Vec3 at, Vec3 d) {
        double gone = 0;
        Vec3 p = at;
        for (int k = 0; k < MOST_GROUND; k++) {
            ray.set((float) p.x(), (float) p.y(), (float) p.z(), (float) d.x(), (float) d.y(), (float) d.z(), Float.POSITIVE_INFINITY);
            if (!tracer.closest(ray)) return 0;
            double t = ray.t;
            if (!open(p, d, t + 0.001)) return gone + t;
            gone += t + 0.001;
            p = at.plus(d.times(gone));
        }
        return 0;
    }

    /** Whether nothing but glass is on the way. */
    boolean open(Vec3 at, Vec3 d, double reach) {
        ray.set((float) at.x(), (float) at.y(), (float) at.z(), (float) d.x(), (float) d.y(), (float) d.z(), (float) reach);
        return tracer.open(ray) && ray.tr + ray.tg + ray.tb > 0.05f;
    }

    static boolean through(Vec3 at, Vec3 d, List<Portal> portals) {
        for (Portal p : portals) if (Rectangle.meets(p, at, d)) return true;
        return false;
    }
}
