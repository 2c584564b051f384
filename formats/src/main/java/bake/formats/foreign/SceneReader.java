package bake.formats.foreign;

import static org.lwjgl.assimp.Assimp.*;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Texture;
import bake.formats.SafePath;
import bake.formats.model.Finding;
import bake.formats.model.ModelTextures;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.IntBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.lwjgl.assimp.AIColor4D;
import org.lwjgl.assimp.AIFace;
import org.lwjgl.assimp.AIMaterial;
import org.lwjgl.assimp.AIMatrix4x4;
import org.lwjgl.assimp.AIMesh;
import org.lwjgl.assimp.AINode;
import org.lwjgl.assimp.AIScene;
import org.lwjgl.assimp.AIString;
import org.lwjgl.assimp.AITexture;
import org.lwjgl.assimp.AIVector3D;
import org.lwjgl.system.MemoryStack;

/** Takes meshes, places, materials and pictures out of what the native library has read. */
final class SceneReader {
    private final AIScene scene;
    private final Affine toBake;
    private final Path folder;
    private final String file;
    private final List<Finding> findings;
    private final List<Mesh> meshes = new ArrayList<>();
    private final List<Instance> instances = new ArrayList<>();
    private final List<Material> materials = new ArrayList<>();
    private final ModelTextures pictures;
    /** Numbers of the layers by name; files may have a hundred thousand. */
    private final Map<String, Integer> layers = new LinkedHashMap<>();
    private final Map<String, Integer> known = new HashMap<>();
    private final int[] number;
    private final CamerasAndLights others;
    private final IfcNames ifc;

    SceneReader(AIScene scene, Affine toBake, Path file, List<Finding> findings, long textureBytes) {
        pictures = new ModelTextures(textureBytes);
        this.scene = scene;
        this.toBake = toBake;
        this.findings = findings;
        folder = file.toAbsolutePath().getParent();
        this.file = file.getFileName().toString();
        number = new int[scene.mNumMeshes()];
        others = new CamerasAndLights(scene, findings);
        ifc = IfcNames.of(file);
    }

    List<Mesh> meshes() {
        return meshes;
    }

    List<Instance> instances() {
        return instances;
    }

    List<Material> materials() {
        return materials;
    }

    /** Decodes them. */
    List<Texture> textures() {
        return pictures.decode(findings);
    }

    /** Cameras and lights; to be asked once all has been read. */
    CamerasAndLights others() {
        return others;
    }

    List<String> layers() {
        return List.copyOf(layers.keySet());
    }

    void read() {
        for (int i = 0; i < scene.mNumMaterials(); i++) materials.add(material(AIMaterial.create(scene.mMaterials().get(i)), i));
        if (materials.isEmpty()) materials.add(Material.glossy("no material", new Vec3(0.6, 0.6, 0.6), 0.6));
        for (int i = 0; i < number.length; i++) {
            Mesh m = mesh(AIMesh.create(scene.mMeshes().get(i)), i);
            number[i] = m == null ? -1 : meshes.size();
            if (m != null) meshes.add(m);
        }
        walk(scene.mRootNode(), toBake, -1, 0);
    }

    /** Only the meshes, each named by its number and placed once as it is. */
    void readParts() {
        materials.add(Material.glossy("none", new Vec3(0.6, 0.6, 0.6), 0.6));
        for (int i = 0; i < number.length; i++) {
            Mesh m = mesh(AIMesh.create(scene.mMeshes().get(i)), i);
            if (m == null) continue;
            meshes.add(new Mesh(Integer.toString(i), m.positions(), m.normals(), m.uvs(), m.colours(), m.indices(), 0));
            instances.add(new Instance(Integer.toString(i), meshes.size() - 1, Affine.IDENTITY, layer("parts")));
        }
    }

    private Mesh mesh(AIMesh m, int i) {
        if ((m.mPrimitiveTypes() & aiPrimitiveType_TRIANGLE) == 0 || m.mNumFaces() == 0) return null;
        String name = m.mName().dataString().isBlank() ? "mesh " + i : m.mName().dataString();
        float[] p = vectors(m.mVertices()), n = m.mNormals() == null ? null : vectors(m.mNormals());
        AIVector3D.Buffer uv = m.mTextureCoords(0);
        float[] t = null;
        if (uv != null) {
            t = new float[2 * uv.remaining()];
            for (int k = 0; k < uv.remaining(); k++) {
                t[2 * k] = uv.get(k).x();
                t[2 * k + 1] = 1 - uv.get(k).y();
            }
        }
        int[] idx = new int[3 * m.mNumFaces()];
        int at = 0;
        for (int k = 0; k < m.mNumFaces(); k++) {
            AIFace f = m.mFaces().get(k);
            if (f.mNumIndices() != 3) continue;
            IntBuffer b = f.mIndices();
            for (int c = 0; c < 3; c++) idx[at++] = b.get(c);
        }
        AIColor4D.Buffer colours = m.mColors(0);
        int material = Math.clamp(m.mMaterialIndex(), 0, materials.size() - 1);
        float[] tints = colours == null ? null : linear(colours);
        if (tints != null && file.toLowerCase(java.util.Locale.ROOT).endsWith(".ply")) material = white(material);
        return new Mesh(name, p, n, t, tints, java.util.Arrays.copyOf(idx, at), material);
    }

    /** These kinds of file keep colours as screens show them (common practice, no source). Null where all are white. */
    private static float[] linear(AIColor4D.Buffer colours) {
        float[] out = new float[3 * colours.remaining()];
        boolean white = true;
        for (int k = 0; k < colours.remaining(); k++) {
            AIColor4D c = colours.get(k);
            out[3 * k] = linear(c.r());
            out[3 * k + 1] = linear(c.g());
            out[3 * k + 2] = linear(c.b());
            white &= out[3 * k] > 0.999f && out[3 * k + 1] > 0.999f && out[3 * k + 2] > 0.999f;
        }
        return white ? null : out;
    }

    /** IEC 61966-2-1. */
    private static float linear(float c) {
        return c <= 0.04045f ? Math.max(0, c) / 12.92f : (float) Math.pow((Math.min(1, c) + 0.055) / 1.055, 2.4);
    }

    /** A scan has no material but its corners' colours. */
    private int white(int material) {
        Material m = materials.get(material);
        if (m.base().equals(new Vec3(1, 1, 1))) return material;
        materials.set(material, new Material(m.name(), new Vec3(1, 1, 1), m.baseImage(), m.alpha(), m.alphaMode(), m.cutoff(), m.metallic(),
                m.roughness(), m.roughnessImage(), m.normalImage(),
                m.normalScale(), m.ior(), m.transmission(), m.thin(), m.translucency(), m.emission(), m.emissionImage(), m.layers(),
                m.relief(), m.thrift(), m.catcher()));
        return material;
    }

    private static float[] vectors(AIVector3D.Buffer b) {
        float[] out = new float[3 * b.remaining()];
        for (int k = 0; k < b.remaining(); k++) {
            AIVector3D v = b.get(k);
            out[3 * k] = v.x();
            out[3 * k + 1] = v.y();
            out[3 * k + 2] = v.z();
        }
        return out;
    }

    private void walk(AINode node, Affine parent, int layer, int depth) {
        if (depth > 512) return;
        AIMatrix4x4 m = node.mTransformation();
        Affine world = parent.times(new Affine(m.a1(), m.a2(), m.a3(), m.a4(), m.b1(), m.b2(), m.b3(), m.b4(), m.c1(), m.c2(), m.c3(),
                m.c4()));
        String raw = node.mName().dataString(), name = ifc.plain(raw);
        if (IfcNames.storey(raw)) layer = layer(name);
        boolean branches = node.mNumChildren() > 1;
        if (world.isFinite()) others.at(raw, world);
        IntBuffer list = node.mMeshes();
        int here = layer;
        if (list != null && here < 0) here = layer(name.isBlank() ? file : name);
        if (list != null && world.isFinite())
            for (int k = 0; k < list.remaining(); k++) {
                int i = list.get(k);
                if (i >= 0 && i < number.length && number[i] >= 0)
                    instances.add(new Instance(name.isBlank() ? meshes.get(number[i]).name() : name, number[i], world, here));
            }
        for (int k = 0; k < node.mNumChildren(); k++) {
            AINode child = AINode.create(node.mChildren().get(k));
            // Layers are the nodes where the tree first branches.
            walk(child, world, layer >= 0 ? layer : branches && !IfcNames.storey(child.mName().dataString())
                    ? layer(ifc.plain(child.mName().dataString())) : -1, depth + 1);
        }
    }

    private int layer(String name) {
        return layers.computeIfAbsent(name, n -> layers.size());
    }

    private Material material(AIMaterial m, int i) {
        String name = text(m, AI_MATKEY_NAME);
        if (name == null || name.isBlank()) name = "material " + i;
        Vec3 base = colour(m, AI_MATKEY_BASE_COLOR, colour(m, AI_MATKEY_COLOR_DIFFUSE, new Vec3(0.6, 0.6, 0.6)));
        double alpha = Math.clamp(number(m, AI_MATKEY_OPACITY, 1), 0, 1);
        double gloss = number(m, AI_MATKEY_SHININESS, 0);
        // Phong exponent to GGX width: alpha = sqrt(2 / (n + 2)) (Walter et al. 2007).
        double roughness = number(m, AI_MATKEY_ROUGHNESS_FACTOR, gloss > 0 ? Math.clamp(Math.sqrt(Math.sqrt(2 / (gloss + 2))), 0.02, 1)
                : 0.7);
        Vec3 glow = colour(m, AI_MATKEY_COLOR_EMISSIVE, Vec3.ZERO);
        Material.Image picture = image(m, aiTextureType_BASE_COLOR, true, name);
        if (picture == null) picture = image(m, aiTextureType_DIFFUSE, true, name);
        Material.Image normal = image(m, aiTextureType_NORMALS, false, name);
        double ior = number(m, AI_MATKEY_REFRACTI, 1.5);
        return new Material(name, picture == null ? clean(base) : new Vec3(1, 1, 1), picture, alpha,
                alpha < 1 ? Material.AlphaMode.BLEND : Material.AlphaMode.OPAQUE, 0.5,
                Math.clamp(number(m, AI_MATKEY_METALLIC_FACTOR, 0), 0, 1), Math.clamp(roughness, 0, 1), null, normal, 1, ior >= 1
                && ior <= 3 ? ior : 1.5,
                Math.clamp(number(m, AI_MATKEY_TRANSMISSION_FACTOR, 0), 0, 1), true, 0,
                new Vec3(Math.max(0, glow.x()), Math.max(0, glow.y()), Math.max(0, glow.z())), null);
    }

    private static Vec3 clean(Vec3 c) {
        return new Vec3(Math.clamp(c.x(), 0, 1), Math.clamp(c.y(), 0, 1), Math.clamp(c.z(), 0, 1));
    }

    private static String text(AIMaterial m, String key) {
        try (MemoryStack stack = MemoryStack.stackPush()) {
            AIString s = AIString.calloc(stack);
            return aiGetMaterialString(m, key, aiTextureType_NONE, 0, s) == aiReturn_SUCCESS ? s.dataString() : null;
        }
    }

    private static double number(AIMaterial m, String key, double otherwise) {
        float[] v = new float[1];
        int[] n = {1};
        return aiGetMaterialFloatArray(m, key, aiTextureType_NONE, 0, v, n) == aiReturn_SUCCESS && Float.isFinite(v[0]) ? v[0] : otherwise;
    }

    private static Vec3 colour(AIMaterial m, String key, Vec3 otherwise) {
        try (MemoryStack stack = MemoryStack.stackPush()) {
            AIColor4D c = AIColor4D.calloc(stack);
            if (aiGetMaterialColor(m, key, aiTextureType_NONE, 0, c) != aiReturn_SUCCESS) return otherwise;
            Vec3 v = new Vec3(c.r(), c.g(), c.b());
            return v.isFinite() ? v : otherwise;
        }
    }

    private Material.Image image(AIMaterial m, int type, boolean srgb, String material) {
        if (aiGetMaterialTextureCount(m, type) < 1) return null;
        try (MemoryStack stack = MemoryStack.stackPush()) {
            AIString s = AIString.calloc(stack);
            if (aiGetMaterialTexture(m, type, 0, s, (IntBuffer) null, null, null, null, null, null) != aiReturn_SUCCESS) return null;
            String name = s.dataString();
            Integer before = known.get(name + srgb);
            if (before != null) return before < 0 ? null : new Material.Image(before);
            try {
                int at = picture(name, srgb);
                known.put(name + srgb, at);
                return new Material.Image(at);
            } catch (IOException e) {
                known.put(name + srgb, -1);
                findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, material, name + ": " + e.getMessage()));
                return null;
            }
        }
    }

    private int picture(String name, boolean srgb) throws IOException {
        AITexture inside = aiGetEmbeddedTexture(scene, name);
        String as = name.startsWith("*") ? "picture " + name.substring(1) : Path.of(name.replace('\\', '/')).getFileName().toString();
        if (inside != null && inside.mHeight() == 0) {
            ByteBuffer b = inside.pcDataCompressed();
            byte[] bytes = new byte[b.remaining()];
            b.get(bytes);
            return pictures.add(as, srgb, () -> new ByteArrayInputStream(bytes));
        }
        // Files name pictures by paths of the machine that they were made on; the same name beside the model is what is meant.
        for (String n : new String[] {name.replace('\\', '/'), as, "textures/" + as}) {
            try {
                Path p = SafePath.inside(folder, n, file);
                if (!Files.isRegularFile(p)) continue;
                return pictures.add(as, srgb, () -> Files.newInputStream(p));
            } catch (bake.formats.FormatException e) {
                if (n.equals("textures/" + as)) throw e;
            }
        }
        throw new IOException("is not beside the model");
    }
}
