package bake.core.scene;

import bake.core.math.Vec3;

/**
 * What lies on and in a surface besides its body and gloss, in the terms of the glTF 2.0 material extensions.
 *
 * @param specular strength of a dielectric's gloss, 0 to 1
 * @param specularColour its colour seen head on, each 0 or more
 * @param coat share of the surface under a clear coat of index 1.5, 0 to 1
 * @param coatRoughness perceptual roughness of the coat, 0 to 1
 * @param sheen colour of the fuzz on cloth, each 0 to 1; black for none
 * @param sheenRoughness 0 to 1
 * @param anisotropy how much wider the gloss is along the tangent, 0 to 1
 * @param anisotropyTurn radians from the tangent to the direction of the wider side, counter-clockwise
 * @param attenuationColour what white light becomes on its way through the attenuation distance in a solid, each above 0
 * @param attenuationDistance metres; infinite for perfectly clear
 * @param images pictures that scale the values above, or null for each: see the constants
 */
public record Layers(
        double specular, Vec3 specularColour, double coat, double coatRoughness, Vec3 sheen, double sheenRoughness, double anisotropy,
        double anisotropyTurn,
        Vec3 attenuationColour, double attenuationDistance, Images images) {
    public static final Layers NONE = new Layers(1, new Vec3(1, 1, 1), 0, 0, Vec3.ZERO, 0, 0, 0, new Vec3(1, 1, 1),
            Double.POSITIVE_INFINITY, Images.NONE);

    /**
     * Pictures, each null or in the channels that glTF names: {@code specular} alpha, {@code coat} red, {@code coatRoughness}
     * green, {@code sheenRoughness} alpha, {@code transmission} red, {@code anisotropy} direction in red and green and
     * strength in blue; the others colours.
     */
    public record Images(
            Material.Image specular, Material.Image specularColour, Material.Image coat, Material.Image coatRoughness, Material.Image sheen,
            Material.Image sheenRoughness, Material.Image anisotropy, Material.Image transmission) {
        public static final Images NONE = new Images(null, null, null, null, null, null, null, null);

        Images shift(int by) {
            if (this == NONE) return this;
            return new Images(Material.shift(specular, by), Material.shift(specularColour, by), Material.shift(coat, by),
                    Material.shift(coatRoughness, by),
                    Material.shift(sheen, by), Material.shift(sheenRoughness, by), Material.shift(anisotropy, by),
                    Material.shift(transmission, by));
        }
    }

    public Layers withSpecular(double s, Vec3 colour) {
        return new Layers(s, colour, coat, coatRoughness, sheen, sheenRoughness, anisotropy, anisotropyTurn, attenuationColour,
                attenuationDistance, images);
    }

    public Layers withCoat(double c, double roughness) {
        return new Layers(specular, specularColour, c, roughness, sheen, sheenRoughness, anisotropy, anisotropyTurn, attenuationColour,
                attenuationDistance, images);
    }

    public Layers withSheen(Vec3 colour, double roughness) {
        return new Layers(specular, specularColour, coat, coatRoughness, colour, roughness, anisotropy, anisotropyTurn, attenuationColour,
                attenuationDistance, images);
    }

    public Layers withAnisotropy(double strength, double turn) {
        return new Layers(specular, specularColour, coat, coatRoughness, sheen, sheenRoughness, strength, turn, attenuationColour,
                attenuationDistance, images);
    }

    public Layers withAttenuation(Vec3 colour, double distance) {
        return new Layers(specular, specularColour, coat, coatRoughness, sheen, sheenRoughness, anisotropy, anisotropyTurn, colour,
                distance, images);
    }

    public Layers withImages(Images i) {
        return new Layers(specular, specularColour, coat, coatRoughness, sheen, sheenRoughness, anisotropy, anisotropyTurn,
                attenuationColour, attenuationDistance, i);
    }

    Layers shift(int by) {
        return images == Images.NONE ? this : withImages(images.shift(by));
    }
}
