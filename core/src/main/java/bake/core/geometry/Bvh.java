package bake.core.geometry;

/**
 * A hierarchy of eight boxes a node as one flat array, so that a visit touches one stretch of memory.
 *
 * @param nodes {@link #STRIDE} ints a node: the raw bits of eight min x, min y, min z, max x, max y, max z, then eight
 *     children. A child is where an inner node begins, {@code ~leaf} for a leaf, or {@link #NOTHING}; unused places are boxes
 *     that no ray enters
 * @param order primitives in leaf order, {@code block} places a leaf; -1 fills up leaves that hold fewer. Empty where the
 *     primitives themselves were brought into this order
 * @param block places of a leaf
 * @param bounds min x y z, max x y z of everything
 */
public record Bvh(int[] nodes, int[] order, int block, float[] bounds) {
    static final int WIDTH = 8, CHILDREN = 48, STRIDE = 56;
    /** A child that is not there. */
    static final int NOTHING = Integer.MIN_VALUE;

    /** Child {@code k} of the node that begins at {@code node}. */
    int child(int node, int k) {
        return nodes[node + CHILDREN + k];
    }

    public long bytes() {
        return 4L * (nodes.length + order.length);
    }
}
