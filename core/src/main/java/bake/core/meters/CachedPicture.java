package bake.core.meters;

import bake.core.cache.IrradianceCache;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.geometry.Ray;
import bake.core.scene.Camera;
import bake.core.solve.Caches;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;

/**
 * What caches know so far of the light that a picture will show: bounced light of its matt surfaces, from records where there are some,
 * else from cells or photons.
 */
public final class CachedPicture extends SurfaceMap {
    /** Width of the cells that are looked at, metres. */
    private static final float WIDEST = 0.5f;
    /** Light of surfaces of which nothing is known yet, in what the picture shows as white: enough to see what they are. */
    private static final float UNKNOWN = 0.06f;

    private final Caches caches;
    private final float white;
    private final float[][] light;

    public CachedPicture(RenderScene scene, Caches caches, Camera camera, Film film, Workers workers) {
        super(scene, camera, film, workers);
        this.caches = caches;
        white = (float) camera.saturation();
        light = new float[workers.threads()][3 * scene.lights().groups().size()];
    }

    @Override
    void colour(int worker, Ray ray, SurfacePoint s, float[] out) {
        s.load(scene.geometry(), scene.surfaces(), ray);
        float[] l = light[worker];
        out[0] = out[1] = out[2] = 0;
        if (!read(s, l)) java.util.Arrays.fill(l, UNKNOWN * white / (l.length / 3));
        for (int c = 0; c < l.length; c++) out[c % 3] += l[c];
        float matt = 1 - s.metallic;
        out[0] = (float) Math.sqrt(out[0] * s.baseR * matt / white);
        out[1] = (float) Math.sqrt(out[1] * s.baseG * matt / white);
        out[2] = (float) Math.sqrt(out[2] * s.baseB * matt / white);
    }

    private boolean read(SurfacePoint s, float[] out) {
        if (caches.records() != null) {
            IrradianceCache.Known k = caches.records().read(s.px, s.py, s.pz, s.nx, s.ny, s.nz, out);
            if (k == IrradianceCache.Known.LITTLE || k == IrradianceCache.Known.ENOUGH) return true;
        }
        if (caches.cells() != null && caches.cells().read(s.px, s.py, s.pz, s.gx, s.gy, s.gz, WIDEST, 0.5f, 0.5f, out)) return true;
        return caches.photons() != null && caches.photons().settled() && caches.photons()
                .read(s.px, s.py, s.pz, s.gx, s.gy, s.gz, WIDEST, 0.5f, 0.5f, out);
    }
}
