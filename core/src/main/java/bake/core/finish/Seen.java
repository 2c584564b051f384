package bake.core.finish;

import bake.core.film.Film;
import bake.core.film.Region;

/**
 * What the pixels of a picture show, for lines: base colour, normal and distance.
 *
 * @param values seven for each pixel: three of base colour, three of the normal, metres; 0 metres where nothing is met
 */
public record Seen(float[] values) {
    /** Of a region of a film; null where that keeps none. */
    public static Seen of(Film film, Region r) {
        if (!film.hasFeatures()) return null;
        float[] out = new float[7 * r.width() * r.height()], f = new float[7];
        for (int i = 0; i < r.width() * r.height(); i++) {
            film.features(r.x() + i % r.width(), r.y() + i / r.width(), f);
            System.arraycopy(f, 0, out, 7 * i, 7);
        }
        return new Seen(out);
    }
}
