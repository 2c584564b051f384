package bake.studio.user;

import bake.formats.AtomicFile;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * How this user's window looks.
 *
 * @param x left edge of the window, units of the screen; null where it was never placed
 * @param width of the window; null for the usual
 * @param evening whether its colours are those for the evening
 * @param textSize in percent of the usual, {@value #LEAST_TEXT} to {@value #LARGEST_TEXT}
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Preferences(Double x, Double y, Double width, Double height, boolean evening, int textSize) {
    public static final int LEAST_TEXT = 90, LARGEST_TEXT = 150;
    public static final Preferences USUAL = new Preferences(null, null, null, null, false, 100);
    private static final long LARGEST_FILE = 1 << 14;

    public Preferences {
        textSize = textSize == 0 ? 100 : Math.clamp(textSize, LEAST_TEXT, LARGEST_TEXT);
    }

    public Preferences withEvening(boolean is) {
        return new Preferences(x, y, width, height, is, textSize);
    }

    public Preferences withTextSize(int percent) {
        return new Preferences(x, y, width, height, evening, percent);
    }

    public Preferences withPlace(double left, double top, double w, double h) {
        return new Preferences(left, top, w, h, evening, textSize);
    }

    /** The file that they are kept in. */
    public static Path file() {
        return UserFolders.settings().resolve("window.json");
    }

    /** What was kept; the usual ones where nothing was or where it cannot be read. */
    public static Preferences read(Path file) {
        try {
            if (!Files.isRegularFile(file) || Files.size(file) > LARGEST_FILE) return USUAL;
            return Json.MAPPER.readValue(Files.readString(file), Preferences.class);
        } catch (IOException e) {
            // Preferences that cannot be read are no reason not to work.
            return USUAL;
        }
    }

    public void write(Path file) throws IOException {
        byte[] b = Json.MAPPER.writeValueAsBytes(this);
        AtomicFile.write(file, o -> o.write(b));
    }
}
