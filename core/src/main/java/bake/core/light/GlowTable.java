package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.geometry.Rounding;
import bake.core.math.Distribution;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;

/** Glowing triangles, in clusters of one object each: its triangles are chosen by what they give. Immutable. */
final class GlowTable {
    /** Triangles of one glowing object: world corners (9 floats each), where they came from, and their choice. */
    private record GlowCluster(float[] corners, float[] area, float[] offset, int[] item, int[] prim, Distribution choice) {}

    private final Geometry geometry;
    private final SurfaceTable surfaces;
    private final GlowCluster[] clusters;
    /** For each item with glow: number of the glowing triangle behind each of its triangles, or -1. */
    private final int[][] glowNumber;
    /** Cluster of each glowing triangle, and the number of each cluster's first one. */
    private int[] clusterOf = new int[16], firstOf = new int[16];
    private int glowing;
    /** For each cluster: middle, squared half size, intensity. */
    private final float[] bounds;

    GlowTable(Geometry geometry, SurfaceTable surfaces) {
        this.geometry = geometry;
        this.surfaces = surfaces;
        glowNumber = new int[geometry.items()][];
        clusters = findGlow().toArray(GlowCluster[]::new);
        bounds = new float[5 * clusters.length];
        for (int i = 0; i < clusters.length; i++) store(5 * i, clusters[i]);
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
        double r2 = 0;
        for (int k = 0; k < 3; k++) {
            bounds[o + k] = (float) ((lo[k] + hi[k]) / 2);
            r2 += (hi[k] - lo[k]) * (hi[k] - lo[k]) / 4;
        }
        bounds[o + 3] = (float) Math.max(1e-6, r2);
        bounds[o + 4] = (float) c.choice.total() / 2;
    }

    float power(int cluster) {
        return bounds[5 * cluster + 4];
    }

    /** As {@link LampTable#bound}. */
    void bound(int cluster, float[] out) {
        System.arraycopy(bounds, 5 * cluster, out, 0, 4);
        out[4] = out[5] = 0;
        out[6] = 1;
        out[7] = -1;
    }

    /** About what a cluster could give at a place. */
    float weight(int cluster, float px, float py, float pz) {
        int o = 5 * cluster;
        float x = px - bounds[o], y = py - bounds[o + 1], z = pz - bounds[o + 2];
        return bounds[o + 4] / Math.max(x * x + y * y + z * z, bounds[o + 3]);
    }

    private List<GlowCluster> findGlow() {
        List<GlowCluster> out = new ArrayList<>();
        for (int item = 0; item < geometry.items(); item++) {
            Blas b = geometry.blas(item);
            TreeMap<Integer, List<Integer>> byInstance = new TreeMap<>();
            for (int p = 0; p < b.places(); p++)
                if (b.materials()[p] >= 0 && surfaces.glows(b.materials()[p])) byInstance.computeIfAbsent(geometry.instance(item, p), k -> new ArrayList<>()).add(p);
            if (byInstance.isEmpty()) continue;
            glowNumber[item] = new int[b.places()];
            Arrays.fill(glowNumber[item], -1);
            for (List<Integer> prims : byInstance.values()) {
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

    private GlowCluster cluster(int item, Blas b, List<Integer> prims) {
        int n = prims.size();
        float[] corners = new float[9 * n], area = new float[n], offset = new float[n], power = new float[n], rgb = new float[4];
        int[] items = new int[n], primOf = new int[n];
        for (int k = 0; k < n; k++) {
            int p = prims.get(k);
            items[k] = item;
            primOf[k] = p;
            for (int v = 0; v < 3; v++)
                for (int r = 0; r < 3; r++) {
                    float at = geometry.toWorld(item, 4 * r + 3);
                    for (int axis = 0; axis < 3; axis++) at += geometry.toWorld(item, 4 * r + axis) * b.corner(p, v, axis);
                    corners[9 * k + 3 * v + r] = at;
                }
            area[k] = area(corners, 9 * k);
            offset[k] = offset(item, corners, 9 * k);
            surfaces.emission(b, p, 1 / 3f, 1 / 3f, rgb);
            // Textured glow is weighed by its middle; a floor keeps every triangle possible.
            float l = 0.2126f * rgb[0] + 0.7152f * rgb[1] + 0.0722f * rgb[2];
            power[k] = area[k] * Math.max(l, 0.05f * surfaces.peakEmission(b.materials()[p]));
        }
        return new GlowCluster(corners, area, offset, items, primOf, new Distribution(power));
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

    private static float area(float[] c, int o) {
        float ax = c[o + 3] - c[o], ay = c[o + 4] - c[o + 1], az = c[o + 5] - c[o + 2];
        float bx = c[o + 6] - c[o], by = c[o + 7] - c[o + 1], bz = c[o + 8] - c[o + 2];
        float nx = ay * bz - az * by, ny = az * bx - ax * bz, nz = ax * by - ay * bx;
        return 0.5f * (float) Math.sqrt(nx * nx + ny * ny + nz * nz);
    }

    /** As {@link LampTable#facing}. */
    float facing(int cluster, float px, float py, float pz, LightSample at) {
        int o = 5 * cluster;
        float x = bounds[o] - px, y = bounds[o + 1] - py, z = bounds[o + 2] - pz, d2 = x * x + y * y + z * z, r2 = bounds[o + 3];
        return d2 > r2 ? at.facing(x, y, z, d2, r2) : 1;
    }

    /** Chooses a point of a cluster, which was chosen with chance {@code p}. */
    boolean sample(int cluster, float px, float py, float pz, float p, float choose, float u1, float u2, LightSample s) {
        GlowCluster c = clusters[cluster];
        int k = c.choice.sample(choose), o = 9 * k;
        float su = (float) Math.sqrt(u1), b1 = su * (1 - u2), b2 = su * u2;
        float e1x = c.corners[o + 3] - c.corners[o], e1y = c.corners[o + 4] - c.corners[o + 1], e1z = c.corners[o + 5] - c.corners[o + 2];
        float e2x = c.corners[o + 6] - c.corners[o], e2y = c.corners[o + 7] - c.corners[o + 1], e2z = c.corners[o + 8] - c.corners[o + 2];
        float qx = c.corners[o] + b1 * e1x + b2 * e2x - px, qy = c.corners[o + 1] + b1 * e1y + b2 * e2y - py,
                qz = c.corners[o + 2] + b1 * e1z + b2 * e2z - pz;
        float d2 = qx * qx + qy * qy + qz * qz;
        LampTable.aim(s, qx, qy, qz, d2);
        float nx = e1y * e2z - e1z * e2y, ny = e1z * e2x - e1x * e2z, nz = e1x * e2y - e1y * e2x;
        float cos = Math.abs(nx * s.x + ny * s.y + nz * s.z) / Math.max(1e-20f, 2 * c.area[k]);
        if (cos <= 1e-6f) return false;
        s.pdf = p * c.choice.probability(k) * d2 / (cos * c.area[k]);
        Blas blas = geometry.blas(c.item[k]);
        surfaces.emission(blas, c.prim[k], b1, b2, s.rgb);
        float there = surfaces.share(blas, c.prim[k], b1, b2);
        s.r = there * s.rgb[0];
        s.g = there * s.rgb[1];
        s.b = there * s.rgb[2];
        s.onMesh = true;
        // Both ends of a shadow ray stand off their surfaces, each along its own normal, so that neither hides the other at slanting angles.
        float e = c.offset[k] / (2 * c.area[k]) * (nx * s.x + ny * s.y + nz * s.z > 0 ? -1 : 1);
        s.tx = px + qx + e * nx;
        s.ty = py + qy + e * ny;
        s.tz = pz + qz + e * nz;
        return s.r + s.g + s.b > 0;
    }

    /** Number of a triangle among all that glow, or -1. */
    int number(int item, int prim) {
        return glowNumber[item] == null ? -1 : glowNumber[item][prim];
    }

    int cluster(int number) {
        return clusterOf[number];
    }

    /** Density per steradian with which {@link #sample} would have chosen a point of a triangle met along a ray, once its cluster was chosen. */
    float pdf(int number, float distance, float cos) {
        int cluster = clusterOf[number], k = number - firstOf[cluster];
        return clusters[cluster].choice.probability(k) * distance * distance / (cos * clusters[cluster].area[k]);
    }
}
