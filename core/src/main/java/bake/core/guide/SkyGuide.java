package bake.core.guide;

/**
 * Sky guide: what each way to look for the surroundings (all of them at once, or a piece of a pane) has brought, leaf by leaf
 * of {@link Space}. It only proposes where to look; paths divide by the density, so the mean never depends on it. Immutable;
 * made by {@link SkyGuideLearner}.
 */
public final class SkyGuide {
    final Space space;
    private final int ways;
    private final float[] worths;
    /** Leaf of the space that was learnt in, for each leaf of this one; -1 where too little was learnt. */
    private final int[] learnt;

    SkyGuide(Space space, int ways, float[] worths, int[] learnt) {
        this.space = space;
        this.ways = ways;
        this.worths = worths;
        this.learnt = learnt;
    }

    /** The same where no way is worth less than a share of the mean of all ways of its place. */
    public SkyGuide floored(float share) {
        float[] w = worths.clone();
        for (int o = 0; o < w.length; o += ways) {
            float sum = 0;
            for (int k = 0; k < ways; k++) sum += w[o + k];
            for (int k = 0; k < ways; k++) w[o + k] = Math.max(w[o + k], share * sum / ways);
        }
        return new SkyGuide(space, ways, w, learnt);
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
    public int ways() {
        return ways;
    }

    /** Number, below {@link #places}, of what was learnt for a leaf; -1 for nothing. Leaves may share it. */
    public int learnt(int leaf) {
        return learnt[leaf];
    }

    /** How many numbers {@link #learnt} may give. */
    public int places() {
        return worths.length / ways;
    }

    /** What the ways are worth: {@code ways} numbers for each of {@link #places}. */
    public float[] worths() {
        return worths;
    }
}
