package bake.core.geometry;

/**
 * A run of references during a build, with the box around them and around their centres (times two).
 *
 * <p>Box coordinates are kept as integers in the order of the floats they stand for, those of the far corner with all bits
 * turned over: a box grows by taking eight minima of integers, which need no branch and make one vector.
 */
final class Range {
    /** Ints of a reference: min x y z, turned max x y z, the primitive's number, and the bins that it was last sorted into. */
    static final int REF = 8, ID = 6, BINS = 7;
    private static final float INF = Float.POSITIVE_INFINITY;

    int from, to;
    /** The box around the boxes, as that of a reference. */
    final int[] box = new int[REF];
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

    /** Coordinate 0 to 5 (min x y z, max x y z) of a box. */
    static float coordinate(int[] box, int o, int a) {
        return value(a < 3 ? box[o + a] : ~box[o + a]);
    }

    /** Writes a box given as min x y z, max x y z. */
    static void put(float[] from, int p, int[] box, int o) {
        for (int a = 0; a < 3; a++) {
            box[o + a] = sortable(from[p + a]);
            box[o + 3 + a] = ~sortable(from[p + 3 + a]);
        }
    }

    /** A box that holds nothing. */
    static void clear(int[] box, int o) {
        for (int k = 0; k < REF; k++) box[o + k] = Integer.MAX_VALUE;
    }

    void copy(Range r) {
        from = r.from;
        to = r.to;
        System.arraycopy(r.box, 0, box, 0, REF);
        System.arraycopy(r.centres, 0, centres, 0, 6);
    }

    int size() {
        return to - from;
    }

    float halfArea() {
        return halfArea(box, 0);
    }

    static float halfArea(int[] b, int o) {
        if (b[o] == Integer.MAX_VALUE) return 0;
        float x = value(~b[o + 3]) - value(b[o]), y = value(~b[o + 4]) - value(b[o + 1]), z = value(~b[o + 5]) - value(b[o + 2]);
        return x * y + y * z + z * x;
    }

    /** Widens the box at {@code into[o]} by the one at {@code from[p]}. */
    static void merge(int[] into, int o, int[] from, int p) {
        if (Tracer.VECTORS) WideRefs.merge(into, o, from, p);
        else for (int k = 0; k < 6; k++) into[o + k] = Math.min(into[o + k], from[p + k]);
    }

    /** Measures references [from, to): their boxes and their centres. */
    void measure(int[] refs) {
        clear(box, 0);
        for (int k = 0; k < 3; k++) {
            centres[k] = INF;
            centres[3 + k] = -INF;
        }
        for (int o = REF * from; o < REF * to; o += REF) {
            merge(box, 0, refs, o);
            for (int k = 0; k < 3; k++) {
                float c = value(refs[o + k]) + value(~refs[o + 3 + k]);
                if (c < centres[k]) centres[k] = c;
                if (c > centres[3 + k]) centres[3 + k] = c;
            }
        }
    }
}
