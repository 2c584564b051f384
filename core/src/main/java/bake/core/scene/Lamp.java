package bake.core.scene;

import bake.core.math.Affine;
import bake.core.math.Vec3;

/**
 * A placed light source.
 *
 * @param group name of the lamp group that its light is counted in
 * @param frame position and axes; light leaves along +z (spot, rectangle, disc). Axes are unit vectors
 * @param width rectangle: size along x, metres; sphere and disc: diameter, metres
 * @param height rectangle: size along y, metres
 * @param lumens luminous flux, lm
 * @param colour linear Rec. 709 colour of luminance one
 * @param beamDegrees spot: full angle within which the intensity is even
 * @param fieldDegrees spot: full angle outside of which there is none, up to 180
 * @param visible whether camera and reflections see the lamp itself; point and spot have no body
 * @param twoSided rectangle and disc: lumens are shared by both faces
 */
public record Lamp(
        String name, String group, Kind kind, Affine frame, double width, double height, double lumens, Vec3 colour,
        double beamDegrees, double fieldDegrees, boolean visible, boolean twoSided) {

    /** The shapes a lamp may have. */
    public enum Kind { POINT, SPOT, SPHERE, DISC, RECTANGLE }

    public Vec3 position() {
        return frame.origin();
    }

    /** Area that gives light, m2; zero for point and spot. Both faces count when two-sided. */
    public double area() {
        return switch (kind) {
            case POINT, SPOT -> 0;
            case SPHERE -> Math.PI * width * width;
            case DISC -> Math.PI * width * width / 4 * (twoSided ? 2 : 1);
            case RECTANGLE -> width * height * (twoSided ? 2 : 1);
        };
    }

    /** Luminance of the lit area as a diffuse emitter, cd/m2: flux over pi times area. */
    public double luminance() {
        double a = area();
        return a > 0 ? lumens / (Math.PI * a) : 0;
    }

    public Lamp withLumens(double lm) {
        return new Lamp(name, group, kind, frame, width, height, lm, colour, beamDegrees, fieldDegrees, visible, twoSided);
    }
}
