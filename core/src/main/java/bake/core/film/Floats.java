package bake.core.film;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.function.Consumer;

/** Arrays to and from little endian bytes, a piece at a time. */
final class Floats {
    private static final int PIECE = 1 << 16;

    private Floats() {}

    /** What is done with {@code n} numbers of an array from place {@code from} on, and the bytes that stand for them. */
    private interface Piece {
        void move(ByteBuffer bytes, int from, int n);
    }

    private static void each(int length, Piece piece) {
        ByteBuffer b = ByteBuffer.allocate(4 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < length; i += PIECE) {
            int n = Math.min(PIECE, length - i);
            piece.move(b.clear().limit(4 * n), i, n);
        }
    }

    static void write(Consumer<ByteBuffer> out, float[] a) {
        each(a.length, (b, from, n) -> {
            b.asFloatBuffer().put(a, from, n);
            out.accept(b);
        });
    }

    static void write(Consumer<ByteBuffer> out, int[] a) {
        each(a.length, (b, from, n) -> {
            b.asIntBuffer().put(a, from, n);
            out.accept(b);
        });
    }

    static void read(Consumer<ByteBuffer> in, float[] a) {
        each(a.length, (b, from, n) -> {
            in.accept(b);
            b.rewind().asFloatBuffer().get(a, from, n);
        });
    }

    static void read(Consumer<ByteBuffer> in, int[] a) {
        each(a.length, (b, from, n) -> {
            in.accept(b);
            b.rewind().asIntBuffer().get(a, from, n);
        });
    }
}
