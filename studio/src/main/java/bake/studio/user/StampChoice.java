package bake.studio.user;

import bake.formats.AtomicFile;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * What this user's stamps on pictures say.
 *
 * @param fields in their order, by their words
 * @param corner in words
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record StampChoice(List<String> fields, String corner) {
    public static final StampChoice USUAL = new StampChoice(List.of(), "bottom left");
    private static final long LARGEST_FILE = 1 << 14;

    public StampChoice {
        fields = fields == null ? List.of() : List.copyOf(fields);
        corner = corner == null ? "bottom left" : corner;
    }

    /** The file that it is kept in. */
    public static Path file() {
        return UserFolders.settings().resolve("stamp.json");
    }

    /** What was kept; the usual where nothing was or where it cannot be read. */
    public static StampChoice read(Path file) {
        try {
            if (!Files.isRegularFile(file) || Files.size(file) > LARGEST_FILE) return USUAL;
            return Json.MAPPER.readValue(Files.readString(file), StampChoice.class);
        } catch (IOException e) {
            return USUAL;
        }
    }

    public void write(Path file) throws IOException {
        byte[] b = Json.MAPPER.writeValueAsBytes(this);
        AtomicFile.write(file, o -> o.write(b));
    }
}
