package bake.core.denoise;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * Takes noise out of a picture by weighted regression of its light on what its pixels show (Moon et al. 2014; Bitterli et al. 2016): around
 * each pixel light is a first-order function of base colour, normal, inverse depth and place, fitted to the pixels that look alike. What
 * looks alike is judged in one half of the samples ({@link PatchWeights}) and fitted to the other ({@link LocalRegression}), so that
 * noise is not taken for something to keep; both ways round, and their mean is the picture. What was smeared all the same is put back as
 * noise goes ({@link BlendBack}).
 *
 * <p>Works strip by strip, so that a large picture takes little memory; its bits do not depend on the number of threads.
 */
public final class Denoiser {
    /** Samples of a pixel that make two halves. */
    private static final int FEWEST = 2;
    /** One pixel in so many may have fewer, as the last of a pass that was stopped. */
    private static final int SOME = 10;

    private Denoiser() {}

    /**
     * Linear light of the region after denoising, cd/m2, three for each pixel.
     *
     * @param gains as in {@link Film#mean}
     * @param white luminance from which the display shows differences less and less, cd/m2
     * @throws IllegalArgumentException when the film keeps no features
     */
    public static float[] run(Film film, float[] gains, Region r, double white) {
        return run(film, gains, r, white, () -> false);
    }

    /** The same; null when it was stopped, which is asked often. */
    public static float[] run(Film film, float[] gains, Region r, double white, BooleanSupplier stop) {
        if (!film.hasFeatures()) throw new IllegalArgumentException("this picture is too large to denoise");
        if (few(film, r)) return QuickDenoiser.run(film, gains, r, stop);
        Judged j = run(film, gains, false, r, new Highlights(white), stop);
        return j == null ? null : j.light;
    }

    /**
     * A denoised picture and how wrong it is.
     *
     * @param light cd/m2, three for each pixel
     * @param error squared error of the luminance as the halves of the samples tell it, (cd/m2)^2, one for each pixel; of single pixels it
     *     says little: only means over a hundred and more are right
     */
    public record Judged(float[] light, float[] error) {}

    /** The picture with its error; null when it was stopped, or where it has no features or too few samples to tell. */
    public static Judged judged(Film film, float[] gains, Region r, double white, BooleanSupplier stop) {
        return !film.hasFeatures() || few(film, r) ? null : run(film, gains, false, r, new Highlights(white), stop);
    }

    /** The same of what lies before the backdrop, of a film that keeps that apart. */
    public static float[] front(Film film, Region r, double white) {
        return few(film, r) ? QuickDenoiser.front(film, r) : run(film, film.front(), true, r, new Highlights(white), () -> false).light;
    }

    /** How much of the backdrop is covered, as {@link Film#cover} says it, after denoising; three alike for each pixel. */
    public static float[] cover(Film film, Region r) {
        return QuickDenoiser.cover(film, r);
    }

    /** Whether too many pixels have no halves. */
    static boolean few(Film film, Region r) {
        long few = 0;
        for (int y = r.y(); y < r.y() + r.height(); y++)
            for (int x = r.x(); x < r.x() + r.width(); x++) if (film.samples(x, y) < FEWEST) few++;
        return few * SOME > (long) r.width() * r.height();
    }

    private static Judged run(Film film, float[] gains, boolean front, Region r, Highlights highlights, BooleanSupplier stop) {
        HalvedPicture p = new HalvedPicture(r.width(), r.height());
        ThreadLocal<LocalRegression> own = ThreadLocal.withInitial(() -> new LocalRegression(new HalvedStrip(film, gains, front, r,
                highlights)));
        IntStream.range(0, (p.h + HalvedStrip.ROWS - 1) / HalvedStrip.ROWS).parallel().forEach(s -> {
            if (!stop.getAsBoolean()) own.get().strip(s * HalvedStrip.ROWS, p, stop);
        });
        if (stop.getAsBoolean()) return null;
        BlendBack.mix(p);
        highlights.expand(p.clean, p.error);
        return new Judged(p.clean, p.error);
    }
}
