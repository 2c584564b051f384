package bake.core.path;

import bake.core.geometry.Ray;
import bake.core.light.LightSample;
import bake.core.light.LightTable;
import bake.core.outlook.Scenery;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * How a path from the camera sees the surroundings, as long as that may differ from the light they give: straight, by way of smooth
 * surfaces, or on a shadow catcher. One for each {@link PathTracer}.
 *
 * <p>A shadow catcher is a matt surface with just the reflectance under which it would look like what lies behind it if nothing stood
 * around it: pi B / E, where B is what is seen behind and E the illuminance of the open surface. So its shadow is B times the share of E
 * that is left. All other light, of lamps or from a bounce, it reflects by its own base colour, and adds that. Only the camera sees it so.
 */
final class Onlook {
    private final LightTable lights;
    private Scenery scenery;
    /** Where in the picture the path began. */
    private float px = 0.5f, py = 0.5f;
    /** Whether the path met nothing but panes so far; nothing but smooth surfaces; whether one of them mirrored it. */
    boolean straight, smoothly, mirrored;
    /**
     * Source group that light straight onto the caught point counts for, -1 when there is none; one over the luminance of what lies behind
     * it.
     */
    private int caught = -1;
    private float behind;
    /** What the caught point's own base colour is of its reflectance, by colour. */
    private float ownR, ownG, ownB;
    /** Share of what the last scattering gives to its direction that is gloss, by colour. */
    private float glossR, glossG, glossB;
    private final float[] rgb = new float[4], matt = new float[3];

    Onlook(Scenery scenery, LightTable lights) {
        this.scenery = scenery;
        this.lights = lights;
    }

    void frame(Scenery s) {
        scenery = s;
    }

    void place(float x, float y) {
        px = x;
        py = y;
    }

    /** A path begins, at the camera or elsewhere. */
    void begin(boolean camera) {
        straight = smoothly = camera;
        mirrored = false;
        caught = -1;
        glossR = glossG = glossB = 0;
    }

    void mirror() {
        straight = false;
        mirrored = true;
    }

    /** The path is scattered; whether by gloss matters as long as the camera sees it. */
    void scatter(Scatter s, boolean plain) {
        glossR = glossG = glossB = 0;
        if (smoothly && s.smooth && s.kind == Scatter.MIRRORED) mirrored = true;
        else if (smoothly && !s.smooth && !plain && scenery.hasMirrored()) {
            s.matt(s.wx, s.wy, s.wz, matt);
            glossR = gloss(matt[0], s.r);
            glossG = gloss(matt[1], s.g);
            glossB = gloss(matt[2], s.b);
        }
        straight = false;
        smoothly &= s.smooth;
    }

    private static float gloss(float matt, float all) {
        return all > 0 ? Math.clamp(1 - matt / all, 0f, 1f) : 0;
    }

    /** Whether the path sees what lies behind the model, apart from the light. */
    boolean seesBackdrop() {
        return straight && scenery.apart();
    }

    /** Whether anything but the light may be seen. */
    boolean seesOther() {
        return scenery.hasMirrored() || scenery.hasBackdrop();
    }

    /** Whether the sun's disc is part of what the path sees when it leaves the model. */
    boolean seesDisc() {
        return !(straight && scenery.hasBackdrop());
    }

    void backdrop(Ray r, float[] out) {
        scenery.behind(r.ox, r.oy, r.oz, r.dx, r.dy, r.dz, px, py, out);
    }

    /** The base colour by which the denoiser divides the backdrop. */
    void colour(FirstSeen first, float[] seen) {
        float k = scenery.white() > 0 ? 1 / scenery.white() : 0;
        if (k > 0) first.colour(k * seen[0], k * seen[1], k * seen[2]);
    }

    /** Puts what the path sees of the surroundings in place of their light. */
    void replace(Ray r, float[] light) {
        if (smoothly && !straight) {
            if (mirrored ? scenery.hasMirrored() : scenery.hasBackdrop()) look(r, light);
        } else if (glossR + glossG + glossB > 0) {
            scenery.mirrored(r.ox, r.oy, r.oz, r.dx, r.dy, r.dz, rgb);
            blend(light);
        }
    }

    private void look(Ray r, float[] out) {
        float bin = out[3];
        if (mirrored) scenery.mirrored(r.ox, r.oy, r.oz, r.dx, r.dy, r.dz, out);
        else backdrop(r, out);
        out[3] = bin;
    }

    private void blend(float[] light) {
        light[0] += glossR * (rgb[0] - light[0]);
        light[1] += glossG * (rgb[1] - light[1]);
        light[2] += glossB * (rgb[2] - light[2]);
    }

    /** Whether gloss at the point sees other surroundings than its matt body. */
    boolean mixes() {
        return smoothly && caught < 0 && scenery.hasMirrored();
    }

    /** The same for light sampled at a point that the camera sees: what the point scatters of it is known. */
    void replace(SurfacePoint p, Scatter s, LightSample light) {
        s.matt(light.x, light.y, light.z, matt);
        scenery.mirrored(p.px, p.py, p.pz, light.x, light.y, light.z, rgb);
        light.r += gloss(matt[0], s.r) * (rgb[0] - light.r);
        light.g += gloss(matt[1], s.g) * (rgb[1] - light.g);
        light.b += gloss(matt[2], s.b) * (rgb[2] - light.b);
    }

    /**
     * The path is at a surface. When that catches shadows and the camera sees it, the point is changed to what it looks like. Returns
     * whether nothing lights what lies behind it, which then is {@link #seen} as it is.
     */
    boolean meet(SurfacePoint p, boolean catches, Ray r, FirstSeen first) {
        caught = -1;
        if (!catches || !smoothly) return false;
        if (mirrored) scenery.mirrored(r.ox, r.oy, r.oz, r.dx, r.dy, r.dz, rgb);
        else backdrop(r, rgb);
        float br = rgb[0], bg = rgb[1], bb = rgb[2];
        scenery.open(p.nx, p.ny, p.nz, rgb);
        boolean lit = rgb[0] > 0 && rgb[1] > 0 && rgb[2] > 0;
        if (!lit) {
            p.matt(p.baseR, p.baseG, p.baseB);
            rgb[0] = br;
            rgb[1] = bg;
            rgb[2] = bb;
            if (straight) first.values[FirstSeen.COVER] = 0;
            return true;
        }
        float r0 = reflectance(br, rgb[0]), g0 = reflectance(bg, rgb[1]), b0 = reflectance(bb, rgb[2]);
        ownR = p.baseR / r0;
        ownG = p.baseG / g0;
        ownB = p.baseB / b0;
        p.matt(r0, g0, b0);
        caught = straight ? lights.backdropGroup() : LightTable.DOME;
        behind = straight ? (float) Math.PI / (0.2126f * r0 * rgb[0] + 0.7152f * g0 * rgb[1] + 0.0722f * b0 * rgb[2]) : 0;
        if (!straight) return false;
        rgb[0] = br;
        rgb[1] = bg;
        rgb[2] = bb;
        colour(first, rgb);
        return false;
    }

    /** Before a black backdrop there is next to none, so that the own base colour can still be told as a multiple. */
    private static float reflectance(float behind, float open) {
        return Math.max(1e-6f, (float) Math.PI * behind / open);
    }

    /** What lies behind a catcher that nothing lights, cd/m2, and the group it counts for. */
    float[] seen() {
        return rgb;
    }

    int seenGroup() {
        return straight ? lights.backdropGroup() : LightTable.DOME;
    }

    /** By how much light that is not straight from the surroundings counts for more or less at the caught point, by colour. */
    float own(int colour) {
        return caught < 0 ? 1 : colour == 0 ? ownR : colour == 1 ? ownG : ownB;
    }

    boolean catching() {
        return caught >= 0;
    }

    /** Source group that light from a group to the path's point counts for. */
    int group(int of) {
        return caught >= 0 && of <= LightTable.DOME ? caught : of;
    }

    /** Luminance has come to a group by way of a caught point: so much of the backdrop is not in shadow. */
    void lit(int group, float luminance, FirstSeen first) {
        if (group == caught && behind > 0) first.values[FirstSeen.COVER] -= luminance * behind;
    }
}
