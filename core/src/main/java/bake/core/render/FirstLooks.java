package bake.core.render;

import bake.core.compiled.Lens;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.PathSampler;
import bake.core.path.FirstSeen;
import bake.core.path.PathTracer;
import bake.core.work.Workers;
import java.util.function.BooleanSupplier;
import java.util.function.IntUnaryOperator;

/**
 * Before the first pass: two looks at what each pixel shows, and more where that changes from pixel to pixel. A look is a ray or two
 * where a path is many; it tells how much of a pixel each of its surfaces fills, which few paths know so badly that edges are
 * beaded. The denoiser fits light to what is seen, so edges come out as smooth as looks make them (features that are less noisy than
 * light: Rousselle, Manzi and Zwicker 2013).
 *
 * <p>Where what glows is seen straight or through panes looks bring its light too: it is far brighter than what it lights, so that even at
 * the end of a picture its edges would be the noisiest pixels.
 */
final class FirstLooks {
    /** Looks of each pixel; more of one at an edge; at an edge of what glows, and where that is steep. */
    private static final int ALL = 2, EDGE = 12, GLOW = 32, STEEP_GLOW = 128;
    /** Steps between neighbours that count: of base colour and of the normal, squared, and of distance, as a share of it. */
    private static final float COLOUR = 0.01f, BEND = 0.02f, DEEP = 0.02f;
    /** How far from a pixel an edge of what glows may be, pixels: slivers are missed by most looks. */
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
    private final Region region, wide;
    private final float white;
    /** Whether looks bring the light of what glows. */
    private final boolean glows;
    /** Sums of the features of the looks of pixels of {@code wide} that are not in the region; rows of the region hold its sides only. */
    private float[][] beside;
    private boolean taken;

    /**
     * @param white luminance that saturates the display, cd/m2
     * @param glows whether looks bring the light of what glows: filters that take light away have nothing to do with what a look sees
     */
    FirstLooks(Lens lens, PixelFilter filter, Film film, Region region, long seed, double white, boolean glows) {
        look = new PixelLook(lens, filter, film, seed ^ OWN);
        this.film = film;
        this.region = region;
        this.white = (float) white;
        this.glows = glows;
        // Some more all around: what a region's edge is does not depend on the region.
        wide = new Region(region.x() - NEAR, region.y() - NEAR, region.width() + 2 * NEAR, region.height() + 2 * NEAR)
                .within(film.width(), film.height());
    }

    /**
     * Takes all looks, once; returns false when it was stopped, and then begins anew when it is asked again.
     *
     * @param input where the film takes light of a source group that is seen straight
     * @param gains of each source group by colour, or null
     */
    boolean take(PathTracer[] tracers, PathSampler[] samplers, float[][] spare, IntUnaryOperator input, float[] gains, Workers workers,
            BooleanSupplier stop) {
        if (taken || !glows && !film.hasFeatures() || film.samples() > 0) return true;
        film.forgetLooks();
        beside = new float[wide.height()][];
        float[][] glow = new float[wide.height()][];
        if (!parts(wide.height(), workers, stop, (worker, row) -> glow[row] = all(row, tracers[worker], samplers[worker], spare[worker])))
            return false;
        byte[][] often = new byte[region.height()][];
        workers.run(often.length, (worker, row) -> often[row] = looks(row, glow));
        beside = null;
        if (glows) film.keepGlow(glowing(often));
        return taken = parts(often.length, workers, stop, (worker, row) -> {
            float[] ray = new float[6];
            for (int x = 0; x < often[row].length; x++)
                if (often[row][x] != 0) pixel(region.x() + x, region.y() + row, often[row][x] & 255, tracers[worker], samplers[worker],
                        spare[worker], input, gains, ray);
        });
    }

    private interface Part {
        void take(int worker, int part);
    }

    private static boolean parts(int n, Workers workers, BooleanSupplier stop, Part each) {
        boolean[] stopped = new boolean[workers.threads()];
        workers.run(n, (worker, part) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else each.take(worker, part);
        });
        for (boolean s : stopped) if (s) return false;
        return true;
    }

    /** The looks that every pixel of a row of {@code wide} gets; returns the luminance of what glows there. */
    private float[] all(int row, PathTracer tracer, PathSampler random, float[] spare) {
        float[] out = new float[wide.width()], ray = new float[6];
        int y = wide.y() + row;
        boolean inside = y >= region.y() && y < region.y() + region.height();
        beside[row] = new float[7 * (inside ? wide.width() - region.width() : wide.width())];
        for (int k = 0; k < out.length; k++) {
            int x = wide.x() + k;
            boolean in = region.contains(x, y);
            for (int i = 0; i < ALL; i++) {
                look.take(x, y, i, tracer, random, spare, ray);
                out[k] += luminance(tracer.first) / ALL;
                if (in) film.addLook(x, y, tracer.first.values);
                else for (int f = 0, at = beside(x, y); f < 7; f++) beside[row][at + f] += tracer.first.values[f];
            }
        }
        return out;
    }

    /** How many more looks each pixel of a row of the region gets. */
    private byte[] looks(int row, float[][] glow) {
        byte[] out = new byte[region.width()];
        float[] a = new float[7], b = new float[7];
        int dx = region.x() - wide.x(), dy = region.y() - wide.y();
        for (int x = 0; x < out.length; x++) {
            int n = glows ? atGlow(glow, dx + x, dy + row) : 0;
            if (n == 0 && film.hasFeatures() && atEdge(region.x() + x, region.y() + row, a, b)) n = EDGE;
            out[x] = (byte) n;
        }
        return out;
    }

    private int atGlow(float[][] glow, int x, int y) {
        float least = Float.POSITIVE_INFINITY, most = 0;
        for (int j = Math.max(0, y - NEAR); j <= Math.min(glow.length - 1, y + NEAR); j++)
            for (int i = Math.max(0, x - NEAR); i <= Math.min(glow[0].length - 1, x + NEAR); i++) {
                least = Math.min(least, glow[j][i]);
                most = Math.max(most, glow[j][i]);
            }
        return !(most > DIM * white && most - least > STEP * most) ? 0 : most - least > STEEP * white ? STEEP_GLOW : GLOW;
    }

    /** Where a pixel beside the region has its features in its row. */
    private int beside(int x, int y) {
        boolean inside = y >= region.y() && y < region.y() + region.height();
        return 7 * (x - wide.x() - (inside && x >= region.x() ? region.width() : 0));
    }

    private void features(int x, int y, float[] out) {
        if (region.contains(x, y)) film.features(x, y, out);
        else for (int f = 0, at = beside(x, y); f < 7; f++) out[f] = beside[y - wide.y()][at + f] * (1f / ALL);
    }

    private boolean atEdge(int x, int y, float[] a, float[] b) {
        film.features(x, y, a);
        for (int j = y - 1; j <= y + 1; j++)
            for (int i = x - 1; i <= x + 1; i++) {
                if (i == x && j == y || !wide.contains(i, j)) continue;
                features(i, j, b);
                if (differ(a, b)) return true;
            }
        return false;
    }

    private static boolean differ(float[] a, float[] b) {
        return distance(a, b, 0) > COLOUR || distance(a, b, 3) > BEND || Math.abs(a[6] - b[6]) > DEEP * Math.min(a[6], b[6]);
    }

    private static float distance(float[] a, float[] b, int from) {
        float x = a[from] - b[from], y = a[from + 1] - b[from + 1], z = a[from + 2] - b[from + 2];
        return x * x + y * y + z * z;
    }

    /** Pixels whose glow is kept: x and y of each, row by row. */
    private int[] glowing(byte[][] often) {
        int n = 0;
        for (byte[] row : often) for (byte b : row) if (atGlow(b)) n++;
        int[] out = new int[2 * n];
        n = 0;
        for (int y = 0; y < often.length; y++)
            for (int x = 0; x < often[y].length; x++) {
                if (!atGlow(often[y][x])) continue;
                out[n++] = region.x() + x;
                out[n++] = region.y() + y;
            }
        return out;
    }

    private static boolean atGlow(byte looks) {
        return (looks & 255) >= GLOW;
    }

    private static float luminance(FirstSeen s) {
        float l = 0;
        for (int k = 0; k < s.glows; k++) l += 0.2126f * s.glow[3 * k] + 0.7152f * s.glow[3 * k + 1] + 0.0722f * s.glow[3 * k + 2];
        return l;
    }

    private void pixel(int x, int y, int looks, PathTracer tracer, PathSampler random, float[] spare, IntUnaryOperator input, float[] gains,
            float[] ray) {
        boolean kept = glows && film.keepsGlow(x, y);
        for (int k = 0; k < looks; k++) {
            look.take(x, y, ALL + k, tracer, random, spare, ray);
            FirstSeen s = tracer.first;
            film.addLook(x, y, s.values);
            for (int i = 0; kept && i < s.glows; i++) {
                int g = s.glowGroup[i];
                film.addGlow(x, y, input.applyAsInt(g), s.glow[3 * i] * of(gains, 3 * g), s.glow[3 * i + 1] * of(gains, 3 * g + 1),
                        s.glow[3 * i + 2] * of(gains, 3 * g + 2));
            }
        }
        if (kept) film.looked(x, y, looks);
    }

    private static float of(float[] gains, int i) {
        return gains == null ? 1 : gains[i];
    }
}
