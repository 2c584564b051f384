package bake.core.surface;

/**
 * What lies over a layered surface: fuzz ({@link Sheen}) and over that a clear coat of index 1.5, each of which leaves to what lies below
 * what it does not reflect itself. One for each {@link Scatter}.
 */
final class CoatAndFuzz {
    /** Reflectance of a coat head on. */
    private static final float F0 = 0.04f;

    private SurfacePoint s;
    /** Chance with which the coat is sampled; mean of what it reflects of light from all directions. */
    float chance, mean;
    /** What the coat, and what the fuzz leaves of light that comes out towards the view; strength of the fuzz, 0 for none. */
    float coatLeaves, fuzzLeaves, fuzz;
    private float row;

    /** Prepares for a layered point that is seen at a cosine. */
    void begin(SurfacePoint p, float cos) {
        s = p;
        coatLeaves = fuzzLeaves = 1;
        chance = 0;
        if (p.coat > 0) {
            row = Ggx.row(p.coatAlpha);
            coatLeaves = coatLeaves(cos);
            mean = p.coat * (F0 * Ggx.essMean(p.coatAlpha) + (1 - F0) * Scatter.meanB(p.coatAlpha));
            chance = Math.clamp(2 * (1 - coatLeaves), 0.15f, 0.5f);
        }
        fuzz = Math.max(p.sheenR, Math.max(p.sheenG, p.sheenB));
        if (fuzz > 0) fuzzLeaves = fuzzLeaves(cos);
    }

    /** What the coat lets through on one way. */
    private float coatLeaves(float cos) {
        return 1 - s.coat * Ggx.blend(cos, row, F0, 1 - F0);
    }

    private float fuzzLeaves(float cos) {
        return 1 - fuzz * Sheen.albedo(cos, s.sheenRoughness);
    }

    /** What both leave of light that comes out towards the view. */
    float leaves() {
        return coatLeaves * fuzzLeaves;
    }

    /** What both leave of light that goes in one way and comes out at the given cosine. */
    float leaves(float cos) {
        float k = s.coat > 0 ? coatLeaves * coatLeaves(cos) : 1;
        return fuzz > 0 ? k * Math.min(fuzzLeaves, fuzzLeaves(cos)) : k;
    }

    /** What a coat without width mirrors. */
    float reflected(float cos) {
        return s.coat * (F0 + (1 - F0) * Ggx.pow5(1 - cos));
    }

    /** Lays both over what was found for the rest, for light from a direction in the frame of the normal. */
    void lay(Scatter to, float ix, float iy, float iz) {
        float across = Math.abs(iz), under = 1;
        if (fuzz > 0) under = Math.min(fuzzLeaves, fuzzLeaves(across));
        float hx = to.ox + ix, hy = to.oy + iy, hz = to.oz + iz, l = 1 / (float) Math.sqrt(Math.max(1e-20f, hx * hx + hy * hy + hz * hz));
        float add = fuzz > 0 && iz > 0 ? Sheen.value(hz * l, to.oz, iz, s.sheenRoughness) * iz * (1 - to.pClear) : 0;
        to.r = to.r * under + add * s.sheenR;
        to.g = to.g * under + add * s.sheenG;
        to.b = to.b * under + add * s.sheenB;
        if (s.coat == 0) return;
        float k = coatLeaves * coatLeaves(across);
        to.r *= k;
        to.g *= k;
        to.b *= k;
        to.pdf *= 1 - chance;
        if (iz <= 0 || s.coatAlpha <= Scatter.SMOOTH) return;
        float vh = (to.ox * hx + to.oy * hy + to.oz * hz) * l, d = Ggx.d(hz * l, s.coatAlpha);
        float c = s.coat * d * Ggx.g2(to.oz, iz, s.coatAlpha) / (4 * to.oz) * (F0 + (1 - F0) * Ggx.pow5(1 - vh));
        to.r += c;
        to.g += c;
        to.b += c;
        to.pdf += chance * d * Ggx.g1(to.oz, s.coatAlpha) / (4 * to.oz);
    }
}
