package bake.core.cache;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** What single samples found of something small and bright is shared with those around them, and with nothing else. */
class RareLightTest {
    private static final int GROUPS = 2, CHANNELS = 3 * GROUPS, N = 9000;

    /** Samples all over a floor of 3 x 3 m, all 1 in both groups, but for one in the middle that found green light in the second. */
    private static CellSamples floor(float find, double near) {
        SplittableRandom r = new SplittableRandom(7);
        CellSamples s = new CellSamples(CHANNELS);
        for (int i = 0; i < N; i++) {
            float x = r.nextFloat() * 3, y = r.nextFloat() * 3;
            boolean green = i == 500;
            s.add(green ? 1.5f : x, green ? 1.5f : y, 0, 0, 0, 1, !green && r.nextDouble() < near ? 0.1f : 5,
                    new float[] {1, 1, 1, 1, green ? find : 1, 1}, 0);
        }
        return s;
    }

    private static int shard() {
        return RadianceCache.shard(CellGrid.facing(0, 0, 1));
    }

    private static double sum(CellSamples s, int channel) {
        double sum = 0;
        for (int i = 0; i < s.count; i++) sum += s.data[i * s.stride + CellSamples.LIGHT + channel];
        return sum;
    }

    private static float most(CellSamples s) {
        float m = 0;
        for (int i = 0; i < s.count; i++) m = Math.max(m, s.data[i * s.stride + CellSamples.LIGHT + 4]);
        return m;
    }

    @Test
    void findsAreSharedAndNoLightIsLost() {
        CellSamples s = floor(900, 0.1);
        RareLight.share(new CellSamples[] {null, s}, shard(), CHANNELS);
        assertTrue(most(s) < 20, "none stands out as it did: " + most(s));
        assertEquals(N + 899, sum(s, 4), 0.2);
        assertEquals(N, sum(s, 0), 0.2);
        assertEquals(N, sum(s, 5), 0.2);
        int far = 0;
        for (int i = 0; i < s.count; i++) {
            float x = s.data[i * s.stride], y = s.data[i * s.stride + 1];
            if (Math.hypot(x - 1.5, y - 1.5) < Math.sqrt(2)) continue;
            far++;
            assertEquals(1, s.data[i * s.stride + CellSamples.LIGHT + 4], "no further than a metre");
        }
        assertTrue(far > 100);
    }

    @Test
    void samplesThatAreAlikeStayAsTheyAre() {
        CellSamples s = floor(3, 0.1), same = floor(3, 0.1);
        RareLight.share(new CellSamples[] {s}, shard(), CHANNELS);
        for (int i = 0; i < s.count * s.stride; i++) assertEquals(same.data[i], s.data[i]);
    }

    /** Where a wall may cross the cell, what lies behind it gets nothing. */
    @Test
    void nothingIsSharedWhereThingsStandClose() {
        CellSamples s = floor(900, 0.4);
        RareLight.share(new CellSamples[] {s}, shard(), CHANNELS);
        assertEquals(900, most(s));
    }

    @Test
    void otherShardsAreLeftAlone() {
        CellSamples s = floor(900, 0);
        RareLight.share(new CellSamples[] {s}, shard() + 1, CHANNELS);
        assertEquals(900, most(s));
    }

    /** Read from the cache, the place of the find looks like the places around it. */
    @Test
    void oneFindIsNotSeenAsASpot() {
        RadianceCache c = new RadianceCache(CHANNELS);
        CellSamples s = floor(900, 0.1);
        for (int k = 0; k < RadianceCache.SHARDS; k++) c.merge(k, new CellSamples[] {s});
        c.merged();
        float[] out = new float[CHANNELS];
        double sum = 0;
        float most = 0;
        int n = 0;
        for (float x = 0.8f; x < 2.2f; x += 0.05f)
            for (float y = 0.8f; y < 2.2f; y += 0.05f, n++) {
                assertTrue(c.read(x, y, 0, 0, 0, 1, 0.5f, 0.5f, 0.5f, out));
                sum += out[4];
                most = Math.max(most, out[4]);
            }
        assertTrue(most < 4, "900 among the 60 of its cell would be 16: " + most);
        assertEquals(1 + 899 / (N / 9. * 1.4 * 1.4), sum / n, 0.2);
    }
}
