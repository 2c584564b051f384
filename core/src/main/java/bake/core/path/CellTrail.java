package bake.core.path;

import bake.core.cache.CellSamples;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;
import java.util.Arrays;

/**
 * The matt points that a path has come by, each with an estimate of its irradiance: what is looked for there, and all that the path finds
 * later, by the throughput from there on. One for each {@link PathTracer}, which tells it of every step; off unless a round fills a cache.
 */
public final class CellTrail {
    private static final int MOST = 8;
    /**
     * No real light is as strong, cd/m2; what is would not be taken from a file. The clamp of pictures has no say here: what is bright
     * beyond measure for a camera may be all that lights the room next door.
     */
    private static final float LIMIT = 1e11f;

    private final int channels;
    private final SurfacePlace[] places = new SurfacePlace[MOST];
    private final float[] light;
    private CellSamples out;
    private int count;
    /** Whether the path is at the newest place still; whether it is on its way from there. */
    private boolean here, parting;

    /** Where irradiance is estimated: place, facing, distance to what was met from there, throughput since. */
    private static final class SurfacePlace {
        float x, y, z, nx, ny, nz, free, r, g, b;
    }

    public CellTrail(int channels) {
        this.channels = channels;
        light = new float[MOST * channels];
        Arrays.setAll(places, i -> new SurfacePlace());
    }

    /** Where samples go from now on; null for nowhere. */
    public void fill(CellSamples to) {
        out = to;
    }

    public boolean on() {
        return out != null;
    }

    /** Whether the path has come by a place whose irradiance it estimates. */
    boolean holds() {
        return count > 0;
    }

    public void begin() {
        count = 0;
        here = parting = false;
    }

    /** The path is at a surface, {@code way} from the last scattering. */
    public void meet(float way) {
        if (parting) places[count - 1].free = way;
        parting = here = false;
    }

    /** The surface is one whose irradiance is asked for. */
    public void open(SurfacePoint p) {
        if (count == MOST) return;
        SurfacePlace s = places[count];
        s.x = p.px;
        s.y = p.py;
        s.z = p.pz;
        s.nx = p.gx;
        s.ny = p.gy;
        s.nz = p.gz;
        s.free = Float.POSITIVE_INFINITY;
        s.r = s.g = s.b = 0;
        Arrays.fill(light, count * channels, (count + 1) * channels, 0);
        count++;
        here = true;
    }

    /** Light was looked for and found at the newest place: radiance by its weight there. */
    public void lit(int group, float r, float g, float b) {
        if (!here) return;
        int o = (count - 1) * channels + 3 * group;
        light[o] += r;
        light[o + 1] += g;
        light[o + 2] += b;
    }

    /** The path has found light, as it would count with a throughput of one where the path is. */
    public void add(int group, float r, float g, float b) {
        int n = here ? count - 1 : count;
        for (int i = 0; i < n; i++) {
            SurfacePlace s = places[i];
            int o = i * channels + 3 * group;
            light[o] += r * s.r;
            light[o + 1] += g * s.g;
            light[o + 2] += b * s.b;
        }
    }

    /**
     * The path goes on from where it is.
     *
     * @param k one over the density
     * @param newest how the newest place weighs what comes from there, by colour
     */
    public void leave(Scatter to, float k, float[] newest) {
        int n = here ? count - 1 : count;
        for (int i = 0; i < n; i++) scale(places[i], k * to.r, k * to.g, k * to.b);
        if (here) {
            SurfacePlace s = places[count - 1];
            // What is mirrored in one direction is no part of irradiance.
            float own = to.smooth ? 0 : k;
            s.r = own * newest[0];
            s.g = own * newest[1];
            s.b = own * newest[2];
        }
        parting = here;
        here = false;
    }

    public void scale(float r, float g, float b) {
        for (int i = 0; i < count; i++) scale(places[i], r, g, b);
    }

    private static void scale(SurfacePlace s, float r, float g, float b) {
        s.r *= r;
        s.g *= g;
        s.b *= b;
    }

    /** The path has ended. */
    public void end() {
        for (int i = 0; i < count; i++) {
            int o = i * channels;
            float l = 0;
            for (int c = o; c < o + channels; c += 3) l += 0.2126f * light[c] + 0.7152f * light[c + 1] + 0.0722f * light[c + 2];
            if (!(l < LIMIT)) continue;
            SurfacePlace s = places[i];
            out.add(s.x, s.y, s.z, s.nx, s.ny, s.nz, s.free, light, o);
        }
        count = 0;
    }
}
