package bake.core.opening;

import bake.core.geometry.LampShapes;
import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.Vec3;
import bake.core.compiled.RenderScene;
import java.util.List;
import java.util.concurrent.ForkJoinPool;

/** Finds a place to stand in a building: in the largest room behind its glass, at eye height, looking along it. */
public final class Indoors {
    /** Eye height over the floor, and the least height of a room, metres (common practice, no source). */
    private static final double EYE = 1.5, LEAST_HEIGHT = 2, FAR = 80;
    private static final int WAYS = 16;

    private Indoors() {}

    /** Where to stand and where to look, metres. */
    public record Stand(Vec3 eye, Vec3 target) {}

    /** Null where no room with glass is found. */
    public static Stand find(RenderScene scene, ForkJoinPool pool) {
        Tracer tracer = Tracer.of(scene.geometry(), new LampShapes(List.of()), scene.surfaces(), pool);
        Openness open = new Openness(tracer);
        Ray ray = new Ray();
        Stand best = null;
        double most = 0;
        for (Rectangle r : Glazing.find(scene.geometry(), scene.surfaces())) {
            if (r.area() < 0.4) continue;
            for (int side = -1; side <= 1; side += 2) {
                Vec3 p = r.middle().plus(r.n().times(1.2 * side));
                double score = open.of(p, Vec3.UP, 48, List.of()) < 0.25 ? size(tracer, ray, standing(tracer, ray, p)) : 0;
                if (score <= most) continue;
                Vec3 q = middle(tracer, ray, standing(tracer, ray, p));
                Stand s = along(tracer, ray, q);
                if (s == null) continue;
                most = score;
                best = s;
            }
        }
        return best;
    }

    private static double free(Tracer t, Ray ray, Vec3 p, Vec3 d) {
        ray.set((float) p.x(), (float) p.y(), (float) p.z(), (float) d.x(), (float) d.y(), (float) d.z(), (float) FAR);
        return t.closest(ray) ? ray.t : FAR;
    }

    private static Vec3 way(int k) {
        double a = 2 * Math.PI * k / WAYS;
        return new Vec3(Math.cos(a), Math.sin(a), 0);
    }

    /** At eye height over what is below, where there is room for it; else null. */
    private static Vec3 standing(Tracer t, Ray ray, Vec3 p) {
        double down = free(t, ray, p, Vec3.UP.times(-1)), up = free(t, ray, p, Vec3.UP);
        // Tables are no floor: what lies lowest around counts.
        for (int k = 0; k < WAYS; k += 4) {
            Vec3 q = p.plus(way(k).times(Math.min(1.2, 0.8 * free(t, ray, p, way(k)))));
            double d = free(t, ray, q, Vec3.UP.times(-1));
            if (d < FAR && d < down + 1.2) down = Math.max(down, d);
        }
        return down + up < LEAST_HEIGHT || down >= FAR || up >= FAR ? null
                : new Vec3(p.x(), p.y(), p.z() - down + Math.min(EYE, 0.7 * (down + up)));
    }

    /** How much floor there is around a place, about. */
    private static double size(Tracer t, Ray ray, Vec3 p) {
        double sum = 0;
        if (p != null) for (int k = 0; k < WAYS; k++) sum += Math.pow(Math.min(25, free(t, ray, p, way(k))), 2);
        return sum;
    }

    /** Towards the middle of the room, in a few steps. */
    private static Vec3 middle(Tracer t, Ray ray, Vec3 p) {
        for (int step = 0; step < 4; step++)
            for (int k = 0; k < WAYS / 2; k++) {
                double a = free(t, ray, p, way(k)), b = free(t, ray, p, way(k + WAYS / 2));
                if (a < 40 && b < 40) p = p.plus(way(k).times((a - b) / 4));
            }
        Vec3 s = standing(t, ray, p);
        return s == null ? p : s;
    }

    /** From one end of the longest line through the middle along it. */
    private static Stand along(Tracer t, Ray ray, Vec3 p) {
        double most = 0;
        Vec3 along = null;
        double ahead = 0, behind = 0;
        for (int k = 0; k < WAYS; k++) {
            double a = free(t, ray, p, way(k)), b = free(t, ray, p, way(k + WAYS / 2));
            if (a < 40 && b < 40 && a + b > most) {
                most = a + b;
                along = way(k);
                ahead = a;
                behind = b;
            }
        }
        if (along == null) return null;
        Vec3 eye = p.minus(along.times(Math.max(0, behind - 0.5)));
        return new Stand(eye, p.plus(along.times(Math.max(1, ahead * 0.8))));
    }
}
