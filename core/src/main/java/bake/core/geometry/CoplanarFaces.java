package bake.core.geometry;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;

/**
 * Finds faces of different objects that lie in one plane, face the same way and overlap: which of them a ray meets is chance, so that they
 * flicker, or shade each other black. Faces that stand against each other back to back, as furniture stands on a floor, are hidden and none
 * of them. Triangles are sorted into planes, and within a plane compared by a sweep along one axis.
 */
public final class CoplanarFaces {
    /** Smallest triangle that is looked at, m2; farthest that two planes are apart, metres; least overlap, metres across. */
    private static final double LEAST = 4e-4, APART = 5e-5, ACROSS = 1e-3;
    /** Steps in which normals are told apart, in each axis; comparisons after which it is enough. */
    private static final int STEPS = 1000;
    private static final long ENOUGH = 60_000_000L;

    private final List<Mesh> meshes;
    private final List<Instance> instances;
    private final BooleanSupplier stop;
    private final Map<Plane, List<Triangle>> planes = new HashMap<>();
    private final Map<Long, double[]> found = new HashMap<>();
    private long compared;

    private CoplanarFaces(List<Mesh> meshes, List<Instance> instances, BooleanSupplier stop) {
        this.meshes = meshes;
        this.instances = instances;
        this.stop = stop;
    }

    /**
     * Two objects with faces in one plane.
     *
     * @param smaller number of the instance with less area in it, {@code larger} of the other
     * @param area that both cover, m2
     * @param normal which way the faces look
     */
    public record Pair(int smaller, int larger, double area, Vec3 normal) {}

    private record Plane(int x, int y, int z, long d) {}

    /** Corners in the plane, from the least along its first axis on. */
    private record Triangle(int instance, double[] u, double[] v, double least, double most, double area, double d) {}

    /**
     * The pairs of a scene, largest overlap first.
     *
     * @param stop gives up; what was found until then is returned
     */
    public static List<Pair> find(List<Mesh> meshes, List<Instance> instances, BooleanSupplier stop) {
        CoplanarFaces f = new CoplanarFaces(meshes, instances, stop);
        for (int i = 0; i < instances.size() && !stop.getAsBoolean(); i++) f.sort(i);
        return f.pairs();
    }

    private void sort(int number) {
        Mesh m = meshes.get(instances.get(number).mesh());
        Affine a = instances.get(number).toWorld();
        float[] p = m.positions();
        int[] idx = m.indices();
        for (int t = 0; t < idx.length; t += 3) {
            Vec3 x = a.point(at(p, idx[t])), y = a.point(at(p, idx[t + 1])), z = a.point(at(p, idx[t + 2]));
            Vec3 n = y.minus(x).cross(z.minus(x));
            double area = n.length() / 2;
            if (!(area > LEAST)) continue;
            n = n.times(0.5 / area);
            add(number, n, x, y, z, area);
        }
    }

    private static Vec3 at(float[] p, int i) {
        return new Vec3(p[3 * i], p[3 * i + 1], p[3 * i + 2]);
    }

    private void add(int number, Vec3 n, Vec3 x, Vec3 y, Vec3 z, double area) {
        double d = n.dot(x), ax = Math.abs(n.x()), ay = Math.abs(n.y()), az = Math.abs(n.z());
        // The plane is looked at along the axis that it faces most: areas shrink by that share.
        int drop = ax >= ay && ax >= az ? 0 : ay >= az ? 1 : 2;
        double[] u = {first(x, drop), first(y, drop), first(z, drop)}, v = {second(x, drop), second(y, drop), second(z, drop)};
        double least = Math.min(u[0], Math.min(u[1], u[2])), most = Math.max(u[0], Math.max(u[1], u[2]));
        Plane plane = new Plane((int) Math.rint(n.x() * STEPS), (int) Math.rint(n.y() * STEPS), (int) Math.rint(n.z() * STEPS),
                (long) Math.floor(d / APART));
        planes.computeIfAbsent(plane, k -> new ArrayList<>(2)).add(new Triangle(number, u, v, least, most, area, d));
    }

    private static double first(Vec3 p, int drop) {
        return drop == 0 ? p.y() : p.x();
    }

    private static double second(Vec3 p, int drop) {
        return drop == 2 ? p.y() : p.z();
    }

    private List<Pair> pairs() {
        Map<Integer, Map<Plane, Double>> covered = new HashMap<>();
        planes.forEach((plane, all) -> {
            // A plane may lie on both sides of a step.
            List<Triangle> next = planes.getOrDefault(new Plane(plane.x, plane.y, plane.z, plane.d + 1), List.of());
            Triangle[] sorted = new Triangle[all.size() + next.size()];
            for (int i = 0; i < sorted.length; i++) sorted[i] = i < all.size() ? all.get(i) : next.get(i - all.size());
            if (Arrays.stream(sorted).mapToInt(Triangle::instance).distinct().limit(2).count() < 2) return;
            for (Triangle t : all) covered.computeIfAbsent(t.instance, k -> new HashMap<>()).merge(plane, t.area, Double::sum);
            double share = Math.max(Math.abs(plane.x), Math.max(Math.abs(plane.y), Math.abs(plane.z))) / (double) STEPS;
            Arrays.sort(sorted, Comparator.comparingDouble(Triangle::least));
            sweep(sorted, plane, share);
        });
        List<Pair> out = new ArrayList<>();
        found.forEach((key, what) -> {
            int a = (int) (key >> 32), b = key.intValue();
            double areaA = covered.getOrDefault(a, Map.of()).values().stream().mapToDouble(x -> x).max().orElse(0),
                    areaB = covered.getOrDefault(b, Map.of()).values().stream().mapToDouble(x -> x).max().orElse(0);
            Vec3 n = new Vec3(what[1], what[2], what[3]).normalized();
            out.add(areaA <= areaB ? new Pair(a, b, what[0], n) : new Pair(b, a, what[0], n));
        });
        out.sort(Comparator.comparingDouble((Pair p) -> -p.area).thenComparingInt(Pair::smaller).thenComparingInt(Pair::larger));
        return out;
    }

    private void sweep(Triangle[] all, Plane plane, double share) {
        for (int i = 0; i < all.length; i++) {
            Triangle a = all[i];
            for (int k = i + 1; k < all.length && all[k].least < a.most - ACROSS; k++) {
                Triangle b = all[k];
                if (++compared > ENOUGH || (compared & 0xffff) == 0 && stop.getAsBoolean()) return;
                boolean here = Math.floor(a.d / APART) == plane.d || Math.floor(b.d / APART) == plane.d;
                if (a.instance == b.instance || !here || Math.abs(a.d - b.d) > APART) continue;
                double area = overlap(a, b) / share;
                if (area <= 0) continue;
                long key = (long) Math.min(a.instance, b.instance) << 32 | Math.max(a.instance, b.instance);
                double[] w = found.computeIfAbsent(key, x -> new double[4]);
                w[0] += area;
                w[1] += plane.x;
                w[2] += plane.y;
                w[3] += plane.z;
            }
        }
    }

    /** Area that two triangles share in the plane, by clipping (Sutherland and Hodgman 1974); 0 for a mere touch. */
    private static double overlap(Triangle a, Triangle b) {
        double[] u = a.u.clone(), v = a.v.clone();
        double turn = cross(b.u[0], b.v[0], b.u[1], b.v[1], b.u[2], b.v[2]) < 0 ? -1 : 1;
        for (int e = 0; e < 3 && u.length > 0; e++) {
            int f = (e + 1) % 3;
            double[] nu = new double[2 * u.length + 2], nv = new double[2 * u.length + 2];
            int n = 0;
            for (int i = 0; i < u.length; i++) {
                int j = (i + 1) % u.length;
                double p = turn * cross(b.u[e], b.v[e], b.u[f], b.v[f], u[i], v[i]), q = turn * cross(b.u[e], b.v[e], b.u[f], b.v[f], u[j],
                        v[j]);
                if (p >= 0) {
                    nu[n] = u[i];
                    nv[n++] = v[i];
                }
                if (p >= 0 != q >= 0) {
                    double s = p / (p - q);
                    nu[n] = u[i] + s * (u[j] - u[i]);
                    nv[n++] = v[i] + s * (v[j] - v[i]);
                }
            }
            u = Arrays.copyOf(nu, n);
            v = Arrays.copyOf(nv, n);
        }
        double area = 0, round = 0;
        for (int i = 0; i < u.length; i++) {
            int j = (i + 1) % u.length;
            area += u[i] * v[j] - u[j] * v[i];
            round += Math.hypot(u[j] - u[i], v[j] - v[i]);
        }
        area = Math.abs(area) / 2;
        // A strip as narrow as rounding is no overlap.
        return area > ACROSS * round / 2 ? area : 0;
    }

    private static double cross(double ax, double ay, double bx, double by, double cx, double cy) {
        return (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    }
}
