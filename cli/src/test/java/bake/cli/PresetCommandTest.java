package bake.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import bake.formats.picture.ExrFile;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Presets between a project, a shelf and a colleague, by commands alone. */
class PresetCommandTest extends CommandFixture {
    private String shelf;

    @BeforeEach
    void ownPreset() throws IOException {
        shelf = dir.resolve("shelf").toString();
        preset(4, "");
    }

    private void preset(int bounces, String more) throws IOException {
        Path f = dir.resolve("p/project.json");
        ObjectNode p = (ObjectNode) Json.MAPPER.readTree(Files.readString(f));
        p.set("presets", Json.MAPPER.readTree("""
                [{"name": "Mine", "version": 1, "purpose": "test", "setting": "any", "width": 40, "noiseAim": 6, "timeLimit": 0,
                  "samples": 2, "bounces": %d, "clamp": 10%s}]""".formatted(bounces, more)));
        Files.writeString(f, p.toString());
    }

    private JsonNode json() throws IOException {
        return Json.MAPPER.readTree(out);
    }

    private JsonNode mine() throws IOException {
        assertEquals(0, run("preset", "list", "--shelf", shelf, "--json"), err);
        for (JsonNode n : json()) if (n.get("name").asText().equals("Mine")) return n;
        throw new AssertionError(out);
    }

    /** Two change one version at once: the later one is asked, setting by setting. */
    @Test
    void twoChangeOne() throws IOException {
        assertEquals(0, run("preset", "save", p(), "Mine", "--shelf", shelf, "--author", "Ann", "--reason", "first", "--json"), err);
        assertEquals(1, json().at("/preset/version").asInt());
        assertEquals(0, run("preset", "show", "Mine@1", "--shelf", shelf), err);
        ObjectNode other = (ObjectNode) json();
        ((ObjectNode) other.get("preset")).put("bounces", 6).put("clamp", 30);
        other.put("from", 1);
        Path file = dir.resolve("bob.json");
        Files.writeString(file, other.toString());
        preset(5, "");
        assertEquals(0, run("preset", "save", p(), "Mine", "--shelf", shelf, "--author", "Ann", "--reason", "darker"), err);
        assertEquals(2, run("preset", "merge", file.toString(), "--shelf", shelf, "--author", "Bob"));
        assertTrue(err.contains("--take bounces=mine") && !err.contains("clamp"), err);
        assertEquals(0, run("preset", "merge", file.toString(), "--shelf", shelf, "--author", "Bob", "--take", "bounces=mine", "--json"), err);
        assertEquals(3, json().at("/preset/version").asInt());
        assertEquals(0, run("preset", "compare", "Mine@1", "Mine@3", "--shelf", shelf), err);
        assertEquals(List.of("bounces 4 \u2192 6", "clamp 10 \u2192 30"), out.strip().lines().toList());
        assertEquals(3, mine().get("versions").size());
    }

    @Test
    void retiredAndLocked() throws IOException {
        run("preset", "save", p(), "Mine", "--shelf", shelf, "--author", "Ann");
        assertEquals(0, run("preset", "retire", "Mine@1", "--shelf", shelf, "--instead", "use Interior test"), err);
        assertEquals("use Interior test", mine().at("/retired/1").asText());
        assertEquals(0, run("preset", "retire", "Mine@1", "--shelf", shelf, "--restore"), err);
        assertTrue(mine().at("/retired/1").isMissingNode());
        assertEquals(0, run("preset", "retire", "Mine", "--shelf", shelf, "--lock"), err);
        assertTrue(mine().has("locked"));
        preset(7, "");
        assertEquals(2, run("preset", "save", p(), "Mine", "--shelf", shelf));
        assertTrue(err.contains("lock"), err);
        assertEquals(0, run("preset", "retire", "Mine", "--shelf", shelf, "--unlock"), err);
        assertEquals(0, run("preset", "save", p(), "Mine", "--shelf", shelf), err);
        assertEquals(2, run("preset", "show", "Nobody's", "--shelf", shelf));
        assertTrue(err.contains("there is no preset"), err);
        assertEquals(2, run("preset", "save", p(), "--shelf", shelf));
    }

    /** What a preset wants beside the picture is in EXR, and in nothing else. */
    @Test
    void channelsOfAPreset() throws IOException {
        preset(4, ", \"channels\": [\"depth\", \"noise\"]");
        Path a = dir.resolve("a.exr"), b = dir.resolve("b.exr");
        assertEquals(0, run("render", p(), "--preset", "Mine", "-o", a.toString()), err);
        float[] z = ExrFile.read(a, List.of("Z")).rgb();
        assertEquals(4.3, z[12 * 40 + 20], 0.4, "metres to the middle of the floor");
        assertNotNull(ExrFile.read(a, List.of("noise.Y")));
        assertEquals(0, run("render", p(), "--preset", "Mine", "-o", dir.resolve("a.png").toString()), err);
        preset(4, "");
        assertEquals(0, run("render", p(), "--preset", "Mine", "-o", b.toString()), err);
        assertNull(ExrFile.read(b, List.of("Z")));
        preset(4, ", \"channels\": [\"deep\"]");
        assertEquals(2, run("render", p(), "--preset", "Mine", "-o", b.toString()));
        assertTrue(err.contains("channels"), err);
    }
}
