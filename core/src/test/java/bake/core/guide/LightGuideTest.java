package bake.core.guide;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** What the sky guide makes of its records, and that their order does not matter. */
final class LightGuideTest {
    private static final int WAYS = 5, RECORDS = 60_000;

    /**
     * Record {@code i}: a place on a floor of 8 x 6 m, or on a wall, and a look that way 2 rewards on the left half, way 4 on the right.
     */
    private static void record(GuideLearner l, PlaceLog log, int i) {
        SplittableRandom r = new SplittableRandom(i);
        float x = (float) r.nextDouble(8), y = (float) r.nextDouble(6);
        boolean wall = i % 4 == 0;
        int leaf = wall ? l.guide().leaf(x, 0, y / 2, 0, 1, 0) : l.guide().leaf(x, y, 0, 0, 0, 1);
        int target = r.nextInt(WAYS);
        l.looked(leaf, target, target == (x < 4 ? 2 : 4) ? 3 : target == 1 ? 0.5f : 0);
        log.begin(l, i * 0x9e3779b1);
        log.at(l, leaf, x, wall ? 0 : y, wall ? y / 2 : 0);
    }

    private static GuideLearner learn(int rounds, boolean parallel) {
        GuideLearner l = GuideLearner.begin(1, RECORDS / 4, WAYS);
        for (int k = 0; k < rounds; k++) {
            GuideLearner now = l;
            int parts = 30, each = (RECORDS << k) / parts;
            IntStream s = IntStream.range(0, parts);
            if (parallel) s = s.parallel();
            s.forEach(p -> {
                PlaceLog log = new PlaceLog();
                for (int i = p * each; i < (p + 1) * each; i++) record(now, log, i);
                log.flush(now);
            });
            l = l.next(RECORDS / 4 << k + 1);
        }
        return l;
    }

    @Test
    void learnsWhereEachWayPays() {
        LightGuide g = learn(3, false).guide();
        assertTrue(g.leaves() > 20, g.leaves() + " leaves");
        int seen = 0;
        for (float x : new float[] {0.5f, 2, 3, 5, 6, 7.5f})
            for (float y : new float[] {1, 3, 5}) {
                int k = g.learnt(g.leaf(x, y, 0, 0, 0, 1));
                assertTrue(k >= 0, "nothing is known at " + x + ", " + y);
                int best = 0;
                for (int w = 1; w < WAYS; w++) if (g.weights()[k * WAYS + w] > g.weights()[k * WAYS + best]) best = w;
                assertEquals(x < 4 ? 2 : 4, best, "at " + x + ", " + y);
                // The root of the mean square of what one look brought, and a little for doubt.
                assertEquals(3, g.weights()[k * WAYS + best], 0.25, "at " + x + ", " + y);
                seen++;
            }
        assertEquals(18, seen);
    }

    @Test
    void theOrderOfRecordsDoesNotMatter() throws Exception {
        LightGuide a = learn(3, false).guide();
        try (ForkJoinPool pool = new ForkJoinPool(3)) {
            LightGuide b = pool.submit(() -> learn(3, true).guide()).get();
            assertArrayEquals(a.space.nodes(), b.space.nodes());
            assertArrayEquals(a.space.cuts(), b.space.cuts());
            assertArrayEquals(a.weights(), b.weights());
        }
    }

    @Test
    void surfacesThatFaceOtherWaysHaveLeavesOfTheirOwn() {
        LightGuide g = learn(1, false).guide();
        assertTrue(g.leaf(2, 0, 0, 0, 0, 1) != g.leaf(2, 0, 0, 0, 1, 0));
        assertEquals(-1, g.learnt(g.leaf(2, 1, 3, 0, 0, -1)), "nothing was met below a ceiling");
        for (int k = 0; k < 6; k++) {
            float s = k % 2 == 0 ? 1 : -1;
            assertEquals(k, Space.facing(k < 2 ? s : 0.1f, k / 2 == 1 ? s : 0.1f, k > 3 ? s : 0.1f));
        }
    }

    @Test
    void placesAtOnePointAreNotCut() {
        GuideLearner l = GuideLearner.begin(1, 1000, WAYS);
        PlaceLog log = new PlaceLog();
        for (int i = 0; i < 20_000; i++) {
            int leaf = l.guide().leaf(1, 2, 3, 0, 0, 1);
            l.looked(leaf, 0, 1);
            log.begin(l, 0);
            log.at(l, leaf, 1, 2, 3);
        }
        log.flush(l);
        assertEquals(Space.FACINGS, l.next(1000).guide().leaves());
    }
}
