package bake.core.path;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.light.Aim;
import bake.core.light.LightSample;
import bake.core.light.LightTable;
import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * Samples light straight from sun, surroundings and emitters to the point that a path has come to, as often and in such ways as guides
 * say, and teaches guides what it finds. One for each {@link PathTracer}.
 */
public final class DirectLight {
    private final PathTracer path;
    private final RenderScene scene;
    private final LightTable lights;
    public final Daylight daylight;
    public final Lamplight lamplight;
    /** What was found last, the ray that asked whether it arrives, and a spare sample. */
    public final LightSample light = new LightSample();
    public final Ray shadow = new Ray();
    private final LightSample scratch = new LightSample(), kept = new LightSample();
    /**
     * Where there are more than a few emitters: samples that a shadow ray of a first point is chosen from, and most such rays. Reading room
     * by night, variance of a sample and time of a pass: 1.35 times lower and 1.16 times longer than with three rays to one sample each.
     */
    private static final float BELOW_ONE = 0x1.fffffep-1f;
    private static final int FEW = 3, CANDIDATES = 6, BEST = 2;
    private PathSampler random;
    /** How the surroundings are looked for at the point; null for the unlearnt way. */
    public Aim aim;
    /** The last place whose surroundings were gathered, and how they were looked for there. */
    private Aim gathered;
    private float gx, gy, gz;
    private LightSamples looks = LightSamples.UNLEARNT;
    private int lessons, lampLessons;
    /** How often the point looks for the surroundings and for emitters. */
    public float skySamples = 1, lampSamples = 1;
    /** Whether light comes to the point from both sides. */
    public boolean around;
    /** What the lamp guide knows of the point; -1 for nothing. */
    public int lampAt = -1;
    /**
     * Whether bounces off the point's matt body are not traced, so that light sampling there stands alone; and whether its gloss is traced
     * apart.
     */
    private boolean beside, glossApart;
    /** Whether what records know holds light straight from the surroundings. */
    private boolean skyGathered;
    /** Luminance below which light is looked for by chance only, cd/m2; 0 for none. */
    private float least;
    private final float[] rgb = new float[3];
    private final Frame frame = new Frame();

    public DirectLight(PathTracer path, RenderScene scene) {
        this.path = path;
        this.scene = scene;
        lights = scene.lights();
        daylight = new Daylight(scene);
        lamplight = new Lamplight(lights.emitters());
    }

    /** Sets how many more looks for the surroundings and for lamps every point takes only to teach. */
    public void teach(int sky, int lamps) {
        lessons = sky;
        lampLessons = lamps;
    }

    /** Sets how often points look for light. */
    public void often(LightSamples often) {
        looks = often;
    }

    /** Samples as another does, and teaches nobody. */
    void sampleLike(DirectLight other) {
        daylight.followLike(other.daylight);
        lamplight.followLike(other.lamplight);
        looks = other.looks;
    }

    public void begin(PathSampler sampler) {
        random = sampler;
        aim = null;
        lampAt = -1;
        daylight.beginPath(sampler);
        lamplight.beginPath(sampler);
    }

    /** Keeps for a departure from the point what light sampling there would have made of what is met. */
    public void leave(Departure from) {
        from.aim = aim;
        from.skySamples = skySamples;
        from.lampSamples = lampSamples;
        from.around = around;
        from.lampAt = lampAt;
    }

    /** The other look at the last scattering, for asking how likely it would have found what was met. */
    public LightSample before(Departure from) {
        if (from.around) scratch.fromAround();
        else scratch.from(from.nx, from.ny, from.nz);
        return scratch;
    }

    void skyGathered(boolean g) {
        skyGathered = g;
    }

    /**
     * Light straight to the gloss of a point whose body a cell knows, by chance in proportion to what it could bring.
     *
     * @param certain luminance that always gets its shadow ray, cd/m2
     * @param onlySun whether no other light is looked for
     */
    void findGloss(int bounce, float certain, boolean onlySun) {
        least = certain;
        if (onlySun) findSun(bounce);
        else find(bounce);
        least = 0;
    }

    /**
     * Light straight to a point of whose bounced light records know.
     *
     * @param gloss whether the point's gloss is traced apart
     */
    void findBesideRecords(int bounce, boolean gloss) {
        beside = true;
        glossApart = gloss;
        find(bounce, !skyGathered || gloss);
        beside = false;
    }

    /** Light straight from sun, surroundings and emitters to the point. */
    public void find(int bounce) {
        find(bounce, true);
    }

    /** @param sky whether the surroundings are looked at, the sun aside */
    public void find(int bounce, boolean sky) {
        SurfacePoint point = path.point();
        if (Scatter.onlyStraight(point)) return;
        findSun(bounce);
        if (sky && !lights.dome().dark()) {
            aim = daylight.at(point);
            skySamples = bounce > 0 ? looks.laterSky() : daylight.indoors(aim, point, shadow) ? looks.skyIndoors() : 1;
            dome(point, bounce);
            if (lessons > 0) teach(point);
        }
        if (lights.emitters().count() > 0) {
            lampSamples = bounce > 0 ? looks.laterLamps() : looks.lamps();
            emitters(point, bounce);
        }
    }

    /** Light straight from the sun alone. */
    public void findSun(int bounce) {
        if (!lights.hasSun()) return;
        random.next2();
        lights.sampleSun(random.u, random.v, light);
        connect(bounce, 1);
    }

    /** Samples are spread over what there is to choose from. What they brought is told to those who choose where to look. */
    private void dome(SurfacePoint point, int bounce) {
        if (skySamples < 1 && random.next1() >= skySamples) return;
        float first = random.next1();
        for (int k = 0; k < skySamples; k++) {
            daylight.sample(aim, point.px, point.py, point.pz, (first + k) / Math.max(1, skySamples), random, light, shadow);
            light.pdf *= skySamples;
            float got = connect(bounce, 1), cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            daylight.brought(got * Math.max(0, cos));
        }
    }

    /** Where rays leave for that are gathered with what {@link #surroundings} looks for: from its last place, so much less often. */
    void leaveTo(Departure from, float share) {
        from.aim = gathered;
        from.skySamples = share;
        from.x = gx;
        from.y = gy;
        from.z = gz;
    }

    /**
     * Adds irradiance over pi straight from the surroundings, the sun aside, to what {@code light} holds of a place, cd/m2. Rays that are
     * gathered over the hemisphere find them too, so both count for their share (Veach and Guibas 1995, power heuristic).
     *
     * @param looks how often they are looked for, {@code rays} how many are gathered; 0 for none that find them
     */
    public void surroundings(SurfacePoint point, int looks, int rays, PathSampler sampler, float[] add) {
        if (lights.dome().dark()) return;
        begin(sampler);
        aim = gathered = daylight.at(point);
        gx = point.px;
        gy = point.py;
        gz = point.pz;
        float first = random.next1();
        for (int k = 0; k < looks; k++) {
            if (rays > 0) random.one(k);
            daylight.sample(aim, point.px, point.py, point.pz, (first + k) / looks, random, light, shadow);
            if (rays > 0) random.join();
            float cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            if (!(cos > 0 && light.pdf > 0 && point.gx * light.x + point.gy * light.y + point.gz * light.z > 0 && arrives(point))) continue;
            float w = cos / ((float) Math.PI * light.pdf * looks) * weigh(light.pdf * looks / (float) rays, cos / (float) Math.PI);
            add[3 * LightTable.DOME] += w * light.r * shadow.tr;
            add[3 * LightTable.DOME + 1] += w * light.g * shadow.tg;
            add[3 * LightTable.DOME + 2] += w * light.b * shadow.tb;
        }
    }

    /**
     * Samples of light that bring the picture nothing, only teach: a look is one ray, a path that comes to a point is many. Half of them
     * look anywhere.
     */
    private void teach(SurfacePoint point) {
        float first = random.next1();
        for (int k = 0; k < lessons; k++) {
            Aim how = k % 2 == 0 ? null : aim;
            daylight.sample(how, point.px, point.py, point.pz, (first + k) / lessons, random, light, shadow);
            float cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            daylight.brought(cos > 0 && light.pdf > 0 && arrives(point)
                    ? cos * (0.2126f * light.r * shadow.tr + 0.7152f * light.g * shadow.tg + 0.0722f * light.b * shadow.tb) : 0);
        }
    }

    /** Whether the sampled light reaches the point; what is left of it by colour is the shadow ray's. */
    public boolean arrives(SurfacePoint point) {
        float side = light.x * point.gx + light.y * point.gy + light.z * point.gz > 0 ? 1 : -1, e = point.offset * side;
        float x = point.px + e * point.gx, y = point.py + e * point.gy, z = point.pz + e * point.gz;
        if (light.onMesh) toMesh(x, y, z);
        else {
            float reach = light.distance == Float.POSITIVE_INFINITY ? light.distance : light.distance * 0.9999f - 2 * point.offset;
            shadow.set(x, y, z, light.x, light.y, light.z, reach);
        }
        shadow.skipLamp = light.lamp;
        if (shadow.t > 0) return scene.tracer().open(shadow);
        shadow.tr = shadow.tg = shadow.tb = 1;
        return true;
    }

    /** Whether nothing stands between two places, each a hair off its surface along the normal. */
    public boolean clear(float x, float y, float z, float nx, float ny, float nz, float tx, float ty, float tz) {
        float dx = tx - x, dy = ty - y, dz = tz - z, d = (float) Math.sqrt(dx * dx + dy * dy + dz * dz);
        if (d < 1e-4f) return true;
        float k = 1 / d, h = 0.03f * d + 1e-4f;
        shadow.set(x + h * nx, y + h * ny, z + h * nz, k * dx, k * dy, k * dz, d);
        shadow.skipLamp = -1;
        return scene.tracer().open(shadow);
    }

    /** Distance to the nearest thing up to {@code most}, metres; infinite where there is none. */
    public float free(float x, float y, float z, float dx, float dy, float dz, float most) {
        shadow.set(x, y, z, dx, dy, dz, most);
        return scene.tracer().closest(shadow) ? shadow.t : Float.POSITIVE_INFINITY;
    }

    /** Whether nothing is near in a direction that is chosen by its irradiance; panes are nothing. */
    boolean open(SurfacePoint p, float reach) {
        random.next2();
        float sin = (float) Math.sqrt(random.u), phi = 2 * (float) Math.PI * random.v;
        frame.around(p.nx, p.ny, p.nz);
        frame.turn(sin * (float) Math.cos(phi), sin * (float) Math.sin(phi), (float) Math.sqrt(1 - random.u));
        if (!(frame.x * p.gx + frame.y * p.gy + frame.z * p.gz > 0)) return false;
        shadow.set(p.px + p.offset * p.gx, p.py + p.offset * p.gy, p.pz + p.offset * p.gz, frame.x, frame.y, frame.z, reach);
        shadow.skipLamp = -1;
        return scene.tracer().open(shadow);
    }

    /** A shadow ray from a place to just before a glowing triangle. */
    private void toMesh(float x, float y, float z) {
        float dx = light.tx - x, dy = light.ty - y, dz = light.tz - z, d = (float) Math.sqrt(dx * dx + dy * dy + dz * dz),
                k = 1 / Math.max(d, Float.MIN_NORMAL);
        shadow.set(x, y, z, k * dx, k * dy, k * dz, d);
    }

    private void emitters(SurfacePoint point, int bounce) {
        facing(point);
        lampAt = lamplight.at(point);
        if (lampSamples < 1 && random.next1() >= lampSamples) return;
        float first = random.next1();
        boolean many = lights.emitters().count() > FEW;
        int n = many && bounce == 0 && !path.cells.on() && !lamplight.teaches() ? CANDIDATES : 1;
        int shadows = (int) Math.clamp(lampSamples, 1, n > 1 ? BEST : Integer.MAX_VALUE);
        if (n > 1) lampSamples = shadows * n;
        for (int k = 0; k < shadows; k++) {
            if (n > 1) {
                resample(point, bounce, first, k * n, n);
                continue;
            }
            if (!look(point, (first + k) / shadows)) continue;
            light.pdf *= lampSamples;
            float got = connect(bounce, 1);
            light.pdf /= lampSamples;
            lamplight.brought(light, point.px, point.py, point.pz, got
                    * Math.max(0, point.nx * light.x + point.ny * light.y + point.nz * light.z));
        }
        if (lampLessons > 0) teachLamps(point);
    }

    private boolean look(SurfacePoint point, float choose) {
        random.next2();
        return lights.emitters().sample(point.px, point.py, point.pz, choose, random.u, random.v, light, lamplight.weights(lampAt),
                Math.max(0, lampAt));
    }

    /**
     * One shadow ray for several samples, to one of them by what it would bring if nothing stood in between (resampled importance sampling:
     * Talbot et al. 2005): close strips and the reflections that gloss has of lamps are found without a ray for each sample.
     *
     * @param k number of the first sample among all of the point, whose choices are spread out
     */
    private void resample(SurfacePoint point, int bounce, float first, int k, int n) {
        float sum = 0, best = 0, choose = random.next1();
        for (int i = 0; i < n; i++) {
            if (!look(point, (first + k + i) / lampSamples)) continue;
            light.pdf *= lampSamples;
            float v = promise();
            if (!(v > 0)) continue;
            sum += v;
            // One number chooses for all: what is left of it is as even as before.
            float p = v / sum;
            if (choose < p) {
                best = v;
                kept.take(light);
                choose = Math.min(choose / p, BELOW_ONE);
            } else choose = Math.min((choose - p) / (1 - p), BELOW_ONE);
        }
        if (!(best > 0)) return;
        light.take(kept);
        connect(bounce, sum / best);
    }

    /** Luminance that the sampled light would add to the path's point. */
    private float promise() {
        if (!(light.pdf > 0)) return 0;
        Scatter scatter = path.scatter;
        scatter.eval(light.x, light.y, light.z);
        body(scatter);
        float whole = 1 / light.pdf, w = light.point || light.hidden || beside && !glossApart ? whole
                : whole * weigh(light.pdf, scatter.pdf);
        return 0.2126f * (scatter.r * w + rgb[0] * whole) * light.r + 0.7152f * (scatter.g * w + rgb[1] * whole) * light.g
                + 0.0722f * (scatter.b * w + rgb[2] * whole) * light.b;
    }

    private void teachLamps(SurfacePoint point) {
        float first = random.next1();
        for (int k = 0; k < lampLessons; k++) {
            random.next2();
            int at = k % 2 == 0 ? -1 : lampAt;
            if (!lights.emitters().sample(point.px, point.py, point.pz, (first + k) / lampLessons, random.u, random.v, light,
                    lamplight.weights(at), Math.max(0, at))) continue;
            float cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            lamplight.brought(light, point.px, point.py, point.pz, cos > 0
                    && arrives(point) ? cos * (0.2126f * light.r + 0.7152f * light.g + 0.0722f * light.b) : 0);
        }
    }

    /** Tells the choice of emitters which way the point faces; what lets light through is lit from both sides. */
    private void facing(SurfacePoint point) {
        around = point.transmission > 0 || point.translucency > 0 || point.askew;
        if (around) light.fromAround();
        else light.from(point.nx, point.ny, point.nz);
    }

    /**
     * Adds what comes from the sampled light to the point; returns the luminance that arrives.
     *
     * @param times how many times it counts
     */
    private float connect(int bounce, float times) {
        if (!(light.pdf > 0)) return 0;
        SurfacePoint point = path.point();
        Scatter scatter = path.scatter;
        Onlook onlook = path.onlook;
        scatter.eval(light.x, light.y, light.z);
        body(scatter);
        // Rough glass may scatter to others what it does not scatter here.
        if (!((scatter.r + rgb[0]) * light.r + (scatter.g + rgb[1]) * light.g + (scatter.b + rgb[2]) * light.b > 0)
                && !(path.trail.second() && point.transmission > 0)) return 0;
        if (light.group == LightTable.DOME && onlook.mixes()) onlook.replace(point, scatter, light);
        float chance = chance(scatter);
        if (chance < 1 && random.next1() >= chance || !arrives(point)) return 0;
        float r = light.r * shadow.tr, g = light.g * shadow.tg, b = light.b * shadow.tb;
        boolean alone = light.point || light.hidden;
        if (path.trail.second()) path.trail.head.lit(light.x, light.y, light.z, light.group, r, g, b, light.pdf, !alone);
        else {
            float whole = times / (light.pdf * chance), w = alone || beside && !glossApart ? whole : whole * weigh(light.pdf, scatter.pdf);
            float mr = rgb[0] * whole, mg = rgb[1] * whole, mb = rgb[2] * whole;
            if (path.cells.on()) lightCell(scatter, w, r, g, b);
            boolean before = path.indirect;
            path.indirect = bounce > 0 || before;
            if (onlook.catching() && light.group > LightTable.DOME) {
                r *= onlook.own(0);
                g *= onlook.own(1);
                b *= onlook.own(2);
            }
            path.add(onlook.group(light.group), (scatter.r * w + mr) * r, (scatter.g * w + mg) * g, (scatter.b * w + mb) * b);
            path.indirect = before;
        }
        return 0.2126f * r + 0.7152f * g + 0.0722f * b;
    }

    /**
     * What the matt body scatters of the light where only gloss is evaluated, since no bounce off it could find the light too; else
     * nothing.
     */
    private void body(Scatter scatter) {
        if (beside && glossApart && !(skyGathered && light.group == LightTable.DOME)) scatter.matt(light.x, light.y, light.z, rgb);
        else rgb[0] = rgb[1] = rgb[2] = 0;
    }

    /** Chance of asking whether light arrives: less than one where it would make little of what is known of the point already. */
    private float chance(Scatter scatter) {
        if (least == 0) return 1;
        float most = (0.2126f * scatter.r * light.r + 0.7152f * scatter.g * light.g + 0.0722f * scatter.b * light.b) / light.pdf;
        return Math.min(1, most / least);
    }

    private void lightCell(Scatter scatter, float weight, float r, float g, float b) {
        scatter.lambert(light.x, light.y, light.z, light.group != LightTable.SUN, rgb);
        path.cells.lit(light.group, weight * rgb[0] * r, weight * rgb[1] * g, weight * rgb[2] * b);
    }

    /** Power heuristic with exponent two (Veach and Guibas 1995, equation 16). */
    static float weigh(float own, float other) {
        float q = other / own;
        return 1 / (1 + q * q);
    }
}
