package bake.core.finish;

import bake.core.film.Film;
import bake.core.film.Region;

/**
 * What the pixels of a picture show.
 *
 * @param values for lines, seven for each pixel: three of base colour, three of the normal, metres; 0 metres where nothing is met; null
 *     where it is not known
 * @param open share of each pixel that shows what lies behind the model, 0 to 1; null where it is not known
 */
public record Seen(float[] values, float[] open) {
    /** Of a region of a film. */
    public static Seen of(Film film, Region r) {
        int n = r.width() * r.height();
        float[] open = new float[n], out = film.hasFeatures() ? new float[7 * n] : null;
        Rows.each(r.height(), y -> {
            float[] f = new float[7];
            for (int i = y * r.width(); i < (y + 1) * r.width(); i++) {
                int px = r.x() + i % r.width(), py = r.y() + y;
                open[i] = film.samples(px, py) > 0 ? 1 - film.cover(px, py) : 0;
                if (out == null) continue;
                film.features(px, py, f);
                System.arraycopy(f, 0, out, 7 * i, 7);
            }
        });
        return new Seen(out, open);
    }

    /** The same of light that nothing behind the model is in. */
    public Seen front() {
        return new Seen(values, null);
    }
}
