package bake.core.render;

import bake.core.compiled.Lens;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.PathSampler;
import bake.core.path.FirstSeen;
import bake.core.path.PathTracer;
import bake.core.work.Workers;
import java.util.Arrays;
import java.util.function.BooleanSupplier;
import java.util.function.IntUnaryOperator;

/**
 * Before the first pass: finds the pixels at edges of what glows and is seen straight or through panes, by two looks at each pixel and
 * those of the pixels around, and looks at those many times more. What glows is far brighter than what it lights, so that even at the end
 * of a picture its edges would be the noisiest pixels.
 */
final class GlowEdges {
    /** Looks of a pixel to find edges by; of one at an edge, and of one where that is steep. */
    private static final int FIRST = 2, LOOKS = 32, MANY = 128;
    /** How far from a pixel an edge may be, pixels: slivers are missed by most looks. */
    private static final int NEAR = 2;
    /**
     * Difference of neighbours that counts, as a share of the brighter one; least luminance of that, and difference from which on it is
     * steep, as shares of the display's white: leaves before the sky are many, and wrong by little; lamps are few, and wrong by much.
     */
    private static final float STEP = 0.1f, DIM = 0.25f, STEEP = 4;
    /** Keeps these numbers apart from those of paths. */
    private static final long OWN = 0x910eed6eL;

    private final PixelLook look;
    private final Film film;
    private final Region region;
    private final float white;

    GlowEdges(Lens lens, PixelFilter filter, Film film, Region region, long seed, double white) {
        look = new PixelLook(lens, filter, film, seed ^ OWN);
        this.film = film;
        this.region = region;
        this.white = (float) white;
    }

    /**
     * Takes all looks; returns false when it was stopped.
     *
     * @param input where the film takes light of a source group that is seen straight
     * @param gains of each source group by colour, or null
     */
    boolean take(PathTracer[] tracers, PathSampler[] samplers, float[][] spare, IntUnaryOperator input, float[] gains, Workers workers,
            BooleanSupplier stop) {
        // Some more all around: what a region's edge is does not depend on the region.
        Region wide = new Region(region.x() - NEAR, region.y() - NEAR, region.width() + 2 * NEAR, region.height() + 2 * NEAR)
                .within(film.width(), film.height());
        float[][] seen = new float[wide.height()][];
        if (!rows(wide.height(), workers, stop, (worker, row) -> {
            float[] out = new float[wide.width()], ray = new float[6];
            for (int x = 0; x < out.length; x++)
                for (int k = 0; k < FIRST; k++) {
                    look.take(wide.x() + x, wide.y() + row, k, tracers[worker], samplers[worker], spare[worker], ray);
                    out[x] += luminance(tracers[worker].first) / FIRST;
                }
            seen[row] = out;
        })) return false;
        int[] pixels = new int[2 * region.width() * region.height()];
        byte[] often = new byte[region.width() * region.height()];
        int n = 0;
        for (int y = 0; y < region.height(); y++)
            for (int x = 0; x < region.width(); x++) {
                int looks = looks(seen, region.x() - wide.x() + x, region.y() - wide.y() + y);
                if (looks == 0) continue;
                often[n / 2] = (byte) looks;
                pixels[n++] = region.x() + x;
                pixels[n++] = region.y() + y;
            }
        int[] kept = Arrays.copyOf(pixels, n);
        film.keepGlow(kept);
        int edges = n / 2, piece = 64;
        return rows((edges + piece - 1) / piece, workers, stop, (worker, part) -> {
            float[] ray = new float[6];
            for (int i = part * piece; i < Math.min(edges, (part + 1) * piece); i++)
                pixel(kept[2 * i], kept[2 * i + 1], often[i] & 255, tracers[worker], samplers[worker], spare[worker], input, gains, ray);
        });
    }

    private interface Row {
        void take(int worker, int row);
    }

    private static boolean rows(int n, Workers workers, BooleanSupplier stop, Row each) {
        boolean[] stopped = new boolean[workers.threads()];
        workers.run(n, (worker, row) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else each.take(worker, row);
        });
        for (boolean s : stopped) if (s) return false;
        return true;
    }

    /** Looks of a pixel; 0 where there is no edge. */
    private int looks(float[][] seen, int x, int y) {
        float least = Float.POSITIVE_INFINITY, most = 0;
        for (int dy = Math.max(0, y - NEAR); dy <= Math.min(seen.length - 1, y + NEAR); dy++)
            for (int dx = Math.max(0, x - NEAR); dx <= Math.min(seen[0].length - 1, x + NEAR); dx++) {
                least = Math.min(least, seen[dy][dx]);
                most = Math.max(most, seen[dy][dx]);
            }
        return !(most > DIM * white && most - least > STEP * most) ? 0 : most - least > STEEP * white ? MANY : LOOKS;
    }

    private static float luminance(FirstSeen s) {
        float l = 0;
        for (int k = 0; k < s.glows; k++) l += 0.2126f * s.glow[3 * k] + 0.7152f * s.glow[3 * k + 1] + 0.0722f * s.glow[3 * k + 2];
        return l;
    }

    private void pixel(int x, int y, int looks, PathTracer tracer, PathSampler random, float[] spare, IntUnaryOperator input, float[] gains,
            float[] ray) {
        for (int k = 0; k < looks; k++) {
            look.take(x, y, FIRST + k, tracer, random, spare, ray);
            FirstSeen s = tracer.first;
            for (int i = 0; i < s.glows; i++) {
                int g = s.glowGroup[i];
                film.addGlow(x, y, input.applyAsInt(g), s.glow[3 * i] * of(gains, 3 * g), s.glow[3 * i + 1] * of(gains, 3 * g + 1),
                        s.glow[3 * i + 2] * of(gains, 3 * g + 2));
            }
        }
        film.looked(x, y, looks);
    }

    private static float of(float[] gains, int i) {
        return gains == null ? 1 : gains[i];
    }
}
