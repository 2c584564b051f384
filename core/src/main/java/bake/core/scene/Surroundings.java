package bake.core.scene;

import bake.core.math.Vec3;

/** All that lies around the model. */
public sealed interface Surroundings {
    /**
     * The physical pair.
     *
     * @param toSun unit vector to the sun's centre, z up; below the horizon means twilight or night
     * @param haze turbidity, 1 (air alone) to 10
     * @param sunStops intensity of the sun against nature, in stops
     * @param skyStops intensity of the sky against nature, in stops
     * @param sunDegrees apparent diameter of the sun's disc, 0.05 to 20 degrees; its light stays the same
     * @param groundAlbedo reflectance of the land around, 0 to 1
     */
    record SunSky(Vec3 toSun, double haze, double sunStops, double skyStops, double sunDegrees, double groundAlbedo)
            implements Surroundings {
        /** The sun's mean apparent diameter as seen from the earth, degrees. */
        public static final double SUN_DEGREES = 0.533;
    }

    /**
     * A standard sky of a type, with the sun where clouds do not hide it.
     *
     * @param type 1 to 15 of ISO 15469
     */
    record General(int type, Vec3 toSun, double haze, double sunStops, double skyStops, double sunDegrees, double groundAlbedo) implements Surroundings {}

    /** A panorama used as light; {@code rotation} turns it clockwise seen from above, degrees. */
    record Hdri(Panorama panorama, double rotation, double stops) implements Surroundings {}

    /** The same luminance from everywhere, cd/m2 by colour; zero is darkness. */
    record Plain(Vec3 luminance) implements Surroundings {}
}
