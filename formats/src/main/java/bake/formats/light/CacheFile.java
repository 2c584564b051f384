package bake.formats.light;

import bake.core.cache.IrradianceCache;
import bake.core.cache.PhotonMap;
import bake.core.cache.RadianceCache;
import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.Json;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.zip.CRC32;

/**
 * Keeps a cache of a scene's light. A file is: 8 letters, length of a JSON head, the head with what the cache was computed from, rows of
 * numbers, and a CRC-32 of all before; docs/cache-format.md says it byte by byte.
 */
public final class CacheFile {
    private static final byte[] MAGIC = "bakelux1".getBytes(StandardCharsets.US_ASCII);
    private static final int MOST_HEAD = 1 << 20, PIECE = 1 << 18, MOST_GROUPS = 256;
    private static final String CELLS = "radiance", RECORDS = "irradiance", PHOTONS = "photons", CAUSTICS = "caustics";
    private static final List<String> KINDS = List.of(CELLS, RECORDS, PHOTONS, CAUSTICS);

    private CacheFile() {}

    /**
     * What the head says.
     *
     * @param kind "radiance", "irradiance", "photons" or "caustics"
     * @param reach greatest radius of an estimate from photons, metres; 0 for other kinds
     * @param words what the writer says of where it comes from, by name
     */
    public record Head(String kind, int channels, long rows, long rounds, double reach, Map<String, String> words) {
        int rowBytes() {
            return 4 * switch (kind) {
                case CELLS -> new RadianceCache(channels).rowInts();
                case RECORDS -> new IrradianceCache(channels).rowFloats();
                default -> PhotonMap.rowFloats();
            };
        }
    }

    /** A cache and its head; all of the others are null. */
    public record Kept(Head head, RadianceCache cells, IrradianceCache records, PhotonMap photons) {}

    public static void write(Path file, RadianceCache c, Map<String, String> words) throws IOException {
        write(file, new Head(CELLS, c.channels(), c.cells(), c.rounds(), 0, words), out -> c.save(row -> {
            for (int v : row) out.put(v);
        }));
    }

    public static void write(Path file, IrradianceCache c, Map<String, String> words) throws IOException {
        write(file, new Head(RECORDS, c.channels(), c.records(), 0, 0, words), out -> c.save(row -> {
            for (float v : row) out.put(Float.floatToRawIntBits(v));
        }));
    }

    /** @param caustics whether they are those that came by smooth surfaces alone */
    public static void write(Path file, PhotonMap m, boolean caustics, Map<String, String> words) throws IOException {
        write(file, new Head(caustics ? CAUSTICS : PHOTONS, m.channels(), m.photons(), 0, m.most(), words), out -> m.save(row -> {
            for (float v : row) out.put(Float.floatToRawIntBits(v));
        }));
    }

    private interface Rows {
        void write(Sink out);
    }

    /** Numbers on their way to a file. */
    private static final class Sink {
        private final OutputStream to;
        private final CRC32 sum;
        private final ByteBuffer piece = ByteBuffer.allocate(PIECE).order(ByteOrder.LITTLE_ENDIAN);

        Sink(OutputStream to, CRC32 sum) {
            this.to = to;
            this.sum = sum;
        }

        void put(int v) {
            if (piece.remaining() < 4) flush();
            piece.putInt(v);
        }

        void flush() {
            try {
                sum.update(piece.array(), 0, piece.position());
                to.write(piece.array(), 0, piece.position());
                piece.clear();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private static void write(Path file, Head h, Rows rows) throws IOException {
        ObjectNode n = Json.MAPPER.createObjectNode();
        n.put("kind", h.kind).put("channels", h.channels).put("rows", h.rows).put("rounds", h.rounds);
        if (h.reach > 0) n.put("reach", h.reach);
        ObjectNode words = n.putObject("words");
        h.words.forEach(words::put);
        byte[] text = Json.MAPPER.writeValueAsString(n).getBytes(StandardCharsets.UTF_8);
        ByteBuffer head = ByteBuffer.allocate(MAGIC.length + 4 + text.length).order(ByteOrder.LITTLE_ENDIAN).put(MAGIC).putInt(text.length)
                .put(text);
        try {
            AtomicFile.write(file, o -> {
                CRC32 sum = new CRC32();
                sum.update(head.array());
                o.write(head.array());
                Sink out = new Sink(o, sum);
                rows.write(out);
                out.flush();
                o.write(ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN).putInt((int) sum.getValue()).array());
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /** @throws FormatException when the file is none of these, or its head is damaged; the rest is not looked at */
    public static Head head(Path file) throws IOException {
        String name = file.getFileName().toString();
        try (FileChannel in = FileChannel.open(file, StandardOpenOption.READ)) {
            return head(name, in, null);
        }
    }

    private static Head head(String name, FileChannel in, CRC32 sum) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(MAGIC.length + 4).order(ByteOrder.LITTLE_ENDIAN);
        fill(in, b);
        byte[] magic = new byte[MAGIC.length];
        if (b.remaining() < b.capacity()) throw new FormatException(name, null, "is not a cache of light; delete it");
        b.get(magic);
        int length = b.getInt();
        if (!java.util.Arrays.equals(magic, MAGIC))
            throw new FormatException(name, null, "is not a cache of light that this version of Bake can read; delete it");
        if (length < 2 || length > MOST_HEAD || length > in.size()) throw damaged(name, null);
        ByteBuffer text = ByteBuffer.allocate(length);
        fill(in, text);
        if (text.remaining() < length) throw damaged(name, null);
        if (sum != null) {
            sum.update(b.array());
            sum.update(text.array());
        }
        Head h = parse(name, text.array());
        // The length must be right before any memory is taken.
        if (h.rows > Integer.MAX_VALUE / h.rowBytes() || in.size() != MAGIC.length + 4 + length + h.rows * h.rowBytes() + 4)
            throw damaged(name, null);
        return h;
    }

    private static Head parse(String name, byte[] text) throws IOException {
        try {
            JsonNode n = Json.MAPPER.readTree(text);
            Map<String, String> words = new LinkedHashMap<>();
            n.path("words").properties().forEach(w -> words.put(w.getKey(), w.getValue().asText("")));
            Head h = new Head(n.path("kind").asText(""), n.path("channels").asInt(0), n.path("rows").asLong(-1), n.path("rounds").asLong(0),
                    n.path("reach").asDouble(0), words);
            boolean known = KINDS.contains(h.kind), channels = h.channels > 0 && h.channels <= 3 * MOST_GROUPS && h.channels % 3 == 0;
            if (!known || !channels || h.rows < 0 || h.rounds < 0 || !(h.reach >= 0 && h.reach < 1e6) || h.reach == 0
                    && KINDS.indexOf(h.kind) > 1) throw damaged(name, null);
            return h;
        } catch (com.fasterxml.jackson.core.JsonProcessingException e) {
            throw damaged(name, e);
        }
    }

    private static void fill(FileChannel in, ByteBuffer b) throws IOException {
        while (b.hasRemaining() && in.read(b) >= 0) {}
        b.flip();
    }

    /** @throws FormatException when the file is damaged or none of these */
    public static Kept read(Path file) throws IOException {
        String name = file.getFileName().toString();
        try (FileChannel in = FileChannel.open(file, StandardOpenOption.READ)) {
            CRC32 sum = new CRC32();
            Head h = head(name, in, sum);
            // Looked through once before anything is built of it.
            long begin = in.position(), bytes = h.rows * h.rowBytes();
            checkSum(name, in, sum, bytes);
            in.position(begin);
            return content(h, new Source(in, bytes));
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } catch (IllegalArgumentException | BufferUnderflowException e) {
            throw damaged(name, e);
        }
    }

    private static Kept content(Head h, Source from) {
        if (h.kind.equals(CELLS)) {
            RadianceCache c = new RadianceCache(h.channels);
            int[] row = new int[c.rowInts()];
            for (long k = 0; k < h.rows; k++) {
                for (int i = 0; i < row.length; i++) row[i] = from.next();
                c.load(row);
            }
            c.loaded(h.rounds);
            return new Kept(h, c, null, null);
        }
        Consumer<float[]> rows = from::next;
        if (!h.kind.equals(RECORDS)) return new Kept(h, null, null, PhotonMap.load(h.channels, (int) h.rows, (float) h.reach, rows));
        IrradianceCache c = new IrradianceCache(h.channels);
        c.load((int) h.rows, rows);
        return new Kept(h, null, c, null);
    }

    private static void checkSum(String name, FileChannel in, CRC32 sum, long bytes) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(PIECE).order(ByteOrder.LITTLE_ENDIAN);
        for (long left = bytes; left > 0; left -= b.limit()) {
            b.clear().limit((int) Math.min(PIECE, left));
            int n = b.limit();
            fill(in, b);
            if (b.limit() < n) throw damaged(name, null);
            sum.update(b.array(), 0, n);
        }
        b.clear().limit(4);
        fill(in, b);
        if (b.limit() < 4 || b.getInt() != (int) sum.getValue()) throw damaged(name, null);
    }

    /** Numbers on their way from a file. */
    private static final class Source {
        private final FileChannel in;
        private long left;
        private final ByteBuffer piece = ByteBuffer.allocate(PIECE).order(ByteOrder.LITTLE_ENDIAN).limit(0);

        Source(FileChannel in, long bytes) {
            this.in = in;
            left = bytes;
        }

        void next(float[] row) {
            if (piece.remaining() < 4 * row.length) for (int i = 0; i < row.length; i++) row[i] = Float.intBitsToFloat(next());
            else {
                piece.asFloatBuffer().get(row);
                piece.position(piece.position() + 4 * row.length);
            }
        }

        int next() {
            if (!piece.hasRemaining()) {
                try {
                    piece.clear().limit((int) Math.min(PIECE, left));
                    fill(in, piece);
                    left -= piece.limit();
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            }
            return piece.getInt();
        }
    }

    private static FormatException damaged(String name, Exception e) {
        return new FormatException(name, null, "is damaged; delete it, and it is computed again", e);
    }

    /** Whether a file is named as one of these. */
    public static boolean named(Path file) {
        return file.getFileName().toString().endsWith(".cache") && Files.isRegularFile(file);
    }
}
