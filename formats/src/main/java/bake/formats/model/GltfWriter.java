package bake.formats.model;

import bake.core.math.Affine;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Texture;
import bake.formats.AtomicFile;
import bake.formats.Json;
import bake.formats.picture.DisplayPicture;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;

/** Writes glTF 2.0: a .gltf, one .bin beside it, and a PNG for each texture. z up becomes y up at the root node. */
public final class GltfWriter {
    private final ObjectNode root = Json.MAPPER.createObjectNode();
    private final ArrayNode views = root.putArray("bufferViews"), accessors = root.putArray("accessors");
    private final java.io.ByteArrayOutputStream bin = new java.io.ByteArrayOutputStream(1 << 24);

    private GltfWriter() {}

    /**
     * @param layers names for the instances' layer numbers; each becomes a node below the root
     */
    public static void write(Path file, String name, List<Mesh> meshes, List<Instance> instances, List<Material> materials,
            List<Texture> textures, List<String> layers) throws IOException {
        write(file, new ImportedModel(name, meshes, instances, materials, textures, layers, List.of(), List.of(), List.of()));
    }

    /** Writes a model with its cameras and lamps. */
    public static void write(Path file, ImportedModel m) throws IOException {
        new GltfWriter().run(file, m);
    }

    private void run(Path file, ImportedModel model) throws IOException {
        List<Texture> textures = model.textures();
        root.putObject("asset").put("version", "2.0").put("generator", "Bake");
        String stem = file.getFileName().toString().replaceFirst("\\.gltf$", "");
        ArrayNode m = root.putArray("meshes");
        for (Mesh x : model.meshes()) mesh(m.addObject(), x);
        nodes(model.name(), model.instances(), model.layers());
        GltfMaterialWriter.write(root, model.materials(), textures, i -> textureFile(textures.get(i)));
        GltfSceneWriter.cameras(root, model.cameras());
        GltfSceneWriter.lamps(root, model.lamps());
        byte[] bytes = bin.toByteArray();
        root.putArray("buffers").addObject().put("uri", stem + ".bin").put("byteLength", bytes.length);
        AtomicFile.write(file.resolveSibling(stem + ".bin"), o -> o.write(bytes));
        IOException[] failed = new IOException[1];
        IntStream.range(0, textures.size()).parallel().forEach(i -> {
            try {
                writeTexture(file.resolveSibling(textureFile(textures.get(i))), textures.get(i));
            } catch (IOException e) {
                synchronized (failed) {
                    failed[0] = e;
                }
            }
        });
        if (failed[0] != null) throw failed[0];
        AtomicFile.write(file, o -> o.write(Json.MAPPER.writer().without(com.fasterxml.jackson.databind.SerializationFeature.INDENT_OUTPUT)
                .writeValueAsBytes(root)));
    }

    private static String textureFile(Texture t) {
        return t.name().replace(' ', '-').toLowerCase(java.util.Locale.ROOT) + ".png";
    }

    private static void writeTexture(Path p, Texture t) throws IOException {
        int[] argb = new int[t.width() * t.height()];
        byte[] d = t.rgba();
        boolean clear = false;
        for (int i = 0; i < argb.length; i++) {
            argb[i] = (d[4 * i + 3] & 255) << 24 | (d[4 * i] & 255) << 16 | (d[4 * i + 1] & 255) << 8 | d[4 * i + 2] & 255;
            clear |= d[4 * i + 3] != -1;
        }
        DisplayPicture.writePng(p, DisplayPicture.image8(t.width(), t.height(), argb, clear), 72);
    }

    private void mesh(ObjectNode n, Mesh m) {
        n.put("name", m.name());
        ObjectNode p = n.putArray("primitives").addObject();
        ObjectNode a = p.putObject("attributes");
        a.put("POSITION", floats(m.positions(), 3, true));
        if (m.normals() != null) a.put("NORMAL", floats(m.normals(), 3, false));
        if (m.uvs() != null) a.put("TEXCOORD_0", floats(m.uvs(), 2, false));
        if (m.colours() != null) a.put("COLOR_0", floats(m.colours(), 3, false));
        p.put("indices", indices(m.indices()));
        p.put("material", m.material());
    }

    private int floats(float[] v, int components, boolean bounds) {
        ByteBuffer b = ByteBuffer.allocate(4 * v.length).order(ByteOrder.LITTLE_ENDIAN);
        b.asFloatBuffer().put(v);
        ObjectNode a = accessor(b.array(), 5126, v.length / components, "VEC" + components, 34962);
        if (bounds) {
            float[] lo = {Float.MAX_VALUE, Float.MAX_VALUE, Float.MAX_VALUE}, hi = {-Float.MAX_VALUE, -Float.MAX_VALUE, -Float.MAX_VALUE};
            for (int i = 0; i < v.length; i++) {
                lo[i % 3] = Math.min(lo[i % 3], v[i]);
                hi[i % 3] = Math.max(hi[i % 3], v[i]);
            }
            for (float f : lo) a.withArray("min").add(f);
            for (float f : hi) a.withArray("max").add(f);
        }
        return accessors.size() - 1;
    }

    private int indices(int[] v) {
        ByteBuffer b = ByteBuffer.allocate(4 * v.length).order(ByteOrder.LITTLE_ENDIAN);
        b.asIntBuffer().put(v);
        accessor(b.array(), 5125, v.length, "SCALAR", 34963);
        return accessors.size() - 1;
    }

    private ObjectNode accessor(byte[] data, int type, int count, String shape, int target) {
        views.addObject().put("buffer", 0).put("byteOffset", bin.size()).put("byteLength", data.length).put("target", target);
        bin.writeBytes(data);
        return accessors.addObject().put("bufferView", views.size() - 1).put("componentType", type).put("count", count).put("type", shape);
    }

    private void nodes(String name, List<Instance> instances, List<String> layers) {
        ArrayNode nodes = root.putArray("nodes");
        root.put("scene", 0).putArray("scenes").addObject().putArray("nodes").add(0);
        ObjectNode top = nodes.addObject().put("name", name);
        top.putArray("rotation").add(-Math.sqrt(0.5)).add(0).add(0).add(Math.sqrt(0.5));
        ArrayNode below = top.putArray("children");
        ArrayNode[] children = new ArrayNode[layers.size()];
        for (int i = 0; i < children.length; i++) {
            below.add(nodes.size());
            children[i] = nodes.addObject().put("name", layers.get(i)).putArray("children");
        }
        for (Instance i : instances) {
            children[i.layer()].add(nodes.size());
            ObjectNode n = nodes.addObject().put("name", i.name()).put("mesh", i.mesh());
            Affine a = i.toWorld();
            if (a.equals(Affine.IDENTITY)) continue;
            double[] c = {a.m00(), a.m10(), a.m20(), 0, a.m01(), a.m11(), a.m21(), 0, a.m02(), a.m12(), a.m22(), 0, a.m03(), a.m13(),
                    a.m23(), 1};
            ArrayNode matrix = n.putArray("matrix");
            for (double d : c) matrix.add((float) d);
        }
        for (int i = 0; i < children.length; i++) if (children[i].isEmpty())
            ((ObjectNode) nodes.get(below.get(i).asInt())).remove("children");
    }
}
