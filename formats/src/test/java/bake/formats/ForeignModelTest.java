package bake.formats;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.formats.foreign.ForeignModel;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Models that a child process reads: sizes in metres with z up, crashes and endless reading as errors, and no way out of the folder. */
class ForeignModelTest {
    @TempDir
    Path dir;

    private Path file(String name) throws IOException {
        Path to = dir.resolve(name);
        try (InputStream in = ForeignModelTest.class.getResourceAsStream("models/" + name)) {
            Files.copy(in, to);
        }
        return to;
    }

    /** Extent of all that is placed: x, y, z. */
    private static double[] size(ImportedModel m) {
        double[] lo = {1e30, 1e30, 1e30}, hi = {-1e30, -1e30, -1e30};
        for (Instance i : m.instances()) {
            Mesh x = m.meshes().get(i.mesh());
            for (int k = 0; k < x.positions().length; k += 3) {
                Vec3 q = i.toWorld().point(new Vec3(x.positions()[k], x.positions()[k + 1], x.positions()[k + 2]));
                double[] c = {q.x(), q.y(), q.z()};
                for (int a = 0; a < 3; a++) {
                    lo[a] = Math.min(lo[a], c[a]);
                    hi[a] = Math.max(hi[a], c[a]);
                }
            }
        }
        return new double[] {hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]};
    }

    /** A bench of 2 x 0.5 x 1 units, in files of several kinds: kinds with y up come to lie on their back, as in the file. */
    @ParameterizedTest
    @CsvSource({"bench.dae, 2, 1, 0.5", "bench.3ds, 2, 0.5, 1", "bench.stl, 2, 0.5, 1"})
    void kinds(String name, double x, double y, double z) throws IOException {
        ImportedModel m = ModelReader.read(file(name), null, null);
        assertEquals(12, m.placedTriangles());
        double[] s = size(m);
        double[] sorted = s.clone(), wanted = {x, y, z};
        java.util.Arrays.sort(sorted);
        java.util.Arrays.sort(wanted);
        assertArrayEquals(wanted, sorted, 1e-3, name + ": " + java.util.Arrays.toString(s));
        boolean says = name.endsWith("dae");
        assertEquals(says, m.findings().stream().noneMatch(f -> f.kind() == Finding.Kind.UNITS), "a unit that is not said is a finding");
    }

    /** FBX keeps its unit as metadata: one unit here is a centimetre, and may be overruled. */
    @Test
    void fbxUnits() throws IOException {
        Path f = file("bench.fbx");
        double own = size(ModelReader.read(f, null, null))[0], metres = size(ModelReader.read(f, 1.0, "z"))[0];
        assertEquals(2, metres, 1e-3);
        assertEquals(0.02, own, 1e-4);
        double[] up = size(ModelReader.read(f, 1.0, "z")), down = size(ModelReader.read(f, 1.0, "y"));
        assertEquals(up[1], down[2], 1e-4, "y up turns depth into height");
    }

    /** Unit and axis of IFC lie in the root: millimetres, z up; the wall is 5 m long, 0.3 m thick and 2.8 m high. */
    @Test
    void ifcBuilding() throws IOException {
        assertArrayEquals(new double[] {5, 0.3, 2.8}, size(ModelReader.read(file("wall.ifc"), null, null)), 1e-4);
    }

    /** Things are called as the file calls them, spaces and umlauts too, and a storey is a layer. */
    @Test
    void ifcNamesAndStoreys() throws IOException {
        Path wall = file("wall.ifc");
        ImportedModel plain = ModelReader.read(wall, null, null);
        assertEquals("North wall", plain.instances().getFirst().name());
        String upper = """
                #30=IFCBUILDINGSTOREY('0YvctVUKr0kugbFTf53O9V',#5,'First floor',$,$,#15,$,$,.ELEMENT.,3.);
                #31=IFCRELAGGREGATES('0YvctVUKr0kugbFTf53O9W',#5,$,$,#17,(#30));
                #32=IFCPRODUCTDEFINITIONSHAPE($,$,(#26));
                #33=IFCWALL('0YvctVUKr0kugbFTf53O9X',#5,'Upper wall',$,$,#15,#32,$);
                #34=IFCRELCONTAINEDINSPATIALSTRUCTURE('0YvctVUKr0kugbFTf53O9Y',#5,$,$,(#33),#30);
                """;
        String more = Files.readString(wall).replace("'North wall'", "'Nordw\\X2\\00E4\\X0\\nde'")
                .replaceFirst("(#29=.*)\n", "$1\n" + java.util.regex.Matcher.quoteReplacement(upper));
        ImportedModel m = ModelReader.read(Files.writeString(dir.resolve("more.ifc"), more), null, null);
        var floors = new java.util.TreeMap<String, String>();
        m.instances().forEach(i -> floors.put(i.name(), m.layers().get(i.layer())));
        assertEquals("{Nordw\u00e4nde=Ground floor, Upper wall=First floor}", floors.toString());
    }

    @Test
    void materialsComeAlong() throws IOException {
        ImportedModel m = ModelReader.read(file("bench.dae"), null, null);
        assertTrue(m.materials().stream().anyMatch(x -> x.name().contains("red") && Math.abs(x.base().x() - 0.8) < 0.01
                && Math.abs(x.base().y() - 0.1) < 0.01), m.materials().toString());
        assertTrue(m.layers().contains("Bench"), m.layers().toString());
    }

    /** Packed and plain, the same sheet in two parts of different materials; quantised to about a thousandth. */
    @Test
    void draco() throws IOException {
        ImportedModel packed = ModelReader.read(file("sheet-packed.glb"), null, null),
                plain = ModelReader.read(file("sheet.gltf"), null, null);
        assertEquals(plain.placedTriangles(), packed.placedTriangles());
        assertArrayEquals(size(plain), size(packed), 2e-3);
        assertEquals(2, packed.meshes().size());
        for (int i = 0; i < 2; i++) {
            assertEquals(plain.materials().get(plain.meshes().get(i).material()).name(),
                    packed.materials().get(packed.meshes().get(i).material()).name());
            // The second part lies one metre over the first.
            assertEquals(mean(plain.meshes().get(i)), mean(packed.meshes().get(i)), 2e-3);
            assertTrue(packed.meshes().get(i).normals() != null && packed.meshes().get(i).uvs() != null);
        }
    }

    /** The same sheet as two meshes, which nodes use in the other order: each part stays where it belongs. */
    @Test
    void dracoInAnyOrder() throws IOException {
        byte[] all = Files.readAllBytes(file("sheet-packed.glb"));
        java.nio.ByteBuffer b = java.nio.ByteBuffer.wrap(all).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        int length = b.getInt(12);
        var root = (com.fasterxml.jackson.databind.node.ObjectNode) Json.MAPPER.readTree(new String(all, 20, length,
                java.nio.charset.StandardCharsets.UTF_8));
        var parts = root.path("meshes").get(0).path("primitives");
        var meshes = root.putArray("meshes");
        for (var p : parts) meshes.addObject().put("name", "sheet").putArray("primitives").add(p);
        var nodes = root.putArray("nodes");
        nodes.addObject().put("mesh", 1);
        nodes.addObject().put("mesh", 0);
        root.putArray("scenes").addObject().putArray("nodes").add(0).add(1);
        byte[] json = Json.MAPPER.writeValueAsBytes(root), padded = java.util.Arrays.copyOf(json, json.length + 3 & ~3);
        java.util.Arrays.fill(padded, json.length, padded.length, (byte) ' ');
        java.nio.ByteBuffer out = java.nio.ByteBuffer.allocate(all.length - length + padded.length)
                .order(java.nio.ByteOrder.LITTLE_ENDIAN).put(all, 0, 8).putInt(all.length - length + padded.length).putInt(padded.length)
                .put(all, 16, 4).put(padded).put(all, 20 + length, all.length - 20 - length);
        ImportedModel m = ModelReader.read(Files.write(dir.resolve("order.glb"), out.array()), null, null),
                plain = ModelReader.read(file("sheet.gltf"), null, null);
        for (Mesh x : m.meshes()) {
            String material = m.materials().get(x.material()).name();
            Mesh same = plain.meshes().stream().filter(y -> plain.materials().get(y.material()).name().equals(material)).findFirst()
                    .orElseThrow();
            assertEquals(mean(same), mean(x), 2e-3, material);
        }
    }

    /** A camera and two lamps of a COLLADA file; one with only those is told apart from an empty one. */
    @Test
    void daeCamerasAndLamps() throws IOException {
        String more = """
                <library_cameras><camera id="c"><optics><technique_common><perspective><xfov>60</xfov><aspect_ratio>1.5</aspect_ratio>
                <znear>0.1</znear><zfar>100</zfar></perspective></technique_common></optics></camera></library_cameras>
                <library_lights><light id="p"><technique_common><point><color>1 0.5 0.25</color></point></technique_common></light>
                <light id="s"><technique_common><spot><color>1 1 1</color><falloff_angle>40</falloff_angle></spot></technique_common></light>
                </library_lights>""", nodes = """
                <node id="eye" name="eye"><translate>1 2 3</translate><instance_camera url="#c"/></node>
                <node id="bulb" name="bulb"><translate>4 5 6</translate><instance_light url="#p"/></node>
                <node id="down" name="down"><translate>0 0 9</translate><instance_light url="#s"/></node>""";
        Path bench = file("bench.dae");
        String dae = Files.readString(bench);
        Path f = Files.writeString(dir.resolve("lit.dae"), dae.replaceFirst("<library_geometries>", more + "<library_geometries>")
                .replaceFirst("(<visual_scene[^>]*>)", "$1" + nodes));
        ImportedModel m = ModelReader.read(f, null, null), plain = ModelReader.read(bench, null, null);
        assertEquals(plain.placedTriangles(), m.placedTriangles());
        assertEquals(1, m.cameras().size());
        assertEquals(18 / Math.tan(Math.toRadians(22.5)), m.cameras().getFirst().camera().focal(), 0.1, "the angle that is taken, and said");
        assertEquals(2, m.lamps().size());
        assertTrue(m.findings().stream().anyMatch(x -> x.text().contains("no unit")), m.findings().toString());
        // In the file's own axes and unit, as its meshes are.
        double unit = size(m)[0] / size(plain)[0];
        assertEquals(1, unit, 1e-9);
        String only = dae.replaceFirst("(?s)<library_geometries>.*</library_geometries>", more)
                .replaceAll("(?s)<instance_geometry.*?</instance_geometry>", "").replaceFirst("(<visual_scene[^>]*>)", "$1" + nodes);
        String said = assertThrows(FormatException.class, () -> ModelReader.read(Files.writeString(dir.resolve("only.dae"), only), null, null))
                .getMessage();
        assertTrue(said.contains("only cameras and lights"), said);
    }

    private static double mean(Mesh m) {
        double s = 0;
        for (int i : m.indices()) s += m.positions()[3 * i + 1] / m.indices().length;
        return s;
    }

    @Test
    void plyInText() throws IOException {
        Path f = dir.resolve("tri.ply");
        Files.writeString(f, "ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n4000 0 0\n0 0 3000\n3 0 1 2\n");
        assertArrayEquals(new double[] {4, 0, 3}, size(ModelReader.read(f, null, null)), 1e-3, "of a size that only millimetres fit");
        assertArrayEquals(new double[] {40, 0, 30}, size(ModelReader.read(f, 0.01, "z")), 1e-3);
    }

    /** Scans bring their colours corner by corner, as screens show them. */
    @Test
    void plyWithColours() throws IOException {
        Path f = dir.resolve("scan.ply");
        Files.writeString(f, "ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nproperty uchar green\nproperty uchar blue\n"
                + "element face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0 255 0 0\n4 0 0 0 188 0\n0 0 3 0 0 255\n3 0 1 2\n");
        var m = ModelReader.read(f, null, null);
        float[] c = m.meshes().getFirst().colours();
        int green = -1;
        for (int k = 0; k < 3; k++) if (m.meshes().getFirst().positions()[3 * k] > 3) green = k;
        // 188 of 255 is half the light (IEC 61966-2-1: 0.5029).
        assertArrayEquals(new float[] {0, 0.503f, 0}, java.util.Arrays.copyOfRange(c, 3 * green, 3 * green + 3), 2e-3f);
        assertEquals(new Vec3(1, 1, 1), m.materials().get(m.meshes().getFirst().material()).base(), "nothing else colours it");
    }

    /** A file that makes the native library crash is an error about that file; so is nonsense, and so is a stop. */
    @Test
    void crashesAndNonsenseAreErrors() throws IOException {
        Path crash = file("crashing.ply");
        FormatException e = assertThrows(FormatException.class, () -> ModelReader.read(crash, null, null));
        assertTrue(e.getMessage().contains("crashing.ply") && e.getMessage().contains(".glb"), e.getMessage());
        for (String n : new String[] {"a.fbx", "a.dae", "a.3ds", "a.ifc", "a.stl"}) {
            Path f = dir.resolve(n);
            Files.write(f, "this is no model at all, whatever its name says".getBytes(StandardCharsets.UTF_8));
            FormatException bad = assertThrows(FormatException.class, () -> ModelReader.read(f, null, null), n);
            assertTrue(bad.getMessage().contains(n), bad.getMessage());
        }
        Path fbx = file("bench.fbx");
        FormatException stopped = assertThrows(FormatException.class, () -> ForeignModel.read(fbx, 0, (char) 0, () -> true, 1 << 20));
        assertTrue(stopped.getMessage().contains("stopped"), stopped.getMessage());
    }

    /** A model names a picture outside of its folder: it is not read, and said to be missing. */
    @Test
    void nothingOutsideTheFolderIsRead() throws IOException {
        Path inside = Files.createDirectories(dir.resolve("in"));
        javax.imageio.ImageIO.write(new java.awt.image.BufferedImage(2, 2, java.awt.image.BufferedImage.TYPE_INT_RGB), "png",
                dir.resolve("secret.png").toFile());
        String dae;
        try (InputStream in = ForeignModelTest.class.getResourceAsStream("models/bench.dae")) {
            dae = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        dae = dae.replaceFirst("<library_effects>",
                "<library_images><image id=\"i\"><init_from>../secret.png</init_from></image></library_images><library_effects>")
                .replaceFirst("<diffuse>\\s*<color[^>]*>[^<]*</color>\\s*</diffuse>",
                "<diffuse><texture texture=\"s\" texcoord=\"CHANNEL0\"/></diffuse>")
                .replaceFirst("(<profile_COMMON>)",
                "$1<newparam sid=\"f\"><surface type=\"2D\"><init_from>i</init_from></surface></newparam><newparam sid=\"s\"><sampler2D><source>f</source></sampler2D></newparam>");
        Files.writeString(inside.resolve("b.dae"), dae);
        ImportedModel m = ModelReader.read(inside.resolve("b.dae"), null, null);
        assertTrue(m.textures().isEmpty(), "no picture from outside");
        assertTrue(m.findings().stream().anyMatch(f -> f.kind() == Finding.Kind.MISSING_TEXTURE && f.text().contains("secret.png")),
                m.findings().toString());
    }

    /** A surveyed site lies far away: it is moved to the origin, keeps its form to a millimetre, and says so. */
    @Test
    void farModelsAreMoved() throws IOException {
        Path f = dir.resolve("site.obj");
        Files.writeString(f, "v 4468000 5333000 500\nv 4468010 5333000 500\nv 4468010 5333004 500\nf 1 2 3\n");
        ImportedModel m = ModelReader.read(f, 1.0, "z");
        assertArrayEquals(new double[] {10, 4, 0}, size(m), 0.51, "single precision in the file itself keeps half metres");
        for (Instance i : m.instances()) assertTrue(i.toWorld().point(Vec3.ZERO).length() < 1000);
        assertTrue(m.findings().stream().anyMatch(x -> x.kind() == Finding.Kind.UNITS && x.text().contains("moved")));
    }
}
