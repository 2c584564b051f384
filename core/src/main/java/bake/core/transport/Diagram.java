package bake.core.transport;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.geometry.Blas;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import java.util.function.BooleanSupplier;

/**
 * Pictures of a model without light: the triangles' edges as lines, or the materials as flat colours. What is drawn is put on
 * the film as the luminance that displays as intended under a linear curve.
 */
public final class Diagram implements Passes {
    /** What is drawn. */
    public enum Kind { EDGES, MATERIALS }

    private static final int TILE = 16;
    private static final float LINE = 0.6f, LEAST = 8;

    private final RenderScene scene;
    private final Kind kind;
    private final Film film;
    private final Lens lens;
    private final float white, pixel;
    private final Ray[] rays;
    private final SurfacePoint[] points;
    private final PathSampler[] samplers;
    private final float[][] path, out, heights;

    public Diagram(RenderScene scene, Kind kind, Camera camera, Film film, Workers workers) {
        this.scene = scene;
        this.kind = kind;
        this.film = film;
        lens = new Lens(camera, film.width(), film.height());
        white = (float) camera.saturation();
        pixel = lens.pixel(film.width());
        int n = workers.threads(), channels = 3 * scene.lights().groups().size();
        rays = new Ray[n];
        points = new SurfacePoint[n];
        samplers = new PathSampler[n];
        path = new float[n][channels];
        out = new float[n][6];
        heights = new float[n][1];
        for (int i = 0; i < n; i++) {
            rays[i] = new Ray();
            points[i] = new SurfacePoint();
            samplers[i] = new PathSampler();
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
        PathSampler random = samplers[w];
        float[] o = out[w], p = path[w];
        Region r = Region.all(film.width(), film.height());
        for (int y = y0; y < Math.min(y0 + TILE, r.height()); y++)
            for (int x = x0; x < Math.min(x0 + TILE, r.width()); x++) {
                random.startPixel(x, y, number, 1);
                random.next2();
                // The middle of the lens: a diagram is sharp all over.
                lens.ray((x + random.u) / r.width(), (y + random.v) / r.height(), 0, 0, o);
                rays[w].set(o[0], o[1], o[2], o[3], o[4], o[5], Float.POSITIVE_INFINITY);
                float r0 = 0.82f, g0 = 0.82f, b0 = 0.81f;
                boolean hit = scene.tracer().closest(rays[w]) && rays[w].item < scene.tracer().firstLamp();
                if (hit) {
                    points[w].face(scene.geometry(), rays[w]);
                    SurfacePoint s = points[w];
                    float facing = Math.abs(s.gx * o[3] + s.gy * o[4] + s.gz * o[5]), shade = 0.35f + 0.6f * facing;
                    if (kind == Kind.MATERIALS) {
                        int h = PathSampler.hash(scene.geometry().blas(rays[w].item).materials()[rays[w].prim] * 0x9e3779b1 + 77);
                        r0 = shade * (0.15f + 0.75f * (h & 255) / 255f);
                        g0 = shade * (0.15f + 0.75f * (h >>> 8 & 255) / 255f);
                        b0 = shade * (0.15f + 0.75f * (h >>> 16 & 255) / 255f);
                    } else {
                        float paper = 0.25f + 0.5f * shade, wide = pixel * rays[w].t;
                        // Triangles of a few pixels would be all line.
                        float ink = edge(rays[w], heights[w]) < LINE * wide ? Math.min(1, heights[w][0] / (LEAST * wide)) : 0;
                        r0 = g0 = b0 = paper + (0.06f - paper) * ink;
                    }
                }
                p[0] = white * r0 * r0;
                p[1] = white * g0 * g0;
                p[2] = white * b0 * b0;
                film.add(x, y, p);
            }
    }

    /**
     * Distance from a hit to the nearest edge of its triangle, metres, across the edge.
     *
     * @param least gets the triangle's least height
     */
    private float edge(Ray ray, float[] least) {
        Blas b = scene.geometry().blas(ray.item);
        float[] c = b.packets();
        int o = Blas.first(ray.prim);
        float ax = c[o + 12], ay = c[o + 16], az = c[o + 20], bx = c[o + 24], by = c[o + 28], bz = c[o + 32];
        if (!scene.geometry().isWorld(ray.item)) {
            var g = scene.geometry();
            float x = ax, y = ay, z = az;
            ax = g.toWorld(ray.item, 0) * x + g.toWorld(ray.item, 1) * y + g.toWorld(ray.item, 2) * z;
            ay = g.toWorld(ray.item, 4) * x + g.toWorld(ray.item, 5) * y + g.toWorld(ray.item, 6) * z;
            az = g.toWorld(ray.item, 8) * x + g.toWorld(ray.item, 9) * y + g.toWorld(ray.item, 10) * z;
            x = bx;
            y = by;
            z = bz;
            bx = g.toWorld(ray.item, 0) * x + g.toWorld(ray.item, 1) * y + g.toWorld(ray.item, 2) * z;
            by = g.toWorld(ray.item, 4) * x + g.toWorld(ray.item, 5) * y + g.toWorld(ray.item, 6) * z;
            bz = g.toWorld(ray.item, 8) * x + g.toWorld(ray.item, 9) * y + g.toWorld(ray.item, 10) * z;
        }
        float nx = ay * bz - az * by, ny = az * bx - ax * bz, nz = ax * by - ay * bx, area = (float) Math.sqrt(nx * nx + ny * ny + nz * nz);
        float cx = bx - ax, cy = by - ay, cz = bz - az;
        // A barycentric coordinate is the share of the height over the edge across from its corner.
        float h1 = area / length(ax, ay, az), h2 = area / length(bx, by, bz), h3 = area / length(cx, cy, cz);
        least[0] = Math.min(h1, Math.min(h2, h3));
        return Math.min(h1 * ray.v, Math.min(h2 * ray.u, h3 * (1 - ray.u - ray.v)));
    }

    private static float length(float x, float y, float z) {
        return (float) Math.sqrt(x * x + y * y + z * z);
    }
}
