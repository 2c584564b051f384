package bake.core.path;

import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.surface.SurfacePoint;

/**
 * Light that comes to one point from all around after a bounce, gathered by several rays at once (splitting: Arvo and Kirk 1990, "Particle
 * Transport and Image Synthesis", section 4) in strata of equal irradiance. What a ray ends in is known from a cache, so that a few of them
 * cost less than another path from the camera. One for each {@link PathTracer} that needs it.
 */
final class SplitBounce {
    /** Rays around the normal, and looks for the surroundings. */
    private static final int RAYS = 4, LOOKS = 2;

    private final PathTracer rays;
    private final Frame frame = new Frame();
    private final float[] sample;
    private PathTracer outer;

    /** @param rays traces them; belongs to nobody else */
    SplitBounce(PathTracer rays) {
        this.rays = rays;
        sample = new float[rays.channels()];
    }

    /** Sets whose bounces are split. */
    void of(PathTracer path) {
        outer = path;
    }

    PathTracer rays() {
        return rays;
    }

    /**
     * Estimates the irradiance over pi of a point, by source group, cd/m2.
     *
     * @param surroundings whether light straight from them is part of it
     * @param far mean radiance from beyond the near field by source group, which then need not be traced; or null
     * @param near where that ends, metres
     */
    void gather(SurfacePoint p, boolean surroundings, float[] far, float near, PathSampler random, float[] out) {
        rays.direct().sampleLike(outer.direct());
        java.util.Arrays.fill(out, 0);
        frame.around(p.nx, p.ny, p.nz);
        float x = p.px + p.offset * p.gx, y = p.py + p.offset * p.gy, z = p.pz + p.offset * p.gz;
        random.next2();
        float first = random.u, second = random.v;
        for (int k = 0; k < RAYS; k++) {
            // Radical inverse in base two beside even steps: strata in both directions (Hammersley 1960).
            float u = (first + (k + 0.5f) / RAYS) % 1, v = (second + (Integer.reverse(k) >>> 8) * 0x1p-24f) % 1;
            float sin = (float) Math.sqrt(u), cos = (float) Math.sqrt(1 - u), phi = 2 * (float) Math.PI * v;
            frame.turn(sin * (float) Math.cos(phi), sin * (float) Math.sin(phi), cos);
            if (!(frame.x * p.gx + frame.y * p.gy + frame.z * p.gz > 0)) continue;
            java.util.Arrays.fill(sample, 0);
            random.branch(k);
            boolean open = far != null && (rays.direct().free(x, y, z, frame.x, frame.y, frame.z, near) == Float.POSITIVE_INFINITY
                    || rays.gather(x, y, z, frame.x, frame.y, frame.z, cos, RAYS, 0, random, sample) > near);
            if (far == null) rays.gather(x, y, z, frame.x, frame.y, frame.z, cos, RAYS, 0, random, sample);
            random.join();
            float[] from = open ? far : sample;
            for (int c = 0; c < out.length; c++) out[c] += from[c];
        }
        for (int c = 0; c < out.length; c++) out[c] *= 1f / RAYS;
        if (surroundings) rays.direct().surroundings(p, LOOKS, 0, random, out);
    }
}
