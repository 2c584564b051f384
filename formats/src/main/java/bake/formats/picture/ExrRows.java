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
import java.util.zip.Deflater;

/**
 * Writes an OpenEXR picture from the top down, a few rows at a time, so that it need never be held whole: scan lines of 16 bit
 * colours, ZIP compressed in blocks of 16 (OpenEXR file layout, and its predictor for ZIP). The file gets its name when
 * it is finished.
 */
public final class ExrRows implements Closeable {
    private static final int BLOCK = 16;

    private final Path target, temp;
    private final FileChannel channel;
    private final int width, height;
    /** Channels in the order of the file, which is that of their names. */
    private final String names;
    private final long table;
    private final long[] offsets;
    private final ByteBuffer block;
    private int rows, inBlock;
    private boolean finished;

    /**
     * @param alpha whether each pixel has coverage after its colours, which then are premultiplied by it
     * @throws FormatException when the size is none that the format can hold
     */
    public ExrRows(Path file, int width, int height, boolean alpha) throws IOException {
        if (width < 1 || height < 1 || (long) width * height > 1L << 40)
            throw new FormatException(file.getFileName().toString(), null, "cannot be " + width + "x" + height + " pixels");
        names = alpha ? "ABGR" : "BGR";
        target = file.toAbsolutePath();
        Files.createDirectories(target.getParent());
        temp = AtomicFile.part(target);
        channel = FileChannel.open(temp, StandardOpenOption.WRITE);
        this.width = width;
        this.height = height;
        offsets = new long[(height + BLOCK - 1) / BLOCK];
        block = ByteBuffer.allocate(2 * names.length() * width * BLOCK).order(ByteOrder.LITTLE_ENDIAN);
        ByteBuffer h = header();
        table = h.position();
        h.flip();
        put(h, 0);
        channel.position(table + 8L * offsets.length);
    }

    private ByteBuffer header() {
        ByteBuffer b = ByteBuffer.allocate(1024).order(ByteOrder.LITTLE_ENDIAN);
        b.putInt(20000630).putInt(2);
        attribute(b, "channels", "chlist", names.length() * 18 + 1);
        for (char c : names.toCharArray()) b.put((byte) c).put((byte) 0).putInt(1).putInt(0).putInt(1).putInt(1); // half floats
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
        return b.put((byte) 0);
    }

    private static void attribute(ByteBuffer b, String name, String type, int size) {
        b.put(name.getBytes(StandardCharsets.US_ASCII)).put((byte) 0).put(type.getBytes(StandardCharsets.US_ASCII)).put((byte) 0)
                .putInt(size);
    }

    private void put(ByteBuffer b, long at) throws IOException {
        while (b.hasRemaining()) at += channel.write(b, at);
    }

    /**
     * Adds one row: red, green and blue of each pixel, scene light, and coverage where it has that. What is brighter than half floats can
     * say is cut there.
     */
    public void row(float[] rgb) throws IOException {
        if (rows == height) throw new IllegalStateException("all rows are written");
        int n = names.length();
        for (int c = n - 1; c >= 0; c--) for (int x = 0; x < width; x++)
            block.putShort(Float.floatToFloat16(Math.clamp(rgb[n * x + c], 0f, 65_504f)));
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
