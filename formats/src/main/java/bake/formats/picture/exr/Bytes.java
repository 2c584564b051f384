package bake.formats.picture.exr;

import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/** Little-endian numbers, and the two steps that several codings end with. */
final class Bytes {
    private Bytes() {}

    static int integer(byte[] b, int o) {
        return b[o] & 255 | (b[o + 1] & 255) << 8 | (b[o + 2] & 255) << 16 | b[o + 3] << 24;
    }

    static long whole(byte[] b, int o) {
        return Integer.toUnsignedLong(integer(b, o)) | (long) integer(b, o + 4) << 32;
    }

    static int unsigned(byte[] b, int o) {
        return b[o] & 255 | (b[o + 1] & 255) << 8;
    }

    /** @param size exact number of bytes that must come out */
    static byte[] inflate(byte[] in, int from, int length, int size) {
        Inflater z = new Inflater();
        try {
            z.setInput(in, from, length);
            byte[] out = new byte[size];
            int n = 0;
            while (n < size) {
                int k = z.inflate(out, n, size - n);
                if (k == 0) break;
                n += k;
            }
            if (n != size) throw new IllegalArgumentException("too short");
            return out;
        } catch (DataFormatException e) {
            throw new IllegalArgumentException(e);
        } finally {
            z.end();
        }
    }

    /** Undoes the differences of neighbours and the split into halves that ZIP and RLE begin with. */
    static byte[] mix(byte[] d) {
        for (int i = 1; i < d.length; i++) d[i] = (byte) (d[i - 1] + d[i] - 128);
        byte[] out = new byte[d.length];
        int half = (d.length + 1) / 2;
        for (int i = 0; i < d.length; i++) out[i] = (i & 1) == 0 ? d[i / 2] : d[half + i / 2];
        return out;
    }

    /** Runs (a count below zero: as many bytes as they are; else one byte, once more than the count). */
    static byte[] runs(byte[] in, int from, int length, int size) {
        byte[] out = new byte[size];
        int n = 0;
        for (int i = from; i < from + length && n < size; ) {
            int c = in[i++];
            if (c < 0) {
                System.arraycopy(in, i, out, n, -c);
                i -= c;
                n -= c;
            } else {
                java.util.Arrays.fill(out, n, n + c + 1, in[i++]);
                n += c + 1;
            }
        }
        if (n != size) throw new IllegalArgumentException("too short");
        return out;
    }
}
