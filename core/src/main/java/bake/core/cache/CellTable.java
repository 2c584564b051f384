package bake.core.cache;

import java.util.Arrays;

/** A hash table from cell numbers to rows of floats, by linear probing; the rows lie densely in the order in which they were made. */
final class CellTable {
    private static final int EMPTY = -1;

    private final int stride;
    /** Keys of the rows; and for each slot of the table the row that it leads to. */
    private long[] keys = new long[64];
    private int[] slots = new int[128];
    private float[] values;
    /** Samples that each row had at the end of the round before. */
    private float[] settled = new float[64];
    /** Round in which each row was added to last. */
    private int[] touched = new int[64];
    private int size;

    CellTable(int stride) {
        this.stride = stride;
        values = new float[64 * stride];
        Arrays.fill(slots, EMPTY);
    }

    int size() {
        return size;
    }

    long key(int row) {
        return keys[row];
    }

    float[] values() {
        return values;
    }

    long bytes() {
        return 8L * keys.length + 4L * slots.length + 4L * values.length + 4L * settled.length + 4L * touched.length;
    }

    /** Where a cell's values begin; -1 when it is not there. */
    int find(long key, long hash) {
        int mask = slots.length - 1;
        for (int s = (int) hash & mask; ; s = s + 1 & mask) {
            int row = slots[s];
            if (row < 0) return -1;
            if (keys[row] == key) return row * stride;
        }
    }

    /** The same, made where it is not there. */
    int make(long key, long hash) {
        int mask = slots.length - 1, s = (int) hash & mask;
        for (; slots[s] >= 0; s = s + 1 & mask) if (keys[slots[s]] == key) return slots[s] * stride;
        if (size == keys.length) grow();
        keys[size] = key;
        if (2 * size >= slots.length) {
            rehash(2 * slots.length);
            mask = slots.length - 1;
            for (s = (int) hash & mask; slots[s] >= 0; s = s + 1 & mask) {}
        }
        slots[s] = size;
        return stride * size++;
    }

    private void grow() {
        int n = size + size / 2;
        keys = Arrays.copyOf(keys, n);
        settled = Arrays.copyOf(settled, n);
        touched = Arrays.copyOf(touched, n);
        values = Arrays.copyOf(values, n * stride);
    }

    private void rehash(int n) {
        slots = new int[n];
        Arrays.fill(slots, EMPTY);
        for (int row = 0; row < size; row++) {
            int s = (int) CellGrid.hash(keys[row]) & n - 1;
            while (slots[s] >= 0) s = s + 1 & n - 1;
            slots[s] = row;
        }
    }

    /** Samples that the cell whose values begin at a place had at the end of the round before. */
    float settled(int at) {
        return settled[at / stride];
    }

    /** The row whose values begin at a place is about to be added to: for the first time in a round all that is in it is scaled. */
    void touch(int at, int round, float keep) {
        if (touched[at / stride] == round) return;
        touched[at / stride] = round;
        for (int i = at; i < at + stride; i++) values[i] *= keep;
    }

    void settle() {
        for (int row = 0; row < size; row++) settled[row] = values[row * stride];
    }
}
