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
        RareIrradiance.share(new RecordSamples[] {null, s}, CHANNELS);
        assertTrue(green(s, MIDDLE) < USUAL + 1, "it does not stand out: " + green(s, MIDDLE));
        assertEquals(10, sum(s), 0.05);
        assertEquals(USUAL, green(s, 0), 1e-6, "no further than that");
        assertEquals(USUAL, s.data[MIDDLE * s.stride + IrradianceCache.LIGHT], 1e-6, "the group alone");
    }

    @Test
    void gradientsStayThoseOfTheUsualLight() {
        RecordSamples s = surface(0, 1, 0.4f, 10);
        float before = CellSamples.luminance(s.data, (MIDDLE - 1) * s.stride + IrradianceCache.LIGHT, CHANNELS);
        RareIrradiance.share(new RecordSamples[] {s}, CHANNELS);
        int o = (MIDDLE - 1) * s.stride;
        float after = CellSamples.luminance(s.data, o + IrradianceCache.LIGHT, CHANNELS);
        assertTrue(after > 1.01f * before);
        assertEquals(before, after * s.data[o + IrradianceCache.TRANSLATION], 1e-4 * before, "as steep as before, of more light");
    }

    @Test
    void otherSurfacesGetNothing() {
        RecordSamples floor = surface(0, 1, 0.4f, 10), below = surface(-0.1f, -1, 0.4f, 0), table = surface(0.7f, 1, 0.4f, 0);
        RareIrradiance.share(new RecordSamples[] {floor, below, table}, CHANNELS);
        assertEquals(10, sum(floor), 0.05);
        for (RecordSamples s : List.of(below, table)) assertEquals(0, sum(s), 1e-4);
    }

    @Test
    void whatStandsAloneKeepsItsOwn() {
        RecordSamples s = surface(0, 1, 0.05f, 10);
        RareIrradiance.share(new RecordSamples[] {s}, CHANNELS);
        assertEquals(USUAL + 10, green(s, MIDDLE), 1e-5);
        RecordSamples none = surface(0, 1, 0, 10);
        RareIrradiance.share(new RecordSamples[] {none}, CHANNELS);
        assertEquals(USUAL + 10, green(none, MIDDLE), 1e-5);
    }

    /** Cached records are those that were shared, once. */
    @Test
    void cachesShareWhatTheyTakeIn() {
        IrradianceCache c = new IrradianceCache(CHANNELS);
        c.merge(new RecordSamples[] {surface(0, 1, 0.4f, 10)});
        float[] out = new float[CHANNELS];
        assertEquals(IrradianceCache.Known.ENOUGH, c.read(1, 1, 0, 0, 0, 1, out));
        assertTrue(out[4] < USUAL + 1 && out[4] > USUAL + 0.1, "light " + out[4]);
    }
}
