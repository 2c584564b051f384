package bake.studio.render;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.path.LightPart;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.lwjgl.PointerBuffer;
import org.lwjgl.system.MemoryStack;
import org.lwjgl.system.MemoryUtil;
import org.lwjgl.util.tinyexr.EXRHeader;
import org.lwjgl.util.tinyexr.EXRImage;
import org.lwjgl.util.tinyexr.EXRVersion;
import org.lwjgl.util.tinyexr.TinyEXR;

/** What an EXR file holds beside the picture, read by another reader than ours. */
class ChannelsTest {
    private static final int W = 60, H = 40;
    private static final String ROOM = """
            {"bake": 1, "name": "Room",
             "materials": [{"name": "wall", "base": [0.7,0.4,0.2], "roughness": 1, "ior": 1}, {"name": "block", "base": [0.2,0.2,0.2], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [60,60], "material": "wall"},
                        {"name": "box", "type": "box", "center": [0.2,0,1], "size": [1,1,2], "material": "block"}],
             "lamps": [{"name": "a", "group": "Left lamps", "kind": "sphere", "position": [-2,-1,2.6], "diameter": 0.2, "lumens": 3000},
                       {"name": "b", "group": "Right", "kind": "sphere", "position": [2,-1,2.6], "diameter": 0.2, "lumens": 5000}],
             "views": [{"name": "One", "camera": {"position": [0,-5,1], "target": [0,0,1], "focal": 24}, "size": [60, 40],
                        "around": {"kind": "plain", "luminance": [3,4,5]}}]}""";
    @TempDir
    private Path dir;

    private RenderJob job(Workers w, boolean apart) throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM);
        Project p = ProjectFile.read(dir.resolve("project.json"));
        View v = p.views().getFirst();
        RenderScene s = RenderScene.compile(new SceneAssembly(dir).scene(p, v), null, Workers.COMPILING, HierarchyCache.shared());
        Preset q = Preset.of("P", 1, "test", "interior", 0, 0, 0, 6, 3, 0, false);
        RenderJob j = new RenderJob(s, new RenderJob.Order("One", v.camera().camera(), v.look(), q, W, H, null, 3,
                bake.core.film.Film.Split.of(apart, apart)), w);
        j.run(g -> {});
        return j;
    }

    /** Planes by name, as the native library reads them, and the texts of the head. */
    private static Map<String, float[]> read(Path file, Map<String, String> texts) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        ByteBuffer all = MemoryUtil.memAlloc(bytes.length).put(bytes).flip();
        Map<String, float[]> out = new TreeMap<>();
        try (MemoryStack stack = MemoryStack.stackPush(); EXRVersion version = EXRVersion.calloc(); EXRHeader header = EXRHeader.calloc();
                EXRImage image = EXRImage.calloc()) {
            PointerBuffer err = stack.mallocPointer(1);
            assertEquals(0, TinyEXR.ParseEXRVersionFromMemory(version, all));
            TinyEXR.InitEXRHeader(header);
            assertEquals(0, TinyEXR.ParseEXRHeaderFromMemory(header, version, all, err));
            for (int i = 0; i < header.num_channels(); i++) header.requested_pixel_types().put(i, TinyEXR.TINYEXR_PIXELTYPE_FLOAT);
            TinyEXR.InitEXRImage(image);
            assertEquals(0, TinyEXR.LoadEXRImageFromMemory(image, header, all, err));
            for (int c = 0; c < image.num_channels(); c++) {
                float[] plane = new float[image.width() * image.height()];
                MemoryUtil.memByteBuffer(image.images().get(c), 4 * plane.length).order(ByteOrder.nativeOrder()).asFloatBuffer().get(plane);
                out.put(header.channels().get(c).nameString(), plane);
            }
            for (int i = 0; i < header.num_custom_attributes(); i++) {
                var a = header.custom_attributes().get(i);
                byte[] t = new byte[a.size()];
                a.value().get(t);
                texts.put(a.nameString(), new String(t, StandardCharsets.UTF_8));
            }
            TinyEXR.FreeEXRImage(image);
            TinyEXR.FreeEXRHeader(header);
        }
        MemoryUtil.memFree(all);
        return out;
    }

    @Test
    void allOfThem() throws IOException {
        Path file = dir.resolve("all.exr");
        try (Workers w = new Workers(2)) {
            PictureOutput.write(file, job(w, true), FileOptions.SCREEN.withChannels(List.of(Channel.values())));
        }
        Map<String, String> texts = new TreeMap<>();
        Map<String, float[]> p = read(file, texts);
        // The light of all sources adds up to the picture.
        List<String> lights = p.keySet().stream().filter(n -> n.startsWith("light.") && n.endsWith(".G")).toList();
        assertTrue(lights.containsAll(List.of("light.Left_lamps.G", "light.Right.G")), p.keySet().toString());
        float[] g = p.get("G");
        for (int i = 0; i < W * H; i++) {
            double sum = 0;
            for (String l : lights) sum += p.get(l)[i];
            // Numbers of 16 bit are right to one in two thousand.
            assertEquals(g[i], sum, 2e-3 * g[i] + 1e-4);
        }
        parts(p, g, H / 2 * W + W / 2);
        float[] open = p.get("occlusion.Y");
        assertEquals(1, open[(H - 1) * W], 0.01, "open ground far from the box");
        assertEquals(1, open[H / 2 * W + W / 2], 0.01, "the front of the box, a metre above the ground");
        int shut = 0;
        for (float o : open) if (o < 0.85f) shut++;
        assertTrue(shut > 5 && shut < W * H / 10, "where the box stands: " + shut);
        // The middle of the picture is the front of the box, 4.5 m away, which faces the camera.
        int middle = H / 2 * W + W / 2;
        assertEquals(4.5f, p.get("Z")[middle], 1e-3);
        assertEquals(-0.5f, p.get("P.Y")[middle], 1e-3);
        assertEquals(-1f, p.get("N.Y")[middle], 1e-3);
        assertEquals(0.2f, p.get("albedo.R")[middle], 1e-3);
        assertEquals(6f, p.get("samples.Y")[middle]);
        assertTrue(p.get("noise.Y")[middle] > 0);
        assertEquals(1e10f, p.get("Z")[3], 1e4f, "the sky is far away");
        mattes(p, texts, "CryptoMaterial", middle, "block", true);
        mattes(p, texts, "CryptoObject", middle, "box", true);
        String layer = manifest(texts, "CryptoLayer").fieldNames().next();
        mattes(p, texts, "CryptoLayer", middle, layer, false);
        sources(p, texts, middle);
        facing(p, middle);
        shadow(p.get("shadow.Y"), middle);
    }

    /** Lamps that are seen are of their groups, and nothing else is. */
    private static void sources(Map<String, float[]> p, Map<String, String> texts, int middle) throws IOException {
        int left = Integer.parseUnsignedInt(manifest(texts, "CryptoSource").path("Left lamps").asText(), 16), seen = 0;
        float[] id = p.get("CryptoSource00.R"), share = p.get("CryptoSource00.G");
        for (int i = 0; i < W * H; i++) if (share[i] > 0 && Float.floatToRawIntBits(id[i]) == left) {
            seen++;
            assertTrue(i % W < W / 2 && i / W < H / 2, "above on the left");
        }
        assertTrue(seen > 0);
        assertEquals(0, share[middle]);
    }

    /** The front of the box looks at the camera; depth goes from 0 to 1 over what is seen. */
    private static void facing(Map<String, float[]> p, int middle) {
        assertEquals(0, p.get("facing.X")[middle], 1e-3);
        assertEquals(0, p.get("facing.Y")[middle], 1e-3);
        assertEquals(1, p.get("facing.Z")[middle], 1e-3);
        assertEquals(1, p.get("facing.Y")[(H - 1) * W], 1e-3, "the ground looks up");
        float least = 1, most = 0;
        for (int i = 0; i < W * H; i++) if (p.get("Z")[i] < 1e9f) {
            least = Math.min(least, p.get("depth.Y")[i]);
            most = Math.max(most, p.get("depth.Y")[i]);
        }
        assertEquals(0, least);
        assertEquals(1, most);
        assertEquals(1, p.get("depth.Y")[3], "the sky is far away");
        // A texture on plain shapes is a metre wide.
        float[] u = p.get("uv.X"), x = p.get("P.X");
        int a = (H - 1) * W + 2, b = (H - 1) * W + W - 3;
        assertEquals(Math.abs(x[b] - x[a]), Math.abs(u[b] - u[a]), 1e-3);
    }

    /** A camera on its side sees the sky of the scene to a side. */
    @Test
    void facingFollowsTheRoll() {
        bake.core.scene.Camera c = bake.core.scene.Camera.of(new bake.core.math.Vec3(0, -5, 1), new bake.core.math.Vec3(0, 0, 1), 24);
        float[] up = new float[3];
        new bake.core.compiled.Lens(c.withForm(c.form().withRoll(90)), W, H).facing(0, 0, 1, up);
        assertEquals(1, Math.abs(up[0]), 1e-6);
        assertEquals(0, up[1], 1e-6);
        assertEquals(0, up[2], 1e-6);
    }

    /** Before the box both lamps arrive, beside it on the ground lies the shadow of one. */
    private static void shadow(float[] lit, int middle) {
        assertEquals(1, lit[middle], 0.02);
        int half = 0, none = 0;
        for (float l : lit) {
            if (l > 0.1 && l < 0.8) half++;
            if (l < 0 || l > 1) none++;
        }
        assertTrue(half > 5, "where one of two is hidden: " + half);
        assertEquals(0, none);
    }

    private static com.fasterxml.jackson.databind.JsonNode manifest(Map<String, String> texts, String set) throws IOException {
        String key = texts.entrySet().stream().filter(e -> e.getKey().endsWith("/name") && e.getValue().equals(set)).findFirst().orElseThrow().getKey()
                .replace("name", "");
        return Json.MAPPER.readTree(texts.get(key + "manifest"));
    }

    /** What came by each way adds up; a matt box shows no reflection, the sky beside it is seen itself. */
    private static void parts(Map<String, float[]> p, float[] g, int middle) {
        for (int i = 0; i < W * H; i++) {
            double sum = 0;
            for (LightPart l : LightPart.values()) sum += p.get(l.word() + ".G")[i];
            assertEquals(g[i], sum, 2e-3 * g[i] + 1e-4);
        }
        assertEquals(0, p.get("seen.G")[middle], 1e-6);
        assertEquals(0, p.get("reflected.G")[middle], 1e-6);
        assertEquals(0, p.get("refracted.G")[middle], 1e-6);
        assertTrue(p.get("direct.G")[middle] > 0 && p.get("bounced.G")[middle] > 0);
        assertEquals(4, p.get("seen.G")[3], 0.01, "the surroundings");
        assertEquals(0, p.get("direct.G")[3] + p.get("bounced.G")[3], 1e-6);
    }

    /** Shares come to one where something is seen, and the numbers are those of the names. */
    private static void mattes(Map<String, float[]> p, Map<String, String> texts, String set, int middle, String name, boolean several)
            throws IOException {
        String key = texts.entrySet().stream().filter(e -> e.getKey().endsWith("/name") && e.getValue().equals(set)).findFirst().orElseThrow().getKey()
                .replace("name", "");
        var manifest = Json.MAPPER.readTree(texts.get(key + "manifest"));
        int id = Integer.parseUnsignedInt(manifest.path(name).asText(), 16);
        assertEquals(id, Float.floatToRawIntBits(p.get(set + "00.R")[middle]));
        assertEquals("uint32_to_float32", texts.get(key + "conversion"));
        boolean mixed = false;
        for (int i = 0; i < W * H; i++) {
            double sum = 0;
            for (int layer = 0; layer < 3; layer++) for (String c : List.of("G", "A")) sum += p.get(set + "0" + layer + "." + c)[i];
            double met = p.get("Z")[i] < 1e9f ? 1 : 0;
            boolean edge = sum > 0 && sum < 1;
            mixed |= p.get(set + "00.A")[i] > 0;
            assertTrue(edge || Math.abs(sum - met) < 1e-6, "pixel " + i + ": " + sum);
        }
        assertEquals(several, mixed, "an edge is shared by two where there are two");
    }

    @Test
    void wordsAndRoom() throws IOException {
        assertEquals(List.of(Channel.DEPTH, Channel.NORMAL), Channel.all(List.of("normal", " Depth", "depth")));
        assertTrue(assertThrows(IllegalArgumentException.class, () -> Channel.of("shine")).getMessage().contains("normal"));
        RenderJob.Order huge = new RenderJob.Order("One", bake.core.scene.Camera.of(bake.core.math.Vec3.ZERO, new bake.core.math.Vec3(1, 0, 0), 24),
                bake.core.finish.Look.PLAIN, Preset.of("P", 1, "test", "interior", 0, 0, 0, 6, 3, 0, false), 30_000, 30_000, null, 3, true);
        assertThrows(FormatException.class, () -> ExtraChannels.check(huge, List.of(Channel.LIGHTS), 12));
        ExtraChannels.check(huge, List.of(), 12);
        RenderJob.Order usual = new RenderJob.Order("One", huge.camera(), huge.look(), huge.preset(), 640, 360, null, 3, true);
        ExtraChannels.check(usual, List.of(Channel.values()), 12);
    }

    /** A delivery may ask for each of them: the project's schema knows their words, and those of gamuts. */
    @Test
    void deliveriesMayAskForAll() throws Exception {
        String words = java.util.Arrays.stream(Channel.values()).map(c -> '"' + c.word() + '"').collect(java.util.stream.Collectors.joining(","));
        for (bake.core.finish.Gamut g : bake.core.finish.Gamut.values()) {
            var n = bake.formats.Json.MAPPER.readTree("{\"bake\": 1, \"name\": \"x\", \"deliveries\": [{\"name\": \"R1\", \"files\": [\"exr\"], \"channels\": ["
                    + words + "], \"gamut\": \"" + g.name().toLowerCase(java.util.Locale.ROOT) + "\"}]}");
            var d = bake.formats.project.ProjectFile.read(n, "project.json").deliveries().getFirst();
            FileOptions how = bake.studio.plan.Deliveries.options(d);
            org.junit.jupiter.api.Assertions.assertEquals(Channel.values().length, how.channels().size());
            org.junit.jupiter.api.Assertions.assertEquals(g, how.gamut());
        }
    }
}
