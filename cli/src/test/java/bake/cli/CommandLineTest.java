package bake.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import bake.formats.picture.ExrFile;
import bake.formats.picture.Raster;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CommandLineTest extends CommandFixture {
    /** Caches of light are kept in a folder, begun with and looked after; solvers are chosen by the preset's keys. */
    @Test
    void cachesOfLight() throws IOException {
        String folder = dir.resolve("light").toString(), file = dir.resolve("a.png").toString();
        String[] render = {"render", p(), "--samples", "2", "--size", "40x25", "--set", "firstBounce=irradiance cache", "--set",
                "laterBounces=radiance cache", "--set", "gatherRays=64", "--caches", folder, "-o", file, "--json"};
        assertEquals(0, run(render), err);
        JsonNode first = Json.MAPPER.readTree(out);
        assertTrue(first.at("/phases/caches").asDouble() > 0 && first.at("/phases/passes").asDouble() > 0);
        assertEquals("irradiance", first.at("/caches/1/kind").asText());
        assertEquals(0, first.at("/caches/1/loaded").asLong());
        assertEquals(0, run(render), err);
        JsonNode again = Json.MAPPER.readTree(out);
        assertEquals(first.at("/caches/1/records").asLong(), again.at("/caches/1/loaded").asLong());
        assertEquals(0, run("cache", "info", folder, "--project", p(), "--json"), err);
        assertEquals(2, Json.MAPPER.readTree(out).size());
        assertEquals(0, Json.MAPPER.readTree(out).at("/0/changed").size());
        assertEquals(0, run("cache", "check", folder), err);
        Files.write(dir.resolve("light/radiance-x.cache"), new byte[100]);
        assertEquals(2, run("cache", "check", folder));
        assertTrue(err.contains("radiance-x.cache"), err);
        assertEquals(0, run("cache", "clear", folder), err);
        assertEquals(0, run("cache", "info", folder), err);
        assertTrue(out.contains("no caches"), out);
        assertEquals(2, run("cache", "info", dir.resolve("nowhere").toString()));
        assertEquals(2, run("render", p(), "--set", "laterBounces=guess", "-o", file));
        assertTrue(err.contains("laterBounces"), err);
    }

    /** Asked to end while it renders, it writes what there is. */
    @ParameterizedTest
    @ValueSource(strings = {"part.exr", "part.png", "part.tif", "part.jpg"})
    void interruptedItWritesWhatThereIs(String name) throws Exception {
        Path f = dir.resolve(name), said = dir.resolve("said.txt");
        Process p = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "--add-modules",
                "jdk.incubator.vector", "-cp", System.getProperty("java.class.path"), Main.class.getName(),
                "render", p(), "--size", "64x40", "--samples", "1000000", "-o", f.toString()).redirectErrorStream(true).redirectOutput(said.toFile()).start();
        try {
            for (int k = 0; k < 600 && !Files.readString(said).contains("pass 3"); k++) Thread.sleep(50);
            p.destroy();
            assertTrue(p.waitFor(60, java.util.concurrent.TimeUnit.SECONDS), "it ends");
        } finally {
            p.destroyForcibly();
        }
        assertTrue(Files.isRegularFile(f), Files.readString(said));
        if (!name.endsWith(".exr")) {
            assertEquals(64, ImageIO.read(f.toFile()).getWidth());
            return;
        }
        assertEquals(64, ExrFile.read(f).width(), Files.readString(said));
        assertTrue(ExrFile.read(f).rgb()[3 * 64 * 30] > 0);
    }

    @Test
    void renderSaysWhatItDid() throws IOException {
        Path f = dir.resolve("a.exr");
        assertEquals(0, run("render", p(), "--size", "40x30", "--samples", "5", "--seed", "9", "--threads", "2", "-o", f.toString(),
                "--json"), err);
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
        org.junit.jupiter.api.Assertions.assertArrayEquals(Files.readAllBytes(dir.resolve("1.exr")),
                Files.readAllBytes(dir.resolve("3.exr")));
        assertEquals(0, run("render", p(), "--samples", "3", "--size", "40x30", "--region", "10,5,8,6", "-o",
                dir.resolve("r.exr").toString()), err);
        Raster whole = ExrFile.read(dir.resolve("1.exr")), part = ExrFile.read(dir.resolve("r.exr"));
        assertEquals(8, part.width());
        for (int y = 0; y < 6; y++) for (int x = 0; x < 24; x++)
            assertEquals(whole.rgb()[3 * ((5 + y) * 40 + 10) + x], part.rgb()[3 * 8 * y + x]);
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
        Files.writeString(dir.resolve("p/project.json"),
                "{\"bake\": 1, \"name\": \"x\", \"models\": [{\"file\": \"../../etc/passwd\"}], \"views\": [{\"name\": \"v\", \"camera\": {\"position\": [0,0,0], \"target\": [0,1,0]}}]}");
        assertEquals(2, run("render", p(), "-o", dir.resolve("a.png").toString()));
        assertTrue(err.contains("leads out of the folder"), err);
    }

    /** An empty scene without any light renders to black and does not fail. */
    @Test
    void nothingAtAll() throws IOException {
        Files.writeString(dir.resolve("p/project.json"),
                "{\"bake\": 1, \"name\": \"x\", \"views\": [{\"name\": \"v\", \"camera\": {\"position\": [0,0,0], \"target\": [0,1,0]}, \"around\": {\"kind\": \"plain\", \"luminance\": [0,0,0]}}]}");
        assertEquals(0, run("render", p(), "--size", "16x16", "--samples", "2", "-o", dir.resolve("a.exr").toString()), err);
        for (float v : ExrFile.read(dir.resolve("a.exr")).rgb()) assertEquals(0, v);
        assertEquals(0, run("check", p()));
        assertTrue(out.contains("nothing gives light") && out.contains("the project is empty"), out);
    }

    @Test
    void importMakesAProjectThatRenders() throws IOException {
        Files.writeString(dir.resolve("house.obj"), "v 0 0 0\nv 4 0 0\nv 4 3 0\nv 0 3 0\nv 2 3 -2\nf 1 2 3 4\nf 1 2 5\n");
        assertEquals(0, run("import", dir.resolve("house.obj").toString(), "-o", dir.resolve("new").toString()), err);
        assertEquals(0, run("render", dir.resolve("new").toString(), "--size", "24x16", "--samples", "2", "-o",
                dir.resolve("h.png").toString()), err);
        assertEquals(2, run("import", dir.resolve("house.obj").toString(), "-o", dir.resolve("new").toString()),
                "a project is not overwritten");
        assertEquals(0, run("info", dir.resolve("new").toString(), dir.resolve("house.obj").toString(), dir.resolve("h.png").toString()),
                err);
        assertTrue(out.contains("3 unique triangles") && out.contains("24x16"), out);
    }

    /** Limits that are given end the picture; alone, they stand alone. */
    @Test
    void limitsEndThePicture() throws IOException {
        assertEquals(0, run("render", p(), "--size", "60x40", "--noise", "12", "-o", dir.resolve("n.exr").toString(), "--json"), err);
        assertTrue(Json.MAPPER.readTree(out).get("noise").asDouble() <= 12, out);
        assertEquals(0, run("render", p(), "--size", "60x40", "--error", "4", "-o", dir.resolve("n.png").toString(), "--json"), err);
        assertTrue(Json.MAPPER.readTree(out).get("error").asDouble() <= 4 * 1.2, out);
        assertTrue(Json.MAPPER.readTree(out).get("noise").asDouble() > Json.MAPPER.readTree(out).get("error").asDouble(), out);
        long start = System.nanoTime();
        assertEquals(0, run("render", p(), "--size", "60x40", "--time", "3", "-o", dir.resolve("t.exr").toString(), "--json"), err);
        assertTrue((System.nanoTime() - start) / 1e9 < 14);
        assertTrue(Json.MAPPER.readTree(out).get("passes").asInt() > 1, out);
        assertEquals(0, run("render", p(), "--size", "60x40", "--samples", "2", "--seed", "2", "-o", dir.resolve("s2.exr").toString()),
                err);
        assertEquals(0, run("render", p(), "--size", "60x40", "--samples", "2", "--seed", "3", "-o", dir.resolve("s3.exr").toString()),
                err);
        assertFalse(java.util.Arrays.equals(Files.readAllBytes(dir.resolve("s2.exr")), Files.readAllBytes(dir.resolve("s3.exr"))),
                "another seed, other noise");
        assertEquals(2, run("render", p(), "--noise", "3", "--error", "1", "-o", dir.resolve("x.png").toString()));
        assertTrue(err.contains("one of them"), err);
        for (String bad : new String[] {"--samples=0", "--noise=-1", "--error=101", "--noise=nan", "--time=-2", "--threads=0", "--threads=many",
                "--seed=x"})
            assertEquals(2, run("render", p(), bad, "-o", dir.resolve("x.png").toString()), bad + ": " + err);
        assertEquals(2, run("render", p(), "--gamut", "p3", "-o", dir.resolve("x.exr").toString()));
        assertTrue(err.contains("BT.709"), err);
        assertEquals(2, run("render", p(), "--gamut", "wide", "-o", dir.resolve("x.png").toString()));
        assertTrue(err.contains("bt2020"), err);
    }

    /** What --set changes is in the picture; the project file stays as it is. */
    @Test
    void settingsReachThePictureOnly() throws IOException {
        byte[] before = Files.readAllBytes(dir.resolve("p/project.json"));
        run("render", p(), "--size", "24x16", "--samples", "32", "-o", dir.resolve("a.exr").toString());
        assertEquals(0, run("render", p(), "--size", "24x16", "--samples", "32", "--set", "lamps[bulb].lumens=4000", "--set",
                "views[0].around.luminance=[0,0,0]", "-o", dir.resolve("b.exr").toString()), err);
        run("render", p(), "--size", "24x16", "--samples", "32", "--set", "lamps[bulb].lumens=0", "-o", dir.resolve("c.exr").toString());
        double a = mean("a.exr"), b = mean("b.exr"), c = mean("c.exr");
        assertEquals(a, b / 4 + c, 0.02 * a, "light adds up: all = a quarter of the lamp at four times its output + the sky alone");
        org.junit.jupiter.api.Assertions.assertArrayEquals(before, Files.readAllBytes(dir.resolve("p/project.json")));
    }

    private double mean(String file) throws IOException {
        double sum = 0;
        float[] rgb = ExrFile.read(dir.resolve(file)).rgb();
        for (float v : rgb) sum += v / rgb.length;
        return sum;
    }

    @Test
    void everyCommandHelps() {
        for (String c : new String[] {"render", "measure", "info", "check", "import", "export", "finish", "compare", "estimate", "plan", "queue",
                "preset", "cache", "report", "materials"}) {
            assertEquals(0, run(c, "--help"), c);
            assertTrue(out.contains("Usage: bake " + c), out);
            assertEquals(2, run(c, "--nonsense"), c);
            assertTrue(err.contains("Try: bake " + c), err);
        }
        assertEquals(0, run("--version"));
        assertTrue(out.contains("Bake"), out);
    }

    @Test
    void infoTellsWhatFilesHold() throws IOException {
        run("render", p(), "--size", "12x8", "--samples", "2", "-o", dir.resolve("a.hdr").toString());
        assertEquals(0, run("info", p(), dir.resolve("a.hdr").toString()), err);
        assertTrue(out.contains("project 'Room'") && out.contains("view 'One'") && out.contains("12x8, scene light"), out);
        Files.writeString(dir.resolve("bad.glb"), "glTF");
        assertEquals(2, run("info", dir.resolve("bad.glb").toString(), dir.resolve("gone.png").toString(), p()));
        assertTrue(err.contains("bad.glb") && err.contains("no such file") && out.contains("project 'Room'"),
                "one bad file does not hide the others: " + err + out);
    }

    /** A light meter with an odd table says which line, and a good one needs no header. */
    @Test
    void measureReadsTables() throws IOException {
        Path pts = dir.resolve("p.csv");
        for (String bad : new String[] {"1,2,3\n", "a,b,c,d,e,f\n0,0,x,0,0,1\n", "0,0,1,0,0,nan\n", ""}) {
            Files.writeString(pts, bad);
            assertEquals(2, run("measure", p(), "--points", pts.toString(), "--json"), bad);
            assertTrue(err.startsWith("bake: p.csv"), err);
        }
        Files.writeString(pts, "0,0,1,0,0,1\r\n 0 , 0 , 1 , 0 , 0 , -1 \r\n");
        assertEquals(0, run("measure", p(), "--points", pts.toString(), "--samples", "256", "--seed", "4", "--json"), err);
        assertEquals(2, Json.MAPPER.readTree(out).get("points").size());
        String first = out;
        run("measure", p(), "--points", pts.toString(), "--samples", "256", "--seed", "4", "--json");
        assertEquals(first, out, "the same seed, the same reading");
    }

    /** A glTF with a camera becomes a view of its name; light and layers come along. */
    @Test
    void importTakesTheCamera() throws IOException {
        String tri = java.util.Base64.getEncoder().encodeToString(java.nio.ByteBuffer.allocate(36).order(java.nio.ByteOrder.LITTLE_ENDIAN)
                .putFloat(-3).putFloat(0).putFloat(-3).putFloat(3).putFloat(0).putFloat(-3).putFloat(0).putFloat(0).putFloat(3).array());
        Files.writeString(dir.resolve("room.gltf"), """
                {"asset": {"version": "2.0"}, "scene": 0, "scenes": [{"nodes": [0, 1]}],
                 "nodes": [{"name": "Floor", "mesh": 0}, {"name": "Door view", "camera": 0, "translation": [0, 2, 6]}],
                 "cameras": [{"type": "perspective", "perspective": {"yfov": 0.8, "aspectRatio": 1.5, "znear": 0.1}}],
                 "meshes": [{"primitives": [{"attributes": {"POSITION": 0}}]}],
                 "buffers": [{"byteLength": 36, "uri": "data:application/octet-stream;base64,%s"}],
                 "bufferViews": [{"buffer": 0, "byteLength": 36}],
                 "accessors": [{"bufferView": 0, "componentType": 5126, "count": 3, "type": "VEC3", "min": [-3,0,-3], "max": [3,0,3]}]}""".formatted(tri));
        assertEquals(0, run("import", dir.resolve("room.gltf").toString(), "-o", dir.resolve("new").toString()), err);
        assertEquals(0, run("info", dir.resolve("new").toString()), err);
        assertTrue(out.contains("view 'Door view'"), out);
        assertEquals(0, run("render", dir.resolve("new").toString(), "--size", "30x20", "--samples", "4", "-o",
                dir.resolve("d.exr").toString()), err);
        assertTrue(mean("d.exr") > 100, "there is daylight: " + mean("d.exr"));
        assertEquals(0, run("check", dir.resolve("new").toString()), err);
    }
}
