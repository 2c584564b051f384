package bake.core.meters;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import bake.core.work.Passes;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * Pictures of a model without light: each look is given a colour by the surface it meets first. What is drawn is put on the film as the
 * luminance that displays as intended under a linear curve.
 */
abstract class SurfaceMap implements Passes {
    private static final int TILE = 16;
    /** A light grey, unless a map means something by it. */
    private static final float PAPER = 0.82f;

    final RenderScene scene;
    private final Film film;
    private final Lens lens;
    private final float white;
    private final Ray[] rays;
    private final SurfacePoint[] points;
    private final PathSampler[] samplers;
    private final float[][] path, looks;

    SurfaceMap(RenderScene scene, Camera camera, Film film, Workers workers) {
        this.scene = scene;
        this.film = film;
        lens = new Lens(camera, film.width(), film.height());
        white = (float) camera.saturation();
        int n = workers.threads();
        rays = new Ray[n];
        points = new SurfacePoint[n];
        samplers = new PathSampler[n];
        path = new float[n][3 * scene.lights().groups().size()];
        looks = new float[n][6];
        for (int i = 0; i < n; i++) {
            rays[i] = new Ray();
            points[i] = new SurfacePoint();
            samplers[i] = new PathSampler();
        }
    }

    /**
     * The colour of what a look met.
     *
     * @param point for use, nothing is set
     * @param out gets three display values, 0 to 1, with a curve of exponent two
     */
    abstract void colour(int worker, Ray ray, SurfacePoint point, float[] out);

    /** What is drawn where there is no surface, as {@link #colour} gives it. */
    float nothing() {
        return PAPER;
    }

    /** The angle that one pixel fills, radians. */
    final float pixel() {
        return lens.pixel(film.width());
    }

    @Override
    public final boolean pass(int number, Workers workers, BooleanSupplier stop) {
        return Passes.tiles(film, TILE, workers, stop, (worker, x, y) -> tile(worker, number, x, y));
    }

    @Override
    public final long rays() {
        long n = 0;
        for (Ray r : rays) n += r.traced;
        return n;
    }

    private void tile(int w, int number, int x0, int y0) {
        PathSampler random = samplers[w];
        float[] o = looks[w], p = path[w];
        Region r = Region.all(film.width(), film.height());
        for (int y = y0; y < Math.min(y0 + TILE, r.height()); y++)
            for (int x = x0; x < Math.min(x0 + TILE, r.width()); x++) {
                random.startPixel(x, y, number, 1);
                random.next2();
                // The middle of the lens: a map is sharp all over.
                lens.ray((x + random.u) / r.width(), (y + random.v) / r.height(), 0, 0, o);
                rays[w].set(o[0], o[1], o[2], o[3], o[4], o[5], Float.POSITIVE_INFINITY);
                p[0] = p[1] = p[2] = nothing();
                if (scene.tracer().closest(rays[w]) && rays[w].item < scene.tracer().firstLamp()) colour(w, rays[w], points[w], p);
                for (int c = 0; c < 3; c++) p[c] *= white * p[c];
                film.add(x, y, p);
            }
    }
}
