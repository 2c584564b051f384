package bake.formats.picture.exr;

/** One way in which chunks are coded. Damaged input ends in an unchecked exception, never beyond the arrays. */
interface Codec {
    /**
     * The chunk as it was before coding: line by line, in each line channel by channel.
     *
     * @param raw its length, bytes
     * @param w pixels of a line
     */
    byte[] decode(byte[] in, int raw, Header h, int w, int lines);

    static Codec of(int compression) {
        return switch (compression) {
            case 1 -> (in, raw, h, w, lines) -> Bytes.mix(Bytes.runs(in, 0, in.length, raw));
            case 2, 3 -> (in, raw, h, w, lines) -> Bytes.mix(Bytes.inflate(in, 0, in.length, raw));
            case 4 -> new Piz();
            case 5 -> new Pxr24();
            case 6, 7 -> new B44();
            case 8, 9 -> new Dwa();
            default -> (in, raw, h, w, lines) -> in;
        };
    }

    /** Puts channels that follow each other whole into lines. */
    static byte[] lines(byte[][] planes, int raw, Header h, int w, int lines) {
        byte[] out = new byte[raw];
        int o = 0;
        for (int y = 0; y < lines; y++)
            for (int c = 0; c < planes.length; c++) {
                int n = w * h.channels.get(c).bytes();
                System.arraycopy(planes[c], y * n, out, o, n);
                o += n;
            }
        return out;
    }
}
