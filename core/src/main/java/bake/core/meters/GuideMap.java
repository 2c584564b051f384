package bake.core.meters;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.geometry.Ray;
import bake.core.guide.LightGuide;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;

/**
 * What a guide knows, laid over the model: surfaces that look for light at the same source first have the same colour, the stronger the
 * more of all their looks go there; grey where nothing was learnt. Sources are openings, directions of the surroundings, or parts of the
 * lamps. What is drawn is put on the film as the luminance that displays as intended under a linear curve.
 */
public final class GuideMap extends SurfaceMap {
    private static final float GOLDEN = 0.61803399f, UNKNOWN = 0.32f;

    private final LightGuide guide;
    /** For each place that was learnt its colour. */
    private final float[] colours;

    /** @param sky whether the guide is one for the surroundings, else for lamps */
    public GuideMap(RenderScene scene, LightGuide guide, boolean sky, Camera camera, Film film, Workers workers) {
        super(scene, camera, film, workers);
        this.guide = guide;
        colours = new float[3 * guide.places()];
        boolean openings = sky && scene.openings().count() > 0;
        int targets = guide.targets(), sources = openings ? scene.openings().count() + 1 : targets;
        float[] sums = new float[sources];
        for (int p = 0; p < guide.places(); p++) {
            java.util.Arrays.fill(sums, 0);
            for (int w = 0; w < targets; w++) sums[openings ? scene.openings().opening(w) + 1 : w] += guide.weights()[p * targets + w];
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
    void colour(int worker, Ray ray, SurfacePoint s, float[] out) {
        s.load(scene.geometry(), scene.surfaces(), ray);
        float facing = Math.abs(s.nx * ray.dx + s.ny * ray.dy + s.nz * ray.dz), shade = 0.45f + 0.55f * facing;
        int k = scene.surfaces().isPane(s.material) ? -1 : guide.learnt(guide.leaf(s.px, s.py, s.pz, s.nx, s.ny, s.nz));
        for (int c = 0; c < 3; c++) out[c] = shade * (k < 0 ? UNKNOWN : colours[3 * k + c]);
    }
}
