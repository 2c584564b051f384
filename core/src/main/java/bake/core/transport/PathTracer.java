package bake.core.transport;

import bake.core.film.Film;
import bake.core.geometry.Ray;
import bake.core.light.Aim;
import bake.core.light.LightSample;
import bake.core.light.LightTable;
import bake.core.math.PathSampler;
import bake.core.surface.Fresnel;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

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
    private final Ray ray = new Ray(), shadow = new Ray();
    private final SurfacePoint point = new SurfacePoint();
    private final Scatter scatter = new Scatter();
    private final LightSample light = new LightSample();
    private final RoundEdges edges;
    private final float[] rgb = new float[3];
    private final Daylight daylight;
    /** How the surroundings are looked for at the point, and at the last scattering; null for the unlearnt way. */
    private Aim aim, lastAim;

    private PathSampler random;
    private float[] out;
    /** Throughput of the path so far. */
    private float br, bg, bb;
    /** Density of the last scattering; negative when light sampling could not have found what comes now. */
    private float lastPdf;
    /** Where the last scattering happened, and how far the ray has come since. */
    private float lastX, lastY, lastZ, come;
    /** Whether the path has left a surface in a way that calls for the clamp. */
    private boolean indirect;
    /** Whether only what the path meets next may still add its own light. */
    private boolean last;
    private double clamped;
    private float cone;
    /** What the path met first behind panes: base colour, normal, distance; for {@link Film#addFeatures}. */
    final float[] first = new float[7];

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
        daylight = new Daylight(scene);
        edges = new RoundEdges(scene);
        this.bounces = bounces;
        clamp = clampLuminance > 0 ? (float) clampLuminance : Float.POSITIVE_INFINITY;
    }

    /** Sets the angle that one sample of the picture fills, radians: how sharply textures are looked at. */
    public void look(float radians) {
        cone = radians;
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

    Daylight daylight() {
        return daylight;
    }

    /** Sets {@link #clampedLuminance} back after paths that are no part of the picture. */
    void setClamped(double luminance) {
        clamped = luminance;
    }

    /** Adds the luminance by colour seen along a ray to {@code add}, by source group, cd/m2. */
    public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, PathSampler sampler, float[] add) {
        begin(sampler, add, 1);
        ray.set(ox, oy, oz, dx, dy, dz, Float.POSITIVE_INFINITY);
        ray.width = 0;
        ray.spread = cone;
        lastPdf = -1;
        sky(dx, dy, dz);
        walk(0);
    }

    /** Features of what is no surface: white, facing the camera, far away. */
    private void sky(float dx, float dy, float dz) {
        first[0] = first[1] = first[2] = 1;
        first[3] = -dx;
        first[4] = -dy;
        first[5] = -dz;
        first[6] = 1e4f;
    }

    private void surface() {
        // A metal's gloss carries its colour, glass and glowing surfaces show what has none.
        boolean plain = point.transmission > 0.5f || point.emitR + point.emitG + point.emitB > 0;
        first[0] = plain ? 1 : Math.max(0.02f, point.baseR);
        first[1] = plain ? 1 : Math.max(0.02f, point.baseG);
        first[2] = plain ? 1 : Math.max(0.02f, point.baseB);
        first[3] = point.nx;
        first[4] = point.ny;
        first[5] = point.nz;
        first[6] = come;
    }

    /** Adds one sample of the illuminance by colour on a plane at a point to {@code add}, by source group, lux. */
    public void irradiance(float x, float y, float z, float nx, float ny, float nz, PathSampler sampler, float[] add) {
        begin(sampler, add, (float) Math.PI);
        point.setMeter(x, y, z, nx, ny, nz);
        scatter.begin(point, nx, ny, nz);
        direct(0);
        if (scatterOn(0)) walk(1);
    }

    private void begin(PathSampler sampler, float[] add, float weight) {
        random = sampler;
        last = false;
        System.arraycopy(most, 0, left, 0, left.length);
        ray.width = ray.spread = 0;
        out = add;
        br = bg = bb = weight;
        indirect = false;
        come = 0;
        aim = null;
        daylight.beginPath(sampler);
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
                meetLamp();
                return;
            }
            point.load(scene.geometry(), scene.surfaces(), ray);
            if (!point.front && scene.surfaces().absorbs(point.material)) absorb();
            if (scene.surfaces().isPane(point.material)) {
                if (++passes > MOST_PASSES || !pane()) return;
                continue;
            }
            if (scene.surfaces().isSoft(point.material) && passesSoft()) {
                if (++passes > MOST_PASSES) return;
                continue;
            }
            passes = 0;
            float round = scene.surfaces().round(point.material);
            if (round > 0 && (bounce == 0 || lastPdf < 0)) edges.at(point, round, ray, random);
            if (bounce == 0) surface();
            if (point.emitR + point.emitG + point.emitB > 0) meetGlow();
            if (last || bounce >= bounces) return;
            scatter.begin(point, -ray.dx, -ray.dy, -ray.dz);
            direct(bounce);
            if (!scatterOn(bounce)) return;
            bounce++;
        }
    }

    /** The path leaves the model: surroundings and sun. */
    private void escape() {
        if (!lights.dome().dark()) {
            lights.dome().lookup(ray.dx, ray.dy, ray.dz, rgb);
            float w = lastPdf < 0 ? 1 : weigh(lastPdf, daylight.pdf(lastAim, lastX, lastY, lastZ, ray.dx, ray.dy, ray.dz, shadow));
            add(LightTable.DOME, rgb[0] * w, rgb[1] * w, rgb[2] * w);
        }
        float sun = lights.pdfSun(ray.dx, ray.dy, ray.dz);
        if (sun > 0) {
            lights.sunLuminance(rgb);
            float w = lastPdf < 0 ? 1 : weigh(lastPdf, sun);
            add(LightTable.SUN, rgb[0] * w, rgb[1] * w, rgb[2] * w);
        }
    }

    private void meetLamp() {
        int lamp = scene.tracer().lamps().lamp(ray.item - scene.tracer().firstLamp());
        if (!lights.emitters().lampLuminance(lamp, ray.dx, ray.dy, ray.dz, rgb)) return;
        float w = lastPdf < 0 ? 1
                : weigh(lastPdf, lights.emitters().pdfLamp(lamp, lastX, lastY, lastZ, ray.dx, ray.dy, ray.dz, come));
        add(lights.emitters().lampGroup(lamp), rgb[0] * w, rgb[1] * w, rgb[2] * w);
    }

    private void meetGlow() {
        float cos = Math.abs(point.gx * ray.dx + point.gy * ray.dy + point.gz * ray.dz);
        float w = lastPdf < 0 ? 1 : weigh(lastPdf, lights.emitters().pdfGlow(ray.item, ray.prim, lastX, lastY, lastZ, come, cos));
        add(lights.groups().size() - 1, point.emitR * w, point.emitG * w, point.emitB * w);
    }

    /** A clear sheet: goes on straight or mirrors, by chance. */
    private boolean pane() {
        float cos = Math.max(1e-4f, -(point.nx * ray.dx + point.ny * ray.dy + point.nz * ray.dz));
        float clear = Fresnel.paneTransmittance(cos, point.ior), t = clear * point.transmission;
        float tr = t * point.baseR, tg = t * point.baseG, tb = t * point.baseB, mirror = 1 - clear;
        float lum = 0.2126f * tr + 0.7152f * tg + 0.0722f * tb;
        if (lum + mirror <= 0) return false;
        float p = lum / (lum + mirror);
        if (random.next1() < p) {
            scale(tr / p, tg / p, tb / p);
            step(-1, ray.dx, ray.dy, ray.dz);
        } else {
            scale(mirror / (1 - p), mirror / (1 - p), mirror / (1 - p));
            lastPdf = -1;
            float k = 2 * cos;
            step(1, ray.dx + k * point.nx, ray.dy + k * point.ny, ray.dz + k * point.nz);
        }
        return true;
    }

    /** Light that a solid swallows on the way through it (Beer). */
    private void absorb() {
        var table = scene.surfaces();
        scale(table.left(point.material, 0, ray.t), table.left(point.material, 1, ray.t), table.left(point.material, 2, ray.t));
    }

    private boolean passesSoft() {
        var blas = scene.geometry().blas(ray.item);
        float there = scene.surfaces().coverage(blas, point.material, ray.prim, ray.u, ray.v);
        if (random.next1() < there) return false;
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
    }

    /** Light straight from sun, surroundings and one emitter to the point. */
    private void direct(int bounce) {
        if (Scatter.onlyStraight(point)) return;
        if (lights.hasSun()) {
            random.next2();
            lights.sampleSun(random.u, random.v, light);
            connect(bounce);
        }
        if (!lights.dome().dark()) {
            directDome(bounce);
        }
        if (lights.emitters().count() > 0) {
            float choose = random.next1();
            random.next2();
            if (lights.emitters().sample(point.px, point.py, point.pz, choose, random.u, random.v, light)) connect(bounce);
        }
    }

    /** Light of the surroundings; what it brought is told to those who choose where to look. */
    private void directDome(int bounce) {
        aim = daylight.at(point);
        daylight.sample(aim, point.px, point.py, point.pz, random, light, shadow);
        float got = connect(bounce), cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
        daylight.brought(got * Math.max(0, cos));
    }

    /** Adds what comes from the sampled light to the point; returns the luminance that arrives. */
    private float connect(int bounce) {
        if (!(light.pdf > 0)) return 0;
        scatter.eval(light.x, light.y, light.z);
        float k = 1 / light.pdf, r = scatter.r * light.r * k, g = scatter.g * light.g * k, b = scatter.b * light.b * k;
        if (!(r + g + b > 0)) return 0;
        float side = light.x * point.gx + light.y * point.gy + light.z * point.gz > 0 ? 1 : -1, e = point.offset * side;
        float reach = light.distance == Float.POSITIVE_INFINITY ? light.distance : light.distance * 0.9999f - 2 * point.offset;
        float arrives = 0.2126f * light.r + 0.7152f * light.g + 0.0722f * light.b;
        if (reach > 0) {
            shadow.set(point.px + e * point.gx, point.py + e * point.gy, point.pz + e * point.gz, light.x, light.y, light.z, reach);
            shadow.skipLamp = light.lamp;
            if (!scene.tracer().open(shadow)) return 0;
            r *= shadow.tr;
            g *= shadow.tg;
            b *= shadow.tb;
            arrives = 0.2126f * light.r * shadow.tr + 0.7152f * light.g * shadow.tg + 0.0722f * light.b * shadow.tb;
        }
        float w = light.point || light.hidden ? 1 : weigh(light.pdf, scatter.pdf);
        boolean before = indirect;
        indirect = bounce > 0 || before;
        add(light.group, r * w, g * w, b * w);
        indirect = before;
        return arrives;
    }

    /** Chooses where the path goes next; false when it ends here. */
    private boolean scatterOn(int bounce) {
        random.next2();
        float lobe = random.u, roulette = random.v;
        random.next2();
        if (!scatter.sample(lobe, random.u, random.v)) return false;
        float k = 1 / scatter.pdf;
        scale(scatter.r * k, scatter.g * k, scatter.b * k);
        float most = Math.max(br, Math.max(bg, bb));
        if (!(most > 0) || most == Float.POSITIVE_INFINITY) return false;
        if (bounce >= 2) {
            float p = Math.min(0.96f, most);
            if (roulette >= p) return false;
            scale(1 / p, 1 / p, 1 / p);
        }
        lastPdf = scatter.smooth ? -1 : scatter.pdf;
        last = left[scatter.kind]-- <= 0;
        // A path stands for about this share of all directions; what is met in them may be seen as finely.
        if (!scatter.smooth) ray.spread = Math.max(ray.spread, Math.min(0.4f, WIDE / (float) Math.sqrt(scatter.pdf)));
        if (!scatter.smooth) indirect = true;
        lastAim = aim;
        lastX = point.px;
        lastY = point.py;
        lastZ = point.pz;
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
        r *= br;
        g *= bg;
        b *= bb;
        float l = 0.2126f * r + 0.7152f * g + 0.0722f * b;
        if (!(l < Float.POSITIVE_INFINITY)) return; // an overflow or NaN must not spoil the pixel
        if (indirect && l > clamp) {
            float k = clamp / l;
            clamped += l - clamp;
            r *= k;
            g *= k;
            b *= k;
        }
        out[3 * group] += r;
        out[3 * group + 1] += g;
        out[3 * group + 2] += b;
    }
}
