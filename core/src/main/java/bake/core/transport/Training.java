package bake.core.transport;

import bake.core.guide.SkyGuide;
import bake.core.guide.SkyGuideLearner;
import bake.core.light.Aim;
import bake.core.math.PathSampler;
import java.util.function.BooleanSupplier;

/**
 * Teaches the sky guide of one picture, in rounds between passes: before passes 1, 2, 4 and so on, each round with twice the
 * paths of the one before. These paths are spread over the whole picture and are no part of it, so that a region, a tile or
 * another machine's share looks for light in the same way as the whole, to the bit.
 */
final class Training {
    /** Share of the picture's own paths that training adds. */
    private static final double SHARE = 0.05;
    private static final int LEAST_PATHS = 8192, MOST_PATHS = 2_000_000, CHUNK = 1024;
    /** Keeps the random numbers of training apart from those of pictures. */
    private static final long SEED = 0x5bd1e995_27d4eb2dL;

    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final float[][] paths, rays;
    private final Lens lens;
    private final long seed, pixels;
    private SkyGuideLearner learner;
    private SkyGuide guide;
    private Aim[] aims = new Aim[0];
    private int rounds;

    Training(RenderScene scene, Lens lens, double light, PathSettings settings, long pixels, PathTracer[] tracers, PathSampler[] samplers, float[][] paths, float[][] rays) {
        this.tracers = tracers;
        this.samplers = samplers;
        this.paths = paths;
        this.rays = rays;
        this.lens = lens;
        this.pixels = pixels;
        seed = settings.seed() ^ SEED;
        learner = SkyGuideLearner.begin(light, count(0), scene.openings().ways());
    }

    private int count(int round) {
        return (int) Math.clamp(pixels * SHARE * Math.pow(2, round), LEAST_PATHS, MOST_PATHS);
    }

    /** Holds all rounds that come before a pass; returns false when it was stopped in one of them, which then is forgotten. */
    boolean before(int pass, Workers workers, BooleanSupplier stop) {
        while (rounds < 24 && pass >= 1 << rounds) if (!round(workers, stop)) return false;
        return true;
    }

    private boolean round(Workers workers, BooleanSupplier stop) {
        int n = count(rounds);
        for (PathTracer t : tracers) t.daylight().follow(learner.guide(), aims, learner);
        boolean[] stopped = new boolean[workers.threads()];
        workers.run((n + CHUNK - 1) / CHUNK, (worker, chunk) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else for (int i = chunk * CHUNK; i < Math.min(n, (chunk + 1) * CHUNK); i++) path(worker, i);
        });
        for (PathTracer t : tracers) t.daylight().endRound();
        for (boolean s : stopped)
            if (s) {
                learner = learner.again();
                return false;
            }
        learner = learner.next(count(rounds + 1));
        guide = learner.guide();
        aims = new Aim[guide.places()];
        rounds++;
        for (PathTracer t : tracers) t.daylight().follow(guide, aims, null);
        return true;
    }

    private void path(int worker, int i) {
        PathSampler random = samplers[worker];
        float[] r = rays[worker], out = paths[worker];
        // All paths of a round share one sequence, which spreads them evenly.
        random.start(rounds, 0, i, seed);
        random.next2();
        float u = random.u, v = random.v;
        random.next2();
        lens.ray(u, v, random.u, random.v, r);
        java.util.Arrays.fill(out, 0);
        tracers[worker].radiance(r[0], r[1], r[2], r[3], r[4], r[5], random, out);
    }
}
