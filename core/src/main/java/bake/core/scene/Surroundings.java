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
     * @param disc whether the sun's disc is seen; its light is there all the same
     * @param moon whether a full moon, opposite to the sun, lights the night
     */
    record SunSky(Vec3 toSun, double haze, double sunStops, double skyStops, double sunDegrees, double groundAlbedo, boolean disc,
            boolean moon)
            implements Surroundings {
        /** The sun's mean apparent diameter as seen from the earth, degrees. */
        public static final double SUN_DEGREES = 0.533;

        /** With the disc to be seen and no moon. */
        public SunSky(Vec3 toSun, double haze, double sunStops, double skyStops, double sunDegrees, double groundAlbedo) {
            this(toSun, haze, sunStops, skyStops, sunDegrees, groundAlbedo, true, false);
        }
    }

    /**
     * A standard sky of a type, with the sun where clouds do not hide it.
     *
     * @param type 1 to 15 of ISO 15469
     */
    record General(int type, Vec3 toSun, double haze, double sunStops, double skyStops, double sunDegrees, double groundAlbedo,
            boolean disc) implements Surroundings {
        public General(int type, Vec3 toSun, double haze, double sunStops, double skyStops, double sunDegrees, double groundAlbedo) {
            this(type, toSun, haze, sunStops, skyStops, sunDegrees, groundAlbedo, true);
        }
    }

    /**
     * A panorama used as light.
     *
     * @param rotation turns it clockwise seen from above, degrees
     * @param tilt degrees by which its middle column is lowered, {@code roll} by which it leans to the right
     * @param factor on every luminance
     * @param sun what was taken out of it, or null
     */
    record Hdri(Panorama panorama, double rotation, double tilt, double roll, double factor, PanoramaSun sun) implements Surroundings {
        /** Level, and at a level in stops. */
        public Hdri(Panorama panorama, double rotation, double stops) {
            this(panorama, rotation, 0, 0, Math.pow(2, stops), null);
        }
    }

    /**
     * A sun that was found in a panorama.
     *
     * @param towards unit vector in the panorama's own axes: the middle column is +y, the zenith +z
     * @param lux illuminance by colour on a plane that faces it
     * @param degrees its diameter
     */
    record PanoramaSun(Vec3 towards, Vec3 lux, double degrees) {}

    /** The same luminance from everywhere, cd/m2 by colour; zero is darkness. */
    record Plain(Vec3 luminance) implements Surroundings {}
}
