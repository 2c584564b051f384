package bake.core.transport;

import bake.core.geometry.Ray;
import bake.core.light.LightSample;
import bake.core.light.LightTable;
import bake.core.math.PathSampler;
import bake.core.outlook.Scenery;
import bake.core.surface.Fresnel;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;
import bake.core.surface.SurfaceTable;

/**
 * Unidirectional path tracing (Kajiya 1986) with light sampling and multiple importance sampling (Veach and Guibas
 * 1995, power heuristic), Russian roulette by throughput. One instance per thread; nothing is allocated per path.
 *
 * <p>Panes are passed straight through both by paths and by shadow rays. A path that went through a pane keeps the
 * density of the bounce before it, so both ways of finding the light weigh each other as if the pane were not there.
 */
public final class PathTracer {
    /** Most panes and cut-outs passed between two bounces. */
    private static final int MOST_PASSES = 64;
    /** Angle of a ray's cone after a bounce whose density is one per steradian. */
    private static final float WIDE = 0.12f;

    private final RenderScene scene;
    private final LightTable lights;
    private final int bounces;
    private final int[] most, left = new int[3];
    private final float clamp;
    private final Ray ray = new Ray(), shadow;
    private final SurfacePoint ownPoint = new SurfacePoint();
    private final Scatter ownScatter = new Scatter();
    /** Where the path is. Belongs to a head as long as others may want to know it. */
    private SurfacePoint point = ownPoint;
    private Scatter scatter = ownScatter;
    private final DirectLight direct;
    private final LightSample light;
    private final RoundEdges edges;
    private final float[] rgb = new float[4];

    private final PathTrail trail = new PathTrail();

    private PathSampler random;
    private float[] out;
    /** Throughput of the path so far. */
    private float br, bg, bb;
    /** The last scattering, and how far the ray has come since. */
    private final Departure from = new Departure();
    private float come;
    /** Whether the path has left a surface in a way that calls for the clamp. */
    private boolean indirect;
    /** Whether only what the path meets next may still add its own light. */
    private boolean last;
    /** What the camera sees of the surroundings. */
    private final Onlook onlook;
    private double clamped;
    /** Luminance that the path brought after a bounce, cd/m2. */
    private float bounced;
    private float cone;
    final FirstSeen first = new FirstSeen();

    /**
     * @param clampLuminance greatest luminance one path may add indirectly, cd/m2; 0 for no limit
     */
    public PathTracer(RenderScene scene, int bounces, double clampLuminance) {
        this(scene, bounces, PathSettings.Kinds.ALL, clampLuminance);
    }

    /** The same with limits for each kind of bounce. */
    public PathTracer(RenderScene scene, int bounces, PathSettings.Kinds kinds, double clampLuminance) {
        most = new int[] {kinds.diffuse(), kinds.mirrored(), kinds.refracted()};
        this.scene = scene;
        lights = scene.lights();
        direct = new DirectLight(this, scene);
        light = direct.light;
        shadow = direct.shadow;
        edges = new RoundEdges(scene);
        onlook = new Onlook(scene.scenery(), lights);
        this.bounces = bounces;
        clamp = clampLuminance > 0 ? (float) clampLuminance : Float.POSITIVE_INFINITY;
    }

    /** Sets the angle that one sample of the picture fills, radians: how sharply textures are looked at. */
    public void look(float radians) {
        cone = radians;
    }

    /** Sets what is seen behind the model. */
    void frame(Scenery s) {
        onlook.frame(s);
    }

    /** Sets where in the picture the next path begins, 0 left to 1 right and 0 top to 1 bottom: what a flat backdrop shows depends on it. */
    void place(float x, float y) {
        onlook.place(x, y);
    }

    /** Length of the array that {@link #radiance} adds to: three colours for each source group. */
    public int channels() {
        return 3 * lights.groups().size();
    }

    /** Rays traced so far. */
    public long rays() {
        return ray.traced + shadow.traced + edges.traced();
    }

    /** Luminance that the clamp took away so far, summed over paths, cd/m2. */
    public double clampedLuminance() {
        return clamped;
    }

    /** Part of the luminance of the last path that had bounced off something matt or glossy, cd/m2; of one that is not kept for others. */
    float bounced() {
        return bounced;
    }

    float clamp() {
        return clamp;
    }

    /** How light is looked for at points. */
    DirectLight direct() {
        return direct;
    }

    SurfacePoint point() {
        return point;
    }

    /** Adds the luminance by colour seen along a ray to {@code add}, by source group, cd/m2. */
    public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, float[] add) {
        begin(sampler, add, 1);
        look(ox, oy, oz, dx, dy, dz);
    }

    /** The same for a path whose beginning is kept; what its second point shows is left to {@link PathExchange} to gather. */
    void radiance(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, PathHead keep) {
        begin(sampler, keep.out, 1);
        trail.begin(keep);
        point = keep.point;
        scatter = keep.scatter;
        look(ox, oy, oz, dx, dy, dz);
    }

    private void look(float ox, float oy, float oz, float dx, float dy, float dz) {
        ray.set(ox, oy, oz, dx, dy, dz, Float.POSITIVE_INFINITY);
        ray.width = 0;
        ray.spread = cone;
        from.none();
        onlook.begin(true);
        first.nothing(dx, dy, dz);
        walk(0);
    }

    /** Adds one sample of the illuminance by colour on a plane at a point to {@code add}, by source group, lux. */
    public void irradiance(float x, float y, float z, float nx, float ny, float nz, PathSampler sampler, float[] add) {
        begin(sampler, add, (float) Math.PI);
        point.setMeter(x, y, z, nx, ny, nz);
        scatter.begin(point, nx, ny, nz);
        direct.find(0);
        if (scatterOn(0)) walk(1);
    }

    private void begin(PathSampler sampler, float[] add, float weight) {
        random = sampler;
        last = false;
        onlook.begin(false);
        trail.none();
        point = ownPoint;
        scatter = ownScatter;
        System.arraycopy(most, 0, left, 0, left.length);
        ray.width = ray.spread = 0;
        out = add;
        br = bg = bb = weight;
        indirect = false;
        bounced = 0;
        come = 0;
        direct.begin(sampler);
    }

    private void walk(int bounce) {
        int passes = 0;
        while (true) {
            if (!scene.tracer().closest(ray)) {
                escape();
                return;
            }
            come += ray.t;
            if (ray.item >= scene.tracer().firstLamp()) {
                int lamp = scene.tracer().lamps().lamp(ray.item - scene.tracer().firstLamp());
                if (lights.emitters().seen(lamp, onlook.straight)) {
                    ownColour();
                    meetLamp(lamp);
                    return;
                }
                if (++passes > MOST_PASSES) return;
                onward();
                continue;
            }
            point.load(scene.geometry(), scene.surfaces(), ray);
            if (!point.front && scene.surfaces().absorbs(point.material)) absorb();
            if (scene.surfaces().isPane(point.material)) {
                if (point.emitR + point.emitG + point.emitB > 0) meetGlow();
                if (++passes > MOST_PASSES || !pane()) return;
                continue;
            }
            if (scene.surfaces().isSoft(point.material) && passesSoft()) {
                if (++passes > MOST_PASSES) return;
                continue;
            }
            passes = 0;
            float round = scene.surfaces().round(point.material);
            if (round > 0 && (bounce == 0 || from.pdf < 0)) edges.at(point, round, ray, random);
            if (bounce == 0) first.surface(point, come);
            ownColour();
            if (onlook.meet(point, scene.surfaces().catches(point.material), ray, first)) {
                float[] b = onlook.seen();
                add(onlook.seenGroup(), b[0], b[1], b[2]);
            }
            if (point.emitR + point.emitG + point.emitB > 0) meetGlow();
            if (last || bounce >= bounces) return;
            scatter.begin(point, -ray.dx, -ray.dy, -ray.dz);
            if (trail.first()) trail.keepFirst(point, scene.surfaces(), br * onlook.own(0), bg * onlook.own(1), bb * onlook.own(2));
            else if (trail.between()) trail.meet(point, scene.surfaces(), -(point.nx * ray.dx + point.ny * ray.dy + point.nz * ray.dz));
            direct.find(bounce);
            if (!scatterOn(bounce)) return;
            bounce++;
            if (trail.between()) {
                point = trail.head.met;
                scatter = trail.head.metScatter;
            } else {
                point = ownPoint;
                scatter = ownScatter;
            }
        }
    }

    /** The path leaves the model: surroundings and sun. */
    private void escape() {
        if (onlook.seesBackdrop()) behind();
        else if (!lights.dome().dark() || onlook.seesOther()) {
            float whole = lights.dome().read(ray.dx, ray.dy, ray.dz, rgb);
            onlook.replace(ray, rgb);
            met(onlook.group(LightTable.DOME), rgb, from.pdf < 0 ? 0 : from.skyLooks * direct.daylight.pdf(from.aim, from.x, from.y, from.z, ray.dx, ray.dy, ray.dz, whole, (int) rgb[3], shadow));
        }
        float sun = lights.pdfSun(ray.dx, ray.dy, ray.dz);
        // A disc that is not to be seen is not met; what light sampling finds of it then counts alone.
        if (sun > 0 && (lights.showsDisc() && onlook.seesDisc() || from.pdf >= 0)) {
            lights.sunLuminance(rgb);
            met(onlook.seesBackdrop() ? lights.backdropGroup() : onlook.group(LightTable.SUN), rgb, sun);
        }
    }

    /** What the camera sees behind the model covers as little as panes before it take away. */
    private void behind() {
        onlook.backdrop(ray, rgb);
        onlook.colour(first, rgb);
        first.values[FirstSeen.COVER] = 1 - (0.2126f * br + 0.7152f * bg + 0.0722f * bb);
        met(lights.backdropGroup(), rgb, 0);
    }

    /** What came off a shadow catcher has met something: from there it is light that the catcher reflects by its own colour. */
    private void ownColour() {
        if (onlook.catching()) scale(onlook.own(0), onlook.own(1), onlook.own(2));
    }

    /** Past something that is not there for this path. */
    private void onward() {
        float t = ray.t * 1.00001f + 1e-5f;
        come += t - ray.t;
        ray.width += ray.spread * t;
        ray.set(ray.ox + t * ray.dx, ray.oy + t * ray.dy, ray.oz + t * ray.dz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
    }

    private void meetLamp(int lamp) {
        if (!lights.emitters().lampLuminance(lamp, ray.dx, ray.dy, ray.dz, rgb)) return;
        met(lights.emitters().lampGroup(lamp), rgb, from.pdf < 0 ? 0 : from.lampLooks * lights.emitters().pdfLamp(lamp, from.x, from.y, from.z, ray.dx, ray.dy, ray.dz, come, direct.before(from), direct.lamplight.worths(from.lampAt), Math.max(0, from.lampAt)));
    }

    private void meetGlow() {
        float cos = Math.abs(point.gx * ray.dx + point.gy * ray.dy + point.gz * ray.dz);
        rgb[0] = point.emitR;
        rgb[1] = point.emitG;
        rgb[2] = point.emitB;
        met(lights.glowGroup(), rgb, from.pdf < 0 ? 0 : from.lampLooks * lights.emitters().pdfGlow(ray.item, ray.prim, from.x, from.y, from.z, come, cos, direct.before(from), direct.lamplight.worths(from.lampAt), Math.max(0, from.lampAt)));
    }

    /** Adds light that the path ran into, which light sampling might have found with some density. */
    private void met(int group, float[] light, float other) {
        if (trail.met(group, light, other)) return;
        float w = from.pdf < 0 ? 1 : weigh(from.pdf, other);
        add(group, light[0] * w, light[1] * w, light[2] * w);
    }

    /** A clear sheet: goes on straight or mirrors, by chance. */
    private boolean pane() {
        float cos = Math.max(1e-4f, -(point.nx * ray.dx + point.ny * ray.dy + point.nz * ray.dz));
        float clear = Fresnel.paneTransmittance(cos, point.ior), t = clear * point.transmission;
        float tr = t * point.baseR, tg = t * point.baseG, tb = t * point.baseB, mirror = 1 - clear;
        float p = SurfaceTable.chance(tr, tg, tb, mirror);
        if (!(p + mirror > 0)) return false;
        if (random.next1() < p) {
            trail.passed(tr, tg, tb, p);
            scale(tr / p, tg / p, tb / p);
            step(-1, ray.dx, ray.dy, ray.dz);
        } else {
            scale(mirror / (1 - p), mirror / (1 - p), mirror / (1 - p));
            from.none();
            trail.mirrored();
            onlook.mirror();
            float k = 2 * cos;
            step(1, ray.dx + k * point.nx, ray.dy + k * point.ny, ray.dz + k * point.nz);
        }
        return true;
    }

    /** Light that a solid swallows on the way through it (Beer). */
    private void absorb() {
        trail.absorbed();
        var table = scene.surfaces();
        scale(table.left(point.material, 0, ray.t), table.left(point.material, 1, ray.t), table.left(point.material, 2, ray.t));
    }

    private boolean passesSoft() {
        var blas = scene.geometry().blas(ray.item);
        float there = scene.surfaces().coverage(blas, point.material, ray.prim, ray.u, ray.v);
        if (random.next1() < there) return false;
        trail.passed(1 - there, 1 - there, 1 - there, 1 - there);
        step(-1, ray.dx, ray.dy, ray.dz);
        return true;
    }

    /** Sends the path on from the point, a hair off the surface on its near (+1) or far (-1) side. */
    private void step(float side, float dx, float dy, float dz) {
        float e = point.offset * side;
        ray.width += ray.spread * ray.t;
        ray.set(point.px + e * point.gx, point.py + e * point.gy, point.pz + e * point.gz, dx, dy, dz, Float.POSITIVE_INFINITY);
    }

    private void scale(float r, float g, float b) {
        br *= r;
        bg *= g;
        bb *= b;
        trail.scale(r, g, b);
    }

    /** Adds what comes from the sampled light to the point; returns the luminance that arrives. */
    float connect(int bounce) {
        if (!(light.pdf > 0)) return 0;
        scatter.eval(light.x, light.y, light.z);
        // Rough glass may scatter to others what it does not scatter here.
        if (!(scatter.r * light.r + scatter.g * light.g + scatter.b * light.b > 0) && !(trail.second() && point.transmission > 0)) return 0;
        if (light.group == LightTable.DOME && onlook.mixes()) onlook.replace(point, scatter, light);
        if (!direct.arrives(point)) return 0;
        float r = light.r * shadow.tr, g = light.g * shadow.tg, b = light.b * shadow.tb;
        boolean alone = light.point || light.hidden;
        if (trail.second()) trail.head.lit(light.x, light.y, light.z, light.group, r, g, b, light.pdf, !alone);
        else {
            float w = (alone ? 1 : weigh(light.pdf, scatter.pdf)) / light.pdf;
            boolean before = indirect;
            indirect = bounce > 0 || before;
            if (onlook.catching() && light.group > LightTable.DOME) {
                r *= onlook.own(0);
                g *= onlook.own(1);
                b *= onlook.own(2);
            }
            add(onlook.group(light.group), scatter.r * r * w, scatter.g * g * w, scatter.b * b * w);
            indirect = before;
        }
        return 0.2126f * r + 0.7152f * g + 0.0722f * b;
    }

    /** Chooses where the path goes next; false when it ends here. */
    private boolean scatterOn(int bounce) {
        random.next2();
        float lobe = random.u, roulette = random.v;
        random.next2();
        if (!scatter.sample(lobe, random.u, random.v)) return false;
        float k = 1 / scatter.pdf;
        scale(scatter.r * k, scatter.g * k, scatter.b * k);
        trail.bounced(scatter, k);
        float most = Math.max(br, Math.max(bg, bb));
        if (!(most > 0) || most == Float.POSITIVE_INFINITY) return false;
        if (bounce >= 2) {
            float p = Math.min(0.96f, trail.worth(most));
            if (roulette >= p) return false;
            scale(1 / p, 1 / p, 1 / p);
        }
        onlook.scatter(scatter, onlook.catching());
        from.pdf = scatter.smooth ? -1 : scatter.pdf;
        last = left[scatter.kind]-- <= 0;
        // A path stands for about this share of all directions; what is met in them may be seen as finely.
        if (!scatter.smooth) ray.spread = Math.max(ray.spread, Math.min(0.4f, WIDE / (float) Math.sqrt(scatter.pdf)));
        if (!scatter.smooth) indirect = true;
        direct.leave(from);
        from.at(point);
        come = 0;
        float side = scatter.wx * point.gx + scatter.wy * point.gy + scatter.wz * point.gz > 0 ? 1 : -1;
        step(side, scatter.wx, scatter.wy, scatter.wz);
        return point.material < 0 || thrift();
    }

    /** What the material gives up for time; false when this path does not go on. */
    private boolean thrift() {
        float reach = scene.surfaces().reach(point.material), weight = scene.surfaces().weight(point.material);
        if (scatter.kind == Scatter.MIRRORED && reach < Float.POSITIVE_INFINITY) ray.t = reach;
        if (weight == 1) return true;
        if (random.next1() >= weight) return false;
        scale(1 / weight, 1 / weight, 1 / weight);
        return true;
    }

    /** Power heuristic with exponent two (Veach and Guibas 1995). */
    private static float weigh(float own, float other) {
        float q = other / own;
        return 1 / (1 + q * q);
    }

    private void add(int group, float r, float g, float b) {
        if (trail.shared()) {
            trail.later(group, r, g, b);
            return;
        }
        r *= br;
        g *= bg;
        b *= bb;
        if (onlook.catching()) onlook.lit(group, 0.2126f * r + 0.7152f * g + 0.0722f * b, first);
        if (indirect) bounced += 0.2126f * r + 0.7152f * g + 0.0722f * b;
        clamped += Clamp.add(out, group, r, g, b, indirect ? clamp : Float.POSITIVE_INFINITY);
    }
}
