package bake.core.surface;

import bake.core.geometry.Blas;
import bake.core.geometry.Ray;
import bake.core.geometry.TriangleFilter;
import bake.core.scene.Material;
import bake.core.scene.Texture;
import java.util.List;

/** All materials and textures as flat arrays; also answers what cut-outs and panes do to a ray. */
public final class SurfaceTable implements TriangleFilter {
    static final int BASE = 0, ALPHA = 3, CUTOFF = 4, METALLIC = 5, ROUGHNESS = 6, NORMAL_SCALE = 7, IOR = 8,
            TRANSMISSION = 9, TRANSLUCENCY = 10, EMISSION = 11, STRIDE = 14;
    static final int BASE_IMAGE = 0, ROUGHNESS_IMAGE = 1, NORMAL_IMAGE = 2, EMISSION_IMAGE = 3, IMAGES = 4;

    final float[] values;
    final TextureLookup[] images;
    private final byte[] flags;
    private final boolean[] pane, mask;

    public SurfaceTable(List<Material> materials, List<Texture> textures) {
        int n = materials.size();
        values = new float[STRIDE * n];
        images = new TextureLookup[IMAGES * n];
        flags = new byte[n];
        pane = new boolean[n];
        mask = new boolean[n];
        for (int i = 0; i < n; i++) fill(i, materials.get(i), textures);
    }

    /** Makes the tables that all surfaces share, so that the first ray need not. */
    public static void prepare() {
        Ggx.essMean(0.5f);
    }

    private void fill(int i, Material m, List<Texture> textures) {
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
        images[IMAGES * i + BASE_IMAGE] = TextureLookup.of(m.baseImage(), textures);
        images[IMAGES * i + ROUGHNESS_IMAGE] = TextureLookup.of(m.roughnessImage(), textures);
        images[IMAGES * i + NORMAL_IMAGE] = TextureLookup.of(m.normalImage(), textures);
        images[IMAGES * i + EMISSION_IMAGE] = TextureLookup.of(m.emissionImage(), textures);
        pane[i] = m.thin() && m.transmission() > 0;
        mask[i] = m.alphaMode() == Material.AlphaMode.MASK;
        boolean soft = m.alphaMode() == Material.AlphaMode.BLEND && (m.alpha() < 1 || m.baseImage() != null);
        flags[i] = (byte) ((mask[i] ? CUT_OUT : 0) | (pane[i] || soft ? PANE : 0));
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
            return clear > 0;
        }
        float t = values[o + TRANSMISSION] * (1 - values[o + METALLIC]) * Fresnel.paneTransmittance(Math.max(cosine, 1e-4f), values[o + IOR]);
        float r = t * values[o + BASE], g = t * values[o + BASE + 1], bl = t * values[o + BASE + 2];
        TextureLookup image = images[IMAGES * m + BASE_IMAGE];
        if (image != null) {
            // The same tint that a path going through sees.
            int[] vx = b.vertices();
            float[] uv = b.uvs(), texel = ray.texel;
            int i = 2 * vx[3 * prim], j = 2 * vx[3 * prim + 1], k = 2 * vx[3 * prim + 2];
            float w = 1 - u - v;
            image.colour(w * uv[i] + u * uv[j] + v * uv[k], w * uv[i + 1] + u * uv[j + 1] + v * uv[k + 1], texel);
            r *= texel[0];
            g *= texel[1];
            bl *= texel[2];
        }
        ray.tr *= r;
        ray.tg *= g;
        ray.tb *= bl;
        return ray.tr + ray.tg + ray.tb > 1e-6f;
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
        t.colour(w * uv[i] + u * uv[j] + v * uv[k], w * uv[i + 1] + u * uv[j + 1] + v * uv[k + 1], out);
        for (int c = 0; c < 3; c++) out[c] *= values[o + c];
    }
}
