package bake.core.path;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.scene.Effort;
import bake.core.surface.Fresnel;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;
import bake.core.surface.SurfaceTable;

/**
 * What a path passes between two bounces: panes, cut-outs, lamps that are not seen, and the inside of clear solids; and what it gives up
 * there for time. One for each {@link PathTracer}.
 */
final class Passage {
    private final PathTracer path;
    private final RenderScene scene;
    private final SurfaceTable surfaces;
    /** Material of the clear solid that the path is in, -1 for none. */
    private int medium;
    private final Effort.Table efforts;

    Passage(PathTracer path, RenderScene scene) {
        this.path = path;
        this.scene = scene;
        surfaces = scene.surfaces();
        efforts = scene.scene().efforts();
    }

    void begin() {
        medium = -1;
    }

    /** The path went through the boundary of a clear solid. */
    void refracted(SurfacePoint at) {
        medium = at.front ? at.material : -1;
    }

    /** Past something that is not there for this path. */
    void onward() {
        Ray ray = path.ray;
        float t = ray.t * 1.00001f + 1e-5f;
        path.travelled += t - ray.t;
        ray.width += ray.spread * t;
        ray.set(ray.ox + t * ray.dx, ray.oy + t * ray.dy, ray.oz + t * ray.dz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
    }

    /** A clear sheet: goes on straight or mirrors, by chance; of the first one before the camera both. */
    boolean pane() {
        Ray ray = path.ray;
        SurfacePoint p = path.point;
        float cos = Math.max(1e-4f, -(p.nx * ray.dx + p.ny * ray.dy + p.nz * ray.dz));
        float clear = Fresnel.paneTransmittance(cos, p.ior), t = clear * p.transmission;
        float tr = t * p.baseR, tg = t * p.baseG, tb = t * p.baseB, mirror = 1 - clear;
        float chance = SurfaceTable.chance(tr, tg, tb, mirror);
        if (!(chance + mirror > 0)) return false;
        if (path.past) path.paned = Math.min(path.paned, path.travelled);
        if (chance > 0 && mirror > 0 && path.look.keep(path, mirror, cos)) {
            path.scale(tr, tg, tb);
            path.step(-1, ray.dx, ray.dy, ray.dz);
        } else if (path.random.aside() < chance) {
            path.trail.passed(tr, tg, tb, chance);
            path.scale(tr / chance, tg / chance, tb / chance);
            path.step(-1, ray.dx, ray.dy, ray.dz);
        } else {
            path.scale(mirror / (1 - chance), mirror / (1 - chance), mirror / (1 - chance));
            path.from.none();
            path.past = false;
            path.trail.mirrored();
            path.mirrored();
            path.photons.turned();
            path.onlook.mirror();
            float k = 2 * cos;
            path.step(1, ray.dx + k * p.nx, ray.dy + k * p.ny, ray.dz + k * p.nz);
        }
        return true;
    }

    /**
     * Light that a solid swallows on the way through it (Beer): the one that the path has gone into, or, where it began inside,
     * the one it comes out of.
     */
    void absorb() {
        SurfacePoint p = path.point;
        float way = path.ray.t;
        int in = medium >= 0 ? medium : p.front ? -1 : p.material;
        if (in < 0 || !surfaces.absorbs(in)) return;
        path.trail.absorbed();
        path.scale(surfaces.transmittance(in, 0, way), surfaces.transmittance(in, 1, way), surfaces.transmittance(in, 2, way));
    }

    /** Whether the path goes through a soft cut-out, by chance. */
    boolean soft() {
        Ray ray = path.ray;
        float there = surfaces.coverage(scene.geometry().blas(ray.item), path.point.material, ray.prim, ray.u, ray.v);
        if (path.random.aside() < there) return false;
        path.trail.passed(1 - there, 1 - there, 1 - there, 1 - there);
        path.step(-1, ray.dx, ray.dy, ray.dz);
        return true;
    }

    /** What the material gives up for time; false when this path does not go on. */
    boolean thrift() {
        float reach = surfaces.reach(path.point.material), weight = surfaces.weight(path.point.material);
        if (path.scatter.kind == Scatter.MIRRORED && !efforts.none()) {
            SurfacePoint p = path.point;
            path.reflect(efforts.of(p.material, scene.geometry().instance(p.item, p.prim)).reflections());
        }
        if (path.scatter.kind == Scatter.MIRRORED && reach < Float.POSITIVE_INFINITY) path.ray.t = reach;
        if (weight == 1) return true;
        if (path.random.aside() >= weight) return false;
        path.scale(1 / weight, 1 / weight, 1 / weight);
        return true;
    }
}
