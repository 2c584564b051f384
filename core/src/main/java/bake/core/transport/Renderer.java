package bake.core.transport;

import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.PathSampler;
import bake.core.scene.Camera;
import java.util.function.BooleanSupplier;

/**
 * Renders a picture pass by pass, one sample for every pixel of the region at a time. The picture after n passes is
 * the same to the bit for any number of threads, and a region's is a piece of the whole.
 */
public final class Renderer implements Passes {
    private static final int TILE = 16;
    private static final float SHARPNESS = 0.5f;

    private final Film film;
    private final Region region;
    private final Lens lens;
    private final PathSettings settings;
    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final float[][] paths, rays;
    private long raysBefore;
    private double clampedBefore;
    /** Null where paths are not guided. */
    private final Training training;

    public Renderer(RenderScene scene, Camera camera, PathSettings settings, Film film, Region region, Workers workers) {
        this.film = film;
        this.settings = settings;
        this.region = region.within(film.width(), film.height());
        lens = new Lens(camera, film.width(), film.height());
        int n = workers.threads();
        tracers = new PathTracer[n];
        samplers = new PathSampler[n];
        paths = new float[n][];
        rays = new float[n][6];
        for (int i = 0; i < n; i++) {
            tracers[i] = new PathTracer(scene, settings.bounces(), settings.kinds(), settings.clamp() * camera.saturation());
            // Many samples share a pixel, so each may look more sharply than a pixel's width.
            tracers[i].look(SHARPNESS * lens.pixel(film.width()));
            samplers[i] = new PathSampler();
            paths[i] = new float[tracers[i].channels()];
        }
        training = settings.guided() && scene.openings().count() > 0
                ? new Training(scene, lens, camera.saturation(), settings, (long) film.width() * film.height(), tracers, samplers, paths, rays) : null;
    }

    public Film film() {
        return film;
    }

    public Region region() {
        return region;
    }

    @Override
    public boolean pass(int number, Workers workers, BooleanSupplier stop) {
        int across = (region.width() + TILE - 1) / TILE, down = (region.height() + TILE - 1) / TILE;
        boolean[] stopped = new boolean[workers.threads()];
        if (training != null && !training.before(number, workers, stop)) return false;
        workers.run(across * down, (worker, tile) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else tile(worker, number, region.x() + tile % across * TILE, region.y() + tile / across * TILE);
        });
        for (boolean s : stopped) if (s) return false;
        return true;
    }

    private void tile(int worker, int number, int x0, int y0) {
        int x1 = Math.min(x0 + TILE, region.x() + region.width()), y1 = Math.min(y0 + TILE, region.y() + region.height());
        PathSampler random = samplers[worker];
        float[] path = paths[worker], r = rays[worker];
        PixelFilter filter = settings.filter();
        float w = film.width(), h = film.height();
        for (int y = y0; y < y1; y++)
            for (int x = x0; x < x1; x++) {
                random.startPixel(x, y, number, settings.seed());
                random.next2();
                // Drawn from the filter: each sample belongs to one pixel only.
                float fx = x + 0.5f + filter.offset(random.u), fy = y + 0.5f + filter.offset(random.v), weight = filter.weight(random.u) * filter.weight(random.v);
                random.next2();
                lens.ray(fx / w, fy / h, random.u, random.v, r);
                java.util.Arrays.fill(path, 0);
                tracers[worker].radiance(r[0], r[1], r[2], r[3], r[4], r[5], random, path);
                if (weight != 1) for (int i = 0; i < path.length; i++) path[i] *= weight;
                film.add(x, y, path);
                film.addFeatures(x, y, tracers[worker].first);
            }
    }

    @Override
    public long rays() {
        long n = raysBefore;
        for (PathTracer t : tracers) n += t.rays();
        return n;
    }

    /** Luminance that the clamp took away per sample so far, cd/m2. Read between passes. */
    public double clampedLuminance() {
        return clampedSum() / Math.max(1, film.samples());
    }

    /** The same summed over all samples. */
    public double clampedSum() {
        double sum = clampedBefore;
        for (PathTracer t : tracers) sum += t.clampedLuminance();
        return sum;
    }

    /** Counts what was traced and clamped before the film was handed to this renderer. */
    public void goOn(long rays, double clampedSum) {
        raysBefore = rays;
        clampedBefore = clampedSum;
    }
}
