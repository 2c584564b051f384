package bake.core.geometry;

/**
 * A binary bounding volume hierarchy as flat arrays. Each inner node holds the boxes of its two children, so one
 * visit decides about both.
 *
 * @param boxes 12 floats a node: left min x y z, left max x y z, right min x y z, right max x y z
 * @param children two ints a node: an inner node's number, or for a leaf the value of {@link #leaf}
 * @param order primitive numbers in leaf order
 * @param bounds min x y z, max x y z of everything
 */
public record Bvh(float[] boxes, int[] children, int[] order, float[] bounds) {
    /** Most primitives a leaf may hold; the count takes three bits of the leaf's code. */
    public static final int MAX_LEAF = 7;

    /** Leaf code, always negative: first primitive and count. */
    static int leaf(int start, int count) {
        return ~(start << 3 | count);
    }

    static int leafStart(int code) {
        return ~code >>> 3;
    }

    static int leafCount(int code) {
        return ~code & 7;
    }
}
