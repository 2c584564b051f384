package bake.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** What commands make of pictures and models that are there. */
class PictureCommandsTest extends CommandFixture {
    private String f(String name) {
        return dir.resolve(name).toString();
    }

    private JsonNode json() throws IOException {
        return Json.MAPPER.readTree(out);
    }

    /** Finished again from its scene light a picture is the same to the last pixel; at another exposure it is not. */
    @Test
    void finishedAgain() throws IOException {
        String[] how = {"--size", "40x25", "--samples", "8"};
        assertEquals(0, run("render", p(), how[0], how[1], how[2], how[3], "-o", f("a.png")), err);
        assertEquals(0, run("render", p(), how[0], how[1], how[2], how[3], "--channels", "clean", "-o", f("a.exr")), err);
        assertEquals(0, run("finish", f("a.exr"), "-o", f("b.png"), "--json"), err);
        assertTrue(json().get("clean").asBoolean());
        assertEquals(0, run("compare", f("a.png"), f("b.png"), "--json"), err);
        assertEquals(0, json().get("pixelsThatDiffer").asInt(), out);
        assertEquals(0, json().get("flip").asDouble());
        assertEquals(0, run("finish", f("a.exr"), "--ev", "3", "-o", f("c.png")), err);
        assertEquals(0, run("compare", f("a.png"), f("c.png"), "--map", f("map.png"), "--json"), err);
        assertTrue(json().get("flip").asDouble() > 0.05 && json().get("rmsePercent").asDouble() > 2, out);
        assertEquals(40, ImageIO.read(Path.of(f("map.png")).toFile()).getWidth());
        run("render", p(), "--size", "20x10", "--samples", "1", "-o", f("small.png"));
        assertEquals(2, run("compare", f("a.png"), f("small.png")));
        assertTrue(err.contains("40x25") && err.contains("20x10"), err);
        assertEquals(2, run("compare", f("a.png"), f("gone.png")));
        assertEquals(2, run("finish", f("a.exr"), "-o", f("d.png"), "--look", "nobody's look"));
        assertTrue(err.contains("no shelf has a look"), err);
        assertEquals(2, run("finish", f("gone.exr"), "-o", f("d.png")));
        assertEquals(2, run("finish", f("a.exr"), "-o", f("d.png"), "--view", "One"));
    }

    /** A model that was written is read again with what was in it. */
    @Test
    void writtenAndRead() throws IOException {
        for (String name : new String[] {"m.glb", "m.gltf"}) {
            assertEquals(0, run("export", p(), "-o", f(name), "--json"), err);
            assertEquals(2, json().get("triangles").asInt(), out);
            assertEquals(1, json().get("lamps").asInt());
            assertEquals(1, json().get("cameras").asInt());
            assertTrue(Files.size(Path.of(f(name))) > 100);
            assertEquals(0, run("import", f(name), "-o", f("new-" + name)), err);
            assertEquals(0, run("info", f("new-" + name)), err);
            assertTrue(out.contains("view 'One'"), out);
        }
        assertEquals(2, run("export", p(), "-o", f("m.txt")));
        assertTrue(err.contains(".glb"), err);
    }

    @Test
    void materialsSayWhereTheirReflectanceIsFrom() throws IOException {
        assertEquals(0, run("materials", "--json"), err);
        assertTrue(json().size() > 10);
        for (JsonNode n : json()) {
            assertTrue(n.get("reflectance").asDouble() >= 0 && n.get("reflectance").asDouble() <= 1, n.toString());
            assertTrue(!n.get("source").asText().isBlank(), n.toString());
        }
        assertEquals(0, run("materials"), err);
        assertTrue(out.lines().count() > 10);
    }
}
