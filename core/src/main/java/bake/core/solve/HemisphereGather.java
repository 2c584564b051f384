package bake.core.solve;

import bake.core.cache.RecordSamples;
import bake.core.math.PathSampler;
import bake.core.path.PathTracer;
import bake.core.surface.SurfacePoint;

/**
 * Makes irradiance records: gathers what comes to a place from all over its hemisphere, in strata of equal irradiance, and from differences between
 * neighbouring strata how that changes as the place turns and moves (Ward and Heckbert 1992, equations 1 and 2, in the form of Krivanek, Gautron, Bouatouch and
 * Pattanaik 2005, "Improved Radiance Gradient Computation", section 3 for cosine-weighted strata). One instance per thread.
 */
public final class HemisphereGather {
    /** Radius of a record in the harmonic mean of the distances around it. */
    private static final float REACH = 0.3f;
    /** Rays that tell whether a place is open enough for a record. */
    private static final int PROBES = 24;
    /** Greatest relative change that a gradient may make over the radius. */
    private static final float MOST_CHANGE = 0.7f;

    private final PathTracer tracer;
    private final int rings, sectors;
    private final boolean surroundings;
    private final float[] light, sky, sample, luminance, distance;
    private final float[] gradients = new float[6];
    private float tx, ty, tz, bx, by, bz, nx, ny, nz;

    /**
     * @param rays about how many rays to send, at least 32
     * @param surroundings whether half as many look for light straight from the surroundings
     */
    public HemisphereGather(PathTracer tracer, int rays, boolean surroundings) {
        this.surroundings = surroundings;
        this.tracer = tracer;
        // Strata are about as high as wide.
        rings = Math.max(3, (int) Math.round(Math.sqrt(rays / Math.PI)));
        sectors = Math.max(8, Math.round(rays / (float) rings));
        light = new float[tracer.channels()];
        sky = new float[tracer.channels()];
        sample = new float[tracer.channels()];
        luminance = new float[rings * sectors];
        distance = new float[rings * sectors];
    }

    /**
     * Makes a record of a place, or a mark where it is too narrow for one.
     *
     * @param least radius below which there is no record, metres; {@code most} the widest
     */
    public void record(SurfacePoint p, PathSampler random, float least, float most, RecordSamples out) {
        frame(p);
        float x = p.px + p.offset * p.gx, y = p.py + p.offset * p.gy, z = p.pz + p.offset * p.gz;
        float gx = p.gx, gy = p.gy, gz = p.gz, px = p.px, py = p.py, pz = p.pz;
        if (!open(x, y, z, gx, gy, gz, random, least)) {
            out.avoid(px, py, pz, nx, ny, nz, least);
            return;
        }
        java.util.Arrays.fill(light, 0);
        java.util.Arrays.fill(sky, 0);
        if (surroundings) tracer.direct().surroundings(p, rings * sectors / 2, random, sky);
        double inverse = 0;
        int seen = 0;
        for (int k = 0; k < sectors; k++)
            for (int j = 0; j < rings; j++) {
                random.next2();
                float sin2 = (j + random.u) / rings, sin = (float) Math.sqrt(sin2), cos = (float) Math.sqrt(1 - sin2), phi = 2 * (float) Math.PI * (k + random.v) / sectors;
                float a = sin * (float) Math.cos(phi), b = sin * (float) Math.sin(phi);
                float dx = a * tx + b * bx + cos * nx, dy = a * ty + b * by + cos * ny, dz = a * tz + b * bz + cos * nz;
                int i = k * rings + j;
                luminance[i] = 0;
                distance[i] = Float.POSITIVE_INFINITY;
                if (!(dx * gx + dy * gy + dz * gz > 0)) continue;
                java.util.Arrays.fill(sample, 0);
                distance[i] = tracer.gather(x, y, z, dx, dy, dz, cos, random, sample);
                for (int c = 0; c < light.length; c += 3) {
                    luminance[i] += 0.2126f * sample[c] + 0.7152f * sample[c + 1] + 0.0722f * sample[c + 2];
                    light[c] += sample[c];
                    light[c + 1] += sample[c + 1];
                    light[c + 2] += sample[c + 2];
                }
                inverse += 1 / distance[i];
                seen++;
            }
        float n = rings * sectors;
        for (int c = 0; c < light.length; c++) light[c] = light[c] / n + sky[c];
        float radius = inverse > 0 ? (float) Math.min(REACH * seen / inverse, most) : most;
        gradients(radius);
        // Gradients are those of bounced light; what is straight has none.
        float bounced = luminance(light), share = bounced > 0 ? 1 - luminance(sky) / bounced : 0;
        for (int i = 0; i < 6; i++) gradients[i] *= share;
        out.add(px, py, pz, nx, ny, nz, Math.max(least, radius), gradients, light);
    }

    /** Whether the harmonic mean of the distances around a place leaves room for a record. */
    private boolean open(float x, float y, float z, float gx, float gy, float gz, PathSampler random, float least) {
        float inverse = 0;
        for (int k = 0; k < PROBES; k++) {
            random.next2();
            float sin = (float) Math.sqrt(random.u), cos = (float) Math.sqrt(1 - random.u), phi = 2 * (float) Math.PI * (k + random.v) / PROBES;
            float a = sin * (float) Math.cos(phi), b = sin * (float) Math.sin(phi);
            float dx = a * tx + b * bx + cos * nx, dy = a * ty + b * by + cos * ny, dz = a * tz + b * bz + cos * nz;
            if (dx * gx + dy * gy + dz * gz > 0) inverse += 1 / tracer.free(x, y, z, dx, dy, dz);
        }
        return !(inverse > 0) || REACH * PROBES / inverse >= least;
    }

    private static float luminance(float[] groups) {
        float l = 0;
        for (int c = 0; c < groups.length; c += 3) l += 0.2126f * groups[c] + 0.7152f * groups[c + 1] + 0.0722f * groups[c + 2];
        return l;
    }

    private void frame(SurfacePoint p) {
        nx = p.nx;
        ny = p.ny;
        nz = p.nz;
        float sign = Math.copySign(1, nz), a = -1 / (sign + nz), b = nx * ny * a;
        tx = 1 + sign * nx * nx * a;
        ty = sign * b;
        tz = -sign * nx;
        bx = b;
        by = sign + ny * ny * a;
        bz = -ny;
    }

    /** Relative gradients of the whole luminance; what is too steep for the radius is held back. */
    private void gradients(float radius) {
        double ra = 0, rb = 0, ta = 0, tb = 0, sum = 0;
        for (int k = 0; k < sectors; k++) {
            double phi = 2 * Math.PI * (k + 0.5) / sectors, edge = 2 * Math.PI * k / sectors;
            double turned = 0, along = 0, across = 0;
            int before = (k + sectors - 1) % sectors;
            for (int j = 0; j < rings; j++) {
                int i = k * rings + j, q = before * rings + j;
                double low = Math.sqrt(j / (double) rings), high = Math.sqrt((j + 1) / (double) rings), middle = Math.sqrt((j + 0.5) / rings);
                sum += luminance[i];
                turned += middle / Math.sqrt(1 - middle * middle) * luminance[i];
                if (j > 0) along += low * (1 - low * low) / Math.min(distance[i], distance[i - 1]) * (luminance[i] - luminance[i - 1]);
                across += (high - low) / Math.min(distance[i], distance[q]) * (luminance[i] - luminance[q]);
            }
            ra += -Math.sin(phi) * turned;
            rb += Math.cos(phi) * turned;
            ta += Math.cos(phi) * along * 2 * Math.PI / sectors - Math.sin(edge) * across;
            tb += Math.sin(phi) * along * 2 * Math.PI / sectors + Math.cos(edge) * across;
        }
        java.util.Arrays.fill(gradients, 0);
        if (!(sum > 0)) return;
        // Irradiance is pi times the mean luminance.
        double all = Math.PI * sum / (rings * sectors), r = Math.PI / (rings * sectors) / all, t = 1 / all;
        double steep = Math.hypot(ta, tb) * t * radius;
        if (steep > MOST_CHANGE) t *= MOST_CHANGE / steep;
        if (!(Math.abs(t) < Double.POSITIVE_INFINITY)) t = 0;
        gradients[0] = (float) (r * (ra * tx + rb * bx));
        gradients[1] = (float) (r * (ra * ty + rb * by));
        gradients[2] = (float) (r * (ra * tz + rb * bz));
        gradients[3] = (float) (t * (ta * tx + tb * bx));
        gradients[4] = (float) (t * (ta * ty + tb * by));
        gradients[5] = (float) (t * (ta * tz + tb * bz));
    }
}
