package bake.core.light;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Which glowing triangles hang together, and whether they close in a body. Triangles are nine numbers each: three corners. */
final class GlowPieces {
    /** Bounds of nothing: lowest and highest corner. */
    static final float[] NOTHING = {Float.POSITIVE_INFINITY, Float.POSITIVE_INFINITY, Float.POSITIVE_INFINITY, Float.NEGATIVE_INFINITY,
            Float.NEGATIVE_INFINITY, Float.NEGATIVE_INFINITY};

    private GlowPieces() {}

    /** Numbers of the triangles of each piece; two that share a corner are of one piece. */
    static List<List<Integer>> of(float[] c) {
        int n = c.length / 9;
        int[] root = new int[n];
        Map<List<Float>, Integer> at = new HashMap<>();
        for (int k = 0; k < n; k++) {
            root[k] = k;
            for (int v = 0; v < 3; v++) {
                Integer other = at.putIfAbsent(List.of(c[9 * k + 3 * v], c[9 * k + 3 * v + 1], c[9 * k + 3 * v + 2]), k);
                if (other != null) root[find(root, k)] = find(root, other);
            }
        }
        Map<Integer, List<Integer>> pieces = new java.util.LinkedHashMap<>();
        for (int k = 0; k < n; k++) pieces.computeIfAbsent(find(root, k), r -> new ArrayList<>()).add(k);
        return List.copyOf(pieces.values());
    }

    private static int find(int[] root, int k) {
        while (root[k] != k) k = root[k] = root[root[k]];
        return k;
    }

    /** Whether triangles close in a body whose outer side is their front, so that those that face away are hidden by others. */
    static boolean closed(float[] c) {
        Map<List<Float>, Integer> edges = new HashMap<>();
        double volume = 0;
        for (int o = 0; o < c.length; o += 9) {
            volume += c[o] * (c[o + 4] * c[o + 8] - c[o + 5] * c[o + 7]) + c[o + 1] * (c[o + 5] * c[o + 6] - c[o + 3] * c[o + 8]) + c[o + 2]
                    * (c[o + 3] * c[o + 7] - c[o + 4] * c[o + 6]);
            for (int v = 0; v < 3; v++) {
                int a = o + 3 * v, b = o + 3 * ((v + 1) % 3);
                edges.merge(List.of(c[a], c[a + 1], c[a + 2], c[b], c[b + 1], c[b + 2]), 1, Integer::sum);
            }
        }
        for (List<Float> e : edges.keySet())
            if (edges.get(e) != 1 || !edges.containsKey(List.of(e.get(3), e.get(4), e.get(5), e.get(0), e.get(1), e.get(2)))) return false;
        return volume > 0;
    }
}
