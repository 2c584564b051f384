package bake.core.guide;

/**
 * Cuts space into leaves: one binary tree for each of the six ways a surface may mostly face, cut where the places that were
 * met lie, so that empty space costs nothing. Immutable.
 *
 * @param nodes three a node: the axis it is cut across, and two children, each the number of a node or {@code ~leaf}
 * @param cuts where a node is cut, metres
 * @param roots six, in the form of a child
 */
record Space(int[] nodes, float[] cuts, int[] roots, int leaves) {
    static final int FACINGS = 6;

    /** One leaf for each facing. */
    static Space whole() {
        int[] roots = new int[FACINGS];
        for (int k = 0; k < FACINGS; k++) roots[k] = ~k;
        return new Space(new int[0], new float[0], roots, FACINGS);
    }

    /** Which of six ways a normal mostly points. */
    static int facing(float nx, float ny, float nz) {
        float ax = Math.abs(nx), ay = Math.abs(ny), az = Math.abs(nz);
        if (az >= ax && az >= ay) return nz < 0 ? 5 : 4;
        if (ax >= ay) return nx < 0 ? 1 : 0;
        return ny < 0 ? 3 : 2;
    }

    /** The leaf of a place on a surface with the given normal. */
    int leaf(float px, float py, float pz, float nx, float ny, float nz) {
        int node = roots[facing(nx, ny, nz)];
        while (node >= 0) {
            int axis = nodes[3 * node];
            float p = axis == 0 ? px : axis == 1 ? py : pz;
            node = nodes[3 * node + (p < cuts[node] ? 1 : 2)];
        }
        return ~node;
    }
}
