package bake.formats.picture.exr;

/** The Huffman coding of 16 bit numbers that PIZ and DWA share, with a code for runs. */
final class Huffman {
    private static final int SYMBOLS = (1 << 16) + 1, FAST = 12, SHORT_RUN = 59, LONG_RUN = 63, LEAST_LONG = 6;

    private final byte[] in;
    private final int end;
    private long bits;
    private int have, at;

    private Huffman(byte[] in, int from, int end) {
        this.in = in;
        at = from;
        this.end = end;
    }

    /** Decodes {@code n} numbers from a block that begins with its own table. */
    static short[] decode(byte[] in, int from, int length, int n) {
        short[] out = new short[n];
        if (length == 0 && n == 0) return out;
        int first = Bytes.integer(in, from), last = Bytes.integer(in, from + 4), count = Bytes.integer(in, from + 12);
        if (first < 0 || last < first || last >= SYMBOLS) throw new IllegalArgumentException("table");
        Huffman h = new Huffman(in, from + 20, from + length);
        byte[] lengths = h.table(first, last);
        int start = h.at - h.have / 8;
        h.at = start;
        h.have = 0;
        h.bits = 0;
        h.numbers(lengths, last, count, out);
        return out;
    }

    private int take(int n) {
        while (have < n) {
            bits = bits << 8 | (at < end ? in[at] & 255 : 0);
            if (at++ > end + 8) throw new IllegalArgumentException("too short");
            have += 8;
        }
        have -= n;
        return (int) (bits >>> have) & (1 << n) - 1;
    }

    private byte[] table(int first, int last) {
        byte[] lengths = new byte[SYMBOLS];
        for (int i = first; i <= last; i++) {
            int l = take(6);
            if (l >= SHORT_RUN) {
                int run = l == LONG_RUN ? take(8) + LEAST_LONG : l - SHORT_RUN + 2;
                i += run - 1;
                if (i > last) throw new IllegalArgumentException("table");
            } else lengths[i] = (byte) l;
        }
        return lengths;
    }

    private void numbers(byte[] lengths, int runs, int count, short[] out) {
        // Canonical codes: the longest have the least values; of equal length they ascend with the symbol.
        int[] of = new int[SHORT_RUN + 1];
        for (byte l : lengths) of[l]++;
        of[0] = 0;
        long[] least = new long[SHORT_RUN + 1];
        long c = 0;
        int longest = 0;
        for (int l = SHORT_RUN - 1; l > 0; l--) {
            if (of[l] > 0 && longest == 0) longest = l;
            least[l] = c;
            c = c + of[l] >> 1;
        }
        int[] begin = new int[SHORT_RUN + 2];
        for (int l = 1; l <= SHORT_RUN; l++) begin[l + 1] = begin[l] + of[l];
        int[] symbols = new int[begin[SHORT_RUN + 1]], next = begin.clone();
        for (int s = 0; s < SYMBOLS; s++) if (lengths[s] > 0) symbols[next[lengths[s]]++] = s;
        int[] fast = fast(of, least, begin, symbols);
        long left = count;
        int n = 0;
        while (n < out.length) {
            int peek = peek(), e = fast[peek], symbol, used;
            if (e != 0) {
                symbol = e >>> 5;
                used = e & 31;
            } else {
                long code = 0;
                int l = 0;
                used = 0;
                symbol = -1;
                int saveAt = at, saveHave = have;
                long saveBits = bits;
                while (++l <= longest) {
                    code = code << 1 | take(1);
                    if (of[l] > 0 && code >= least[l] && code < least[l] + of[l]) {
                        symbol = symbols[begin[l] + (int) (code - least[l])];
                        used = l;
                        break;
                    }
                }
                if (symbol < 0) throw new IllegalArgumentException("code");
                at = saveAt;
                have = saveHave;
                bits = saveBits;
            }
            skip(used);
            left -= used;
            if (left < 0) throw new IllegalArgumentException("too short");
            if (symbol == runs) {
                int run = take(8);
                left -= 8;
                if (n == 0 || n + run > out.length) throw new IllegalArgumentException("run");
                for (short v = out[n - 1]; run > 0; run--) out[n++] = v;
            } else out[n++] = (short) symbol;
        }
    }

    private static int[] fast(int[] of, long[] least, int[] begin, int[] symbols) {
        int[] t = new int[1 << FAST];
        for (int l = 1; l <= FAST; l++)
            for (int k = 0; k < of[l]; k++) {
                int code = (int) (least[l] + k) << FAST - l;
                for (int i = 0; i < 1 << FAST - l && code + i < t.length; i++) t[code + i] = symbols[begin[l] + k] << 5 | l;
            }
        return t;
    }

    /** The next bits without taking them. */
    private int peek() {
        int v = take(FAST);
        have += FAST;
        return v;
    }

    private void skip(int n) {
        while (n > 0) {
            int k = Math.min(n, 16);
            take(k);
            n -= k;
        }
    }
}
