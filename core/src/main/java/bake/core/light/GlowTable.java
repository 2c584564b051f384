package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.math.PathSampler;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;

/** Glowing triangles, in clusters: within one, triangles are chosen by what they give. Immutable. */
final class GlowTable {
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
        float[] q = c.corners();
        for (int k = 0; k < q.length; k++) {
            lo[k % 3] = Math.min(lo[k % 3], q[k]);
            hi[k % 3] = Math.max(hi[k % 3], q[k]);
        }
        double r2 = 0, area = 0;
        for (int k = 0; k < 3; k++) {
            bounds[o + k] = (float) ((lo[k] + hi[k]) / 2);
            bounds[o + HALF + k] = (float) ((hi[k] - lo[k]) / 2);
            r2 += (hi[k] - lo[k]) * (hi[k] - lo[k]) / 4;
        }
        for (float a : c.area()) area += a;
        bounds[o + R2] = (float) Math.max(1e-6, r2);
        bounds[o + POWER] = (float) c.choice().total() / 2;
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
        GlowClusters maker = new GlowClusters(geometry, surfaces);
        for (int item = 0; item < geometry.items(); item++) {
            Blas b = geometry.blas(item);
            TreeMap<Integer, List<Integer>> byInstance = new TreeMap<>();
            for (int p = 0; p < b.places(); p++)
                if (b.materials()[p] >= 0 && surfaces.glows(b.materials()[p]))
                    byInstance.computeIfAbsent(geometry.instance(item, p), k -> new ArrayList<>()).add(p);
            if (byInstance.isEmpty()) continue;
            glowNumber[item] = new int[b.places()];
            Arrays.fill(glowNumber[item], -1);
            for (List<Integer> prims : maker.divided(item, byInstance.values())) {
                if (out.size() == firstOf.length) firstOf = Arrays.copyOf(firstOf, 2 * firstOf.length);
                firstOf[out.size()] = glowing;
                for (int p : prims) {
                    if (glowing == clusterOf.length) clusterOf = Arrays.copyOf(clusterOf, 2 * glowing);
                    clusterOf[glowing] = out.size();
                    glowNumber[item][p] = glowing++;
                }
                out.add(maker.cluster(item, prims));
            }
        }
        return out;
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
        int k = c.choose(px, py, pz, choose, s), o = 9 * k;
        float[] q = c.corners();
        if (k < 0) return false;
        boolean seen = c.near(k, px, py, pz, s.triangle);
        float su = (float) Math.sqrt(u1), b1 = su * (1 - u2), b2 = su * u2;
        float e1x = q[o + 3] - q[o], e1y = q[o + 4] - q[o + 1], e1z = q[o + 5] - q[o + 2];
        float e2x = q[o + 6] - q[o], e2y = q[o + 7] - q[o + 1], e2z = q[o + 8] - q[o + 2];
        float nx = e1y * e2z - e1z * e2y, ny = e1z * e2x - e1x * e2z, nz = e1x * e2y - e1y * e2x;
        if (seen) {
            s.triangle.sample(u1, u2);
            // Where its direction meets the triangle (Moeller and Trumbore 1997).
            float dx = s.triangle.x, dy = s.triangle.y, dz = s.triangle.z, tx = px - q[o], ty = py - q[o + 1],
                    tz = pz - q[o + 2];
            float hx = dy * e2z - dz * e2y, hy = dz * e2x - dx * e2z, hz = dx * e2y - dy * e2x, inv = 1 / (e1x * hx + e1y * hy + e1z * hz);
            b1 = Math.clamp((tx * hx + ty * hy + tz * hz) * inv, 0, 1);
            b2 = Math.clamp((dx * (ty * e1z - tz * e1y) + dy * (tz * e1x - tx * e1z) + dz * (tx * e1y - ty * e1x)) * inv, 0, 1 - b1);
            if (!(b1 >= 0 && b2 >= 0)) return false;
        }
        float qx = q[o] + b1 * e1x + b2 * e2x - px, qy = q[o + 1] + b1 * e1y + b2 * e2y - py,
                qz = q[o + 2] + b1 * e1z + b2 * e2z - pz;
        float d2 = qx * qx + qy * qy + qz * qz;
        LampTable.aim(s, qx, qy, qz, d2);
        float cos = Math.abs(nx * s.x + ny * s.y + nz * s.z) / Math.max(1e-20f, 2 * c.area()[k]);
        if (cos <= 1e-6f) return false;
        s.pdf = p * s.face * (seen ? 1 / (float) s.triangle.angle : d2 / (cos * c.area()[k]));
        Blas blas = geometry.blas(c.item()[k]);
        surfaces.emission(blas, c.prim()[k], b1, b2, s.rgb);
        float there = surfaces.share(blas, c.prim()[k], b1, b2);
        s.r = there * s.rgb[0];
        s.g = there * s.rgb[1];
        s.b = there * s.rgb[2];
        s.onMesh = true;
        // Both ends of a shadow ray stand off their surfaces, each along its own normal, so that neither hides the other at slanting
        // angles.
        float e = c.offset()[k] / (2 * c.area()[k]) * (nx * s.x + ny * s.y + nz * s.z > 0 ? -1 : 1);
        s.tx = px + qx + e * nx;
        s.ty = py + qy + e * ny;
        s.tz = pz + qz + e * nz;
        return s.r + s.g + s.b > 0;
    }

    /** Chooses a ray on which light leaves a cluster, which was chosen with chance {@code p}. */
    boolean emit(int cluster, float p, PathSampler random, Emission e) {
        GlowCluster c = clusters[cluster];
        int k = c.choice().sample(random.next1()), o = 9 * k;
        random.next2();
        float su = (float) Math.sqrt(random.u), b1 = su * (1 - random.v), b2 = su * random.v;
        float[] q = c.corners();
        float e1x = q[o + 3] - q[o], e1y = q[o + 4] - q[o + 1], e1z = q[o + 5] - q[o + 2], e2x = q[o + 6] - q[o], e2y = q[o + 7] - q[o + 1],
                e2z = q[o + 8] - q[o + 2];
        // Light leaves both sides of a sheet; the inner one of a body's stays in there.
        float side = !c.closed() && random.next1() < 0.5f ? -1 : 1, l = side / Math.max(1e-20f, 2 * c.area()[k]);
        float nx = l * (e1y * e2z - e1z * e2y), ny = l * (e1z * e2x - e1x * e2z), nz = l * (e1x * e2y - e1y * e2x), off = c.offset()[k];
        e.from(q[o] + b1 * e1x + b2 * e2x + off * nx, q[o + 1] + b1 * e1y + b2 * e2y + off * ny, q[o + 2] + b1 * e1z + b2 * e2z + off * nz,
                nx, ny, nz,
                (c.closed() ? 1 : 2) * (float) Math.PI * c.area()[k] / (p * c.choice().probability(k)), random);
        Blas blas = geometry.blas(c.item()[k]);
        float[] rgb = new float[4];
        surfaces.emission(blas, c.prim()[k], b1, b2, rgb);
        float there = surfaces.share(blas, c.prim()[k], b1, b2);
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
        return c.chance(k, px, py, pz) * (c.near(k, px, py, pz, spare) ? 1 / (float) spare.angle
                : distance * distance / (cos * c.area()[k]));
    }
}
