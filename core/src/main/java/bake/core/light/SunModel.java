package bake.core.light;

/** Published constants of the sun outside the atmosphere. */
public final class SunModel {
    /**
     * Illuminance on a plane facing the sun outside the atmosphere, lux: 133,334 lx at the mean distance (Darula,
     * Kittler and Gueymard 2005, value from memory).
     */
    public static final double EXTRATERRESTRIAL_LUX = 133_334;
    /** Correlated colour temperature used for its colour there, kelvin (common practice, no source). */
    public static final double KELVIN = 5_800;

    private SunModel() {}
}
