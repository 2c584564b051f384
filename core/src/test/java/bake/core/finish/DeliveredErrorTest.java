package bake.core.finish;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class DeliveredErrorTest {
    private static final int W = 600, H = 400;

    /** A grey wall, noisy in one band of its height alone. */
    private static Film film(int samples, int from, int to) {
        Film f = Film.merged(W, H, 1);
        SplittableRandom r = new SplittableRandom(3);
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++)
                for (int s = 0; s < samples; s++) {
                    float l = 0.3f * (y >= from && y < to ? (float) -Math.log(1 - r.nextDouble()) : 1);
                    f.add(x, y, new float[] {l, l, l});
                    f.addFeatures(x, y, new float[] {0.5f, 0.5f, 0.5f, 0, 0, 1, 4});
                }
        return f;
    }

    /** Wherever the noise is, pieces of a large picture find as much of it as the whole has. */
    @Tag("thorough")
    @Test
    void piecesTellAsMuchAsTheWhole() {
        Finish finish = new Finish(1, Look.PLAIN);
        Region all = Region.all(W, H);
        for (int at : new int[] {0, 150, 300}) {
            Film f = film(8, at, at + 100);
            DeliveredError whole = DeliveredError.of(f, all, finish, W * H, () -> false),
                    part = DeliveredError.of(f, all, finish, 50_000, () -> false);
            assertTrue(whole.percent() > 1, whole.toString());
            assertEquals(1, part.percent() / whole.percent(), 0.25, "noise from row " + at + ": " + part + " for " + whole);
            assertEquals(1, part.worst() / whole.worst(), 0.25, "noise from row " + at + ": " + part + " for " + whole);
        }
    }

    @Test
    void aPieceOfAPictureIsJudgedAlone() {
        Finish finish = new Finish(1, Look.PLAIN);
        Film f = film(8, 0, 100);
        DeliveredError noisy = DeliveredError.of(f, new Region(0, 0, W, 90), finish, 20_000, () -> false),
                still = DeliveredError.of(f, new Region(0, 200, W, 200), finish, 20_000, () -> false);
        assertTrue(noisy.percent() > 20 * still.percent(), noisy + " and " + still);
        assertNull(DeliveredError.of(f, Region.all(W, H), finish, 20_000, () -> true), "stopped");
        assertNull(DeliveredError.of(film(1, 0, 100), Region.all(W, H), finish, 20_000, () -> false), "one sample has no halves");
    }
}
