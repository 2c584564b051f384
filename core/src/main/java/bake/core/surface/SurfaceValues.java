package bake.core.surface;

/** Reads a material's values and pictures at a place of a surface into its {@link SurfacePoint}. */
final class SurfaceValues {
    private SurfaceValues() {}

    /**
     * @param s texture coordinate u, {@code t} v
     * @param spread as in {@link TextureLookup#colour}
     */
    static void read(SurfacePoint p, SurfaceTable table, float s, float t, float spread) {
        float[] m = table.values, texel = p.texel;
        int o = SurfaceTable.STRIDE * p.material, im = SurfaceTable.IMAGES * p.material;
        p.baseR = m[o];
        p.baseG = m[o + 1];
        p.baseB = m[o + 2];
        TextureLookup image = table.images[im + SurfaceTable.BASE_IMAGE];
        if (image != null) {
            image.colour(s, t, spread, texel);
            p.baseR *= texel[0];
            p.baseG *= texel[1];
            p.baseB *= texel[2];
        }
        p.metallic = m[o + SurfaceTable.METALLIC];
        float roughness = m[o + SurfaceTable.ROUGHNESS];
        image = table.images[im + SurfaceTable.ROUGHNESS_IMAGE];
        if (image != null) {
            image.colour(s, t, spread, texel); // glTF: green is roughness, blue is metalness
            roughness *= texel[1];
            p.metallic *= texel[2];
        }
        p.alpha = p.alphaX = p.alphaY = Math.max(Ggx.MIN_ALPHA, roughness * roughness);
        p.ior = m[o + SurfaceTable.IOR];
        p.transmission = m[o + SurfaceTable.TRANSMISSION] * (1 - p.metallic);
        p.translucency = m[o + SurfaceTable.TRANSLUCENCY];
        p.emitR = m[o + SurfaceTable.EMISSION];
        p.emitG = m[o + SurfaceTable.EMISSION + 1];
        p.emitB = m[o + SurfaceTable.EMISSION + 2];
        image = table.images[im + SurfaceTable.EMISSION_IMAGE];
        if (image != null && p.emitR + p.emitG + p.emitB > 0) {
            image.colour(s, t, spread, texel);
            p.emitR *= texel[0];
            p.emitG *= texel[1];
            p.emitB *= texel[2];
        }
        p.layered = table.layered[p.material];
        if (p.layered) layers(p, table, s, t, spread);
    }

    private static float scaled(SurfaceTable table, int image, int channel, float value, SurfacePoint p, float s, float t, float spread) {
        TextureLookup i = table.images[SurfaceTable.IMAGES * p.material + image];
        if (i == null || value == 0) return value;
        i.colour(s, t, spread, p.texel);
        return value * p.texel[channel];
    }

    private static void layers(SurfacePoint p, SurfaceTable table, float s, float t, float spread) {
        float[] m = table.values;
        int o = SurfaceTable.STRIDE * p.material, im = SurfaceTable.IMAGES * p.material;
        p.specular = scaled(table, SurfaceTable.SPECULAR_IMAGE, 3, m[o + SurfaceTable.SPECULAR], p, s, t, spread);
        p.specR = m[o + SurfaceTable.SPECULAR_COLOUR];
        p.specG = m[o + SurfaceTable.SPECULAR_COLOUR + 1];
        p.specB = m[o + SurfaceTable.SPECULAR_COLOUR + 2];
        TextureLookup image = table.images[im + SurfaceTable.SPECULAR_COLOUR_IMAGE];
        if (image != null) {
            image.colour(s, t, spread, p.texel);
            p.specR *= p.texel[0];
            p.specG *= p.texel[1];
            p.specB *= p.texel[2];
        }
        p.transmission = scaled(table, SurfaceTable.TRANSMISSION_IMAGE, 0, p.transmission, p, s, t, spread);
        p.coat = scaled(table, SurfaceTable.COAT_IMAGE, 0, m[o + SurfaceTable.COAT], p, s, t, spread);
        float r = scaled(table, SurfaceTable.COAT_ROUGHNESS_IMAGE, 1, m[o + SurfaceTable.COAT_ROUGHNESS], p, s, t, spread);
        p.coatAlpha = Math.max(Ggx.MIN_ALPHA, r * r);
        p.sheenR = m[o + SurfaceTable.SHEEN];
        p.sheenG = m[o + SurfaceTable.SHEEN + 1];
        p.sheenB = m[o + SurfaceTable.SHEEN + 2];
        image = table.images[im + SurfaceTable.SHEEN_IMAGE];
        if (image != null) {
            image.colour(s, t, spread, p.texel);
            p.sheenR *= p.texel[0];
            p.sheenG *= p.texel[1];
            p.sheenB *= p.texel[2];
        }
        p.sheenRoughness = scaled(table, SurfaceTable.SHEEN_ROUGHNESS_IMAGE, 3, m[o + SurfaceTable.SHEEN_ROUGHNESS], p, s, t, spread);
        float strength = m[o + SurfaceTable.ANISOTROPY], turn = m[o + SurfaceTable.ANISOTROPY_TURN];
        image = table.images[im + SurfaceTable.ANISOTROPY_IMAGE];
        if (image != null && strength > 0) {
            image.colour(s, t, spread, p.texel);
            strength *= p.texel[2];
            turn += (float) Math.atan2(2 * p.texel[1] - 1, 2 * p.texel[0] - 1);
        }
        p.turn = turn;
        if (strength > 0) {
            // KHR_materials_anisotropy: the wider side grows to one, the other keeps the roughness.
            p.alphaX = p.alpha + (1 - p.alpha) * strength * strength;
            p.alpha = (float) Math.sqrt(p.alphaX * p.alphaY);
        }
    }
}
