package bake.studio;

import bake.core.scene.Material;
import bake.core.scene.Scene;
import bake.core.math.Vec3;
import java.util.List;

/** What the easel shows of a model. */
public enum Showing {
    /** The picture as it will be. */
    PICTURE,
    /** All matt grey, but for what is clear or glows: form and light without colour. */
    CLAY,
    /** The triangles' edges. */
    EDGES,
    /** A flat colour for each material. */
    MATERIALS;

    /** Reflectance of clay: middle of what rooms have (common practice, no source). */
    private static final double CLAY_REFLECTANCE = 0.5;

    /** Clay versions of lists of materials, so that the same list always gives the same one. */
    private static List<Material> lastFrom, lastClay;

    /** The scene made ready for this. */
    synchronized Scene of(Scene s) {
        if (this != CLAY) return s;
        if (lastFrom != s.materials()) {
            lastClay = s.materials().stream().map(Showing::clay).toList();
            lastFrom = s.materials();
        }
        return new Scene(s.meshes(), s.instances(), lastClay, s.textures(), s.lamps(), s.surroundings());
    }

    private static Material clay(Material m) {
        if (m.transmission() > 0 || m.glows()) return m;
        Vec3 grey = new Vec3(CLAY_REFLECTANCE, CLAY_REFLECTANCE, CLAY_REFLECTANCE);
        Material c = Material.diffuse(m.name(), grey).withAlpha(m.alpha(), m.alphaMode(), m.cutoff()).withTranslucency(m.translucency());
        // What is cut out stays cut out; its picture's colours come along.
        return m.alphaMode() == Material.AlphaMode.OPAQUE ? c : c.withBaseImage(m.baseImage());
    }
}
