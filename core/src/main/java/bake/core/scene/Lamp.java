package bake.core.scene;

import bake.core.math.Affine;
import bake.core.math.Vec3;

/**
 * A placed light source.
 *
 * @param group name of the lamp group that its light is counted in
 * @param frame position and axes; light leaves along +z (spot, rectangle, disc, web), a tube lies along x. Axes are unit vectors
 * @param width rectangle: size along x, metres; sphere, disc and tube: diameter, metres; point, spot and web: width of the opening
 *     that light comes from, which makes shadows soft, or 0
 * @param height rectangle: size along y, metres; tube: length, metres; web: height of the opening, or 0 for a round one
 * @param lumens luminous flux, lm
 * @param colour linear Rec. 709 colour of luminance one
 * @param beamDegrees spot: full angle within which the intensity is even
 * @param fieldDegrees spot: full angle outside of which there is none, up to 180
 * @param visible whether the camera sees the lamp itself; point, spot and web have no body
 * @param twoSided rectangle and disc: lumens are shared by both faces
 * @param mirrored whether reflections and bounced paths see the lamp itself
 * @param weight how often the lamp is chosen when light is looked for, against others; the mean does not depend on it; above 0
 * @param web intensity by direction of a {@link Kind#WEB}, else null; scaled to the lumens
 */
public record Lamp(
        String name, String group, Kind kind, Affine frame, double width, double height, double lumens, Vec3 colour,
        double beamDegrees, double fieldDegrees, boolean visible, boolean twoSided, boolean mirrored, double weight, PhotometricWeb web) {

    /** The shapes a lamp may have. */
    public enum Kind { POINT, SPOT, SPHERE, DISC, RECTANGLE, TUBE, WEB }

    public Lamp {
        if ((kind == Kind.WEB) != (web != null)) throw new IllegalArgumentException("lamp " + name + ": a web and its kind go together");
    }

    /** A lamp that reflections see as the camera does. */
    public Lamp(String name, String group, Kind kind, Affine frame, double width, double height, double lumens, Vec3 colour,
            double beamDegrees, double fieldDegrees, boolean visible, boolean twoSided) {
        this(name, group, kind, frame, width, height, lumens, colour, beamDegrees, fieldDegrees, visible, twoSided, visible, 1, null);
    }

    public Vec3 position() {
        return frame.origin();
    }

    /** Whether the lamp has a body that rays can meet. */
    public boolean hasBody() {
        return area() > 0;
    }

    /** Area that gives light, m2; zero for point, spot and web. Both faces count when two-sided; the ends of a tube are dark. */
    public double area() {
        return switch (kind) {
            case POINT, SPOT, WEB -> 0;
            case SPHERE -> Math.PI * width * width;
            case TUBE -> Math.PI * width * height;
            case DISC -> Math.PI * width * width / 4 * (twoSided ? 2 : 1);
            case RECTANGLE -> width * height * (twoSided ? 2 : 1);
        };
    }

    /** Luminance of the lit area as a diffuse emitter, cd/m2: flux over pi times area; 0 without an area. */
    public double luminance() {
        double a = area();
        return a > 0 ? lumens / (Math.PI * a) : 0;
    }

    /**
     * Lumens that give an intensity of 1 cd in the direction in which the lamp is strongest (spot: in its middle; tube: straight across).
     */
    public double lumensPerCandela() {
        return switch (kind) {
            case POINT, SPHERE -> 4 * Math.PI;
            case SPOT -> {
                double ci = Math.cos(Math.toRadians(beamDegrees / 2)), co = Math.cos(Math.toRadians(fieldDegrees / 2));
                // Even inside, smoothstep in cosine to the rim: the integral of a smoothstep is half its width.
                yield 2 * Math.PI * ((1 - ci) + 0.5 * (ci - co));
            }
            case DISC, RECTANGLE -> Math.PI * (twoSided ? 2 : 1);
            case TUBE -> Math.PI * Math.PI;
            case WEB -> web.peak() > 0 ? web.lumens() / web.peak() : 0;
        };
    }

    /** Intensity in the direction in which the lamp is strongest, cd. */
    public double candela() {
        double k = lumensPerCandela();
        return k > 0 ? lumens / k : 0;
    }

    /**
     * Illuminance on a plane facing the middle of the lamp at a distance in the direction in which it is strongest, lux. Exact for
     * point, spot, web, sphere and disc; rectangles and tubes by their closed forms as well (Lambert's formula for the factor of a
     * rectangle on the axis through its middle; a tube as a line source).
     *
     * @param metres distance from the lamp's middle, beyond its body
     */
    public double luxAt(double metres) {
        double d2 = metres * metres;
        return switch (kind) {
            case POINT, SPOT, WEB, SPHERE -> candela() / d2;
            case DISC -> Math.PI * luminance() * (width * width / 4) / (d2 + width * width / 4);
            case RECTANGLE -> {
                double x = width / 2 / metres, y = height / 2 / metres, p = Math.sqrt(1 + x * x), q = Math.sqrt(1 + y * y);
                yield 2 * luminance() * (x / p * Math.atan(y / p) + y / q * Math.atan(x / q));
            }
            case TUBE -> {
                // A line of intensity per length I, lit straight across: E = I/d (a + sin a cos a), a half the angle that it fills.
                double a = Math.atan(height / 2 / metres);
                yield candela() / height / metres * (a + Math.sin(a) * Math.cos(a));
            }
        };
    }

    public Lamp withLumens(double lm) {
        return new Lamp(name, group, kind, frame, width, height, lm, colour, beamDegrees, fieldDegrees, visible, twoSided, mirrored, weight,
                web);
    }

    public Lamp withFrame(Affine f) {
        return new Lamp(name, group, kind, f, width, height, lumens, colour, beamDegrees, fieldDegrees, visible, twoSided, mirrored, weight,
                web);
    }
}
