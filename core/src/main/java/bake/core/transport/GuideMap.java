package bake.core.transport;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.geometry.Ray;
import bake.core.guide.LightGuide;
import bake.core.math.PathSampler;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import java.util.function.BooleanSupplier;

/**
 * What a guide knows, laid over the model: surfaces that look for light at the same source first have the same colour, the stronger the more of all
 * their looks go there; grey where nothing was learnt. Sources are openings, directions of the surroundings, or parts of the lamps. What is drawn is
 * put on the film as the luminance that displays as intended under a linear curve.
 */
public final class GuideMap implements Passes {
    private static final int TILE = 16;
    private static final float GOLDEN = 0.61803399f, DARK = 0.16f;

    private final RenderScene scene;
    private final LightGuide guide;
    private final Film film;
    private final Lens lens;
    private final float white;
    /** For each place that was learnt its colour. */
    private final float[] colours;
    private final Ray[] rays;
    private final SurfacePoint[] points;
    private final PathSampler[] samplers;
    private final float[][] path, looks;

    /** @param sky whether the guide is one for the surroundings, else for lamps */
    public GuideMap(RenderScene scene, LightGuide guide, boolean sky, Camera camera, Film film, Workers workers) {
        this.scene = scene;
        this.guide = guide;
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
        colours = new float[3 * guide.places()];
        boolean openings = sky && scene.openings().count() > 0;
        int ways = guide.ways(), sources = openings ? scene.openings().count() + 1 : ways;
        float[] sums = new float[sources];
        for (int p = 0; p < guide.places(); p++) {
            java.util.Arrays.fill(sums, 0);
            for (int w = 0; w < ways; w++) sums[openings ? scene.openings().opening(w) + 1 : w] += guide.worths()[p * ways + w];
            colour(sums, 3 * p);
        }
    }

    private void colour(float[] sums, int o) {
        int best = 0;
        float all = 0;
        for (int s = 0; s < sums.length; s++) {
            all += sums[s];
            if (sums[s] > sums[best]) best = s;
        }
        float share = all > 0 ? sums[best] / all : 0, hue = best * GOLDEN % 1 * 6, strength = 0.12f + 0.45f * (float) Math.sqrt(share);
        for (int c = 0; c < 3; c++) {
            float k = (hue + 4 - 2 * c) % 6, pure = Math.clamp(Math.abs(k - 3) - 1, 0f, 1f);
            colours[o + c] = 0.86f * (1 - strength + strength * pure);
        }
    }

    @Override
    public boolean pass(int number, Workers workers, BooleanSupplier stop) {
        return Passes.tiles(film, TILE, workers, stop, (worker, x, y) -> tile(worker, number, x, y));
    }

    @Override
    public long rays() {
        long n = 0;
        for (Ray r : rays) n += r.traced;
        return n;
    }

    private void tile(int w, int number, int x0, int y0) {
        float[] o = looks[w], p = path[w];
        Region r = Region.all(film.width(), film.height());
        for (int y = y0; y < Math.min(y0 + TILE, r.height()); y++)
            for (int x = x0; x < Math.min(x0 + TILE, r.width()); x++) {
                samplers[w].startPixel(x, y, number, 1);
                samplers[w].next2();
                lens.ray((x + samplers[w].u) / r.width(), (y + samplers[w].v) / r.height(), 0, 0, o);
                rays[w].set(o[0], o[1], o[2], o[3], o[4], o[5], Float.POSITIVE_INFINITY);
                p[0] = p[1] = p[2] = white * 0.7f;
                if (scene.tracer().closest(rays[w]) && rays[w].item < scene.tracer().firstLamp()) surface(points[w], rays[w], p);
                film.add(x, y, p);
            }
    }

    private void surface(SurfacePoint s, Ray ray, float[] out) {
        s.load(scene.geometry(), scene.surfaces(), ray);
        float facing = Math.abs(s.nx * ray.dx + s.ny * ray.dy + s.nz * ray.dz), shade = 0.45f + 0.55f * facing;
        int k = scene.surfaces().isPane(s.material) ? -1 : guide.learnt(guide.leaf(s.px, s.py, s.pz, s.nx, s.ny, s.nz));
        for (int c = 0; c < 3; c++) {
            float v = shade * (k < 0 ? DARK * 2 : colours[3 * k + c]);
            out[c] = white * v * v;
        }
    }
}
