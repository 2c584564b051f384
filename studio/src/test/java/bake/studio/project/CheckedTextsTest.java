package bake.studio.project;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import bake.formats.FormatException;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CheckedTextsTest {
    private static final String ROOM = "{\"bake\": 1, \"name\": \"room\", \"lamps\": [{\"name\": \"bulb\", \"kind\": \"sphere\","
            + " \"position\": [1, 1, 2], \"diameter\": 0.1, \"lumens\": 1000}]}";

    @TempDir
    Path dir;

    /** A text is checked once; another text, or a broken one, always is. */
    @Test
    void checkedTextsAreRemembered() throws IOException {
        CheckedTexts c = new CheckedTexts(dir.resolve("checked"));
        Path p = dir.resolve("project.json");
        Files.writeString(p, ROOM);
        var first = ProjectFile.read(p, c);
        assertEquals(1, Files.list(dir.resolve("checked")).count());
        assertEquals(ProjectFile.toJson(first), ProjectFile.toJson(ProjectFile.read(p, c)));
        Files.writeString(p, ROOM.replace("\"lumens\": 1000", "\"lumens\": -1000"));
        assertThrows(FormatException.class, () -> ProjectFile.read(p, c));
        assertThrows(FormatException.class, () -> ProjectFile.read(p, c), "what failed is not remembered as good");
    }
}
