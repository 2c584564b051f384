package bake.core.solve;

import bake.core.cache.CellSamples;
import bake.core.cache.RadianceCache;
import bake.core.compiled.Lens;
import bake.core.math.PathSampler;
import bake.core.path.BounceSettings;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.work.Watch;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * Fills the radiance cache of a picture in rounds of paths that begin at the camera and are no part of the picture. Each matt point that
 * such a path comes by gets one sample of its irradiance; from the second round on paths end in what the rounds before have found (Mueller
 * et al. 2021, "Real-time Neural Radiance Caching", call that self-training). Most rounds come before the first pass, further ones between
 * passes.
 */
public final class CacheRounds {
    /** Paths of a first prepass, in paths per pixel, and within what limits. */
    private static final double SHARE = 0.5;
    private static final int LEAST = 20_000, SOME = 150_000, MOST = 3_000_000, CHUNK = 1024;
    /** Rays of a record from which on what it gathers is worth that many paths: with fewer its own noise is more than that of cells. */
    private static final double WORTH = 600;
    /**
     * Shares of the prepass of its rounds; and of those that come later, before passes 1, 2, 4 and so on. In the first one paths end in
     * nothing that is known: they are long, and in the end what they find counts for an eighth. Later ones are for pictures whose own paths
     * end in cells: records have gathered what they tell by then, and error and time of a picture are the same without.
     */
    private static final double[] PREPASS = {0.05, 0.15, 0.3, 0.5};
    private static final double AFTER = 0.25;
    /**
     * Bounces that paths trace before they may end in cells. Errors of cells are handed to those that build on them, and each reading adds
     * its own: after two bounces a room lit around a corner came out 2.2 % too bright, after three 1 %, after five as it is, within 0.5 %;
     * and from seed to seed it scattered by 4.5 % after two and by 2.6 % after five, for a tenth to a quarter more rays.
     */
    private static final int TRACED = 5;
    private static final int AFTERS = 5;
    private static final long SEED = 0x71c9_3a2b_90d4_55e1L;

    private RadianceCache cache;
    private boolean begun;
    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final float[][] paths, rays;
    private final Lens lens;
    private final long seed;
    private final int all;
    private final int afters;
    private int rounds;

    public CacheRounds(RadianceCache cache, Lens lens, PathSettings settings, long pixels, PathTracer[] tracers, PathSampler[] samplers,
            float[][] paths, float[][] rays) {
        this.cache = cache;
        this.lens = lens;
        this.tracers = tracers;
        this.samplers = samplers;
        this.paths = paths;
        this.rays = rays;
        seed = settings.seed() ^ SEED;
        boolean recorded = settings.bounced().first() == BounceSettings.First.IRRADIANCE_CACHE;
        afters = recorded ? 0 : AFTERS;
        // A scene's light does not get simpler with the picture's size, so small ones send relatively more.
        long wanted = (long) (pixels * SHARE) + Math.min(SOME, 8 * pixels);
        double worth = recorded ? Math.min(1, settings.bounced().gatherRays() / WORTH) : 1;
        all = (int) Math.clamp((long) (worth * wanted), LEAST, MOST);
        follow();
    }

    public RadianceCache cache() {
        return cache;
    }

    private int count(int round) {
        return (int) (all * (round < PREPASS.length ? PREPASS[round] : AFTER));
    }

    /** Holds all rounds that come before a pass; returns false when it was stopped in one of them, which then is forgotten. */
    public boolean before(int pass, Workers workers, BooleanSupplier stop, Watch watch) {
        while (rounds < due(pass)) {
            if (!round(workers, stop)) return false;
            double done = 0;
            for (int k = 0; k < Math.min(rounds, PREPASS.length); k++) done += PREPASS[k];
            watch.prepared(done);
        }
        return true;
    }

    /** Begins with cells that another picture has filled: one round for what only this one sees takes the place of the first ones. */
    public void begin(RadianceCache c) {
        cache = c;
        if (c.rounds() >= PREPASS.length) rounds = PREPASS.length - 2;
        begun = c.rounds() > 0;
        follow();
    }

    private int due(int pass) {
        int doublings = pass == 0 ? 0 : 32 - Integer.numberOfLeadingZeros(pass);
        return Math.min(PREPASS.length + afters, (begun ? PREPASS.length - 1 : PREPASS.length) + doublings);
    }

    private boolean round(Workers workers, BooleanSupplier stop) {
        int n = count(rounds);
        CellSamples[] chunks = new CellSamples[(n + CHUNK - 1) / CHUNK];
        for (PathTracer t : tracers) t.cached().follow(rounds == 0 && !begun ? null : cache, TRACED);
        boolean[] stopped = new boolean[workers.threads()];
        workers.run(chunks.length, (worker, chunk) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else chunks[chunk] = chunk(worker, chunk * CHUNK, Math.min(n, (chunk + 1) * CHUNK));
        });
        boolean whole = true;
        for (boolean s : stopped) whole &= !s;
        if (whole) {
            workers.run(RadianceCache.SHARDS, (worker, shard) -> cache.merge(shard, chunks));
            cache.merged();
            rounds++;
        }
        follow();
        return whole;
    }

    private void follow() {
        for (PathTracer t : tracers) t.cached().follow(cache, 1);
    }

    private CellSamples chunk(int worker, int from, int to) {
        PathTracer t = tracers[worker];
        PathSampler random = samplers[worker];
        CellSamples out = new CellSamples(t.channels());
        t.cells().fill(out);
        for (int i = from; i < to; i++) path(worker, t, random, i);
        t.cells().fill(null);
        return out;
    }

    private void path(int worker, PathTracer t, PathSampler random, int i) {
        float[] r = rays[worker], out = paths[worker];
        random.start(rounds, 0, i, seed);
        random.next2();
        float u = random.u, v = random.v;
        random.next2();
        lens.ray(u, v, random.u, random.v, r);
        t.place(u, v);
        // What the path brings the picture is of no use here.
        java.util.Arrays.fill(out, 0);
        t.radiance(r[0], r[1], r[2], r[3], r[4], r[5], random, out);
    }
}
