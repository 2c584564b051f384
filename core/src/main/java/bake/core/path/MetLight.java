package bake.core.path;

import bake.core.compiled.RenderScene;
import bake.core.light.LightTable;

/**
 * What a path runs into that gives light: surroundings, sun, lamps and glowing surfaces, each weighed against light sampling, which might
 * have found it at the last scattering too (Veach and Guibas 1995, power heuristic). One for each {@link PathTracer}.
 */
final class MetLight {
    private final PathTracer path;
    private final LightTable lights;
    private final float[] rgb = new float[4];

    MetLight(PathTracer path, RenderScene scene) {
        this.path = path;
        lights = scene.lights();
    }

    /** The path leaves the model: surroundings and sun. */
    void nothing() {
        var ray = path.ray;
        var from = path.from;
        var onlook = path.onlook;
        if (onlook.seesBackdrop()) behind();
        else if (!lights.dome().dark() || onlook.seesOther()) {
            float whole = lights.dome().read(ray.dx, ray.dy, ray.dz, rgb);
            onlook.replace(ray, rgb);
            float other = from.pdf < 0 || lights.dome().dark() ? 0 : from.skySamples
                    * path.direct().daylight.pdf(from.aim, from.x, from.y, from.z, ray.dx, ray.dy, ray.dz, whole, (int) rgb[3],
                    path.direct().shadow);
            met(onlook.group(LightTable.DOME), other);
        }
        float sun = lights.pdfSun(ray.dx, ray.dy, ray.dz);
        // A disc that is not to be seen is not met; what light sampling finds of it then counts alone.
        if (sun > 0 && (lights.showsDisc() && onlook.seesDisc() || from.pdf >= 0)) {
            lights.sunLuminance(rgb);
            met(onlook.seesBackdrop() ? lights.backdropGroup() : onlook.group(LightTable.SUN), sun);
        }
    }

    /** What the camera sees behind the model covers as little as panes before it take away. */
    private void behind() {
        path.onlook.backdrop(path.ray, rgb);
        path.onlook.colour(path.first, rgb);
        path.first.values[FirstSeen.COVER] = 1 - (0.2126f * path.br + 0.7152f * path.bg + 0.0722f * path.bb);
        met(lights.backdropGroup(), 0);
    }

    /** The path has met the body of a lamp. */
    void lamp(int lamp) {
        var ray = path.ray;
        var from = path.from;
        if (!lights.emitters().lampLuminance(lamp, ray.dx, ray.dy, ray.dz, rgb)) return;
        var direct = path.direct();
        float other = from.pdf < 0 ? 0 : from.lampSamples * lights.emitters()
                .pdfLamp(lamp, from.x, from.y, from.z, ray.dx, ray.dy, ray.dz, path.travelled, direct.before(from),
                direct.lamplight.weights(from.lampAt), Math.max(0, from.lampAt));
        met(lights.emitters().lampGroup(lamp), other);
    }

    /** The path has met a surface that glows. */
    void glow() {
        var point = path.point();
        var ray = path.ray;
        var from = path.from;
        var direct = path.direct();
        float cos = Math.abs(point.gx * ray.dx + point.gy * ray.dy + point.gz * ray.dz);
        rgb[0] = point.emitR;
        rgb[1] = point.emitG;
        rgb[2] = point.emitB;
        float other = from.pdf < 0 ? 0 : from.lampSamples * lights.emitters()
                .pdfGlow(ray.item, ray.prim, from.x, from.y, from.z, path.travelled, cos, direct.before(from),
                direct.lamplight.weights(from.lampAt), Math.max(0, from.lampAt));
        met(lights.glowGroup(), other);
    }

    /** Adds light that the path ran into, which light sampling might have found with some density. */
    private void met(int group, float other) {
        if (path.past && !(path.sky && group == LightTable.DOME) || path.trail.met(group, rgb, other)) return;
        float w = path.from.pdf < 0 ? 1 : DirectLight.weigh(path.from.pdf, other);
        if (path.caustics.leaves(0.2126f * path.br * rgb[0] + 0.7152f * path.bg * rgb[1] + 0.0722f * path.bb * rgb[2])) return;
        if (path.bare) path.first.glow(group, path.br * rgb[0], path.bg * rgb[1], path.bb * rgb[2]);
        path.addMet(group, rgb[0] * w, rgb[1] * w, rgb[2] * w);
    }
}
