package bake.core.render;

import bake.core.compiled.Lens;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.math.PathSampler;
import bake.core.path.PathTracer;

/** Looks at what a pixel shows first, drawn from the pixel filter and the lens as paths are, without following any light. */
final class PixelLook {
    private final Lens lens;
    private final PixelFilter filter;
    private final int width, height;
    private final long seed;

    /** @param seed what keeps its numbers apart from those of paths and other looks */
    PixelLook(Lens lens, PixelFilter filter, Film film, long seed) {
        this.lens = lens;
        this.filter = filter;
        width = film.width();
        height = film.height();
        this.seed = seed;
    }

    /**
     * One look, which is in {@link PathTracer#first} then.
     *
     * @param number of the look among those of its pixel
     * @param r room for a ray, six numbers; {@code spare} for light that nobody asks for
     */
    void take(int x, int y, int number, PathTracer tracer, PathSampler random, float[] spare, float[] r) {
        random.startPixel(x, y, number, seed);
        random.next2();
        float fx = x + 0.5f + filter.offset(random.u), fy = y + 0.5f + filter.offset(random.v);
        random.next2();
        lens.ray(fx / width, fy / height, random.u, random.v, r);
        tracer.place(fx / width, fy / height);
        tracer.see(r[0], r[1], r[2], r[3], r[4], r[5], random, spare);
    }
}
