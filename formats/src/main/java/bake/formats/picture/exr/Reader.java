package bake.formats.picture.exr;

import bake.formats.FormatException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.stream.IntStream;

/**
 * Reads OpenEXR pictures chunk by chunk, on all cores, without holding the file or the coded picture: scan lines and tiles, one part or
 * several, every compression, data windows that are not the display window.
 */
public final class Reader {
    private static final int MOST_HEADER = 1 << 24;

    private Reader() {}

    /** Takes rows of colours; called from many threads, for every pixel of the data window once. */
    public interface Sink {
        /**
         * @param x of the first pixel in the display window; may lie outside of it
         * @param y row in the display window; may lie outside of it
         * @param rgb three a pixel, cd/m2, or as many as channels were asked for
         * @param n how many pixels
         */
        void row(int x, int y, float[] rgb, int n);
    }

    /** Makes room for a picture of the display window's size. */
    public interface Begin {
        Sink begin(int width, int height) throws IOException;
    }

    /**
     * Reads the first part that has colours: R, G, B, or Y for grey.
     *
     * @param done told the share that is read, 0 to 1
     * @param stop asked now and then; true gives up
     * @throws FormatException when the file is no picture that can be read; the message says why
     */
    public static void read(Path path, Begin begin, DoubleConsumer done, BooleanSupplier stop) throws IOException {
        if (!read(path, null, begin, done, stop))
            throw new FormatException(path.getFileName().toString(), null, "has no colour channels R, G, B; save it with them");
    }

    /** What the attributes of text of the first part say, by their names. */
    public static Map<String, String> texts(Path path) throws IOException {
        try (FileChannel ch = FileChannel.open(path, StandardOpenOption.READ)) {
            ByteBuffer b = ByteBuffer.allocate((int) Math.min(ch.size(), MOST_HEADER));
            while (b.hasRemaining() && ch.read(b) >= 0) { }
            return Map.copyOf(Header.read(b.flip(), path.getFileName().toString()).getFirst().texts);
        }
    }

    /**
     * Reads channels of the first part that has them, as many a pixel as there are names.
     *
     * @param names of the channels; null for colours: R, G, B, or Y for grey
     * @return whether there are such channels
     */
    public static boolean read(Path path, List<String> names, Begin begin, DoubleConsumer done, BooleanSupplier stop) throws IOException {
        String file = path.getFileName().toString();
        try (FileChannel ch = FileChannel.open(path, StandardOpenOption.READ); Arena arena = Arena.ofShared()) {
            long size = ch.size();
            if (size < 16) throw new FormatException(file, null, "this is not an OpenEXR picture");
            MemorySegment all = ch.map(FileChannel.MapMode.READ_ONLY, 0, size, arena);
            ByteBuffer head = all.asSlice(0, Math.min(size, MOST_HEADER)).asByteBuffer();
            List<Header> parts = Header.read(head, file);
            long table = head.position();
            for (int p = 0; p < parts.size(); p++) {
                Header h = parts.get(p);
                if (h.tableLength() > size / 8) throw Header.cut(file);
                int[] at = names == null ? colours(h) : named(h, names);
                if (at != null) {
                    new Reader.Part(all, size, file, h, p, parts.size() > 1, table, at).read(begin, done, stop);
                    return true;
                }
                table += 8 * h.tableLength();
            }
            return false;
        }
    }

    private static int[] named(Header h, List<String> names) {
        int[] at = names.stream().mapToInt(h::channel).toArray();
        for (int k : at) if (k < 0) return null;
        return at;
    }

    private static int[] colours(Header h) {
        int r = h.channel("R"), g = h.channel("G"), b = h.channel("B"), y = h.channel("Y");
        if (r >= 0 && g >= 0 && b >= 0) return new int[] {r, g, b};
        return y >= 0 ? new int[] {y, y, y} : null;
    }

    /** One part in the reading. */
    private record Part(MemorySegment all, long size, String file, Header h, int number, boolean several, long table, int[] at) {
        void read(Begin begin, DoubleConsumer done, BooleanSupplier stop) throws IOException {
            int n = h.chunksOfFirstLevel();
            if (table + 8L * n > size) throw Header.cut(file);
            Sink sink = begin.begin(h.displayX1 - h.displayX0 + 1, h.displayY1 - h.displayY0 + 1);
            AtomicInteger ready = new AtomicInteger();
            try {
                IntStream.range(0, n).parallel().forEach(i -> {
                    if (stop.getAsBoolean()) throw new UncheckedIOException(new FormatException(file, null, "reading was stopped"));
                    try {
                        chunk(all.get(ValueLayout.JAVA_LONG_UNALIGNED, table + 8L * i), sink);
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    } catch (RuntimeException e) {
                        // What runs over an array's end in decoding is damage in the file.
                        throw e instanceof UncheckedIOException ? e : new UncheckedIOException(Header.cut(file));
                    }
                    done.accept(ready.incrementAndGet() / (double) n);
                });
            } catch (UncheckedIOException e) {
                throw e.getCause();
            }
        }

        private int integer(long o) throws FormatException {
            if (o < 0 || o + 4 > size) throw Header.cut(file);
            return all.get(ValueLayout.JAVA_INT_UNALIGNED, o);
        }

        private void chunk(long offset, Sink sink) throws IOException {
            long o = offset;
            if (several) {
                if (integer(o) != number) throw Header.cut(file);
                o += 4;
            }
            int x, y, w, lines;
            if (h.tiled) {
                int tx = integer(o), ty = integer(o + 4);
                if (integer(o + 8) != 0 || integer(o + 12) != 0) throw Header.cut(file);
                o += 16;
                if (tx < 0 || ty < 0 || (long) tx * h.tileWidth >= h.width() || (long) ty * h.tileHeight >= h.height())
                    throw Header.cut(file);
                x = tx * h.tileWidth;
                y = ty * h.tileHeight;
                w = Math.min(h.tileWidth, h.width() - x);
                lines = Math.min(h.tileHeight, h.height() - y);
            } else {
                y = integer(o) - h.y0;
                o += 4;
                x = 0;
                w = h.width();
                if (y < 0 || y >= h.height() || y % h.linesPerChunk() != 0) throw Header.cut(file);
                lines = Math.min(h.linesPerChunk(), h.height() - y);
            }
            int packed = integer(o), raw = Math.multiplyExact(Math.multiplyExact(w, lines), h.pixelBytes());
            o += 4;
            if (packed < 0 || o + packed > size) throw Header.cut(file);
            byte[] in = all.asSlice(o, packed).toArray(ValueLayout.JAVA_BYTE);
            byte[] out = packed == raw ? in : Codec.of(h.compression).decode(in, raw, h, w, lines);
            if (out.length < raw) throw Header.cut(file);
            rows(out, x, y, w, lines, sink);
        }

        private void rows(byte[] raw, int x, int y, int w, int lines, Sink sink) {
            int values = at.length;
            float[] rgb = new float[values * w];
            int[] start = new int[h.channels.size()];
            for (int c = 1; c < start.length; c++) start[c] = start[c - 1] + w * h.channels.get(c - 1).bytes();
            int stride = w * h.pixelBytes();
            float unit = h.unit();
            for (int j = 0; j < lines; j++) {
                for (int k = 0; k < values; k++) {
                    int o = j * stride + start[at[k]], type = h.channels.get(at[k]).type();
                    for (int i = 0; i < w; i++) {
                        if (type == Header.HALF) rgb[values * i + k] =
                                Float.float16ToFloat((short) (raw[o + 2 * i] & 255 | raw[o + 2 * i + 1] << 8));
                        else {
                            int bits = Bytes.integer(raw, o + 4 * i);
                            rgb[values * i + k] = type == Header.FLOAT ? Float.intBitsToFloat(bits) : Integer.toUnsignedLong(bits);
                        }
                    }
                }
                if (unit != 1) for (int i = 0; i < rgb.length; i++) rgb[i] *= unit;
                sink.row(x + h.x0 - h.displayX0, y + j + h.y0 - h.displayY0, rgb, w);
            }
        }
    }
}
