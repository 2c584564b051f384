package bake.core.light;

import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import java.util.stream.IntStream;

/**
 * The fifteen general skies of ISO 15469:2004 (CIE S 011), from overcast to clear: luminance of each direction in shares of the
 * zenith's, equations 1 to 4 and table 1. The standard gives no levels and no colours: the level is that of a horizontal
 * illuminance that is typical of the type (Darula and Kittler 2002, "CIE general sky standard defining luminance distributions",
 * ratios to the extraterrestrial one from memory), the colour that of a black body, whiter the more cloud there is (common
 * practice, no source).
 */
public final class GeneralSky {
    public static final int TYPES = 15;

    /** a and b of the gradation, c, d and e of the indicatrix; one line a type (ISO 15469, table 1). */
    private static final double[][] TABLE = {
        {4.0, -0.70, 0, -1.0, 0}, {4.0, -0.70, 2, -1.5, 0.15}, {1.1, -0.8, 0, -1.0, 0}, {1.1, -0.8, 2, -1.5, 0.15}, {0, -1.0, 0, -1.0, 0},
        {0, -1.0, 2, -1.5, 0.15}, {0, -1.0, 5, -2.5, 0.30}, {0, -1.0, 10, -3.0, 0.45}, {-1.0, -0.55, 2, -1.5, 0.15},
        {-1.0, -0.55, 5, -2.5, 0.30},
        {-1.0, -0.55, 10, -3.0, 0.45}, {-1.0, -0.32, 10, -3.0, 0.45}, {-1.0, -0.32, 16, -3.0, 0.30}, {-1.0, -0.15, 16, -3.0, 0.30},
        {-1.0, -0.15, 24, -2.8, 0.15}};
    private static final String[] NAMES = {"Overcast, steeply darker to the horizon", "Overcast, a little brighter near the sun",
            "Overcast, darker to the horizon", "Overcast, brighter near the sun", "Overcast, the same everywhere",
        "Partly cloudy, brighter near the sun", "Partly cloudy, bright about the sun", "Partly cloudy, with a white glow about the sun",
        "Partly cloudy, the sun behind cloud", "Partly cloudy, bright about the hidden sun",
        "White-blue, with a glow about the sun", "Clear, little haze", "Clear, hazy air", "Cloudless and hazy, with a broad glow",
        "White-blue and hazy, with a broad glow"};
    /** Horizontal illuminance from the sky over the extraterrestrial one, typical of each type. */
    private static final double[] LEVEL = {0.10, 0.18, 0.15, 0.22, 0.20, 0.38, 0.42, 0.41, 0.40, 0.36, 0.23, 0.10, 0.28, 0.28, 0.30};
    /** Types up to this one hide the sun. */
    private static final int HIDDEN = 6;

    private final double a, b, c, d, e, zenith, scale;
    private final Vec3 sun, colour;
    private final double lux;

    /**
     * @param type 1 to 15
     * @param toSun unit vector to the sun; under the horizon the sky darkens as in twilight, and the brightest part stays at the horizon
     * @throws IllegalArgumentException for another type
     */
    public GeneralSky(int type, Vec3 toSun) {
        if (type < 1 || type > TYPES) throw new IllegalArgumentException("general skies have types 1 to " + TYPES);
        double[] t = TABLE[type - 1];
        a = t[0];
        b = t[1];
        c = t[2];
        d = t[3];
        e = t[4];
        double height = Math.asin(Math.clamp(toSun.z(), -1, 1)), flat = Math.hypot(toSun.x(), toSun.y());
        sun = height >= 0 || !(flat > 0) ? toSun : new Vec3(toSun.x() / flat, toSun.y() / flat, 0);
        zenith = indicatrix(Math.acos(Math.clamp(sun.z(), 0, 1))) * gradation(1);
        colour = Blackbody.rgb(type <= 5 ? 6500 : type <= 10 ? 7500 : 11_000);
        // Light falls by about a hundred until the sun is six degrees under (common practice, no source).
        double level = Math.max(Math.sin(height), 0.01) * Math.pow(10, Math.min(0, Math.toDegrees(height)) / 3);
        lux = LEVEL[type - 1] * SunModel.EXTRATERRESTRIAL_LUX * level;
        scale = lux / integral();
    }

    public static String name(int type) {
        return NAMES[type - 1];
    }

    /** Whether clouds hide the sun's disc in skies of a type. */
    public static boolean hidesSun(int type) {
        return type <= HIDDEN || type == 9 || type == 10;
    }

    /** Illuminance of the ground from the sky alone, lux. */
    public double horizontalLux() {
        return lux;
    }

    /** Luminance of a direction above the horizon over that of the zenith (ISO 15469, eq. 1). */
    public double relative(Vec3 view) {
        return indicatrix(Math.acos(Math.clamp(view.dot(sun), -1, 1))) * gradation(view.z()) / zenith;
    }

    /** Eq. 2 and 3; cosine of the angle from the zenith. At the horizon the exponential is gone. */
    private double gradation(double up) {
        return up > 1e-9 ? 1 + a * Math.exp(b / up) : 1;
    }

    /** Eq. 4; angle from the sun. */
    private double indicatrix(double chi) {
        double cos = Math.cos(chi);
        return 1 + c * (Math.exp(d * chi) - Math.exp(d * Math.PI / 2)) + e * cos * cos;
    }

    /** Horizontal illuminance of a zenith of luminance one: midpoints, even in the sine squared of the height. */
    private double integral() {
        int rows = 180, columns = 360;
        double azimuth = Math.atan2(sun.x(), sun.y()), sum = 0;
        for (int i = 0; i < rows; i++) {
            double z = Math.sqrt((i + 0.5) / rows), s = Math.sqrt(1 - z * z);
            // The same on both sides of the sun.
            for (int j = 0; j < columns / 2; j++) {
                double t = azimuth + 2 * Math.PI * (j + 0.5) / columns;
                sum += relative(new Vec3(s * Math.sin(t), s * Math.cos(t), z));
            }
        }
        return Math.PI * 2 * sum / (rows * columns);
    }

    /** Luminance of a direction above the horizon, cd/m2. */
    public double luminance(Vec3 view) {
        return scale * relative(view);
    }

    /**
     * The sky as a panorama over evenly lit land.
     *
     * @param ground luminance of the land by colour, cd/m2
     */
    public Panorama image(int width, Vec3 ground) {
        int h = width / 2;
        float[] rgb = new float[3 * width * h];
        IntStream.range(0, h).parallel().forEach(y -> {
            double theta = Math.PI * (y + 0.5) / h, s = Math.sin(theta), z = Math.cos(theta);
            for (int x = 0; x < width; x++) {
                double phi = 2 * Math.PI * ((x + 0.5) / width - 0.5);
                Vec3 v = z > 0 ? colour.times(luminance(new Vec3(s * Math.sin(phi), s * Math.cos(phi), z))) : ground;
                int o = 3 * (y * width + x);
                rgb[o] = (float) v.x();
                rgb[o + 1] = (float) v.y();
                rgb[o + 2] = (float) v.z();
            }
        });
        return new Panorama("general sky", width, h, rgb);
    }

    /** Colour of the sky's light, of luminance one. */
    public Vec3 colour() {
        return colour;
    }
}
