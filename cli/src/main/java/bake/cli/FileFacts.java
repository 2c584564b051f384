package bake.cli;

import bake.core.light.GeneralSky;
import bake.core.light.LightTable;
import bake.core.light.Surround;
import bake.core.scene.Mesh;
import bake.core.scene.PhotometricWeb;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.light.IesFile;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.picture.TextureReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.scene.SceneAssembly;
import bake.studio.scene.SunPosition;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;

/** What a file holds, as a document and in words. */
final class FileFacts {
    private static final int MOST_LAYERS = 40;

    private FileFacts() {}

    /** @throws FormatException when it cannot be used; the message says why */
    static ObjectNode of(Path given) throws IOException {
        Path f = given.toString().equals("demo") && !Files.exists(given) ? Projects.file("demo") : given;
        if (Files.isDirectory(f)) f = ProjectFile.locate(f);
        if (!Files.isRegularFile(f)) throw new FormatException(f.toString(), null, "there is no such file");
        String n = f.getFileName().toString().toLowerCase(Locale.ROOT);
        ObjectNode out = Json.MAPPER.createObjectNode().put("file", f.toString());
        if (ModelReader.isModel(f)) model(f, out.put("kind", "model"));
        else if (n.endsWith(".json")) project(f, out.put("kind", "project"));
        else if (n.endsWith(".ies")) photometry(f, out.put("kind", "photometry"));
        else if (n.endsWith(".hdr") || n.endsWith(".exr")) light(n.endsWith(".hdr") ? HdrFile.read(f) : ExrFile.read(f), out.put("kind", "light"));
        else try (InputStream in = Files.newInputStream(f)) {
            ArrayNode findings = Json.MAPPER.createArrayNode();
            var t = TextureReader.read(in, f.getFileName().toString(), true, findings::add);
            if (!findings.isEmpty()) out.set("findings", findings);
            out.put("kind", "picture").put("width", t.width()).put("height", t.height());
        }
        return out;
    }

    private static void light(Raster r, ObjectNode out) {
        double most = 0, mean = 0;
        long odd = 0;
        for (float x : r.rgb()) if (!Float.isFinite(x)) odd++;
        if (odd > 0) out.putArray("findings").add(odd + (odd == 1 ? " value is no finite number" : " values are no finite numbers"));
        for (int i = 0; i < r.rgb().length; i += 3) {
            double l = 0.2126 * r.rgb()[i] + 0.7152 * r.rgb()[i + 1] + 0.0722 * r.rgb()[i + 2];
            if (!Double.isFinite(l)) continue;
            most = Math.max(most, l);
            mean += l * 3 / r.rgb().length;
        }
        out.put("width", r.width()).put("height", r.height()).put("meanLuminance", mean).put("greatestLuminance", most);
    }

    private static void model(Path f, ObjectNode out) throws IOException {
        ImportedModel m = ModelReader.read(f, null, null);
        out.put("meshes", m.meshes().size()).put("placed", m.instances().size()).put("uniqueTriangles", m.uniqueTriangles())
                .put("triangles", m.placedTriangles()).put("materials", m.materials().size()).put("textures", m.textures().size())
                .put("cameras", m.cameras().size()).put("lamps", m.lamps().size());
        double[] box = {1e300, 1e300, 1e300, -1e300, -1e300, -1e300};
        for (var i : m.instances()) {
            Mesh x = m.meshes().get(i.mesh());
            for (int k = 0; k + 2 < x.positions().length; k += 3) {
                var p = i.toWorld().point(new bake.core.math.Vec3(x.positions()[k], x.positions()[k + 1], x.positions()[k + 2]));
                double[] c = {p.x(), p.y(), p.z()};
                for (int d = 0; d < 3; d++) {
                    box[d] = Math.min(box[d], c[d]);
                    box[3 + d] = Math.max(box[3 + d], c[d]);
                }
            }
        }
        if (box[0] <= box[3]) {
            ArrayNode low = out.putArray("low"), high = out.putArray("high");
            for (int d = 0; d < 3; d++) {
                low.add(box[d]);
                high.add(box[3 + d]);
            }
        }
        m.layers().forEach(out.putArray("layers")::add);
        ArrayNode findings = out.putArray("findings");
        for (Finding g : m.findings()) findings.add(g.line());
    }

    private static void photometry(Path f, ObjectNode out) throws IOException {
        IesFile.Photometry p = IesFile.read(f);
        PhotometricWeb w = p.web();
        out.put("title", p.title()).put("lumens", w.lumens()).put("greatestCandela", w.peak()).put("watts", p.watts())
                .put("width", p.width()).put("length", p.length()).put("lampLumens", p.lampLumens());
        p.notes().forEach(out.putArray("findings")::add);
    }

    private static void project(Path f, ObjectNode out) throws IOException {
        Project p = ProjectFile.read(f);
        out.put("name", p.name()).put("models", p.models().size()).put("shapes", p.shapes().size()).put("lamps", p.lamps().size())
                .put("due", p.due());
        ArrayNode views = out.putArray("views");
        Path folder = f.toAbsolutePath().getParent();
        for (View v : p.views()) {
            ObjectNode n = views.addObject().put("name", v.name()).put("setting", v.setting()).put("width", v.size()[0])
                    .put("height", v.size()[1]).put("around", v.around().kind()).put("exposure", v.camera().camera().ev100());
            sky(p, v, folder, n);
            boolean sun = v.around().kind().equals("sun and sky") || v.around().kind().equals("standard sky") && !GeneralSky.hidesSun(
                    v.around().standardSky());
            if (!sun) continue;
            SunPosition.Angles a = SunPosition.of(p.place(), v.around());
            n.put("sunAzimuth", a.azimuth()).put("sunHeight", a.height());
            String odd = SunPosition.oddity(p.place(), v.around());
            if (odd != null) out.withArrayProperty("findings").add("view '" + v.name() + "': " + odd);
        }
    }

    /** What the surroundings give: luminance of the zenith, cd/m2, and illuminance of open level ground, lx. */
    private static void sky(Project p, View v, Path folder, ObjectNode n) throws IOException {
        Surround s;
        try {
            s = Surround.of(new SceneAssembly(folder).surroundings(p, v));
        } catch (FormatException e) {
            n.put("light", e.getMessage());
            return;
        }
        float[] rgb = new float[4];
        s.dome().read(0, 0, 1, rgb);
        n.put("zenithLuminance", 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]).put("skyLux", s.dome().horizontalIlluminance())
                .put("sunLux", s.toSun() == null ? 0 : s.sunLux().luminance() * Math.max(0, s.toSun().z()));
    }

    private static String list(JsonNode array, int most) {
        return StreamSupport.stream(array.spliterator(), false).limit(most).map(JsonNode::asText).collect(Collectors.joining(", "));
    }

    /** The same in words. */
    static void print(ObjectNode n, PrintWriter out) {
        String f = n.path("file").asText();
        switch (n.path("kind").asText()) {
            case "model" -> {
                out.printf("%s: model, %s meshes, %s placed, %s unique triangles, %s with copies, %s materials, %s textures, %s cameras, %s lamps%n", f,
                        n.path("meshes"), n.path("placed"), n.path("uniqueTriangles"), n.path("triangles"), n.path("materials"),
                        n.path("textures"), n.path("cameras"), n.path("lamps"));
                if (!n.path("layers").isEmpty()) out.println("  layers: " + list(n.path("layers"), MOST_LAYERS));
            }
            case "project" -> {
                out.printf("%s: project '%s', %s models, %s shapes, %s lamps, %d views, due %s%n", f, n.path("name").asText(),
                        n.path("models"), n.path("shapes"), n.path("lamps"), n.path("views").size(),
                        n.path("due").isNull() ? "not set" : n.path("due").asText());
                for (JsonNode v : n.path("views")) out.printf("  view '%s', %s, %sx%s, %s%n", v.path("name").asText(),
                        v.path("setting").asText(), v.path("width"), v.path("height"), v.path("around").asText());
            }
            case "photometry" -> out.printf(Locale.ROOT, "%s: photometric file, %s, %.0f lm, %.0f cd at most, %.0f W%n", f,
                    n.path("title").asText().isEmpty() ? "no title" : n.path("title").asText(), n.path("lumens").asDouble(),
                    n.path("greatestCandela").asDouble(), n.path("watts").asDouble());
            case "light" -> out.printf(Locale.ROOT, "%s: picture, %sx%s, scene light, mean %.4g, greatest %.4g cd/m2%n", f, n.path("width"),
                    n.path("height"), n.path("meanLuminance").asDouble(), n.path("greatestLuminance").asDouble());
            default -> out.printf("%s: picture, %sx%s%n", f, n.path("width"), n.path("height"));
        }
        for (JsonNode g : n.path("findings")) out.println("  " + g.asText());
    }
}
