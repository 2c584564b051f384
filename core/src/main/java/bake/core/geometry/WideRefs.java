package bake.core.geometry;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorShuffle;
import jdk.incubator.vector.VectorSpecies;

/** What {@link Range} and {@link Bins} do to references, one 256 bit vector a reference; the results are the same to the bit. */
final class WideRefs {
    private static final VectorSpecies<Integer> I = IntVector.SPECIES_256;
    private static final VectorSpecies<Float> F = FloatVector.SPECIES_256;
    private static final IntVector FLIP = IntVector.fromArray(I, new int[] {0, 0, 0, -1, -1, -1, 0, 0}, 0);
    private static final VectorShuffle<Float> OTHER = VectorShuffle.fromValues(F, 3, 4, 5, 0, 1, 2, 6, 7);

    private WideRefs() {}

    static void merge(int[] into, int o, int[] from, int p) {
        IntVector.fromArray(I, into, o).min(IntVector.fromArray(I, from, p)).intoArray(into, o);
    }

    static void swap(int[] r, int i, int j) {
        IntVector a = IntVector.fromArray(I, r, i), b = IntVector.fromArray(I, r, j);
        b.intoArray(r, i);
        a.intoArray(r, j);
    }

    /** Integers in the order of floats, or back; it is its own inverse. */
    private static IntVector order(IntVector v) {
        return v.lanewise(VectorOperators.XOR, v.lanewise(VectorOperators.ASHR, 31).lanewise(VectorOperators.AND, 0x7fffffff));
    }

    static void fill(int[] r, int from, int to, float[] centres, Bins bins) {
        float[] c = new float[Range.REF], s = new float[Range.REF];
        System.arraycopy(centres, 0, c, 0, 3);
        System.arraycopy(bins.scale, 0, s, 0, 3);
        FloatVector least = FloatVector.fromArray(F, c, 0), scale = FloatVector.fromArray(F, s, 0);
        IntVector first = IntVector.fromArray(I, new int[] {0, Bins.MOST, 2 * Bins.MOST, 0, 0, 0, 0, 0}, 0);
        int[] into = bins.boxes, n = bins.counts, at = new int[Range.REF];
        for (int o = Range.REF * from; o < Range.REF * to; o += Range.REF) {
            IntVector box = IntVector.fromArray(I, r, o);
            FloatVector f = order(box.lanewise(VectorOperators.XOR, FLIP)).reinterpretAsFloats();
            // Min plus max along x, y and z, twice.
            FloatVector sum = f.add(f.rearrange(OTHER));
            IntVector centre = order(sum.reinterpretAsInts()).lanewise(VectorOperators.XOR, FLIP);
            IntVector b = (IntVector) sum.sub(least).mul(scale).convertShape(VectorOperators.F2I, I, 0);
            b.add(first).intoArray(at, 0);
            int x = at[0], y = at[1], z = at[2];
            r[o + Range.BINS] = Bins.pack(x, y, z);
            n[x]++;
            n[y]++;
            n[z]++;
            x *= Bins.STRIDE;
            y *= Bins.STRIDE;
            z *= Bins.STRIDE;
            box.min(IntVector.fromArray(I, into, x)).intoArray(into, x);
            centre.min(IntVector.fromArray(I, into, x + Bins.CENTRES)).intoArray(into, x + Bins.CENTRES);
            box.min(IntVector.fromArray(I, into, y)).intoArray(into, y);
            centre.min(IntVector.fromArray(I, into, y + Bins.CENTRES)).intoArray(into, y + Bins.CENTRES);
            box.min(IntVector.fromArray(I, into, z)).intoArray(into, z);
            centre.min(IntVector.fromArray(I, into, z + Bins.CENTRES)).intoArray(into, z + Bins.CENTRES);
        }
    }
}
