package bake.core.path;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.surface.SurfacePoint;

/**
 * Makes hard edges look rounded: short rays along the surface find the faces on the other side of an edge nearby, and the
 * normal turns towards the nearest of them, half way at the edge itself. Only the light changes, not the outline. One instance
 * per thread.
 */
final class RoundEdges {
    private static final int RAYS = 4;

    private final RenderScene scene;
    private final Ray probe = new Ray();
    private final SurfacePoint there = new SurfacePoint();

    RoundEdges(RenderScene scene) {
        this.scene = scene;
    }

    long traced() {
        return probe.traced;
    }

    /** Turns the point's normal if there is an edge within {@code radius} metres. */
    void at(SurfacePoint p, float radius, Ray ray, PathSampler random) {
        double turn = random.aside() * Math.PI / 2;
        float best = 1, bx = 0, by = 0, bz = 0;
        // Two directions along the true face, however the normal is bent.
        float d = p.tx * p.gx + p.ty * p.gy + p.tz * p.gz, ux = p.tx - d * p.gx, uy = p.ty - d * p.gy, uz = p.tz - d * p.gz,
                l = ux * ux + uy * uy + uz * uz;
        if (!(l > 1e-12f)) return;
        l = 1 / (float) Math.sqrt(l);
        ux *= l;
        uy *= l;
        uz *= l;
        float vx = p.gy * uz - p.gz * uy, vy = p.gz * ux - p.gx * uz, vz = p.gx * uy - p.gy * ux;
        for (int k = 0; k < 2 * RAYS; k++) {
            // Below the surface for edges that stand out, above it for edges that fold in.
            float side = k < RAYS ? -1 : 1, e = Math.max(2 * p.offset, 0.02f * radius) * side;
            double a = turn + k * Math.PI / 2;
            float c = (float) Math.cos(a), s = (float) Math.sin(a);
            float dx = c * ux + s * vx, dy = c * uy + s * vy, dz = c * uz + s * vz;
            probe.set(p.px + e * p.gx, p.py + e * p.gy, p.pz + e * p.gz, dx, dy, dz, 1.5f * radius);
            if (!scene.tracer().closest(probe) || probe.item >= scene.tracer().firstLamp()) continue;
            there.face(scene.geometry(), probe);
            // From inside the far face shows its back: its outside looks along the ray; from outside, against it.
            float nx = side * there.gx, ny = side * there.gy, nz = side * there.gz;
            float bend = nx * p.gx + ny * p.gy + nz * p.gz;
            if (bend > 0.95f || bend < -0.95f) continue;
            float mx = nx - bend * p.gx, my = ny - bend * p.gy, mz = nz - bend * p.gz, m = (float) Math.sqrt(mx * mx + my * my + mz * mz);
            float away = probe.t * Math.abs(dx * mx + dy * my + dz * mz) / m / radius;
            if (away >= best) continue;
            best = away;
            bx = nx;
            by = ny;
            bz = nz;
        }
        if (best >= 1) return;
        float k = 1 + best, m = 1 - best;
        p.round(k * p.nx + m * bx, k * p.ny + m * by, k * p.nz + m * bz, ray);
    }
}
