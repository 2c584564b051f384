package bake.core.meters;

import bake.core.cache.PhotonMap;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.geometry.Ray;
import bake.core.math.PathSampler;
import bake.core.scene.Camera;
import bake.core.solve.Caches;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;

/**
 * Caches laid over the model. Records: each has a tone of its own, with a dark dot where it lies, and pales to its radius; reddish where
 * bounces are traced since the place is too narrow; dark grey where no record reaches. Cells: each that a bounce of about a metre would
 * read has a tone of its own; dark grey where such bounces are traced on. Photons: dark dots, on the tone of the one whose estimate a place
 * takes.
 */
public final class CacheMap extends SurfaceMap {
    /** What is shown of caches. */
    public enum What { RECORDS, CELLS, PHOTONS }

    /** Radius of a photon's dot over the distance from the camera. */
    private static final float SPECK = 0.0012f;
    private static final float UNKNOWN = 0.22f, DOT = 0.93f, BOUNCE = 0.25f;

    private final Caches caches;
    private final What what;
    private final float[][] weights;

    public CacheMap(RenderScene scene, Caches caches, What what, Camera camera, Film film, Workers workers) {
        super(scene, camera, film, workers);
        this.caches = caches;
        this.what = what;
        weights = new float[workers.threads()][1];
    }

    @Override
    void colour(int worker, Ray ray, SurfacePoint s, float[] out) {
        s.load(scene.geometry(), scene.surfaces(), ray);
        float facing = Math.abs(s.nx * ray.dx + s.ny * ray.dy + s.nz * ray.dz), shade = 0.6f + 0.4f * facing;
        // Panes are passed, so nothing is cached on them.
        if (scene.surfaces().isPane(s.material)) tone(0, shade, out);
        else if (what == What.PHOTONS) photon(s, SPECK * ray.t, shade, weights[worker], out);
        else if (what == What.RECORDS) record(s, shade, weights[worker], out);
        else tone(caches.cells() == null ? 0 : caches.cells().cell(s.px, s.py, s.pz, s.gx, s.gy, s.gz, BOUNCE), shade, out);
    }

    private void record(SurfacePoint s, float shade, float[] weight, float[] out) {
        int k = caches.records() == null ? -1 : caches.records().nearest(s.px, s.py, s.pz, s.nx, s.ny, s.nz, weight);
        if (k == -2) {
            out[0] = 0.62f * shade;
            out[1] = 0.36f * shade;
            out[2] = 0.30f * shade;
        } else tone(k < 0 ? 0 : PathSampler.hash(k + 1) | 1, weight[0] > DOT ? 0.25f : shade * (0.7f + 0.3f * weight[0]), out);
    }

    private void photon(SurfacePoint s, float speck, float shade, float[] away, float[] out) {
        PhotonMap m = caches.photons() != null ? caches.photons() : caches.caustics();
        int any = m == null ? -1 : m.nearest(s.px, s.py, s.pz, s.gx, s.gy, s.gz, false, away);
        float near = away[0];
        int k = any < 0 || !m.settled() ? any : m.nearest(s.px, s.py, s.pz, s.gx, s.gy, s.gz, true, away);
        tone(k < 0 ? 0 : PathSampler.hash(k + 1) | 1, any >= 0 && near < speck ? 0.25f : shade, out);
    }

    private static void tone(int number, float shade, float[] out) {
        for (int c = 0; c < 3; c++) out[c] = number == 0 ? UNKNOWN * shade : shade * (0.58f + 0.26f * (number >>> 8 * c & 255) / 255f);
    }
}
