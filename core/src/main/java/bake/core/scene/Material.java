package bake.core.scene;

import bake.core.math.Vec3;

/**
 * What a surface does with light, in the terms of the glTF 2.0 metallic-roughness model and its extensions.
 *
 * @param base base colour, linear Rec. 709, each 0 to 1
 * @param alpha coverage, 0 to 1; read according to {@code alphaMode}
 * @param cutoff coverage below which a {@code MASK} surface is not there
 * @param metallic 0 to 1
 * @param roughness perceptual roughness 0 to 1; the GGX width is its square
 * @param ior index of refraction of the dielectric part, 1 to 3
 * @param transmission share of the dielectric body that is clear, 0 to 1
 * @param thin true for a sheet (a window pane), false for the boundary of a solid
 * @param translucency share of the diffuse light that goes through (curtains, leaves), 0 to 1
 * @param emission luminance by colour, cd/m2
 * @param normalScale strength of the normal map
 * @param layers coat, sheen and the like
 * @param relief form finer than the triangles
 * @param thrift what is given up for time
 * @param catcher whether the camera sees nothing of the surface but the shadow and the bounce on what lies behind it
 */
public record Material(
        String name, Vec3 base, Image baseImage, double alpha, AlphaMode alphaMode, double cutoff,
        double metallic, double roughness, Image roughnessImage, Image normalImage, double normalScale,
        double ior, double transmission, boolean thin, double translucency,
        Vec3 emission, Image emissionImage, Layers layers, Relief relief, Thrift thrift, boolean catcher) {

    /** A material without layers, relief and thrift. */
    public Material(
            String name, Vec3 base, Image baseImage, double alpha, AlphaMode alphaMode, double cutoff,
            double metallic, double roughness, Image roughnessImage, Image normalImage, double normalScale,
            double ior, double transmission, boolean thin, double translucency,
            Vec3 emission, Image emissionImage) {
        this(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, normalImage, normalScale, ior,
                transmission, thin,
                translucency, emission, emissionImage, Layers.NONE, Relief.NONE, Thrift.NONE, false);
    }

    /** How {@code alpha} is read, as in glTF 2.0. */
    public enum AlphaMode { OPAQUE, MASK, BLEND }

    /**
     * A texture as a material uses it.
     *
     * @param texture index into the scene's textures
     * @param scaleU repeats per unit of texture coordinate
     */
    public record Image(int texture, double scaleU, double scaleV, double offsetU, double offsetV, double rotation) {
        public Image(int texture) {
            this(texture, 1, 1, 0, 0, 0);
        }

        public Image withTexture(int t) {
            return new Image(t, scaleU, scaleV, offsetU, offsetV, rotation);
        }
    }

    /** A matt surface of the given reflectance and no gloss at all. */
    public static Material diffuse(String name, Vec3 base) {
        return new Material(name, base, null, 1, AlphaMode.OPAQUE, 0.5, 0, 1, null, null, 1, 1, 0, false, 0, Vec3.ZERO, null);
    }

    /** Painted, wooden or mineral: diffuse under a dielectric gloss of index 1.5. */
    public static Material glossy(String name, Vec3 base, double roughness) {
        return new Material(name, base, null, 1, AlphaMode.OPAQUE, 0.5, 0, roughness, null, null, 1, 1.5, 0, false, 0,
                Vec3.ZERO, null);
    }

    public static Material metal(String name, Vec3 f0, double roughness) {
        return new Material(name, f0, null, 1, AlphaMode.OPAQUE, 0.5, 1, roughness, null, null, 1, 1.5, 0, false, 0,
                Vec3.ZERO, null);
    }

    /** Clear glass; {@code thin} for a pane modelled as one sheet. */
    public static Material glass(String name, Vec3 tint, double roughness, double ior, boolean thin) {
        return new Material(name, tint, null, 1, AlphaMode.OPAQUE, 0.5, 0, roughness, null, null, 1, ior, 1, thin, 0,
                Vec3.ZERO, null);
    }

    public static Material glowing(String name, Vec3 emission) {
        return diffuse(name, new Vec3(0.2, 0.2, 0.2)).withEmission(emission);
    }

    public Material withEmission(Vec3 e) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage,
                normalImage, normalScale, ior, transmission, thin, translucency, e, emissionImage, layers, relief, thrift, catcher);
    }

    public Material withTranslucency(double t) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage,
                normalImage, normalScale, ior, transmission, thin, t, emission, emissionImage, layers, relief, thrift, catcher);
    }

    public Material withBaseImage(Image i) {
        return new Material(name, base, i, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, normalImage,
                normalScale, ior, transmission, thin, translucency, emission, emissionImage, layers, relief, thrift, catcher);
    }

    public Material withNormalImage(Image i, double scale) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, i,
                scale, ior, transmission, thin, translucency, emission, emissionImage, layers, relief, thrift, catcher);
    }

    public Material withAlpha(double a, AlphaMode mode, double cut) {
        return new Material(name, base, baseImage, a, mode, cut, metallic, roughness, roughnessImage, normalImage,
                normalScale, ior, transmission, thin, translucency, emission, emissionImage, layers, relief, thrift, catcher);
    }

    public Material withLayers(Layers l) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, normalImage, normalScale,
                ior, transmission,
                thin, translucency, emission, emissionImage, l, relief, thrift, catcher);
    }

    public Material withRelief(Relief r) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, normalImage, normalScale,
                ior, transmission,
                thin, translucency, emission, emissionImage, layers, r, thrift, catcher);
    }

    public Material withThrift(Thrift t) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, normalImage, normalScale,
                ior, transmission,
                thin, translucency, emission, emissionImage, layers, relief, t, catcher);
    }

    /** This material with its texture numbers moved on by {@code by}, for joining scenes. */
    public Material shiftTextures(int by) {
        return new Material(name, base, shift(baseImage, by), alpha, alphaMode, cutoff, metallic, roughness,
                shift(roughnessImage, by), shift(normalImage, by), normalScale, ior, transmission, thin, translucency,
                emission, shift(emissionImage, by), layers.shift(by), relief.shift(by), thrift, catcher);
    }

    public Material withCatcher(boolean c) {
        return new Material(name, base, baseImage, alpha, alphaMode, cutoff, metallic, roughness, roughnessImage, normalImage, normalScale,
                ior, transmission,
                thin, translucency, emission, emissionImage, layers, relief, thrift, c);
    }

    static Image shift(Image i, int by) {
        return i == null ? null : i.withTexture(i.texture() + by);
    }

    public boolean glows() {
        return emission.luminance() > 0;
    }
}
