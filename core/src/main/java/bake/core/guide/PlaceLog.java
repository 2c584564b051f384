package bake.core.guide;

/** Places that a thread's paths met, kept for {@link GuideLearner} until there are enough to hand over. */
public final class PlaceLog {
    private final float[] places = new float[3 * 1024];
    private final int[] leafOf = new int[1024];
    private int met;
    private boolean keep;

    /**
     * Begins a path.
     *
     * @param learner who is told, or null
     * @param hash any number that is the path's own
     */
    public void begin(GuideLearner learner, int hash) {
        keep = learner != null && learner.keeps(hash);
    }

    /** Notes a place, if this path's are kept. */
    public void at(GuideLearner learner, int leaf, float x, float y, float z) {
        if (!keep) return;
        if (met == leafOf.length) flush(learner);
        leafOf[met] = leaf;
        places[3 * met] = x;
        places[3 * met + 1] = y;
        places[3 * met++ + 2] = z;
    }

    /** Hands over what was kept; to be called when a pass ends. */
    public void flush(GuideLearner learner) {
        learner.met(places, leafOf, met);
        met = 0;
    }
}
