package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.geometry.Rounding;
import bake.core.math.Distribution;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;

/**
 * Makes clusters of what glows. A cluster is an object, or a part of one that is strung out, such as the light strips of a whole wall of
 * shelves.
 */
final class GlowClusters {
    /** Square of a cluster's size over its area from which on it counts as strung out; a ball has 1, a panel 2. */
    private static final double STRUNG = 8;

    private final Geometry geometry;
    private final SurfaceTable surfaces;

    GlowClusters(Geometry geometry, SurfaceTable surfaces) {
        this.geometry = geometry;
        this.surfaces = surfaces;
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

    /** Objects of an item, strung out ones in parts. */
    List<List<Integer>> divided(int item, Collection<List<Integer>> objects) {
        Blas b = geometry.blas(item);
        List<List<Integer>> out = new ArrayList<>();
        for (List<Integer> prims : objects) {
            List<List<Integer>> pieces = pieces(item, b, prims);
            divide(pieces, pieces.stream().map(p -> bounds(item, b, p)).toArray(float[][]::new), out);
        }
        return out;
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

    /** The cluster of some triangles of an item. */
    GlowCluster cluster(int item, List<Integer> prims) {
        Blas b = geometry.blas(item);
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
        float[] out = new float[GlowCluster.FACE * area.length];
        for (int k = 0; k < area.length; k++) {
            int o = 9 * k, f = GlowCluster.FACE * k;
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
}
