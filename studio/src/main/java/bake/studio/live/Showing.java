package bake.studio.live;

import bake.core.path.LightPart;

/** What the easel shows of a model. */
public enum Showing {
    /** The picture as it will be. */
    PICTURE,
    /** All matt grey, but for what is clear or glows: form and light without colour. */
    CLAY,
    /** The triangles' edges. */
    EDGES,
    /** A flat colour for each material, and for each object. */
    MATERIALS, OBJECTS,
    /** How far things are, how they are turned, and their base colours. */
    DEPTH, NORMALS, COLOURS,
    /** Illuminance in false colours. */
    LUX,
    /** What is known of where the surroundings are seen, and of which lamps matter. */
    SKY_GUIDE, LAMP_GUIDE,
    /** Where records of irradiance lie and how far they reach, the cells that bounces read, and photons. */
    RECORDS, CELLS, PHOTONS,
    /** The picture's light of one way to the camera alone. */
    SEEN, DIRECT, BOUNCED, REFLECTED, REFRACTED;

    /** The way of light that is shown alone; null where that is not so. */
    public LightPart part() {
        return switch (this) {
            case SEEN, DIRECT, BOUNCED, REFLECTED, REFRACTED -> LightPart.valueOf(name());
            default -> null;
        };
    }

    /** Whether this is a way to look at caches. */
    public boolean ofCaches() {
        return this == RECORDS || this == CELLS || this == PHOTONS;
    }
}
