package bake.core.solve;

import bake.core.cache.IrradianceCache;
import bake.core.cache.RecordSamples;
import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.path.BounceSettings;
import bake.core.path.PathTracer;
import bake.core.surface.SurfacePoint;

/**
 * Makes irradiance records: gathers what comes to a place from all over its hemisphere, in strata of equal irradiance, and from differences
 * between neighbouring strata how that changes as the place turns and moves (Ward and Heckbert 1992, equations 1 and 2, in the form of
 * Krivanek, Gautron, Bouatouch and Pattanaik 2005, "Improved Radiance Gradient Computation", section 3 for cosine-weighted strata). One
 * instance per thread.
 */
public final class HemisphereGather {
    /** Radius of a record in the harmonic mean of the distances around it. */
    private static final float REACH = 0.3f;
    /**
     * Share of the least radius below which a place is too narrow for a record. Above it records are smoother than what is traced between
     * them: corners would be ragged.
     */
    private static final float NARROW = 0.4f;
    /** Rays that tell whether a place is open enough for a record. */
    private static final int PROBES = 24;
    /** Greatest relative change that a gradient may make over the radius. */
    private static final float MOST_CHANGE = 0.7f;

    /**
     * Rays that are enough for a record of little reach. A picture is wrong by the variance of a record times the area that it stands for,
     * and many small ones are averaged by denoising and by the eye, so that rays are best given in proportion to the reach: clouds come
     * from the wide ones.
     */
    private static final int ENOUGH = 400;

    private final PathTracer tracer;
    private int rings, sectors;
    private final BounceSettings how;
    private final float[] light, sky, sample, luminance, distance;
    private final float[] gradients = new float[6];
    /** Directions that count in the sum over distances. */
    private int seen;
    private final Frame frame = new Frame();
    private final RareRays rare;
    /** How far rare light is shared: in radii of the record, and in those that it would have with no other limit. */
    private static final float SHARED = 4, SHARED_WIDE = 2;

    /**
     * @param how with how many rays, and whether half as many look for light straight from the surroundings
     */
    public HemisphereGather(PathTracer tracer, BounceSettings how) {
        this.how = how;
        this.tracer = tracer;
        int rays = how.gatherRays();
        strata(rays);
        light = new float[tracer.channels()];
        sky = new float[tracer.channels()];
        sample = new float[tracer.channels()];
        // Fewer rays may make a few strata more than there are rays.
        luminance = new float[rays + rings];
        rare = new RareRays(luminance.length, tracer.channels());
        distance = new float[luminance.length];
    }

    /** Strata are about as high as wide. */
    private void strata(int rays) {
        rings = Math.max(3, (int) Math.round(Math.sqrt(rays / Math.PI)));
        sectors = Math.max(8, Math.round(rays / (float) rings));
    }

    /**
     * Makes a record of a place. Where it is too narrow for one, marks it and makes one of what is far from it.
     *
     * @param least radius below which there is no record, metres; {@code most} the widest
     * @param known what is cached so far
     */
    public void record(SurfacePoint p, PathSampler random, float least, float most, IrradianceCache known, RecordSamples out) {
        frame.around(p.nx, p.ny, p.nz);
        float gx = p.gx, gy = p.gy, gz = p.gz, px = p.px, py = p.py, pz = p.pz, x = px + p.offset * gx, y = py + p.offset * gy,
                z = pz + p.offset * gz;
        float open = how.nearField() > 0 ? 0 : open(x, y, z, gx, gy, gz, random), near = open < NARROW * least ? how.near() : 0;
        if (near > 0 && how.nearField() == 0) out.mark(px, py, pz, frame.nx, frame.ny, frame.nz, least);
        if (near > 0 && known.far(near, px, py, pz, frame.nx, frame.ny, frame.nz, null)) return;
        java.util.Arrays.fill(light, 0);
        java.util.Arrays.fill(sky, 0);
        int rays = how.gatherRays();
        float share = how.nearField() > 0 ? 1 : near > 0 ? 0 : Math.min(1, open / most);
        strata(Math.min(rays, Math.max(ENOUGH, Math.round(share * rays))));
        // Beside a near field each point of the picture looks for them itself.
        int looks = how.cachedSurroundings() && near == 0 ? rings * sectors / 2 : 0;
        if (looks > 0) tracer.direct().surroundings(p, looks, rings * sectors, random, sky);
        float inverse = gather(x, y, z, gx, gy, gz, near, looks, random), n = rings * sectors;
        for (int c = 0; c < light.length; c++) light[c] = light[c] / n + sky[c];
        float wide = inverse > 0 ? REACH * seen / inverse : Float.POSITIVE_INFINITY, radius = Math.min(wide, most);
        if (near > 0) {
            out.far(px, py, pz, frame.nx, frame.ny, frame.nz, Math.max(least, seen == 0 ? REACH * near : radius), near, seen / n, light);
            return;
        }
        float[] few = rare.end(luminance);
        gradients(radius);
        // Gradients are those of bounced light; what is straight or rare has none.
        float all = luminance(light), usual = all > 0 ? 1 - (luminance(sky) + luminance(few) / n) / all : 0;
        for (int i = 0; i < 6; i++) gradients[i] *= usual;
        out.add(px, py, pz, frame.nx, frame.ny, frame.nz, Math.max(least, radius), gradients, light);
        out.scatter(scatter());
        for (int c = 0; c < few.length; c++) few[c] /= n;
        out.rare(Math.min(SHARED * radius, SHARED_WIDE * wide), few);
    }

    /**
     * Sums light that comes from beyond some distance into {@link #light}; returns the sum of one over distance, over {@link #seen}
     * directions.
     *
     * @param looks how often the surroundings were looked for beside
     */
    private float gather(float x, float y, float z, float gx, float gy, float gz, float beyond, int looks,
            PathSampler random) {
        double inverse = 0;
        seen = 0;
        rare.begin(rings * sectors);
        for (int k = 0; k < sectors; k++)
            for (int j = 0; j < rings; j++) {
                random.next2();
                float sin2 = (j + random.u) / rings, sin = (float) Math.sqrt(sin2), cos = (float) Math.sqrt(1 - sin2),
                        phi = 2 * (float) Math.PI * (k + random.v) / sectors;
                frame.turn(sin * (float) Math.cos(phi), sin * (float) Math.sin(phi), cos);
                float dx = frame.x, dy = frame.y, dz = frame.z;
                int i = k * rings + j;
                luminance[i] = 0;
                distance[i] = Float.POSITIVE_INFINITY;
                if (!(dx * gx + dy * gy + dz * gz > 0)) continue;
                java.util.Arrays.fill(sample, 0);
                random.one(i);
                distance[i] = tracer.gather(x, y, z, dx, dy, dz, cos, rings * sectors, looks, random, sample);
                random.join();
                if (distance[i] <= beyond) continue;
                for (int c = 0; c < light.length; c += 3) {
                    luminance[i] += 0.2126f * sample[c] + 0.7152f * sample[c + 1] + 0.0722f * sample[c + 2];
                    light[c] += sample[c];
                    light[c + 1] += sample[c + 1];
                    light[c + 2] += sample[c + 2];
                }
                rare.take(i, luminance[i], sample);
                // What is behind a window changes with the way to its frame.
                inverse += 1 / Math.min(distance[i], tracer.paned());
                seen++;
            }
        return (float) inverse;
    }

    /** How far a record may reach about, by the harmonic mean of the distances around a place, metres. */
    private float open(float x, float y, float z, float gx, float gy, float gz, PathSampler random) {
        float inverse = 0;
        for (int k = 0; k < PROBES; k++) {
            random.next2();
            float sin = (float) Math.sqrt(random.u), cos = (float) Math.sqrt(1 - random.u),
                    phi = 2 * (float) Math.PI * (k + random.v) / PROBES;
            frame.turn(sin * (float) Math.cos(phi), sin * (float) Math.sin(phi), cos);
            if (frame.x * gx + frame.y * gy + frame.z * gz > 0)
                inverse += 1 / tracer.direct().free(x, y, z, frame.x, frame.y, frame.z, Float.POSITIVE_INFINITY);
        }
        return inverse > 0 ? REACH * PROBES / inverse : Float.POSITIVE_INFINITY;
    }

    /** Variance of the mean of all strata, from how those differ that lie beside each other; what is rare is not in it. */
    private float scatter() {
        double sum = 0;
        for (int k = 0; k < sectors; k++)
            for (int j = 0, i = k * rings, q = (k + 1) % sectors * rings; j < rings; j++, i++, q++)
                sum += (luminance[i] - luminance[q]) * (luminance[i] - luminance[q]);
        double n = rings * sectors;
        return (float) (0.5 * sum / (n * n));
    }

    private static float luminance(float[] groups) {
        float l = 0;
        for (int c = 0; c < groups.length; c += 3) l += 0.2126f * groups[c] + 0.7152f * groups[c + 1] + 0.0722f * groups[c + 2];
        return l;
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
                double low = Math.sqrt(j / (double) rings), high = Math.sqrt((j + 1) / (double) rings),
                        middle = Math.sqrt((j + 0.5) / rings);
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
        gradients[0] = (float) (r * (ra * frame.tx + rb * frame.bx));
        gradients[1] = (float) (r * (ra * frame.ty + rb * frame.by));
        gradients[2] = (float) (r * (ra * frame.tz + rb * frame.bz));
        gradients[3] = (float) (t * (ta * frame.tx + tb * frame.bx));
        gradients[4] = (float) (t * (ta * frame.ty + tb * frame.by));
        gradients[5] = (float) (t * (ta * frame.tz + tb * frame.bz));
    }
}
