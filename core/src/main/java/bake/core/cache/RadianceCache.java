package bake.core.cache;

import java.util.function.Consumer;

/**
 * Irradiance of surfaces all over a scene, in cells of space and facing at several sizes at once: each cell holds the mean of the samples
 * that fell into it, by source group, and so stands for the radiance of matt surfaces once their colour is known. The estimator is a box
 * filter of path space (Keller, Dahm and Binder 2014, "Path Space Filtering") at a size that is chosen by how many samples there are and by
 * how near other surfaces are.
 *
 * <p>A cell larger than the finest may not be used where much of what lies around its samples is nearer than its size: there walls may
 * cross it, and light changes within it. Read by all threads at once; {@link #merge} only between rounds.
 */
public final class RadianceCache implements MattLight {
    /** Parts that are merged apart from each other, whatever the number of threads. */
    public static final int SHARDS = 16;
    /** Samples below which a cell is not used. */
    private static final float ENOUGH = 12;
    /** Samples that make a cell good enough that a coarser one would be no better. */
    private static final float PLENTY = 48;
    /** Share of a cell's samples that may have met something within two of its sides. */
    private static final float NEAR = 0.2f;
    /** Cells at least this coarse always keep samples; finer ones once there are some in the next coarser one. */
    private static final int ALWAYS = -2;
    private static final float SPLIT = 4;
    /** What samples of earlier rounds count for: they were made with less knowledge, and would hand their errors down. */
    private static final float KEEP = 0.5f;
    static final int COUNT = 0, NEAR_COUNT = 1, LIGHT = 2;

    private final int channels, stride;
    private final CellTable[] tables = new CellTable[SHARDS];
    private long rounds;

    /** @param channels three colours for each source group */
    public RadianceCache(int channels) {
        this.channels = channels;
        stride = LIGHT + channels;
        for (int i = 0; i < SHARDS; i++) tables[i] = new CellTable(stride);
    }

    public int channels() {
        return channels;
    }

    /** Cells there are. */
    public long cells() {
        long n = 0;
        for (CellTable t : tables) n += t.size();
        return n;
    }

    /** Memory taken. */
    public long bytes() {
        long n = 0;
        for (CellTable t : tables) n += t.bytes();
        return n;
    }

    /** How many rounds were merged. */
    public long rounds() {
        return rounds;
    }

    /** A round has been merged into all shards. */
    public void merged() {
        rounds++;
    }

    /** Cells of all sizes that face alike are of one shard, so that a shard is merged by looking at nothing else. */
    static int shard(int facing) {
        return (facing ^ facing >> 4) & SHARDS - 1;
    }

    /** Adds the samples of a round, chunk by chunk, to one shard, after they shared what is rare. Chunks not made are null. */
    public void merge(int shard, CellSamples[] chunks) {
        CellTable t = tables[shard];
        RareLight.share(chunks, shard, channels);
        for (CellSamples c : chunks)
            if (c != null) for (int k = 0; k < c.count; k++) if (shard((int) c.data[k * c.stride + CellSamples.FACING]) == shard)
                merge(t, c.data, k * c.stride);
        t.settle();
    }

    private void merge(CellTable t, float[] d, int o) {
        float coarser = SPLIT;
        for (int level = CellGrid.COARSEST; level >= CellGrid.FINEST && (level >= ALWAYS || coarser >= SPLIT); level--) {
            long key = CellGrid.key(level, (int) d[o + CellSamples.FACING], d[o + CellSamples.X], d[o + CellSamples.Y],
                    d[o + CellSamples.Z]);
            if (key < 0) continue;
            int at = t.make(key, CellGrid.hash(key));
            coarser = t.settled(at);
            t.touch(at, (int) rounds + 1, KEEP);
            float[] v = t.values();
            v[at + COUNT]++;
            if (d[o + CellSamples.FREE] < 2 * CellGrid.side(level)) v[at + NEAR_COUNT]++;
            for (int c = 0; c < channels; c++) v[at + LIGHT + c] += d[o + CellSamples.LIGHT + c];
        }
    }

    /** {@inheritDoc} The place is moved about by up to half a cell, so that no cell's edges show. */
    @Override
    public boolean read(float x, float y, float z, float nx, float ny, float nz, float most, float u, float v, float[] out) {
        int coarsest = Math.min(CellGrid.level(most), CellGrid.COARSEST), facing = CellGrid.facing(nx, ny, nz), found = -1;
        CellTable t = tables[shard(facing)];
        float[] values = t.values();
        float best = 0;
        // Any two directions across the normal (Duff et al. 2017).
        float sign = Math.copySign(1, nz), a = -1 / (sign + nz), b = nx * ny * a;
        float sx = 1 + sign * nx * nx * a, sy = sign * b, sz = -sign * nx, tx = b, ty = sign + ny * ny * a, tz = -ny;
        for (int level = Math.max(CellGrid.FINEST, coarsest - 4); level <= coarsest; level++) {
            float side = CellGrid.side(level), p = (u - 0.5f) * side, q = (v - 0.5f) * side;
            long key = CellGrid.key(level, facing, x + p * sx + q * tx, y + p * sy + q * ty, z + p * sz + q * tz);
            if (key < 0) continue;
            int at = t.find(key, CellGrid.hash(key));
            if (at < 0) continue;
            float n = values[at + COUNT];
            if (n <= best || n < ENOUGH || level > CellGrid.FINEST && values[at + NEAR_COUNT] > NEAR * n) continue;
            best = n;
            found = at;
            if (n >= PLENTY) break;
        }
        if (found < 0) return false;
        float k = 1 / best;
        for (int c = 0; c < channels; c++) out[c] = k * values[found + LIGHT + c];
        return true;
    }

    /**
     * A number for the cell that would be read at a place without moving it about; 0 where nothing is fit to be used.
     *
     * @param most widest cell that may be used, metres
     */
    public int cell(float x, float y, float z, float nx, float ny, float nz, float most) {
        int coarsest = Math.min(CellGrid.level(most), CellGrid.COARSEST), facing = CellGrid.facing(nx, ny, nz);
        CellTable t = tables[shard(facing)];
        for (int level = Math.max(CellGrid.FINEST, coarsest - 4); level <= coarsest; level++) {
            long key = CellGrid.key(level, facing, x, y, z);
            int at = key < 0 ? -1 : t.find(key, CellGrid.hash(key));
            if (at < 0) continue;
            float n = t.values()[at + COUNT];
            if (n >= ENOUGH && (level == CellGrid.FINEST || t.values()[at + NEAR_COUNT] <= NEAR * n)) return (int) CellGrid.hash(key) | 1;
        }
        return 0;
    }

    /** Numbers that {@link #save} hands out for each cell, 4 bytes each: its key in two halves, and its values. */
    public int rowInts() {
        return 2 + stride;
    }

    /** Hands out all cells, row by row. The row is used again. */
    public void save(Consumer<int[]> rows) {
        int[] row = new int[rowInts()];
        for (CellTable t : tables)
            for (int r = 0; r < t.size(); r++) {
                row[0] = (int) (t.key(r) >>> 32);
                row[1] = (int) t.key(r);
                for (int i = 0; i < stride; i++) row[2 + i] = Float.floatToRawIntBits(t.values()[r * stride + i]);
                rows.accept(row);
            }
    }

    /**
     * Takes a cell that {@link #save} handed out.
     *
     * @throws IllegalArgumentException when it cannot be one, or is there already
     */
    public void load(int[] row) {
        long key = (long) row[0] << 32 | row[1] & 0xffffffffL;
        if (!CellGrid.valid(key)) throw new IllegalArgumentException("a cell that cannot be");
        CellTable t = tables[shard(CellGrid.facing(key))];
        long h = CellGrid.hash(key);
        if (t.find(key, h) >= 0) throw new IllegalArgumentException("a cell that is there twice");
        for (int i = 0; i < stride; i++) {
            float v = Float.intBitsToFloat(row[2 + i]);
            if (!(v >= 0 && v < Float.POSITIVE_INFINITY)) throw new IllegalArgumentException("light that cannot be");
        }
        int at = t.make(key, h);
        for (int i = 0; i < stride; i++) t.values()[at + i] = Float.intBitsToFloat(row[2 + i]);
    }

    /** All has been loaded that some rounds had filled. */
    public void loaded(long ofRounds) {
        rounds = ofRounds;
        for (CellTable t : tables) t.settle();
    }
}
