package bake.core.geometry;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Arrays;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BvhBuilderTest {
    private static final ForkJoinPool POOL = new ForkJoinPool(2);

    /** Every primitive in exactly one leaf, every box around all below it, children after their parents. */
    @ParameterizedTest
    @CsvSource({"1,4", "2,4", "4,4", "5,4", "33,1", "1000,4", "1000,1", "40000,4"})
    void holdsEveryPrimitiveOnce(int n, int block) {
        float[] boxes = boxes(n, 7);
        Bvh b = BvhBuilder.build(boxes, block, POOL);
        int[] met = new int[n];
        check(b, boxes, 0, met);
        for (int i = 0; i < n; i++) assertEquals(1, met[i], "primitive " + i);
        for (int k = 0; k < 3; k++) {
            int axis = k;
            double lo = java.util.stream.IntStream.range(0, n).mapToDouble(i -> boxes[6 * i + axis]).min().orElseThrow();
            double hi = java.util.stream.IntStream.range(0, n).mapToDouble(i -> boxes[6 * i + 3 + axis]).max().orElseThrow();
            assertEquals(lo, b.bounds()[k], 0);
            assertEquals(hi, b.bounds()[3 + k], 0);
        }
    }

    /** All boxes the same: nothing can be told apart, and still the tree ends. */
    @Test
    void equalBoxes() {
        float[] boxes = new float[6 * 500];
        for (int i = 0; i < 500; i++) Arrays.fill(boxes, 6 * i + 3, 6 * i + 6, 1);
        int[] met = new int[500];
        check(BvhBuilder.build(boxes, 4, POOL), boxes, 0, met);
        assertTrue(Arrays.stream(met).allMatch(m -> m == 1));
    }

    /** Sizes from a hair to a country: no bin swallows the small ones into an endless chain. */
    @Test
    void hugeRange() {
        SplittableRandom r = new SplittableRandom(3);
        int n = 3000;
        float[] boxes = new float[6 * n];
        for (int i = 0; i < n; i++) {
            double scale = Math.pow(10, r.nextDouble(-6, 6));
            for (int k = 0; k < 3; k++) {
                boxes[6 * i + k] = (float) (scale * r.nextDouble(-1, 1));
                boxes[6 * i + 3 + k] = boxes[6 * i + k] + (float) (scale * 0.1);
            }
        }
        int[] met = new int[n];
        int depth = check(BvhBuilder.build(boxes, 4, POOL), boxes, 0, met);
        assertTrue(Arrays.stream(met).allMatch(m -> m == 1));
        assertTrue(depth < 64, "depth " + depth);
    }

    @Test
    void nothingIsRefused() {
        assertThrows(IllegalArgumentException.class, () -> BvhBuilder.build(new float[0], 4, POOL));
    }

    /** Splitting by the heuristic must beat halving by index, or it does nothing. */
    @Test
    void heuristicPays() {
        float[] boxes = boxes(20_000, 5);
        Bvh b = BvhBuilder.build(boxes, 4, POOL);
        double cost = cost(b, 0), area = Range.halfArea(bounds(b), 0);
        // Measured: 30. Leaves of four taken in the order given would each be about as large as the cube: thousands.
        assertTrue(cost / area < 35, "expected visits of a ray through the cube: " + cost / area);
    }

    private static int[] bounds(Bvh b) {
        int[] s = new int[Range.REF];
        Range.put(b.bounds(), 0, s, 0);
        return s;
    }

    private static double cost(Bvh b, int node) {
        double sum = 0;
        for (int k = 0; k < Bvh.WIDTH; k++) {
            int c = b.child(node, k);
            if (c == Bvh.NOTHING) continue;
            float[] corners = new float[6];
            for (int a = 0; a < 6; a++) corners[a] = coordinate(b, node, a, k);
            int[] box = new int[Range.REF];
            Range.put(corners, 0, box, 0);
            sum += Range.halfArea(box, 0);
            if (c >= 0) sum += cost(b, c);
        }
        return sum;
    }

    private static float coordinate(Bvh b, int node, int a, int k) {
        return Float.intBitsToFloat(b.nodes()[node + 8 * a + k]);
    }

    @Test
    void vectorsAndSingleNumbersFillTheSameBins() {
        float[] boxes = boxes(5000, 8);
        int[] wide = new int[Range.REF * 5000];
        for (int i = 0; i < 5000; i++) Range.put(boxes, 6 * i, wide, Range.REF * i);
        int[] single = wide.clone();
        Range all = new Range();
        all.to = 5000;
        all.measure(wide);
        Bins a = new Bins(), b = new Bins();
        a.prepare(all);
        b.prepare(all);
        WideRefs.fill(wide, 0, 5000, all.centres, a);
        b.fill(single, 0, 5000, all.centres);
        assertArrayEquals(b.counts, a.counts);
        assertArrayEquals(single, wide);
        for (int k = 0; k < b.boxes.length; k++) if (k % Range.REF < 6) assertEquals(b.boxes[k], a.boxes[k], "int " + k);
    }

    private static float[] boxes(int n, long seed) {
        SplittableRandom r = new SplittableRandom(seed);
        float[] boxes = new float[6 * n];
        for (int i = 0; i < n; i++)
            for (int k = 0; k < 3; k++) {
                boxes[6 * i + k] = (float) r.nextDouble(-10, 10);
                boxes[6 * i + 3 + k] = boxes[6 * i + k] + (float) r.nextDouble(0.5);
            }
        return boxes;
    }

    /** Walks the tree, counts primitives and checks boxes; returns the depth. */
    private static int check(Bvh b, float[] boxes, int node, int[] met) {
        int depth = 0;
        for (int k = 0; k < Bvh.WIDTH; k++) {
            int c = b.child(node, k);
            if (c == Bvh.NOTHING) {
                assertEquals(Float.POSITIVE_INFINITY, coordinate(b, node, 0, k));
                assertEquals(Float.NEGATIVE_INFINITY, coordinate(b, node, 3, k));
                continue;
            }
            if (c >= 0) {
                assertTrue(c > node, "children come after their parents");
                depth = Math.max(depth, check(b, boxes, c, met));
                for (int j = 0; j < Bvh.WIDTH; j++) if (b.child(c, j) != Bvh.NOTHING) for (int a = 0; a < 3; a++) {
                    assertTrue(coordinate(b, c, a, j) >= coordinate(b, node, a, k));
                    assertTrue(coordinate(b, c, 3 + a, j) <= coordinate(b, node, 3 + a, k));
                }
            } else for (int s = 0; s < b.block(); s++) {
                int p = b.order()[b.block() * ~c + s];
                if (p < 0) continue;
                met[p]++;
                for (int a = 0; a < 3; a++) {
                    assertTrue(boxes[6 * p + a] >= coordinate(b, node, a, k));
                    assertTrue(boxes[6 * p + 3 + a] <= coordinate(b, node, 3 + a, k));
                }
            }
        }
        return depth + 1;
    }

    @Test
    void sortableKeepsTheOrder() {
        float[] f = {Float.NEGATIVE_INFINITY, -1e30f, -2, -1, -Float.MIN_VALUE, -0f, 0, Float.MIN_VALUE, 1, 2, 1e30f,
                Float.POSITIVE_INFINITY};
        for (int i = 0; i < f.length; i++) {
            assertEquals(f[i], Range.value(Range.sortable(f[i])), 0);
            if (i > 0) assertTrue(Range.sortable(f[i - 1]) < Range.sortable(f[i]), f[i - 1] + " comes before " + f[i]);
        }
    }
}
