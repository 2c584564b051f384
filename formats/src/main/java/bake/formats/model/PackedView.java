package bake.formats.model;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * Unpacks buffer views that are packed by EXT_meshopt_compression (Khronos glTF extension, appendix A: bit streams of attributes,
 * triangles and index sequences, and the filters over attributes), and by its successor with version 1 of the attribute stream.
 * Broken streams end in an {@link IllegalArgumentException} or an index out of bounds.
 */
final class PackedView {
    /** Bits of a group's deltas by its two header bits: version 0, and the two kinds of header of version 1. */
    private static final int[][] BITS = {{0, 2, 4, 8}, {0, 1, 2, 4}, {1, 2, 4, 8}};

    private PackedView() {}

    /**
     * @param mode ATTRIBUTES, TRIANGLES or INDICES
     * @param filter NONE, OCTAHEDRAL, QUATERNION or EXPONENTIAL
     */
    static byte[] unpack(byte[] source, int count, int stride, String mode, String filter) {
        if (count < 0 || stride < 1 || stride > 256 || (long) count * stride > Integer.MAX_VALUE - 64 || source.length < 2)
            throw new IllegalArgumentException("sizes that are not possible");
        byte[] out = new byte[count * stride];
        switch (mode) {
            case "ATTRIBUTES" -> attributes(source, count, stride, out);
            case "TRIANGLES" -> new Triangles(source, count, stride, out).run();
            case "INDICES" -> indices(source, count, stride, out);
            default -> throw new IllegalArgumentException("the unknown mode " + mode);
        }
        ByteBuffer b = ByteBuffer.wrap(out).order(ByteOrder.LITTLE_ENDIAN);
        switch (filter) {
            case "NONE" -> {}
            case "OCTAHEDRAL" -> octahedral(b, count, stride);
            case "QUATERNION" -> quaternion(b, count, stride);
            case "EXPONENTIAL" -> exponential(b, count * stride / 4);
            default -> throw new IllegalArgumentException("the unknown filter " + filter);
        }
        return out;
    }

    private static int unzig(int v) {
        return v >>> 1 ^ -(v & 1);
    }

    private static void attributes(byte[] in, int count, int stride, byte[] out) {
        int version = in[0] & 15;
        if ((in[0] & 0xf0) != 0xa0 || version > 1 || stride % 4 != 0) throw new IllegalArgumentException("no attribute stream");
        int block = Math.min(0x2000 / stride & ~15, 256), tail = version == 0 ? stride : stride + stride / 4, end = in.length - tail,
                at = 1;
        byte[] last = Arrays.copyOfRange(in, end, end + stride), deltas = new byte[block * stride + 16];
        for (int from = 0; from < count; from += block) {
            int n = Math.min(count - from, block), groups = n + 15 >>> 4, heads = groups + 3 >>> 2, control = at;
            if (version == 1) at += stride / 4;
            Arrays.fill(deltas, (byte) 0);
            for (int k = 0; k < stride; k++) {
                int kind = version == 0 ? 0 : in[control + (k >>> 2)] >>> ((k & 3) << 1) & 3;
                if (kind == 2) continue;
                if (kind == 3) {
                    System.arraycopy(in, at, deltas, k * n, n);
                    at += n;
                    continue;
                }
                int head = at;
                at += heads;
                for (int g = 0; g < groups; g++)
                    at = group(in, at, BITS[version == 0 ? 0 : kind + 1][in[head + (g >>> 2)] >>> ((g & 3) << 1) & 3], deltas,
                            k * n + (g << 4), n - (g << 4));
            }
            for (int i = 0; i < n; i++) for (int k = 0; k < stride; k += 4)
                step(version == 0 ? 0 : in[end + stride + (k >>> 2)], deltas, i, n, k, last, out, (from + i) * stride);
        }
    }

    /** One group of 16 deltas; only those that exist are kept. */
    private static int group(byte[] in, int at, int bits, byte[] deltas, int to, int room) {
        if (bits == 0) return at;
        int n = Math.min(16, room);
        if (bits == 8) {
            System.arraycopy(in, at, deltas, to, n);
            return at + 16;
        }
        int base = at, full = (1 << bits) - 1;
        at += 2 * bits;
        for (int m = 0; m < 16; m++) {
            int per = 8 / bits, shift = bits == 1 ? m & 7 : 8 - bits - (m % per) * bits, d = in[base + m / per] >>> shift & full;
            if (d == full) d = in[at++];
            if (m < n) deltas[to + m] = (byte) d;
        }
        return at;
    }

    /** Four bytes of an element from those of the one before. */
    private static void step(int channel, byte[] deltas, int i, int n, int k, byte[] last, byte[] out, int o) {
        switch (channel & 3) {
            case 0 -> {
                for (int b = k; b < k + 4; b++) out[o + b] = last[b] += (byte) unzig(deltas[b * n + i] & 255);
            }
            case 1 -> {
                for (int b = k; b < k + 4; b += 2) {
                    int v = (last[b] & 255 | (last[b + 1] & 255) << 8)
                            + unzig(deltas[b * n + i] & 255 | (deltas[(b + 1) * n + i] & 255) << 8);
                    out[o + b] = last[b] = (byte) v;
                    out[o + b + 1] = last[b + 1] = (byte) (v >>> 8);
                }
            }
            case 2 -> {
                int d = 0, v = 0;
                for (int b = 0; b < 4; b++) {
                    d |= (deltas[(k + b) * n + i] & 255) << 8 * b;
                    v |= (last[k + b] & 255) << 8 * b;
                }
                v ^= Integer.rotateRight(d, channel >>> 4 & 15);
                for (int b = 0; b < 4; b++) out[o + k + b] = last[k + b] = (byte) (v >>> 8 * b);
            }
            default -> throw new IllegalArgumentException("an unknown kind of channel");
        }
    }

    private static void indices(byte[] in, int count, int stride, byte[] out) {
        if ((in[0] & 0xf0) != 0xd0 || stride != 2 && stride != 4) throw new IllegalArgumentException("no index stream");
        int[] at = {1}, last = new int[2];
        for (int i = 0; i < count; i++) {
            int v = number(in, at), which = v & 1;
            put(out, i, stride, last[which] += unzig(v >>> 1));
        }
    }

    static int number(byte[] in, int[] at) {
        int n = 0;
        for (int shift = 0; shift < 35; shift += 7) {
            int b = in[at[0]++];
            n |= (b & 127) << shift;
            if (b >= 0) return n;
        }
        throw new IllegalArgumentException("a number that does not end");
    }

    static void put(byte[] out, int i, int stride, int v) {
        for (int k = 0; k < stride; k++) out[i * stride + k] = (byte) (v >>> 8 * k);
    }

    private static void octahedral(ByteBuffer b, int count, int stride) {
        if (stride != 4 && stride != 8) throw new IllegalArgumentException("unit vectors of " + stride + " bytes");
        int size = stride / 4, most = size == 1 ? 127 : 32767;
        for (int i = 0; i < count; i++) {
            int o = i * stride;
            double one = get(b, o + 2 * size, size), x = get(b, o, size) / one, y = get(b, o + size, size) / one,
                    z = 1 - Math.abs(x) - Math.abs(y), t = Math.max(-z, 0);
            x -= x >= 0 ? t : -t;
            y -= y >= 0 ? t : -t;
            double h = most / Math.sqrt(x * x + y * y + z * z);
            set(b, o, size, x * h);
            set(b, o + size, size, y * h);
            set(b, o + 2 * size, size, z * h);
        }
    }

    private static int get(ByteBuffer b, int o, int size) {
        return size == 1 ? b.get(o) : b.getShort(o);
    }

    private static void set(ByteBuffer b, int o, int size, double v) {
        if (size == 1) b.put(o, (byte) Math.round(v));
        else b.putShort(o, (short) Math.round(v));
    }

    private static void quaternion(ByteBuffer b, int count, int stride) {
        if (stride != 8) throw new IllegalArgumentException("rotations of " + stride + " bytes");
        for (int i = 0; i < count; i++) {
            int o = 8 * i, last = b.getShort(o + 6), most = last & 3;
            double s = Math.sqrt(0.5) / (last | 3), x = b.getShort(o) * s, y = b.getShort(o + 2) * s, z = b.getShort(o + 4) * s,
                    w = Math.sqrt(Math.max(0, 1 - x * x - y * y - z * z));
            double[] v = {w, x, y, z};
            for (int k = 0; k < 4; k++) b.putShort(o + 2 * ((most + k) & 3), (short) Math.round(v[k] * 32767));
        }
    }

    private static void exponential(ByteBuffer b, int n) {
        for (int i = 0; i < n; i++) {
            int v = b.getInt(4 * i);
            b.putFloat(4 * i, Math.scalb((float) (v << 8 >> 8), v >> 24));
        }
    }

    /** Triangles as edges seen lately and vertices seen lately. */
    private static final class Triangles {
        private final byte[] in, out;
        private final int count, stride;
        private final int[] edges = new int[32], vertices = new int[16], data;
        private int edge, vertex, next, last, at;

        Triangles(byte[] in, int count, int stride, byte[] out) {
            if ((in[0] & 0xf0) != 0xe0 || count % 3 != 0 || stride != 2 && stride != 4)
                throw new IllegalArgumentException("no triangle stream");
            this.in = in;
            this.out = out;
            this.count = count;
            this.stride = stride;
            data = new int[] {1 + count / 3};
        }

        void run() {
            for (int i = 0; i < count / 3; i++) {
                int code = in[1 + i] & 255;
                if (code >>> 4 < 15) known(code >>> 4, code & 15);
                else fresh(code & 15);
            }
        }

        private void emit(int v) {
            put(out, at++, stride, v);
        }

        private void seen(int v) {
            vertices[vertex] = v;
            vertex = vertex + 1 & 15;
        }

        private void seen(int a, int b) {
            edges[edge] = a;
            edges[edge + 1 & 31] = b;
            edge = edge + 2 & 31;
        }

        private int lately(int n) {
            return vertices[vertex - 1 - n & 15];
        }

        private int coded() {
            return last += unzig(number(in, data));
        }

        /** A triangle at an edge that was seen lately. */
        private void known(int e, int code) {
            int a = edges[edge - 1 - (e << 1) & 31], b = edges[edge - 2 - (e << 1) & 31];
            int version = in[0] & 15;
            int c;
            if (code > 0 && code < (version >= 1 ? 13 : 15)) c = lately(code);
            else {
                c = code == 0 ? next++ : code == 13 ? --last : code == 14 ? ++last : coded();
                if (code == 13 || code == 14) last = c;
                seen(c);
            }
            seen(b, c);
            seen(c, a);
            emit(a);
            emit(b);
            emit(c);
        }

        private void fresh(int code) {
            int a, b, c;
            if (code < 14) {
                int e = in[in.length - 16 + code] & 255, z = e >>> 4, w = e & 15;
                a = next++;
                b = z == 0 ? next++ : lately(z - 1);
                c = w == 0 ? next++ : lately(w - 1);
                seen(a);
                if (z == 0) seen(b);
                if (w == 0) seen(c);
            } else {
                int e = in[data[0]++] & 255, z = e >>> 4, w = e & 15;
                if (e == 0) next = 0;
                a = code == 14 ? next++ : coded();
                b = z == 0 ? next++ : z == 15 ? coded() : lately(z - 1);
                c = w == 0 ? next++ : w == 15 ? coded() : lately(w - 1);
                seen(a);
                if (z == 0 || z == 15) seen(b);
                if (w == 0 || w == 15) seen(c);
            }
            seen(a, b);
            seen(b, c);
            seen(c, a);
            emit(a);
            emit(b);
            emit(c);
        }
    }
}
