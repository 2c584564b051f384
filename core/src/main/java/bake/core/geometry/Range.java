package bake.core.geometry;

/**
 * A run of references during a build, with the box around them and around their centres (times two).
 *
 * <p>Box coordinates are kept as integers in the order of the floats they stand for: minimum and maximum of integers need
 * no branch, those of floats do.
 */
final class Range {
    /** Ints of a reference: min x y z, max x y z, the primitive's number, and one that is left unused. */
    static final int REF = 8, ID = 6;
    private static final float INF = Float.POSITIVE_INFINITY;
    private static final int LEAST = sortable(-INF), MOST = sortable(INF);

    int from, to;
    /** Min x y z and max x y z of the boxes, sortable. */
    final int[] box = new int[6];
    /** Least and greatest min plus max of the boxes. */
    final float[] centres = new float[6];

    /** An integer whose order is that of the floats; zero and minus zero are next to each other. */
    static int sortable(float f) {
        int i = Float.floatToRawIntBits(f);
        return i ^ (i >> 31 & 0x7fffffff);
    }

    /** The float behind {@link #sortable}. */
    static float value(int s) {
        return Float.intBitsToFloat(s ^ (s >> 31 & 0x7fffffff));
    }

    static void clear(int[] box, int o) {
        box[o] = box[o + 1] = box[o + 2] = MOST;
        box[o + 3] = box[o + 4] = box[o + 5] = LEAST;
    }

    void copy(Range r) {
        from = r.from;
        to = r.to;
        System.arraycopy(r.box, 0, box, 0, 6);
        System.arraycopy(r.centres, 0, centres, 0, 6);
    }

    int size() {
        return to - from;
    }

    float halfArea() {
        return halfArea(box, 0);
    }

    static float halfArea(int[] b, int o) {
        if (b[o] > b[o + 3]) return 0;
        float x = value(b[o + 3]) - value(b[o]), y = value(b[o + 4]) - value(b[o + 1]), z = value(b[o + 5]) - value(b[o + 2]);
        return x * y + y * z + z * x;
    }

    /** Widens the box at {@code into[o]} by the one at {@code from[p]}. */
    static void merge(int[] into, int o, int[] from, int p) {
        into[o] = Math.min(into[o], from[p]);
        into[o + 1] = Math.min(into[o + 1], from[p + 1]);
        into[o + 2] = Math.min(into[o + 2], from[p + 2]);
        into[o + 3] = Math.max(into[o + 3], from[p + 3]);
        into[o + 4] = Math.max(into[o + 4], from[p + 4]);
        into[o + 5] = Math.max(into[o + 5], from[p + 5]);
    }

    /** Measures references [from, to): their boxes and their centres. */
    void measure(int[] refs) {
        clear(box, 0);
        for (int o = REF * from; o < REF * to; o += REF) merge(box, 0, refs, o);
        measureCentres(refs);
    }

    void measureCentres(int[] refs) {
        float x0 = INF, y0 = INF, z0 = INF, x1 = -INF, y1 = -INF, z1 = -INF;
        for (int o = REF * from; o < REF * to; o += REF) {
            float x = value(refs[o]) + value(refs[o + 3]), y = value(refs[o + 1]) + value(refs[o + 4]), z = value(refs[o + 2]) + value(refs[o + 5]);
            if (x < x0) x0 = x;
            if (x > x1) x1 = x;
            if (y < y0) y0 = y;
            if (y > y1) y1 = y;
            if (z < z0) z0 = z;
            if (z > z1) z1 = z;
        }
        centres[0] = x0;
        centres[1] = y0;
        centres[2] = z0;
        centres[3] = x1;
        centres[4] = y1;
        centres[5] = z1;
    }
}
