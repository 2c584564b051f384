package bake.core.scene;

/**
 * An equirectangular picture of the surroundings. The top row is the zenith, the middle column looks along +y.
 *
 * @param rgb linear Rec. 709 luminance by colour, cd/m2, length 3 width height, finite and not negative
 */
public record Panorama(String name, int width, int height, float[] rgb) {
    public Panorama {
        if (width < 1 || height < 1 || rgb.length != 3L * width * height)
            throw new IllegalArgumentException("panorama " + name + ": size and data do not agree");
    }
}
