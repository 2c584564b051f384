package bake.core.geometry;

import java.util.Arrays;

/** Growing storage for the nodes and leaves of a subtree in the making. */
final class Arena {
    /** Bits of a box that no ray enters. */
    private static final int LEAST = Float.floatToRawIntBits(Float.POSITIVE_INFINITY),
            MOST = Float.floatToRawIntBits(Float.NEGATIVE_INFINITY);

    private final int block;
    private int[] nodes = new int[Bvh.STRIDE * 16];
    private int[] order = new int[64];
    private int used, leaves;

    Arena(int block) {
        this.block = block;
    }

    int[] nodes() {
        return Arrays.copyOf(nodes, used);
    }

    int[] order() {
        return Arrays.copyOf(order, block * leaves);
    }

    /** A node whose eight places are empty; returns where it begins. */
    int newNode() {
        int o = used;
        if (o + Bvh.STRIDE > nodes.length) nodes = Arrays.copyOf(nodes, grown(nodes.length));
        Arrays.fill(nodes, o, o + 24, LEAST);
        Arrays.fill(nodes, o + 24, o + 48, MOST);
        Arrays.fill(nodes, o + Bvh.CHILDREN, o + Bvh.STRIDE, Bvh.NOTHING);
        used += Bvh.STRIDE;
        return o;
    }

    private static int grown(int length) {
        long twice = Math.min(2L * length, Integer.MAX_VALUE - 64);
        if (twice <= length) throw new OutOfMemoryError("the model has too many triangles for one hierarchy");
        return (int) twice;
    }

    void setBox(int node, int k, int[] box) {
        for (int a = 0; a < 6; a++) nodes[node + 8 * a + k] = Float.floatToRawIntBits(Range.coordinate(box, 0, a));
    }

    void setChild(int node, int k, int child) {
        nodes[node + Bvh.CHILDREN + k] = child;
    }

    /** Adds a leaf with the primitives of references [from, to); returns its number. */
    int addLeaf(int[] refs, int from, int to) {
        int o = block * leaves;
        if (o + block > order.length) order = Arrays.copyOf(order, grown(order.length));
        for (int k = 0; k < block; k++) order[o + k] = from + k < to ? refs[Range.REF * (from + k) + Range.ID] : -1;
        return leaves++;
    }

    /** Appends another subtree; returns where its root begins here. */
    int append(Arena a) {
        int at = used, leaf0 = leaves, n = a.used;
        while (at + n > nodes.length) nodes = Arrays.copyOf(nodes, grown(nodes.length));
        System.arraycopy(a.nodes, 0, nodes, at, n);
        for (int o = at; o < at + n; o += Bvh.STRIDE)
            for (int k = Bvh.CHILDREN; k < Bvh.STRIDE; k++) {
                int c = nodes[o + k];
                if (c != Bvh.NOTHING) nodes[o + k] = c >= 0 ? c + at : ~(~c + leaf0);
            }
        int m = block * a.leaves;
        while (block * leaf0 + m > order.length) order = Arrays.copyOf(order, grown(order.length));
        System.arraycopy(a.order, 0, order, block * leaf0, m);
        used += a.used;
        leaves += a.leaves;
        return at;
    }
}
