package bake.core.film;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.function.Consumer;

/** Arrays to and from little endian bytes, a piece at a time. */
final class Floats {
    private static final int PIECE = 1 << 16;

    private Floats() {}

    private static ByteBuffer piece() {
        return ByteBuffer.allocate(4 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
    }

    static void write(Consumer<ByteBuffer> out, float[] a) {
        ByteBuffer b = piece();
        for (int i = 0; i < a.length; i += PIECE) {
            int n = Math.min(PIECE, a.length - i);
            b.clear().limit(4 * n);
            b.asFloatBuffer().put(a, i, n);
            out.accept(b);
        }
    }

    static void write(Consumer<ByteBuffer> out, int[] a) {
        ByteBuffer b = piece();
        for (int i = 0; i < a.length; i += PIECE) {
            int n = Math.min(PIECE, a.length - i);
            b.clear().limit(4 * n);
            b.asIntBuffer().put(a, i, n);
            out.accept(b);
        }
    }

    static void read(Consumer<ByteBuffer> in, float[] a) {
        ByteBuffer b = piece();
        for (int i = 0; i < a.length; i += PIECE) {
            int n = Math.min(PIECE, a.length - i);
            b.clear().limit(4 * n);
            in.accept(b);
            b.rewind().asFloatBuffer().get(a, i, n);
        }
    }

    static void read(Consumer<ByteBuffer> in, int[] a) {
        ByteBuffer b = piece();
        for (int i = 0; i < a.length; i += PIECE) {
            int n = Math.min(PIECE, a.length - i);
            b.clear().limit(4 * n);
            in.accept(b);
            b.rewind().asIntBuffer().get(a, i, n);
        }
    }
}
