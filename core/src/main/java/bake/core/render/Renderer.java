package bake.core.render;

import bake.core.cache.IrradianceCache;
import bake.core.cache.RadianceCache;
import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.guide.Guides;
import bake.core.learn.Training;
import bake.core.math.PathSampler;
import bake.core.outlook.Scenery;
import bake.core.path.BounceSettings;
import bake.core.path.Daylight;
import bake.core.path.FirstSeen;
import bake.core.path.LightPart;
import bake.core.path.PathHead;
import bake.core.path.PathSettings;
import bake.core.path.PathTracer;
import bake.core.reuse.PathExchange;
import bake.core.scene.Camera;
import bake.core.solve.CacheRounds;
import bake.core.solve.Caches;
import bake.core.solve.PhotonRound;
import bake.core.solve.RecordRounds;
import bake.core.solve.RoomSize;
import bake.core.work.Passes;
import bake.core.work.Watch;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * Renders a picture pass by pass, one sample for every pixel of the region at a time. The picture after n passes is
 * the same to the bit for any number of threads, and a region's is a piece of the whole.
 */
public final class Renderer implements Passes {
    /** Side of the cells that a group of pixels takes one of each, and how many of them lie along a tile. */
    private static final int CELL = 4, CELLS = 5, TILE = CELL * CELLS;
    private static final float SHARPNESS = 0.5f;

    private final Film film;
    private final Region region;
    private final Lens lens;
    private final PathSettings settings;
    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final float[][] paths, rays;
    private final PathHead[][] heads;
    private final PathExchange[] exchanges;
    /** Luminance that the clamp took away from the pixels of the region, by thread. */
    private final double[] clamped;
    /** Factors on the light of source groups, or null. */
    private final float[] gains;
    /** Luminance that saturates the camera, cd/m2. */
    private final double white;
    private long raysBefore;
    private double clampedBefore;
    /** Null where paths are not guided. */
    private final Training training;
    /** Null where nothing is cached. */
    private final CacheRounds caches;
    private final RecordRounds records;
    private final PhotonRound photons, caustics;
    /** The last pass before which rounds were held, -1 for none. */
    private int prepared = -1;
    /** Whether it learns and caches nothing by itself. */
    private boolean knowing;
    /** Whether it began with caches of another picture. */
    private boolean begun;
    private final RenderScene scene;
    private final boolean uneven, parted;
    private final Adaptivity adaptivity;
    private final FirstLooks looks;
    /** How many paths pixels get, where that is not one for all; null until it is known. */
    private EffortMap effort;
    /** Paths beyond the first of each pixel, by thread. */
    private final PathHead[] more;

    public Renderer(RenderScene scene, Camera camera, PathSettings settings, Film film, Region region, Workers workers) {
        this(scene, camera, settings, film, region, workers, Adaptivity.NONE);
    }

    /** @param adaptivity how pixels get more paths than others */
    public Renderer(RenderScene scene, Camera camera, PathSettings settings, Film film, Region region, Workers workers,
            Adaptivity adaptivity) {
        this.scene = scene;
        this.adaptivity = adaptivity;
        this.film = film;
        this.settings = settings;
        this.region = region.within(film.width(), film.height());
        lens = new Lens(camera, film.width(), film.height());
        white = camera.saturation();
        gains = scene.lights().gains(scene.scene().levels());
        looks = new FirstLooks(lens, settings.filter(), film, this.region, settings.seed(), white, !settings.filter().negative());
        Scenery scenery = scene.scenery().framed(film.width() / (double) film.height());
        int n = workers.threads();
        parted = film.inputs() > scene.lights().groups().size();
        tracers = new PathTracer[n];
        samplers = new PathSampler[n];
        paths = new float[n][];
        rays = new float[n][6];
        heads = new PathHead[n][CELLS * CELLS];
        exchanges = new PathExchange[n];
        more = new PathHead[n];
        // The easel's first pass waits for nothing.
        uneven = !settings.prompt() && EffortMap.needed(scene, settings.edges());
        clamped = new double[n];
        for (int i = 0; i < n; i++) {
            tracers[i] = new PathTracer(scene, settings.bounces(), settings.kinds(), settings.clamp() * camera.saturation());
            // Many samples share a pixel, so each may look more sharply than a pixel's width.
            tracers[i].frame(scenery);
            tracers[i].sharpness(SHARPNESS * lens.pixel(film.width()));
            samplers[i] = new PathSampler();
            paths[i] = new float[tracers[i].channels()];
            more[i] = new PathHead(paths[i].length, parted);
            exchanges[i] = new PathExchange(scene.tracer(), tracers[i].clamp(), heads[i].length);
            for (int k = 0; k < heads[i].length; k++) heads[i][k] = new PathHead(paths[i].length, parted);
        }
        training = settings.guided() && (scene.openings().count() > 0 || !scene.lights().dome().dark()
                || scene.lights().emitters().clusters() > 0)
                ? new Training(scene, lens, camera.saturation(), settings, (long) film.width() * film.height(), tracers, samplers, paths,
                rays) : null;
        caches = settings.bounced().later() == BounceSettings.Later.RADIANCE_CACHE
                ? new CacheRounds(new RadianceCache(tracers[0].channels()), lens, settings, (long) film.width() * film.height(), tracers,
                samplers, paths, rays) : null;
        records = settings.bounced().first() == BounceSettings.First.IRRADIANCE_CACHE
                ? new RecordRounds(new IrradianceCache(tracers[0].channels()), lens, RoomSize.around(camera.position(), scene.tracer()),
                settings, film.width(), film.height(), tracers, samplers, paths, rays) : null;
        photons = settings.bounced().mapped() ? new PhotonRound(scene, camera.position(), tracers, samplers, paths, settings.seed(),
                settings.bounced().photons(), false) : null;
        caustics = settings.bounced().caustics() == BounceSettings.Caustics.PHOTON_MAP
                ? new PhotonRound(scene, camera.position(), tracers, samplers, paths, settings.seed(), settings.bounced().photons(),
                true) : null;
        for (PathTracer t : tracers) {
            t.bounces(settings.bounced());
            t.darken(settings.occlusion());
        }
    }

    /**
     * Begins with what another picture of the scene has cached, before the first pass, and adds to it. What there is may be used or not,
     * part by part: a cache that this picture's solvers do not read is left alone, and so is one of a scene with other source groups (a
     * backdrop apart is one more).
     */
    public void begin(Caches c) {
        int n = tracers[0].channels();
        begun = true;
        if (caches != null && c.cells() != null && c.cells().channels() == n) caches.begin(c.cells());
        if (records != null && c.records() != null && c.records().channels() == n) records.begin(c.records());
        if (photons != null && c.photons() != null && c.photons().channels() == n) photons.begin(c.photons());
        if (caustics != null && c.caustics() != null && c.caustics().channels() == n) caustics.begin(c.caustics());
    }

    /** Learns and caches no more than what it began with. To be said before the first pass. */
    public void learnNoMore() {
        knowing = true;
    }

    /** What was cached so far. To be asked between passes. */
    public Caches caches() {
        return new Caches(caches == null ? null : caches.cache(), records == null ? null : records.cache(),
                photons == null ? null : photons.map(), caustics == null ? null : caustics.map());
    }

    /**
     * Holds all rounds of learning and caching that come before a pass; {@link #pass} does so itself where it was not done. Rounds are held
     * before passes 0, 1, 2, 4 and so on, in an order that is the same whether a picture was begun or is gone on with.
     *
     * @return false when it was stopped; what was done is kept
     */
    public boolean prepare(int number, Workers workers, BooleanSupplier stop, Watch watch) {
        if (settings.prompt()) return true;
        if (prepared < 0 && !photons(workers, stop, watch)) return false;
        if (knowing) return true;
        for (int next = nextRound(); next <= number; next = nextRound()) {
            if (training != null && !training.before(next, workers, stop)) return false;
            int at = next;
            double part = records == null ? 1 : 0.6;
            if (caches != null && !caches.before(next, workers, stop, share -> { if (at == 0) watch.prepared(part * share); }))
                return false;
            if (records != null && !records.before(workers, stop, share -> watch.prepared(1 - part + part * share))) return false;
            prepared = next;
        }
        return true;
    }

    /** Sends out photons that all else builds on. */
    private boolean photons(Workers workers, BooleanSupplier stop, Watch watch) {
        if (caustics != null) {
            if (!caustics.before(workers, stop, share -> watch.prepared(photons == null ? share : share / 2))) return false;
            for (PathTracer t : tracers) t.follow(caustics.map());
        }
        if (photons != null) {
            if (!photons.before(workers, stop, share -> watch.prepared(caustics == null ? share : 0.5 + share / 2))) return false;
            for (PathTracer t : tracers) t.cached().follow(photons.map().seenBy(t.direct()::clear),
                    settings.bounced().first() == BounceSettings.First.PHOTON_MAP ? 0 : 1);
        }
        return true;
    }

    private int nextRound() {
        return prepared < 0 ? 0 : prepared == 0 ? 1 : 2 * prepared;
    }

    /**
     * Begins with what was learnt in another picture of the scene, before the first pass; false when it does not suit. Guides never change
     * the mean of a picture, but they do its bits.
     */
    public boolean begin(Guides g) {
        if (training == null || !training.suits(g)) return false;
        training.begin(g);
        return true;
    }

    /** In how many ways pictures of a scene look for the surroundings. */
    public static int skyTargets(RenderScene scene) {
        return Daylight.targets(scene);
    }

    /** What was learnt so far, or null. */
    public Guides guides() {
        return training == null ? null : training.guides();
    }

    public Film film() {
        return film;
    }

    public Region region() {
        return region;
    }

    @Override
    public boolean pass(int number, Workers workers, BooleanSupplier stop) {
        // Tiles lie where they lie in the whole picture, and are traced whole: what a region shows does not depend on its edges.
        // From pass to pass they move, since the errors of a tile's pixels are a little alike.
        int shift = PathSampler.hash(number ^ (int) settings.seed() * 0x9e3779b1) >>> 1, mx = shift % TILE, my = shift / TILE % TILE;
        int left = (region.x() + mx) / TILE, top = (region.y() + my) / TILE;
        int across = (region.x() + region.width() - 1 + mx) / TILE - left + 1,
                down = (region.y() + region.height() - 1 + my) / TILE - top + 1;
        boolean[] stopped = new boolean[workers.threads()];
        if (!prepare(number, workers, stop, share -> {})) return false;
        if (uneven && effort == null) {
            // What lies beside the region in its tiles is traced too.
            Region wide = new Region(region.x() - TILE, region.y() - TILE, region.width() + 2 * TILE, region.height() + 2 * TILE);
            effort = EffortMap.of(scene, lens, settings.filter(), film.width(), film.height(), wide.within(film.width(), film.height()),
                    settings.edges(), settings.seed(), workers, stop);
            if (effort == null) return false;
        }
        if (number == 0 && !settings.prompt() && !looks.take(tracers, samplers, paths, this::seen, gains, workers, stop)) return false;
        if (adaptivity.on() && adaptivity.due(number) && !adaptivity.share(film, region, effort, number, stop)) return false;
        workers.run(across * down, (worker, tile) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else tile(worker, number, (left + tile % across) * TILE - mx, (top + tile / across) * TILE - my);
        });
        for (boolean s : stopped) if (s) return false;
        return true;
    }

    /** Where the film takes light of a source group that is seen straight. */
    private int seen(int group) {
        return parted ? LightPart.SEEN.ordinal() * (film.inputs() / LightPart.COUNT) + group : group;
    }

    private void tile(int worker, int number, int x0, int y0) {
        for (int g = 0; g < CELL * CELL; g++) group(worker, number, x0, y0, g);
    }

    /**
     * Paths of one pixel from each cell of a tile, which tell each other what they found. Which ones they are changes from pass to pass.
     */
    private void group(int worker, int number, int x0, int y0, int group) {
        PathHead[] all = heads[worker];
        int n = 0;
        boolean any = false;
        int seed = PathSampler.hash(x0 * 0x9e3779b1 ^ y0 * 0x85ebca77 ^ (int) settings.seed()) ^ number * 0xc2b2ae3d;
        for (int cell = 0; cell < CELLS * CELLS; cell++) {
            int h = PathSampler.hash(seed ^ cell * 0x27d4eb2f);
            int k = ((h & 1) == 0 ? group : CELL * CELL - 1 - group) + (h >>> 1) & CELL * CELL - 1;
            int x = x0 + cell % CELLS * CELL + k % CELL, y = y0 + cell / CELLS * CELL + k / CELL;
            if (x < 0 || y < 0 || x >= film.width() || y >= film.height()) continue;
            boolean in = region.contains(x, y);
            if (!exchanges() && !in || in && times(x, y, number) == 0) continue;
            any |= in;
            PathHead head = all[n++];
            head.x = x;
            head.y = y;
        }
        if (!any) return;
        boolean exchanging = exchanges();
        for (int k = 0; k < n; k++) path(worker, first(all[k], number), all[k], exchanging);
        if (exchanging) exchanges[worker].run(all, n);
        for (int k = 0; k < n; k++) {
            PathHead head = all[k];
            if (!region.contains(head.x, head.y)) continue;
            int from = first(head, number);
            add(worker, head);
            for (int i = 1, m = paths(head) * times(head.x, head.y, number); i < m; i++) {
                more[worker].x = head.x;
                more[worker].y = head.y;
                path(worker, from + i, more[worker], false);
                add(worker, more[worker]);
            }
        }
    }

    /** How often a pixel of the region gets its paths in a pass. */
    private int times(int x, int y, int number) {
        return adaptivity.on() ? adaptivity.paths(film.rate(x, y), number) : 1;
    }

    /** Number of the first path of a pass among those of its pixel. */
    private int first(PathHead head, int number) {
        return adaptivity.on() && region.contains(head.x, head.y) ? film.samples(head.x, head.y) : number * paths(head);
    }

    /** Paths of a pass for the pixel of a head. */
    private int paths(PathHead head) {
        return effort == null ? 1 : effort.paths(head.x, head.y);
    }

    private void add(int worker, PathHead head) {
        if (gains != null) for (int i = 0; i < head.out.length; i++) head.out[i] *= gains[i % gains.length];
        if (head.weight != 1) for (int i = 0; i < head.out.length; i++) head.out[i] *= head.weight;
        if (head.seen.glows > 0 && film.keepsGlow(head.x, head.y)) glow(head);
        film.add(head.x, head.y, head.out);
        film.addCover(head.x, head.y, head.features[FirstSeen.COVER] * head.weight);
        film.addFeatures(head.x, head.y, head.features);
        if (adaptivity.on()) film.addRays(head.x, head.y, head.rays);
        clamped[worker] += head.clamped;
    }

    /** What is known of looks is left out of the path's light. */
    private void glow(PathHead head) {
        for (int k = 0; k < head.seen.glows; k++) {
            int group = head.seen.glowGroup[k], input = seen(group);
            float[] c = head.seen.glow;
            for (int i = 0; i < 3; i++) {
                if (gains != null) c[3 * k + i] *= gains[3 * group + i];
                head.out[3 * input + i] -= c[3 * k + i];
            }
            film.addGlow(head.x, head.y, input, c[3 * k], c[3 * k + 1], c[3 * k + 2]);
        }
    }

    private boolean exchanges() {
        return settings.exchanges(!settings.prompt() || begun) && (training == null || training.exchangePays());
    }

    /** @param sample number of the path among those of its pixel, {@code exchanging} whether its second point is left to others */
    private void path(int worker, int sample, PathHead head, boolean exchanging) {
        PathSampler random = samplers[worker];
        PathTracer tracer = tracers[worker];
        float[] r = rays[worker];
        PixelFilter filter = settings.filter();
        random.startPixel(head.x, head.y, sample, settings.seed());
        random.next2();
        // Drawn from the filter: each sample belongs to one pixel only.
        float fx = head.x + 0.5f + filter.offset(random.u), fy = head.y + 0.5f + filter.offset(random.v);
        head.weight = filter.weight(random.u) * filter.weight(random.v);
        random.next2();
        lens.ray(fx / film.width(), fy / film.height(), random.u, random.v, r);
        head.begin();
        tracer.place(fx / film.width(), fy / film.height());
        double before = tracer.clampedLuminance();
        long sent = tracer.rays();
        tracer.part(parted);
        if (exchanging) tracer.radiance(r[0], r[1], r[2], r[3], r[4], r[5], random, head);
        else tracer.radiance(r[0], r[1], r[2], r[3], r[4], r[5], random, head.out);
        tracer.part(false);
        head.clamped = tracer.clampedLuminance() - before;
        head.rays = tracer.rays() - sent;
        System.arraycopy(tracer.first.values, 0, head.features, 0, head.features.length);
        head.seen.glowLike(tracer.first);
    }

    @Override
    public long rays() {
        long n = raysBefore;
        for (PathTracer t : tracers) n += t.rays();
        for (PathExchange e : exchanges) n += e.rays();
        return n;
    }

    /** Luminance that the clamp took away per sample so far, cd/m2. Read between passes. */
    public double clampedLuminance() {
        return clampedSum() / Math.max(1, film.samples());
    }

    /** Luminance of caustics that were left out per sample so far, cd/m2. Read between passes. */
    public double leftOut() {
        double sum = 0;
        for (PathTracer t : tracers) sum += t.leftOut();
        return sum / Math.max(1, film.samples());
    }

    /** The same summed over all samples. */
    public double clampedSum() {
        double sum = clampedBefore;
        for (double c : clamped) sum += c;
        return sum;
    }

    /** Counts what was traced and clamped before the film was handed to this renderer. */
    public void goOn(long rays, double clampedSum) {
        raysBefore = rays;
        clampedBefore = clampedSum;
    }
}
