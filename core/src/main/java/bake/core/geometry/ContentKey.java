package bake.core.geometry;

import bake.core.math.Affine;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import java.util.zip.CRC32;
import java.util.zip.CRC32C;

/**
 * A key of what a hierarchy is built from: two checksums over the content and its length. It tells contents apart; it is
 * no defence against forgery. Checksums, because the virtual machine has them at full speed from the first call.
 */
final class ContentKey {
    /** Raised when the same content is built into something else. */
    private static final int EDITION = 3;

    private final CRC32C a = new CRC32C();
    private final CRC32 b = new CRC32();
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(1 << 16).order(ByteOrder.LITTLE_ENDIAN);
    private long length;

    private ContentKey() {}

    /** The key of instances brought together. */
    static String of(List<Mesh> meshes, List<Instance> instances, int[] source) {
        ContentKey k = new ContentKey();
        k.ints(EDITION, source.length);
        boolean[] known = new boolean[meshes.size()];
        for (int i = 0; i < source.length; i++) {
            Instance in = instances.get(i);
            k.ints(source[i], in.mesh());
            k.affine(in.toWorld());
            if (!known[in.mesh()]) k.mesh(meshes.get(in.mesh()));
            known[in.mesh()] = true;
        }
        k.flush();
        return String.format("%08x%08x%010x", k.a.getValue(), k.b.getValue(), k.length);
    }

    private void room(int bytes) {
        if (buffer.remaining() < bytes) flush();
    }

    private void flush() {
        length += buffer.position();
        buffer.flip();
        a.update(buffer.duplicate());
        b.update(buffer);
        buffer.clear();
    }

    private void ints(int x, int y) {
        room(8);
        buffer.putInt(x).putInt(y);
    }

    private void mesh(Mesh m) {
        ints(m.material(), m.indices().length);
        floats(m.positions());
        floats(m.normals());
        floats(m.uvs());
        if (m.colours() != null) floats(m.colours());
        for (int at = 0; at < m.indices().length; ) {
            flush();
            int n = Math.min(m.indices().length - at, buffer.capacity() / 4);
            buffer.asIntBuffer().put(m.indices(), at, n);
            buffer.position(4 * n);
            at += n;
        }
    }

    private void floats(float[] f) {
        int count = f == null ? 0 : f.length;
        ints(f == null ? 0 : 1, count);
        for (int at = 0; at < count; ) {
            flush();
            int n = Math.min(count - at, buffer.capacity() / 4);
            buffer.asFloatBuffer().put(f, at, n);
            buffer.position(4 * n);
            at += n;
        }
    }

    private void affine(Affine t) {
        room(96);
        buffer.putDouble(t.m00()).putDouble(t.m01()).putDouble(t.m02()).putDouble(t.m03()).putDouble(t.m10()).putDouble(t.m11())
                .putDouble(t.m12()).putDouble(t.m13())
                .putDouble(t.m20()).putDouble(t.m21()).putDouble(t.m22()).putDouble(t.m23());
    }
}
