package bake.core.math;

import java.util.Arrays;

/**
 * A tile of numbers in which near ones differ most: shifting each pixel's random numbers by it pushes the error of a picture of
 * few samples into the finest grain, where the eye and denoisers lose it (Georgiev and Fajardo 2016, "Blue-noise Dithered
 * Sampling"). Made by void-and-cluster (Ulichney 1993): the order in which points fill the tile, each into the largest void.
 */
final class BlueNoise {
    static final int SIZE = 64, COUNT = SIZE * SIZE;
    private static final double SIGMA = 1.9;
    private static final int REACH = 9;
    /** The tile as fractions of one in 32 bits; each value once. */
    static final int[] TILE = make();

    private BlueNoise() {}

    /** The value for a pixel, for the given dimension: the tile is moved on by irrational steps (Roberts 2018, the R2 sequence). */
    static int at(int x, int y, int dimension) {
        int mx = x + (int) ((dimension + 1) * 3242174889L >>> 26) & SIZE - 1,
                my = y + (int) ((dimension + 1) * 2447445414L >>> 26) & SIZE - 1;
        return TILE[my * SIZE + mx];
    }

    private static int[] make() {
        float[] kernel = new float[(2 * REACH + 1) * (2 * REACH + 1)];
        for (int dy = -REACH; dy <= REACH; dy++)
            for (int dx = -REACH; dx <= REACH; dx++) kernel[(dy + REACH) * (2 * REACH + 1) + dx + REACH] =
                    (float) Math.exp(-(dx * dx + dy * dy) / (2 * SIGMA * SIGMA));
        boolean[] on = new boolean[COUNT];
        float[] energy = new float[COUNT];
        int first = COUNT / 10;
        java.util.SplittableRandom random = new java.util.SplittableRandom(1);
        for (int k = 0; k < first; ) {
            int i = random.nextInt(COUNT);
            if (on[i]) continue;
            set(on, energy, kernel, i, true);
            k++;
        }
        // Move points from clusters to voids until none would move.
        for (int k = 0; k < 4 * COUNT; k++) {
            int cluster = extreme(on, energy, true);
            set(on, energy, kernel, cluster, false);
            int empty = extreme(on, energy, false);
            set(on, energy, kernel, empty, true);
            if (empty == cluster) break;
        }
        int[] rank = new int[COUNT];
        boolean[] start = on.clone();
        float[] startEnergy = energy.clone();
        for (int k = first - 1; k >= 0; k--) {
            int i = extreme(on, energy, true);
            set(on, energy, kernel, i, false);
            rank[i] = k;
        }
        System.arraycopy(start, 0, on, 0, COUNT);
        System.arraycopy(startEnergy, 0, energy, 0, COUNT);
        for (int k = first; k < COUNT; k++) {
            int i = extreme(on, energy, false);
            set(on, energy, kernel, i, true);
            rank[i] = k;
        }
        int[] tile = new int[COUNT];
        Arrays.setAll(tile, i -> (int) (long) ((rank[i] + 0.5) / COUNT * 0x1p32));
        return tile;
    }

    private static void set(boolean[] on, float[] energy, float[] kernel, int i, boolean to) {
        on[i] = to;
        int x = i % SIZE, y = i / SIZE;
        for (int dy = -REACH; dy <= REACH; dy++)
            for (int dx = -REACH; dx <= REACH; dx++) {
                int j = (y + dy & SIZE - 1) * SIZE + (x + dx & SIZE - 1);
                float k = kernel[(dy + REACH) * (2 * REACH + 1) + dx + REACH];
                energy[j] += to ? k : -k;
            }
    }

    /** The point in the tightest cluster, or the empty place in the largest void. */
    private static int extreme(boolean[] on, float[] energy, boolean cluster) {
        int best = -1;
        for (int i = 0; i < COUNT; i++)
            if (on[i] == cluster && (best < 0 || (cluster ? energy[i] > energy[best] : energy[i] < energy[best]))) best = i;
        return best;
    }
}
