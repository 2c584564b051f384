package bake.core.light;

import java.util.Arrays;

/**
 * Chooses one of many emitters at a cost that hardly grows with their number: a tree over them in which each node knows the power,
 * place and directions of what is below it (Conty Estevez and Kulla 2018, "Importance Sampling of Many Lights with Adaptive Tree
 * Splitting"). A choice looks at a small cut through the tree, finer near the point, and goes down from there by chance; in the leaves
 * emitters weigh what they do among few. Immutable.
 */
final class LightTree {
    /** Most nodes of a cut. */
    static final int CUT = 14;
    /** Most parts that a guide tells apart. */
    static final int CLUSTERS = 32;
    /** A node is split while the point is nearer than this many of its radii, squared. */
    private static final float NEAR = 9;
    private static final int LEAF = 4, STRIDE = 12;
    private static final int R2 = 3, POWER = 4, AXIS = 5, COS_O = 8, SIN_O = 9, COS_E = 10;

    private final Emitters emitters;
    private final float[] data;
    /**
     * For each node: its first child (the other follows), or -1; its parent; for leaves, where its emitters are in the order and how many.
     */
    private final int[] left, parent, first, size;
    private final int[] order, leafOf;
    private int nodes;
    /** Nodes that together hold all emitters, which a guide tells apart; the cluster of each emitter. */
    private final int[] clusters, clusterOf;

    LightTree(Emitters emitters) {
        this.emitters = emitters;
        int n = emitters.count();
        order = new int[n];
        leafOf = new int[n];
        for (int i = 0; i < n; i++) order[i] = i;
        int most = 2 * n;
        data = new float[STRIDE * most];
        left = new int[most];
        parent = new int[most];
        first = new int[most];
        size = new int[most];
        float[] bounds = new float[8 * n];
        float[] one = new float[8];
        for (int i = 0; i < n; i++) {
            emitters.bound(i, one);
            System.arraycopy(one, 0, bounds, 8 * i, 8);
        }
        nodes = 1;
        parent[0] = -1;
        build(0, 0, n, bounds);
        clusters = divide();
        clusterOf = new int[n];
        for (int c = 0; c < clusters.length; c++)
            for (int k = first[clusters[c]]; k < first[clusters[c]] + size[clusters[c]]; k++) clusterOf[order[k]] = c;
    }

    /** The root, its strongest and widest part divided again and again. */
    private int[] divide() {
        int[] out = new int[CLUSTERS];
        int n = 1;
        while (n < CLUSTERS) {
            int best = -1;
            double most = 0;
            for (int k = 0; k < n; k++) {
                int o = STRIDE * out[k];
                double w = data[o + POWER] * Math.sqrt(data[o + R2]);
                if (left[out[k]] >= 0 && w > most) {
                    most = w;
                    best = k;
                }
            }
            if (best < 0) break;
            out[n++] = left[out[best]] + 1;
            out[best] = left[out[best]];
        }
        return Arrays.copyOf(out, n);
    }

    int clusters() {
        return clusters.length;
    }

    private void build(int node, int from, int to, float[] b) {
        summarize(node, from, to, b);
        first[node] = from;
        size[node] = to - from;
        left[node] = -1;
        if (to - from <= LEAF) {
            for (int k = from; k < to; k++) leafOf[order[k]] = node;
            return;
        }
        int axis = longest(from, to, b), middle = (from + to) / 2;
        Integer[] part = new Integer[to - from];
        for (int k = from; k < to; k++) part[k - from] = order[k];
        Arrays.sort(part, (x, y) -> Float.compare(b[8 * x + axis], b[8 * y + axis]));
        for (int k = from; k < to; k++) order[k] = part[k - from];
        int child = nodes;
        nodes += 2;
        left[node] = child;
        parent[child] = parent[child + 1] = node;
        build(child, from, middle, b);
        build(child + 1, middle, to, b);
    }

    private int longest(int from, int to, float[] b) {
        int best = 0;
        float most = -1;
        for (int axis = 0; axis < 3; axis++) {
            float lo = Float.POSITIVE_INFINITY, hi = Float.NEGATIVE_INFINITY;
            for (int k = from; k < to; k++) {
                lo = Math.min(lo, b[8 * order[k] + axis]);
                hi = Math.max(hi, b[8 * order[k] + axis]);
            }
            if (hi - lo > most) {
                most = hi - lo;
                best = axis;
            }
        }
        return best;
    }

    /** Middle, radius, power and cone of directions of the emitters from..to. */
    private void summarize(int node, int from, int to, float[] b) {
        int o = STRIDE * node;
        double power = 0;
        double[] lo = {1e30, 1e30, 1e30}, hi = {-1e30, -1e30, -1e30}, axis = new double[3];
        boolean every = false;
        for (int k = from; k < to; k++) {
            int e = 8 * order[k];
            double w = emitters.power(order[k]);
            power += w;
            every |= b[e + 7] <= -1;
            for (int a = 0; a < 3; a++) {
                lo[a] = Math.min(lo[a], b[e + a]);
                hi[a] = Math.max(hi[a], b[e + a]);
                axis[a] += b[e + 4 + a];
            }
        }
        double r = 0;
        for (int a = 0; a < 3; a++) data[o + a] = (float) ((lo[a] + hi[a]) / 2);
        for (int k = from; k < to; k++) {
            int e = 8 * order[k];
            r = Math.max(r, Math.sqrt(square(b[e] - data[o]) + square(b[e + 1] - data[o + 1]) + square(b[e + 2] - data[o + 2]))
                    + Math.sqrt(b[e + 3]));
        }
        data[o + R2] = (float) (r * r);
        data[o + POWER] = (float) power;
        double l = Math.sqrt(axis[0] * axis[0] + axis[1] * axis[1] + axis[2] * axis[2]), spread = 1, edge = 1;
        for (int k = from; k < to; k++) {
            int e = 8 * order[k];
            if (l > 0) spread = Math.min(spread, (b[e + 4] * axis[0] + b[e + 5] * axis[1] + b[e + 6] * axis[2]) / l);
            edge = Math.min(edge, b[e + 7]);
        }
        every |= !(l > 1e-6) || spread < 0;
        for (int a = 0; a < 3; a++) data[o + AXIS + a] = (float) (l > 0 ? axis[a] / l : 0);
        // A hair wider, against rounding.
        spread = Math.max(0, spread - 1e-4);
        data[o + COS_O] = every ? -2 : (float) spread;
        data[o + SIN_O] = (float) Math.sqrt(Math.max(0, 1 - spread * spread));
        data[o + COS_E] = (float) edge - 1e-4f;
    }

    private static double square(double x) {
        return x * x;
    }

    /** About the most that what is below a node could give at a point; nothing where all of it faces away. */
    private float weight(int node, float px, float py, float pz, LightSample at) {
        int o = STRIDE * node;
        float x = px - data[o], y = py - data[o + 1], z = pz - data[o + 2], d2 = x * x + y * y + z * z, r2 = data[o + R2];
        float w = data[o + POWER] / Math.max(d2, r2), co = data[o + COS_O];
        if (d2 <= r2) return w;
        w *= at.facing(-x, -y, -z, d2, r2);
        if (co < -1 || !(w > 0)) return w;
        // The angle between the axis and the point, less the spread of the axes, less what the node's sphere fills.
        float c = (x * data[o + AXIS] + y * data[o + AXIS + 1] + z * data[o + AXIS + 2]) / (float) Math.sqrt(d2),
                s = (float) Math.sqrt(Math.max(0, 1 - c * c));
        if (c >= co) return w;
        float so = data[o + SIN_O], c1 = c * co + s * so, s1 = s * co - c * so;
        float su2 = r2 / d2, cu = (float) Math.sqrt(1 - su2), su = (float) Math.sqrt(su2);
        if (c1 >= cu) return w;
        float c2 = c1 * cu + s1 * su, least = data[o + COS_E];
        if (c2 < least) return 0;
        return least < 0.02f ? w * Math.max(0.02f, c2) : w;
    }

    /** Finds the cut of a point into the sample's arrays; returns how many nodes it has. */
    private int cut(float px, float py, float pz, LightSample s) {
        int n = 1;
        s.cut[0] = 0;
        s.cutWeights[0] = weight(0, px, py, pz, s);
        while (n < CUT) {
            int best = -1;
            float most = 0;
            for (int k = 0; k < n; k++)
                if (s.cutWeights[k] > most && left[s.cut[k]] >= 0 && near(s.cut[k], px, py, pz)) {
                    most = s.cutWeights[k];
                    best = k;
                }
            if (best < 0) break;
            int child = left[s.cut[best]];
            s.cut[best] = child;
            s.cutWeights[best] = weight(child, px, py, pz, s);
            s.cut[n] = child + 1;
            s.cutWeights[n++] = weight(child + 1, px, py, pz, s);
        }
        // Leaves are few and looked at one by one.
        for (int k = 0; k < n; k++) if (left[s.cut[k]] < 0) s.cutWeights[k] = exact(s.cut[k], px, py, pz, s);
        return n;
    }

    private boolean near(int node, float px, float py, float pz) {
        int o = STRIDE * node;
        float x = px - data[o], y = py - data[o + 1], z = pz - data[o + 2];
        return x * x + y * y + z * z < NEAR * data[o + R2];
    }

    private int parts(float px, float py, float pz, LightSample s, float[] weights, int o) {
        if (!s.stands(px, py, pz, weights, o)) s.parts = weights == null ? cut(px, py, pz, s) : guided(px, py, pz, s, weights, o);
        return s.parts;
    }

    /** The clusters with their weights times what a guide says of each, into the sample's arrays. */
    private int guided(float px, float py, float pz, LightSample s, float[] weights, int o) {
        for (int c = 0; c < clusters.length; c++) {
            s.cut[c] = clusters[c];
            s.cutWeights[c] = weights[o + c] * weight(clusters[c], px, py, pz, s);
        }
        return clusters.length;
    }

    private float exact(int node, float px, float py, float pz, LightSample s) {
        if (left[node] >= 0) return weight(node, px, py, pz, s);
        float sum = 0;
        for (int i = first[node]; i < first[node] + size[node]; i++) sum += emitters.weight(order[i], px, py, pz, s);
        return sum;
    }

    int cluster(int emitter) {
        return clusterOf[emitter];
    }

    /** What a cluster weighs at a point without a guide. */
    float clusterWeight(int cluster, float px, float py, float pz, LightSample s) {
        return weight(clusters[cluster], px, py, pz, s);
    }

    /**
     * Number of the emitter chosen at a point, its chance and the rest of {@code choose} in the sample; -1 when nothing can give light.
     *
     * @param worth what a guide says of each cluster, from place {@code o} on; null without one
     */
    int choose(float px, float py, float pz, float choose, LightSample s, float[] weights, int o) {
        int n = parts(px, py, pz, s, weights, o);
        float sum = 0;
        for (int k = 0; k < n; k++) sum += s.cutWeights[k];
        if (!(sum > 0)) return -1;
        float u = choose * sum, p;
        int k = 0, last = -1;
        for (; k < n; k++) {
            if (!(s.cutWeights[k] > 0)) continue;
            last = k;
            if (u < s.cutWeights[k]) break;
            u -= s.cutWeights[k];
        }
        k = last;
        p = s.clusterChance = s.cutWeights[k] / sum;
        u = Math.clamp(u / s.cutWeights[k], 0f, 0x1.fffffep-1f);
        int node = s.cut[k];
        while (left[node] >= 0) {
            float a = weight(left[node], px, py, pz, s), b = weight(left[node] + 1, px, py, pz, s), c = a + b;
            if (!(c > 0)) return -1;
            float q = a / c;
            boolean right = u >= q;
            u = Math.clamp(right ? (u - q) / (1 - q) : u / q, 0f, 0x1.fffffep-1f);
            p *= right ? b / c : q;
            node = left[node] + (right ? 1 : 0);
        }
        return inLeaf(node, px, py, pz, u, p, s);
    }

    private int inLeaf(int node, float px, float py, float pz, float u, float p, LightSample s) {
        float sum = 0;
        int f = first[node], n = size[node], i = -1;
        if (s.weights.length < LEAF) s.weights = new float[LEAF];
        for (int k = 0; k < n; k++) sum += s.weights[k] = emitters.weight(order[f + k], px, py, pz, s);
        if (!(sum > 0)) return -1;
        u *= sum;
        float run = 0;
        for (int k = 0; k < n; k++) {
            if (!(s.weights[k] > 0)) continue;
            i = k;
            if (u < run + s.weights[k]) break;
            run += s.weights[k];
        }
        s.chance = p * s.weights[i] / sum;
        s.rest = Math.clamp((u - run) / s.weights[i], 0f, 0x1.fffffep-1f);
        return order[f + i];
    }

    /** Chance with which {@link #choose} gives an emitter at a point. */
    float chance(int emitter, float px, float py, float pz, LightSample s, float[] weights, int o) {
        int n = parts(px, py, pz, s, weights, o), leaf = leafOf[emitter], node = leaf, at = -1;
        float sum = 0, p = 1;
        for (int k = 0; k < n; k++) sum += s.cutWeights[k];
        if (!(sum > 0)) return 0;
        while ((at = in(s.cut, n, node)) < 0) {
            int up = parent[node], l = left[up];
            float a = weight(l, px, py, pz, s), b = weight(l + 1, px, py, pz, s);
            if (!(a + b > 0)) return 0;
            p *= (node == l ? a : b) / (a + b);
            node = up;
        }
        float leafSum = 0;
        for (int k = first[leaf]; k < first[leaf] + size[leaf]; k++) leafSum += emitters.weight(order[k], px, py, pz, s);
        return leafSum > 0 ? p * s.cutWeights[at] / sum * emitters.weight(emitter, px, py, pz, s) / leafSum : 0;
    }

    private static int in(int[] cut, int n, int node) {
        for (int k = 0; k < n; k++) if (cut[k] == node) return k;
        return -1;
    }
}
