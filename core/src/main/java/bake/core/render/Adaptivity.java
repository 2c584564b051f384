package bake.core.render;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Gives pixels paths by the error that is left in them, as it is displayed. Of all ways to share out paths the sum of squared errors is
 * least
 * when each pixel gets them in proportion to the deviation of a single path over the root of what a path costs (Neyman 1934, with costs
 * Cochran 1977,
 * eq. 5.21); both come from the paths so far, of the pixels around too, since few paths know little of their own; the cost is counted in
 * rays. It is asked anew at every power of two of passes, and each pixel goes on to get
 * some: what it has not met yet may be the brightest. On average a pass costs what it costs without.
 *
 * <p>What a region gets depends on what else is in the region, so that pieces of a picture differ from the whole in their noise.
 *
 * @param strength from 0, all pixels alike, to 1
 * @param display how the picture is shown
 */
public record Adaptivity(double strength, Finish display) {
    /** No pixel is treated otherwise than others. */
    public static final Adaptivity NONE = new Adaptivity(0, null);
    /** Passes before anything is known; pixels around that are asked. */
    private static final int FIRST = 8, AROUND = 2;
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
    static boolean due(int pass) {
        return pass >= FIRST && Integer.bitCount(pass) == 1;
    }

    /** Paths of a pixel in a pass, at the rate that holds since the last power of two; over many passes they come to the rate. */
    static int paths(double rate, int pass) {
        if (pass < FIRST) return 1;
        int since = pass - Integer.highestOneBit(pass);
        return (int) (Math.floor(rate * (since + 1) + 0.5) - Math.floor(rate * since + 0.5));
    }

    /** Shares out the paths of the passes from {@code pass} to its double. */
    void share(Film film, Region r, EffortMap effort, int pass) {
        int w = r.width(), h = r.height(), n = w * h;
        double[] deviation = new double[n], units = new double[n], costs = new double[n];
        IntStream.range(0, h).parallel().forEach(y -> {
            float[] c = new float[3];
            for (int x = 0; x < w; x++) {
                int fx = r.x() + x, fy = r.y() + y, samples = film.samples(fx, fy);
                // Pixels that get more paths by wish are counted in what they get each time.
                units[y * w + x] = samples / (double) (effort == null ? 1 : effort.paths(fx, fy));
                double e = samples < 2 ? 1 : display.error(film, fx, fy, c);
                deviation[y * w + x] = e * e * units[y * w + x];
                costs[y * w + x] = film.raysAPath(fx, fy);
            }
        });
        double[] smooth = around(around(deviation, w, h, 1, w), w, h, w, 1), cost = around(around(costs, w, h, 1, w), w, h, w, 1);
        for (int i = 0; i < n; i++) smooth[i] /= cost[i];
        double mean = Arrays.stream(smooth).map(Math::sqrt).sum() / n;
        if (!(mean > 0)) return;
        double[] wanted = new double[n];
        double sum = 0, all = 0, even = 0;
        for (int i = 0; i < n; i++) {
            wanted[i] = Math.pow((Math.sqrt(smooth[i]) + FLOOR * mean) / mean, strength);
            sum += wanted[i] * cost[i];
            all += units[i] * cost[i];
            even += cost[i];
        }
        // Rates that end at these shares once the passes have doubled, and at which a pass takes as many rays as one of even rates.
        double scale = (all + pass * even) / sum, low = 1.0 / WIDEST, high = WIDEST;
        for (int round = 0; round < ROUNDS; round++) {
            double cut = Math.sqrt(low * high), given = 0;
            for (int i = 0; i < n; i++) given += cost[i] * rate(wanted[i] * scale * cut, units[i], pass);
            if (given > even) high = cut;
            else low = cut;
        }
        double cut = low;
        for (int i = 0; i < n; i++) {
            double rate = rate(wanted[i] * scale * cut, units[i], pass);
            film.setRate(r.x() + i % w, r.y() + i / w, (int) Math.round(8 * Math.log(rate) / Math.log(2)));
        }
    }

    private static double rate(double wanted, double has, int pass) {
        return Math.clamp((wanted - has) / pass, LEAST, MOST);
    }

    /** Means along one direction: {@code step} from value to value, {@code across} from line to line. */
    private static double[] around(double[] from, int w, int h, int step, int across) {
        double[] out = new double[from.length];
        int lines = step == 1 ? h : w, length = step == 1 ? w : h;
        IntStream.range(0, lines).parallel().forEach(line -> {
            for (int i = 0; i < length; i++) {
                double s = 0;
                int k = 0;
                for (int j = Math.max(0, i - AROUND); j <= Math.min(length - 1, i + AROUND); j++, k++) s += from[line * across + j * step];
                out[line * across + i * step] = s / k;
            }
        });
        return out;
    }
}
