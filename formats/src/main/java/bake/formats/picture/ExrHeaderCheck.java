package bake.formats.picture;

import bake.formats.FormatException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Set;

/** Walks an OpenEXR header before native code sees it: sizes, attribute lengths and the chunk table must add up. */
final class ExrHeaderCheck {
    private ExrHeaderCheck() {}

    static void check(byte[] all, String name) throws FormatException {
        ByteBuffer b = ByteBuffer.wrap(all).order(ByteOrder.LITTLE_ENDIAN);
        if (all.length < 16 || b.getInt() != 20000630) throw new FormatException(name, null, "this is not an OpenEXR picture");
        int flags = b.getInt();
        if ((flags & 0xff) != 2) throw new FormatException(name, null, "version " + (flags & 0xff) + " of the format is not known");
        if ((flags & 0x1800) != 0) throw new FormatException(name, null, "multi-part and deep pictures are not read; save a single flat part");
        Set<String> seen = new HashSet<>();
        long w = 0, h = 0;
        int compression = -1;
        while (true) {
            String key = string(b, name);
            if (key.isEmpty()) break;
            String type = string(b, name);
            if (b.remaining() < 4) throw cut(name);
            int size = b.getInt();
            if (size < 0 || size > b.remaining()) throw cut(name);
            int at = b.position();
            if (key.equals("dataWindow") && size == 16) {
                w = (long) b.getInt(at + 8) - b.getInt(at) + 1;
                h = (long) b.getInt(at + 12) - b.getInt(at + 4) + 1;
            }
            if (key.equals("compression") && size == 1) compression = b.get(at);
            if (key.equals("channels")) channels(b.slice(at, size).order(ByteOrder.LITTLE_ENDIAN), name);
            if (type.isEmpty()) throw new FormatException(name, "attribute " + key, "has no type; export the file again");
            seen.add(key);
            b.position(at + size);
        }
        for (String k : new String[] {"channels", "compression", "dataWindow", "displayWindow", "lineOrder"})
            if (!seen.contains(k)) throw new FormatException(name, "header", k + " is missing; export the file again");
        if (w < 1 || h < 1 || w * h > Raster.MOST_PIXELS)
            throw new FormatException(name, "header", "a size of " + w + "x" + h + " is not possible; the largest is 16384x8192");
        if (compression == 8 || compression == 9) throw new FormatException(name, null, "DWAA and DWAB coding is not read yet; save it as ZIP or PIZ");
        if (compression < 0 || compression > 7) throw new FormatException(name, "header", "the compression is not known; save it as ZIP");
        if ((flags & 0x200) == 0) chunks(b, all.length, h, compression, name);
    }

    private static void channels(ByteBuffer b, String name) throws FormatException {
        int n = 0;
        while (true) {
            String c = string(b, name);
            if (c.isEmpty()) break;
            if (b.remaining() < 16 || ++n > 256) throw cut(name);
            int type = b.getInt();
            b.getInt();
            if (type < 0 || type > 2 || b.getInt() != 1 || b.getInt() != 1)
                throw new FormatException(name, "channel " + c, "subsampled or unknown channels are not read; save it as plain RGB");
        }
        if (n == 0) throw new FormatException(name, "header", "there are no channels");
    }

    private static void chunks(ByteBuffer b, int length, long h, int compression, String name) throws FormatException {
        int[] lines = {1, 1, 1, 16, 32, 16, 32, 32};
        long n = (h + lines[compression] - 1) / lines[compression];
        if (b.remaining() < 8 * n) throw cut(name);
        int first = (int) (b.position() + 8 * n);
        for (long i = 0; i < n; i++) {
            long o = b.getLong();
            if (o < first || o + 8 > length) throw cut(name);
            int size = b.getInt((int) o + 4);
            if (size < 0 || o + 8 + size > length) throw cut(name);
        }
    }

    private static FormatException cut(String name) {
        return new FormatException(name, null, "the file is cut short or damaged; copy or export it again");
    }

    private static String string(ByteBuffer b, String name) throws FormatException {
        int start = b.position();
        while (b.hasRemaining() && b.position() - start < 256)
            if (b.get() == 0) return new String(b.array(), b.arrayOffset() + start, b.position() - 1 - start, StandardCharsets.ISO_8859_1);
        throw cut(name);
    }
}
