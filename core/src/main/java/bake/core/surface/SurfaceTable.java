package bake.core.surface;

import bake.core.geometry.Blas;
import bake.core.geometry.Ray;
import bake.core.geometry.TriangleFilter;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Texture;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** All materials and textures as flat arrays; also answers what cut-outs and panes do to a ray. */
public final class SurfaceTable implements TriangleFilter {
    static final int BASE = 0, ALPHA = 3, CUTOFF = 4, METALLIC = 5, ROUGHNESS = 6, NORMAL_SCALE = 7, IOR = 8,
            TRANSMISSION = 9, TRANSLUCENCY = 10, EMISSION = 11, SPECULAR = 14, SPECULAR_COLOUR = 15, COAT = 18, COAT_ROUGHNESS = 19,
            SHEEN = 20,
            SHEEN_ROUGHNESS = 23, ANISOTROPY = 24, ANISOTROPY_TURN = 25, ABSORB = 26, HEIGHT = 29, ROUND = 30, REACH = 31, WEIGHT = 32,
            STRIDE = 33;
    static final int BASE_IMAGE = 0, ROUGHNESS_IMAGE = 1, NORMAL_IMAGE = 2, EMISSION_IMAGE = 3, SPECULAR_IMAGE = 4,
            SPECULAR_COLOUR_IMAGE = 5,
            COAT_IMAGE = 6, COAT_ROUGHNESS_IMAGE = 7, SHEEN_IMAGE = 8, SHEEN_ROUGHNESS_IMAGE = 9, ANISOTROPY_IMAGE = 10,
            TRANSMISSION_IMAGE = 11,
            HEIGHT_IMAGE = 12, IMAGES = 13;

    /** Spread of a lookup that is not filtered. */
    private static final float SHARP = -100;

    final float[] values;
    final TextureLookup[] images;
    private final byte[] flags;
    /** Which materials have a coat, sheen or the like. */
    final boolean[] layered;
    /** Which materials have any picture, so that a ray's footprint on them matters. */
    final boolean[] pictured;
    private final boolean[] pane, mask, murky, catcher;
    private final Pyramid[] pyramids;

    public SurfaceTable(List<Material> materials, List<Texture> textures) {
        this(materials, textures, null);
    }

    /** @param before a table whose texture levels are taken over where the texture is the same, or null */
    public SurfaceTable(List<Material> materials, List<Texture> textures, SurfaceTable before) {
        pyramids = pyramids(textures, before);
        int n = materials.size();
        values = new float[STRIDE * n];
        images = new TextureLookup[IMAGES * n];
        flags = new byte[n];
        pane = new boolean[n];
        mask = new boolean[n];
        layered = new boolean[n];
        pictured = new boolean[n];
        murky = new boolean[n];
        catcher = new boolean[n];
        for (int i = 0; i < n; i++) fill(i, materials.get(i));
    }

    private static Pyramid[] pyramids(List<Texture> textures, SurfaceTable before) {
        Map<Texture, Pyramid> old = new IdentityHashMap<>();
        if (before != null) for (Pyramid p : before.pyramids) old.put(p.of, p);
        return textures.parallelStream().map(t -> old.containsKey(t) ? old.get(t) : new Pyramid(t)).toArray(Pyramid[]::new);
    }

    /** Makes the tables that all surfaces share, so that the first ray need not. */
    public static void prepare() {
        Ggx.essMean(0.5f);
    }

    /** A texture of half the size, its texels the means of four in linear light. */
    public static Texture halved(Texture t) {
        return Pyramid.halved(t);
    }

    private void fill(int i, Material m) {
        float[] v = values;
        int o = STRIDE * i;
        v[o + BASE] = clamp01(m.base().x());
        v[o + BASE + 1] = clamp01(m.base().y());
        v[o + BASE + 2] = clamp01(m.base().z());
        v[o + ALPHA] = clamp01(m.alpha());
        v[o + CUTOFF] = (float) m.cutoff();
        v[o + METALLIC] = clamp01(m.metallic());
        v[o + ROUGHNESS] = clamp01(m.roughness());
        v[o + NORMAL_SCALE] = (float) m.normalScale();
        v[o + IOR] = (float) Math.clamp(m.ior(), 1, 3);
        v[o + TRANSMISSION] = clamp01(m.transmission());
        v[o + TRANSLUCENCY] = clamp01(m.translucency());
        v[o + EMISSION] = (float) Math.max(0, m.emission().x());
        v[o + EMISSION + 1] = (float) Math.max(0, m.emission().y());
        v[o + EMISSION + 2] = (float) Math.max(0, m.emission().z());
        Layers l = m.layers();
        v[o + SPECULAR] = clamp01(l.specular());
        v[o + SPECULAR_COLOUR] = (float) Math.max(0, l.specularColour().x());
        v[o + SPECULAR_COLOUR + 1] = (float) Math.max(0, l.specularColour().y());
        v[o + SPECULAR_COLOUR + 2] = (float) Math.max(0, l.specularColour().z());
        v[o + COAT] = clamp01(l.coat());
        v[o + COAT_ROUGHNESS] = clamp01(l.coatRoughness());
        v[o + SHEEN] = clamp01(l.sheen().x());
        v[o + SHEEN + 1] = clamp01(l.sheen().y());
        v[o + SHEEN + 2] = clamp01(l.sheen().z());
        v[o + SHEEN_ROUGHNESS] = clamp01(l.sheenRoughness());
        v[o + ANISOTROPY] = clamp01(l.anisotropy());
        v[o + ANISOTROPY_TURN] = (float) l.anisotropyTurn();
        v[o + ABSORB] = absorption(l.attenuationColour().x(), l.attenuationDistance());
        v[o + ABSORB + 1] = absorption(l.attenuationColour().y(), l.attenuationDistance());
        v[o + ABSORB + 2] = absorption(l.attenuationColour().z(), l.attenuationDistance());
        v[o + HEIGHT] = (float) m.relief().heightMetres();
        v[o + ROUND] = (float) Math.max(0, m.relief().round());
        v[o + REACH] = (float) Math.max(0, m.thrift().reach());
        v[o + WEIGHT] = (float) Math.clamp(m.thrift().weight(), 0.01, 1);
        layered[i] = !l.withAttenuation(Layers.NONE.attenuationColour(), Double.POSITIVE_INFINITY).equals(Layers.NONE);
        murky[i] = v[o + ABSORB] + v[o + ABSORB + 1] + v[o + ABSORB + 2] > 0 && m.transmission() > 0 && !m.thin();
        Layers.Images x = l.images();
        Material.Image[] all = {m.baseImage(), m.roughnessImage(), m.normalImage(), m.emissionImage(), x.specular(), x.specularColour(),
                x.coat(), x.coatRoughness(),
                x.sheen(), x.sheenRoughness(), x.anisotropy(), x.transmission(), m.relief().height()};
        for (int k = 0; k < IMAGES; k++) {
            images[IMAGES * i + k] = TextureLookup.of(all[k], pyramids, m.relief().scatter());
            pictured[i] |= images[IMAGES * i + k] != null;
        }
        pane[i] = m.thin() && m.transmission() > 0;
        catcher[i] = m.catcher();
        mask[i] = m.alphaMode() == Material.AlphaMode.MASK;
        boolean soft = m.alphaMode() == Material.AlphaMode.BLEND && (m.alpha() < 1 || m.baseImage() != null);
        flags[i] = (byte) ((mask[i] ? CUT_OUT : 0) | (pane[i] || soft ? PANE : 0));
    }

    /** Beer's law: absorption per metre of what leaves {@code colour} of the light after {@code distance}. */
    private static float absorption(double colour, double distance) {
        return distance > 0 && distance < Double.POSITIVE_INFINITY ? (float) (-Math.log(Math.clamp(colour, 1e-6, 1)) / distance) : 0;
    }

    /** Whether the camera sees only shadow and bounce of the material. */
    public boolean catches(int material) {
        return catcher[material];
    }

    /** Whether light is absorbed on its way inside the material. */
    public boolean absorbs(int material) {
        return murky[material];
    }

    /** Share of light of colour {@code c} left after a way inside the material, metres. */
    public float transmittance(int material, int c, float way) {
        return (float) Math.exp(-values[STRIDE * material + ABSORB + c] * way);
    }

    /** Distance that reflections in the material see things at, metres. */
    public float reach(int material) {
        return values[STRIDE * material + REACH];
    }

    /** Share of the paths that go on from the material. */
    public float weight(int material) {
        return values[STRIDE * material + WEIGHT];
    }

    /** Radius that the material's hard edges look rounded with, metres; 0 for sharp. */
    public float round(int material) {
        return values[STRIDE * material + ROUND];
    }

    private static float clamp01(double x) {
        return (float) Math.clamp(x, 0, 1);
    }

    @Override
    public byte[] flags() {
        return flags;
    }

    /** Whether the material is a thin sheet that light passes straight through. */
    public boolean isPane(int material) {
        return pane[material];
    }

    /** Whether the surface may be partly absent at a point (soft coverage). */
    public boolean isSoft(int material) {
        return (flags[material] & PANE) != 0 && !pane[material];
    }

    @Override
    public boolean present(Blas b, int prim, float u, float v) {
        int m = b.materials()[prim];
        return coverage(b, m, prim, u, v) >= values[STRIDE * m + CUTOFF];
    }

    @Override
    public boolean pass(Blas b, int prim, float u, float v, float cosine, Ray ray) {
        int m = b.materials()[prim], o = STRIDE * m;
        if ((flags[m] & PANE) == 0) return false;
        if (!pane[m]) {
            float clear = 1 - coverage(b, m, prim, u, v);
            ray.tr *= clear;
            ray.tg *= clear;
            ray.tb *= clear;
            ray.chance *= clear;
            return clear > 0;
        }
        float through = Fresnel.paneTransmittance(Math.max(cosine, 1e-4f), values[o + IOR]),
                t = values[o + TRANSMISSION] * (1 - values[o + METALLIC]) * through;
        float r = t * values[o + BASE], g = t * values[o + BASE + 1], bl = t * values[o + BASE + 2];
        TextureLookup image = images[IMAGES * m + BASE_IMAGE];
        if (image != null) {
            // The same tint that a path going through sees.
            int[] vx = b.vertices();
            float[] uv = b.uvs(), texel = ray.texel;
            int i = 2 * vx[3 * prim], j = 2 * vx[3 * prim + 1], k = 2 * vx[3 * prim + 2];
            float w = 1 - u - v;
            image.colour(w * uv[i] + u * uv[j] + v * uv[k], w * uv[i + 1] + u * uv[j + 1] + v * uv[k + 1], SHARP, texel);
            r *= texel[0];
            g *= texel[1];
            bl *= texel[2];
        }
        float[] colours = b.colours();
        if (colours.length > 0) {
            int[] vx = b.vertices();
            int i = 3 * vx[3 * prim], j = 3 * vx[3 * prim + 1], k = 3 * vx[3 * prim + 2];
            float w = 1 - u - v;
            r *= w * colours[i] + u * colours[j] + v * colours[k];
            g *= w * colours[i + 1] + u * colours[j + 1] + v * colours[k + 1];
            bl *= w * colours[i + 2] + u * colours[j + 2] + v * colours[k + 2];
        }
        ray.tr *= r;
        ray.tg *= g;
        ray.tb *= bl;
        ray.chance *= chance(r, g, bl, 1 - through);
        return ray.tr + ray.tg + ray.tb > 1e-6f;
    }

    /** Chance with which a path goes straight through a pane that lets a colour through and mirrors a share. */
    public static float chance(float r, float g, float b, float mirror) {
        float lum = 0.2126f * r + 0.7152f * g + 0.0722f * b;
        return lum > 0 ? lum / (lum + mirror) : 0;
    }

    /** Coverage of a material at a hit, 0 to 1. */
    public float coverage(Blas b, int m, int prim, float u, float v) {
        TextureLookup t = images[IMAGES * m + BASE_IMAGE];
        float a = values[STRIDE * m + ALPHA];
        if (t == null) return a;
        int[] vx = b.vertices();
        float[] uv = b.uvs();
        int i = 2 * vx[3 * prim], j = 2 * vx[3 * prim + 1], k = 2 * vx[3 * prim + 2];
        float w = 1 - u - v;
        return a * t.alpha(w * uv[i] + u * uv[j] + v * uv[k], w * uv[i + 1] + u * uv[j + 1] + v * uv[k + 1]);
    }

    /** Share of the light of a glowing triangle that is there at a place: less than one where it is cut out or thin. */
    public float share(Blas b, int prim, float u, float v) {
        int m = b.materials()[prim];
        if (mask[m]) return present(b, prim, u, v) ? 1 : 0;
        return isSoft(m) ? coverage(b, m, prim, u, v) : 1;
    }

    /** Whether the material gives off light. */
    public boolean glows(int m) {
        return peakEmission(m) > 0;
    }

    /** Luminance of the material without its texture, cd/m2. */
    public float peakEmission(int m) {
        int o = STRIDE * m + EMISSION;
        return 0.2126f * values[o] + 0.7152f * values[o + 1] + 0.0722f * values[o + 2];
    }

    /** Luminance by colour given off at barycentric (u, v) of a triangle, cd/m2, into {@code out}. */
    public void emission(Blas b, int prim, float u, float v, float[] out) {
        int m = b.materials()[prim], o = STRIDE * m + EMISSION;
        TextureLookup t = images[IMAGES * m + EMISSION_IMAGE];
        if (t == null) {
            out[0] = values[o];
            out[1] = values[o + 1];
            out[2] = values[o + 2];
            return;
        }
        int[] vx = b.vertices();
        float[] uv = b.uvs();
        int i = 2 * vx[3 * prim], j = 2 * vx[3 * prim + 1], k = 2 * vx[3 * prim + 2];
        float w = 1 - u - v;
        t.colour(w * uv[i] + u * uv[j] + v * uv[k], w * uv[i + 1] + u * uv[j + 1] + v * uv[k + 1], SHARP, out);
        for (int c = 0; c < 3; c++) out[c] *= values[o + c];
    }
}
