package bake.core.guide;

import java.util.Arrays;

/**
 * Collects what looks for the surroundings brought, and makes a {@link LightGuide} of it, round by round.
 * Many threads may record at once; all sums are whole numbers and places are sorted before use, so what is learnt does not
 * depend on their order, and pictures stay the same to the bit.
 */
public final class GuideLearner {
    /**
     * Looks that a leaf of space may hold before it is cut in two, for a round of {@link #ROUND} paths; grows with the root of the paths.
     */
    private static final int MOST_LOOKS = 1000, ROUND = 50_000;
    /** Most numbers kept for all leaves together, and most places that space is cut by. */
    private static final int MOST_WORTHS = 16_000_000, MOST_PLACES = 100_000;
    /** Paths bounce a few times each. */
    private static final float BOUNCES = 4;

    private final LightGuide guide;
    private final float perLight;
    private final long paths;
    private final float keep;
    private final TargetLearner learner;
    private float[] places = new float[3 * 4096];
    private int[] leafOf = new int[4096];
    private int kept;

    private GuideLearner(LightGuide guide, float perLight, long paths) {
        this.guide = guide;
        this.perLight = perLight;
        this.paths = Math.max(1, paths);
        keep = Math.min(1, MOST_PLACES / (BOUNCES * this.paths));
        learner = new TargetLearner(guide.leaves(), guide.targets());
    }

    /**
     * Begins with a guide that knows nothing.
     *
     * @param light a typical luminance of the picture, cd/m2: sets the step that sums are counted in
     * @param paths how many paths the first round has
     * @param ways in which one may look for the surroundings
     */
    public static GuideLearner begin(double light, long paths, int targets) {
        return after(LightGuide.nothing(targets), light, paths);
    }

    /** Goes on from a guide that was learnt before; parameters as in {@link #begin}. */
    public static GuideLearner after(LightGuide known, double light, long paths) {
        return new GuideLearner(known, (float) (1 / Math.max(light, 1e-9)), paths);
    }

    /** What was known when this learner began. */
    public LightGuide guide() {
        return guide;
    }

    /**
     * Takes in what a look brought, be it nothing.
     *
     * @param light luminance times cosine over the density within the way, cd/m2 sr
     */
    public void looked(int leaf, int target, float light) {
        learner.record(leaf, target, light * perLight);
    }

    /**
     * Whether the places that a path meets are to be kept, to cut space by; a fixed choice of paths.
     *
     * @param hash any number that is the path's own
     */
    boolean keeps(int hash) {
        return (hash >>> 8) * 0x1p-24f < keep;
    }

    /** Takes in places that were kept, three coordinates and the leaf each. */
    synchronized void met(float[] xyz, int[] leaf, int n) {
        if (kept + n > leafOf.length) {
            int size = Math.max(kept + n, 2 * leafOf.length);
            leafOf = Arrays.copyOf(leafOf, size);
            places = Arrays.copyOf(places, 3 * size);
        }
        System.arraycopy(xyz, 0, places, 3 * kept, 3 * n);
        System.arraycopy(leaf, 0, leafOf, kept, n);
        kept += n;
    }

    /** The same round from its beginning. */
    public GuideLearner again() {
        return new GuideLearner(guide, perLight, paths);
    }

    /** Ends a round: a learner for the next one, of {@code paths} paths, whose guide knows what this one took in. */
    public GuideLearner next(long paths) {
        Space space = guide.space;
        int targets = guide.targets();
        double most = Math.max(MOST_LOOKS * Math.sqrt(Math.max(1, this.paths / (double) ROUND)),
                BOUNCES * this.paths * (double) targets / MOST_WORTHS);
        SpaceCutter cut = new SpaceCutter(space, places, byLeaf(), keep * most);
        float[] weights = new float[space.leaves() * targets];
        boolean[] enough = new boolean[space.leaves()];
        for (int leaf = 0; leaf < enough.length; leaf++) {
            enough[leaf] = learner.weights(leaf, weights, leaf * targets);
            // Where too little was seen, what the larger leaf had learnt still holds.
            int before = guide.learnt(leaf);
            if (enough[leaf] || before < 0) continue;
            System.arraycopy(guide.weights(), before * targets, weights, leaf * targets, targets);
            enough[leaf] = true;
        }
        int[] learnt = new int[cut.leaves];
        for (int leaf = 0; leaf < cut.leaves; leaf++) learnt[leaf] = enough[cut.from[leaf]] ? cut.from[leaf] : -1;
        return new GuideLearner(new LightGuide(cut.space(), targets, weights, learnt), perLight, paths);
    }

    private int[][] byLeaf() {
        int[] n = new int[guide.leaves()];
        for (int i = 0; i < kept; i++) n[leafOf[i]]++;
        int[][] out = new int[n.length][];
        for (int k = 0; k < n.length; k++) out[k] = new int[n[k]];
        Arrays.fill(n, 0);
        for (int i = 0; i < kept; i++) out[leafOf[i]][n[leafOf[i]]++] = i;
        return out;
    }
}
