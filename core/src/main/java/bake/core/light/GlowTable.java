package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.geometry.Rounding;
import bake.core.math.Distribution;
import bake.core.math.PathSampler;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;

/**
 * Glowing triangles, in clusters: within one, triangles are chosen by what they give. A cluster is an object, or a part of one that is
 * strung out, such as the light strips of a whole wall of shelves. Immutable.
 */
final class GlowTable {
    /** Triangles of one glowing object: world corners (9 floats each), middle and normal, where they came from, and their choice. */
    private record GlowCluster(float[] corners, float[] faces, float[] power, float[] area, float[] reach, boolean closed, float[] offset,
            int[] item, int[] prim, Distribution choice) {}

    /** Square of a cluster's size over its area from which on it counts as strung out; a ball has 1, a panel 2. */
    private static final double STRUNG = 8;
    /** Up to so many triangles of a cluster are looked at one by one. */
    static final int LOOKED = 12;
    /** Numbers of a triangle's middle and unit normal. */
    private static final int FACE = 6;
    /** Triangles are looked at as they are seen from within so many times their longest edge. */
    private static final float NEAR = 6;

    private final Geometry geometry;
    private final SurfaceTable surfaces;
    private final GlowCluster[] clusters;
    /** For each item with glow: number of the glowing triangle behind each of its triangles, or -1. */
    private final int[][] glowNumber;
    /** Cluster of each glowing triangle, and the number of each cluster's first one. */
    private int[] clusterOf = new int[16], firstOf = new int[16];
    private int glowing;
    /** For each cluster: middle, half size along each axis, squared radius, intensity, and how thick it is. */
    private static final int STRIDE = 9, HALF = 3, R2 = 6, POWER = 7, THICK = 8;
    private final float[] bounds;

    GlowTable(Geometry geometry, SurfaceTable surfaces) {
        this.geometry = geometry;
        this.surfaces = surfaces;
        glowNumber = new int[geometry.items()][];
        clusters = findGlow().toArray(GlowCluster[]::new);
        bounds = new float[STRIDE * clusters.length];
        for (int i = 0; i < clusters.length; i++) store(STRIDE * i, clusters[i]);
    }

    int count() {
        return clusters.length;
    }

    private void store(int o, GlowCluster c) {
        double[] lo = {1e30, 1e30, 1e30}, hi = {-1e30, -1e30, -1e30};
        for (int k = 0; k < c.corners.length; k++) {
            lo[k % 3] = Math.min(lo[k % 3], c.corners[k]);
            hi[k % 3] = Math.max(hi[k % 3], c.corners[k]);
        }
        double r2 = 0, area = 0;
        for (int k = 0; k < 3; k++) {
            bounds[o + k] = (float) ((lo[k] + hi[k]) / 2);
            bounds[o + HALF + k] = (float) ((hi[k] - lo[k]) / 2);
            r2 += (hi[k] - lo[k]) * (hi[k] - lo[k]) / 4;
        }
        for (float a : c.area) area += a;
        bounds[o + R2] = (float) Math.max(1e-6, r2);
        bounds[o + POWER] = (float) c.choice.total() / 2;
        bounds[o + THICK] = (float) Math.max(1e-3, area / (4 * Math.sqrt(Math.max(1e-6, r2))));
    }

    float power(int cluster) {
        return bounds[STRIDE * cluster + POWER];
    }

    /** As {@link LampTable#bound}. */
    void bound(int cluster, float[] out) {
        int o = STRIDE * cluster;
        System.arraycopy(bounds, o, out, 0, 3);
        out[3] = bounds[o + R2];
        out[4] = out[5] = 0;
        out[6] = 1;
        out[7] = -1;
    }

    /** About what a cluster could give at a place: far off by the square of the distance, beside a long one by the distance to it. */
    float weight(int cluster, float px, float py, float pz) {
        int o = STRIDE * cluster;
        float x = Math.abs(px - bounds[o]), y = Math.abs(py - bounds[o + 1]), z = Math.abs(pz - bounds[o + 2]);
        float ax = Math.max(0, x - bounds[o + HALF]), ay = Math.max(0, y - bounds[o + HALF + 1]),
                az = Math.max(0, z - bounds[o + HALF + 2]);
        float beside = ax * ax + ay * ay + az * az + bounds[o + THICK] * bounds[o + THICK],
                off = Math.max(x * x + y * y + z * z, bounds[o + R2]);
        return bounds[o + POWER] / (float) Math.sqrt(beside * off);
    }

    private List<GlowCluster> findGlow() {
        List<GlowCluster> out = new ArrayList<>();
        for (int item = 0; item < geometry.items(); item++) {
            Blas b = geometry.blas(item);
            TreeMap<Integer, List<Integer>> byInstance = new TreeMap<>();
            for (int p = 0; p < b.places(); p++)
                if (b.materials()[p] >= 0 && surfaces.glows(b.materials()[p]))
                    byInstance.computeIfAbsent(geometry.instance(item, p), k -> new ArrayList<>()).add(p);
            if (byInstance.isEmpty()) continue;
            glowNumber[item] = new int[b.places()];
            Arrays.fill(glowNumber[item], -1);
            List<List<Integer>> parts = new ArrayList<>();
            for (List<Integer> prims : byInstance.values()) divide(item, b, prims, parts);
            for (List<Integer> prims : parts) {
                if (out.size() == firstOf.length) firstOf = Arrays.copyOf(firstOf, 2 * firstOf.length);
                firstOf[out.size()] = glowing;
                for (int p : prims) {
                    if (glowing == clusterOf.length) clusterOf = Arrays.copyOf(clusterOf, 2 * glowing);
                    clusterOf[glowing] = out.size();
                    glowNumber[item][p] = glowing++;
                }
                out.add(cluster(item, b, prims));
            }
        }
        return out;
    }

    /** Halves a strung out object across its longest way, again and again, as long as no piece of it is cut. */
    private void divide(List<List<Integer>> pieces, float[][] bounds, List<List<Integer>> out) {
        float[] all = GlowPieces.NOTHING.clone();
        double area = 0, size2 = 0;
        for (float[] c : bounds) {
            for (int k = 0; k < 3; k++) {
                all[k] = Math.min(all[k], c[k]);
                all[3 + k] = Math.max(all[3 + k], c[3 + k]);
            }
            area += c[6];
        }
        int axis = 0;
        for (int k = 0; k < 3; k++) {
            size2 += (double) (all[3 + k] - all[k]) * (all[3 + k] - all[k]);
            if (all[3 + k] - all[k] > all[3 + axis] - all[axis]) axis = k;
        }
        if (pieces.size() == 1 || size2 <= STRUNG * area) {
            out.add(pieces.stream().flatMap(List::stream).toList());
            return;
        }
        int along = axis;
        int[] order = java.util.stream.IntStream.range(0, bounds.length).boxed()
                .sorted(java.util.Comparator.comparingDouble(k -> bounds[k][along] + bounds[k][3 + along])).mapToInt(k -> k).toArray();
        int half = order.length / 2;
        for (int from = 0; from < order.length; from = from == 0 ? half : order.length) {
            int[] part = Arrays.copyOfRange(order, from, from == 0 ? half : order.length);
            divide(Arrays.stream(part).mapToObj(pieces::get).toList(), Arrays.stream(part).mapToObj(k -> bounds[k]).toArray(float[][]::new),
                    out);
        }
    }

    private void divide(int item, Blas b, List<Integer> prims, List<List<Integer>> out) {
        List<List<Integer>> pieces = pieces(item, b, prims);
        divide(pieces, pieces.stream().map(p -> bounds(item, b, p)).toArray(float[][]::new), out);
    }

    private List<List<Integer>> pieces(int item, Blas b, List<Integer> prims) {
        float[] c = new float[9 * prims.size()];
        for (int k = 0; k < prims.size(); k++) corners(item, b, prims.get(k), c, 9 * k);
        return GlowPieces.of(c).stream().map(p -> p.stream().map(prims::get).toList()).toList();
    }

    /** Lowest and highest corner of triangles, and their area. */
    private float[] bounds(int item, Blas b, List<Integer> prims) {
        float[] out = Arrays.copyOf(GlowPieces.NOTHING, 7), c = new float[9];
        for (int p : prims) {
            corners(item, b, p, c, 0);
            out[6] += area(c, 0);
            for (int k = 0; k < 9; k++) {
                out[k % 3] = Math.min(out[k % 3], c[k]);
                out[3 + k % 3] = Math.max(out[3 + k % 3], c[k]);
            }
        }
        return out;
    }

    private void corners(int item, Blas b, int p, float[] out, int o) {
        for (int v = 0; v < 3; v++)
            for (int r = 0; r < 3; r++) {
                float at = geometry.toWorld(item, 4 * r + 3);
                for (int axis = 0; axis < 3; axis++) at += geometry.toWorld(item, 4 * r + axis) * b.corner(p, v, axis);
                out[o + 3 * v + r] = at;
            }
    }

    private GlowCluster cluster(int item, Blas b, List<Integer> prims) {
        int n = prims.size();
        float[] corners = new float[9 * n], area = new float[n], reach = new float[n], offset = new float[n], power = new float[n],
                rgb = new float[4];
        int[] items = new int[n], primOf = new int[n];
        for (int k = 0; k < n; k++) {
            int p = prims.get(k);
            items[k] = item;
            primOf[k] = p;
            corners(item, b, p, corners, 9 * k);
            area[k] = area(corners, 9 * k);
            reach[k] = longest(corners, 9 * k);
            offset[k] = offset(item, corners, 9 * k);
            surfaces.emission(b, p, 1 / 3f, 1 / 3f, rgb);
            // Textured glow is weighed by its middle; a floor keeps every triangle possible.
            float l = 0.2126f * rgb[0] + 0.7152f * rgb[1] + 0.0722f * rgb[2];
            power[k] = area[k] * Math.max(l, 0.05f * surfaces.peakEmission(b.materials()[p]));
        }
        return new GlowCluster(corners, faces(corners, area), power, area, reach, GlowPieces.closed(corners), offset, items, primOf,
                new Distribution(power));
    }

    /** Middle and unit normal of each triangle. */
    private static float[] faces(float[] q, float[] area) {
        float[] out = new float[FACE * area.length];
        for (int k = 0; k < area.length; k++) {
            int o = 9 * k, f = FACE * k;
            float ax = q[o + 3] - q[o], ay = q[o + 4] - q[o + 1], az = q[o + 5] - q[o + 2], bx = q[o + 6] - q[o], by = q[o + 7] - q[o + 1],
                    bz = q[o + 8] - q[o + 2], l = 1 / Math.max(1e-20f, 2 * area[k]);
            out[f] = q[o] + (ax + bx) / 3;
            out[f + 1] = q[o + 1] + (ay + by) / 3;
            out[f + 2] = q[o + 2] + (az + bz) / 3;
            out[f + 3] = l * (ay * bz - az * by);
            out[f + 4] = l * (az * bx - ax * bz);
            out[f + 5] = l * (ax * by - ay * bx);
        }
        return out;
    }

    /** About what a triangle of a cluster could give at a place; 0 where it is hidden by others. */
    private static float weight(GlowCluster c, int k, float px, float py, float pz) {
        float[] f = c.faces;
        int o = FACE * k;
        float x = px - f[o], y = py - f[o + 1], z = pz - f[o + 2], d2 = x * x + y * y + z * z,
                side = x * f[o + 3] + y * f[o + 4] + z * f[o + 5];
        if (c.closed && side <= 0) return 0;
        float cos = Math.abs(side) / ((float) Math.sqrt(d2) + 1e-20f);
        return c.power[k] * (cos + 0.05f) / Math.max(d2, 0.1f * c.reach[k]);
    }

    /** Chance that a triangle of a cluster is chosen at a place. */
    private static float chance(GlowCluster c, int k, float px, float py, float pz) {
        if (c.area.length > LOOKED) return c.choice.probability(k);
        float sum = 0;
        for (int i = 0; i < c.area.length; i++) sum += weight(c, i, px, py, pz);
        return sum > 0 ? weight(c, k, px, py, pz) / sum : 0;
    }

    /** A triangle of a cluster, whose chance is in the sample then; -1 when nothing can give light. */
    private static int choose(GlowCluster c, float px, float py, float pz, float choose, LightSample s) {
        int n = c.area.length, last = -1;
        if (n > LOOKED) {
            last = c.choice.sample(choose);
            s.face = c.choice.probability(last);
            return last;
        }
        float sum = 0;
        for (int i = 0; i < n; i++) sum += s.faces[i] = weight(c, i, px, py, pz);
        float target = choose * sum;
        for (int i = 0; i < n && target >= 0; i++) {
            float w = s.faces[i];
            if (!(w > 0)) continue;
            last = i;
            target -= w;
        }
        if (last >= 0) s.face = s.faces[last] / sum;
        return last;
    }

    /** How far off the triangle rays may begin and end, metres. */
    private float offset(int item, float[] c, int o) {
        float coordinate = 0, edge = 0;
        for (int k = 0; k < 9; k++) {
            coordinate = Math.max(coordinate, Math.abs(c[o + k]));
            edge = Math.max(edge, Math.abs(c[o + k] - c[o + k % 3]));
        }
        return Rounding.offset(coordinate + geometry.farthest(item), edge);
    }

    /** Square of the longest edge. */
    private static float longest(float[] c, int o) {
        float most = 0;
        for (int v = 0; v < 3; v++) {
            int a = o + 3 * v, b = o + 3 * ((v + 1) % 3);
            float x = c[a] - c[b], y = c[a + 1] - c[b + 1], z = c[a + 2] - c[b + 2];
            most = Math.max(most, x * x + y * y + z * z);
        }
        return most;
    }

    private static float area(float[] c, int o) {
        float ax = c[o + 3] - c[o], ay = c[o + 4] - c[o + 1], az = c[o + 5] - c[o + 2];
        float bx = c[o + 6] - c[o], by = c[o + 7] - c[o + 1], bz = c[o + 8] - c[o + 2];
        float nx = ay * bz - az * by, ny = az * bx - ax * bz, nz = ax * by - ay * bx;
        return 0.5f * (float) Math.sqrt(nx * nx + ny * ny + nz * nz);
    }

    /** As {@link LampTable#facing}. */
    float facing(int cluster, float px, float py, float pz, LightSample at) {
        int o = STRIDE * cluster;
        float x = bounds[o] - px, y = bounds[o + 1] - py, z = bounds[o + 2] - pz, d2 = x * x + y * y + z * z, r2 = bounds[o + R2];
        return d2 > r2 ? at.facing(x, y, z, d2, r2) : 1;
    }

    /** Chooses a point of a cluster, which was chosen with chance {@code p}. */
    boolean sample(int cluster, float px, float py, float pz, float p, float choose, float u1, float u2, LightSample s) {
        GlowCluster c = clusters[cluster];
        int k = choose(c, px, py, pz, choose, s), o = 9 * k;
        if (k < 0) return false;
        boolean seen = near(c, k, px, py, pz, s.triangle);
        float su = (float) Math.sqrt(u1), b1 = su * (1 - u2), b2 = su * u2;
        float e1x = c.corners[o + 3] - c.corners[o], e1y = c.corners[o + 4] - c.corners[o + 1], e1z = c.corners[o + 5] - c.corners[o + 2];
        float e2x = c.corners[o + 6] - c.corners[o], e2y = c.corners[o + 7] - c.corners[o + 1], e2z = c.corners[o + 8] - c.corners[o + 2];
        float nx = e1y * e2z - e1z * e2y, ny = e1z * e2x - e1x * e2z, nz = e1x * e2y - e1y * e2x;
        if (seen) {
            s.triangle.sample(u1, u2);
            // Where its direction meets the triangle (Moeller and Trumbore 1997).
            float dx = s.triangle.x, dy = s.triangle.y, dz = s.triangle.z, tx = px - c.corners[o], ty = py - c.corners[o + 1],
                    tz = pz - c.corners[o + 2];
            float hx = dy * e2z - dz * e2y, hy = dz * e2x - dx * e2z, hz = dx * e2y - dy * e2x, inv = 1 / (e1x * hx + e1y * hy + e1z * hz);
            b1 = Math.clamp((tx * hx + ty * hy + tz * hz) * inv, 0, 1);
            b2 = Math.clamp((dx * (ty * e1z - tz * e1y) + dy * (tz * e1x - tx * e1z) + dz * (tx * e1y - ty * e1x)) * inv, 0, 1 - b1);
            if (!(b1 >= 0 && b2 >= 0)) return false;
        }
        float qx = c.corners[o] + b1 * e1x + b2 * e2x - px, qy = c.corners[o + 1] + b1 * e1y + b2 * e2y - py,
                qz = c.corners[o + 2] + b1 * e1z + b2 * e2z - pz;
        float d2 = qx * qx + qy * qy + qz * qz;
        LampTable.aim(s, qx, qy, qz, d2);
        float cos = Math.abs(nx * s.x + ny * s.y + nz * s.z) / Math.max(1e-20f, 2 * c.area[k]);
        if (cos <= 1e-6f) return false;
        s.pdf = p * s.face * (seen ? 1 / (float) s.triangle.angle : d2 / (cos * c.area[k]));
        Blas blas = geometry.blas(c.item[k]);
        surfaces.emission(blas, c.prim[k], b1, b2, s.rgb);
        float there = surfaces.share(blas, c.prim[k], b1, b2);
        s.r = there * s.rgb[0];
        s.g = there * s.rgb[1];
        s.b = there * s.rgb[2];
        s.onMesh = true;
        // Both ends of a shadow ray stand off their surfaces, each along its own normal, so that neither hides the other at slanting
        // angles.
        float e = c.offset[k] / (2 * c.area[k]) * (nx * s.x + ny * s.y + nz * s.z > 0 ? -1 : 1);
        s.tx = px + qx + e * nx;
        s.ty = py + qy + e * ny;
        s.tz = pz + qz + e * nz;
        return s.r + s.g + s.b > 0;
    }

    /** Chooses a ray on which light leaves a cluster, which was chosen with chance {@code p}. */
    boolean emit(int cluster, float p, PathSampler random, Emission e) {
        GlowCluster c = clusters[cluster];
        int k = c.choice.sample(random.next1()), o = 9 * k;
        random.next2();
        float su = (float) Math.sqrt(random.u), b1 = su * (1 - random.v), b2 = su * random.v;
        float[] q = c.corners;
        float e1x = q[o + 3] - q[o], e1y = q[o + 4] - q[o + 1], e1z = q[o + 5] - q[o + 2], e2x = q[o + 6] - q[o], e2y = q[o + 7] - q[o + 1],
                e2z = q[o + 8] - q[o + 2];
        // Light leaves both sides of a sheet; the inner one of a body's stays in there.
        float side = !c.closed && random.next1() < 0.5f ? -1 : 1, l = side / Math.max(1e-20f, 2 * c.area[k]);
        float nx = l * (e1y * e2z - e1z * e2y), ny = l * (e1z * e2x - e1x * e2z), nz = l * (e1x * e2y - e1y * e2x), off = c.offset[k];
        e.from(q[o] + b1 * e1x + b2 * e2x + off * nx, q[o + 1] + b1 * e1y + b2 * e2y + off * ny, q[o + 2] + b1 * e1z + b2 * e2z + off * nz,
                nx, ny, nz,
                (c.closed ? 1 : 2) * (float) Math.PI * c.area[k] / (p * c.choice.probability(k)), random);
        Blas blas = geometry.blas(c.item[k]);
        float[] rgb = new float[4];
        surfaces.emission(blas, c.prim[k], b1, b2, rgb);
        float there = surfaces.share(blas, c.prim[k], b1, b2);
        e.r *= there * rgb[0];
        e.g *= there * rgb[1];
        e.b *= there * rgb[2];
        return e.r + e.g + e.b > 0;
    }

    /** Number of a triangle among all that glow, or -1. */
    int number(int item, int prim) {
        return glowNumber[item] == null ? -1 : glowNumber[item][prim];
    }

    int cluster(int number) {
        return clusterOf[number];
    }

    /**
     * Density per steradian with which {@link #sample} would have chosen a point of a triangle met along a ray from a place, once its
     * cluster was chosen.
     */
    float pdf(int number, float px, float py, float pz, float distance, float cos, SphericalTriangle spare) {
        int cluster = clusterOf[number], k = number - firstOf[cluster];
        GlowCluster c = clusters[cluster];
        return chance(c, k, px, py, pz) * (near(c, k, px, py, pz, spare) ? 1 / (float) spare.angle
                : distance * distance / (cos * c.area[k]));
    }

    /** Whether a triangle is sampled as it is seen from a place; then {@code out} is how. */
    private static boolean near(GlowCluster c, int k, float px, float py, float pz, SphericalTriangle out) {
        float[] q = c.corners;
        int o = 9 * k;
        float x = (q[o] + q[o + 3] + q[o + 6]) / 3 - px, y = (q[o + 1] + q[o + 4] + q[o + 7]) / 3 - py,
                z = (q[o + 2] + q[o + 5] + q[o + 8]) / 3 - pz;
        return x * x + y * y + z * z < NEAR * NEAR * c.reach[k] && out.from(q, o, px, py, pz);
    }
}
