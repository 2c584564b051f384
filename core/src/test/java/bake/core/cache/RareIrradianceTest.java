package bake.core.cache;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import org.junit.jupiter.api.Test;

/** What is rare in records is shared with those around them on the same surface, and with nothing else. */
class RareIrradianceTest {
    private static final int GROUPS = 2, CHANNELS = 3 * GROUPS, ACROSS = 20;
    private static final float STEP = 0.1f, USUAL = 2;

    /** Records all over a square; one in its middle has found green light in the second group. */
    private static RecordSamples surface(float height, float facing, float wide, float find) {
        RecordSamples s = new RecordSamples(CHANNELS);
        for (int y = 0; y < ACROSS; y++) for (int x = 0; x < ACROSS; x++) {
            float more = x == ACROSS / 2 && y == ACROSS / 2 ? find : 0;
            float[] rare = {0, 0, 0, 0, more, 0}, light = {USUAL, USUAL, USUAL, USUAL, USUAL + more, USUAL};
            s.add(x * STEP, y * STEP, height, 0, 0, facing, 0.12f, new float[] {0, 0, 0, 1, 0, 0}, light);
            s.rare(wide, rare);
        }
        return s;
    }

    private static void share(Sight sight, RecordSamples... chunks) {
        RareIrradiance r = new RareIrradiance(CHANNELS);
        r.round(chunks);
        for (RecordSamples c : chunks) r.share(c, sight);
    }

    private static final Sight OPEN = (x, y, z, nx, ny, nz, tx, ty, tz) -> true;

    private static float green(RecordSamples s, int record) {
        return s.data[record * s.stride + IrradianceCache.LIGHT + 4];
    }

    private static double sum(RecordSamples s) {
        double sum = 0;
        for (int i = 0; i < s.count; i++) sum += green(s, i) - USUAL;
        return sum;
    }

    private static final int MIDDLE = ACROSS / 2 * ACROSS + ACROSS / 2;

    @Test
    void findsAreSharedAndNoLightIsLost() {
        RecordSamples s = surface(0, 1, 0.4f, 10);
        share(OPEN, null, s);
        assertTrue(green(s, MIDDLE) < USUAL + 1, "it does not stand out: " + green(s, MIDDLE));
        assertEquals(10, sum(s), 0.05);
        assertEquals(USUAL, green(s, 0), 1e-6, "no further than that");
        assertEquals(USUAL, s.data[MIDDLE * s.stride + IrradianceCache.LIGHT], 1e-6, "the group alone");
    }

    @Test
    void gradientsStayThoseOfTheUsualLight() {
        RecordSamples s = surface(0, 1, 0.4f, 10);
        float before = CellSamples.luminance(s.data, (MIDDLE - 1) * s.stride + IrradianceCache.LIGHT, CHANNELS);
        share(OPEN, s);
        int o = (MIDDLE - 1) * s.stride;
        float after = CellSamples.luminance(s.data, o + IrradianceCache.LIGHT, CHANNELS);
        assertTrue(after > 1.01f * before);
        assertEquals(before, after * s.data[o + IrradianceCache.TRANSLATION], 1e-4 * before, "as steep as before, of more light");
    }

    @Test
    void otherSurfacesGetNothing() {
        RecordSamples floor = surface(0, 1, 0.4f, 10), below = surface(-0.1f, -1, 0.4f, 0), table = surface(0.7f, 1, 0.4f, 0);
        share(OPEN, floor, below, table);
        assertEquals(10, sum(floor), 0.05);
        for (RecordSamples s : List.of(below, table)) assertEquals(0, sum(s), 1e-4);
    }

    /** The only record of a later round shares with those that were there, which stay as they are. */
    @Test
    void earlierRoundsAreAsked() {
        RecordSamples first = surface(0, 1, 0.4f, 0), late = new RecordSamples(CHANNELS);
        late.add(1.05f, 1.05f, 0, 0, 0, 1, 0.02f, new float[6], new float[] {USUAL, USUAL, USUAL, USUAL, USUAL + 10, USUAL});
        late.rare(0.08f, new float[] {0, 0, 0, 0, 10, 0});
        RareIrradiance r = new RareIrradiance(CHANNELS);
        for (RecordSamples s : new RecordSamples[] {first, late}) {
            r.round(s);
            r.share(s, OPEN);
        }
        assertTrue(green(late, 0) < USUAL + 5, "it does not keep all of it: " + green(late, 0));
        assertTrue(green(late, 0) > USUAL, "nor loses it");
        assertEquals(0, sum(first), 1e-4);
    }

    @Test
    void whatStandsAloneKeepsItsOwn() {
        RecordSamples s = surface(0, 1, 0.05f, 10);
        share(OPEN, s);
        assertEquals(USUAL + 10, green(s, MIDDLE), 1e-5);
        RecordSamples none = surface(0, 1, 0, 10);
        share(OPEN, none);
        assertEquals(USUAL + 10, green(none, MIDDLE), 1e-5);
    }

    /** A wall across the middle keeps what is found before it there. */
    @Test
    void nothingPassesAWall() {
        RecordSamples s = surface(0, 1, 0.4f, 10);
        float wall = (ACROSS / 2 + 0.5f) * STEP;
        share((x, y, z, nx, ny, nz, tx, ty, tz) -> x < wall == tx < wall, s);
        // Those that stand by the wall have fewer to share with.
        assertEquals(10, sum(s), 3);
        for (int i = 0; i < s.count; i++) if (s.data[i * s.stride] > wall) assertEquals(USUAL, green(s, i), 1e-6);
        assertTrue(green(s, MIDDLE) < USUAL + 2, "before it it is shared: " + green(s, MIDDLE));
    }

    /** What all have found alike is not rare for any, by a wall or not. */
    @Test
    void whatAllHaveStays() {
        RecordSamples s = new RecordSamples(CHANNELS);
        float[] light = {USUAL, USUAL, USUAL, USUAL, USUAL + 1, USUAL};
        for (int i = 0; i < 400; i++) {
            s.add(i % 20 * STEP, i / 20 * STEP * (1 + i / 100), 0, 0, 0, 1, 0.12f, new float[6], light);
            s.rare(0.2f + 0.001f * i, new float[] {0, 0, 0, 0, 1, 0});
        }
        share((x, y, z, nx, ny, nz, tx, ty, tz) -> x < 1 == tx < 1, s);
        for (int i = 0; i < s.count; i++) assertEquals(USUAL + 1, green(s, i), 1e-4);
    }
}
