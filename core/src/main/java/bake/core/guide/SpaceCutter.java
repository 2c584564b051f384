package bake.core.guide;

import java.util.Arrays;

/** Cuts the leaves of a {@link Space} in which many places were met, each at the median across its longest side. */
final class SpaceCutter {
    /** Leaves are not cut below this size, metres: what is learnt in less would be noise. */
    private static final float LEAST_SIDE = 0.05f;

    private final Space old;
    private final float[] places;
    private final double most;
    private int[] nodes = new int[96];
    private float[] cuts = new float[32];
    private int used;
    private final int[] roots = new int[Space.FACINGS];
    /** How many leaves there are now, and the old leaf that each was cut from. */
    int leaves;
    int[] from = new int[64];
    private final int[][] members;

    /**
     * @param places three coordinates a place, sorted into {@code members} by old leaf; their order does not matter
     * @param most places that a leaf may hold
     */
    SpaceCutter(Space old, float[] places, int[][] members, double most) {
        this.old = old;
        this.places = places;
        this.members = members;
        this.most = Math.max(2, most);
        for (int k = 0; k < roots.length; k++) roots[k] = copy(old.roots()[k]);
    }

    Space space() {
        return new Space(Arrays.copyOf(nodes, 3 * used), Arrays.copyOf(cuts, used), roots, leaves);
    }

    private int copy(int node) {
        if (node < 0) return cut(~node, members[~node], 0, members[~node].length);
        int self = node(old.nodes()[3 * node], old.cuts()[node]);
        for (int k = 1; k <= 2; k++) {
            int kid = copy(old.nodes()[3 * node + k]);
            nodes[3 * self + k] = kid;
        }
        return self;
    }

    private int cut(int leaf, int[] m, int a, int b) {
        int axis = b - a > most ? longest(m, a, b) : -1;
        if (axis < 0) {
            if (leaves == from.length) from = Arrays.copyOf(from, 2 * leaves);
            from[leaves] = leaf;
            return ~leaves++;
        }
        float[] along = new float[b - a];
        for (int i = a; i < b; i++) along[i - a] = places[3 * m[i] + axis];
        Arrays.sort(along);
        float at = along[along.length / 2];
        // Where half of the places share the least coordinate, the cut comes after them.
        for (int i = along.length / 2; at == along[0] && i < along.length; i++) at = along[i];
        int mid = a;
        for (int i = a; i < b; i++)
            if (places[3 * m[i] + axis] < at) {
                int t = m[i];
                m[i] = m[mid];
                m[mid++] = t;
            }
        int self = node(axis, at);
        int left = cut(leaf, m, a, mid);
        nodes[3 * self + 1] = left;
        int right = cut(leaf, m, mid, b);
        nodes[3 * self + 2] = right;
        return self;
    }

    /** The axis along which places vary most; -1 where they hardly do. */
    private int longest(int[] m, int a, int b) {
        int best = -1;
        double most = LEAST_SIDE * LEAST_SIDE / 12;
        for (int axis = 0; axis < 3; axis++) {
            float from = places[3 * m[a] + axis], least = from, high = from;
            for (int i = a; i < b; i++) {
                least = Math.min(least, places[3 * m[i] + axis]);
                high = Math.max(high, places[3 * m[i] + axis]);
            }
            // In whole steps, since sums of floats would depend on the order, and threads bring places in any.
            double step = (high - least) * 0x1p-20;
            if (!(step > 0)) continue;
            long sum = 0, squares = 0;
            for (int i = a; i < b; i++) {
                long k = (long) ((places[3 * m[i] + axis] - least) / step);
                sum += k;
                squares += k * k;
            }
            double mean = sum / (double) (b - a), variance = (squares / (double) (b - a) - mean * mean) * step * step;
            if (variance > most) {
                most = variance;
                best = axis;
            }
        }
        return best;
    }

    private int node(int axis, float at) {
        if (used == cuts.length) {
            cuts = Arrays.copyOf(cuts, 2 * used);
            nodes = Arrays.copyOf(nodes, 6 * used);
        }
        nodes[3 * used] = axis;
        cuts[used] = at;
        return used++;
    }
}
