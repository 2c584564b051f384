package bake.core.path;

import bake.core.surface.Scatter;

/**
 * Where the light that a path brings goes: into a bin for each source group, or for each way to the camera and source group, no more than
 * the clamp at a time of what has bounced. One for each {@link PathTracer}.
 */
final class Deposit {
    private final int groups;
    private final float clamp;
    /** The clamp of the path at hand, whose light may be one of several shares. */
    private float limit;
    /** Three colours for each bin. */
    private float[] bins;
    /** Whether light is kept apart by its way; by which it has come so far, and how often the path has scattered. */
    private boolean parted;
    private LightPart part = LightPart.SEEN;
    private int scattered;
    private double clamped;
    /** Luminance that the path brought after a bounce, cd/m2. */
    private float bounced;

    /** @param clamp greatest luminance that is added at a time of light that has bounced, cd/m2; infinite for all */
    Deposit(int groups, float clamp) {
        this.groups = groups;
        this.clamp = clamp;
    }

    /** A path begins, whose light goes to some bins. */
    void begin(float[] to) {
        bins = to;
        limit = clamp;
        bounced = 0;
    }

    /** Nothing was met so far. */
    void fresh() {
        part = LightPart.SEEN;
        scattered = 0;
    }

    /** The path is one of several rays whose mean counts. */
    void among(int rays) {
        limit = clamp * rays;
    }

    /** Keeps light apart by {@link LightPart}, whose bins follow each other, or no longer. */
    void apart(boolean parts) {
        parted = parts;
    }

    /** The path is at a surface: what light is looked for and found there comes straight to it, unless the path has scattered. */
    void surface() {
        if (scattered == 0) part = LightPart.DIRECT;
    }

    /** The path scatters in some way. */
    void scatter(int kind) {
        if (scattered++ == 0) part = kind == Scatter.DIFFUSE ? LightPart.BOUNCED : kind == Scatter.MIRRORED ? LightPart.REFLECTED
                : LightPart.REFRACTED;
    }

    /** A pane mirrors the path. */
    void mirrored() {
        if (scattered++ == 0) part = LightPart.REFLECTED;
    }

    /** The light that follows is what the path has run into, up to {@link #way}: after one bounce light sampling might have found it. */
    LightPart met() {
        LightPart before = part;
        if (scattered == 1 && part == LightPart.BOUNCED) part = LightPart.DIRECT;
        return before;
    }

    /** The light that follows has bounced before it came to where the path is, up to {@link #way}. */
    LightPart bounced() {
        LightPart before = part;
        if (scattered == 0) part = LightPart.BOUNCED;
        return before;
    }

    /** Light comes by its own way again. */
    void way(LightPart before) {
        part = before;
    }

    /** Adds luminance of a source group, cd/m2; {@code indirect} what has bounced and is clamped. */
    void add(int group, float r, float g, float b, boolean indirect) {
        if (indirect) bounced += 0.2126f * r + 0.7152f * g + 0.0722f * b;
        clamped += Clamp.add(bins, parted ? group + part.ordinal() * groups : group, r, g, b, indirect ? limit : Float.POSITIVE_INFINITY);
    }

    float clamp() {
        return clamp;
    }

    /** Luminance that the clamp took away so far, summed over paths, cd/m2. */
    double clamped() {
        return clamped;
    }

    /** Part of the luminance of the path that had bounced, cd/m2. */
    float brought() {
        return bounced;
    }
}
