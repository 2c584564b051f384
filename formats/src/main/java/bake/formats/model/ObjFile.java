package bake.formats.model;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.formats.FormatException;
import bake.formats.SafePath;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Reads OBJ with its MTL files. The format has no units and no axis: both are given. */
public final class ObjFile {
    /** Units from the origin beyond which meshes are kept near it. */
    private static final double FAR = 1000;
    private static final long MOST_BYTES = 1L << 30;

    private final Path folder;
    private final String file;
    private final List<Finding> findings = new ArrayList<>();
    private final List<Material> materials = new ArrayList<>();
    private final ModelTextures textures;
    private final Map<String, Integer> textureNumbers = new HashMap<>();

    private ObjFile(Path path, long textureBytes) {
        textures = new ModelTextures(textureBytes);
        folder = path.toAbsolutePath().getParent();
        file = path.getFileName().toString();
    }

    /**
     * @param toMetres length of the file's unit, m
     * @param yUp whether y points up in the file, as most programs write it
     */
    public static ImportedModel read(Path path, double toMetres, boolean yUp) throws IOException {
        return read(path, toMetres, yUp, Long.MAX_VALUE);
    }

    /** @param textureBytes that textures may take */
    static ImportedModel read(Path path, double toMetres, boolean yUp, long textureBytes) throws IOException {
        return new ObjFile(path, textureBytes).model(path, toMetres, yUp);
    }

    private ImportedModel model(Path path, double toMetres, boolean yUp) throws IOException {
        if (Files.size(path) > MOST_BYTES)
            throw new FormatException(file, null, "is larger than 1 GB; export the model in parts or as .glb");
        ObjParts obj = new ObjParts(file, findings);
        obj.read(Files.readAllBytes(path));
        Map<String, MtlFile.Entry> library = library(obj.libraries);
        // Far from the origin numbers of a mesh would be too coarse: it is kept near it, and placed where it belongs.
        double[] far = new double[3];
        for (int k = 0; k < 3; k++) if (Math.abs(obj.places.a[k]) > FAR) far[k] = Math.rint(obj.places.a[k]);
        Affine toWorld = (yUp ? new Affine(toMetres, 0, 0, 0, 0, 0, -toMetres, 0, 0, toMetres, 0, 0)
                : Affine.scale(toMetres, toMetres, toMetres)).times(Affine.translation(far[0], far[1], far[2]));
        List<Mesh> meshes = new ArrayList<>();
        List<Instance> instances = new ArrayList<>();
        List<String> layers = new ArrayList<>();
        Map<String, Integer> materialNumbers = new HashMap<>(), layerNumbers = new HashMap<>();
        for (ObjParts.Part p : obj.parts.values()) {
            Integer material = materialNumbers.get(p.material);
            if (material == null) materialNumbers.put(p.material, material = material(p.material, library));
            Integer layer = layerNumbers.get(p.group);
            if (layer == null) {
                layerNumbers.put(p.group, layer = layers.size());
                layers.add(p.group);
            }
            meshes.add(MeshCheck.mend(ObjMesh.of(p, obj, far, material), findings));
            instances.add(new Instance(p.group, meshes.size() - 1, toWorld, layer));
        }
        return new ImportedModel(file, meshes, instances, materials, textures.decode(findings), layers, List.of(), List.of(), findings);
    }

    private Map<String, MtlFile.Entry> library(List<String> named) {
        Map<String, MtlFile.Entry> out = new HashMap<>();
        for (String line : named) for (String name : libraryNames(line)) {
            try {
                out.putAll(MtlFile.read(Files.readAllBytes(SafePath.inside(folder, name, file))));
            } catch (IOException e) {
                findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name, "the material file is not read: " + e.getMessage()));
            }
        }
        return out;
    }

    /** Several names on a line may be several files, or one whose name has spaces. */
    private List<String> libraryNames(String line) {
        List<String> names = List.of(line.split("\\s+"));
        return names.size() > 1 && names.stream().noneMatch(n -> Files.exists(folder.resolve(n)))
                && Files.exists(folder.resolve(line)) ? List.of(line) : names;
    }

    private int material(String name, Map<String, MtlFile.Entry> library) {
        MtlFile.Entry m = library.get(name);
        if (m == null) {
            if (!name.isEmpty()) findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name,
                    "the material is not described anywhere; shown plain"));
            materials.add(Material.glossy(name.isEmpty() ? "no material" : name, new Vec3(0.6, 0.6, 0.6), 0.6));
            return materials.size() - 1;
        }
        Vec3 kd = m.diffuse == null ? new Vec3(0.6, 0.6, 0.6) : m.diffuse;
        double opacity = share(m.opacity, 1);
        // Phong exponent to GGX width: alpha = sqrt(2 / (n + 2)) (Walter et al. 2007).
        double roughness = m.roughness != null ? share(m.roughness, 0)
                : m.shine == null ? 0.7 : Math.clamp(Math.sqrt(Math.sqrt(2 / (Math.max(0, m.shine) + 2))), 0.02, 1);
        Material.Image base = image(m.baseMap, true), relief = image(m.normalMap, false);
        boolean masked = m.opacityMap != null && base != null;
        materials.add(new Material(name, base == null ? kd : new Vec3(1, 1, 1), base, opacity,
                masked ? Material.AlphaMode.MASK : opacity < 1 ? Material.AlphaMode.BLEND : Material.AlphaMode.OPAQUE, 0.5,
                share(m.metallic, 0), roughness, null, relief, 1, m.ior == null ? 1.5 : Math.clamp(m.ior, 1, 3),
                0, false, 0, m.emission == null ? Vec3.ZERO : m.emission, image(m.emissionMap, true)));
        return materials.size() - 1;
    }

    private static double share(Double v, double otherwise) {
        return v == null ? otherwise : Math.clamp(v, 0, 1);
    }

    private Material.Image image(String name, boolean srgb) {
        if (name == null) return null;
        Integer known = textureNumbers.get(name + srgb);
        if (known != null) return known < 0 ? null : new Material.Image(known);
        try {
            Path picture = SafePath.inside(folder, name, file);
            int at = textures.add(name, srgb, () -> Files.newInputStream(picture));
            textureNumbers.put(name + srgb, at);
            return new Material.Image(at);
        } catch (IOException e) {
            findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name, e.getMessage()));
            textureNumbers.put(name + srgb, -1);
            return null;
        }
    }
}
