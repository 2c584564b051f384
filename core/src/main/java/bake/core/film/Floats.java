package bake.core.film;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** Arrays to and from little endian bytes, a piece at a time. */
final class Floats {
    private static final int PIECE = 1 << 16;

    private Floats() {}

    static void write(OutputStream out, float[] a) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(4 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < a.length; i += PIECE) {
            int n = Math.min(PIECE, a.length - i);
            b.asFloatBuffer().put(a, i, n);
            out.write(b.array(), 0, 4 * n);
        }
    }

    static void write(OutputStream out, int[] a) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(4 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < a.length; i += PIECE) {
            int n = Math.min(PIECE, a.length - i);
            b.asIntBuffer().put(a, i, n);
            out.write(b.array(), 0, 4 * n);
        }
    }

    static void read(InputStream in, float[] a) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(4 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < a.length; i += PIECE) b.asFloatBuffer().get(a, i, fill(in, b, a.length - i));
    }

    static void read(InputStream in, int[] a) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(4 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < a.length; i += PIECE) b.asIntBuffer().get(a, i, fill(in, b, a.length - i));
    }

    private static int fill(InputStream in, ByteBuffer b, int left) throws IOException {
        int n = Math.min(PIECE, left);
        if (in.readNBytes(b.array(), 0, 4 * n) < 4 * n) throw new EOFException("the file ends too early");
        return n;
    }
}
