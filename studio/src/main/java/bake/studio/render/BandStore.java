package bake.studio.render;

import bake.formats.FormatException;
import bake.formats.picture.ExrNotes;
import bake.formats.picture.ExrRows;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * The finished bands of a picture too large for the memory, on disk as they were computed until all are there. It outlives a stop, a
 * crash and a kill: a band counts once its end mark is written, and what comes after the last one is dropped.
 */
final class BandStore implements Closeable {
    private static final int MAGIC = 0x42414b43, END = 0x454e4421, MOST_IDENTITY = 4096;

    /**
     * How far the picture is, summed over finished bands.
     *
     * @param rows finished rows
     * @param fewest passes of the band that has fewest
     * @param noise sum of squared noise times share of the picture's rows
     */
    record State(int rows, int fewest, double seconds, long rays, double noise) {}

    private final Path file;
    private final int width, height, channels;
    private final FileChannel channel;
    private final ByteBuffer row;
    private final long begin;
    private State state = new State(0, Integer.MAX_VALUE, 0, 0, 0);

    /**
     * Goes on from a file of the same picture, or begins one.
     *
     * @param identity of the picture and all that decides on it, its limits too
     * @param channels 3 for colours, 4 with how much of the backdrop is covered
     */
    BandStore(Path file, String identity, int width, int height, int channels) throws IOException {
        this.file = file;
        this.width = width;
        this.height = height;
        this.channels = channels;
        row = ByteBuffer.allocate(4 * channels * width).order(ByteOrder.LITTLE_ENDIAN);
        Files.createDirectories(file.toAbsolutePath().getParent());
        channel = FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.CREATE);
        byte[] id = (identity + " " + width + "x" + height).getBytes(StandardCharsets.UTF_8);
        if (id.length > MOST_IDENTITY) throw new IllegalArgumentException("identity is too long");
        ByteBuffer head = ByteBuffer.allocate(8 + id.length).order(ByteOrder.LITTLE_ENDIAN).putInt(MAGIC).putInt(id.length).put(id).flip();
        begin = head.limit();
        ByteBuffer there = ByteBuffer.allocate(head.limit());
        if (read(there, 0) && there.flip().equals(head)) find();
        else {
            channel.truncate(0);
            write(head, 0);
        }
        channel.truncate(end());
    }

    State state() {
        return state;
    }

    /** Each band: rows, passes, noise, seconds, rays, colours, end mark. */
    private static final int BAND = 4 + 4 + 8 + 8 + 8;

    private long end() {
        return begin + at;
    }

    private long at;

    private void find() throws IOException {
        ByteBuffer b = ByteBuffer.allocate(BAND).order(ByteOrder.LITTLE_ENDIAN),
                mark = ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN);
        while (state.rows < height && read(b.clear(), end())) {
            b.flip();
            int n = b.getInt(), passes = b.getInt();
            double noise = b.getDouble(), seconds = b.getDouble();
            long rays = b.getLong(), bytes = 4L * channels * width * n;
            if (n < 1 || n > height - state.rows || passes < 1) return;
            if (!read(mark.clear(), end() + BAND + bytes) || mark.getInt(0) != END) return;
            count(n, passes, noise, seconds, rays);
        }
    }

    private void count(int n, int passes, double noise, double seconds, long rays) {
        at += BAND + 4L * channels * width * n + 4;
        state = new State(state.rows + n, Math.min(state.fewest, passes), state.seconds + seconds, state.rays + rays,
                state.noise + noise * noise * n / height);
    }

    /** Fills rows of channels; called once for each row of a band, from the top down. */
    interface Rows {
        void read(int y, float[] rgb);
    }

    /** Adds the next band. */
    void add(int n, RenderJob.Progress p, Rows rows) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(BAND).order(ByteOrder.LITTLE_ENDIAN);
        write(b.putInt(n).putInt(p.passes()).putDouble(p.noise()).putDouble(p.seconds()).putLong(p.rays()).flip(), end());
        long to = end() + BAND;
        float[] rgb = new float[channels * width];
        for (int y = 0; y < n; y++) {
            rows.read(state.rows + y, rgb);
            row.clear();
            for (float f : rgb) row.putFloat(f);
            write(row.flip(), to);
            to += row.limit();
        }
        channel.force(false);
        write(ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN).putInt(END).flip(), to);
        count(n, p.passes(), p.noise(), p.seconds(), p.rays());
    }

    /** What becomes of a row of channels. */
    private interface Take {
        void row(float[] rgb) throws IOException;
    }

    /** Writes the picture that is whole now, as it would be written if it had been made as a whole. */
    void finish(Path picture, ExrNotes notes) throws IOException {
        if (state.rows < height) throw new IllegalStateException("rows are missing");
        float[] most = {0};
        each(rgb -> {
            for (float v : rgb) most[0] = Math.max(most[0], Math.abs(v));
        });
        try (ExrRows out = new ExrRows(picture, width, height, ExrRows.colours(channels == 4, most[0] <= ExrRows.MOST_HALF), notes)) {
            each(out::row);
            out.finish();
        }
    }

    private void each(Take take) throws IOException {
        float[] rgb = new float[channels * width];
        ByteBuffer b = ByteBuffer.allocate(BAND).order(ByteOrder.LITTLE_ENDIAN);
        for (long from = begin; from < end(); from += 4) {
            if (!read(b.clear(), from)) throw new FormatException(file.getFileName().toString(), null,
                    "has lost its end; delete it to begin the picture anew");
            from += BAND;
            for (int n = b.getInt(0); n > 0; n--, from += row.capacity()) {
                if (!read(row.clear(), from)) throw new FormatException(file.getFileName().toString(), null,
                        "has lost its end; delete it to begin the picture anew");
                for (int k = 0; k < rgb.length; k++) rgb[k] = row.getFloat(4 * k);
                take.row(rgb);
            }
        }
    }

    void delete() throws IOException {
        channel.close();
        Files.deleteIfExists(file);
    }

    private boolean read(ByteBuffer b, long from) throws IOException {
        while (b.hasRemaining()) {
            int n = channel.read(b, from + b.position());
            if (n < 0) return false;
        }
        return true;
    }

    private void write(ByteBuffer b, long to) throws IOException {
        while (b.hasRemaining()) to += channel.write(b, to);
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
