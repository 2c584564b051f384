package bake.formats.picture;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.Deflater;

/**
 * Writes an OpenEXR picture from the top down, a few rows at a time, so that it need never be held whole: scan lines, ZIP compressed in
 * blocks of 16 (OpenEXR file layout, and its predictor for ZIP). The file gets its name when it is finished. It says what its numbers are:
 * Rec. 709 primaries and cd/m2.
 */
public final class ExrRows implements Closeable {
    private static final int BLOCK = 16;
    /** x and y of red, green, blue and white (ITU-R BT.709-6, table 3). */
    private static final float[] REC_709 = {0.64f, 0.33f, 0.3f, 0.6f, 0.15f, 0.06f, 0.3127f, 0.329f};

    private final Path target, temp;
    private final FileChannel channel;
    private final int width, height;
    /** Channels in the order that rows come in, and their numbers in the order of the file, which is that of their names. */
    private final List<Channel> channels;
    private final int[] sorted;
    private final long table;
    private final long[] offsets;
    private final ByteBuffer block;
    private int rows, inBlock;
    private boolean finished;

    /** The greatest number that 16 bit hold. */
    public static final float MOST_HALF = 65_504;

    /**
     * A channel.
     *
     * @param half whether it is stored in 16 bit, where greater numbers than {@link #MOST_HALF} are cut; else in 32
     */
    public record Channel(String name, boolean half) {}

    /** Red, green and blue, and with {@code alpha} coverage, by which colours then are premultiplied. */
    public static List<Channel> colours(boolean alpha, boolean half) {
        List<Channel> rgb = List.of(new Channel("R", half), new Channel("G", half), new Channel("B", half));
        return alpha ? Stream.concat(rgb.stream(), Stream.of(new Channel("A", half))).toList() : rgb;
    }

    /**
     * @param channels in the order in which a row has them
     * @throws FormatException when the size is none that the format can hold
     */
    public ExrRows(Path file, int width, int height, List<Channel> channels, ExrNotes notes) throws IOException {
        if (width < 1 || height < 1 || (long) width * height > 1L << 40)
            throw new FormatException(file.getFileName().toString(), null, "cannot be " + width + "x" + height + " pixels");
        this.channels = List.copyOf(channels);
        sorted = IntStream.range(0, channels.size()).boxed().sorted(Comparator.comparing(i -> channels.get(i).name)).mapToInt(i -> i)
                .toArray();
        int bytes = channels.stream().mapToInt(c -> c.half ? 2 : 4).sum();
        target = file.toAbsolutePath();
        Files.createDirectories(target.getParent());
        temp = AtomicFile.part(target);
        channel = FileChannel.open(temp, StandardOpenOption.WRITE);
        this.width = width;
        this.height = height;
        offsets = new long[(height + BLOCK - 1) / BLOCK];
        block = ByteBuffer.allocate(bytes * width * BLOCK).order(ByteOrder.LITTLE_ENDIAN);
        ByteBuffer h = header(notes);
        table = h.position();
        h.flip();
        put(h, 0);
        channel.position(table + 8L * offsets.length);
    }

    private ByteBuffer header(ExrNotes notes) {
        ByteBuffer b = ByteBuffer.allocate(4096 + 64 * channels.size() + notes.bytes()).order(ByteOrder.LITTLE_ENDIAN);
        b.putInt(20000630).putInt(2);
        attribute(b, "channels", "chlist", channels.stream().mapToInt(c -> c.name.length() + 17).sum() + 1);
        for (int i : sorted) {
            Channel c = channels.get(i);
            b.put(c.name.getBytes(StandardCharsets.US_ASCII)).put((byte) 0).putInt(c.half ? 1 : 2).putInt(0).putInt(1).putInt(1);
        }
        b.put((byte) 0);
        attribute(b, "compression", "compression", 1);
        b.put((byte) 3);
        attribute(b, "dataWindow", "box2i", 16);
        b.putInt(0).putInt(0).putInt(width - 1).putInt(height - 1);
        attribute(b, "displayWindow", "box2i", 16);
        b.putInt(0).putInt(0).putInt(width - 1).putInt(height - 1);
        attribute(b, "lineOrder", "lineOrder", 1);
        b.put((byte) 0);
        attribute(b, "pixelAspectRatio", "float", 4);
        b.putFloat(1);
        attribute(b, "screenWindowCenter", "v2f", 8);
        b.putFloat(0).putFloat(0);
        attribute(b, "screenWindowWidth", "float", 4);
        b.putFloat(1);
        attribute(b, "chromaticities", "chromaticities", 32);
        for (float c : REC_709) b.putFloat(c);
        // One is one candela a square metre.
        attribute(b, "whiteLuminance", "float", 4);
        b.putFloat(1);
        notes.texts().forEach((k, v) -> {
            byte[] t = v.getBytes(StandardCharsets.UTF_8);
            attribute(b, k, "string", t.length);
            b.put(t);
        });
        notes.numbers().forEach((k, v) -> {
            attribute(b, k, "float", 4);
            b.putFloat(v);
        });
        return b.put((byte) 0);
    }

    private static void attribute(ByteBuffer b, String name, String type, int size) {
        b.put(name.getBytes(StandardCharsets.US_ASCII)).put((byte) 0).put(type.getBytes(StandardCharsets.US_ASCII)).put((byte) 0)
                .putInt(size);
    }

    private void put(ByteBuffer b, long at) throws IOException {
        while (b.hasRemaining()) at += channel.write(b, at);
    }

    /** Adds one row: all channels of each pixel, one pixel after the other. */
    public void row(float[] pixels) throws IOException {
        if (rows == height) throw new IllegalStateException("all rows are written");
        int n = sorted.length;
        for (int c : sorted) for (int x = 0; x < width; x++) {
            float v = pixels[n * x + c];
            if (channels.get(c).half) block.putShort(Float.floatToFloat16(Math.clamp(v, -MOST_HALF, MOST_HALF)));
            else block.putFloat(v);
        }
        rows++;
        if (++inBlock == BLOCK || rows == height) flush();
    }

    private void flush() throws IOException {
        int n = block.position();
        byte[] raw = block.array(), mixed = new byte[n];
        // Bytes of even places first, then of odd ones; each stored as the step from the one before.
        for (int i = 0, a = 0, b = (n + 1) / 2; i < n; i++) mixed[(i & 1) == 0 ? a++ : b++] = raw[i];
        for (int i = n - 1; i > 0; i--) mixed[i] = (byte) (mixed[i] - mixed[i - 1] + 128);
        Deflater deflater = new Deflater(4);
        byte[] packed = new byte[n + n / 100 + 64];
        deflater.setInput(mixed);
        deflater.finish();
        int size = deflater.deflate(packed);
        boolean small = deflater.finished() && size < n;
        deflater.end();
        offsets[(rows - 1) / BLOCK] = channel.position();
        ByteBuffer head = ByteBuffer.allocate(8).order(ByteOrder.LITTLE_ENDIAN).putInt(rows - inBlock).putInt(small ? size : n).flip();
        append(head);
        append(small ? ByteBuffer.wrap(packed, 0, size) : ByteBuffer.wrap(raw, 0, n));
        block.clear();
        inBlock = 0;
    }

    private void append(ByteBuffer b) throws IOException {
        while (b.hasRemaining()) channel.write(b);
    }

    /** Gives the picture its name; to be called after the last row. */
    public void finish() throws IOException {
        if (rows < height) throw new IllegalStateException("only " + rows + " of " + height + " rows are written");
        ByteBuffer b = ByteBuffer.allocate(8 * offsets.length).order(ByteOrder.LITTLE_ENDIAN);
        for (long o : offsets) b.putLong(o);
        put(b.flip(), table);
        channel.force(true);
        channel.close();
        AtomicFile.replace(temp, target);
        finished = true;
    }

    /** Drops the file where it was not finished. */
    @Override
    public void close() throws IOException {
        channel.close();
        if (!finished) Files.deleteIfExists(temp);
    }
}
