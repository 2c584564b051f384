package bake.studio.live;

import bake.core.path.LightPart;

/** What the easel shows of a view. */
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
    SEEN(LightPart.SEEN), DIRECT(LightPart.DIRECT), BOUNCED(LightPart.BOUNCED), REFLECTED(LightPart.REFLECTED),
    REFRACTED(LightPart.REFRACTED);

    private final LightPart part;

    Showing() {
        this(null);
    }

    Showing(LightPart part) {
        this.part = part;
    }

    /** The way of light that is shown alone; null where that is not so. */
    public LightPart part() {
        return part;
    }

    /** The light of one way alone, or the picture for null. */
    public static Showing of(LightPart part) {
        for (Showing s : values()) if (s.part == part) return s;
        throw new AssertionError(part);
    }

    /** Whether this is what has been learnt of where light comes from. */
    public boolean ofGuides() {
        return this == SKY_GUIDE || this == LAMP_GUIDE;
    }

    /** Whether this is a way to look at light: how much falls on things, by which way it comes, where it is looked for. */
    public boolean ofLight() {
        return this == LUX || part != null || ofGuides();
    }

    /** Whether this is a way to look at caches. */
    public boolean ofCaches() {
        return this == RECORDS || this == CELLS || this == PHOTONS;
    }
}
