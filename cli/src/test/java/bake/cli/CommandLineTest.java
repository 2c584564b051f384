package bake.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import bake.formats.picture.ExrFile;
import bake.formats.picture.Raster;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CommandLineTest {
    @TempDir
    Path dir;

    private String out, err;

    @BeforeEach
    void project() throws IOException {
        Files.createDirectories(dir.resolve("p"));
        Files.writeString(dir.resolve("p/project.json"), """
                {"bake": 1, "name": "Room", "materials": [{"name": "wall", "base": [0.5,0.5,0.5], "ior": 1}],
                 "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [60,60], "material": "wall"}],
                 "lamps": [{"name": "bulb", "group": "Bulbs", "kind": "point", "position": [0,0,2], "lumens": 1000, "kelvin": 3000}],
                 "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0], "shutter": 0.1, "fNumber": 2}, "size": [80, 50], "around": {"kind": "plain", "luminance": [10,10,10]}}]}""");
    }

    private int run(String... args) {
        PrintStream o = System.out, e = System.err;
        ByteArrayOutputStream a = new ByteArrayOutputStream(), b = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(a, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(b, true, StandardCharsets.UTF_8));
            return Main.run(args);
        } finally {
            System.setOut(o);
            System.setErr(e);
            out = a.toString(StandardCharsets.UTF_8);
            err = b.toString(StandardCharsets.UTF_8);
        }
    }

    private String p() {
        return dir.resolve("p").toString();
    }

    @Test
    void renderSaysWhatItDid() throws IOException {
        Path f = dir.resolve("a.exr");
        assertEquals(0, run("render", p(), "--size", "40x30", "--samples", "5", "--seed", "9", "--threads", "2", "-o", f.toString(), "--json"), err);
        JsonNode n = Json.MAPPER.readTree(out);
        for (String k : new String[] {"seconds", "passes", "samples", "rays", "noise", "seed", "size", "file"}) assertTrue(n.has(k), k);
        assertEquals(5, n.get("passes").asInt());
        assertEquals(5 * 40 * 30, n.get("samples").asInt());
        assertEquals(9, n.get("seed").asInt());
        Raster r = ExrFile.read(f);
        assertEquals(40, r.width());
        for (String ending : new String[] {"png", "hdr", "tif"}) {
            assertEquals(0, run("render", p(), "--size", "20x10", "--samples", "1", "-o", dir.resolve("b." + ending).toString()), err);
            assertTrue(Files.size(dir.resolve("b." + ending)) > 50);
        }
    }

    /** Same scene, settings and seed: the same file, for any number of threads; a region is cut from the same picture. */
    @Test
    void repeatable() throws IOException {
        run("render", p(), "--samples", "3", "--size", "40x30", "--threads", "1", "-o", dir.resolve("1.exr").toString());
        run("render", p(), "--samples", "3", "--size", "40x30", "--threads", "3", "-o", dir.resolve("3.exr").toString());
        org.junit.jupiter.api.Assertions.assertArrayEquals(Files.readAllBytes(dir.resolve("1.exr")), Files.readAllBytes(dir.resolve("3.exr")));
        assertEquals(0, run("render", p(), "--samples", "3", "--size", "40x30", "--region", "10,5,8,6", "-o", dir.resolve("r.exr").toString()), err);
        Raster whole = ExrFile.read(dir.resolve("1.exr")), part = ExrFile.read(dir.resolve("r.exr"));
        assertEquals(8, part.width());
        for (int y = 0; y < 6; y++) for (int x = 0; x < 24; x++) assertEquals(whole.rgb()[3 * ((5 + y) * 40 + 10) + x], part.rgb()[3 * 8 * y + x]);
    }

    @Test
    void measureByGroup() throws IOException {
        Path pts = dir.resolve("p.csv");
        Files.writeString(pts, "x,y,z,nx,ny,nz\n# under the bulb\n0,0,0.0005,0,0,1\n1,0,0.0005,0,0,2\n");
        assertEquals(0, run("measure", p(), "--points", pts.toString(), "--samples", "4096", "--json"), err);
        JsonNode n = Json.MAPPER.readTree(out).get("points");
        assertEquals(2, n.size());
        double bulb = n.get(0).get("groups").get("Bulbs").asDouble();
        assertEquals(1000 / (4 * Math.PI) / 4, bulb, 0.15, "inverse square; the floor around sends nothing to a plane in it");
        assertEquals(Math.PI * 10, n.get(0).get("groups").get("Surroundings").asDouble(), 0.5);
        assertEquals(n.get(0).get("lux").asDouble(), bulb + n.get(0).get("groups").get("Surroundings").asDouble(), 0.01);
    }

    @ParameterizedTest
    @ValueSource(strings = {"0x0", "100000x100000", "5", "-3x4", "axb"})
    void badSizes(String size) {
        assertEquals(2, run("render", p(), "--size", size, "-o", dir.resolve("a.png").toString()));
        assertTrue(err.startsWith("bake: ") && !err.contains("\tat "), err);
        assertFalse(Files.exists(dir.resolve("a.png")));
    }

    @Test
    void badInput() throws IOException {
        assertEquals(2, run("render", dir.resolve("nothing").toString(), "-o", dir.resolve("a.png").toString()));
        assertEquals(2, run("render", p(), "-o", dir.resolve("a.gif").toString()));
        assertEquals(2, run("render", p(), "--view", "Nine", "-o", dir.resolve("a.png").toString()));
        assertTrue(err.contains("One"), err);
        assertEquals(2, run("render", p(), "--preset", "Nine", "-o", dir.resolve("a.png").toString()));
        assertEquals(2, run("render", p(), "--region", "500,500,10,10", "-o", dir.resolve("a.png").toString()));
        assertEquals(2, run("render", p(), "--set", "views[0].camera.focal=-3", "-o", dir.resolve("a.png").toString()));
        assertEquals(2, run("fly"));
        assertEquals(2, run());
        assertEquals(0, run("--help"));
        assertTrue(out.contains("PROJECT is a project's folder"));
        Files.writeString(dir.resolve("bad.csv"), "0,0,0,0,0,0\n");
        assertEquals(2, run("measure", p(), "--points", dir.resolve("bad.csv").toString()));
        assertTrue(err.contains("line 1"), err);
        Files.writeString(dir.resolve("p/project.json"), "{\"bake\": 1, \"name\": \"x\", \"models\": [{\"file\": \"../../etc/passwd\"}], \"views\": [{\"name\": \"v\", \"camera\": {\"position\": [0,0,0], \"target\": [0,1,0]}}]}");
        assertEquals(2, run("render", p(), "-o", dir.resolve("a.png").toString()));
        assertTrue(err.contains("leads out of the folder"), err);
    }

    /** An empty scene without any light renders to black and does not fail. */
    @Test
    void nothingAtAll() throws IOException {
        Files.writeString(dir.resolve("p/project.json"), "{\"bake\": 1, \"name\": \"x\", \"views\": [{\"name\": \"v\", \"camera\": {\"position\": [0,0,0], \"target\": [0,1,0]}, \"around\": {\"kind\": \"plain\", \"luminance\": [0,0,0]}}]}");
        assertEquals(0, run("render", p(), "--size", "16x16", "--samples", "2", "-o", dir.resolve("a.exr").toString()), err);
        for (float v : ExrFile.read(dir.resolve("a.exr")).rgb()) assertEquals(0, v);
        assertEquals(0, run("check", p()));
        assertTrue(out.contains("nothing gives light") && out.contains("the project is empty"), out);
    }

    @Test
    void importMakesAProjectThatRenders() throws IOException {
        Files.writeString(dir.resolve("house.obj"), "v 0 0 0\nv 4 0 0\nv 4 3 0\nv 0 3 0\nv 2 3 -2\nf 1 2 3 4\nf 1 2 5\n");
        assertEquals(0, run("import", dir.resolve("house.obj").toString(), "-o", dir.resolve("new").toString()), err);
        assertEquals(0, run("render", dir.resolve("new").toString(), "--size", "24x16", "--samples", "2", "-o", dir.resolve("h.png").toString()), err);
        assertEquals(2, run("import", dir.resolve("house.obj").toString(), "-o", dir.resolve("new").toString()), "a project is not overwritten");
        assertEquals(0, run("info", dir.resolve("new").toString(), dir.resolve("house.obj").toString(), dir.resolve("h.png").toString()), err);
        assertTrue(out.contains("3 unique triangles") && out.contains("24x16"), out);
    }
}
