package bake.core.cache;

/**
 * Shares what single samples of a round found of something small and very bright, such as sunlit leaves behind a window, among all samples
 * around them that look into the open: light from far away changes little within a cell that nothing stands close to, so that where it is
 * found is chance. A cell with one such find would be seen as a spot of its colour wherever it is read; cells without any would be too
 * dark. No light is lost or gained, it is filtered wider where it is rarer (path space filtering does so with all of it: Keller, Dahm and
 * Binder 2014, "Path Space Filtering").
 *
 * <p>Cells that a wall may cross are left alone: over a floor, a wall through its cell takes a third and more of the cosine-weighted
 * directions within two of the cell's sides.
 */
final class RareLight {
    /** Multiples of a cell's mean that one sample keeps. */
    private static final float KEPT = 4;
    /** Share of a cell's samples that may have met something within two of its sides. */
    private static final float NEAR = 0.3f;
    /** Cells of 1 m, and of 25 cm where something stands close to those. */
    private static final int[] LEVELS = {0, -2};
    private static final int COUNT = 0, OPEN = 1, LUMINANCE = 2, SHARED = 3;

    private RareLight() {}

    /** Shares light, in place, among the samples of a round that are of one shard; chunks that were not made are null. */
    static void share(CellSamples[] chunks, int shard, int channels) {
        for (int level : LEVELS) share(chunks, shard, channels, level);
    }

    private static void share(CellSamples[] chunks, int shard, int channels, int level) {
        CellTable cells = new CellTable(SHARED + channels);
        float open = 2 * CellGrid.side(level);
        each(chunks, shard, level, 0, (d, o, key) -> {
            int at = cells.make(key, CellGrid.hash(key));
            float[] v = cells.values();
            v[at + COUNT]++;
            if (d[o + CellSamples.FREE] >= open) v[at + OPEN]++;
            v[at + LUMINANCE] += CellSamples.luminance(d, o + CellSamples.LIGHT, channels);
        });
        float[] v = cells.values();
        each(chunks, shard, level, open, (d, o, key) -> {
            int at = cells.find(key, CellGrid.hash(key));
            if (v[at + OPEN] < (1 - NEAR) * v[at + COUNT]) return;
            float l = CellSamples.luminance(d, o + CellSamples.LIGHT, channels), most = KEPT * v[at + LUMINANCE] / v[at + COUNT];
            if (l <= most) return;
            float over = 1 - most / l;
            for (int c = 0; c < channels; c++) {
                float x = over * d[o + CellSamples.LIGHT + c];
                v[at + SHARED + c] += x;
                d[o + CellSamples.LIGHT + c] -= x;
            }
        });
        each(chunks, shard, level, open, (d, o, key) -> {
            int at = cells.find(key, CellGrid.hash(key));
            float k = 1 / v[at + OPEN];
            for (int c = 0; c < channels; c++) d[o + CellSamples.LIGHT + c] += k * v[at + SHARED + c];
        });
    }

    private interface Sample {
        void at(float[] data, int offset, long key);
    }

    /** Goes through the samples of a shard that met nothing within a distance, in their order. */
    private static void each(CellSamples[] chunks, int shard, int level, float open, Sample then) {
        for (CellSamples c : chunks) {
            if (c == null) continue;
            float[] d = c.data;
            for (int k = 0; k < c.count; k++) {
                int o = k * c.stride, facing = (int) d[o + CellSamples.FACING];
                if (RadianceCache.shard(facing) != shard || d[o + CellSamples.FREE] < open) continue;
                long key = CellGrid.key(level, facing, d[o + CellSamples.X], d[o + CellSamples.Y], d[o + CellSamples.Z]);
                if (key >= 0) then.at(d, o, key);
            }
        }
    }
}
