package bake.studio.queue;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * How a picture of the queue stands.
 *
 * @param tries how often it was begun and failed
 * @param note what happened and what to do, or empty
 * @param writing whether its files were being written: those of its names are its own then
 * @param seconds it took, {@code noise} percent, {@code passes}; 0 where not known
 * @param sums SHA-256 of its files, in their order
 * @param begun local date and time, {@code ended} likewise; null where not known
 */
@RecordBuilder
public record QueueEntry(QueueJob job, State state, int tries, String note, boolean writing, double seconds, double noise, int passes,
        List<String> sums, String begun, String ended) implements QueueEntryBuilder.With {
    /** Where a picture stands. */
    public enum State {
        WAITING, RENDERING, DONE, KEPT, FAILED, CANCELLED;

        /** Whether nothing more is done for it. */
        public boolean over() {
            return this != WAITING && this != RENDERING;
        }

        public String word() {
            return this == KEPT ? "stopped, kept" : name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    static QueueEntry of(QueueJob j) {
        return new QueueEntry(j, State.WAITING, 0, "", false, 0, 0, 0, List.of(), null, null);
    }
}
