package bake.core.light;

import bake.core.math.Distribution;
import bake.core.scene.Panorama;
import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Cells of a dome's table in which the picture has its finest and brightest things, such as a sun of a few texels: these are cut
 * into parts that are chosen by luminance, too. Immutable.
 */
final class FineCells {
    private static final int MOST = 20_000;
    /** A cell is cut where its brightest texel is this many times its mean. */
    private static final float UNEVEN = 3;

    private final int parts;
    /** Sorted numbers of the cells, and the choice among the parts of each. */
    private final int[] cells;
    private final Distribution[] choices;

    private FineCells(int parts, int[] cells, Distribution[] choices) {
        this.parts = parts;
        this.cells = cells;
        this.choices = choices;
    }

    /** @param weights of all cells; of those that are cut only the brightest are kept */
    static FineCells of(Panorama p, int across, int down, float[] weights) {
        int parts = (p.width() + across - 1) / across;
        double mean = 0;
        for (float w : weights) mean += w / (double) weights.length;
        double least = 4 * mean;
        int[] found = IntStream.range(0, across * down).parallel().filter(c -> weights[c] > least
                && uneven(p, c % across, c / across, across, down)).toArray();
        if (found.length > MOST)
            found = Arrays.stream(found).boxed().sorted((a, b) -> Float.compare(weights[b], weights[a])).limit(MOST).mapToInt(i -> i)
                    .sorted().toArray();
        Distribution[] choices = new Distribution[found.length];
        for (int k = 0; k < found.length; k++)
            choices[k] = new Distribution(parts(p, found[k] % across, found[k] / across, across, down, parts));
        return new FineCells(parts, found, choices);
    }

    private static boolean uneven(Panorama p, int x, int y, int across, int down) {
        float most = 0, sum = 0;
        int n = 0, x1 = (int) ((x + 1L) * p.width() / across), y1 = (int) ((y + 1L) * p.height() / down);
        for (int j = (int) ((long) y * p.height() / down); j < y1; j++)
            for (int i = (int) ((long) x * p.width() / across); i < x1; i++, n++) {
                float l = p.luminance(j * p.width() + i);
                most = Math.max(most, l);
                sum += l;
            }
        return most * n > UNEVEN * sum;
    }

    /** Each part weighs what the texels that a lookup in it may blend have at most, and a little for all. */
    private static float[] parts(Panorama p, int x, int y, int across, int down, int parts) {
        float[] w = new float[parts * parts];
        float sum = 0;
        for (int k = 0; k < w.length; k++) {
            double cx = (x + (k % parts + 0.5) / parts) * p.width() / across - 0.5,
                    cy = (y + (k / parts + 0.5) / parts) * p.height() / down - 0.5;
            for (int j = (int) Math.floor(cy - 0.5); j <= cy + 1; j++)
                for (int i = (int) Math.floor(cx - 0.5); i <= cx + 1; i++)
                    w[k] = Math.max(w[k], p.luminance(Math.clamp(j, 0, p.height() - 1) * p.width() + Math.floorMod(i, p.width())));
            sum += w[k];
        }
        for (int k = 0; k < w.length; k++) w[k] += 0.05f * sum / w.length;
        return w;
    }

    boolean has(int cell) {
        return Arrays.binarySearch(cells, cell) >= 0;
    }

    /** Where in a cell, 0 to 1 each way, into {@code out[0..1]}. */
    void sample(int cell, float u1, float u2, float[] out) {
        Distribution d = choices[Arrays.binarySearch(cells, cell)];
        int k = d.sample(u1);
        out[0] = (k % parts + d.remap(u1, k)) / parts;
        out[1] = (k / parts + u2) / parts;
    }

    /** Density of a place in a cell, against an even choice; 1 in cells that are not cut. */
    float density(int cell, float fx, float fy) {
        int at = Arrays.binarySearch(cells, cell);
        if (at < 0) return 1;
        int k = Math.clamp((int) (fy * parts), 0, parts - 1) * parts + Math.clamp((int) (fx * parts), 0, parts - 1);
        return choices[at].probability(k) * parts * parts;
    }
}
