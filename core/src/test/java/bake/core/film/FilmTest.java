package bake.core.film;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class FilmTest {
    /** Mean and variance are those of the samples. */
    @Test
    void meanAndVariance() {
        SplittableRandom r = new SplittableRandom(3);
        Film f = Film.merged(2, 2, 1);
        int n = 400;
        double sum = 0, square = 0;
        for (int i = 0; i < n; i++) {
            float v = (float) r.nextDouble(0, 10);
            f.add(1, 0, new float[] {v, v, v});
            sum += v;
            square += (double) v * v;
        }
        float[] c = new float[3];
        f.mean(1, 0, null, c);
        assertEquals(sum / n, c[1], 1e-3);
        assertEquals((square - sum * sum / n) / (n - 1) / n, f.variance(1, 0), 2e-4);
        assertEquals(n, f.samples(1, 0));
        assertEquals(0, f.samples(0, 0));
        assertEquals(Double.POSITIVE_INFINITY, f.variance(0, 0));
        assertEquals(n, f.samples());
    }

    /** Groups kept apart add up to what one plane holds, and gains act on their own group alone. */
    @Test
    void groupsAndGains() {
        Film apart = Film.byGroup(1, 1, 3), together = Film.merged(1, 1, 3);
        float[] sample = {1, 2, 3, 10, 20, 30, 100, 200, 300};
        apart.add(0, 0, sample);
        together.add(0, 0, sample);
        assertEquals(3, apart.planes());
        assertEquals(1, together.planes());
        float[] a = new float[3], b = new float[3];
        apart.mean(0, 0, null, a);
        together.mean(0, 0, null, b);
        assertArrayEquals(b, a);
        apart.mean(0, 0, new float[] {1, 1, 1, 0, 0, 0, 2, 2, 2}, a);
        assertArrayEquals(new float[] {201, 402, 603}, a);
        apart.mean(0, 0, 1, a);
        assertArrayEquals(new float[] {10, 20, 30}, a);
        assertEquals(0.2126 * 10 + 0.7152 * 20 + 0.0722 * 30, apart.planeLuminance()[1], 1e-4);
    }

    /** Every second sample makes one half; what is left of the whole is the other. */
    @Test
    void halves() {
        Film f = Film.byGroup(1, 1, 2);
        float[] c = new float[3];
        f.add(0, 0, new float[] {1, 1, 1, 2, 2, 2});
        f.half(0, 0, c);
        assertArrayEquals(new float[] {3, 3, 3}, c);
        f.add(0, 0, new float[] {5, 5, 5, 6, 6, 6});
        f.add(0, 0, new float[] {1, 1, 1, 1, 1, 1});
        f.half(0, 0, c);
        assertArrayEquals(new float[] {11, 11, 11}, c);
        f.add(0, 0, new float[] {2, 2, 2, 3, 3, 3});
        f.half(0, 0, c);
        assertArrayEquals(new float[] {8, 8, 8}, c);
    }

    @Test
    void featuresAreMeans() {
        Film f = Film.merged(1, 1, 1);
        f.add(0, 0, new float[3]);
        f.addFeatures(0, 0, new float[] {0.2f, 0.4f, 0.6f, 0, 0, 1, 5});
        f.add(0, 0, new float[3]);
        f.addFeatures(0, 0, new float[] {0.4f, 0.4f, 0.2f, 0, 1, 0, 7});
        float[] out = new float[7];
        assertTrue(f.hasFeatures());
        f.features(0, 0, out);
        assertArrayEquals(new float[] {0.3f, 0.4f, 0.4f, 0, 0.5f, 0.5f, 6}, out, 1e-6f);
    }

    @Test
    void sizesAreChecked() {
        assertThrows(IllegalArgumentException.class, () -> Film.merged(0, 5, 1));
        assertThrows(IllegalArgumentException.class, () -> Film.byGroup(30_000, 30_000, 9));
    }

    @Test
    void regions() {
        assertEquals(new Region(2, 1, 3, 4), new Region(2, 1, 3, 9).within(5, 5));
        assertEquals(new Region(0, 0, 4, 4), new Region(-2, -3, 6, 7).within(5, 5));
        assertThrows(IllegalArgumentException.class, () -> new Region(9, 9, 4, 4).within(5, 5));
        assertEquals(new Region(0, 0, 3, 2), Region.all(3, 2));
    }

    /** A backdrop that is kept apart: its plane, what lies before it, how much it is covered, and all of that after being saved. */
    @Test
    void backdropApart() {
        Film f = Film.apart(2, 1, 3, 2, Region.all(2, 1)), g = Film.apart(2, 1, 3, 2, Region.all(2, 1));
        float[] before = {1, 1, 1, 2, 2, 2, 0, 0, 0}, behind = {0, 0, 0, 0, 0, 0, 8, 8, 8};
        for (int i = 0; i < 10; i++) {
            f.add(0, 0, i % 2 == 0 ? before : behind);
            f.addCover(0, 0, i % 2 == 0 ? 1 : 0.2f);
        }
        java.util.List<byte[]> kept = new java.util.ArrayList<>();
        f.save(b -> {
            byte[] x = new byte[b.limit()];
            b.get(0, x);
            kept.add(x);
        });
        java.util.Iterator<byte[]> in = kept.iterator();
        g.load(b -> b.put(in.next()));
        for (Film x : new Film[] {f, g}) {
            float[] c = new float[3];
            x.mean(0, 0, null, c);
            assertEquals(5.5, c[0], 1e-6);
            x.mean(0, 0, x.front(), c);
            assertEquals(1.5, c[0], 1e-6);
            assertEquals(0.6, x.cover(0, 0), 1e-6);
            assertEquals(0.16 / 9, x.coverVariance(0, 0), 1e-5);
            // Ten samples, half of them 3 and half 0 before the backdrop.
            assertEquals(2.25 / 9, x.frontVariance(0, 0), 1e-5);
            assertEquals(0, x.cover(1, 0));
        }
        org.junit.jupiter.api.Assertions.assertNull(Film.apart(2, 1, 3, -1, Region.all(2, 1)).front());
    }
}
