package bake.core.learn;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.guide.GuideLearner;
import bake.core.guide.Guides;
import bake.core.guide.LightGuide;
import bake.core.light.Aim;
import bake.core.light.LightTable;
import bake.core.math.PathSampler;
import bake.core.path.BounceSettings;
import bake.core.path.Daylight;
import bake.core.path.LightSamples;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.work.Workers;
import java.util.concurrent.atomic.AtomicLongArray;
import java.util.function.BooleanSupplier;

/**
 * Teaches the sky guide of one picture, in rounds between passes: before passes 0, 1, 2, 4 and so on, each round with twice the paths of
 * the one before. These paths are spread over the whole picture and are no part of it, so that a region, a tile or another machine's share
 * looks for light in the same way as the whole, to the bit.
 */
public final class Training {
    /** Share of the picture's own paths that training adds. */
    private static final double SHARE = 0.05;
    /**
     * Samples of light that every point of the first round's paths takes only to learn from; fewer in rounds of more paths, so that no
     * round learns from less.
     */
    private static final int LESSONS = 32, LAMP_LESSONS = 16;
    private static final int LEAST_PATHS = 8192, MOST_PATHS = 2_000_000, CHUNK = 1024, MOST = 24;
    /**
     * In a small picture the least is a quarter of its pixels, but for this: with its lessons a round then costs about what a pass
     * does.
     */
    private static final int FEWEST_PATHS = 1024;
    /** Least worth of a part of the lamps against the mean of all: nothing is given up. */
    private static final float LEAST_LAMP = 0.1f;
    /** Keeps the random numbers of training apart from those of pictures. */
    private static final long SEED = 0x5bd1e995_27d4eb2dL;

    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final float[][] paths, rays;
    private final Lens lens;
    private final long seed, pixels;
    private final int lessons;
    /** Rounds there are: where records hold what comes from the sky it is they that look for it, and they do so before the first pass. */
    private final int most;
    private GuideLearner learner;
    /** The same for lamps; null where they are few. */
    private GuideLearner lampLearner;
    private Aim[] aims = new Aim[0];
    private int rounds;
    private boolean exchangePays = true;
    /**
     * Light that paths brought, by source group, in steps of a thousandth of {@code light}; whole numbers, so that their order does not
     * matter.
     */
    private AtomicLongArray brought;
    private BouncedShare share = new BouncedShare();
    /** Straight and bounced light of each thread's last path. */
    private final double[] pair;
    private final double light;

    public Training(RenderScene scene, Lens lens, double light, PathSettings settings, long pixels, PathTracer[] tracers,
            PathSampler[] samplers, float[][] paths, float[][] rays) {
        this.tracers = tracers;
        this.samplers = samplers;
        this.paths = paths;
        this.rays = rays;
        this.lens = lens;
        this.pixels = pixels;
        seed = settings.seed() ^ SEED;
        this.light = light;
        pair = new double[2 * tracers.length];
        brought = new AtomicLongArray(tracers[0].channels() / 3);
        most = settings.bounced().first() == BounceSettings.First.IRRADIANCE_CACHE && settings.bounced().cachedSurroundings() ? 1 : MOST;
        learner = GuideLearner.begin(light, count(0), Daylight.targets(scene));
        // Openings that are known are found by test rays as well.
        lessons = scene.openings().count() > 0 ? 0 : LESSONS;
        int parts = scene.lights().emitters().clusters();
        if (parts > 0) lampLearner = GuideLearner.begin(1, count(0), parts);
    }

    private int lessons(int first) {
        return (int) ((long) first * count(0) / count(rounds));
    }

    /** Whether what was learnt elsewhere is about as many ways to look as this scene has. */
    public boolean suits(Guides g) {
        return g.sky().targets() == learner.guide().targets() && (g.lamps() == null) == (lampLearner == null)
                && (lampLearner == null || g.lamps().targets() == lampLearner.guide().targets()) && g.brought().length == brought.length();
    }

    /** Begins with what was learnt elsewhere. */
    public void begin(Guides g) {
        rounds = g.rounds();
        share = new BouncedShare(g.bounced());
        for (int i = 0; i < brought.length(); i++) brought.set(i, Math.max(0, g.brought()[i]));
        learner = GuideLearner.after(g.sky(), light, count(rounds));
        if (lampLearner != null) lampLearner = GuideLearner.after(g.lamps(), 1, count(rounds));
        follow();
    }

    /** What was learnt so far; null while nothing was. */
    public Guides guides() {
        if (rounds == 0) return null;
        long[] b = new long[brought.length()];
        for (int i = 0; i < b.length; i++) b[i] = brought.get(i);
        return new Guides(learner.guide(), lampLearner == null ? null : lampLearner.guide(), rounds, b, share.data());
    }

    private int count(int round) {
        return (int) Math.clamp(pixels * SHARE * Math.pow(2, round), Math.clamp(pixels / 4, FEWEST_PATHS, LEAST_PATHS), MOST_PATHS);
    }

    /** Holds all rounds that come before a pass; returns false when it was stopped in one of them, which then is forgotten. */
    public boolean before(int pass, Workers workers, BooleanSupplier stop) {
        while (rounds < most && pass >= (1 << rounds) >> 1) if (!round(workers, stop)) return false;
        return true;
    }

    private boolean round(Workers workers, BooleanSupplier stop) {
        int n = count(rounds);
        AtomicLongArray before = brought;
        brought = new AtomicLongArray(before.length());
        BouncedShare shareBefore = share;
        share = new BouncedShare(share);
        for (int g = 0; g < before.length(); g++) brought.set(g, before.get(g));
        for (PathTracer t : tracers) {
            t.direct().daylight.follow(learner.guide(), aims, learner);
            t.direct().teach(lessons(lessons), lampLearner == null ? 0 : lessons(LAMP_LESSONS));
            if (lampLearner != null) t.direct().lamplight.follow(lampLearner.guide().floored(LEAST_LAMP), lampLearner);
        }
        boolean[] stopped = new boolean[workers.threads()];
        workers.run((n + CHUNK - 1) / CHUNK, (worker, chunk) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else for (int i = chunk * CHUNK; i < Math.min(n, (chunk + 1) * CHUNK); i++) path(worker, i);
        });
        for (PathTracer t : tracers) {
            t.direct().daylight.endRound();
            t.direct().lamplight.endRound();
        }
        for (boolean s : stopped)
            if (s) {
                learner = learner.again();
                if (lampLearner != null) lampLearner = lampLearner.again();
                brought = before;
                share = shareBefore;
                return false;
            }
        learner = learner.next(count(rounds + 1));
        if (lampLearner != null) lampLearner = lampLearner.next(count(rounds + 1));
        rounds++;
        follow();
        return true;
    }

    private void follow() {
        LightGuide guide = learner.guide(), lampGuide = lampLearner == null ? null : lampLearner.guide().floored(LEAST_LAMP);
        aims = new Aim[guide.places()];
        LightSamples looks = looks();
        exchangePays = share.pays();
        for (PathTracer t : tracers) {
            t.direct().daylight.follow(guide, aims, null);
            t.direct().teach(0, 0);
            t.direct().lamplight.follow(lampGuide, null);
            t.direct().often(looks);
        }
    }

    private void path(int worker, int i) {
        PathSampler random = samplers[worker];
        float[] r = rays[worker], out = paths[worker];
        // All paths of a round share one sequence, which spreads them evenly. Two by two they look at the same place of the picture.
        random.start(rounds, 0, i & ~1, seed);
        random.next2();
        float u = random.u, v = random.v;
        random.next2();
        lens.ray(u, v, random.u, random.v, r);
        if ((i & 1) == 1) {
            random.start(rounds, 1, i, seed);
            random.next2();
            random.next2();
        }
        java.util.Arrays.fill(out, 0);
        tracers[worker].place(u, v);
        tracers[worker].radiance(r[0], r[1], r[2], r[3], r[4], r[5], random, out);
        double all = 0;
        for (int g = 0; g < brought.length(); g++) {
            double l = 0.2126 * out[3 * g] + 0.7152 * out[3 * g + 1] + 0.0722 * out[3 * g + 2];
            all += l;
            // No more than white: what is far brighter is seldom seen straight by what needs light.
            brought.addAndGet(g, Math.round(Math.min(l / light, 1) * 1000));
        }
        double bounced = tracers[worker].bounced() / light, straight = all / light - bounced;
        if ((i & 1) == 1) share.add(u, v, pair[2 * worker], straight, pair[2 * worker + 1], bounced);
        pair[2 * worker] = straight;
        pair[2 * worker + 1] = bounced;
    }

    /** Whether the exchange of bounces pays in this picture, as far as is known. */
    public boolean exchangePays() {
        return exchangePays;
    }

    private LightSamples looks() {
        double all = 0, lamps = 0;
        for (int g = 0; g < brought.length(); g++) {
            all += brought.get(g);
            if (g > LightTable.DOME) lamps += brought.get(g);
        }
        return all > 0 ? LightSamples.of(brought.get(LightTable.DOME) / all, lamps / all) : LightSamples.UNLEARNT;
    }
}
