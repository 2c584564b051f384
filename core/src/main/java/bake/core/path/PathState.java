package bake.core.path;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * Where a path is, what it still carries, and where the light that it brings goes: what {@link PathTracer} shares with those that work for
 * it.
 */
abstract class PathState {
    final Ray ray = new Ray();
    private final SurfacePoint ownPoint = new SurfacePoint();
    private final Scatter ownScatter = new Scatter();
    /** Where the path is. Belongs to a head as long as others may want to know it. */
    SurfacePoint point = ownPoint;
    Scatter scatter = ownScatter;
    final Deposit deposit;
    final PathTrail trail = new PathTrail();
    /** Fills a radiance cache, and reads it. */
    final CellTrail cells;
    /**
     * Whether what gives light is not to be counted before the path has met a surface: light is looked for where it comes from.
     */
    boolean past;
    /** Whether the surroundings count though nothing was met yet. */
    boolean sky;
    /** How far the first pane was that a gathered ray has passed. */
    float paned;
    int wide; // bounces off what has width
    PathSampler random;
    /** Throughput of the path so far. */
    float br, bg, bb;
    /** The last scattering, and how far the ray has come since. */
    final Departure from = new Departure();
    float travelled;
    /** Whether the path comes straight from the camera, past nothing but what it goes through in a straight line. */
    boolean bare;
    final MirroredLook look = new MirroredLook();
    /** What occlusion leaves of light that has bounced, at the first matt point; 1 elsewhere. */
    float shade;
    /** Whether the path has left a surface in a way that calls for the clamp. */
    boolean indirect;
    /** Whether only what the path meets next may still add its own light. */
    boolean lastBounce;
    /** How many bounces of each kind are left. */
    final int[] allowed = new int[3];
    final Onlook onlook; // what the camera sees of the surroundings
    public final FirstSeen first = new FirstSeen();

    /** @param clamp greatest luminance that is added at a time of light that has bounced, cd/m2; infinite for all */
    PathState(RenderScene scene, float clamp) {
        int groups = scene.lights().groups().size();
        onlook = new Onlook(scene.scenery(), scene.lights());
        deposit = new Deposit(groups, clamp);
        cells = new CellTrail(3 * groups);
    }

    /** A path begins, whose light counts by a weight. */
    final void begins(PathSampler sampler, float[] add, float weight) {
        bare = false;
        random = sampler;
        onlook.begin(false);
        trail.none();
        ray.width = ray.spread = 0;
        deposit.begin(add);
        br = bg = bb = weight;
        travelled = 0;
    }

    /** Nothing was met so far. */
    final void fresh(int[] most) {
        lastBounce = false;
        own();
        System.arraycopy(most, 0, allowed, 0, allowed.length);
        indirect = false;
        deposit.fresh();
        wide = 0;
    }

    /** The path's point is nobody else's. */
    final void own() {
        point = ownPoint;
        scatter = ownScatter;
    }

    /** What came off a shadow catcher has met something: from there it is light that the catcher reflects by its own colour. */
    final void ownColour() {
        if (onlook.catching()) scale(onlook.own(0), onlook.own(1), onlook.own(2));
    }

    /** Sends the path on from the point, a hair off the surface on its near (+1) or far (-1) side. */
    final void step(float side, float dx, float dy, float dz) {
        float e = point.offset * side;
        ray.width += ray.spread * ray.t;
        ray.set(point.px + e * point.gx, point.py + e * point.gy, point.pz + e * point.gz, dx, dy, dz, Float.POSITIVE_INFINITY);
    }

    final void scale(float r, float g, float b) {
        if (cells.on()) cells.scale(r, g, b);
        scaleOwn(r, g, b);
    }

    final void scaleOwn(float r, float g, float b) {
        br *= r;
        bg *= g;
        bb *= b;
        trail.scale(r, g, b);
    }

    /** The path has just mirrored off a surface from which on only so many reflections count. */
    final void reflect(int most) {
        if (most == 0) lastBounce = true;
        else allowed[Scatter.MIRRORED] = Math.min(allowed[Scatter.MIRRORED], most - 1);
    }

    /** A pane has mirrored the path. */
    final void mirrored() {
        bare = false;
        deposit.mirrored();
    }

    /** Adds light that the path has run into: after one bounce light sampling might have found it, too. */
    final void addMet(int group, float r, float g, float b) {
        LightPart before = deposit.met();
        add(group, r, g, b);
        deposit.way(before);
    }

    /** Adds light that has bounced before it came to the path's point. */
    final void addBounced(int group, float r, float g, float b) {
        LightPart before = deposit.bounced();
        add(group, r, g, b);
        deposit.way(before);
    }

    final void add(int group, float r, float g, float b) {
        if (trail.shared()) {
            trail.later(group, r, g, b);
            return;
        }
        if (cells.on()) cells.add(group, r, g, b);
        r *= br;
        g *= bg;
        b *= bb;
        if (onlook.catching()) onlook.lit(group, 0.2126f * r + 0.7152f * g + 0.0722f * b, first);
        deposit.add(group, r, g, b, indirect);
    }
}
