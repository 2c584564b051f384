package bake.core.path;

import bake.core.reuse.PathExchange;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;

/**
 * The first two points of one pixel's path and the light that came to the second, kept until all paths of its group are done,
 * so that {@link PathExchange} can let each of them see the second points of the others. Reused; nothing is allocated per path.
 */
public final class PathHead {
    /** Most sources that one second point is lit by. */
    public static final int MOST = 8;

    /** Point that the camera sees, behind panes, and how it scatters towards the camera. */
    public final SurfacePoint point = new SurfacePoint();
    public final Scatter scatter = new Scatter();
    /** What the first bounce met. */
    public final SurfacePoint met = new SurfacePoint();
    public final Scatter metScatter = new Scatter();
    /** What the path brought that is its own, by source group and, where that is kept apart, by its way; cd/m2. */
    public final float[] out;
    /** Rays that the path took, without those of its exchange. */
    public long rays;
    public final float[] features = new float[FirstSeen.LENGTH];
    /** What it has seen glow straight. */
    public final FirstSeen seen = new FirstSeen();
    /** Throughput from the camera to the first point. */
    public float br, bg, bb;
    /** Whether second points of others may be seen from the first one. */
    public boolean open;
    /** Whether the second point may be seen by others. */
    public boolean offers;
    /** What panes between the two points let through, and the chance of having passed them. */
    public float tr, tg, tb, chance;
    /** Pixel, and weight of the pixel filter. */
    public int x, y;
    public float weight;
    /** Luminance that the clamp took away from it, cd/m2. */
    public double clamped;

    /** Light that came to the second point, cd/m2: direction, colour, source group. */
    public int lights;
    public final float[] lx = new float[MOST], ly = new float[MOST], lz = new float[MOST], lr = new float[MOST], lg = new float[MOST],
            lb = new float[MOST];
    public final int[] group = new int[MOST];
    /** Density with which light sampling finds it, and whether a bounce finds it too; whether it came along the bounce. */
    public final float[] density = new float[MOST];
    public final boolean[] both = new boolean[MOST], along = new boolean[MOST];
    /** Where the second bounce went, and what came from there but the light of what it met itself, by source group, cd/m2. */
    public float wx, wy, wz;
    public final float[] later;
    public boolean anyLater;

    /**
     * Where light that second points bring begins in {@link #out}, in source groups: as bounced, or as reflected where
     * the first is glossy.
     */
    public int bounced;
    private final int groups;
    private final boolean parted;

    /** @param parted whether its own light is kept apart by {@link LightPart} */
    public PathHead(int channels, boolean parted) {
        out = new float[parted ? LightPart.COUNT * channels : channels];
        this.parted = parted;
        groups = channels / 3;
        later = new float[channels];
    }

    /** Says what the first point is like. */
    void first(boolean matt) {
        bounced = parted ? (matt ? LightPart.BOUNCED : LightPart.REFLECTED).ordinal() * groups : 0;
    }

    public void begin() {
        java.util.Arrays.fill(out, 0);
        if (anyLater) java.util.Arrays.fill(later, 0);
        open = offers = anyLater = false;
        tr = tg = tb = chance = 1;
        lights = 0;
        clamped = 0;
    }

    /** Light found by light sampling. */
    public void lit(float dx, float dy, float dz, int from, float r, float g, float b, float pdf, boolean bounceFindsIt) {
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
    public void hit(int from, float r, float g, float b, float pdf) {
        if (!(r + g + b > 0) || lights == MOST) return;
        lit(wx, wy, wz, from, r, g, b, pdf, true);
        along[lights - 1] = true;
    }

    /** The path goes on from the second point. */
    public void follow(float dx, float dy, float dz) {
        wx = dx;
        wy = dy;
        wz = dz;
    }

    /** Light that came by way of what the second bounce met. */
    public void later(int from, float r, float g, float b) {
        if (!(r + g + b > 0 && r + g + b < Float.POSITIVE_INFINITY)) return;
        anyLater = true;
        later[3 * from] += r;
        later[3 * from + 1] += g;
        later[3 * from + 2] += b;
    }
}
