package bake.core.solve;

import bake.core.cache.IrradianceCache;
import bake.core.cache.RareIrradiance;
import bake.core.cache.RecordRegression;
import bake.core.cache.RecordSamples;
import bake.core.compiled.Lens;
import bake.core.math.PathSampler;
import bake.core.path.BounceSettings;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.surface.SurfacePoint;
import bake.core.work.Watch;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * Fills the irradiance cache of a picture before its first pass, from coarse to fine: each round looks at a grid of places of the picture,
 * twice as fine as the one before, and makes records where those of the rounds before do not reach.
 */
public final class RecordRounds {
    /**
     * Grids from coarse to fine: pixels between their places in the last one, the same where records gather fewer than {@code MANY} rays,
     * and the number of places across a picture that the first one has at least.
     */
    private static final int FINEST = 2, QUICK = 4, MANY = 400, ACROSS = 40, ROW = 8, CHUNK = 256;
    /** Radii of records, in pixels; and at most, in metres. */
    private static final float LEAST_PIXELS = 2.5f, MOST_PIXELS = 60, LEAST = 0.01f;
    private static final long SEED = 0x2b7e_1516_28ae_d2a6L;

    private IrradianceCache cache;
    private RareIrradiance rare;
    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final HemisphereGather[] gathers;
    private final float[][] paths, rays;
    private final Lens lens;
    private final long seed;
    private final BounceSettings how;
    private final int width, height;
    /** Pixels between the places of the finest grid: paths trace what lies between and is not reached. */
    private final int finest;
    /** How far a record reaches at most, metres. */
    private final float reach;
    private int stride;
    /** Records that are what they stay. */
    private int smoothed;

    /** @param room what the camera stands in */
    public RecordRounds(IrradianceCache cache, Lens lens, RoomSize room, PathSettings settings, int width, int height,
            PathTracer[] tracers, PathSampler[] samplers, float[][] paths, float[][] rays) {
        this.cache = cache;
        this.lens = lens;
        this.width = width;
        this.height = height;
        this.tracers = tracers;
        this.samplers = samplers;
        this.paths = paths;
        this.rays = rays;
        seed = settings.seed() ^ SEED;
        how = settings.bounced();
        reach = (float) (how.gatherRadius() > 0 ? how.gatherRadius() : room.gatherRadius());
        gathers = new HemisphereGather[tracers.length];
        for (int i = 0; i < gathers.length; i++) gathers[i] = new HemisphereGather(tracers[i], how);
        finest = how.gatherRays() < MANY ? QUICK : FINEST;
        stride = finest;
        while (2 * stride * ACROSS <= width) stride *= 2;
    }

    public IrradianceCache cache() {
        return cache;
    }

    /** Holds all rounds that are left; returns false when it was stopped in one of them, which then is forgotten. */
    public boolean before(Workers workers, BooleanSupplier stop, Watch watch) {
        for (; stride >= finest; stride /= 2) {
            if (!round(workers, stop)) return false;
            watch.prepared(Math.min(1, 0.5 / stride * finest + 0.5));
        }
        smooth(workers);
        for (PathTracer t : tracers) t.cached().follow(cache);
        return true;
    }

    /** What few rays make of each record is evened out once all are made. */
    private void smooth(Workers workers) {
        if (cache.records() == smoothed) return;
        RecordRegression fit = new RecordRegression(cache, smoothed);
        RecordRegression.Fitter[] fitters = new RecordRegression.Fitter[tracers.length];
        for (int i = 0; i < fitters.length; i++) fitters[i] = fit.new Fitter(tracers[i].direct()::clear);
        int n = fit.count();
        workers.run((n + CHUNK - 1) / CHUNK, (worker, chunk) -> fitters[worker].fit(chunk * CHUNK, Math.min(n, (chunk + 1) * CHUNK)));
        fit.apply();
        smoothed = cache.records();
    }

    /** Begins with records of another picture. */
    public void begin(IrradianceCache c) {
        cache = c;
        smoothed = c.records();
        for (PathTracer t : tracers) t.cached().follow(cache);
    }

    private boolean round(Workers workers, BooleanSupplier stop) {
        int across = (width + stride - 1) / stride, down = (height + stride - 1) / stride, rows = (down + ROW - 1) / ROW,
                columns = (across + ROW - 1) / ROW;
        RecordSamples[] chunks = new RecordSamples[rows * columns];
        boolean[] stopped = new boolean[workers.threads()];
        workers.run(chunks.length, (worker, chunk) -> {
            RecordSamples out = chunks[chunk] = new RecordSamples(tracers[worker].channels());
            int x0 = chunk % columns * ROW, y0 = chunk / columns * ROW;
            for (int y = y0; y < Math.min(y0 + ROW, down); y++)
                for (int x = x0; x < Math.min(x0 + ROW, across); x++)
                    if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
                    else place(worker, x, y, out);
        });
        for (boolean s : stopped) if (s) return false;
        if (rare == null) rare = new RareIrradiance(cache.channels());
        rare.round(chunks);
        workers.run(chunks.length, (worker, chunk) -> rare.share(chunks[chunk], tracers[worker].direct()::clear));
        cache.merge(chunks);
        return true;
    }

    private void place(int worker, int x, int y, RecordSamples out) {
        PathSampler random = samplers[worker];
        PathTracer t = tracers[worker];
        float[] r = rays[worker];
        random.start(x, y, stride, seed);
        random.next2();
        float u = (x + random.u) * stride / width, v = (y + random.v) * stride / height;
        if (!(u < 1 && v < 1)) return;
        // The middle of the lens: records belong where things are sharp.
        lens.ray(u, v, 0, 0, r);
        float way = t.firstMatt(r[0], r[1], r[2], r[3], r[4], r[5], random, paths[worker]);
        if (!(way < Float.POSITIVE_INFINITY)) return;
        var p = t.point();
        if (known(p)) return;
        float pixel = lens.pixel(width) * way;
        float least = Math.max(LEAST, LEAST_PIXELS * pixel), most = Math.max(LEAST, Math.min(reach, MOST_PIXELS * pixel));
        gathers[worker].record(p, random, least, most, cache, out);
    }

    private boolean known(SurfacePoint p) {
        if (how.nearField() > 0) return cache.far(how.near(), p.px, p.py, p.pz, p.nx, p.ny, p.nz, null);
        IrradianceCache.Known k = cache.read(p.px, p.py, p.pz, p.nx, p.ny, p.nz, null);
        return k == IrradianceCache.Known.ENOUGH || k == IrradianceCache.Known.NARROW
                && cache.far(how.near(), p.px, p.py, p.pz, p.nx, p.ny, p.nz, null);
    }
}
