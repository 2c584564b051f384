package bake.studio.live;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.geometry.Ray;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.opening.Indoors;
import bake.core.opening.OpeningFinder;
import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Portal;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import java.util.function.BooleanSupplier;

/**
 * Looks at single places of a picture: what is there, how bright it is, and how much light falls on it. Illuminance takes some
 * milliseconds; all else is there at once. May be asked from any one thread at a time.
 */
public final class Spots {
    private static final int PATHS = 512, BOUNCES = 8;

    private final RenderScene scene;
    private final Lens lens;
    private final Film film;
    private final float[] gains;
    private final float saturation;
    private final Ray ray = new Ray();
    private final SurfacePoint point = new SurfacePoint();

    Spots(RenderScene scene, Camera camera, Film film, float[] gains) {
        this.scene = scene;
        this.film = film;
        this.gains = gains;
        saturation = (float) camera.saturation();
        lens = new Lens(camera, film.width(), film.height());
    }

    /**
     * A place of the model.
     *
     * @param at metres
     * @param normal unit vector on the side that is seen
     * @param material its name
     * @param object name of the mesh, {@code part} of where it was placed
     * @param glass whether it is a sheet of glass
     * @param from where the look came from
     * @param along unit vector of the look
     */
    public record Place(Vec3 at, Vec3 normal, String material, String object, String part, boolean glass, Vec3 from, Vec3 along) {}

    /**
     * What the light meter reads.
     *
     * @param luminance of the picture there, cd/m2
     * @param ev the exposure that shows it as middle grey, EV at ISO 100 (ISO 2720 with K = 12.5)
     * @param lux illuminance of the surface, lx; NaN in the sky
     * @param error its standard error, lx
     */
    public record Reading(double luminance, double ev, double lux, double error) {}

    /** What is at a place of the picture, 0 to 1 from the left and from the top; null for the sky. */
    public synchronized Place place(double x, double y) {
        float[] r = ray(x, y);
        Vec3 from = new Vec3(r[0], r[1], r[2]), along = new Vec3(r[3], r[4], r[5]);
        ray.set(r[0], r[1], r[2], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
        // Lamps are looked past: what is behind them is what they can be moved along.
        for (int lamps = 0; ; lamps++) {
            if (lamps > 64 || !scene.tracer().closest(ray)) return null;
            if (ray.item < scene.tracer().firstLamp()) break;
            float t = ray.t + 1e-4f;
            ray.set(ray.ox + t * r[3], ray.oy + t * r[4], ray.oz + t * r[5], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
        }
        point.load(scene.geometry(), scene.surfaces(), ray);
        Instance hit = scene.scene().instances().get(scene.geometry().instance(ray.item, ray.prim));
        Vec3 n = new Vec3(point.gx, point.gy, point.gz);
        return new Place(new Vec3(point.px, point.py, point.pz), n.dot(along) > 0 ? n.times(-1) : n,
                scene.scene().materials().get(point.material).name(), scene.scene().meshes().get(hit.mesh()).name(), hit.name(),
                scene.surfaces().isPane(point.material), from, along);
    }

    /** Where a point lies on the picture, as {@link #place} takes it; null behind the camera. */
    public double[] on(Vec3 p) {
        return lens.project(p.x(), p.y(), p.z());
    }

    /** Where a look through a place of the picture comes from, and its unit direction. */
    public Vec3[] look(double x, double y) {
        float[] r = ray(x, y);
        return new Vec3[] {new Vec3(r[0], r[1], r[2]), new Vec3(r[3], r[4], r[5])};
    }

    /** A portal on the sheets of glass that a look goes through first, facing it; null where there is none. */
    public Portal glass(Vec3 from, Vec3 along) {
        return OpeningFinder.glass(scene, from, along);
    }

    private float[] ray(double x, double y) {
        float[] r = new float[6];
        lens.ray((float) x, (float) y, 0, 0, r);
        return r;
    }

    /** Luminance of the picture at a place, cd/m2. */
    public double luminance(double x, double y) {
        float[] c = new float[3];
        int px = Math.clamp((int) (x * film.width()), 0, film.width() - 1),
                py = Math.clamp((int) (y * film.height()), 0, film.height() - 1);
        double sum = 0;
        int n = 0;
        // A few pixels, as a meter has a spot and no point.
        for (int j = Math.max(0, py - 1); j <= Math.min(film.height() - 1, py + 1); j++)
            for (int i = Math.max(0, px - 1); i <= Math.min(film.width() - 1, px + 1); i++, n++) {
                film.mean(i, j, gains, c);
                sum += 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
            }
        return sum / n;
    }

    /** Colour of the light at a place, a few pixels around it, cd/m2. */
    public float[] colour(double x, double y) {
        int px = Math.clamp((int) (x * film.width()), 0, film.width() - 1), py = Math.clamp((int) (y * film.height()), 0,
                film.height() - 1);
        return sum(px - 2, py - 2, px + 3, py + 3);
    }

    /** Mean colour of the light of the whole picture, cd/m2, what is brightest left out as far as it is beyond white. */
    public float[] mean() {
        return sum(0, 0, film.width(), film.height());
    }

    private float[] sum(int x0, int y0, int x1, int y1) {
        float[] c = new float[3], out = new float[3];
        int n = 0;
        for (int y = Math.max(0, y0); y < Math.min(film.height(), y1); y++)
            for (int x = Math.max(0, x0); x < Math.min(film.width(), x1); x++, n++) {
                film.mean(x, y, gains, c);
                // Lamps themselves would outshine all that they light.
                float l = 0.2126f * c[0] + 0.7152f * c[1] + 0.0722f * c[2], k = l > saturation ? saturation / l : 1;
                for (int i = 0; i < 3; i++) out[i] += k * c[i];
            }
        for (int i = 0; i < 3; i++) out[i] /= Math.max(1, n);
        return out;
    }

    /**
     * The exposure that shows a part of the picture as middle grey on average: mean of the logarithm of its luminance (ISO 2720, K = 12.5).
     *
     * @param share of width and height around the middle, 0 to 1
     * @return EV at ISO 100; NaN where it is dark
     */
    public double metered(double share) {
        double sum = 0;
        int n = 0, w = film.width(), h = film.height();
        float[] c = new float[3];
        for (int y = (int) (h * (1 - share) / 2); y < h * (1 + share) / 2; y += 2)
            for (int x = (int) (w * (1 - share) / 2); x < w * (1 + share) / 2; x += 2) {
                film.mean(x, y, gains, c);
                double l = 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
                if (!(l > 1e-6)) continue;
                sum += Math.log(l);
                n++;
            }
        return n == 0 ? Double.NaN : Math.log(Math.exp(sum / n) * 100 / 12.5) / Math.log(2);
    }

    /** Distance from a place to the nearest thing around it, metres, by looks in some directions; infinite in the open. */
    public synchronized double clearance(Vec3 from) {
        double least = Double.POSITIVE_INFINITY;
        for (int x = -1; x <= 1; x++) for (int y = -1; y <= 1; y++) for (int z = -1; z <= 1; z++) {
            if ((x | y | z) == 0) continue;
            float k = 1 / (float) Math.sqrt(x * x + y * y + z * z);
            ray.set((float) from.x(), (float) from.y(), (float) from.z(), k * x, k * y, k * z, 2);
            if (scene.tracer().closest(ray) && ray.item < scene.tracer().firstLamp()) least = Math.min(least, ray.t);
        }
        return least;
    }

    /** Reads a place; takes some milliseconds of path tracing where there is a surface. */
    public Reading read(double x, double y) {
        double l = luminance(x, y);
        Place p = place(x, y);
        double ev = Math.log(Math.max(1e-9, l) * 100 / 12.5) / Math.log(2);
        if (p == null) return new Reading(l, ev, Double.NaN, Double.NaN);
        var r = new LightMeter(scene, BOUNCES).measure(p.at().plus(p.normal().times(1e-3)), p.normal(), PATHS, 11, 0);
        double lux = 0;
        for (int g = 0; g < r.luxByGroup().length; g++) {
            double k = gains == null ? 1 : 0.2126 * gains[3 * g] + 0.7152 * gains[3 * g + 1] + 0.0722 * gains[3 * g + 2];
            lux += k * r.luxByGroup()[g];
        }
        return new Reading(l, ev, lux, r.lux() > 0 ? r.error() * lux / r.lux() : r.error());
    }

    /**
     * Openings of the rooms around some places; null when it was stopped. Takes seconds.
     *
     * @param quietly on one thread, for when nobody waits for it
     */
    public List<Portal> openings(List<Vec3> inside, boolean quietly, BooleanSupplier stop) {
        if (!quietly) return new OpeningFinder(scene, Workers.COMPILING).find(inside, stop);
        try (ForkJoinPool one = new ForkJoinPool(1)) {
            return new OpeningFinder(scene, one).find(inside, stop);
        }
    }

    /** Whether the model has glass or portals through which the surroundings are looked for. */
    public boolean knowsOpenings() {
        return scene.openings().count() > 0;
    }

    /** Whether the first thing behind an opening is a sheet of glass in it. */
    public boolean glazed(Portal p) {
        Vec3 n = p.normal();
        Portal g = OpeningFinder.glass(scene, p.middle().plus(n.times(0.4)), n.times(-1));
        return g != null && Math.abs(g.middle().minus(p.middle()).dot(n)) < 0.5;
    }

    /** What is wrong with a portal, or nothing. */
    public OpeningFinder.Fault check(Portal p) {
        return new OpeningFinder(scene, Workers.COMPILING).check(p);
    }

    /** A place to stand in the building, or null. */
    public Indoors.Stand indoors() {
        return Indoors.find(scene, Workers.COMPILING);
    }

    /** Names of the source groups. */
    public List<String> groups() {
        return scene.lights().groups();
    }
}
