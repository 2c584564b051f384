package bake.studio.queue;

import bake.formats.project.Preset;
import bake.studio.render.FileOptions;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * One picture that is to be rendered: everything that decides on it, as it was when it was added.
 *
 * @param id counted from one, never given twice
 * @param project folder of the project, absolute; {@code title} its name
 * @param delivery what the picture belongs to, or empty
 * @param files where it is written, absolute, each with an ending of its own kind
 * @param replace whether files of these names may go once the new ones are whole
 * @param priority higher ones come first
 * @param due local date and time, ISO 8601, or null
 * @param state digest of what the picture is made of: files of the project that were changed since are noticed
 * @param added local date and time
 * @param expected seconds that were predicted, 0 for none
 */
@JsonIgnoreProperties(ignoreUnknown = true)
@RecordBuilder
public record QueueJob(int id, String project, String title, String delivery, String view, Preset preset, int width, int height,
        List<String> files, FileOptions options, boolean replace, int priority, String due, String state, String added, double expected)
        implements QueueJobBuilder.With {
    public QueueJob {
        files = List.copyOf(files);
        delivery = delivery == null ? "" : delivery;
        options = options == null ? FileOptions.USUAL : options;
        if (files.isEmpty()) throw new IllegalArgumentException("a picture needs a file to be written to");
    }
}
