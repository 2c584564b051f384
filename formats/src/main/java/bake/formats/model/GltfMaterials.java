package bake.formats.model;

import bake.core.math.Vec3;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Relief;
import bake.core.scene.Texture;
import bake.core.scene.Thrift;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Materials and textures of a glTF 2.0 file, with the extensions that the surface model covers. */
final class GltfMaterials {
    /**
     * Luminance of an emissive factor of one, cd/m2, where the file does not say more: about that of a screen or an exit sign, so that what
     * is drawn to glow is neither black by day nor a lamp (common practice, no source).
     */
    private static final double EMISSIVE_UNIT = 250;
    /** Luminance of white on an unlit surface, cd/m2: a bright screen in an office (common practice, no source). */
    private static final double UNLIT = 100;

    private final JsonNode root;
    private final GltfAccessors data;
    private final String file;
    private final List<Finding> findings;
    private final List<Material> materials = new ArrayList<>();
    private final ModelTextures pictures;
    private final List<Texture> textures;
    private final Map<String, Integer> loaded = new HashMap<>();
    /** Values of the material in reading that the format does not allow. */
    private int outOfRange;
    private int plain = -1;

    GltfMaterials(JsonNode root, GltfAccessors data, String file, List<Finding> findings, long textureBytes) throws IOException {
        pictures = new ModelTextures(textureBytes);
        this.root = root;
        this.data = data;
        this.file = file;
        this.findings = findings;
        int i = 0;
        for (JsonNode m : root.path("materials")) {
            outOfRange = 0;
            materials.add(read(m, i++));
            if (outOfRange > 0) findings.add(new Finding(Finding.Kind.BROKEN_VALUES, materials.getLast().name(), outOfRange
                    + (outOfRange == 1 ? " value is" : " values are") + " outside of what the format allows; the nearest allowed was taken"));
        }
        textures = pictures.decode(findings);
    }

    List<Material> materials() {
        return materials;
    }

    List<Texture> textures() {
        return textures;
    }

    /** Number of material {@code i}, or of a plain one where the file names none that exists. */
    int use(int i) {
        if (i >= 0 && i < root.path("materials").size()) return i;
        if (plain < 0) {
            plain = materials.size();
            materials.add(Material.glossy("no material", new Vec3(0.6, 0.6, 0.6), 0.6));
        }
        return plain;
    }

    Vec3 colour(JsonNode n, Vec3 otherwise) {
        if (n.size() < 3) return otherwise;
        return new Vec3(number(n.get(0), 1, 0, 1e9), number(n.get(1), 1, 0, 1e9), number(n.get(2), 1, 0, 1e9));
    }

    private double number(JsonNode n, double otherwise, double min, double max) {
        double v = n.asDouble(otherwise);
        if (!n.isMissingNode() && !(v >= min && v <= max)) outOfRange++;
        return v >= min && v <= max ? v : v > max ? max : v < min ? min : otherwise;
    }

    private Material read(JsonNode m, int i) throws IOException {
        String name = m.path("name").asText("material " + i);
        JsonNode p = m.path("pbrMetallicRoughness"), x = m.path("extensions");
        Vec3 base = colour(p.path("baseColorFactor"), new Vec3(1, 1, 1));
        double alpha = p.path("baseColorFactor").size() > 3 ? number(p.path("baseColorFactor").get(3), 1, 0, 1) : 1;
        double transmission = number(x.path("KHR_materials_transmission").path("transmissionFactor"), 0, 0, 1);
        boolean solid = x.path("KHR_materials_volume").path("thicknessFactor").asDouble(0) > 0;
        double translucency = number(x.path("KHR_materials_diffuse_transmission").path("diffuseTransmissionFactor"), 0, 0, 1);
        // With a strength the product is in cd/m2 (KHR_materials_emissive_strength: the emission is in nits).
        JsonNode nits = x.path("KHR_materials_emissive_strength").path("emissiveStrength");
        double strength = nits.isMissingNode() ? EMISSIVE_UNIT : number(nits, 1, 0, 1e9);
        Vec3 emission = colour(m.path("emissiveFactor"), Vec3.ZERO).times(strength);
        Material.AlphaMode mode = switch (m.path("alphaMode").asText("OPAQUE").toUpperCase(Locale.ROOT)) {
            case "MASK" -> Material.AlphaMode.MASK;
            case "BLEND" -> Material.AlphaMode.BLEND;
            default -> Material.AlphaMode.OPAQUE;
        };
        Material.Image baseImage = image(p.path("baseColorTexture"), true, name);
        if (x.has("KHR_materials_unlit")) {
            // Shown as it is, whatever the light: as a paper-white screen of that colour would look.
            findings.add(new Finding(Finding.Kind.UNLIT, name, "is unlit in the file; it glows with " + UNLIT + " cd/m2 at white"));
            return new Material(name, Vec3.ZERO, null, alpha, mode, number(m.path("alphaCutoff"), 0.5, 0, 1), 0, 1, null, null, 1, 1, 0,
                    false, 0,
                    base.times(UNLIT), baseImage);
        }
        return new Material(name, base, baseImage, alpha, mode, number(m.path("alphaCutoff"), 0.5, 0, 1),
                number(p.path("metallicFactor"), 1, 0, 1), number(p.path("roughnessFactor"), 1, 0, 1),
                image(p.path("metallicRoughnessTexture"), false, name), image(m.path("normalTexture"), false, name),
                number(m.path("normalTexture").path("scale"), 1, -10, 10), number(x.path("KHR_materials_ior").path("ior"), 1.5, 1, 3),
                transmission, transmission > 0 && !solid, translucency, emission, image(m.path("emissiveTexture"), true, name),
                layers(x, name), Relief.NONE, Thrift.NONE, false);
    }

    /** Everything that the material extensions lay on and in a surface. */
    private Layers layers(JsonNode x, String name) throws IOException {
        JsonNode spec = x.path("KHR_materials_specular"), coat = x.path("KHR_materials_clearcoat"), sheen = x.path("KHR_materials_sheen"),
                stretch = x.path("KHR_materials_anisotropy"), volume = x.path("KHR_materials_volume"),
                clear = x.path("KHR_materials_transmission");
        Layers.Images images = new Layers.Images(image(spec.path("specularTexture"), false, name),
                image(spec.path("specularColorTexture"), true, name),
                image(coat.path("clearcoatTexture"), false, name), image(coat.path("clearcoatRoughnessTexture"), false, name),
                image(sheen.path("sheenColorTexture"), true, name), image(sheen.path("sheenRoughnessTexture"), false, name),
                image(stretch.path("anisotropyTexture"), false, name), image(clear.path("transmissionTexture"), false, name));
        double distance = volume.path("attenuationDistance").asDouble(Double.POSITIVE_INFINITY);
        Layers l = new Layers(number(spec.path("specularFactor"), 1, 0, 1), colour(spec.path("specularColorFactor"), new Vec3(1, 1, 1)),
                number(coat.path("clearcoatFactor"), 0, 0, 1), number(coat.path("clearcoatRoughnessFactor"), 0, 0, 1),
                colour(sheen.path("sheenColorFactor"), Vec3.ZERO), number(sheen.path("sheenRoughnessFactor"), 0, 0, 1),
                number(stretch.path("anisotropyStrength"), 0, 0, 1), number(stretch.path("anisotropyRotation"), 0, -100, 100),
                colour(volume.path("attenuationColor"), new Vec3(1, 1, 1)), distance > 0 ? distance : Double.POSITIVE_INFINITY,
                images.equals(Layers.Images.NONE) ? Layers.Images.NONE : images);
        return l.equals(Layers.NONE) ? Layers.NONE : l;
    }

    private Material.Image image(JsonNode t, boolean srgb, String material) throws IOException {
        if (t.isMissingNode()) return null;
        int texture = t.path("index").asInt(-1), source = root.path("textures").path(texture).path("source").asInt(-1);
        if (source < 0 || source >= root.path("images").size()) {
            findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, material, "texture " + texture + " names no picture"));
            return null;
        }
        int number = loaded.computeIfAbsent(source + (srgb ? "s" : "l"), k -> {
            JsonNode im = root.path("images").get(source);
            String uri = im.path("uri").asText("");
            String name = im.path("name").asText(uri.isEmpty() || uri.startsWith("data:") ? "image " + source : uri);
            try {
                return pictures.add(name, srgb, () -> new ByteArrayInputStream(data.image(source)));
            } catch (IOException e) {
                findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name, e.getMessage()));
                return pictures.plain(name, srgb);
            }
        });
        JsonNode x = t.path("extensions").path("KHR_texture_transform"), o = x.path("offset"), s = x.path("scale");
        return new Material.Image(number, number(s.path(0), 1, -1e4, 1e4), number(s.path(1), 1, -1e4, 1e4), number(o.path(0), 0, -1e4, 1e4),
                number(o.path(1), 0, -1e4, 1e4), number(x.path("rotation"), 0, -100, 100));
    }
}
