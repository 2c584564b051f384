package bake.core.light;

import bake.core.scene.Panorama;
import java.util.stream.IntStream;

/** What the cells of a dome's table weigh, and what its picture sheds. */
final class DomeWeights {
    private DomeWeights() {}

    /** Weight of each cell of an {@code across} by {@code down} table, its solid angle included; no cell is given up. */
    static float[] of(Panorama p, int across, int down) {
        int width = p.width(), height = p.height();
        double mean = IntStream.range(0, height).parallel().mapToDouble(y -> {
            double row = 0;
            for (int x = 0; x < width; x++) row += p.luminance(y * width + x);
            return row / (width * (double) height);
        }).boxed().toList().stream().mapToDouble(d -> d).sum(); // added up in order, so that it is the same each time
        float[] w = new float[across * down];
        IntStream.range(0, down).parallel().forEach(y -> {
            double sin = Math.sin(Math.PI * (y + 0.5) / down);
            for (int x = 0; x < across; x++) {
                float l = across == width && down == height ? texel(p, x, y) : several(p, x, y, across, down);
                w[y * across + x] = (float) ((l + 0.01 * mean) * sin);
            }
        });
        return w;
    }

    /**
     * Lookups blend neighbours, so a dark texel beside a bright one must not be given up: the best constant density for a texel goes with
     * the root of its mean square, here of the bilinear blend.
     */
    private static float texel(Panorama p, int x, int y) {
        int width = p.width(), xa = (x + width - 1) % width, xb = (x + 1) % width, ya = Math.max(0, y - 1) * width,
                yb = Math.min(p.height() - 1, y + 1) * width, yc = y * width;
        return (float) Math.sqrt(0.82f * square(p, yc + x) + 0.042f * (square(p, yc + xa) + square(p, yc + xb) + square(p, ya + x)
                + square(p, yb + x))
                + 0.002f * (square(p, ya + xa) + square(p, ya + xb) + square(p, yb + xa) + square(p, yb + xb)));
    }

    /** Root of the mean square of the texels that a cell touches, those beside it included. */
    private static float several(Panorama p, int x, int y, int across, int down) {
        int width = p.width(), height = p.height();
        int x0 = (int) Math.floor(x * (double) width / across - 0.5), x1 = (int) Math.ceil((x + 1.0) * width / across + 0.5),
                y0 = (int) Math.floor(y * (double) height / down - 0.5),
                y1 = (int) Math.ceil((y + 1.0) * height / down + 0.5);
        double sum = 0;
        int n = 0;
        for (int j = Math.max(0, y0); j < Math.min(height, y1); j++)
            for (int i = x0; i < x1; i++, n++) sum += square(p, j * width + Math.floorMod(i, width));
        return (float) Math.sqrt(sum / n);
    }

    private static double square(Panorama p, int i) {
        double l = p.luminance(i);
        return l * l;
    }

    /** Illuminance by the upper half of the world, lux; {@code turn} leads from the world to the picture. */
    static double irradiance(Panorama p, float[] turn) {
        int w = p.width(), h = p.height();
        boolean level = turn[8] > 1 - 1e-6f;
        double up = 0;
        for (int y = 0; y < (level ? (h + 1) / 2 : h); y++) {
            double t = Math.PI * (y + 0.5) / h, sin = Math.sin(t), z = Math.cos(t), row = 0;
            if (level) {
                if (z > 0) for (int x = 0; x < w; x++) row += p.luminance(y * w + x) * z;
            } else
                for (int x = 0; x < w; x++) {
                    double a = 2 * Math.PI * ((x + 0.5) / w - 0.5), cos =
                            turn[2] * sin * Math.sin(a) + turn[5] * sin * Math.cos(a) + turn[8] * z;
                    if (cos > 0) row += p.luminance(y * w + x) * cos;
                }
            up += row * sin;
        }
        return up * 2 * Math.PI * Math.PI / (w * (double) h);
    }
}
