package bake.core.solve;

import bake.core.cache.PhotonMap;
import bake.core.cache.PhotonSamples;
import bake.core.compiled.RenderScene;
import bake.core.light.Emission;
import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.path.PathTracer;
import bake.core.work.Watch;
import bake.core.work.Workers;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * Sends photons out until enough of them lie on surfaces, before a picture's first pass. They go out in batches of a fixed size, so that
 * how many there are depends on no thread.
 */
public final class PhotonRound {
    private static final int CHUNK = 2048, CHUNKS = 16;
    /** Emissions without a photon after which a scene counts as one that has none, and the most there may be for each photon wanted. */
    private static final long TRIES = 2_000_000, EACH = 40;
    private static final long SEED = 0x3c6e_f372_fe94_f82bL;
    /** Share of a scene's diagonal that an estimate may reach (common practice, no source); caustics are finer. */
    private static final float REACH = 0.02f, FINE = 0.004f;
    /** Diagonal that counts at most, metres: a wide ground makes no room coarser. */
    private static final float WIDEST = 60;

    private final RenderScene scene;
    private final Vec3 eye;
    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final float[][] paths;
    private final long seed;
    private final int wanted;
    private final boolean caustic;
    private PhotonMap map;

    /**
     * @param eye where most photons are wanted around, metres
     * @param wanted about how many photons are to lie on surfaces
     * @param caustic whether only those count that came by smooth surfaces alone
     */
    public PhotonRound(RenderScene scene, Vec3 eye, PathTracer[] tracers, PathSampler[] samplers, float[][] paths, long seed, int wanted,
            boolean caustic) {
        this.scene = scene;
        this.eye = eye;
        this.tracers = tracers;
        this.samplers = samplers;
        this.paths = paths;
        this.seed = seed ^ SEED ^ (caustic ? 0x9e37 : 0);
        this.wanted = wanted;
        this.caustic = caustic;
    }

    /** The map, or null before it is made. */
    public PhotonMap map() {
        return map;
    }

    /** Begins with photons of another picture of the scene. */
    public void begin(PhotonMap m) {
        map = m;
    }

    /** Makes the map where there is none; false when it was stopped, and then there is none. */
    public boolean before(Workers workers, BooleanSupplier stop, Watch watch) {
        boolean sent = map != null;
        if (!sent && !send(workers, stop, watch)) return false;
        if (!caustic) settle(workers);
        watch.prepared(1);
        return true;
    }

    private boolean send(Workers workers, BooleanSupplier stop, Watch watch) {
        float[] bounds = scene.tracer().bounds();
        List<PhotonSamples> all = new ArrayList<>();
        long emitted = 0, kept = 0;
        if (bounds != null) {
            Emission[] rays = new Emission[workers.threads()];
            for (int i = 0; i < rays.length; i++) rays[i] = new Emission(scene.lights(), scene.openings(), bounds, eye);
            while (kept < wanted && emitted < EACH * wanted && !(kept == 0 && emitted > TRIES)) {
                PhotonSamples[] chunks = new PhotonSamples[CHUNKS];
                long first = emitted;
                boolean[] stopped = new boolean[workers.threads()];
                workers.run(CHUNKS, (worker, chunk) -> {
                    if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
                    else chunks[chunk] = chunk(worker, rays[worker], first + (long) chunk * CHUNK);
                });
                for (boolean s : stopped) if (s) return false;
                emitted += (long) CHUNK * CHUNKS;
                for (PhotonSamples c : chunks) kept += c.count();
                all.addAll(List.of(chunks));
                watch.prepared(Math.min(0.9, 0.9 * kept / wanted));
            }
        }
        map = PhotonMap.of(tracers[0].channels(), all.toArray(PhotonSamples[]::new), emitted,
                bounds == null ? 1 : (caustic ? FINE : REACH) * Math.min(WIDEST, diagonal(bounds)));
        return true;
    }

    private static float diagonal(float[] b) {
        return (float) Math.sqrt((b[3] - b[0]) * (b[3] - b[0]) + (b[4] - b[1]) * (b[4] - b[1]) + (b[5] - b[2]) * (b[5] - b[2]));
    }

    private PhotonSamples chunk(int worker, Emission e, long from) {
        PhotonSamples out = new PhotonSamples();
        PathTracer t = tracers[worker];
        PathSampler random = samplers[worker];
        if (caustic) t.fill(null, out);
        else t.fill(out, null);
        for (long i = from; i < from + CHUNK; i++) {
            // Each by itself: photons that keep their distance from each other would find too few around them.
            random.start((int) i, (int) (i >>> 32), 0, seed);
            if (e.emit(random)) t.photon(e, random, paths[worker]);
        }
        t.fill(null, null);
        return out;
    }

    private void settle(Workers workers) {
        map.settle();
        PhotonMap.Search[] searches = new PhotonMap.Search[workers.threads()];
        float[][] spare = new float[workers.threads()][tracers[0].channels()];
        Frame[] frames = new Frame[workers.threads()];
        for (int i = 0; i < frames.length; i++) frames[i] = new Frame();
        for (int i = 0; i < searches.length; i++) searches[i] = new PhotonMap.Search();
        workers.run((map.photons() + CHUNK - 1) / CHUNK, (worker, part) ->
                map.settle(part * CHUNK, Math.min(map.photons(), (part + 1) * CHUNK), searches[worker],
                (x, y, z, nx, ny, nz, r, open) -> cover(tracers[worker], frames[worker], x, y, z, nx, ny, nz, r, open), spare[worker]));
    }

    /** Looks along the surface as far as the disc goes, and down on it at as many places, spread by a cone's weight. */
    private static float cover(PathTracer t, Frame f, float x, float y, float z, float nx, float ny, float nz, float r, float[] open) {
        f.around(nx, ny, nz);
        float h = 0.1f * r + 1e-4f, px = x + h * nx, py = y + h * ny, pz = z + h * nz;
        int there = 0;
        for (int k = 0; k < open.length; k++) {
            float phi = 2 * (float) Math.PI * k / open.length;
            f.turn((float) Math.cos(phi), (float) Math.sin(phi), 0);
            float away = r * (float) (0.5 - Math.sin(Math.asin(1 - 2 * (k * 5 % open.length + 0.5) / open.length) / 3));
            open[k] = t.direct().free(px, py, pz, f.x, f.y, f.z, r);
            if (open[k] < away) continue;
            if (t.direct().free(px + away * f.x, py + away * f.y, pz + away * f.z, -nx, -ny, -nz,
                    2 * h + 0.2f * away) < Float.POSITIVE_INFINITY) there++;
        }
        // With the place itself, which is surface: the inverse of a share of so few looks is right in the mean then.
        return (there + 1) / (float) (open.length + 1);
    }
}
