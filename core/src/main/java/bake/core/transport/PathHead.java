package bake.core.transport;

import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * The first two points of one pixel's path and the light that came to the second, kept until all paths of its group are done,
 * so that {@link PathExchange} can let each of them see the second points of the others. Reused; nothing is allocated per path.
 */
final class PathHead {
    /** Most sources that one second point is lit by. */
    static final int MOST = 8;

    /** Point that the camera sees, behind panes, and how it scatters towards the camera. */
    final SurfacePoint point = new SurfacePoint();
    final Scatter scatter = new Scatter();
    /** What the first bounce met. */
    final SurfacePoint met = new SurfacePoint();
    final Scatter metScatter = new Scatter();
    /** What the path brought that is its own, by source group, cd/m2. */
    final float[] out;
    final float[] features = new float[FirstSeen.LENGTH];
    /** Throughput from the camera to the first point. */
    float br, bg, bb;
    /** Whether second points of others may be seen from the first one. */
    boolean open;
    /** Whether the second point may be seen by others. */
    boolean offers;
    /** What panes between the two points let through, and the chance of having passed them. */
    float tr, tg, tb, chance;
    /** Pixel, and weight of the pixel filter. */
    int x, y;
    float weight;
    /** Luminance that the clamp took away from it, cd/m2. */
    double clamped;

    /** Light that came to the second point, cd/m2: direction, colour, source group. */
    int lights;
    final float[] lx = new float[MOST], ly = new float[MOST], lz = new float[MOST], lr = new float[MOST], lg = new float[MOST], lb = new float[MOST];
    final int[] group = new int[MOST];
    /** Density with which light sampling finds it, and whether a bounce finds it too; whether it came along the bounce. */
    final float[] density = new float[MOST];
    final boolean[] both = new boolean[MOST], along = new boolean[MOST];
    /** Where the second bounce went, and what came from there but the light of what it met itself, by source group, cd/m2. */
    float wx, wy, wz;
    final float[] later;
    boolean anyLater;

    PathHead(int channels) {
        out = new float[channels];
        later = new float[channels];
    }

    void begin() {
        java.util.Arrays.fill(out, 0);
        if (anyLater) java.util.Arrays.fill(later, 0);
        open = offers = anyLater = false;
        tr = tg = tb = chance = 1;
        lights = 0;
        clamped = 0;
    }

    /** Light found by light sampling. */
    void lit(float dx, float dy, float dz, int from, float r, float g, float b, float pdf, boolean bounceFindsIt) {
        if (!(r + g + b < Float.POSITIVE_INFINITY) || lights == MOST) return;
        int k = lights++;
        lx[k] = dx;
        ly[k] = dy;
        lz[k] = dz;
        lr[k] = r;
        lg[k] = g;
        lb[k] = b;
        group[k] = from;
        density[k] = pdf;
        both[k] = bounceFindsIt;
        along[k] = false;
    }

    /** Light that the second bounce ran into. */
    void hit(int from, float r, float g, float b, float pdf) {
        if (!(r + g + b > 0) || lights == MOST) return;
        lit(wx, wy, wz, from, r, g, b, pdf, true);
        along[lights - 1] = true;
    }

    /** The path goes on from the second point. */
    void follow(float dx, float dy, float dz) {
        wx = dx;
        wy = dy;
        wz = dz;
    }

    /** Light that came by way of what the second bounce met. */
    void later(int from, float r, float g, float b) {
        if (!(r + g + b > 0 && r + g + b < Float.POSITIVE_INFINITY)) return;
        anyLater = true;
        later[3 * from] += r;
        later[3 * from + 1] += g;
        later[3 * from + 2] += b;
    }
}
