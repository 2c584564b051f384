package bake.core.path;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.guide.GuideLearner;
import bake.core.guide.LightGuide;
import bake.core.guide.PlaceLog;
import bake.core.light.Aim;
import bake.core.light.LightSample;
import bake.core.math.PathSampler;
import bake.core.surface.SurfacePoint;

/**
 * Chooses directions in which to look for the surroundings: anywhere in proportion to luminance, or through panes. At first
 * panes are chosen by test rays from a coarse grid; where the sky guide has learnt what each piece of each pane brings, by
 * that. One instance per thread.
 */
public final class Daylight {
    private final RenderScene scene;
    /** Whether no opening is known, and bins of directions are learnt instead. */
    private final boolean compass;
    private final PlaceLog log = new PlaceLog();
    private LightGuide guide;
    private GuideLearner learner;
    private Aim[] aims;
    private int leaf, way;
    private float perWay;
    /** Whether a direction that was chosen among all could have been chosen through a pane as well. */
    private boolean covered;

    public Daylight(RenderScene scene) {
        this.scene = scene;
        compass = scene.openings().count() == 0;
    }

    /** In how many ways one may look for the surroundings. */
    public static int targets(RenderScene scene) {
        return scene.openings().count() > 0 ? scene.openings().targets() : 1 + scene.lights().dome().bins();
    }

    /**
     * From now on looks follow a guide and teach a learner; null for neither.
     *
     * @param aims of the guide's places, filled as they are asked for; shared by all threads, which fill them alike
     */
    public void follow(LightGuide guide, Aim[] aims, GuideLearner learner) {
        this.guide = guide;
        this.learner = learner;
        this.aims = aims;
    }

    /** Follows what another follows, and teaches nobody. */
    void followLike(Daylight other) {
        guide = other.guide;
        aims = other.aims;
    }

    public void beginPath(PathSampler random) {
        log.begin(learner, random.hash());
    }

    /** Hands over what was kept for the learner. */
    public void endRound() {
        log.flush(learner);
    }

    /** How to look from a point; null for the unlearnt way. To be asked before {@link #sample}. */
    public Aim at(SurfacePoint p) {
        leaf = -1;
        if (guide == null) return null;
        leaf = guide.leaf(p.px, p.py, p.pz, p.nx, p.ny, p.nz);
        if (learner != null) log.at(learner, leaf, p.px, p.py, p.pz);
        int k = guide.learnt(leaf);
        if (k < 0) return null;
        Aim a = aims[k];
        if (a == null) aims[k] = a = compass ? scene.lights().aim(guide.weights(), k * guide.targets())
                : scene.openings().aim(guide.weights(), k * guide.targets());
        return a;
    }

    /** Whether a point is in a room, where most of the surroundings is hidden. */
    public boolean indoors(Aim aim, SurfacePoint p, Ray spare) {
        return aim != null && aim.indoors() || !compass && scene.openings().share(p.px, p.py, p.pz, spare) > 0.5f;
    }

    /** Chooses a direction; everything about the sample is set. {@code choose}, in [0, 1), decides which way it is looked for. */
    public void sample(Aim aim, float px, float py, float pz, float choose, PathSampler random, LightSample light, Ray spare) {
        float share = aim != null ? 1 - aim.whole() : compass ? 0 : scene.openings().share(px, py, pz, spare);
        random.next2();
        if (choose >= share) {
            lights(random, light);
        } else if (aim != null) way = aim.sample(px, py, pz, choose / share, random.u, random.v, light);
        else way = scene.openings().sample(px, py, pz, choose / share, random.u, random.v, light, spare);
        if (way < 0) {
            // From behind a portal one looks at everything instead.
            lights(random, light);
        }
        float whole = scene.lights().read(light);
        light.pdf = pdf(aim, px, py, pz, light.x, light.y, light.z, whole, light.bin, spare);
        if (learner != null) teach(aim, px, py, pz, light, share, whole);
    }

    private void lights(PathSampler random, LightSample light) {
        scene.lights().aim(random.u, random.v, light);
        way = 0;
    }

    /** Chance of aiming at everything from a place, portals that face away from it counted in. */
    private static float away(Aim aim, float px, float py, float pz) {
        return aim == null ? 0 : aim.wholeFrom(px, py, pz);
    }

    /** What the way that was looked in stands for. */
    private void teach(Aim aim, float px, float py, float pz, LightSample light, float share, float whole) {
        if (compass) {
            // Every direction belongs to a bin, and is told of it however it was found.
            way = 1 + light.bin;
            covered = false;
            perWay = whole / scene.lights().dome().binChance(light.bin);
        } else {
            covered = way == 0 && light.pdf > Math.max(1 - share, away(aim, px, py, pz)) * whole * 1.0001f;
            perWay = way == 0 ? whole : scene.openings().perPiece(way, px, py, pz, light.x, light.y, light.z);
        }
    }

    /**
     * Density per steradian of {@link #sample} in a direction.
     *
     * @param whole that of looking at the whole dome, of which the direction lies in {@code bin}
     */
    public float pdf(Aim aim, float px, float py, float pz, float dx, float dy, float dz, float whole, int bin, Ray spare) {
        if (aim != null) return aim.pdf(px, py, pz, dx, dy, dz, whole, bin);
        if (compass) return whole;
        float share = scene.openings().share(px, py, pz, spare);
        return share > 0 ? share * scene.openings().pdf(px, py, pz, dx, dy, dz, whole, spare) + (1 - share) * whole : whole;
    }

    /** Tells the learner what the last sample brought: luminance times cosine, 0 where it was hidden. */
    public void brought(float light) {
        if (leaf < 0 || learner == null || way < 0) return;
        // Looking everywhere is worth only what panes would not have found.
        learner.looked(leaf, way, covered || !(perWay > 0) ? 0 : light / perWay);
    }
}
