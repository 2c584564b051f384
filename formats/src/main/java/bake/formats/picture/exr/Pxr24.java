package bake.formats.picture.exr;

/** PXR24: floats cut to 24 bits, differences of neighbours, byte planes, deflate. */
final class Pxr24 implements Codec {
    @Override
    public byte[] decode(byte[] in, int raw, Header h, int w, int lines) {
        int stored = 0;
        for (Header.Channel c : h.channels) stored += c.type() == Header.FLOAT ? 3 : c.bytes();
        byte[] d = Bytes.inflate(in, 0, in.length, stored * w * lines), out = new byte[raw];
        int p = 0, o = 0;
        for (int y = 0; y < lines; y++)
            for (Header.Channel c : h.channels) {
                int planes = c.type() == Header.FLOAT ? 3 : c.bytes(), pixel = 0;
                for (int i = 0; i < w; i++) {
                    int diff = 0;
                    for (int k = 0; k < planes; k++) diff = diff << 8 | d[p + k * w + i] & 255;
                    if (planes == 3) diff <<= 8;
                    pixel += diff;
                    for (int k = 0; k < c.bytes(); k++) out[o++] = (byte) (pixel >> 8 * k);
                }
                p += planes * w;
            }
        return out;
    }
}
