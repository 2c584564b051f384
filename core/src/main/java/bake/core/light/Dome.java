package bake.core.light;

import bake.core.math.Angles;
import bake.core.math.Distribution;
import bake.core.math.Vec3;
import bake.core.scene.Panorama;

/**
 * The surroundings as light from a dome infinitely far away: lookup by direction, and sampling in proportion to
 * luminance (Pharr, Jakob and Humphreys, "Physically Based Rendering", piecewise-constant 2D distribution) over the whole dome, or over one
 * of the bins of a compass of directions that together make it up. Immutable; shared by all threads.
 */
public final class Dome {
    /** Most cells across of the table that directions are chosen by; larger panoramas have several texels in a cell. */
    private static final int MOST_ACROSS = 2048;
    private static final int BINS_ACROSS = 24, BINS_DOWN = 12;

    private final Panorama picture;
    private final int width, height, across, down;
    private final float scale;
    /** From the world to the picture's own axes, row by row. */
    private final float[] turn = new float[9];
    private final Distribution rows;
    private final Distribution[] columns;
    /** By cell: density over the unit square of the map, over 2 pi^2. */
    private final float[] density;
    private final FineCells fine;
    private final int binsAcross, binsDown;
    private final float[] binChance;
    private final Distribution[] binRows;
    private final double irradianceUp;

    /**
     * @param scale factor on every luminance
     * @param rotation degrees clockwise seen from above
     */
    public Dome(Panorama p, double scale, double rotation) {
        this(p, scale, rotation, 0, 0);
    }

    /**
     * The same with a horizon that is not level.
     *
     * @param tilt degrees by which the picture's middle column is lowered
     * @param roll degrees by which the picture leans to the right of its middle column
     */
    public Dome(Panorama p, double scale, double rotation, double tilt, double roll) {
        picture = p;
        width = p.width();
        height = p.height();
        this.scale = (float) scale;
        orient(rotation, tilt, roll);
        across = Math.min(width, MOST_ACROSS);
        down = Math.min(height, MOST_ACROSS / 2);
        columns = new Distribution[down];
        float[] w = DomeWeights.of(p, across, down), rowSum = new float[down];
        fine = across < width ? FineCells.of(p, across, down, w) : null;
        for (int y = 0; y < down; y++) {
            columns[y] = new Distribution(w, y * across, across);
            rowSum[y] = (float) columns[y].total();
        }
        rows = new Distribution(rowSum);
        density = new float[across * down];
        for (int y = 0; y < down; y++)
            for (int x = 0; x < across; x++)
                density[y * across + x] = (float) (rows.probability(y) * (double) columns[y].probability(x) * across * down
                        / (2 * Math.PI * Math.PI));
        binsAcross = Math.min(BINS_ACROSS, across);
        binsDown = Math.min(BINS_DOWN, down);
        binChance = new float[binsAcross * binsDown];
        binRows = new Distribution[binChance.length];
        for (int b = 0; b < binChance.length; b++) bin(b);
        irradianceUp = DomeWeights.irradiance(p, turn) * scale;
    }

    private void orient(double rotation, double tilt, double roll) {
        double a = Math.toRadians(rotation), b = Math.toRadians(tilt), c = Math.toRadians(roll);
        // World to picture: undo the rotation about z, then the tilt about x, then the roll about y.
        double[] z = {Math.cos(a), -Math.sin(a), 0, Math.sin(a), Math.cos(a), 0, 0, 0, 1};
        double[] x = {1, 0, 0, 0, Math.cos(b), -Math.sin(b), 0, Math.sin(b), Math.cos(b)};
        double[] y = {Math.cos(c), 0, -Math.sin(c), 0, 1, 0, Math.sin(c), 0, Math.cos(c)};
        double[] m = times(y, times(x, z));
        for (int i = 0; i < 9; i++) turn[i] = (float) m[i];
    }

    private static double[] times(double[] a, double[] b) {
        double[] out = new double[9];
        for (int i = 0; i < 9; i++) for (int k = 0; k < 3; k++) out[i] += a[i / 3 * 3 + k] * b[3 * k + i % 3];
        return out;
    }

    private int firstColumn(int bin) {
        return (bin * across + binsAcross - 1) / binsAcross;
    }

    private int firstRow(int bin) {
        return (bin * down + binsDown - 1) / binsDown;
    }

    private void bin(int b) {
        int x0 = firstColumn(b % binsAcross), x1 = firstColumn(b % binsAcross + 1), y0 = firstRow(b / binsAcross),
                y1 = firstRow(b / binsAcross + 1);
        float[] w = new float[y1 - y0];
        for (int y = y0; y < y1; y++) w[y - y0] = rows.probability(y) * (columns[y].below(x1) - columns[y].below(x0));
        binRows[b] = new Distribution(w);
        binChance[b] = (float) binRows[b].total();
    }

    /** Horizontal illuminance from the upper half of the world, lux. */
    public double horizontalIlluminance() {
        return irradianceUp;
    }

    public boolean dark() {
        return rows.total() <= 0 || scale <= 0;
    }

    /** From the picture's own axes, the middle column +y and the zenith +z, to the world's. */
    public Vec3 toWorld(Vec3 d) {
        return new Vec3(turn[0] * d.x() + turn[3] * d.y() + turn[6] * d.z(), turn[1] * d.x() + turn[4] * d.y() + turn[7] * d.z(),
                turn[2] * d.x() + turn[5] * d.y() + turn[8] * d.z()).normalized();
    }

    /** Texels of the picture from side to side. */
    public int width() {
        return width;
    }

    /** How many bins the directions are sorted into. */
    public int bins() {
        return binChance.length;
    }

    /** Chance with which {@link #sample} gives a direction of a bin. */
    public float binChance(int bin) {
        return binChance[bin];
    }

    /**
     * Reads luminance by colour in direction (x, y, z) of length one, cd/m2, bilinear, into {@code out[0..2]}, and the number of its bin
     * into {@code out[3]}; returns the density per steradian with which {@link #sample} gives that direction.
     */
    public float read(float x, float y, float z, float[] out) {
        float mx = turn[0] * x + turn[1] * y + turn[2] * z, my = turn[3] * x + turn[4] * y + turn[5] * z,
                mz = turn[6] * x + turn[7] * y + turn[8] * z;
        float u = (float) (Angles.atan2(mx, my) / (2 * Math.PI)) + 0.5f,
                v = (float) (Angles.atan2(Math.sqrt(mx * mx + my * my), mz) / Math.PI);
        if (u >= 1) u -= 1;
        blend(u, v, out);
        int i = Math.min((int) (u * across), across - 1), j = Math.min((int) (v * down), down - 1);
        out[3] = j * binsDown / down * binsAcross + i * binsAcross / across;
        float d = density[j * across + i];
        if (fine != null) d *= fine.density(j * across + i, u * across - i, v * down - j);
        return d / (float) Math.sqrt(Math.max(1e-12f, 1 - mz * mz));
    }

    private void blend(float fromLeft, float fromTop, float[] out) {
        float u = fromLeft * width - 0.5f, v = fromTop * height - 0.5f;
        int i = (int) Math.floor(u), j = (int) Math.floor(v);
        float fx = u - i, fy = v - j;
        int ia = i < 0 ? width - 1 : i, ib = i + 1 >= width ? 0 : i + 1;
        int ja = Math.clamp(j, 0, height - 1), jb = Math.min(j + 1, height - 1);
        int a = 3 * (ja * width + ia), b = 3 * (ja * width + ib), c = 3 * (jb * width + ia), d = 3 * (jb * width + ib);
        for (int k = 0; k < 3; k++)
            out[k] = scale * ((picture.at(a + k) * (1 - fx) + picture.at(b + k) * fx) * (1 - fy)
                    + (picture.at(c + k) * (1 - fx) + picture.at(d + k) * fx) * fy);
    }

    /** A direction into {@code out[0..2]}; its density is what {@link #read} returns. */
    public void sample(float u1, float u2, float[] out) {
        int j = rows.sample(u2), i = columns[j].sample(u1);
        place(i, j, columns[j].remap(u1, i), rows.remap(u2, j), out);
    }

    /** A direction of one bin into {@code out[0..2]}; its density is what {@link #read} returns over the bin's chance. */
    public void sampleIn(int bin, float u1, float u2, float[] out) {
        int x0 = firstColumn(bin % binsAcross), x1 = firstColumn(bin % binsAcross + 1), j = binRows[bin].sample(u2);
        float fy = binRows[bin].remap(u2, j);
        j += firstRow(bin / binsAcross);
        float lo = columns[j].below(x0), hi = columns[j].below(x1), u = Math.min(lo + u1 * (hi - lo), 0x1.fffffep-1f);
        int i = Math.clamp(columns[j].sample(u), x0, x1 - 1);
        place(i, j, Math.clamp(columns[j].remap(u, i), 0f, 0x1.fffffep-1f), fy, out);
    }

    private void place(int i, int j, float fx, float fy, float[] out) {
        if (fine != null && fine.has(j * across + i)) {
            fine.sample(j * across + i, fx, fy, out);
            fx = out[0];
            fy = out[1];
        }
        double theta = Math.PI * (j + fy) / down, phi = 2 * Math.PI * ((i + fx) / across - 0.5);
        double s = Math.sin(theta), x = s * Math.sin(phi), y = s * Math.cos(phi), z = Math.cos(theta);
        out[0] = (float) (turn[0] * x + turn[3] * y + turn[6] * z);
        out[1] = (float) (turn[1] * x + turn[4] * y + turn[7] * z);
        out[2] = (float) (turn[2] * x + turn[5] * y + turn[8] * z);
    }
}
