package bake.formats;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ProjectFileTest {
    @TempDir
    Path dir;

    private static final String GOOD = """
            {"bake": 1, "name": "House", "studioCode": 77,
             "views": [{"name": "a", "camera": {"position": [0,0,0], "target": [0,1,0], "lensCap": false}, "mood": "calm"}],
             "lamps": [{"name": "l", "kind": "sphere", "position": [0,0,2], "diameter": 0.2, "lumens": 800, "serial": "x1"}]}""";

    private Path file(String text) throws IOException {
        Path p = dir.resolve("project.json");
        Files.writeString(p, text);
        return p;
    }

    /** Keys that this version does not know survive reading, editing and writing, at every level. */
    @Test
    void unknownKeysAreKept() throws IOException {
        Project p = ProjectFile.read(file(GOOD));
        ProjectFile.write(dir.resolve("project.json"), p.withName("Villa"));
        String text = Files.readString(dir.resolve("project.json"));
        for (String s : new String[] {"studioCode", "77", "mood", "calm", "lensCap", "serial", "x1", "Villa"})
            assertTrue(text.contains(s), s + " in " + text);
        assertEquals(ProjectFile.toJson(p.withName("Villa")), ProjectFile.toJson(ProjectFile.read(dir.resolve("project.json"))));
    }

    @Test
    void defaultsAreFilledIn() throws IOException {
        Project p = ProjectFile.read(file(GOOD));
        assertEquals(24, p.currentView().camera().camera().focal());
        assertEquals("sun and sky", p.currentView().around().kind());
        assertTrue(p.layerOn("anything"));
    }

    /** Each wrong project names the key and what it wants. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "\"bake\": 1 | \"bake\": 2 | newer Bake",
        "\"bake\": 1, | | not a Bake project",
        "\"lumens\": 800 | \"lumens\": -5 | lamps[0].lumens",
        "\"kind\": \"sphere\" | \"kind\": \"cube\" | lamps[0].kind",
        "[0,1,0] | [0,1] | views[0].camera.target",
        "\"name\": \"House\" | \"name\": 3 | name",
        "\"position\": [0,0,2] | \"position\": [0,0,1e99] | lamps[0].position",
        "{\"bake\" | {{\"bake\" | line 1",
        "\"studioCode\": 77 | \"name\": \"again\" | twice in one object",
    })
    void wrongProjectsAreRefused(String find, String replace, String expected) throws IOException {
        Path p = file(GOOD.replace(find, replace == null ? "" : replace));
        FormatException e = assertThrows(FormatException.class, () -> ProjectFile.read(p));
        assertTrue(e.getMessage().startsWith("project.json") && e.getMessage().contains(expected), e.getMessage());
    }

    @Test
    void referencesStayInside() throws IOException {
        Files.writeString(dir.resolve("in.txt"), "x");
        assertEquals(dir.toRealPath().resolve("in.txt"), SafePath.inside(dir, "in.txt", "p"));
        for (String s : new String[] {"../x", "/etc/passwd", "a/../../x", "", "a\0b", "..\\..\\x"})
            assertThrows(FormatException.class, () -> SafePath.inside(dir, s, "p"), s);
        Files.createSymbolicLink(dir.resolve("link"), Path.of("/etc/hostname"));
        assertThrows(FormatException.class, () -> SafePath.inside(dir, "link", "p"));
    }

    /** The example in the documentation is a project: what people copy must work. */
    @Test
    void theDocumentedExampleIsRead() throws IOException {
        Path doc = Path.of("..", "docs", "project-format.md");
        String text = Files.readString(doc);
        int from = text.indexOf("```json") + 7;
        Project p = ProjectFile.read(file(text.substring(from, text.indexOf("```", from))));
        assertEquals("Garden room", p.name());
        assertEquals(2.5, p.currentView().around().haze());
        // And every key of the schema is explained there.
        var schema = Json.MAPPER.readTree(ProjectFile.class.getResourceAsStream("/bake/project.schema.json"));
        java.util.Set<String> keys = new java.util.TreeSet<>();
        properties(schema, keys);
        keys.removeIf(k -> text.contains("`" + k + "`") || text.contains("\"" + k + "\""));
        assertEquals(java.util.Set.of(), keys, "keys that docs/project-format.md does not name");
    }

    private static void properties(com.fasterxml.jackson.databind.JsonNode n, java.util.Set<String> out) {
        n.path("properties").fieldNames().forEachRemaining(out::add);
        for (var c : n) if (c.isContainerNode()) properties(c, out);
    }

    /** Whatever happens to the bytes: a project, or a refusal that names the file. */
    @Test
    void damagedProjectsNeverDoAnythingElse() throws IOException {
        byte[] good = GOOD.getBytes(java.nio.charset.StandardCharsets.UTF_8);
        java.util.SplittableRandom r = new java.util.SplittableRandom(8);
        int refused = 0;
        for (int i = 0; i < 400; i++) {
            byte[] bad = good.clone();
            if (i % 4 == 0) bad = java.util.Arrays.copyOf(bad, r.nextInt(bad.length));
            else for (int k = 0; k <= i % 3; k++) bad[r.nextInt(bad.length)] = (byte) r.nextInt(256);
            Path p = dir.resolve("project.json");
            Files.write(p, bad);
            try {
                ProjectFile.read(p);
            } catch (FormatException e) {
                refused++;
                assertTrue(e.getMessage().startsWith("project.json"), e.getMessage());
            }
        }
        assertTrue(refused > 200, refused + " of 400 refused");
    }

    /** Depth and size are limited before memory is taken. */
    @Test
    void hugeNestingIsRefused() throws IOException {
        Path p = file("{\"bake\": 1, \"name\": " + "[".repeat(200_000) + "]".repeat(200_000) + "}");
        assertThrows(FormatException.class, () -> ProjectFile.read(p));
    }

    /** A write that fails half-way leaves the old file as it was, and nothing beside it. */
    @Test
    void failedWriteLosesNothing() throws IOException {
        Path p = file(GOOD);
        assertThrows(IOException.class, () -> AtomicFile.write(p, o -> {
            o.write(new byte[100_000]);
            throw new IOException("the disk is full");
        }));
        assertEquals(GOOD, Files.readString(p));
        try (var s = Files.list(dir)) {
            assertEquals(1, s.count(), "no leftovers");
        }
    }

    @Test
    void viewsKeepTheirLook() throws IOException {
        Project p = ProjectFile.read(file(GOOD));
        assertEquals(bake.core.finish.Look.NEUTRAL, p.currentView().look().whiteBalance());
        Project q = p.withViews(java.util.List.of(p.currentView().withWhiteBalance(3200.0).withCurve("linear")));
        ProjectFile.write(dir.resolve("project.json"), q);
        var look = ProjectFile.read(dir.resolve("project.json")).currentView().look();
        assertEquals(3200, look.whiteBalance());
        assertEquals(bake.core.finish.ToneCurve.LINEAR, look.curve());
    }
}
