package bake.studio.estimate;

import bake.formats.Json;
import bake.studio.user.UserFolders;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;

/** The pictures that this machine made, a line each in a file of the user's cache folder. Losing it loses only what was learnt. */
public final class WorkLog {
    private static final long MOST_BYTES = 1 << 20;
    private static final ObjectWriter LINE = Json.MAPPER.writer().without(SerializationFeature.INDENT_OUTPUT);

    private final Path file;

    public WorkLog(Path file) {
        this.file = file;
    }

    /** The one of this user and machine. */
    public static WorkLog shared() {
        return new WorkLog(UserFolders.cache().resolve("work.jsonl"));
    }

    /** All that is known, oldest first; lines that cannot be read are passed over. */
    public List<Work> list() {
        List<Work> out = new ArrayList<>();
        try {
            if (!Files.isRegularFile(file) || Files.size(file) > 2 * MOST_BYTES) return out;
            for (String line : Files.readString(file).split("\n")) {
                try {
                    if (!line.isBlank()) out.add(Json.MAPPER.readValue(line, Work.class));
                } catch (IOException e) {
                    // half a line of a process that was killed
                }
            }
        } catch (IOException e) {
            return out;
        }
        return out;
    }

    /** Adds a picture; several processes may at a time. */
    public void add(Work w) {
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
            if (Files.exists(file) && Files.size(file) > MOST_BYTES) shorten();
            byte[] b = (LINE.writeValueAsString(w) + "\n").getBytes(StandardCharsets.UTF_8);
            try (FileChannel c = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.APPEND)) {
                c.write(ByteBuffer.wrap(b));
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(WorkLog.class).warn("what was learnt is not kept: {}", e.getMessage());
        }
    }

    /** Keeps the newer half. */
    private void shorten() throws IOException {
        List<String> lines = Files.readAllLines(file);
        byte[] b = (String.join("\n", lines.subList(lines.size() / 2, lines.size())) + "\n").getBytes(StandardCharsets.UTF_8);
        bake.formats.AtomicFile.write(file, o -> o.write(b));
    }
}
