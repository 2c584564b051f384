package bake.studio.first;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.work.Workers;
import java.util.Arrays;
import java.util.function.BooleanSupplier;

/** Finds the exposure of a view from a small picture of it. */
final class Metering {
    private static final int WIDTH = 96, PASSES = 24, FEATURES = 7;
    private static final long NANOS = 1_200_000_000L;
    /** What a diffuse white in middle light is measured against: middle grey of 18 % at ISO 2720's K of 12.5. */
    private static final double GREY = 0.18, K = 12.5;
    /** Farther away is the sky, metres; and no material is whiter. */
    private static final double MODEL = 5000, WHITEST = 0.97;
    /** Which places, from dark to bright, stand for shade and for light, and how much light counts (tried on twenty kinds of models). */
    private static final double SHADE_RANK = 0.25, LIGHT_RANK = 0.9, LIGHT = 0.6;
    private static final double DARKEST = -6, BRIGHTEST = 19;

    private Metering() {}

    /**
     * EV at ISO 100 for what the camera sees. It is metered as by incident light: each place's luminance over its reflectance, so that
     * a white house does not come out grey nor a dark one pale. Light and shade both count, light a little more.
     *
     * @return NaN where nothing of the model is seen or no light at all falls on it
     */
    static double ev(RenderScene scene, Camera camera, int[] size, Workers workers, BooleanSupplier stop) {
        int height = Math.max(8, WIDTH * size[1] / size[0]);
        Film film = Film.merged(WIDTH, height, scene.lights().groups().size());
        PathSettings plain = new PathSettings(12, 0, 1, false, PixelFilter.TENT).withExchange(false);
        Renderer r = new Renderer(scene, camera, plain, film, Region.all(WIDTH, height), workers);
        long end = System.nanoTime() + NANOS;
        for (int pass = 0; pass < PASSES; pass++)
            if (!r.pass(pass, workers, () -> stop.getAsBoolean() || System.nanoTime() > end)) break;
        double[] light = new double[WIDTH * height];
        float[] f = new float[FEATURES], c = new float[3];
        int n = 0;
        for (int y = 0; y < height; y++)
            for (int x = 0; x < WIDTH; x++) {
                if (film.samples(x, y) == 0) continue;
                film.features(x, y, f);
                double base = 0.2126 * f[0] + 0.7152 * f[1] + 0.0722 * f[2];
                // Neither the sky nor glass and what glows, which have no colour of their own, say how much light there is.
                if (f[6] > MODEL || base > WHITEST) continue;
                film.mean(x, y, null, c);
                light[n++] = (0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2]) / base;
            }
        if (n == 0) return Double.NaN;
        Arrays.sort(light, 0, n);
        double ev = (1 - LIGHT) * ev(light[(int) (SHADE_RANK * n)]) + LIGHT * ev(light[(int) (LIGHT_RANK * n)]);
        return Double.isNaN(ev) ? ev : Math.clamp(ev, DARKEST, BRIGHTEST);
    }

    /** EV at ISO 100 for level ground under the open sky. */
    static double open(RenderScene scene, Vec3 at) {
        return ev(new LightMeter(scene, 1).measure(at, Vec3.UP, 2048, 5, 0).lux() / Math.PI);
    }

    /** @param white luminance of a perfect diffuser, cd/m2 */
    private static double ev(double white) {
        return white > 0 ? Math.log(GREY * white * 100 / K) / Math.log(2) : Double.NaN;
    }
}
