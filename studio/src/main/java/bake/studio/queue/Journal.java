package bake.studio.queue;

import bake.formats.Json;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.CRC32;

/**
 * What has happened to a queue, a line for each thing: a checksum and a JSON object. Several processes write at the end of it, one at a
 * time, and each line is on the disk before anything is done about it. A line that a crash has cut is taken away by the next writer; one
 * that is damaged is passed over.
 *
 * <p>One instance reads each line once; use one for each process or thread that follows the queue.
 */
final class Journal {
    private static final String NAME = "journal.jsonl", LOCK = "journal.lock";
    private static final int LONGEST = 1 << 22;
    /** The system does not keep threads of one process from each other. */
    private static final Map<Path, Object> HERE = new ConcurrentHashMap<>();

    private final Path folder, file;
    private long position;

    /** What is done while nobody else may write. */
    interface Writing<T> {
        /** @param out takes the events that are to be added */
        T with(List<JsonNode> out) throws IOException;
    }

    Journal(Path folder) {
        this.folder = folder;
        file = folder.resolve(NAME);
    }

    /** What was added since it was last asked, whole lines only. */
    synchronized List<JsonNode> read() throws IOException {
        List<JsonNode> out = new ArrayList<>();
        if (!Files.isRegularFile(file)) return out;
        try (FileChannel c = FileChannel.open(file, StandardOpenOption.READ)) {
            long size = c.size();
            if (size < position) position = 0;
            while (position < size) {
                ByteBuffer b = ByteBuffer.allocate((int) Math.min(size - position, LONGEST));
                c.read(b, position);
                b.flip();
                byte[] all = new byte[b.remaining()];
                b.get(all);
                int end = last(all);
                if (end < 0) break;
                for (String line : new String(all, 0, end, StandardCharsets.UTF_8).split("\n")) {
                    JsonNode n = parse(line);
                    if (n != null) out.add(n);
                }
                position += end + 1;
            }
        }
        return out;
    }

    /** Place of the last end of a line, -1 for none. */
    private static int last(byte[] b) {
        for (int i = b.length - 1; i >= 0; i--) if (b[i] == '\n') return i;
        return -1;
    }

    private static JsonNode parse(String line) {
        if (line.length() < 10 || line.charAt(8) != ' ') return null;
        String json = line.substring(9);
        try {
            return Long.parseLong(line.substring(0, 8), 16) == sum(json) ? Json.MAPPER.readTree(json) : null;
        } catch (NumberFormatException | JsonProcessingException e) {
            return null;
        }
    }

    private static long sum(String json) {
        CRC32 c = new CRC32();
        c.update(json.getBytes(StandardCharsets.UTF_8));
        return c.getValue();
    }

    /** Adds events while nobody else does; what they are may depend on what {@link #read} says inside of it. */
    <T> T write(Writing<T> what) throws IOException {
        Files.createDirectories(folder);
        synchronized (HERE.computeIfAbsent(folder.toAbsolutePath().normalize(), k -> new Object())) {
            try (FileChannel lock = FileChannel.open(folder.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock held = lock.lock()) {
                List<JsonNode> events = new ArrayList<>();
                T result = what.with(events);
                if (!events.isEmpty() && held.isValid()) append(events);
                return result;
            }
        }
    }

    private void append(List<JsonNode> events) throws IOException {
        StringBuilder b = new StringBuilder();
        for (JsonNode e : events) {
            String json = Json.MAPPER.writer().without(SerializationFeature.INDENT_OUTPUT).writeValueAsString(
                    e
                    )
                    ;
            b.append(String.format("%08x ", sum(json))).append(json).append('\n');
        }
        try (FileChannel c = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
            c.truncate(whole(c));
            ByteBuffer bytes = ByteBuffer.wrap(b.toString().getBytes(StandardCharsets.UTF_8));
            long at = c.size();
            try {
                while (bytes.hasRemaining()) c.write(bytes, at + bytes.position());
                c.force(true);
            } catch (IOException e) {
                c.truncate(at); // a full disk leaves no half line
                throw e;
            }
        }
    }

    /** Length without a last line that was cut. */
    private static long whole(FileChannel c) throws IOException {
        long size = c.size();
        ByteBuffer one = ByteBuffer.allocate(1);
        while (size > 0) {
            one.clear();
            c.read(one, size - 1);
            if (one.get(0) == '\n') return size;
            size--;
        }
        return 0;
    }
}
