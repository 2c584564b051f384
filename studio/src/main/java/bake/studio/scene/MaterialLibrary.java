package bake.studio.scene;

import bake.core.math.Vec3;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Thrift;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.Project;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/** Real materials to start from, each with where its reflectance comes from. */
public final class MaterialLibrary {
    /** Reflectance of clay: middle of what rooms have (common practice, no source). */
    private static final double CLAY_REFLECTANCE = 0.5;
    /**
     * One of them.
     *
     * @param source of its reflectance, in words
     */
    public record Entry(String name, String group, String source, Material material) {}

    private static final List<Entry> ALL = load();

    private MaterialLibrary() {}

    public static List<Entry> all() {
        return ALL;
    }

    /** @throws FormatException naming those that sound alike, or how to see all */
    public static Material named(String name, String where) throws FormatException {
        for (Entry e : ALL) if (e.name().equals(name)) return e.material();
        List<String> near = ALL.stream().map(Entry::name).filter(n -> n.contains(name) || name.contains(n.split(",")[0])).toList();
        throw new FormatException("project.json", where, "there is no material '" + name + "' in the library; "
                + (near.isEmpty() ? "bake materials lists it" : "there is: " + String.join("; ", near)));
    }

    private static List<Entry> load() {
        try (InputStream in = MaterialLibrary.class.getResourceAsStream("/bake/materials.json")) {
            List<Entry> out = new ArrayList<>();
            for (JsonNode n : Json.MAPPER.readTree(in)) {
                String name = n.path("name").asText();
                Material plain = Material.glossy(name, new Vec3(0.6, 0.6, 0.6), 0.6);
                Project.Surface s = Json.MAPPER.treeToValue(((com.fasterxml.jackson.databind.node.ObjectNode) n.deepCopy())
                        .without(List.of("group", "source")), Project.Surface.class);
                out.add(new Entry(name, n.path("group").asText(), n.path("source").asText(), apply(plain, s)));
            }
            return List.copyOf(out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A material with everything that a project says about it in place of its own. */
    static Material apply(Material m, Project.Surface s) {
        Layers l = m.layers();
        if (s.coat() != null || s.coatRoughness() != null) l = l.withCoat(or(s.coat(), l.coat()), or(s.coatRoughness(), l.coatRoughness()));
        if (s.sheen() != null || s.sheenRoughness() != null)
            l = l.withSheen(s.sheen() == null ? l.sheen() : vec(s.sheen()), or(s.sheenRoughness(), l.sheenRoughness()));
        if (s.anisotropy() != null) l = l.withAnisotropy(s.anisotropy(), l.anisotropyTurn());
        if (s.attenuation() != null || s.attenuationDistance() != null)
            l = l.withAttenuation(s.attenuation() == null ? l.attenuationColour() : vec(s.attenuation()),
                    or(s.attenuationDistance(), l.attenuationDistance()));
        double bump = or(s.bump(), 1);
        Material.AlphaMode cut = s.cutOut() == null ? m.alphaMode() : s.cutOut() > 0 ? Material.AlphaMode.MASK : Material.AlphaMode.OPAQUE;
        return new Material(m.name(), s.base() == null ? m.base() : vec(s.base()), s.base() == null ? m.baseImage() : null, m.alpha(),
                cut, or(s.cutOut(), m.cutoff()),
                or(s.metallic(), m.metallic()), or(s.roughness(), m.roughness()), s.roughness() == null ? m.roughnessImage() : null,
                m.normalImage(), bump * m.normalScale(),
                or(s.ior(), m.ior()), or(s.transmission(), m.transmission()), s.thin() == null ? m.thin() : s.thin(),
                or(s.translucency(), m.translucency()),
                s.emission() == null ? m.emission() : vec(s.emission()), s.emission() == null ? m.emissionImage() : null, l,
                m.relief().withHeight(m.relief().height(), bump * m.relief().heightMetres()).withRound(or(s.round(), m.relief().round()))
                .withScatter(s.scatter() == null ? m.relief().scatter() : s.scatter()),
                new Thrift(or(s.reach(), m.thrift().reach()), or(s.weight(), m.thrift().weight())),
                s.catcher() == null ? m.catcher() : s.catcher());
    }

    /** A material of the library under another's name; the bumps that the other has stay on it. */
    static Material under(Material library, Material other) {
        Material m = new Material(other.name(), library.base(), null, other.alpha(), other.alphaMode(), other.cutoff(), library.metallic(),
                library.roughness(), null,
                other.normalImage(), other.normalScale(), library.ior(), library.transmission(), library.thin(), library.translucency(),
                library.emission(), null,
                library.layers(), other.relief(), other.thrift(), other.catcher());
        // What is cut out by a picture's coverage keeps it, with the picture's colours.
        return other.alphaMode() == Material.AlphaMode.OPAQUE ? m : m.withBaseImage(other.baseImage());
    }

    /** A material as clay shows it: matt grey, but for what is clear or glows. */
    public static Material clay(Material m) {
        if (m.transmission() > 0 || m.glows()) return m;
        Vec3 grey = new Vec3(CLAY_REFLECTANCE, CLAY_REFLECTANCE, CLAY_REFLECTANCE);
        Material c = Material.diffuse(m.name(), grey).withAlpha(m.alpha(), m.alphaMode(), m.cutoff()).withTranslucency(m.translucency());
        // What is cut out stays cut out; its picture's colours come along.
        return m.alphaMode() == Material.AlphaMode.OPAQUE ? c : c.withBaseImage(m.baseImage());
    }

    private static double or(Double d, double otherwise) {
        return d == null ? otherwise : d;
    }

    static Vec3 vec(double[] a) {
        return new Vec3(a[0], a[1], a[2]);
    }
}
