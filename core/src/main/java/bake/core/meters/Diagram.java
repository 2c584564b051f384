package bake.core.meters;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.geometry.Blas;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;

/** Drawings of what is met first: the triangles' edges as lines, materials or objects as flat colours, depth, normals, base colours. */
public final class Diagram extends SurfaceMap {
    /** What is drawn. */
    public enum Kind {
        EDGES, MATERIALS, OBJECTS,
        /** White near by, half as bright for each four metres on. */
        DEPTH,
        /** Red to the east, green to the north, blue up: 0.5 where a normal has nothing of it. */
        NORMALS,
        /** Base colours without light. */
        COLOURS
    }

    private static final float HALVED = 4;

    private static final float LINE = 0.6f, LEAST = 8;

    private final Kind kind;
    private final float[][] heights;

    public Diagram(RenderScene scene, Kind kind, Camera camera, Film film, Workers workers) {
        super(scene, camera, film, workers);
        this.kind = kind;
        heights = new float[workers.threads()][1];
    }

    @Override
    void colour(int worker, Ray ray, SurfacePoint s, float[] out) {
        switch (kind) {
            case DEPTH -> {
                out[0] = out[1] = out[2] = (float) Math.pow(0.5, 0.5 * ray.t / HALVED);
                return;
            }
            case NORMALS -> {
                s.load(scene.geometry(), scene.surfaces(), ray);
                out[0] = 0.5f + 0.5f * s.nx;
                out[1] = 0.5f + 0.5f * s.ny;
                out[2] = 0.5f + 0.5f * s.nz;
                return;
            }
            case COLOURS -> {
                s.load(scene.geometry(), scene.surfaces(), ray);
                out[0] = (float) Math.sqrt(s.baseR);
                out[1] = (float) Math.sqrt(s.baseG);
                out[2] = (float) Math.sqrt(s.baseB);
                return;
            }
            default -> s.face(scene.geometry(), ray);
        }
        float facing = Math.abs(s.gx * ray.dx + s.gy * ray.dy + s.gz * ray.dz), shade = 0.35f + 0.6f * facing;
        if (kind != Kind.EDGES) {
            int thing = kind == Kind.MATERIALS ? scene.geometry().blas(ray.item).materials()[ray.prim] : scene.geometry().instance(ray.item,
                    ray.prim);
            int h = PathSampler.hash(thing * 0x9e3779b1 + 77);
            for (int c = 0; c < 3; c++) out[c] = shade * (0.15f + 0.75f * (h >>> 8 * c & 255) / 255f);
            return;
        }
        float paper = 0.25f + 0.5f * shade, wide = pixel() * ray.t;
        // Triangles of a few pixels would be all line.
        float ink = edge(ray, heights[worker]) < LINE * wide ? Math.min(1, heights[worker][0] / (LEAST * wide)) : 0;
        out[0] = out[1] = out[2] = paper + (0.06f - paper) * ink;
    }

    @Override
    float nothing() {
        // The sky is as far as can be.
        return kind == Kind.DEPTH ? 0 : super.nothing();
    }

    /**
     * Distance from a hit to the nearest edge of its triangle, metres, across the edge.
     *
     * @param least gets the triangle's least height
     */
    private float edge(Ray ray, float[] least) {
        Blas b = scene.geometry().blas(ray.item);
        int p = ray.prim;
        float ax = b.edge(p, 1, 0), ay = b.edge(p, 1, 1), az = b.edge(p, 1, 2), bx = b.edge(p, 2, 0), by = b.edge(p, 2, 1),
                bz = b.edge(p, 2, 2);
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
