package bake.core.meters;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.path.PathTracer;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import bake.core.work.Passes;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * A picture of illuminance: every pixel of the film gets the lux that fall on what is seen there, by source group, as its luminance by
 * colour. Sheets of glass are looked through. The sky has none.
 */
public final class Illuminance implements Passes {
    private static final int TILE = 16, MOST_PANES = 16;

    private final RenderScene scene;
    private final Film film;
    private final Lens lens;
    private final PathTracer[] tracers;
    private final PathSampler[] samplers;
    private final Ray[] rays;
    private final SurfacePoint[] points;
    private final float[][] paths, looks;
    /** White, and for each thread the normal and distance of what it sees. */
    private final float[][] features;

    /** @param bounces most surfaces that light may have touched on its way */
    public Illuminance(RenderScene scene, Camera camera, int bounces, Film film, Workers workers) {
        this.scene = scene;
        this.film = film;
        lens = new Lens(camera, film.width(), film.height());
        int n = workers.threads();
        tracers = new PathTracer[n];
        samplers = new PathSampler[n];
        rays = new Ray[n];
        points = new SurfacePoint[n];
        paths = new float[n][];
        features = new float[n][];
        looks = new float[n][6];
        for (int i = 0; i < n; i++) {
            tracers[i] = new PathTracer(scene, bounces, 0);
            samplers[i] = new PathSampler();
            rays[i] = new Ray();
            points[i] = new SurfacePoint();
            features[i] = new float[] {1, 1, 1, 0, 0, 1, 0};
            paths[i] = new float[tracers[i].channels()];
        }
    }

    @Override
    public boolean pass(int number, Workers workers, BooleanSupplier stop) {
        return Passes.tiles(film, TILE, workers, stop, (worker, x, y) -> tile(worker, number, x, y));
    }

    private void tile(int w, int number, int x0, int y0) {
        Region all = Region.all(film.width(), film.height());
        for (int y = y0; y < Math.min(y0 + TILE, all.height()); y++)
            for (int x = x0; x < Math.min(x0 + TILE, all.width()); x++) {
                PathSampler random = samplers[w];
                float[] o = looks[w], path = paths[w], f = features[w];
                random.startPixel(x, y, number, 1);
                random.next2();
                lens.ray((x + random.u) / all.width(), (y + random.v) / all.height(), 0, 0, o);
                java.util.Arrays.fill(path, 0);
                SurfacePoint p = seen(w, o);
                if (p != null) {
                    float side = p.gx * o[3] + p.gy * o[4] + p.gz * o[5] > 0 ? -1 : 1, e = p.offset * side;
                    f[3] = p.gx * side;
                    f[4] = p.gy * side;
                    f[5] = p.gz * side;
                    f[6] = (float) Math.sqrt((p.px - o[0]) * (p.px - o[0]) + (p.py - o[1]) * (p.py - o[1]) + (p.pz - o[2]) * (p.pz - o[2]));
                    tracers[w].irradiance(p.px + e * p.gx, p.py + e * p.gy, p.pz + e * p.gz, f[3], f[4], f[5], random, path);
                } else {
                    f[3] = f[4] = 0;
                    f[5] = 1;
                    f[6] = 1e4f;
                }
                film.add(x, y, path);
                film.addFeatures(x, y, f);
            }
    }

    /** The first surface behind glass along a look, or null. */
    private SurfacePoint seen(int w, float[] o) {
        Ray ray = rays[w];
        SurfacePoint p = points[w];
        ray.set(o[0], o[1], o[2], o[3], o[4], o[5], Float.POSITIVE_INFINITY);
        for (int k = 0; k < MOST_PANES; k++) {
            if (!scene.tracer().closest(ray) || ray.item >= scene.tracer().firstLamp()) return null;
            p.load(scene.geometry(), scene.surfaces(), ray);
            if (!scene.surfaces().isPane(p.material)) return p;
            float e = p.offset * (p.gx * o[3] + p.gy * o[4] + p.gz * o[5] > 0 ? 1 : -1);
            ray.set(p.px + e * p.gx, p.py + e * p.gy, p.pz + e * p.gz, o[3], o[4], o[5], Float.POSITIVE_INFINITY);
        }
        return null;
    }

    @Override
    public long rays() {
        long n = 0;
        for (PathTracer t : tracers) n += t.rays();
        for (Ray r : rays) n += r.traced;
        return n;
    }
}
