package bake.core.finish;

import bake.core.denoise.Denoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.PathSampler;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * How wrong a picture is as it would be delivered: denoised, and as it is displayed, judged by the halves of its samples
 * ({@link Denoiser#judged}). Both figures are relative to the root of the mean squared light of the display, like {@link Finish#noise}.
 *
 * @param percent root of the mean square over the picture
 * @param worst the same of one block of 16 x 16 pixels, which 95 of 100 do not exceed
 */
public record DeliveredError(double percent, double worst) {
    /** Pixels that tell enough of a picture. */
    public static final int MOST = 150_000;
    private static final int BLOCK = 16;
    /** Of one of the pieces that are judged of a large picture, pixels; what is denoised around it besides, which would be cut off else. */
    private static final int WIDTH = 64, HEIGHT = 32, AROUND = 8;

    /**
     * Judges a picture; null where it cannot be: stopped, without features or with too few samples.
     *
     * @param most pixels that are judged, about; of a larger picture pieces that lie all over it
     */
    public static DeliveredError of(Film film, Region r, Finish finish, int most, BooleanSupplier stop) {
        List<Region> parts = parts(r, most);
        Denoiser.Judged[] judged = new Denoiser.Judged[parts.size()];
        IntStream.range(0, judged.length).parallel().forEach(i -> judged[i] = Denoiser.judged(film, null, around(parts.get(i), r),
                finish.saturation(), stop));
        Sum sum = new Sum(finish);
        for (int i = 0; i < judged.length; i++) {
            if (judged[i] == null) return null;
            sum.add(judged[i], around(parts.get(i), r), parts.get(i));
        }
        return sum.error();
    }

    /**
     * Squared error of each pixel of a part as a share of the display's white squared, row by row; of single pixels it says little, as
     * {@link Denoiser.Judged} does. Null where the picture cannot be judged.
     */
    public static float[] squares(Film film, Region part, Region r, Finish finish, BooleanSupplier stop) {
        Region of = around(part, r);
        Denoiser.Judged j = Denoiser.judged(film, null, of, finish.saturation(), stop);
        if (j == null) return null;
        float[] out = new float[part.width() * part.height()];
        for (int i = 0; i < out.length; i++) {
            int k = (part.y() - of.y() + i / part.width()) * of.width() + part.x() - of.x() + i % part.width();
            out[i] = (float) square(j, k, finish, display(j, k, finish));
        }
        return out;
    }

    private static double luminance(Denoiser.Judged j, int i) {
        return 0.2126 * j.light()[3 * i] + 0.7152 * j.light()[3 * i + 1] + 0.0722 * j.light()[3 * i + 2];
    }

    /** What the display shows of a pixel, 0 to 1. */
    private static double display(Denoiser.Judged j, int i, Finish finish) {
        return finish.display(luminance(j, i) / finish.saturation());
    }

    /** Its squared error; none is larger than what the display can show. */
    private static double square(Denoiser.Judged j, int i, Finish finish, double shown) {
        double k = finish.displayedSlope(luminance(j, i)), far = Math.max(shown, 1 - shown);
        return Math.min(j.error()[i] * k * k, far * far);
    }

    private static Region around(Region part, Region r) {
        return new Region(part.x() - AROUND, part.y() - AROUND, part.width() + 2 * AROUND, part.height() + 2 * AROUND).within(r);
    }

    /** Pixels that are denoised to judge a picture of so many. */
    public static double denoised(double pixels, int most) {
        return pixels <= most ? pixels : most * (WIDTH + 2.0 * AROUND) / WIDTH * (HEIGHT + 2.0 * AROUND) / HEIGHT;
    }

    /** The picture itself, or pieces of it: one in each field of a grid, somewhere in it. */
    private static List<Region> parts(Region r, int most) {
        if ((long) r.width() * r.height() <= most) return List.of(r);
        int count = Math.max(1, most / (WIDTH * HEIGHT)), w = Math.min(WIDTH, r.width()), h = Math.min(HEIGHT, r.height()),
                across = Math.clamp(Math.round(Math.sqrt(count * (double) r.width() / w * h / r.height())), 1, r.width() / w),
                down = Math.clamp(count / across, 1, r.height() / h);
        List<Region> out = new ArrayList<>();
        for (int y = 0; y < down; y++)
            for (int x = 0; x < across; x++) {
                int at = y * across + x;
                out.add(new Region(r.x() + place(x, across, r.width(), w, 2 * at), r.y() + place(y, down, r.height(), h, 2 * at + 1), w,
                        h));
            }
        return out;
    }

    /** Where a piece begins in field {@code k} of {@code n}. */
    private static int place(int k, int n, int all, int size, int seed) {
        int from = (int) ((long) k * all / n), room = (int) ((k + 1L) * all / n) - from - size;
        return from + (room <= 0 ? 0 : (PathSampler.hash(seed) >>> 1) % (room + 1));
    }

    /** Squared errors and light as they are displayed. */
    private static final class Sum {
        private final Finish finish;
        private double error, signal;
        private long pixels;
        private double[] blocks = new double[64];
        private int n;

        Sum(Finish finish) {
            this.finish = finish;
        }

        void add(Denoiser.Judged j, Region of, Region part) {
            for (int y = part.y(); y < part.y() + part.height(); y += BLOCK)
                for (int x = part.x(); x < part.x() + part.width(); x += BLOCK)
                    block(j, of, new Region(x, y, BLOCK, BLOCK).within(part));
        }

        private void block(Denoiser.Judged j, Region of, Region block) {
            double e = 0;
            for (int y = block.y(); y < block.y() + block.height(); y++)
                for (int x = block.x(); x < block.x() + block.width(); x++) {
                    int i = (y - of.y()) * of.width() + x - of.x();
                    double d = display(j, i, finish);
                    e += square(j, i, finish, d);
                    signal += d * d;
                }
            int count = block.width() * block.height();
            error += e;
            pixels += count;
            if (n == blocks.length) blocks = Arrays.copyOf(blocks, 2 * n);
            blocks[n++] = e / count;
        }

        DeliveredError error() {
            if (!(signal > 0)) return new DeliveredError(0, 0);
            double level = signal / pixels;
            Arrays.sort(blocks, 0, n);
            return new DeliveredError(100 * Math.sqrt(error / pixels / level),
                    100 * Math.sqrt(blocks[(int) Math.min(n - 1, Math.floor(0.95 * n))] / level));
        }
    }
}
