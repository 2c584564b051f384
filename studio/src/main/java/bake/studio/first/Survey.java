package bake.studio.first;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/** Casts rays at a scene to learn what is seen from where. Not for several threads at a time. */
final class Survey {
    private static final int ACROSS = 64, DOWN = 36, AROUND = 128, SIDES = 6;
    private static final double GOLDEN = Math.PI * (3 - Math.sqrt(5));
    /** So far away counts as outside, metres. */
    private static final double FAR = 1e5, NEAR_ENOUGH = 30;

    private final RenderScene scene;
    private final Ray ray = new Ray();
    private final SurfacePoint point = new SurfacePoint();

    Survey(RenderScene scene) {
        this.scene = scene;
    }

    /**
     * What a camera sees.
     *
     * @param entropy viewpoint entropy, bits
     * @param share of the picture that is filled, 0 to 1
     * @param near distance that a twentieth of the picture is nearer than, metres
     */
    record Seen(double entropy, double share, double near) {}

    /**
     * Viewpoint entropy H = -sum p log2 p over the shares of the picture that faces fill, with the background as one of them (Vazquez,
     * Feixas, Sbert and Heidrich 2001, eq. 2). A face is here what one object shows of one material towards one of six sides: a wall of a
     * thousand triangles says no more than one of two.
     */
    Seen look(Camera c) {
        Lens lens = new Lens(c, ACROSS, DOWN);
        Map<Long, Integer> faces = new HashMap<>();
        double[] distances = new double[ACROSS * DOWN];
        float[] r = new float[6];
        int filled = 0;
        for (int j = 0; j < DOWN; j++)
            for (int i = 0; i < ACROSS; i++) {
                lens.ray((i + 0.5f) / ACROSS, (j + 0.5f) / DOWN, 0, 0, r);
                ray.set(r[0], r[1], r[2], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
                long face = face();
                distances[j * ACROSS + i] = face < 0 ? FAR : ray.t;
                if (face >= 0) filled++;
                faces.merge(face, 1, Integer::sum);
            }
        double h = 0;
        for (int n : faces.values()) {
            double p = n / (double) distances.length;
            h -= p * Math.log(p) / Math.log(2);
        }
        Arrays.sort(distances);
        return new Seen(h, filled / (double) distances.length, distances[distances.length / 20]);
    }

    /** What the ray meets, or -1. */
    private long face() {
        if (!scene.tracer().closest(ray) || ray.item >= scene.tracer().firstLamp()) return -1;
        point.load(scene.geometry(), scene.surfaces(), ray);
        float x = Math.abs(point.gx), y = Math.abs(point.gy), z = Math.abs(point.gz);
        int side = x >= y && x >= z ? point.gx > 0 ? 0 : 1 : y >= z ? point.gy > 0 ? 2 : 3 : point.gz > 0 ? 4 : 5;
        return ((long) scene.geometry().instance(ray.item, ray.prim) << 24 ^ point.material) * SIDES + side;
    }

    /** Share of a camera's picture that each object, by material, fills. */
    Map<Long, Double> things(Camera c) {
        Lens lens = new Lens(c, ACROSS, DOWN);
        Map<Long, Double> seen = new HashMap<>();
        float[] r = new float[6];
        for (int k = 0; k < ACROSS * DOWN; k++) {
            lens.ray((k % ACROSS + 0.5f) / ACROSS, (k / ACROSS + 0.5f) / DOWN, 0, 0, r);
            ray.set(r[0], r[1], r[2], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
            long face = face();
            if (face >= 0) seen.merge(face / SIDES, 1.0 / ACROSS / DOWN, Double::sum);
        }
        return seen;
    }

    /**
     * What stands around a place.
     *
     * @param things by object and material
     * @param outsides share of the surface around that shows its outside, 0 to 1: within a solid next to none
     */
    record Around(Set<Long> things, double outsides) {}

    Around around(Vec3 at) {
        Set<Long> out = new HashSet<>();
        double outsides = 0, all = 0;
        for (int i = 0; i < 2 * AROUND; i++) {
            double z = 1 - (i + 0.5) / AROUND, s = Math.sqrt(1 - z * z), a = i * GOLDEN;
            ray.set((float) at.x(), (float) at.y(), (float) at.z(), (float) (s * Math.cos(a)), (float) (s * Math.sin(a)), (float) z,
                    Float.POSITIVE_INFINITY);
            long face = face();
            if (face < 0) continue;
            out.add(face / SIDES);
            // Each direction stands for a piece of surface that grows with its distance.
            double area = Math.min(NEAR_ENOUGH, ray.t) * Math.min(NEAR_ENOUGH, ray.t);
            all += area;
            if (point.front) outsides += area;
        }
        return new Around(out, all > 0 ? outsides / all : 0);
    }

    /** How far one gets, metres; {@link #FAR} for out of the model. */
    double free(Vec3 from, Vec3 along) {
        ray.set((float) from.x(), (float) from.y(), (float) from.z(), (float) along.x(), (float) along.y(), (float) along.z(),
                Float.POSITIVE_INFINITY);
        return scene.tracer().closest(ray) ? ray.t : FAR;
    }

    boolean leaves(double distance) {
        return distance >= FAR;
    }

    /** Share of all directions above the horizon in which something stands, 0 to 1: how much a place is indoors. */
    double enclosed(Vec3 at) {
        int met = 0;
        for (int i = 0; i < AROUND; i++) {
            double z = (i + 0.5) / AROUND, s = Math.sqrt(1 - z * z), a = i * GOLDEN;
            if (!leaves(free(at, new Vec3(s * Math.cos(a), s * Math.sin(a), z)))) met++;
        }
        return met / (double) AROUND;
    }
}
