package bake.studio.render;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.FormatException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is wrong with the place of a picture is said before anything is computed. */
class OutputPlaceTest {
    @TempDir
    Path dir;

    private static String refused(Path f, long pixels) {
        return assertThrows(FormatException.class, () -> OutputPlace.hold(f, pixels)).getMessage();
    }

    @Test
    void isSaidAtOnce() throws IOException {
        Files.createDirectories(dir.resolve("a.png"));
        assertTrue(refused(dir.resolve("a.png"), 1).contains("is a folder"));
        Files.writeString(dir.resolve("note"), "x");
        assertTrue(refused(dir.resolve("note/b.png"), 1).contains("no folder"));
        assertTrue(refused(dir.resolve("c.bmp"), 1).contains(".png"));
        String room = refused(dir.resolve("d.exr"), 1L << 52);
        assertTrue(room.contains("MB left") && room.startsWith("d.exr"), room);
        assertFalse(Files.exists(dir.resolve(".d.exr.making")), "nothing is left behind");
    }

    @Test
    void oneAtATime() throws IOException {
        Path f = dir.resolve("new/e.png");
        try (OutputPlace held = OutputPlace.hold(f, 100)) {
            assertTrue(refused(f, 100).contains("another run"));
        }
        OutputPlace.hold(f, 100).close();
        try (var s = Files.list(f.getParent())) {
            assertEquals(0, s.count(), "nothing is left behind");
        }
    }

    @Test
    void oldPartsAreSwept() throws IOException {
        Path old = Files.writeString(dir.resolve(".f.png.1a2b.part"), "x"), young = Files.writeString(dir.resolve(".f.png.3c4d.part"), "x");
        Files.setLastModifiedTime(old, FileTime.from(Instant.now().minusSeconds(200_000)));
        OutputPlace.hold(dir.resolve("f.png"), 1).close();
        assertFalse(Files.exists(old));
        assertTrue(Files.exists(young), "somebody may be writing it");
    }
}
