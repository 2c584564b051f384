package bake.formats.picture.exr;

/** B44 and B44A: blocks of 4 x 4 half floats in 14 bytes, or in 3 where all are alike. Other channels are stored as they are. */
final class B44 implements Codec {
    @Override
    public byte[] decode(byte[] in, int raw, Header h, int w, int lines) {
        byte[][] planes = new byte[h.channels.size()][];
        int p = 0;
        int[] s = new int[16];
        for (int c = 0; c < planes.length; c++) {
            Header.Channel ch = h.channels.get(c);
            byte[] plane = planes[c] = new byte[w * lines * ch.bytes()];
            if (ch.type() != Header.HALF) {
                System.arraycopy(in, p, plane, 0, plane.length);
                p += plane.length;
                continue;
            }
            for (int y = 0; y < lines; y += 4)
                for (int x = 0; x < w; x += 4) {
                    p += (in[p + 2] & 255) >= 13 << 2 ? alike(in, p, s) : block(in, p, s);
                    for (int j = 0; j < Math.min(4, lines - y); j++)
                        for (int i = 0; i < Math.min(4, w - x); i++) {
                            int v = ch.linear() ? logarithm(s[4 * j + i]) : s[4 * j + i], o = 2 * ((y + j) * w + x + i);
                            plane[o] = (byte) v;
                            plane[o + 1] = (byte) (v >> 8);
                        }
                }
        }
        return Codec.lines(planes, raw, h, w, lines);
    }

    private static int alike(byte[] b, int p, int[] s) {
        java.util.Arrays.fill(s, signed((b[p] & 255) << 8 | b[p + 1] & 255));
        return 3;
    }

    /** Six bits each for the differences: down the first column, then from column to column. */
    private static int block(byte[] b, int p, int[] s) {
        int shift = (b[p + 2] & 255) >> 2, bias = 0x20 << shift;
        s[0] = (b[p] & 255) << 8 | b[p + 1] & 255;
        int bit = 16 + 6;
        int[] order = {4, 8, 12, 1, 5, 9, 13, 2, 6, 10, 14, 3, 7, 11, 15};
        for (int k : order) {
            int at = p + bit / 8, six = ((b[at] & 255) << 8 | (bit % 8 > 2 ? b[at + 1] & 255 : 0)) >> 10 - bit % 8 & 0x3f;
            s[k] = s[k < 4 ? k - 1 : k % 4 == 0 ? k - 4 : k - 1] + (six << shift) - bias & 0xffff;
            bit += 6;
        }
        for (int i = 0; i < 16; i++) s[i] = signed(s[i]);
        return 14;
    }

    private static int signed(int v) {
        return (v & 0x8000) != 0 ? v & 0x7fff : ~v & 0xffff;
    }

    /** Channels that were marked as logarithms: 8 log(x), as the coder's tables have it. */
    private static int logarithm(int v) {
        if ((v & 0x7c00) == 0x7c00 || v > 0x8000) return 0;
        float f = Float.float16ToFloat((short) v);
        return Float.floatToFloat16((float) (8 * Math.log(f))) & 0xffff;
    }
}
