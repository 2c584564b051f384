package bake.core.render;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.DeliveredError;
import bake.core.finish.Finish;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * Gives pixels paths by the error that is left in them, as it is displayed. Of all ways to share out paths the sum of squared errors is
 * least when each pixel gets them in proportion to the deviation of a single path over the root of what a path costs (Neyman 1934, with
 * costs Cochran 1977, chapter 5; from memory). Both come from the paths so far, of the pixels around too, since few paths know little of
 * their own; the cost is counted in rays. It is asked anew whenever passes have doubled, and each pixel goes on to get some: what it has
 * not met yet may be the brightest. On average a pass takes as many rays as it takes without.
 *
 * <p>What a region gets depends on what else is in the region, so that pieces of a picture differ from the whole in their noise.
 *
 * @param strength from 0, all pixels alike, to 1
 * @param display how the picture is shown
 * @param denoised whether noise is taken out of it before: then it is the error after that which counts, which is left at edges and in
 *     shadows where a wall has none any more
 */
public record Adaptivity(double strength, Finish display, boolean denoised) {
    /** No pixel is treated otherwise than others. */
    public static final Adaptivity NONE = new Adaptivity(0, null, false);
    /** Passes before anything is known, and where what denoising leaves is; pixels of a block, and blocks around that are asked. */
    private static final int FIRST = 8, DENOISED = 6, BLOCK = 2, AROUND = 1;
    /** Rows that are judged at once, a multiple of blocks. */
    private static final int STRIP = 128;
    /** Least and most paths a pass. */
    private static final double LEAST = 0.25, MOST = 12;
    /** Share of the mean deviation that every pixel is taken to have. */
    private static final double FLOOR = 0.1;
    /** How far the shares are stretched to have a pass cost what it is to, and in how many steps that is found. */
    private static final double WIDEST = 16;
    private static final int ROUNDS = 12;

    boolean on() {
        return strength > 0;
    }

    /** Whether paths are shared out anew before a pass. */
    boolean due(int pass) {
        return pass >= first() && pass == last(pass);
    }

    private int first() {
        return denoised ? DENOISED : FIRST;
    }

    /** The last pass up to one before which paths are shared out. */
    private int last(int pass) {
        return first() * Integer.highestOneBit(pass / first());
    }

    /** Paths of a pixel in a pass, at the rate that holds since paths were shared out last; over many passes they come to the rate. */
    int paths(double rate, int pass) {
        if (pass < first()) return 1;
        int since = pass - last(pass);
        return (int) (Math.floor(rate * (since + 1) + 0.5) - Math.floor(rate * since + 0.5));
    }

    /**
     * Shares out the paths of the passes from {@code pass} to its double, block by block, so that large pictures take little memory
     * for it. Returns false when it was stopped.
     */
    boolean share(Film film, Region r, EffortMap effort, int pass, BooleanSupplier stop) {
        int w = (r.width() + BLOCK - 1) / BLOCK, h = (r.height() + BLOCK - 1) / BLOCK, n = w * h;
        float[] deviation = new float[n], units = new float[n], costs = new float[n];
        // What was stopped once stays so: half of a picture judged in another way would give other bits.
        AtomicBoolean stopped = new AtomicBoolean();
        BooleanSupplier ends = () -> {
            if (stop.getAsBoolean()) stopped.set(true);
            return stopped.get();
        };
        for (int top = 0; top < r.height(); top += STRIP) {
            Region strip = new Region(r.x(), r.y() + top, r.width(), Math.min(STRIP, r.height() - top));
            Squares squares = squares(film, strip, r, ends);
            if (ends.getAsBoolean()) return false;
            IntStream.range(top / BLOCK, (top + strip.height() + BLOCK - 1) / BLOCK).parallel().forEach(y -> {
                for (int x = 0; x < w; x++) block(film, r, effort, x, y, y * w + x, deviation, units, costs, squares);
            });
        }
        float[] spare = new float[n];
        around(deviation, spare, w, h);
        around(costs, spare, w, h);
        double mean = 0;
        for (int i = 0; i < n; i++) {
            deviation[i] = (float) Math.sqrt(deviation[i] / costs[i]);
            mean += deviation[i] / n;
        }
        if (!(mean > 0)) return true;
        double sum = 0, all = 0, even = 0;
        for (int i = 0; i < n; i++) {
            deviation[i] = (float) Math.pow((deviation[i] + FLOOR * mean) / mean, strength);
            sum += deviation[i] * costs[i];
            all += units[i] * costs[i];
            even += costs[i];
        }
        // Rates that end at these shares once the passes have doubled, and at which a pass takes as many rays as one of even rates.
        double scale = (all + pass * even) / sum, low = 1.0 / WIDEST, high = WIDEST;
        for (int round = 0; round < ROUNDS; round++) {
            double cut = Math.sqrt(low * high), given = 0;
            for (int i = 0; i < n; i++) given += costs[i] * rate(deviation[i] * scale * cut, units[i], pass);
            if (given > even) high = cut;
            else low = cut;
        }
        for (int y = 0; y < r.height(); y++)
            for (int x = 0; x < r.width(); x++) {
                int i = y / BLOCK * w + x / BLOCK;
                double rate = rate(deviation[i] * scale * low, units[i], pass);
                film.setRate(r.x() + x, r.y() + y, (int) Math.round(8 * Math.log(rate) / Math.log(2)));
            }
        return true;
    }

    private interface Squares {
        /** Squared error of a pixel's mean as it is displayed. */
        double of(int x, int y);
    }

    private Squares squares(Film film, Region strip, Region r, BooleanSupplier stop) {
        float[] judged = denoised && film.hasFeatures() ? DeliveredError.squares(film, strip, r, display, stop) : null;
        if (judged != null) return (x, y) -> judged[(y - strip.y()) * strip.width() + x - strip.x()];
        return (x, y) -> {
            double e = film.samples(x, y) < 2 ? 1 : display.error(film, x, y, new float[3]);
            return e * e;
        };
    }

    /** Means over a block: squared deviation of a single path, paths so far, and the rays that one takes. */
    private static void block(Film film, Region r, EffortMap effort, int bx, int by, int i, float[] deviation, float[] units, float[] costs,
            Squares squares) {
        int k = 0;
        for (int y = by * BLOCK; y < Math.min(r.height(), (by + 1) * BLOCK); y++)
            for (int x = bx * BLOCK; x < Math.min(r.width(), (bx + 1) * BLOCK); x++, k++) {
                int fx = r.x() + x, fy = r.y() + y, samples = film.samples(fx, fy), times = effort == null ? 1 : effort.paths(fx, fy);
                // Pixels that get more paths by wish are counted in what they get each time.
                double unit = samples / (double) times;
                deviation[i] += (float) (squares.of(fx, fy) * unit);
                units[i] += (float) unit;
                costs[i] += (float) (times * film.raysAPath(fx, fy));
            }
        deviation[i] /= k;
        units[i] /= k;
        costs[i] /= k;
    }

    private static double rate(double wanted, double has, int pass) {
        return Math.clamp((wanted - has) / pass, LEAST, MOST);
    }

    /** Means over the blocks around each. */
    private static void around(float[] p, float[] spare, int w, int h) {
        IntStream.range(0, h).parallel().forEach(y -> line(p, spare, y * w, 1, w));
        IntStream.range(0, w).parallel().forEach(x -> line(spare, p, x, w, h));
    }

    private static void line(float[] from, float[] to, int at, int step, int n) {
        for (int i = 0; i < n; i++) {
            float s = 0;
            int k = 0;
            for (int j = Math.max(0, i - AROUND); j <= Math.min(n - 1, i + AROUND); j++, k++) s += from[at + j * step];
            to[at + i * step] = s / k;
        }
    }
}
