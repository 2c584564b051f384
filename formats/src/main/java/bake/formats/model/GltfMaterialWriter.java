package bake.formats.model;

import bake.core.math.Vec3;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Texture;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.TreeSet;
import java.util.function.IntFunction;

/** The materials and textures part of a glTF file. */
final class GltfMaterialWriter {
    private final TreeSet<String> used = new TreeSet<>();

    static void write(ObjectNode root, List<Material> materials, List<Texture> textures, IntFunction<String> fileOf) {
        GltfMaterialWriter w = new GltfMaterialWriter();
        ArrayNode out = root.putArray("materials");
        for (Material m : materials) w.material(out.addObject(), m);
        if (!textures.isEmpty()) {
            ArrayNode t = root.putArray("textures"), images = root.putArray("images");
            for (int i = 0; i < textures.size(); i++) {
                t.addObject().put("source", i);
                images.addObject().put("name", textures.get(i).name()).put("uri", fileOf.apply(i));
            }
        }
        if (!w.used.isEmpty()) w.used.forEach(root.putArray("extensionsUsed")::add);
    }

    private ObjectNode extension(ObjectNode n, String name) {
        used.add(name);
        return n.withObjectProperty("extensions").putObject(name);
    }

    private void material(ObjectNode n, Material m) {
        n.put("name", m.name());
        ObjectNode p = n.putObject("pbrMetallicRoughness");
        colour(p.putArray("baseColorFactor"), m.base()).add(m.alpha());
        p.put("metallicFactor", m.metallic()).put("roughnessFactor", m.roughness());
        if (m.baseImage() != null) image(p.putObject("baseColorTexture"), m.baseImage());
        if (m.roughnessImage() != null) image(p.putObject("metallicRoughnessTexture"), m.roughnessImage());
        if (m.normalImage() != null) {
            image(n.putObject("normalTexture"), m.normalImage());
            ((ObjectNode) n.get("normalTexture")).put("scale", m.normalScale());
        }
        if (m.alphaMode() != Material.AlphaMode.OPAQUE) n.put("alphaMode", m.alphaMode().name());
        if (m.alphaMode() == Material.AlphaMode.MASK) n.put("alphaCutoff", m.cutoff());
        if (m.ior() != 1.5) extension(n, "KHR_materials_ior").put("ior", m.ior());
        if (m.transmission() > 0) {
            extension(n, "KHR_materials_transmission").put("transmissionFactor", m.transmission());
            image(at(n, "KHR_materials_transmission"), "transmissionTexture", m.layers().images().transmission());
            if (!m.thin()) attenuation(extension(n, "KHR_materials_volume").put("thicknessFactor", 1), m.layers());
        }
        layers(n, m);
        if (m.translucency() > 0) extension(n, "KHR_materials_diffuse_transmission").put("diffuseTransmissionFactor", m.translucency());
        if (m.glows()) {
            Vec3 e = m.emission();
            double most = Math.max(e.x(), Math.max(e.y(), e.z()));
            colour(n.putArray("emissiveFactor"), e.times(1 / most));
            extension(n, "KHR_materials_emissive_strength").put("emissiveStrength", most);
            if (m.emissionImage() != null) image(n.putObject("emissiveTexture"), m.emissionImage());
        }
    }

    private static ObjectNode at(ObjectNode n, String extension) {
        return (ObjectNode) n.path("extensions").path(extension);
    }

    private static void attenuation(ObjectNode volume, Layers l) {
        if (l.attenuationDistance() == Double.POSITIVE_INFINITY) return;
        volume.put("attenuationDistance", l.attenuationDistance());
        colour(volume.putArray("attenuationColor"), l.attenuationColour());
    }

    private void layers(ObjectNode n, Material m) {
        Layers l = m.layers();
        Layers.Images i = l.images();
        Vec3 white = new Vec3(1, 1, 1);
        if (l.specular() != 1 || !l.specularColour().equals(white) || i.specular() != null || i.specularColour() != null) {
            ObjectNode x = extension(n, "KHR_materials_specular").put("specularFactor", l.specular());
            colour(x.putArray("specularColorFactor"), l.specularColour());
            image(x, "specularTexture", i.specular());
            image(x, "specularColorTexture", i.specularColour());
        }
        if (l.coat() > 0) {
            ObjectNode x = extension(n, "KHR_materials_clearcoat").put("clearcoatFactor", l.coat())
                    .put("clearcoatRoughnessFactor", l.coatRoughness());
            image(x, "clearcoatTexture", i.coat());
            image(x, "clearcoatRoughnessTexture", i.coatRoughness());
        }
        if (l.sheen().luminance() > 0) {
            ObjectNode x = extension(n, "KHR_materials_sheen").put("sheenRoughnessFactor", l.sheenRoughness());
            colour(x.putArray("sheenColorFactor"), l.sheen());
            image(x, "sheenColorTexture", i.sheen());
            image(x, "sheenRoughnessTexture", i.sheenRoughness());
        }
        if (l.anisotropy() > 0) {
            ObjectNode x = extension(n, "KHR_materials_anisotropy").put("anisotropyStrength", l.anisotropy())
                    .put("anisotropyRotation", l.anisotropyTurn());
            image(x, "anisotropyTexture", i.anisotropy());
        }
    }

    private void image(ObjectNode n, String key, Material.Image i) {
        if (i != null) image(n.putObject(key), i);
    }

    private static ArrayNode colour(ArrayNode a, Vec3 c) {
        return a.add(c.x()).add(c.y()).add(c.z());
    }

    private void image(ObjectNode n, Material.Image i) {
        n.put("index", i.texture());
        if (i.equals(new Material.Image(i.texture()))) return;
        ObjectNode x = extension(n, "KHR_texture_transform");
        x.putArray("offset").add(i.offsetU()).add(i.offsetV());
        x.putArray("scale").add(i.scaleU()).add(i.scaleV());
        x.put("rotation", i.rotation());
    }
}
