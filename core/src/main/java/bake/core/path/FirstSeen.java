package bake.core.path;

import bake.core.surface.SurfacePoint;

/** What a path from the camera met first behind panes, as {@link bake.core.film.Film#addFeatures} takes it. */
public final class FirstSeen {
    /** Base colour, normal, distance, and how much of the backdrop is covered. */
    public static final int LENGTH = 8, COVER = 7;
    /** Most source groups that are seen at once: the sun before the sky. */
    private static final int MOST = 2;

    public final float[] values = new float[LENGTH];

    /**
     * What the camera sees glow straight or through panes: of how many source groups, which ones, and what of their colours comes through,
     * cd/m2.
     */
    public int glows;
    public final int[] glowGroup = new int[MOST];
    public final float[] glow = new float[3 * MOST];

    /** Something that glows was met before any surface but panes. */
    void glow(int group, float r, float g, float b) {
        if (glows == MOST) return;
        glowGroup[glows] = group;
        glow[3 * glows] = r;
        glow[3 * glows + 1] = g;
        glow[3 * glows++ + 2] = b;
    }

    /** The same as another has seen. */
    public void glowLike(FirstSeen o) {
        glows = o.glows;
        System.arraycopy(o.glowGroup, 0, glowGroup, 0, glows);
        System.arraycopy(o.glow, 0, glow, 0, 3 * glows);
    }

    /** No surface so far: white, facing the camera, far away. */
    public void nothing(float dx, float dy, float dz) {
        values[0] = values[1] = values[2] = 1;
        values[3] = -dx;
        values[4] = -dy;
        values[5] = -dz;
        values[6] = 1e4f;
        values[COVER] = 1;
        glows = 0;
    }

    public void surface(SurfacePoint p, float distance) {
        // A metal's gloss carries its colour, glass and glowing surfaces show what has none.
        if (p.transmission > 0.5f || p.emitR + p.emitG + p.emitB > 0) colour(1, 1, 1);
        else colour(p.baseR, p.baseG, p.baseB);
        values[3] = p.nx;
        values[4] = p.ny;
        values[5] = p.nz;
        values[6] = distance;
    }

    /** The colour by which the denoiser divides. */
    public void colour(float r, float g, float b) {
        values[0] = Math.clamp(r, 0.02f, 1f);
        values[1] = Math.clamp(g, 0.02f, 1f);
        values[2] = Math.clamp(b, 0.02f, 1f);
    }
}
