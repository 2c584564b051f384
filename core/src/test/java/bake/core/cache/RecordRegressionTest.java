package bake.core.cache;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** Records that scatter are smoothed along their surface, slopes and steps are kept, and nothing passes a wall. */
class RecordRegressionTest {
    private static final int GROUPS = 2, CHANNELS = 3 * GROUPS, ACROSS = 24;
    private static final float STEP = 0.1f, RADIUS = 0.16f;
    private static final Sight OPEN = (x, y, z, nx, ny, nz, tx, ty, tz) -> true;

    /** Light of a place, the same in all channels. */
    private interface Light {
        double at(float x, float y);
    }

    /** Records all over a square floor, each off by what chance makes of it. */
    private static IrradianceCache floor(Light light, double scatter, long seed) {
        RecordSamples s = new RecordSamples(CHANNELS);
        Random random = new Random(seed);
        for (int y = 0; y < ACROSS; y++) for (int x = 0; x < ACROSS; x++) {
            float px = x * STEP, py = y * STEP, l = (float) (light.at(px, py) + scatter * random.nextGaussian());
            s.add(px, py, 0, 0, 0, 1, RADIUS, new float[6], new float[] {l, l, l, 0, 0, 0});
            s.scatter((float) (scatter * scatter));
        }
        IrradianceCache c = new IrradianceCache(CHANNELS);
        c.merge(new RecordSamples[] {null, s});
        return c;
    }

    private static void smooth(IrradianceCache c, int from, Sight sight) {
        RecordRegression r = new RecordRegression(c, from);
        r.new Fitter(sight).fit(0, r.count());
        r.apply();
    }

    /** Root of the mean squared error of all records at least some places from the square's border. */
    private static double error(IrradianceCache c, Light light, int border) {
        double sum = 0;
        int n = 0;
        for (int y = border; y < ACROSS - border; y++) for (int x = border; x < ACROSS - border; x++, n++)
            sum += Math.pow(c.light(y * ACROSS + x, 1) - light.at(x * STEP, y * STEP), 2);
        return Math.sqrt(sum / n);
    }

    @Test
    void whatScattersIsSmoothed() {
        Light slope = (x, y) -> 2 + x - 0.5 * y;
        IrradianceCache c = floor(slope, 0.3, 1);
        double before = error(c, slope, 0);
        smooth(c, 0, OPEN);
        assertTrue(error(c, slope, 0) < 0.55 * before, error(c, slope, 0) + " of " + before);
        assertTrue(error(c, slope, 4) < 0.5 * before, error(c, slope, 4) + " of " + before + " inside");
        for (int i = 0; i < c.records(); i++) assertEquals(0, c.light(i, 4), "the other group has no light");
    }

    /** A plane is what it was, at the border of a surface too, where all that is around lies on one side. */
    @Test
    void slopesAreKept() {
        Light slope = (x, y) -> 2 + x - 0.5 * y;
        IrradianceCache c = floor(slope, 0, 1);
        for (int i = 0; i < c.records(); i++) assertEquals(0, c.scatter(i));
        smooth(c, 0, OPEN);
        assertEquals(0, error(c, slope, 0), 1e-6, "what does not scatter is left");
        c = floor(slope, 1e-3, 1);
        smooth(c, 0, OPEN);
        assertEquals(0, error(c, slope, 0), 5e-3);
    }

    /** A step that is far more than chance is smoothed over the nearest records alone. */
    @Test
    void stepsAreKept() {
        Light step = (x, y) -> x < ACROSS / 2 * STEP - 0.01 ? 1 : 9;
        IrradianceCache c = floor(step, 0.1, 1);
        smooth(c, 0, OPEN);
        int middle = ACROSS / 2 * ACROSS + ACROSS / 2;
        assertEquals(1, c.light(middle - 3, 0), 0.25, "three places before it");
        assertEquals(9, c.light(middle + 2, 0), 0.25, "two places behind it");
    }

    @Test
    void nothingPassesAWall() {
        Light step = (x, y) -> x < ACROSS / 2 * STEP - 0.01 ? 1 : 9;
        // A wall between the two halves: what lies on the other side is out of sight, and radii end at it.
        Sight wall = (x, y, z, nx, ny, nz, tx, ty, tz) -> step.at(x, y) == step.at(tx, ty);
        RecordSamples s = new RecordSamples(CHANNELS);
        for (int y = 0; y < ACROSS; y++) for (int x = 0; x < ACROSS; x++) {
            float px = x * STEP, py = y * STEP, l = (float) step.at(px, py), r = x == ACROSS / 2 - 1 || x == ACROSS / 2 ? 0.09f : RADIUS;
            s.add(px, py, 0, 0, 0, 1, r, new float[6], new float[] {l, l, l, 0, 0, 0});
            s.scatter(25);
        }
        IrradianceCache c = new IrradianceCache(CHANNELS);
        c.merge(new RecordSamples[] {s});
        smooth(c, 0, wall);
        assertEquals(0, error(c, step, 0), 1e-4);
    }

    @Test
    void recordsOfBeforeStayWhatTheyAre() {
        Light flat = (x, y) -> 2;
        IrradianceCache c = floor(flat, 0.3, 1);
        int n = c.records();
        float first = c.light(n - 1, 0);
        RecordSamples more = new RecordSamples(CHANNELS);
        more.add((ACROSS - 1) * STEP, (ACROSS - 1) * STEP + 0.05f, 0, 0, 0, 1, RADIUS, new float[6], new float[] {4, 4, 4, 0, 0, 0});
        more.scatter(0.09f);
        c.merge(new RecordSamples[] {more});
        smooth(c, n, OPEN);
        assertEquals(first, c.light(n - 1, 0));
        assertTrue(c.light(n, 0) < 3.5, "it agrees with those around: " + c.light(n, 0));
    }

    /** What becomes brighter changes by as much from place to place as before, so by a smaller part. */
    @Test
    void gradientsStayWhatTheyWere() {
        RecordSamples s = new RecordSamples(CHANNELS);
        s.add(0, 0, 0, 0, 0, 1, 1, new float[] {0, 0, 0, 0.5f, 0, 0}, new float[] {2, 2, 2, 0, 0, 0});
        IrradianceCache c = new IrradianceCache(CHANNELS);
        c.merge(new RecordSamples[] {s});
        float[] here = new float[CHANNELS], there = new float[CHANNELS];
        for (float light : new float[] {2, 4}) {
            c.relight(0, new float[] {0, light, light, light, 0, 0, 0}, 1);
            assertEquals(light, c.luminance(0), 1e-5);
            c.read(0, 0, 0, 0, 0, 1, here);
            c.read(0.2f, 0, 0, 0, 0, 1, there);
            assertEquals(0.2, there[0] - here[0], 1e-4, "of " + light);
        }
    }
}
