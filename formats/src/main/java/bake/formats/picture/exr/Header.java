package bake.formats.picture.exr;

import bake.formats.FormatException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** One part of an OpenEXR file as its header describes it ("OpenEXR File Layout", Academy Software Foundation). */
final class Header {
    /** Lines in a chunk, by compression: none, RLE, ZIPS, ZIP, PIZ, PXR24, B44, B44A, DWAA, DWAB. */
    private static final int[] LINES = {1, 1, 1, 16, 32, 16, 32, 32, 32, 256};
    private static final int MOST_TEXT = 1 << 20;
    static final int UINT = 0, HALF = 1, FLOAT = 2;

    /** A channel; {@code bytes} of a pixel. */
    record Channel(String name, int type, boolean linear) {
        int bytes() {
            return type == HALF ? 2 : 4;
        }
    }

    final List<Channel> channels = new ArrayList<>();
    int compression = -1;
    /** Luminance of white, cd/m2, where the file says it. */
    private float whiteLuminance = Float.NaN;
    int x0, y0, x1, y1, displayX0, displayY0, displayX1, displayY1;
    int tileWidth, tileHeight, tileMode;
    int chunks = -1;
    /** What attributes of text say. */
    final java.util.Map<String, String> texts = new java.util.TreeMap<>();
    boolean tiled, data, display;
    String type = "", name = "";

    int width() {
        return x1 - x0 + 1;
    }

    int height() {
        return y1 - y0 + 1;
    }

    int linesPerChunk() {
        return LINES[compression];
    }

    int pixelBytes() {
        int n = 0;
        for (Channel c : channels) n += c.bytes();
        return n;
    }

    /** Number of a channel, or -1. */
    int channel(String n) {
        for (int i = 0; i < channels.size(); i++) if (channels.get(i).name.equals(n)) return i;
        return -1;
    }

    /** Number of chunks of the finest level, which come first. */
    int chunksOfFirstLevel() {
        if (tiled) return Math.ceilDiv(width(), tileWidth) * Math.ceilDiv(height(), tileHeight);
        return Math.ceilDiv(height(), linesPerChunk());
    }

    /** Entries of the offset table: all levels of a tiled part. */
    long tableLength() {
        if (chunks >= 0) return chunks;
        if (!tiled || (tileMode & 15) == 0) return chunksOfFirstLevel();
        boolean up = (tileMode >> 4) == 1;
        long n = 0;
        int levelsX = levels(width(), up), levelsY = levels(height(), up);
        if ((tileMode & 15) == 1) {
            int l = Math.max(levelsX, levelsY);
            for (int k = 0; k < l; k++) n += tiles(width(), k, up, tileWidth) * tiles(height(), k, up, tileHeight);
        } else for (int j = 0; j < levelsY; j++) for (int i = 0; i < levelsX; i++)
            n += tiles(width(), i, up, tileWidth) * tiles(height(), j, up, tileHeight);
        return n;
    }

    private static int levels(int size, boolean up) {
        int n = 1;
        for (int s = size; s > 1; n++) s = up ? (s + 1) / 2 : s / 2;
        return n;
    }

    private static long tiles(int size, int level, boolean up, int tile) {
        int s = up ? (int) ((size + (1L << level) - 1) >> level) : size >> level;
        return Math.ceilDiv(Math.max(1, s), tile);
    }

    /**
     * Reads all headers of a file; on return the buffer stands at the offset tables.
     *
     * @throws FormatException when the file is none, is cut short, or holds what is not read
     */
    static List<Header> read(ByteBuffer b, String file) throws FormatException {
        b.order(ByteOrder.LITTLE_ENDIAN);
        if (b.remaining() < 16 || b.getInt() != 20000630) throw new FormatException(file, null, "this is not an OpenEXR picture");
        int flags = b.getInt();
        if ((flags & 0xff) != 2) throw new FormatException(file, null, "version " + (flags & 0xff) + " of the format is not known");
        if ((flags & 0x800) != 0) throw new FormatException(file, null, "deep pictures are not read; save a flat one");
        boolean several = (flags & 0x1000) != 0;
        List<Header> out = new ArrayList<>();
        do {
            Header h = new Header();
            h.tiled = !several && (flags & 0x200) != 0;
            if (!h.attributes(b, file)) break;
            h.check(file);
            out.add(h);
            if (out.size() > 1000) throw cut(file);
        } while (several);
        if (out.isEmpty()) throw new FormatException(file, "header", "there is no picture in it; export the file again");
        return out;
    }

    /** False for the empty header that ends the list. */
    private boolean attributes(ByteBuffer b, String file) throws FormatException {
        boolean any = false;
        while (true) {
            String key = string(b, file);
            if (key.isEmpty()) return any;
            any = true;
            String kind = string(b, file);
            if (kind.isEmpty()) throw new FormatException(file, "attribute " + key, "has no type; export the file again");
            if (b.remaining() < 4) throw cut(file);
            int size = b.getInt();
            if (size < 0 || size > b.remaining()) throw cut(file);
            ByteBuffer v = b.slice(b.position(), size).order(ByteOrder.LITTLE_ENDIAN);
            b.position(b.position() + size);
            if (kind.equals("string") && size < MOST_TEXT) texts.put(key, StandardCharsets.UTF_8.decode(v.duplicate()).toString());
            take(key, v, size, file);
        }
    }

    private void take(String key, ByteBuffer v, int size, String file) throws FormatException {
        switch (key) {
            case "channels" -> channels(v, file);
            case "compression" -> compression = size == 1 ? v.get() : -1;
            case "dataWindow" -> {
                if (size != 16) throw cut(file);
                data = true;
                x0 = v.getInt();
                y0 = v.getInt();
                x1 = v.getInt();
                y1 = v.getInt();
            }
            case "displayWindow" -> {
                if (size != 16) throw cut(file);
                display = true;
                displayX0 = v.getInt();
                displayY0 = v.getInt();
                displayX1 = v.getInt();
                displayY1 = v.getInt();
            }
            case "tiles" -> {
                if (size != 9) throw cut(file);
                tileWidth = v.getInt();
                tileHeight = v.getInt();
                tileMode = v.get() & 255;
            }
            case "whiteLuminance" -> whiteLuminance = size == 4 ? v.getFloat() : Float.NaN;
            case "chunkCount" -> chunks = size == 4 ? v.getInt() : -1;
            case "type" -> {
                type = StandardCharsets.ISO_8859_1.decode(v).toString().replace("\0", "");
                tiled |= type.equals("tiledimage");
            }
            case "name" -> name = StandardCharsets.ISO_8859_1.decode(v).toString();
            default -> {}
        }
    }

    private void channels(ByteBuffer b, String file) throws FormatException {
        while (true) {
            String c = string(b, file);
            if (c.isEmpty()) return;
            if (b.remaining() < 16 || channels.size() > 1024) throw cut(file);
            int kind = b.getInt();
            boolean linear = b.get() != 0;
            b.position(b.position() + 3);
            if (kind < 0 || kind > 2 || b.getInt() != 1 || b.getInt() != 1)
                throw new FormatException(file, "channel " + c, "subsampled or unknown channels are not read; save it as plain RGB");
            channels.add(new Channel(c, kind, linear));
        }
    }

    /**
     * What the numbers of the file are to be multiplied with for cd/m2: what it says of white itself, or else the 179 lm/W that pictures of
     * light are stored with by custom, so that a panorama lights the same whatever its format.
     */
    float unit() {
        return whiteLuminance > 0 && whiteLuminance < 1e9f ? whiteLuminance : bake.formats.picture.HdrFile.EFFICACY;
    }

    private void check(String file) throws FormatException {
        String missing = channels.isEmpty() ? "channels" : compression < 0 ? "compression" : !data ? "dataWindow" : !display
                ? "displayWindow" : null;
        if (missing != null) throw new FormatException(file, "header", missing + " is missing; export the file again");
        if (compression >= LINES.length)
            throw new FormatException(file, "header", "the compression " + compression + " is not known; save it as ZIP");
        long w = (long) x1 - x0 + 1, h = (long) y1 - y0 + 1, dw = (long) displayX1 - displayX0 + 1, dh = (long) displayY1 - displayY0 + 1;
        long most = bake.formats.picture.Raster.MOST_PIXELS;
        if (w < 1 || h < 1) throw new FormatException(file, "header", "the data window ends before it begins (from " + x0 + ", " + y0
                + " to " + x1 + ", " + y1 + "); export the file again");
        if (dw < 1 || dh < 1) throw new FormatException(file, "header", "the display window ends before it begins (from " + displayX0 + ", "
                + displayY0 + " to " + displayX1 + ", " + displayY1 + "); export the file again");
        if (w > 1 << 20 || h > 1 << 20 || w * h > most || dw > 1 << 20 || dh > 1 << 20
                || dw * dh > most)
            throw new FormatException(file, "header", "a size of " + Math.max(w, dw) + "x" + Math.max(h, dh)
                    + " is not possible; the largest is 16384x8192");
        if (tiled && (tileWidth < 1 || tileHeight < 1 || tileWidth > 1 << 15 || tileHeight > 1 << 15
                || (long) tileWidth * tileHeight * pixelBytes() > 1 << 28))
            throw new FormatException(file, "header", "tiles of " + tileWidth + "x" + tileHeight
                    + " are not possible; export the file again");
        if (type.startsWith("deep")) throw new FormatException(file, null, "deep pictures are not read; save a flat one");
    }

    static FormatException cut(String file) {
        return new FormatException(file, null, "the file is cut short or damaged; copy or export it again");
    }

    private static String string(ByteBuffer b, String file) throws FormatException {
        StringBuilder s = new StringBuilder();
        while (b.hasRemaining() && s.length() < 256) {
            char c = (char) (b.get() & 255);
            if (c == 0) return s.toString();
            s.append(c);
        }
        throw cut(file);
    }
}
