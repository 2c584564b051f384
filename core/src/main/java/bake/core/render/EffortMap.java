package bake.core.render;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.scene.Effort;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * How many paths each pass gives a pixel: more where something ends in it, so that edges are smooth long before light is, and where a
 * surface is seen that more is done for.
 *
 * <p>It is found before the first pass by a few rays for each pixel that go no farther than to what is seen behind panes. A pixel has an
 * edge when they do not all meet one face: another object or material, a bend, a step in depth, or nothing. The map depends on nothing
 * but the picture's settings, so that pictures are the same to the bit in pieces, for any number of threads, and when they are gone on
 * with.
 */
final class EffortMap {
    /** Rays for each pixel: what fills an eighth of one is found more often than not. */
    private static final int RAYS = 8, MOST_PANES = 16;
    /** Cosine of a bend, and step between parallel faces as a share of their distance, that count as an edge. */
    private static final float BEND = 0.94f, STEP = 0.004f;
    /** Keeps these numbers apart from those of paths. */
    private static final long OWN = 0x5eedED6eL;

    private final Region region;
    private final byte[] paths;

    private EffortMap(Region region) {
        this.region = region;
        paths = new byte[region.width() * region.height()];
    }

    /** Paths of each pass for a pixel of the region, 1 to {@link Effort#MOST}. */
    int paths(int x, int y) {
        return paths[(y - region.y()) * region.width() + x - region.x()];
    }

    /** Whether any pixel can get more than one path a pass. */
    static boolean needed(RenderScene scene, int edges) {
        return edges > 1 || !scene.scene().efforts().none();
    }

    /**
     * @param edges paths for pixels with an edge
     * @return null when it was stopped
     */
    static EffortMap of(RenderScene scene, Lens lens, PixelFilter filter, int width, int height, Region region, int edges, long seed,
            Workers workers, BooleanSupplier stop) {
        EffortMap m = new EffortMap(region);
        Scout[] scouts = new Scout[workers.threads()];
        for (int i = 0; i < scouts.length; i++) scouts[i] = new Scout(scene, lens, filter, width, height, edges, seed ^ OWN);
        boolean[] stopped = new boolean[scouts.length];
        workers.run(region.height(), (worker, row) -> {
            if (stopped[worker] || stop.getAsBoolean()) {
                stopped[worker] = true;
                return;
            }
            for (int x = 0; x < region.width(); x++)
                m.paths[row * region.width() + x] = (byte) scouts[worker].paths(region.x() + x, region.y() + row);
        });
        for (boolean s : stopped) if (s) return null;
        return m;
    }

    /** Looks at single pixels; one for each thread. */
    private static final class Scout {
        private final RenderScene scene;
        private final Lens lens;
        private final PixelFilter filter;
        private final int width, height, edges;
        private final long seed;
        private final PathSampler random = new PathSampler();
        private final Ray ray = new Ray();
        private final SurfacePoint at = new SurfacePoint();
        private final float[] r = new float[6];
        /** The first thing that was met: its normal, a point of it, and how far it is. */
        private float nx, ny, nz, px, py, pz, far;

        Scout(RenderScene scene, Lens lens, PixelFilter filter, int width, int height, int edges, long seed) {
            this.scene = scene;
            this.lens = lens;
            this.filter = filter;
            this.width = width;
            this.height = height;
            this.edges = edges;
            this.seed = seed;
        }

        int paths(int x, int y) {
            int first = Integer.MIN_VALUE, firstMaterial = -1, samples = 1, most = edges;
            boolean edge = false;
            for (int k = 0; k < RAYS; k++) {
                random.startPixel(x, y, k, seed);
                random.next2();
                float fx = x + 0.5f + filter.offset(random.u), fy = y + 0.5f + filter.offset(random.v);
                random.next2();
                lens.ray(fx / width, fy / height, random.u, random.v, r);
                int what = look();
                if (what >= 0) {
                    Effort e = scene.scene().efforts().of(at.material, what);
                    samples = Math.max(samples, e.samples());
                    most = Math.max(most, e.edges());
                }
                if (k == 0) {
                    first = what;
                    firstMaterial = what < 0 ? -1 : at.material;
                    keep();
                } else edge |= what != first || what >= 0 && (at.material != firstMaterial || bends());
            }
            return Math.clamp(edge ? Math.max(samples, most) : samples, 1, Effort.MOST);
        }

        private void keep() {
            nx = at.gx;
            ny = at.gy;
            nz = at.gz;
            px = at.px;
            py = at.py;
            pz = at.pz;
            far = ray.t;
        }

        private boolean bends() {
            float cos = nx * at.gx + ny * at.gy + nz * at.gz;
            float step = nx * (at.px - px) + ny * (at.py - py) + nz * (at.pz - pz);
            return cos < BEND || Math.abs(step) > STEP * Math.max(far, 0.1f);
        }

        /** Instance that is seen behind panes; -1 for none, -2 and below for lamps. */
        private int look() {
            ray.width = ray.spread = 0;
            ray.set(r[0], r[1], r[2], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
            for (int panes = 0; panes < MOST_PANES; panes++) {
                if (!scene.tracer().closest(ray)) return -1;
                int lamp = ray.item - scene.tracer().firstLamp();
                if (lamp >= 0) {
                    if (scene.lights().emitters().seen(scene.tracer().lamps().lamp(lamp), true)) return -2 - lamp;
                    onward(ray.t * 1.00001f + 1e-5f);
                    continue;
                }
                at.load(scene.geometry(), scene.surfaces(), ray);
                boolean through = scene.surfaces().isPane(at.material) || scene.surfaces().isSoft(at.material)
                        && scene.surfaces().coverage(scene.geometry().blas(ray.item), at.material, ray.prim, ray.u, ray.v) < 0.5f;
                if (!through) return scene.geometry().instance(ray.item, ray.prim);
                float e = -at.offset;
                ray.set(at.px + e * at.gx, at.py + e * at.gy, at.pz + e * at.gz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
            }
            return -1;
        }

        private void onward(float t) {
            ray.set(ray.ox + t * ray.dx, ray.oy + t * ray.dy, ray.oz + t * ray.dz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
        }
    }
}
