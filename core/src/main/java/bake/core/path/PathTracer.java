package bake.core.path;

import bake.core.cache.PhotonMap;
import bake.core.cache.PhotonSamples;
import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.light.Emission;
import bake.core.light.LightTable;
import bake.core.math.PathSampler;
import bake.core.outlook.Scenery;
import bake.core.reuse.PathExchange;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * Unidirectional path tracing (Kajiya 1986) with light sampling and multiple importance sampling (Veach and Guibas
 * 1995, power heuristic), Russian roulette by throughput. One instance per thread; nothing is allocated per path.
 *
 * <p>Panes are passed straight through both by paths and by shadow rays. A path that went through a pane keeps the
 * density of the bounce before it, so both ways of finding the light weigh each other as if the pane were not there.
 */
public final class PathTracer extends PathState {
    /** Most panes and cut-outs passed between two bounces. */
    private static final int MOST_PASSES = 64;
    /** Greatest chance of going on: well above what white surfaces leave, or paths in white rooms would gain weight with every bounce. */
    private static final float MOST_SURVIVAL = 0.995f;
    /** Angle of a ray's cone after a bounce whose density is one per steradian. */
    private static final float WIDE = 0.12f;

    private final RenderScene scene;
    private final LightTable lights;
    private final int bounces;
    private final int[] most;
    private final Ray shadow;
    private final DirectLight direct;
    private final RoundEdges edges;
    private final float[] rgb = new float[4];

    /** Where the path reads caches. */
    private final CachedPoints cached;
    final CausticLight caustics;
    final PhotonTrail photons;
    private final MetLight met;
    private final SplitBounce split; // null in one that does not split
    /** Whether the path only looks for the first matt point, and how far it is. */
    private boolean probing, seeing;
    private float found;
    /** How far the first surface was that a gathered ray has met. */
    private float reached;
    /** What gloss is at least as rough as, 0 for as it is. */
    private float roughest;
    /**
     * What rays of a record see of gloss that they come to, and paths that fill cells after something matt: narrower lobes would throw
     * sunlight on few of them and make blotches (regularization of path space: Kaplanyan and Dachsbacher 2013; by roughness, Jendersie and
     * Grosch 2019). Wider ones reflect less at slanting angles: at 0.3 a sunny room is 2.5 % darker, at 0.2 1.3 %, at 0.1 not measurably.
     */
    private static final float GATHERED = 0.1f, CELLED = 0.2f;
    private final Passage passage;
    private Occlusion occlusion = Occlusion.NONE;
    private float cone;

    /**
     * @param clampLuminance greatest luminance one path may add indirectly, cd/m2; 0 for no limit
     */
    public PathTracer(RenderScene scene, int bounces, double clampLuminance) {
        this(scene, bounces, PathSettings.Kinds.ALL, clampLuminance);
    }

    /** The same with limits for each kind of bounce. */
    public PathTracer(RenderScene scene, int bounces, PathSettings.Kinds kinds, double clampLuminance) {
        this(scene, bounces, kinds, clampLuminance, new SplitBounce(new PathTracer(scene, bounces, kinds, clampLuminance, null)));
    }

    private PathTracer(RenderScene scene, int bounces, PathSettings.Kinds kinds, double clampLuminance, SplitBounce split) {
        super(scene, clampLuminance > 0 ? (float) clampLuminance : Float.POSITIVE_INFINITY);
        this.split = split;
        most = new int[] {kinds.diffuse(), kinds.mirrored(), kinds.refracted()};
        this.scene = scene;
        lights = scene.lights();
        direct = new DirectLight(this, scene);
        shadow = direct.shadow;
        photons = new PhotonTrail(scene.openings());
        edges = new RoundEdges(scene);
        this.bounces = bounces;
        caustics = new CausticLight(this);
        cached = new CachedPoints(this, split);
        met = new MetLight(this, scene);
        passage = new Passage(this, scene);
        if (split != null) split.of(this);
    }

    public CellTrail cells() {
        return cells;
    }

    /** Sets how bounced light is computed. */
    public void bounces(BounceSettings how) {
        cached.follow(how);
        caustics.follow(how.caustics());
        if (split != null) split.rays().bounces(how);
        direct.skyGathered(how.cachedSurroundings());
    }

    /** Darkens corners from now on. */
    public void darken(Occlusion o) {
        occlusion = o;
    }

    /** Shows caustics by photons from now on. */
    public void follow(PhotonMap causticPhotons) {
        caustics.follow(causticPhotons);
        if (split != null) split.rays().follow(causticPhotons);
    }

    public CachedPoints cached() {
        return cached;
    }

    /** Luminance of caustics that were left out so far, summed over paths, cd/m2. */
    public double leftOut() {
        return caustics.leftOut() + (split == null ? 0 : split.rays().leftOut());
    }

    /** Sets the angle that one sample of the picture fills, radians: how sharply textures are looked at. */
    public void sharpness(float radians) {
        cone = radians;
    }

    /** Sets what is seen behind the model. */
    public void frame(Scenery s) {
        onlook.frame(s);
    }

    /**
     * Sets where in the picture the next path begins, 0 left to 1 right and 0 top to 1 bottom: what a flat backdrop shows depends on it.
     */
    public void place(float x, float y) {
        onlook.place(x, y);
    }

    /** Length of the array that {@link #radiance} adds to: three colours for each source group. */
    public int channels() {
        return 3 * lights.groups().size();
    }

    /**
     * Keeps the light of the next paths apart by {@link LightPart}, whose planes follow each other in what it is added
     * to, or no longer.
     */
    public void part(boolean apart) {
        deposit.apart(apart);
    }

    /** Rays traced so far. */
    public long rays() {
        return ray.traced + shadow.traced + edges.traced() + (split == null ? 0 : split.rays().rays());
    }

    /** Luminance that the clamp took away so far, summed over paths, cd/m2. */
    public double clampedLuminance() {
        return deposit.clamped() + (split == null ? 0 : split.rays().clampedLuminance());
    }

    /** Part of the luminance of the last path that had bounced off something matt or glossy, cd/m2; of one that is not kept for others. */
    public float bounced() {
        return deposit.brought();
    }

    public float clamp() {
        return deposit.clamp();
    }

    /** How light is looked for at points. */
    public DirectLight direct() {
        return direct;
    }

    public SurfacePoint point() {
        return point;
    }

    /** Adds the luminance by colour seen along a ray to {@code add}, by source group, cd/m2. */
    public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, float[] add) {
        begin(sampler, add, 1);
        follow(ox, oy, oz, dx, dy, dz);
    }

    /** The same for a path whose beginning is kept; what its second point shows is left to {@link PathExchange} to gather. */
    public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, PathHead keep) {
        begin(sampler, keep.out, 1);
        trail.begin(keep);
        point = keep.point;
        scatter = keep.scatter;
        follow(ox, oy, oz, dx, dy, dz);
    }

    private void follow(float ox, float oy, float oz, float dx, float dy, float dz) {
        ray.set(ox, oy, oz, dx, dy, dz, Float.POSITIVE_INFINITY);
        ray.width = 0;
        ray.spread = cone;
        from.none();
        onlook.begin(true);
        first.nothing(dx, dy, dz);
        look.begin(!probing && !cells.on());
        bare = true;
        walk(0);
        bare = false;
        if (!seeing && look.go(this)) {
            random.other();
            trail.none();
            fresh();
            from.none();
            onlook.begin(true);
            onlook.mirror();
            mirrored();
            walk(0);
            look.end(this);
        }
        if (cells.on()) cells.end();
    }

    /** Adds one sample of the illuminance by colour on a plane at a point to {@code add}, by source group, lux. */
    public void irradiance(float x, float y, float z, float nx, float ny, float nz, PathSampler sampler, float[] add) {
        begin(sampler, add, (float) Math.PI);
        point.setMeter(x, y, z, nx, ny, nz);
        scatter.begin(point, nx, ny, nz);
        random.bounce(0);
        direct.find(0);
        if (scatterOn(0)) walk(1);
    }

    /**
     * Adds the luminance by colour that comes to a surface along a direction after at least one bounce, by source group, cd/m2; what gives
     * light itself is left out, but for the surroundings where {@link DirectLight#surroundings} has looked for them beside such rays.
     *
     * @param cos to the surface's normal
     * @param among how many rays whose mean counts this is one of
     * @param looks how often the surroundings were looked for, 0 for not at all
     * @return distance of what was met, metres; infinite for nothing
     */
    public float gather(float x, float y, float z, float dx, float dy, float dz, float cos, int among, int looks, PathSampler sampler,
            float[] add) {
        begin(sampler, add, 1);
        deposit.among(among);
        ray.set(x, y, z, dx, dy, dz, Float.POSITIVE_INFINITY);
        ray.spread = Math.min(0.4f, WIDE / (float) Math.sqrt(Math.max(1e-3f, cos) / Math.PI));
        from.pdf = cos / (float) Math.PI;
        indirect = past = true;
        wide = 1;
        roughest = GATHERED;
        sky = looks > 0;
        direct.leaveTo(from, looks / (float) among);
        reached = paned = Float.POSITIVE_INFINITY;
        walk(1);
        past = false;
        return reached;
    }

    /** How far the first pane is that the last ray of {@link #gather} has passed, metres; infinite for none. */
    public float paned() {
        return paned;
    }

    /** Where photons go that are sent from now on; see {@link #photon}. Null for nowhere. */
    public void fill(PhotonSamples all, PhotonSamples caustic) {
        photons.fill(all, caustic);
    }

    /** Follows the light of an emission, which leaves photons where it comes to matt surfaces. */
    public void photon(Emission e, PathSampler sampler, float[] spare) {
        begin(sampler, spare, 1);
        from.none();
        photons.begin(this, e);
        walk(0);
        photons.end();
    }

    /**
     * Looks for the first matt point behind panes and in mirrors, which is {@link #point} then; returns how far the way
     * to it is, or infinity.
     */
    public float firstMatt(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, float[] spare) {
        begin(sampler, spare, 1);
        probing = true;
        found = Float.POSITIVE_INFINITY;
        follow(ox, oy, oz, dx, dy, dz);
        probing = false;
        return found;
    }

    /** Looks for nothing but what a path along a ray meets first behind panes, which is in {@link #first} then. */
    public void see(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, float[] spare) {
        begin(sampler, spare, 1);
        seeing = true;
        follow(ox, oy, oz, dx, dy, dz);
        seeing = false;
    }

    private void begin(PathSampler sampler, float[] add, float weight) {
        begins(sampler, add, weight);
        fresh();
        cells.begin();
        direct.begin(sampler);
        look.begin(false);
    }

    /** Nothing was met so far. */
    private void fresh() {
        fresh(most);
        passage.begin();
        roughest = 0;
    }

    private void walk(int bounce) {
        int passes = 0;
        while (true) {
            if (!scene.tracer().closest(ray)) {
                if (!photons.on()) met.nothing();
                return;
            }
            travelled += ray.t;
            if (ray.item >= scene.tracer().firstLamp()) {
                int lamp = scene.tracer().lamps().lamp(ray.item - scene.tracer().firstLamp());
                if (lights.emitters().seen(lamp, onlook.straight)) {
                    if (photons.on()) return;
                    if (past) reached = travelled;
                    ownColour();
                    met.lamp(lamp);
                    return;
                }
                if (++passes > MOST_PASSES) return;
                passage.onward();
                continue;
            }
            point.load(scene.geometry(), scene.surfaces(), ray);
            passage.absorb();
            if (scene.surfaces().isPane(point.material)) {
                if (point.emitR + point.emitG + point.emitB > 0 && !photons.on()) met.glow();
                if (++passes > MOST_PASSES || !passage.pane()) return;
                continue;
            }
            if (scene.surfaces().isSoft(point.material) && passage.soft()) {
                if (++passes > MOST_PASSES) return;
                continue;
            }
            passes = 0;
            random.bounce(bounce);
            if (cells.on()) cells.meet(travelled);
            float round = scene.surfaces().round(point.material);
            if (round > 0 && (bounce == 0 || from.pdf < 0)) edges.at(point, round, ray, random);
            if (bounce == 0) first.surface(point, travelled);
            if (photons.on()) {
                if (lastBounce || bounce >= bounces || !photons.carry(this, bounce)) return;
                bounce++;
                continue;
            }
            ownColour();
            if (onlook.meet(point, scene.surfaces().catches(point.material), ray, first)) {
                float[] b = onlook.seen();
                add(onlook.seenGroup(), b[0], b[1], b[2]);
            }
            if (point.emitR + point.emitG + point.emitB > 0) met.glow();
            bare = false;
            if (seeing) return;
            if (past) reached = travelled;
            past = false;
            // Cells are to hold all the light there is.
            if ((lastBounce || bounce >= bounces) && !cells.on()) return;
            float least = cells.holds() ? CELLED : roughest;
            if (least > 0) point.roughen(least);
            scatter.begin(point, -ray.dx, -ray.dy, -ray.dz);
            if (probing) {
                if (probe(bounce)) return;
                bounce++;
                continue;
            }
            shade = occlusion.strength() > 0 && wide == 0 && !cells.on()
                    && Scatter.mostlyMatt(point) ? direct.open(point, (float) occlusion.metres()) ? 1 : (float) (1 - occlusion.strength())
                    : 1;
            if (trail.first()) trail.keepFirst(point, scene.surfaces(), shade * br * onlook.own(0), shade * bg * onlook.own(1),
                    shade * bb * onlook.own(2));
            else if (trail.between()) trail.meet(point, scene.surfaces(), -(point.nx * ray.dx + point.ny * ray.dy + point.nz * ray.dz));
            deposit.surface();
            if (cached.knowsBounces()) {
                if (!cached.addBounces(bounce)) return;
            } else if (cached.knowsIrradiance()) {
                if (!cached.addIrradiance(bounce)) return;
            } else {
                if (cells.on() && Scatter.mostlyMatt(point) && !onlook.catching()) cells.open(point);
                caustics.add();
                direct.find(bounce);
                float kept = shade;
                if (cached.ends() || !scatterOn(bounce)) return;
                if (kept < 1 && scatter.kind == Scatter.DIFFUSE) scale(kept, kept, kept);
            }
            bounce++;
            if (trail.between()) {
                point = trail.head.met;
                scatter = trail.head.metScatter;
            } else own();
        }
    }

    /** Whether the search for a matt point ends here. */
    private boolean probe(int bounce) {
        if (CachedIrradiance.fit(point) && !onlook.catching()) {
            found = cone > 0 ? ray.width / cone + ray.t : travelled;
            return true;
        }
        return !scatterOn(bounce) || !scatter.smooth;
    }

    /** Chooses where the path goes next; false when it ends here. */
    boolean scatterOn(int bounce) {
        random.direction(bounce);
        random.next2();
        float lobe = random.u, roulette = random.v;
        random.next2();
        if (!(photons.on() ? photons.sample(this, lobe, random.u, random.v) : scatter.sample(lobe, random.u, random.v))) return false;
        float k = 1 / scatter.pdf;
        if (cells.on()) {
            scatter.lambert(scatter.wx, scatter.wy, scatter.wz, true, rgb);
            cells.leave(scatter, k, rgb);
        }
        scaleOwn(scatter.r * k, scatter.g * k, scatter.b * k);
        trail.bounced(scatter, k);
        float most = Math.max(br, Math.max(bg, bb));
        if (!(most > 0) || most == Float.POSITIVE_INFINITY) return false;
        if (bounce >= 2) {
            float p = Math.min(MOST_SURVIVAL, photons.on() ? photons.survival(most) : trail.survival(most));
            if (roulette >= p) return false;
            scale(1 / p, 1 / p, 1 / p);
        }
        onlook.scatter(scatter, onlook.catching());
        from.pdf = scatter.smooth ? -1 : scatter.pdf;
        if (scatter.kind == Scatter.REFRACTED) passage.refracted(point);
        lastBounce = allowed[scatter.kind]-- <= 0;
        // A path stands for about this share of all directions; what is met in them may be seen as finely.
        if (!scatter.smooth) ray.spread = Math.max(ray.spread, Math.min(0.4f, WIDE / (float) Math.sqrt(scatter.pdf)));
        if (!scatter.smooth) {
            indirect = true;
            wide++;
        }
        deposit.scatter(scatter.kind);
        direct.leave(from);
        from.at(point);
        travelled = 0;
        float side = scatter.wx * point.gx + scatter.wy * point.gy + scatter.wz * point.gz > 0 ? 1 : -1;
        step(side, scatter.wx, scatter.wy, scatter.wz);
        return point.material < 0 || passage.thrift();
    }
}
