package bake.formats.picture.exr;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * DWAA and DWAB: colours as cosine transforms of 8 x 8 blocks of a perceptual scale, coverage as runs, all else deflated. Written from
 * memory of the published coder; checked against files that its reference library wrote.
 */
final class Dwa implements Codec {
    private static final int UNKNOWN = 0, COSINE = 1, RUNS = 2, HEAD = 88;
    /** Where in a block each coefficient comes in the zigzag. */
    private static final int[] ZIGZAG = {0, 1, 5, 6, 14, 15, 27, 28, 2, 4, 7, 13, 16, 26, 29, 42, 3, 8, 12, 17, 25, 30, 41, 43, 9, 11, 18,
            24, 31, 40, 44, 53, 10, 19, 23, 32, 39, 45, 52, 54, 20, 22, 33, 38, 46, 51, 55, 60, 21, 34, 37, 47, 50, 56, 59, 61, 35, 36, 48,
            49, 57, 58, 62, 63};
    private static final float[] COS = new float[64];
    private static final short[] LINEAR = new short[65536];

    static {
        for (int n = 0; n < 8; n++) for (int k = 0; k < 8; k++) COS[8 * n + k] =
                (float) ((k == 0 ? Math.sqrt(0.125) : 0.5) * Math.cos((2 * n + 1) * k * Math.PI / 16));
        double base = Math.pow(2.7182818, 2.2);
        for (int i = 1; i < 65536; i++) {
            if ((i & 0x7c00) == 0x7c00) continue;
            float f = Float.float16ToFloat((short) i), a = Math.abs(f);
            LINEAR[i] = Float.floatToFloat16((float) (Math.signum(f) * (a <= 1 ? Math.pow(a, 2.2f) : Math.pow(base, a - 1))));
        }
    }

    /** How channels of a name's ending and a type are coded; {@code colour} is 0, 1, 2 for those that are transformed together, else -1. */
    private record Rule(String ending, int scheme, int colour, int type, boolean anyCase) {}

    private static final List<Rule> FIRST_VERSION = new ArrayList<>();

    static {
        for (int type : new int[] {Header.HALF, Header.FLOAT}) {
            String[][] names = {{"r", "0"}, {"red", "0"}, {"g", "1"}, {"grn", "1"}, {"green", "1"}, {"b", "2"}, {"blu", "2"}, {"blue", "2"},
                    {"y", "-1"}, {"by", "-1"}, {"ry", "-1"}};
            for (String[] n : names) FIRST_VERSION.add(new Rule(n[0], COSINE, Integer.parseInt(n[1]), type, true));
        }
        for (int type = 0; type < 3; type++) FIRST_VERSION.add(new Rule("a", RUNS, -1, type, true));
    }

    @Override
    public byte[] decode(byte[] in, int raw, Header h, int w, int lines) {
        long[] n = new long[11];
        for (int i = 0; i < 11; i++) n[i] = Bytes.whole(in, 8 * i);
        for (int i = 1; i < 10; i++) if (n[i] < 0 || n[i] > 1L << 30) throw new IllegalArgumentException("sizes");
        int p = HEAD;
        List<Rule> rules = FIRST_VERSION;
        if (n[0] >= 2) {
            int size = Bytes.unsigned(in, p);
            rules = rules(in, p + 2, p + size);
            p += size;
        }
        // What is claimed must fit what a chunk of this size can hold.
        long most = 4L * raw + 65536;
        if (n[1] > most || n[6] > most || n[7] > most || 2 * n[8] > most || 2 * n[9] > most) throw new IllegalArgumentException("sizes");
        byte[] plain = n[2] > 0 ? Bytes.inflate(in, p, (int) n[2], (int) n[1]) : new byte[0];
        p += (int) n[2];
        short[] ac = n[3] == 0 ? new short[0] : n[10] == 0 ? Huffman.decode(in, p, (int) n[3], (int) n[8])
                : shorts(Bytes.inflate(in, p, (int) n[3], 2 * (int) n[8]));
        p += (int) n[3];
        short[] dc = n[4] > 0 ? shorts(Bytes.mix(Bytes.inflate(in, p, (int) n[4], 2 * (int) n[9]))) : new short[0];
        p += (int) n[4];
        byte[] runs = n[5] > 0 ? Bytes.runs(Bytes.inflate(in, p, (int) n[5], (int) n[6]), 0, (int) n[6], (int) n[7]) : new byte[0];
        return new Blocks(h, w, lines, rules, plain, ac, dc, runs).all(raw);
    }

    private static List<Rule> rules(byte[] in, int p, int end) {
        List<Rule> out = new ArrayList<>();
        while (p < end) {
            int e = p;
            while (in[e] != 0) e++;
            String name = new String(in, p, e - p, StandardCharsets.ISO_8859_1);
            int v = in[e + 1] & 255;
            out.add(new Rule(name, v >> 2 & 3, (v >> 4) - 1, in[e + 2], (v & 1) != 0));
            p = e + 3;
        }
        return out;
    }

    private static short[] shorts(byte[] b) {
        short[] s = new short[b.length / 2];
        for (int i = 0; i < s.length; i++) s[i] = (short) Bytes.unsigned(b, 2 * i);
        return s;
    }

    /** A chunk in the decoding: streams are used up in the order in which channels were coded. */
    private static final class Blocks {
        private final Header h;
        private final int w, lines;
        private final List<Rule> rules;
        private final byte[] plain, runs;
        private final short[] ac, dc;
        private int plainAt, runsAt, acAt, dcAt;
        private final byte[][] planes;

        Blocks(Header h, int w, int lines, List<Rule> rules, byte[] plain, short[] ac, short[] dc, byte[] runs) {
            this.h = h;
            this.w = w;
            this.lines = lines;
            this.rules = rules;
            this.plain = plain;
            this.ac = ac;
            this.dc = dc;
            this.runs = runs;
            planes = new byte[h.channels.size()][];
        }

        private Rule rule(Header.Channel c) {
            String ending = c.name().substring(c.name().lastIndexOf('.') + 1);
            for (Rule r : rules)
                if (r.type == c.type() && (r.anyCase ? r.ending.toLowerCase(Locale.ROOT).equals(ending.toLowerCase(Locale.ROOT))
                        : r.ending.equals(ending))) return r;
            return new Rule("", UNKNOWN, -1, c.type(), false);
        }

        byte[] all(int raw) {
            Map<String, int[]> triples = new LinkedHashMap<>();
            Rule[] of = new Rule[planes.length];
            for (int c = 0; c < planes.length; c++) {
                of[c] = rule(h.channels.get(c));
                String name = h.channels.get(c).name();
                int[] t = triples.computeIfAbsent(name.contains(".") ? name.substring(0, name.lastIndexOf('.')) : "",
                        k -> new int[] {-1, -1, -1});
                if (of[c].scheme == COSINE && of[c].colour >= 0 && of[c].colour < 3) t[of[c].colour] = c;
            }
            for (int[] t : triples.values()) if (t[0] >= 0 && t[1] >= 0 && t[2] >= 0) cosines(t);
            for (int c = 0; c < planes.length; c++) {
                if (planes[c] != null) continue;
                int bytes = h.channels.get(c).bytes(), size = w * lines * bytes;
                if (of[c].scheme == COSINE) cosines(new int[] {c});
                else if (of[c].scheme == RUNS) {
                    byte[] d = planes[c] = new byte[size];
                    for (int b = 0; b < bytes; b++) for (int i = 0; i < w * lines; i++) d[i * bytes + b] = runs[runsAt++];
                } else {
                    planes[c] = Arrays.copyOfRange(plain, plainAt, plainAt + size);
                    if (plainAt + size > plain.length) throw new IllegalArgumentException("too short");
                    plainAt += size;
                }
            }
            return Codec.lines(planes, raw, h, w, lines);
        }

        /** One channel, or three that were turned into brightness and two differences of colour. */
        private void cosines(int[] c) {
            int across = Math.ceilDiv(w, 8), down = Math.ceilDiv(lines, 8), all = across * down;
            for (int k : c) planes[k] = new byte[w * lines * h.channels.get(k).bytes()];
            float[][] block = new float[c.length][64];
            float[] spare = new float[64];
            short[] zig = new short[64];
            for (int by = 0; by < down; by++)
                for (int bx = 0; bx < across; bx++) {
                    for (int k = 0; k < c.length; k++) {
                        Arrays.fill(zig, (short) 0);
                        zig[0] = dc[dcAt + k * all + by * across + bx];
                        boolean flat = coefficients(zig);
                        inverse(zig, flat, block[k], spare);
                    }
                    if (c.length == 3) colours(block);
                    for (int k = 0; k < c.length; k++) store(c[k], block[k], 8 * bx, 8 * by);
                }
            dcAt += c.length * all;
        }

        /** Whether there is nothing but the mean. */
        private boolean coefficients(short[] zig) {
            boolean flat = true;
            for (int i = 1; i < 64; ) {
                int v = ac[acAt++] & 0xffff;
                if (v == 0xff00) break;
                if (v >> 8 == 0xff) i += v & 255;
                else {
                    zig[i++] = (short) v;
                    flat = false;
                }
            }
            return flat;
        }

        private static void inverse(short[] zig, boolean flat, float[] out, float[] spare) {
            if (flat) {
                Arrays.fill(out, Float.float16ToFloat(zig[0]) * 0.125f);
                return;
            }
            for (int v = 0; v < 8; v++)
                for (int x = 0; x < 8; x++) {
                    float s = 0;
                    for (int u = 0; u < 8; u++) s += COS[8 * x + u] * Float.float16ToFloat(zig[ZIGZAG[8 * v + u]]);
                    spare[8 * v + x] = s;
                }
            for (int y = 0; y < 8; y++)
                for (int x = 0; x < 8; x++) {
                    float s = 0;
                    for (int v = 0; v < 8; v++) s += COS[8 * y + v] * spare[8 * v + x];
                    out[8 * y + x] = s;
                }
        }

        private static void colours(float[][] b) {
            for (int i = 0; i < 64; i++) {
                float y = b[0][i], cb = b[1][i], cr = b[2][i];
                b[0][i] = y + 1.5747f * cr;
                b[1][i] = y - 0.1873f * cb - 0.4682f * cr;
                b[2][i] = y + 1.8556f * cb;
            }
        }

        private void store(int c, float[] block, int x0, int y0) {
            boolean half = h.channels.get(c).type() == Header.HALF, linear = h.channels.get(c).linear();
            for (int y = 0; y < Math.min(8, lines - y0); y++)
                for (int x = 0; x < Math.min(8, w - x0); x++) {
                    short v = Float.floatToFloat16(block[8 * y + x]);
                    if (!linear) v = LINEAR[v & 0xffff];
                    int o = (y0 + y) * w + x0 + x;
                    if (half) {
                        planes[c][2 * o] = (byte) v;
                        planes[c][2 * o + 1] = (byte) (v >> 8);
                    } else {
                        int bits = Float.floatToRawIntBits(Float.float16ToFloat(v));
                        for (int k = 0; k < 4; k++) planes[c][4 * o + k] = (byte) (bits >> 8 * k);
                    }
                }
        }
    }
}
