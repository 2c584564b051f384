package bake.formats.picture.exr;

/** PIZ: a table of the values that occur, a Haar wavelet on 16 bit numbers, Huffman coding. */
final class Piz implements Codec {
    @Override
    public byte[] decode(byte[] in, int raw, Header h, int w, int lines) {
        int least = Bytes.unsigned(in, 0), most = Bytes.unsigned(in, 2), p = 4;
        byte[] bitmap = new byte[8192];
        if (least <= most) {
            if (most >= bitmap.length) throw new IllegalArgumentException("bitmap");
            System.arraycopy(in, p, bitmap, least, most - least + 1);
            p += most - least + 1;
        }
        short[] table = new short[65536];
        int n = 0;
        for (int i = 0; i < 65536; i++) if (i == 0 || (bitmap[i >> 3] & 1 << (i & 7)) != 0) table[n++] = (short) i;
        int length = Bytes.integer(in, p);
        p += 4;
        if (length < 0 || length > in.length - p) throw new IllegalArgumentException("length");
        short[] d = Huffman.decode(in, p, length, raw / 2);
        int o = 0;
        for (Header.Channel c : h.channels) {
            int size = c.bytes() / 2;
            for (int j = 0; j < size; j++) wavelet(d, o + j, w, size, lines, w * size, n - 1);
            o += w * lines * size;
        }
        byte[][] planes = new byte[h.channels.size()][];
        o = 0;
        for (int c = 0; c < planes.length; c++) {
            int k = w * lines * h.channels.get(c).bytes() / 2;
            planes[c] = new byte[2 * k];
            for (int i = 0; i < k; i++) {
                int v = table[d[o + i] & 0xffff];
                planes[c][2 * i] = (byte) v;
                planes[c][2 * i + 1] = (byte) (v >> 8);
            }
            o += k;
        }
        return Codec.lines(planes, raw, h, w, lines);
    }

    private static void wavelet(short[] d, int o, int nx, int ox, int ny, int oy, int most) {
        boolean small = most < 1 << 14;
        int n = Math.min(nx, ny), p = 1;
        while (p <= n) p <<= 1;
        p >>= 1;
        int p2 = p;
        p >>= 1;
        for (; p >= 1; p2 = p, p >>= 1) {
            int oy1 = oy * p, oy2 = oy * p2, ox1 = ox * p, ox2 = ox * p2, py = o, ey = o + oy * (ny - p2);
            for (; py <= ey; py += oy2) {
                int px = py, ex = py + ox * (nx - p2);
                for (; px <= ex; px += ox2) {
                    int p01 = px + ox1, p10 = px + oy1, p11 = p10 + ox1;
                    pair(d, px, p10, small);
                    pair(d, p01, p11, small);
                    pair(d, px, p01, small);
                    pair(d, p10, p11, small);
                }
                if ((nx & p) != 0) pair(d, px, px + oy1, small);
            }
            if ((ny & p) != 0) {
                int px = py, ex = py + ox * (nx - p2);
                for (; px <= ex; px += ox2) pair(d, px, px + ox1, small);
            }
        }
    }

    /** Mean and difference back to the two numbers. */
    private static void pair(short[] d, int i, int j, boolean small) {
        if (small) {
            int h = d[j], a = d[i] + (h & 1) + (h >> 1);
            d[i] = (short) a;
            d[j] = (short) (a - h);
        } else {
            int m = d[i] & 0xffff, q = d[j] & 0xffff, b = m - (q >> 1) & 0xffff;
            d[j] = (short) b;
            d[i] = (short) (q + b - 0x8000);
        }
    }
}
