package bake.studio.user;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RecentProjectsTest {
    @TempDir
    Path dir;

    private Path project(String name) throws IOException {
        Path p = Files.createDirectories(dir.resolve(name));
        Files.writeString(p.resolve("project.json"), "{}");
        return p;
    }

    @Test
    void theLastComesFirstAndWhatIsGoneIsPassedOver() throws IOException {
        RecentProjects r = new RecentProjects(dir.resolve("settings/recent.json"));
        assertEquals(List.of(), r.list());
        Path a = project("a"), b = project("b");
        r.opened(a);
        r.opened(b);
        r.opened(a);
        assertEquals(List.of(a, b), r.list());
        Files.delete(b.resolve("project.json"));
        assertEquals(List.of(a), r.list());
        for (int i = 0; i < 15; i++) r.opened(project("p" + i));
        assertEquals(10, r.list().size());
        Files.writeString(dir.resolve("settings/recent.json"), "not a list");
        assertEquals(List.of(), r.list(), "a broken list is an empty one");
        r.opened(a);
        assertEquals(List.of(a), r.list());
    }
}
