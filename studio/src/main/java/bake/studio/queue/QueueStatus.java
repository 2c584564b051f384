package bake.studio.queue;

import bake.formats.AtomicFile;
import bake.formats.Json;
import bake.studio.render.RenderJob;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * A sign of life of whoever works a queue, with how far the picture in work is. Nothing depends on it but what is shown.
 *
 * @param process that works it
 * @param alive milliseconds since 1970
 * @param job in work, 0 for none
 * @param state in words: rendering, resting, waiting for its hours, waiting
 * @param noise percent, 0 where not known
 * @param left seconds, negative where not known
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record QueueStatus(long process, long alive, int job, String state, int passes, double noise, double seconds, double left,
        double fraction,
        double prepared) {
    private static final long DEAD_MILLIS = 5000;

    private static Path file(Path folder) {
        return folder.resolve("status.json");
    }

    static QueueStatus of(int job, String state, RenderJob.Progress g) {
        boolean known = g != null;
        return new QueueStatus(ProcessHandle.current().pid(), System.currentTimeMillis(), job, state, known ? g.passes() : 0,
                known && Double.isFinite(g.noise()) ? g.noise() : 0, known ? g.seconds() : 0,
                known && Double.isFinite(g.secondsLeft()) ? g.secondsLeft() : -1, known ? g.fraction() : 0, known ? g.prepared() : 0);
    }

    void write(Path folder) {
        try {
            byte[] b = Json.MAPPER.writeValueAsBytes(this);
            Path to = file(folder), part = AtomicFile.part(to);
            Files.write(part, b);
            Files.move(part, to, java.nio.file.StandardCopyOption.REPLACE_EXISTING, java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            // It is only shown; the next one may get through.
        }
    }

    /** What was said last by somebody who lives; null where nobody works the queue. */
    public static QueueStatus read(Path folder) {
        try {
            if (!Files.isRegularFile(file(folder))) return null;
            QueueStatus s = Json.MAPPER.readValue(Files.readAllBytes(file(folder)), QueueStatus.class);
            boolean here = ProcessHandle.of(s.process).map(ProcessHandle::isAlive).orElse(false);
            return here && System.currentTimeMillis() - s.alive < DEAD_MILLIS ? s : null;
        } catch (IOException e) {
            return null;
        }
    }
}
