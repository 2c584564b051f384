package bake.formats.model;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Mesh;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.foreign.ForeignModel;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Reads glTF 2.0 (.gltf with its files, .glb). Metres; y up becomes z up. Layers are the names of the nodes where the
 * tree first branches.
 */
public final class GltfReader {
    private static final Set<String> KNOWN = Set.of("KHR_materials_transmission", "KHR_materials_volume", "KHR_materials_ior",
            "KHR_materials_emissive_strength", "KHR_materials_diffuse_transmission", "KHR_materials_specular", "KHR_materials_clearcoat",
            "KHR_materials_sheen",
            "KHR_materials_anisotropy", "KHR_materials_unlit", "KHR_texture_transform", "KHR_lights_punctual",
            "KHR_mesh_quantization", "EXT_meshopt_compression", "KHR_meshopt_compression", "KHR_materials_variants",
            "EXT_mesh_gpu_instancing", "KHR_draco_mesh_compression");
    private static final int DEEPEST = 512;
    /** glTF looks down -z with y up; z up is a quarter turn about x. */
    private static final Affine Z_UP = new Affine(1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, 0);

    private final String file;
    private final JsonNode root;
    private final GltfAccessors data;
    private final Path path;
    /** Number of the material variant that is shown; -1 for the file's own materials. */
    private long textureBytes;
    private int variant = -1;
    /** Parts of meshes that were packed, by number; null until one is needed. */
    private Map<Integer, Mesh> unpacked;
    private final List<Finding> findings = new ArrayList<>();
    private final List<Mesh> meshes = new ArrayList<>();
    private final Map<Integer, List<Integer>> meshParts = new HashMap<>();
    private final List<Instance> instances = new ArrayList<>();
    /** Numbers of the layers by name; files may have a hundred thousand. */
    private final Map<String, Integer> layers = new LinkedHashMap<>();
    private final List<ImportedModel.NamedCamera> cameras = new ArrayList<>();
    private final List<Lamp> lamps = new ArrayList<>();

    private GltfReader(String file, Path path, JsonNode root, GltfAccessors data) {
        this.path = path;
        this.file = file;
        this.root = root;
        this.data = data;
    }

    /**
     * @throws FormatException when the file cannot be used
     */
    public static ImportedModel read(Path path) throws IOException {
        return read(path, null);
    }

    /**
     * @param variant name of the material variant to show, or null for the file's own materials
     * @throws FormatException when the file cannot be used or has no such variant
     */
    public static ImportedModel read(Path path, String variant) throws IOException {
        return read(path, variant, Long.MAX_VALUE);
    }

    /** @param textureBytes that textures may take */
    public static ImportedModel read(Path path, String variant, long textureBytes) throws IOException {
        String name = path.getFileName().toString();
        if (Files.size(path) > Integer.MAX_VALUE - 16)
            throw new FormatException(name, null, "is larger than 2 GB; export the model in parts");
        byte[] bytes = Files.readAllBytes(path);
        ByteBuffer binary = null;
        byte[] json = bytes;
        if (bytes.length < 12) throw new FormatException(name, null, "is cut short: " + bytes.length
                + " bytes are no model; copy it again");
        if (bytes.length >= 12 && ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).getInt() == 0x46546C67) {
            ByteBuffer[] chunks = chunks(bytes, name);
            json = new byte[chunks[0].remaining()];
            chunks[0].get(json);
            binary = chunks[1];
        } else if (name.toLowerCase(Locale.ROOT).endsWith(".glb") && new String(bytes, 0, 12, StandardCharsets.ISO_8859_1).strip().indexOf('{') != 0)
            throw new FormatException(name, "header", "does not begin with the letters glTF and so is no .glb file; export or copy it again");
        JsonNode root = Json.parse(Json.text(json, name), name);
        GltfReader r = new GltfReader(name, path, root, new GltfAccessors(root, path.toAbsolutePath().getParent(), name, binary));
        r.chooseVariant(variant);
        r.textureBytes = textureBytes;
        return r.model();
    }

    private static ByteBuffer[] chunks(byte[] all, String name) throws FormatException {
        ByteBuffer b = ByteBuffer.wrap(all).order(ByteOrder.LITTLE_ENDIAN);
        int version = b.getInt(4);
        if (version != 2) throw new FormatException(name, "header", "is glTF version " + version
                + "; only version 2 is read, export it again");
        ByteBuffer[] out = new ByteBuffer[2];
        int at = 12;
        while (at + 8 <= all.length) {
            long length = b.getInt(at) & 0xffffffffL;
            int type = b.getInt(at + 4);
            if (at + 8 + length > all.length)
                throw new FormatException(name, "chunk at byte " + at, "the file is cut short; copy it again");
            if (type == 0x4E4F534A && out[0] == null) out[0] = ByteBuffer.wrap(all, at + 8, (int) length).slice();
            if (type == 0x004E4942 && out[1] == null) out[1] = ByteBuffer.wrap(all, at + 8, (int) length).slice();
            at += 8 + (int) ((length + 3) & ~3L);
        }
        if (out[0] == null) throw new FormatException(name, null, "has no content; copy or export it again");
        return out;
    }

    private FormatException bad(String place, String problem) {
        return new FormatException(file, place, problem);
    }

    /** Finds the variant (KHR_materials_variants), and tells which there are. */
    private void chooseVariant(String wanted) throws FormatException {
        List<String> names = new ArrayList<>();
        for (JsonNode v : root.path("extensions").path("KHR_materials_variants").path("variants")) names.add(v.path("name").asText(""));
        variant = wanted == null ? -1 : names.indexOf(wanted);
        if (wanted != null && variant < 0)
            throw bad("variant '" + wanted + "'", names.isEmpty() ? "is asked for, but the file has no variants"
                    : "is not there; there are: " + String.join(", ", names));
        if (!names.isEmpty()) findings.add(new Finding(Finding.Kind.VARIANTS, file,
                (wanted == null ? "shown as the file has it" : "shown as " + wanted) + "; the model's variant may be: "
                + String.join(", ", names)));
    }

    /** The material of a part, in the variant that is shown. */
    private int material(JsonNode part) {
        if (variant >= 0)
            for (JsonNode m : part.path("extensions").path("KHR_materials_variants").path("mappings"))
                for (JsonNode v : m.path("variants")) if (v.asInt(-1) == variant) return m.path("material").asInt(-1);
        return part.path("material").asInt(-1);
    }

    private ImportedModel model() throws IOException {
        String version = root.path("asset").path("version").asText("");
        if (!version.startsWith("2")) throw bad("asset", version.isEmpty() ? "this is not a glTF file"
                : "is glTF version " + version + "; only version 2 is read");
        for (JsonNode e : root.path("extensionsRequired"))
            if (!KNOWN.contains(e.asText()))
                throw bad("extension " + e.asText(), "is required but not read here; export the file without it");
        for (JsonNode e : root.path("extensionsUsed"))
            if (!KNOWN.contains(e.asText()))
                findings.add(new Finding(Finding.Kind.NOT_READ, file, "the extension " + e.asText() + " is left out"));
        GltfMaterials materials = new GltfMaterials(root, data, file, findings, textureBytes);
        walkScene(materials);
        if (root.path("skins").size() > 0) findings.add(new Finding(Finding.Kind.POSED, file,
                "the file has bones; its figures stand as they were modelled, not as they are posed"));
        return new ImportedModel(file, meshes, instances, materials.materials(), materials.textures(), List.copyOf(layers.keySet()),
                cameras, lamps,
                findings);
    }

    private void walkScene(GltfMaterials materials) throws IOException {
        JsonNode scenes = root.path("scenes");
        List<Integer> roots = new ArrayList<>();
        if (scenes.isEmpty()) {
            boolean[] child = new boolean[root.path("nodes").size()];
            for (JsonNode n : root.path("nodes")) for (JsonNode c : n.path("children")) if (c.asInt(-1) >= 0 && c.asInt() < child.length)
                child[c.asInt()] = true;
            for (int i = 0; i < child.length; i++) if (!child[i]) roots.add(i);
        } else {
            JsonNode s = scenes.get(root.path("scene").asInt(0));
            if (s == null) throw bad("scene", "the scene to show does not exist; export the file again");
            for (JsonNode n : s.path("nodes")) roots.add(n.asInt(-1));
        }
        boolean[] open = new boolean[root.path("nodes").size()];
        int[] visited = {0};
        for (int r : roots) walk(r, Z_UP, roots.size() > 1 ? -1 : -2, 0, open, visited, materials);
    }

    /**
     * @param layer -2 on the trunk, -1 where each node names a layer, else the layer's number
     */
    private void walk(int node, Affine parent, int layer, int depth, boolean[] open, int[] visited, GltfMaterials materials)
            throws IOException {
        JsonNode n = root.path("nodes").get(node);
        String place = "node " + node;
        if (n == null) throw bad(place, "does not exist; export the file again");
        if (open[node]) throw bad(place, "is its own ancestor; export the file again");
        if (depth > DEEPEST) throw bad(place, "lies deeper than " + DEEPEST + " nodes within others; export the file with a flatter tree");
        if (++visited[0] > 20_000_000) throw bad(place, "the node tree is too large");
        open[node] = true;
        String name = n.path("name").asText("node " + node);
        Affine local = local(n, place), world = parent.times(local);
        int here = layer;
        // What holds only a camera or a light is no layer.
        if (layer == -1 && (n.has("mesh") || !n.path("children").isEmpty())) here = layer(name);
        int below = here;
        if (layer == -2) {
            boolean branches = n.path("children").size() > 1;
            below = branches ? -1 : -2;
        }
        if (n.has("mesh"))
            for (Affine each : copies(n.path("extensions").path("EXT_mesh_gpu_instancing").path("attributes"), world, place))
                place(name, n.get("mesh").asInt(-1), each, here < 0 ? layer(name) : here, materials);
        if (n.has("camera")) camera(name, n.get("camera").asInt(-1), world);
        JsonNode light = n.path("extensions").path("KHR_lights_punctual").path("light");
        if (!light.isMissingNode()) light(name, light.asInt(-1), world, materials);
        for (JsonNode c : n.path("children")) walk(c.asInt(-1), world, below, depth + 1, open, visited, materials);
        open[node] = false;
    }

    /** Where a node's mesh stands: at the node, or at each of the places that the instancing extension lists. */
    private List<Affine> copies(JsonNode attributes, Affine world, String place) throws IOException {
        if (attributes.isMissingNode() || attributes.isEmpty()) return List.of(world);
        float[] t = attributes.has("TRANSLATION") ? data.floats(attributes.get("TRANSLATION").asInt(-1), "VEC3") : null;
        float[] r = attributes.has("ROTATION") ? data.floats(attributes.get("ROTATION").asInt(-1), "VEC4") : null;
        float[] s = attributes.has("SCALE") ? data.floats(attributes.get("SCALE").asInt(-1), "VEC3") : null;
        int n = t != null ? t.length / 3 : r != null ? r.length / 4 : s != null ? s.length / 3 : 0;
        if (r != null && r.length != 4 * n || s != null && s.length != 3 * n)
            throw bad(place, "lists copies with attributes of different lengths; export the file again");
        List<Affine> out = new ArrayList<>(n);
        for (int i = 0; i < n; i++) {
            Affine a = world;
            if (t != null) a = a.times(Affine.translation(t[3 * i], t[3 * i + 1], t[3 * i + 2]));
            if (r != null) a = a.times(Affine.quaternion(r[4 * i], r[4 * i + 1], r[4 * i + 2], r[4 * i + 3]));
            if (s != null) a = a.times(Affine.scale(s[3 * i], s[3 * i + 1], s[3 * i + 2]));
            if (!a.isFinite()) throw bad(place, "has a copy whose place is no number; export the file again");
            out.add(a);
        }
        return out;
    }

    private int layer(String name) {
        return layers.computeIfAbsent(name, n -> layers.size());
    }

    private Affine local(JsonNode n, String place) throws FormatException {
        Affine a;
        if (n.has("matrix")) {
            double[] m = numbers(n.get("matrix"), 16, place);
            a = new Affine(m[0], m[4], m[8], m[12], m[1], m[5], m[9], m[13], m[2], m[6], m[10], m[14]);
        } else {
            double[] t = n.has("translation") ? numbers(n.get("translation"), 3, place) : new double[3];
            double[] q = n.has("rotation") ? numbers(n.get("rotation"), 4, place) : new double[] {0, 0, 0, 1};
            double[] s = n.has("scale") ? numbers(n.get("scale"), 3, place) : new double[] {1, 1, 1};
            a = Affine.translation(t[0], t[1], t[2]).times(Affine.quaternion(q[0], q[1], q[2], q[3])).times(Affine.scale(s[0], s[1], s[2]));
        }
        if (!a.isFinite()) throw bad(place, "has a transform that is no number; export the file again");
        return a;
    }

    private double[] numbers(JsonNode n, int count, String place) throws FormatException {
        if (n.size() != count) throw bad(place, "has a transform of " + n.size() + " numbers instead of " + count);
        double[] out = new double[count];
        for (int i = 0; i < count; i++) out[i] = n.get(i).asDouble(Double.NaN);
        return out;
    }

    private void place(String name, int mesh, Affine world, int layer, GltfMaterials materials) throws IOException {
        List<Integer> parts = meshParts.get(mesh);
        if (parts == null) meshParts.put(mesh, parts = readMesh(mesh, materials));
        Affine clean = snap(world);
        if (!(Math.abs(clean.determinant()) > 1e-18)) {
            findings.add(new Finding(Finding.Kind.BROKEN_VALUES, name, "is scaled to nothing; left out"));
            return;
        }
        for (int p : parts) instances.add(new Instance(name, p, clean, layer));
    }

    /** Removes the rounding that turning y up to z up and back leaves behind. */
    private static Affine snap(Affine a) {
        double[] m = {a.m00(), a.m01(), a.m02(), a.m10(), a.m11(), a.m12(), a.m20(), a.m21(), a.m22()};
        for (int i = 0; i < 9; i++) if (Math.abs(m[i] - Math.rint(m[i])) < 1e-9) m[i] = Math.rint(m[i]) + 0.0;
        return new Affine(m[0], m[1], m[2], a.m03(), m[3], m[4], m[5], a.m13(), m[6], m[7], m[8], a.m23());
    }

    private List<Integer> readMesh(int mesh, GltfMaterials materials) throws IOException {
        JsonNode m = root.path("meshes").get(mesh);
        if (m == null) throw bad("mesh " + mesh, "does not exist; export the file again");
        String name = m.path("name").asText("mesh " + mesh);
        List<Integer> parts = new ArrayList<>();
        int k = 0;
        for (JsonNode p : m.path("primitives")) {
            String place = "mesh '" + name + "', part " + k++;
            int mode = p.path("mode").asInt(4);
            if (mode < 4) {
                findings.add(new Finding(Finding.Kind.NOT_READ, name, "points and lines are left out"));
                continue;
            }
            JsonNode draco = p.path("extensions").path("KHR_draco_mesh_compression");
            if (!draco.isMissingNode()) {
                if (!draco.has("bufferView")) throw bad(place, "is packed but names no data; export the file again");
                Mesh u = unpacked(mesh, k - 1, place);
                meshes.add(MeshCheck.mend(new Mesh(name, u.positions(), u.normals(), u.uvs(), u.colours(), u.indices(),
                        materials.use(material(p))), findings));
                parts.add(meshes.size() - 1);
                continue;
            }
            JsonNode at = p.path("attributes");
            if (!at.has("POSITION")) throw bad(place, "has no positions; export the file again");
            float[] pos = data.floats(at.get("POSITION").asInt(-1), "VEC3");
            float[] nrm = at.has("NORMAL") ? data.floats(at.get("NORMAL").asInt(-1), "VEC3") : null;
            float[] uv = at.has("TEXCOORD_0") ? data.floats(at.get("TEXCOORD_0").asInt(-1), "VEC2") : null;
            float[] colours = at.has("COLOR_0") ? colours(at.get("COLOR_0").asInt(-1)) : null;
            int n = pos.length / 3;
            if (nrm != null && nrm.length != pos.length || uv != null && uv.length != 2 * n || colours != null
                    && colours.length != pos.length) throw bad(place, "has attributes of different lengths; export the file again");
            int[] idx = p.has("indices") ? data.ints(p.get("indices").asInt(-1)) : java.util.stream.IntStream.range(0, n).toArray();
            for (int i : idx) if (i < 0 || i >= n)
                throw bad(place, "names vertex " + Integer.toUnsignedString(i) + " of " + n + "; the file is damaged, export it again");
            idx = triangles(idx, mode);
            meshes.add(MeshCheck.mend(new Mesh(name, pos, nrm, uv, colours, idx, materials.use(material(p))), findings));
            parts.add(meshes.size() - 1);
        }
        return parts;
    }

    /** Vertex colours, which are linear; how much they let through is left out. Null where all are white. */
    private float[] colours(int accessor) throws IOException {
        boolean four = "VEC4".equals(root.path("accessors").path(accessor).path("type").asText());
        float[] c = data.floats(accessor, four ? "VEC4" : "VEC3");
        float[] out = four ? new float[c.length / 4 * 3] : c;
        if (four) for (int i = 0; i < out.length; i++) out[i] = c[i / 3 * 4 + i % 3];
        for (float x : out) if (x != 1) return out;
        return null;
    }

    /** A part that is packed with Draco, unpacked by the child process, which numbers the parts of all meshes. */
    private Mesh unpacked(int mesh, int part, String place) throws IOException {
        if (unpacked == null) unpacked = unpack();
        int number = part;
        for (int i = 0; i < mesh; i++) number += root.path("meshes").get(i).path("primitives").size();
        Mesh m = unpacked.get(number);
        if (m == null) throw bad(place, "could not be unpacked; export it without compression");
        return m;
    }

    private Map<Integer, Mesh> unpack() throws IOException {
        Path folder = ForeignModel.workFolder();
        try {
            return ForeignModel.parts(PackedCopy.write(root, data, folder));
        } catch (FormatException e) {
            throw bad("packed meshes", e.getMessage().replaceFirst("^packed.glb: ", ""));
        } finally {
            Files.deleteIfExists(folder.resolve("packed.glb"));
            Files.deleteIfExists(folder);
        }
    }

    /** Strips and fans as lists; a ragged end is dropped. */
    private static int[] triangles(int[] idx, int mode) {
        if (mode == 4) return idx.length % 3 == 0 ? idx : java.util.Arrays.copyOf(idx, idx.length / 3 * 3);
        int n = Math.max(0, idx.length - 2);
        int[] out = new int[3 * n];
        for (int i = 0; i < n; i++) {
            out[3 * i] = mode == 6 ? idx[0] : idx[i + (i & 1)];
            out[3 * i + 1] = mode == 6 ? idx[i + 1] : idx[i + 1 - (i & 1)];
            out[3 * i + 2] = idx[i + 2];
        }
        return out;
    }

    private void camera(String name, int i, Affine world) {
        JsonNode p = root.path("cameras").path(i).path("perspective");
        double yfov = p.path("yfov").asDouble(0);
        if (!(yfov > 0 && yfov < 3.1)) {
            findings.add(new Finding(Finding.Kind.NOT_READ, name, "the camera has no perspective; left out"));
            return;
        }
        double aspect = Math.clamp(p.path("aspectRatio").asDouble(16.0 / 9), 0.05, 20);
        double focal = Camera.SENSOR_WIDTH / (2 * aspect * Math.tan(yfov / 2));
        Vec3 look = world.vector(new Vec3(0, 0, -1)).normalized();
        // It is taken as it is: its verticals fall where they fell.
        Camera c = Camera.of(world.origin(), world.origin().plus(look.times(4)), focal).withShift(false, 0, 0);
        cameras.add(new ImportedModel.NamedCamera(name, c, p.path("aspectRatio").asDouble(0) > 0 ? aspect : 0));
    }

    private void light(String name, int i, Affine world, GltfMaterials materials) {
        JsonNode l = root.path("extensions").path("KHR_lights_punctual").path("lights").path(i);
        double candela = l.path("intensity").asDouble(1);
        Vec3 c = materials.colour(l.path("color"), new Vec3(1, 1, 1));
        String type = l.path("type").asText();
        if (!(candela >= 0 && candela < 1e9) || !(c.luminance() > 0) || type.equals("directional")) {
            findings.add(new Finding(Finding.Kind.NOT_READ, name, type.equals("directional")
                    ? "directional lights are left out; set the sun instead" : "the light has no usable intensity"));
            return;
        }
        boolean spot = type.equals("spot");
        double outer = Math.clamp(l.path("spot").path("outerConeAngle").asDouble(Math.PI / 4), 0.01, Math.PI / 2);
        double inner = Math.clamp(l.path("spot").path("innerConeAngle").asDouble(0), 0, outer);
        double ci = Math.cos(inner), co = Math.cos(outer);
        double solid = spot ? 2 * Math.PI * ((1 - ci) + 0.5 * (ci - co)) : 4 * Math.PI;
        Affine frame = Affine.pointing(world.origin(), world.vector(new Vec3(0, 0, -1)));
        lamps.add(new Lamp(name, "Imported lamps", spot ? Lamp.Kind.SPOT : Lamp.Kind.POINT, frame, 0, 0, candela * c.luminance() * solid,
                c.times(1 / c.luminance()), Math.toDegrees(2 * inner), Math.toDegrees(2 * outer), true, false));
    }
}
