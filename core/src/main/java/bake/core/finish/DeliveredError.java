package bake.core.finish;

import bake.core.denoise.Denoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import java.util.Arrays;
import java.util.function.BooleanSupplier;

/**
 * How wrong a picture is as it would be delivered: denoised, and as it is displayed, judged by the halves of its samples
 * ({@link Denoiser#judged}). Both figures are relative to the root of the mean squared light of the display, like {@link Finish#noise}.
 *
 * @param percent root of the mean square over the picture
 * @param worst the same of one block of 16 x 16 pixels, which 95 of 100 do not exceed
 */
public record DeliveredError(double percent, double worst) {
    private static final int BLOCK = 16;
    /** Pixels that are denoised to judge a picture at most, and the rows that lie together then. */
    private static final int MOST = 150_000, ROWS = 32;

    /** Judges a picture; null where it cannot be: stopped, without features or with too few samples. */
    public static DeliveredError of(Film film, Region r, Finish finish, BooleanSupplier stop) {
        int rows = Math.min(ROWS, r.height()), bands = (int) Math.clamp((long) MOST / Math.max(1, (long) rows * r.width()), 1,
                (r.height() + rows - 1) / rows);
        double signal = 0;
        int across = (r.width() + BLOCK - 1) / BLOCK, n = 0;
        long pixels = 0;
        double[] blocks = new double[across * ((rows + BLOCK - 1) / BLOCK) * bands];
        double sum = 0;
        for (int b = 0; b < bands; b++) {
            // A few bands over the height; all of it where the picture is small.
            int y0 = bands == 1 ? (r.height() - rows) / 2 : (int) ((long) b * (r.height() - rows) / (bands - 1));
            Region part = new Region(r.x(), r.y() + y0, r.width(), rows);
            Denoiser.Judged j = Denoiser.judged(film, null, part, finish.saturation(), stop);
            if (j == null) return null;
            for (int by = 0; by < rows; by += BLOCK)
                for (int bx = 0; bx < r.width(); bx += BLOCK) {
                    double e = 0;
                    int count = 0;
                    for (int y = by; y < Math.min(rows, by + BLOCK); y++)
                        for (int x = bx; x < Math.min(r.width(), bx + BLOCK); x++, count++) {
                            int i = y * r.width() + x;
                            double l = (0.2126 * j.light()[3 * i] + 0.7152 * j.light()[3 * i + 1] + 0.0722 * j.light()[3 * i + 2])
                                    / finish.saturation(), d = finish.display(l), k = finish.displayedSlope(l * finish.saturation());
                            double most = Math.max(d, 1 - d);
                            e += Math.min(j.error()[i] * k * k, most * most);
                            signal += d * d;
                        }
                    sum += e;
                    pixels += count;
                    blocks[n++] = e / count;
                }
        }
        if (!(signal > 0)) return new DeliveredError(0, 0);
        double level = signal / pixels;
        Arrays.sort(blocks, 0, n);
        return new DeliveredError(100 * Math.sqrt(sum / pixels / level),
                100 * Math.sqrt(blocks[(int) Math.min(n - 1, Math.floor(0.95 * n))] / level));
    }
}
