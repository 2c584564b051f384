package bake.core.path;

import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;
import bake.core.surface.SurfaceTable;

/**
 * How far a path has come whose first two points are kept in a {@link PathHead} for others. One for each {@link PathTracer},
 * which tells it of every step.
 */
public final class PathTrail {
    /** Least cosine to the normal under which a second point is offered to others: below it normals may be bent otherwise. */
    public static final float LEAST_COSINE = 0.02f;
    /** Others may see the second point much better than the path that found it. */
    private static final float LEAST_SECOND = 0.3f;
    /** Not kept, or no longer; up to its first bounce, on that bounce, at what it met, on the next bounce, and beyond. */
    private static final int ALONE = 0, FIRST = 1, BETWEEN = 2, SECOND = 3, AFTER = 4, BEYOND = 5;

    public PathHead head;
    private int stage;
    /** Throughput from the second point on, without the scattering there. */
    private float sr, sg, sb;
    /** How bright the second point may be taken for when it is decided whether a path goes on. */
    private float second;

    public void none() {
        stage = ALONE;
    }

    public void begin(PathHead h) {
        head = h;
        stage = FIRST;
    }

    /** Whether the path is at its first point. */
    public boolean first() {
        return stage == FIRST;
    }

    /** Whether the path is on its first bounce. */
    public boolean between() {
        return stage == BETWEEN;
    }

    /** Whether the path is at a second point that others may use. */
    public boolean second() {
        return stage == SECOND;
    }

    /** Whether the path has left such a second point: what it brings belongs to the head's group. */
    public boolean shared() {
        return stage >= AFTER;
    }

    public void keepFirst(SurfacePoint p, SurfaceTable table, float r, float g, float b) {
        head.open = p.transmission == 0 && table.weight(p.material) == 1 && table.reach(p.material) == Float.POSITIVE_INFINITY;
        head.first(Scatter.mostlyMatt(p));
        head.br = r;
        head.bg = g;
        head.bb = b;
    }

    /** The first bounce met a surface under a cosine to its normal. */
    public void meet(SurfacePoint p, SurfaceTable table, float cos) {
        head.offers = !p.askew && cos >= LEAST_COSINE && table.reach(p.material) == Float.POSITIVE_INFINITY;
        stage = head.offers ? SECOND : ALONE;
    }

    /** Went straight through something thin. */
    public void passed(float r, float g, float b, float chance) {
        if (stage != BETWEEN) return;
        head.tr *= r;
        head.tg *= g;
        head.tb *= b;
        head.chance *= chance;
    }

    /** Was mirrored by a pane. */
    public void mirrored() {
        if (stage == BETWEEN) stage = ALONE;
        else if (stage == AFTER) stage = BEYOND;
    }

    /** Came through a solid that swallows light. */
    public void absorbed() {
        if (stage == BETWEEN) stage = ALONE;
    }

    /** Bounced; {@code k} is one over the density. */
    public void bounced(Scatter s, float k) {
        switch (stage) {
            case FIRST -> stage = head.open && !s.smooth ? BETWEEN : ALONE;
            case SECOND -> follow(s, k);
            case AFTER -> stage = BEYOND;
            default -> {}
        }
    }

    private void follow(Scatter s, float k) {
        if (s.smooth) {
            stage = ALONE;
            return;
        }
        second = Math.max(LEAST_SECOND, k * Math.max(s.r, Math.max(s.g, s.b)));
        head.follow(s.wx, s.wy, s.wz);
        sr = sg = sb = 1;
        stage = AFTER;
    }

    public void scale(float r, float g, float b) {
        if (stage < AFTER) return;
        sr *= r;
        sg *= g;
        sb *= b;
    }

    /** What decides whether the path goes on. For a find that others use this must not depend on how much this path could make of it. */
    public float survival(float own) {
        return stage < AFTER ? own : second * Math.max(sr, Math.max(sg, sb));
    }

    /** Takes light that the bounce from the second point ran into; false when that is not where the path is. */
    public boolean met(int group, float[] light, float other) {
        if (stage != AFTER) return false;
        head.hit(group, light[0] * sr, light[1] * sg, light[2] * sb, other);
        return true;
    }

    /** Takes light that came to the path beyond its second point. */
    public void later(int group, float r, float g, float b) {
        head.later(group, r * sr, g * sg, b * sb);
    }
}
