package bake.core.cache;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** What caches hold, by themselves: cells that are filled and read, records that are interpolated. */
class CacheTest {
    private static final int GROUPS = 2, CHANNELS = 3 * GROUPS;

    private static CellSamples floor(SplittableRandom r, int n, double free) {
        CellSamples s = new CellSamples(CHANNELS);
        for (int i = 0; i < n; i++) {
            float x = r.nextFloat() * 2, y = r.nextFloat() * 2;
            // Light grows along x; the second group is twice the first.
            s.add(x, y, 0, 0, 0, 1, (float) free, new float[] {x, x, x, 2 * x, 2 * x, 2 * x}, 0);
        }
        return s;
    }

    private static RadianceCache filled(CellSamples... rounds) {
        RadianceCache c = new RadianceCache(CHANNELS);
        for (CellSamples s : rounds) {
            for (int k = 0; k < RadianceCache.SHARDS; k++) c.merge(k, new CellSamples[] {s, null});
            c.merged();
        }
        return c;
    }

    @Test
    void cellsHoldTheMeanOfWhatFellIntoThem() {
        SplittableRandom r = new SplittableRandom(4);
        RadianceCache c = filled(floor(r, 20_000, 5), floor(r, 20_000, 5), floor(r, 40_000, 5));
        float[] out = new float[CHANNELS];
        for (float x : new float[] {0.3f, 0.9f, 1.6f}) {
            double mean = 0, second = 0;
            int n = 0;
            for (int k = 0; k < 4096; k++) {
                if (!c.read(x, 1, 0, 0, 0, 1, 0.3f, (k % 64 + 0.5f) / 64, (k / 64 + 0.5f) / 64, out)) continue;
                mean += out[0];
                second += out[3];
                n++;
            }
            assertEquals(4096, n);
            assertEquals(x, mean / n, 0.01, "jittered about the place, cells are its light");
            assertEquals(2 * mean, second, 1e-3 * second);
        }
        assertFalse(c.read(1, 1, 0, 0, 0, -1, 0.3f, 0.5f, 0.5f, out), "the other side knows nothing");
        assertFalse(c.read(1, 1, 0.5f, 0, 0, 1, 0.1f, 0.5f, 0.5f, out));
    }

    /** Where things stand close, only the finest cells may be used: a wall of 10 cm is never within one. */
    @Test
    void narrowPlacesUseTheFinestCells() {
        SplittableRandom r = new SplittableRandom(4);
        float[] out = new float[CHANNELS];
        RadianceCache few = filled(floor(r, 400, 0.01));
        assertFalse(few.read(1, 1, 0, 0, 0, 1, 1, 0.5f, 0.5f, out), "a coarse cell would do in the open, not here");
        assertTrue(filled(floor(r, 400, 5)).read(1, 1, 0, 0, 0, 1, 1, 0.5f, 0.5f, out));
        assertTrue(CellGrid.side(CellGrid.FINEST) * 1.5 < 0.1, "cell and jitter together stay within a wall");
    }

    /** Chunks of any number of threads come to the same: only their order counts. */
    @Test
    void sameCellsForAnyOrderOfWork() {
        CellSamples a = floor(new SplittableRandom(1), 3000, 5), b = floor(new SplittableRandom(2), 3000, 5);
        List<int[]> first = new ArrayList<>(), second = new ArrayList<>();
        RadianceCache one = new RadianceCache(CHANNELS), two = new RadianceCache(CHANNELS);
        for (int k = 0; k < RadianceCache.SHARDS; k++) one.merge(k, new CellSamples[] {a, b});
        for (int k = RadianceCache.SHARDS - 1; k >= 0; k--) two.merge(k, new CellSamples[] {a, b});
        one.save(row -> first.add(row.clone()));
        two.save(row -> second.add(row.clone()));
        assertEquals(first.size(), second.size());
        for (int i = 0; i < first.size(); i++) assertArrayEquals(first.get(i), second.get(i));
    }

    @Test
    void cellsAreSavedAndLoaded() {
        RadianceCache c = filled(floor(new SplittableRandom(1), 5000, 5)), d = new RadianceCache(CHANNELS);
        c.save(d::load);
        d.loaded(c.rounds());
        float[] a = new float[CHANNELS], b = new float[CHANNELS];
        assertEquals(c.cells(), d.cells());
        assertTrue(c.read(1, 1, 0, 0, 0, 1, 0.5f, 0.3f, 0.6f, a) && d.read(1, 1, 0, 0, 0, 1, 0.5f, 0.3f, 0.6f, b));
        assertArrayEquals(a, b);
        int[] row = new int[c.rowInts()];
        c.save(x -> System.arraycopy(x, 0, row, 0, row.length));
        assertThrows(IllegalArgumentException.class, () -> d.load(row), "a cell twice");
        row[0] |= 0x80000000;
        assertThrows(IllegalArgumentException.class, () -> new RadianceCache(CHANNELS).load(row));
    }

    @Test
    void rowsAreSmall() {
        int channels = 3 * 12;
        RadianceCache c = new RadianceCache(channels);
        CellSamples s = new CellSamples(channels);
        SplittableRandom r = new SplittableRandom(9);
        for (int i = 0; i < 40_000; i++) s.add(r.nextFloat() * 90, r.nextFloat() * 90, 0, 0, 0, 1, 3, new float[channels], 0);
        for (int k = 0; k < RadianceCache.SHARDS; k++) c.merge(k, new CellSamples[] {s});
        assertTrue(c.bytes() < 300 * c.cells(), c.bytes() / c.cells() + " bytes a cell of 12 source groups");
        IrradianceCache i = new IrradianceCache(channels);
        RecordSamples records = new RecordSamples(channels);
        for (int k = 0; k < 40_000; k++)
            records.add(r.nextFloat() * 90, r.nextFloat() * 90, 0, 0, 0, 1, 0.3f, new float[6], new float[channels]);
        i.merge(new RecordSamples[] {records});
        assertTrue(i.bytes() < 300L * i.records(), i.bytes() / i.records() + " bytes a record of 12 source groups");
    }

    private static IrradianceCache records(Object... of) {
        IrradianceCache c = new IrradianceCache(CHANNELS);
        RecordSamples s = new RecordSamples(CHANNELS);
        for (Object o : of) {
            float[] r = (float[]) o;
            s.add(r[0], r[1], 0, 0, 0, 1, r[2], new float[] {0, 0, 0, r[4], 0, 0}, new float[] {r[3], r[3], r[3], 0, 0, 0});
        }
        c.merge(new RecordSamples[] {s});
        return c;
    }

    @Test
    void recordsAreInterpolatedAlongTheirGradients() {
        float[] out = new float[CHANNELS];
        IrradianceCache c = records(new float[] {0, 0, 1, 10, 0.2f}, new float[] {1, 0, 1, 12, 0.1f});
        assertEquals(IrradianceCache.Known.ENOUGH, c.read(0, 0, 0, 0, 0, 1, out));
        assertEquals(10, out[0], 0.01);
        c.read(0.5f, 0, 0, 0, 0, 1, out);
        assertEquals((10 * 1.1 + 12 * 0.95) / 2, out[0], 0.01);
        assertEquals(IrradianceCache.Known.NOTHING, c.read(0, 3, 0, 0, 0, 1, out));
        assertEquals(IrradianceCache.Known.NOTHING, c.read(0, 0, 0, 1, 0, 0, out), "a wall is no floor");
        assertEquals(IrradianceCache.Known.NOTHING, c.read(0, 0, 0.5f, 0, 0, 1, out), "nor is a table");
    }

    /** A wide record beside a narrow one has missed what is there (neighbour clamping). */
    @Test
    void radiiAreClampedToNeighbours() {
        IrradianceCache c = records(new float[] {0, 0, 2, 10, 0}, new float[] {0.3f, 0, 0.1f, 2, 0});
        assertEquals(IrradianceCache.Known.NOTHING, c.read(-0.45f, 0, 0, 0, 0, 1, null));
        assertTrue(c.read(-0.3f, 0, 0, 0, 0, 1, null) != IrradianceCache.Known.NOTHING);
    }

    @Test
    void placesToAvoid() {
        IrradianceCache c = new IrradianceCache(CHANNELS);
        RecordSamples s = new RecordSamples(CHANNELS);
        s.mark(0, 0, 0, 0, 0, 1, 0.1f);
        c.merge(new RecordSamples[] {null, s});
        assertEquals(IrradianceCache.Known.NARROW, c.read(0.05f, 0, 0, 0, 0, 1, null));
    }
}
