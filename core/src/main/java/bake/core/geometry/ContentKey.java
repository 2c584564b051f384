package bake.core.geometry;

import bake.core.math.Affine;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import java.util.List;

/**
 * A 128 bit key of what a hierarchy is built from: two multiplicative hashes over the content, mixed at the end (finalizer
 * of SplitMix64, Steele, Lea and Flood 2014). It tells contents apart; it is no defence against forgery.
 */
final class ContentKey {
    /** Raised when the same content is built into something else. */
    private static final int EDITION = 1;

    private long a = EDITION, b = 0x9e3779b97f4a7c15L;

    /** The key of instances brought together. */
    static String of(List<Mesh> meshes, List<Instance> instances, int[] source) {
        long[] known = new long[2 * meshes.size()];
        ContentKey k = new ContentKey();
        for (int i = 0; i < source.length; i++) {
            int m = instances.get(i).mesh();
            if (known[2 * m] == 0) {
                ContentKey own = new ContentKey();
                own.mesh(meshes.get(m));
                known[2 * m] = mix(own.a) | 1;
                known[2 * m + 1] = mix(own.b);
            }
            k.add(known[2 * m]);
            k.add(known[2 * m + 1]);
            k.affine(instances.get(i).toWorld());
            k.add(source[i]);
        }
        return String.format("%016x%016x", mix(k.a), mix(k.b));
    }

    private void add(long v) {
        a = (a ^ v) * 0xff51afd7ed558ccdL;
        b = Long.rotateLeft(b, 5) + v * 0xc4ceb9fe1a85ec53L;
    }

    private void mesh(Mesh m) {
        floats(m.positions());
        floats(m.normals());
        floats(m.uvs());
        add(m.material());
        add(m.indices().length);
        for (int i : m.indices()) add(i);
    }

    private void floats(float[] f) {
        add(f == null ? -1 : f.length);
        if (f != null) for (float x : f) add(Float.floatToRawIntBits(x));
    }

    private void affine(Affine t) {
        double[] m = {t.m00(), t.m01(), t.m02(), t.m03(), t.m10(), t.m11(), t.m12(), t.m13(), t.m20(), t.m21(), t.m22(), t.m23()};
        for (double x : m) add(Double.doubleToRawLongBits(x));
    }

    private static long mix(long z) {
        z = (z ^ z >>> 30) * 0xbf58476d1ce4e5b9L;
        z = (z ^ z >>> 27) * 0x94d049bb133111ebL;
        return z ^ z >>> 31;
    }
}
