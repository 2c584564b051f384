package bake.core.light;

import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import bake.core.scene.Surroundings;

/**
 * Surroundings, tabulated.
 *
 * @param of what was tabulated
 * @param dome the light of all directions without the sun
 * @param toSun unit vector to the sun or the moon, null where there is none
 * @param sunLux illuminance by colour on a plane facing it, lux
 * @param sunRadius half of its angle, radians
 */
public record Surround(Surroundings of, Dome dome, Vec3 toSun, Vec3 sunLux, double sunRadius) {
    /** Width of the table that the clear sky is kept in. */
    private static final int SKY_WIDTH = 320;
    /** Light of the full moon in that of the sun: 12.7 and 26.7 magnitudes (from memory), 14 apart. */
    private static final double MOON = Math.pow(10, -0.4 * 14.0);
    private static final LastMade<Surroundings, Surround> SKIES = new LastMade<>(4);
    private static final LastMade<Air, Atmosphere> AIRS = new LastMade<>(4);

    private record Air(double haze, double albedo) {}

    /** Tabulates what is around, or gives the tables that were made last time: skies take longer than small scenes. */
    public static Surround of(Surroundings s) {
        return switch (s) {
            case Surroundings.SunSky k -> SKIES.of(k, () -> sunSky(k));
            case Surroundings.General g -> SKIES.of(g, () -> general(g));
            case Surroundings.Hdri h -> hdri(h);
            case Surroundings.Plain p -> {
                float[] c = {(float) p.luminance().x(), (float) p.luminance().y(), (float) p.luminance().z()};
                float[] rgb = new float[3 * 8 * 4];
                for (int i = 0; i < rgb.length; i++) rgb[i] = c[i % 3];
                yield new Surround(s, new Dome(new Panorama("plain", 8, 4, rgb), 1, 0), null, Vec3.ZERO, 0);
            }
        };
    }

    /** The sun is that of clear air of the same haze; what shines on the land is the sky's and the sun's light together. */
    private static Surround general(Surroundings.General g) {
        Atmosphere air = air(g.haze(), g.groundAlbedo());
        GeneralSky sky = new GeneralSky(g.type(), g.toSun());
        double up = Math.max(0, g.toSun().z()), half = Math.toRadians(g.sunDegrees() / 2);
        Vec3 sun = GeneralSky.hidesSun(g.type()) ? Vec3.ZERO : air.sunIlluminance(Math.asin(Math.clamp(g.toSun().z(), -1, 1)))
                .times(Math.pow(2, g.sunStops()));
        double level = Math.pow(2, g.skyStops());
        Vec3 land = sky.colour().times(sky.horizontalLux()).plus(sun.times(up / level)).times(g.groundAlbedo() / Math.PI);
        return new Surround(g, new Dome(sky.image(4 * SKY_WIDTH, land), level, 0), g.toSun(), sun, half);
    }

    private static Atmosphere air(double haze, double albedo) {
        return AIRS.of(new Air(haze, albedo), () -> new Atmosphere(haze, albedo));
    }

    private static Surround hdri(Surroundings.Hdri h) {
        Dome dome = new Dome(h.panorama(), h.factor(), h.rotation(), h.tilt(), h.roll());
        if (h.sun() == null) return new Surround(h, dome, null, Vec3.ZERO, 0);
        return new Surround(h, dome, dome.toWorld(h.sun().towards()), h.sun().lux().times(h.factor()),
                Math.toRadians(h.sun().degrees() / 2));
    }

    /** Night by a full moon: what the sun leaves of the sky, and the air lit by the moon as it is by the sun, so much weaker. */
    private static Surround moonlit(Surroundings.SunSky k, Atmosphere air) {
        Vec3 moon = k.toSun().times(-1);
        float[] sky = SkyImage.clear(air, k.toSun(), SKY_WIDTH).copy(), lit = SkyImage.clear(air, moon, SKY_WIDTH).copy();
        for (int i = 0; i < sky.length; i++) sky[i] += (float) (MOON * lit[i]);
        Vec3 lux = air.sunIlluminance(Math.asin(Math.clamp(moon.z(), -1, 1))).times(MOON * Math.pow(2, k.sunStops()));
        return new Surround(k, new Dome(new Panorama("moonlit sky", SKY_WIDTH, SKY_WIDTH / 2, sky), Math.pow(2, k.skyStops()), 0), moon,
                lux, Math.toRadians(k.sunDegrees() / 2));
    }

    private static Surround sunSky(Surroundings.SunSky k) {
        Atmosphere air = air(k.haze(), k.groundAlbedo());
        if (k.moon() && k.toSun().z() < 0) return moonlit(k, air);
        Panorama sky = SkyImage.clear(air, k.toSun(), SKY_WIDTH);
        Vec3 lux = air.sunIlluminance(Math.asin(Math.clamp(k.toSun().z(), -1, 1))).times(Math.pow(2, k.sunStops()));
        return new Surround(k, new Dome(sky, Math.pow(2, k.skyStops()), 0), k.toSun(), lux, Math.toRadians(k.sunDegrees() / 2));
    }
}
