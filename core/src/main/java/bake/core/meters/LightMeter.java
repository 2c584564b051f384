package bake.core.meters;

import bake.core.compiled.RenderScene;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.path.PathTracer;

/** Measures illuminance at points by path tracing. */
public final class LightMeter {
    /** Light may touch any number of surfaces; paths end by roulette alone. */
    public static final int ALL = Integer.MAX_VALUE;
    private final RenderScene scene;
    private final int bounces;

    public LightMeter(RenderScene scene, int bounces) {
        this.scene = scene;
        this.bounces = bounces;
    }

    /**
     * A reading.
     *
     * @param lux illuminance
     * @param error its standard error, lux, from independent batches
     * @param luxByGroup the same for each source group
     * @param samples paths used
     */
    public record Reading(double lux, double error, double[] luxByGroup, int samples) {}

    /**
     * Illuminance on a small plane.
     *
     * @param at position, metres
     * @param normal direction the plane faces; need not be of length one
     * @param samples at least 1; taken in 16 batches whose scatter gives the standard error
     * @param index number of the point, so that points do not share random numbers
     */
    public Reading measure(Vec3 at, Vec3 normal, int samples, long seed, int index) {
        Vec3 n = normal.normalized();
        if (!at.isFinite() || !(Math.abs(n.length() - 1) < 1e-6))
            throw new IllegalArgumentException("a point needs a position and a direction");
        PathTracer tracer = new PathTracer(scene, bounces, 0);
        PathSampler random = new PathSampler();
        int batches = Math.min(16, samples);
        float[] path = new float[tracer.channels()], gains = scene.lights().gains(scene.scene().levels());
        double[] sum = new double[path.length / 3];
        double[] batch = new double[batches];
        int each = (samples + batches - 1) / batches;
        for (int b = 0; b < batches; b++)
            for (int s = 0; s < each; s++) {
                java.util.Arrays.fill(path, 0);
                // Batches use scrambles of their own, so their means are independent.
                random.start(index, b, s, seed);
                tracer.irradiance((float) at.x(), (float) at.y(), (float) at.z(), (float) n.x(), (float) n.y(), (float) n.z(), random,
                        path);
                for (int i = 0; gains != null && i < path.length; i++) path[i] *= gains[i];
                for (int g = 0; g < sum.length; g++) {
                    double l = 0.2126 * path[3 * g] + 0.7152 * path[3 * g + 1] + 0.0722 * path[3 * g + 2];
                    sum[g] += l;
                    batch[b] += l / each;
                }
            }
        double mean = 0, square = 0;
        for (double v : batch) mean += v / batches;
        for (double v : batch) square += (v - mean) * (v - mean);
        for (int g = 0; g < sum.length; g++) sum[g] /= (double) each * batches;
        double error = batches > 1 ? Math.sqrt(square / (batches - 1.0) / batches) : Double.POSITIVE_INFINITY;
        return new Reading(mean, error, sum, each * batches);
    }
}
