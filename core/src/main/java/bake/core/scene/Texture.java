package bake.core.scene;

/**
 * An 8 bit picture wrapped around surfaces.
 *
 * @param rgba red, green, blue, alpha bytes, row by row from the top, length 4 width height
 * @param srgb true when the colour bytes carry the sRGB transfer curve, false for data (normals, roughness)
 */
public record Texture(String name, int width, int height, byte[] rgba, boolean srgb) {
    public Texture {
        if (width < 1 || height < 1 || rgba.length != 4 * width * height)
            throw new IllegalArgumentException("texture " + name + ": size and data do not agree");
    }
}
