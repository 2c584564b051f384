package bake.studio.live;

import bake.core.math.Vec3;
import bake.core.scene.Material;
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
    MATERIALS,
    /** Illuminance in false colours. */
    LUX,
    /** What is known of where the surroundings are seen, and of which lamps matter. */
    SKY_GUIDE, LAMP_GUIDE,
    /** Where records of irradiance lie and how far they reach, the cells that bounces read, and photons. */
    RECORDS, CELLS, PHOTONS;

    /** Whether this is a way to look at caches. */
    public boolean ofCaches() {
        return this == RECORDS || this == CELLS || this == PHOTONS;
    }

    /** Reflectance of clay: middle of what rooms have (common practice, no source). */
    private static final double CLAY_REFLECTANCE = 0.5;

    /** The materials of clay; {@code m} itself for all other ways. */
    public List<Material> of(List<Material> m) {
        return this == CLAY ? m.stream().map(Showing::clay).toList() : m;
    }

    private static Material clay(Material m) {
        if (m.transmission() > 0 || m.glows()) return m;
        Vec3 grey = new Vec3(CLAY_REFLECTANCE, CLAY_REFLECTANCE, CLAY_REFLECTANCE);
        Material c = Material.diffuse(m.name(), grey).withAlpha(m.alpha(), m.alphaMode(), m.cutoff()).withTranslucency(m.translucency());
        // What is cut out stays cut out; its picture's colours come along.
        return m.alphaMode() == Material.AlphaMode.OPAQUE ? c : c.withBaseImage(m.baseImage());
    }
}
