package bake.core.render;

import bake.core.compiled.Lens;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.PathSampler;
import bake.core.path.PathTracer;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;

/**
 * Looks more often at what is seen where it changes from pixel to pixel. A look is a ray or two where a path is many, and brings no light:
 * it tells how much of a pixel each of its surfaces fills, which few paths know so badly that edges are beaded. The denoiser fits light to
 * what is seen, so edges come out as smooth as looks make them (features that are less noisy than light: Rousselle, Manzi and Zwicker
 * 2013).
 */
final class EdgeLooks {
    /**
     * Pass before which it is done: enough samples to see where edges are; and that of pictures which are to be seen promptly, that is
     * before they are first denoised well.
     */
    static final int PASS = 4, LATER = 8;
    /** Looks of a pixel. */
    private static final int LOOKS = 24;
    /** Steps between neighbours that count: of base colour and of the normal, squared, and of distance, as a share of it. */
    private static final float COLOUR = 0.01f, BEND = 0.02f, STEP = 0.02f;
    /** Keeps these numbers apart from those of paths. */
    private static final long OWN = 0x5eed100cL;

    private final PixelLook look;
    private final Film film;
    private final Region region;

    EdgeLooks(Lens lens, PixelFilter filter, Film film, Region region, long seed) {
        look = new PixelLook(lens, filter, film, seed ^ OWN);
        this.film = film;
        this.region = region;
    }

    /** Takes all looks; returns false when it was stopped. */
    boolean take(PathTracer[] tracers, PathSampler[] samplers, float[][] spare, Workers workers, BooleanSupplier stop) {
        int w = region.width(), h = region.height();
        // All edges are found before the first look changes what they are found by.
        boolean[][] edges = new boolean[h][];
        workers.run(h, (worker, row) -> edges[row] = edges(row));
        boolean[] stopped = new boolean[workers.threads()];
        workers.run(h, (worker, row) -> {
            if (stopped[worker] || stop.getAsBoolean()) {
                stopped[worker] = true;
                return;
            }
            float[] ray = new float[6];
            for (int x = 0; x < w; x++)
                if (edges[row][x]) pixel(region.x() + x, region.y() + row, tracers[worker], samplers[worker], spare[worker], ray);
        });
        for (boolean s : stopped) if (s) return false;
        return true;
    }

    private boolean[] edges(int row) {
        boolean[] out = new boolean[region.width()];
        float[] a = new float[7], b = new float[7];
        int y = region.y() + row;
        for (int k = 0; k < out.length; k++) {
            int x = region.x() + k;
            film.features(x, y, a);
            for (int dy = -1; dy <= 1 && !out[k]; dy++)
                for (int dx = -1; dx <= 1 && !out[k]; dx++) {
                    if ((dx | dy) == 0 || !region.contains(x + dx, y + dy)) continue;
                    film.features(x + dx, y + dy, b);
                    out[k] = differ(a, b);
                }
        }
        return out;
    }

    private static boolean differ(float[] a, float[] b) {
        return distance(a, b, 0) > COLOUR || distance(a, b, 3) > BEND || Math.abs(a[6] - b[6]) > STEP * Math.min(a[6], b[6]);
    }

    private static float distance(float[] a, float[] b, int from) {
        float x = a[from] - b[from], y = a[from + 1] - b[from + 1], z = a[from + 2] - b[from + 2];
        return x * x + y * y + z * z;
    }

    private void pixel(int x, int y, PathTracer tracer, PathSampler random, float[] spare, float[] ray) {
        for (int k = 0; k < LOOKS; k++) {
            look.take(x, y, k, tracer, random, spare, ray);
            film.addLook(x, y, tracer.first.values);
        }
    }
}
