package bake.core.path;

import bake.core.guide.GuideLearner;
import bake.core.guide.LightGuide;
import bake.core.guide.PlaceLog;
import bake.core.light.Emitters;
import bake.core.light.LightSample;
import bake.core.math.PathSampler;
import bake.core.surface.SurfacePoint;

/**
 * Chooses among many lamps as a lamp guide has learnt: how much each part of the light tree brings from here against what it seems to,
 * since shelves and walls stand in between. One instance per thread.
 */
public final class Lamplight {
    private final Emitters emitters;
    private final PlaceLog log = new PlaceLog();
    private LightGuide guide;
    private GuideLearner learner;
    private int leaf = -1;

    public Lamplight(Emitters emitters) {
        this.emitters = emitters;
    }

    /** From now on choices follow a guide and teach a learner; null for neither. */
    public void follow(LightGuide guide, GuideLearner learner) {
        this.guide = guide;
        this.learner = learner;
    }

    /** Follows what another follows, and teaches nobody. */
    void followLike(Lamplight other) {
        guide = other.guide;
    }

    /** Whether samples are told to a learner. */
    boolean teaches() {
        return learner != null;
    }

    public void beginPath(PathSampler random) {
        if (learner != null) log.begin(learner, ~random.hash());
    }

    public void endRound() {
        if (learner != null) log.flush(learner);
    }

    /** Where in {@link #worths} it stands what is known of a point; -1 for nothing. To be asked before a choice there. */
    public int at(SurfacePoint p) {
        leaf = -1;
        if (guide == null) return -1;
        leaf = guide.leaf(p.px, p.py, p.pz, p.nx, p.ny, p.nz);
        if (learner != null) log.at(learner, leaf, p.px, p.py, p.pz);
        int k = guide.learnt(leaf);
        return k < 0 ? -1 : k * guide.targets();
    }

    public float[] weights(int at) {
        return at < 0 ? null : guide.weights();
    }

    /** Tells the learner what a sample brought: luminance times cosine, 0 where it was hidden. */
    public void brought(LightSample s, float px, float py, float pz, float light) {
        if (leaf < 0 || learner == null) return;
        float per = emitters.perCluster(s, px, py, pz);
        if (per > 0) learner.looked(leaf, emitters.cluster(s), light / per);
    }
}
