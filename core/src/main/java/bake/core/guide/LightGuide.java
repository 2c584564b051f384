package bake.core.guide;

/**
 * What each way to look for light has brought, leaf by leaf of {@link Space}. For a sky guide the ways are all of the surroundings at once,
 * or a piece of a pane or a bin of directions; for a lamp guide they are parts of the light tree. It only proposes where to look; paths
 * divide by the density, so the mean never depends on it. Immutable; made by {@link GuideLearner}.
 */
public final class LightGuide {
    final Space space;
    private final int targets;
    private final float[] weights;
    /** Leaf of the space that was learnt in, for each leaf of this one; -1 where too little was learnt. */
    private final int[] learnt;

    LightGuide(Space space, int targets, float[] weights, int[] learnt) {
        this.space = space;
        this.targets = targets;
        this.weights = weights;
        this.learnt = learnt;
    }

    /**
     * A guide in plain arrays, to be kept.
     *
     * @param nodes of space, three a node: the axis it is cut across, and two children, each the number of a later node or {@code ~leaf}
     * @param cuts where a node is cut, metres
     * @param roots six, in the form of a child
     * @param worths {@code ways} for each place that was learnt, 0 or more
     * @param learnt for each leaf the place that stands for it, or -1
     */
    public record Data(int targets, int[] nodes, float[] cuts, int[] roots, float[] weights, int[] learnt) {}

    public Data data() {
        return new Data(targets, space.nodes(), space.cuts(), space.roots(), weights, learnt);
    }

    /** @throws IllegalArgumentException when the arrays are none that {@link #data} could have given */
    public static LightGuide of(Data d) {
        int leaves = d.learnt.length, nodes = d.cuts.length;
        check(d.targets > 0 && d.nodes.length == 3 * nodes && d.roots.length == Space.FACINGS && d.weights.length % d.targets == 0);
        int[] met = new int[leaves];
        for (int r : d.roots) child(r, -1, nodes, met);
        for (int n = 0; n < nodes; n++) {
            check(d.nodes[3 * n] >= 0 && d.nodes[3 * n] < 3 && Float.isFinite(d.cuts[n]));
            // Children come after their parents, so that every way down ends.
            child(d.nodes[3 * n + 1], n, nodes, met);
            child(d.nodes[3 * n + 2], n, nodes, met);
        }
        for (int m : met) check(m == 1);
        for (int k : d.learnt) check(k >= -1 && k < d.weights.length / d.targets);
        for (float w : d.weights) check(w >= 0 && w < Float.POSITIVE_INFINITY);
        return new LightGuide(new Space(d.nodes, d.cuts, d.roots, leaves), d.targets, d.weights, d.learnt);
    }

    private static void child(int c, int parent, int nodes, int[] met) {
        check(c >= 0 ? c > parent && c < nodes : ~c < met.length);
        if (c < 0) met[~c]++;
    }

    private static void check(boolean right) {
        if (!right) throw new IllegalArgumentException("not a guide");
    }

    /** A guide that knows nothing of some number of ways. */
    public static LightGuide nothing(int targets) {
        int[] learnt = new int[Space.FACINGS];
        java.util.Arrays.fill(learnt, -1);
        return new LightGuide(Space.whole(), targets, new float[0], learnt);
    }

    /** The same where no way is worth less than a share of the mean of all ways of its place. */
    public LightGuide floored(float share) {
        float[] w = weights.clone();
        for (int o = 0; o < w.length; o += targets) {
            float sum = 0;
            for (int k = 0; k < targets; k++) sum += w[o + k];
            for (int k = 0; k < targets; k++) w[o + k] = Math.max(w[o + k], share * sum / targets);
        }
        return new LightGuide(space, targets, w, learnt);
    }

    /** The leaf of a place on a surface. */
    public int leaf(float px, float py, float pz, float nx, float ny, float nz) {
        return space.leaf(px, py, pz, nx, ny, nz);
    }

    /** How many leaves space is cut into. */
    public int leaves() {
        return space.leaves();
    }

    /** In how many ways one may look. */
    public int targets() {
        return targets;
    }

    /** Number, below {@link #places}, of what was learnt for a leaf; -1 for nothing. Leaves may share it. */
    public int learnt(int leaf) {
        return learnt[leaf];
    }

    /** How many numbers {@link #learnt} may give. */
    public int places() {
        return weights.length / targets;
    }

    /** What the ways are worth: {@code ways} numbers for each of {@link #places}. */
    public float[] weights() {
        return weights;
    }
}
