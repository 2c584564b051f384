package bake.core.transport;

import bake.core.geometry.Ray;
import bake.core.light.Aim;
import bake.core.light.LightSample;
import bake.core.light.LightTable;
import bake.core.math.PathSampler;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * Looks for light straight from sun, surroundings and emitters to the point that a path has come to, as often and in such ways as guides say, and
 * teaches guides what it finds. One for each {@link PathTracer}.
 */
final class DirectLight {
    private final PathTracer path;
    private final RenderScene scene;
    private final LightTable lights;
    final Daylight daylight;
    final Lamplight lamplight;
    /** What was found last, the ray that asked whether it arrives, and a spare sample. */
    final LightSample light = new LightSample();
    final Ray shadow = new Ray();
    private final LightSample scratch = new LightSample();
    private PathSampler random;
    /** How the surroundings are looked for at the point; null for the unlearnt way. */
    Aim aim;
    private Looks looks = Looks.UNLEARNT;
    private int lessons, lampLessons;
    /** How often the point looks for the surroundings and for emitters. */
    float skyLooks = 1, lampLooks = 1;
    /** Whether light comes to the point from both sides. */
    boolean around;
    /** What the lamp guide knows of the point; -1 for nothing. */
    int lampAt = -1;

    DirectLight(PathTracer path, RenderScene scene) {
        this.path = path;
        this.scene = scene;
        lights = scene.lights();
        daylight = new Daylight(scene);
        lamplight = new Lamplight(lights.emitters());
    }

    /** Sets how many more looks for the surroundings and for lamps every point takes only to teach. */
    void teach(int sky, int lamps) {
        lessons = sky;
        lampLessons = lamps;
    }

    /** Sets how often points look for light. */
    void look(Looks often) {
        looks = often;
    }

    void begin(PathSampler sampler) {
        random = sampler;
        aim = null;
        lampAt = -1;
        daylight.beginPath(sampler);
        lamplight.beginPath(sampler);
    }

    /** Keeps for a departure from the point what light sampling there would have made of what is met. */
    void leave(Departure from) {
        from.aim = aim;
        from.skyLooks = skyLooks;
        from.lampLooks = lampLooks;
        from.around = around;
        from.lampAt = lampAt;
    }

    /** The other look at the last scattering, for asking how likely it would have found what was met. */
    LightSample before(Departure from) {
        if (from.around) scratch.fromAround();
        else scratch.from(from.nx, from.ny, from.nz);
        return scratch;
    }

    /** Light straight from sun, surroundings and emitters to the point. */
    void find(int bounce) {
        find(bounce, true);
    }

    /** @param sky whether the surroundings are looked at, the sun aside */
    void find(int bounce, boolean sky) {
        SurfacePoint point = path.point();
        if (Scatter.onlyStraight(point)) return;
        findSun(bounce);
        if (sky && !lights.dome().dark()) {
            aim = daylight.at(point);
            skyLooks = bounce > 0 ? looks.laterSky() : daylight.indoors(aim, point, shadow) ? looks.skyIndoors() : 1;
            dome(point, bounce);
            if (lessons > 0) teach(point);
        }
        if (lights.emitters().count() > 0) {
            lampLooks = bounce > 0 ? looks.laterLamps() : looks.lamps();
            emitters(point, bounce);
        }
    }

    /** Light straight from the sun alone. */
    void findSun(int bounce) {
        if (!lights.hasSun()) return;
        random.next2();
        lights.sampleSun(random.u, random.v, light);
        path.connect(bounce);
    }

    /** Looks are spread over what there is to choose from. What they brought is told to those who choose where to look. */
    private void dome(SurfacePoint point, int bounce) {
        if (skyLooks < 1 && random.next1() >= skyLooks) return;
        float first = random.next1();
        for (int k = 0; k < skyLooks; k++) {
            daylight.sample(aim, point.px, point.py, point.pz, (first + k) / Math.max(1, skyLooks), random, light, shadow);
            light.pdf *= skyLooks;
            float got = path.connect(bounce), cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            daylight.brought(got * Math.max(0, cos));
        }
    }

    /** Adds irradiance over pi straight from the surroundings, the sun aside, to what {@code light} holds of a place, cd/m2. */
    void surroundings(SurfacePoint point, int looks, PathSampler sampler, float[] add) {
        if (lights.dome().dark()) return;
        begin(sampler);
        aim = daylight.at(point);
        float first = random.next1();
        for (int k = 0; k < looks; k++) {
            daylight.sample(aim, point.px, point.py, point.pz, (first + k) / looks, random, light, shadow);
            float cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            if (!(cos > 0 && light.pdf > 0 && point.gx * light.x + point.gy * light.y + point.gz * light.z > 0 && arrives(point))) continue;
            float w = cos / ((float) Math.PI * light.pdf * looks);
            add[3 * LightTable.DOME] += w * light.r * shadow.tr;
            add[3 * LightTable.DOME + 1] += w * light.g * shadow.tg;
            add[3 * LightTable.DOME + 2] += w * light.b * shadow.tb;
        }
    }

    /** Looks that bring the picture nothing, only teach: a look is one ray, a path that comes to a point is many. Half of them look anywhere. */
    private void teach(SurfacePoint point) {
        float first = random.next1();
        for (int k = 0; k < lessons; k++) {
            Aim how = k % 2 == 0 ? null : aim;
            daylight.sample(how, point.px, point.py, point.pz, (first + k) / lessons, random, light, shadow);
            float cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            daylight.brought(cos > 0 && light.pdf > 0 && arrives(point) ? cos * (0.2126f * light.r * shadow.tr + 0.7152f * light.g * shadow.tg + 0.0722f * light.b * shadow.tb) : 0);
        }
    }

    /** Whether the sampled light reaches the point; what is left of it by colour is the shadow ray's. */
    boolean arrives(SurfacePoint point) {
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

    /** A shadow ray from a place to just before a glowing triangle. */
    private void toMesh(float x, float y, float z) {
        float dx = light.tx - x, dy = light.ty - y, dz = light.tz - z, d = (float) Math.sqrt(dx * dx + dy * dy + dz * dz), k = 1 / Math.max(d, Float.MIN_NORMAL);
        shadow.set(x, y, z, k * dx, k * dy, k * dz, d);
    }

    private void emitters(SurfacePoint point, int bounce) {
        facing(point);
        lampAt = lamplight.at(point);
        if (lampLooks < 1 && random.next1() >= lampLooks) return;
        float first = random.next1();
        for (int k = 0; k < lampLooks; k++) {
            random.next2();
            if (!lights.emitters().sample(point.px, point.py, point.pz, (first + k) / Math.max(1, lampLooks), random.u, random.v, light, lamplight.worths(lampAt), Math.max(0, lampAt))) continue;
            light.pdf *= lampLooks;
            float got = path.connect(bounce);
            light.pdf /= lampLooks;
            lamplight.brought(light, point.px, point.py, point.pz, got * Math.max(0, point.nx * light.x + point.ny * light.y + point.nz * light.z));
        }
        if (lampLessons > 0) teachLamps(point);
    }

    private void teachLamps(SurfacePoint point) {
        float first = random.next1();
        for (int k = 0; k < lampLessons; k++) {
            random.next2();
            int at = k % 2 == 0 ? -1 : lampAt;
            if (!lights.emitters().sample(point.px, point.py, point.pz, (first + k) / lampLessons, random.u, random.v, light, lamplight.worths(at), Math.max(0, at))) continue;
            float cos = point.nx * light.x + point.ny * light.y + point.nz * light.z;
            lamplight.brought(light, point.px, point.py, point.pz, cos > 0 && arrives(point) ? cos * (0.2126f * light.r + 0.7152f * light.g + 0.0722f * light.b) : 0);
        }
    }

    /** Tells the choice of emitters which way the point faces; what lets light through is lit from both sides. */
    private void facing(SurfacePoint point) {
        around = point.transmission > 0 || point.translucency > 0 || point.askew;
        if (around) light.fromAround();
        else light.from(point.nx, point.ny, point.nz);
    }
}
