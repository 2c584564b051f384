package bake.core.surface;

/**
 * How a {@link SurfacePoint} scatters light. One layered surface:
 *
 * <ul>
 *   <li>a GGX gloss (Schlick's Fresnel), which for metals is the whole surface,
 *   <li>below it a matt body that gets exactly what the gloss leaves over: base (1-E(o)) (1-E(i)) / (pi (1-Ebar)),
 *       reciprocal and energy keeping (Kelemen and Szirmay-Kalos 2001); a share of it may go through (translucency),
 *   <li>for rough metals the light that bounces between facets (Kulla and Conty 2017, the same form),
 *   <li>or the rough boundary of clear glass (Walter et al. 2007, {@link RoughGlass}),
 *   <li>over all of it fuzz and a clear coat ({@link CoatAndFuzz}).
 * </ul>
 *
 * <p>One instance per thread: {@link #begin} with the viewing direction, then {@link #eval} and {@link #sample}.
 * Directions are world space and point away from the surface. Colours include the cosine at the light's side.
 */
public final class Scatter {
    private static final float INV_PI = (float) (1 / Math.PI);
    /** Below this width glass, gloss and coats are treated as perfectly smooth. */
    static final float SMOOTH = 0.0017f;
    /** From this width on gloss is spread so far that it differs little from a matt body. */
    private static final float FOLDED = 0.3f;
    /** Result of {@link #eval} and {@link #sample}: scattering times cosine, and its density per steradian. */
    public float r, g, b, pdf;
    /** Result of {@link #sample}: the direction; {@code smooth} when only this one direction was possible. */
    public float wx, wy, wz;
    public boolean smooth;
    /** Kind of bounce that {@link #sample} chose. */
    public static final int DIFFUSE = 0, MIRRORED = 1, REFRACTED = 2;
    public int kind;

    private final float[] h = new float[3];
    private SurfacePoint s;
    /** The direction to the view in the frame of the normal. */
    float ox, oy, oz;
    private float f0r, f0g, f0b, f90, f0d, f90d;
    /** What lies over layered surfaces, and the chance of the coat's lobe. */
    private final CoatAndFuzz cover = new CoatAndFuzz();
    private float pCoat;
    private float pGloss, eta;
    /** Share of light that meets the boundary of something clear. */
    float pClear;
    /** By how much a rough boundary of glass is brighter for light that bounces between its facets. */
    private float between;
    private float bodyScale, bodyNorm, bodyO, msR, msG, msB, msO;
    private float row;
    private boolean gloss, onlyGloss;
    private final float[] body = new float[3];

    /** Prepares for a point seen from direction (x, y, z). */
    public void begin(SurfacePoint p, float x, float y, float z) {
        s = p;
        onlyGloss = false;
        ox = x * p.tx + y * p.ty + z * p.tz;
        oy = x * p.bx + y * p.by + z * p.bz;
        oz = Math.max(1e-4f, x * p.nx + y * p.ny + z * p.nz);
        float q = (p.ior - 1) / (p.ior + 1);
        f0d = q * q;
        f90d = Math.min(1, 50 * f0d);
        float m = p.metallic, dr = f0d, dg = f0d, db = f0d;
        if (p.layered) {
            // KHR_materials_specular.
            dr = Math.min(1, f0d * p.specR) * p.specular;
            dg = Math.min(1, f0d * p.specG) * p.specular;
            db = Math.min(1, f0d * p.specB) * p.specular;
            f0d = Math.max(dr, Math.max(dg, db));
            f90d *= p.specular;
        }
        f0r = dr + (p.baseR - dr) * m;
        f0g = dg + (p.baseG - dg) * m;
        f0b = db + (p.baseB - db) * m;
        f90 = f90d + (1 - f90d) * m;
        pClear = p.transmission;
        eta = p.front ? p.ior : 1 / p.ior;
        if (pClear > 0 && p.alpha > SMOOTH) between = 1 / RoughGlass.kept(oz, p.alpha, eta);
        gloss = f90 > 0;
        bodyScale = (1 - m) * INV_PI;
        bodyO = bodyNorm = 1;
        msR = msG = msB = 0;
        pGloss = 0;
        if (gloss) prepareGloss(p, m);
        pCoat = 0;
        if (!p.layered) return;
        cover.begin(p, oz);
        pCoat = cover.chance;
        // The body gets back what bounces below the coat, as it does below the gloss.
        if (p.coat > 0) bodyScale /= 1 - cover.mean;
        // Fuzz is found by the body's wide lobe.
        if (cover.fuzz > 0) pGloss *= 0.4f + 0.6f * cover.fuzzLeaves;
    }

    private void prepareGloss(SurfacePoint p, float m) {
        row = Ggx.row(p.alpha);
        float eO = f90d > 0 ? dielectricEnergy(oz) : 0;
        if (m < 1 && f90d > 0) {
            bodyO = 1 - eO;
            float mean = f0d * (Ggx.essMean(p.alpha) - meanB(p.alpha)) + f90d * meanB(p.alpha);
            bodyNorm = 1 / (1 - mean);
            bodyScale *= bodyNorm;
        }
        if (m > 0) {
            float mean = Ggx.essMean(p.alpha), rest = Math.max(1e-4f, 1 - mean);
            msO = m * (1 - Ggx.ess(oz, p.alpha)) * INV_PI / rest;
            msR = facets(p.baseR, mean);
            msG = facets(p.baseG, mean);
            msB = facets(p.baseB, mean);
        }
        float spec = Ggx.energy(oz, p.alpha, 0.2126f * f0r + 0.7152f * f0g + 0.0722f * f0b);
        float body = (0.2126f * p.baseR + 0.7152f * p.baseG + 0.0722f * p.baseB) * ((1 - m) * bodyO + m * (1 - Ggx.ess(oz, p.alpha)));
        pGloss = Math.clamp(spec / Math.max(1e-6f, spec + body), 0.1f, m == 1 ? 0.95f : 0.9f);
        if (spec + body < 1e-6f) pGloss = 0.5f;
        if (m == 1 && p.alpha <= SMOOTH) pGloss = 1;
    }

    static float meanB(float a) {
        return Ggx.energyMean(a, 0);
    }

    private float dielectricEnergy(float cos) {
        return Ggx.blend(cos, row, f0d, f90d - f0d);
    }

    /** Colour of light after all bounces between facets but the first (Kulla and Conty 2017). */
    private static float facets(float f0, float mean) {
        float f = f0 + (1 - f0) / 21;
        return f * f * mean / (1 - f * (1 - mean));
    }

    /** Whether light from no direction but mirrored and refracted ones is scattered, so that none need be looked for. */
    public static boolean onlyStraight(SurfacePoint p) {
        return p.alpha <= SMOOTH && (p.transmission == 1 || p.metallic == 1)
                && !(p.layered && (p.coat > 0 || p.sheenR + p.sheenG + p.sheenB > 0));
    }

    /** Scattering from light direction (x, y, z) to the view, into r, g, b and pdf; perfectly smooth parts give nothing. */
    public void eval(float x, float y, float z) {
        r = g = b = pdf = 0;
        float ix = x * s.tx + y * s.ty + z * s.tz, iy = x * s.bx + y * s.by + z * s.bz, iz = x * s.nx + y * s.ny + z * s.nz;
        float side = x * s.gx + y * s.gy + z * s.gz;
        if (iz * side <= 0) return; // the bent normal and the true face disagree: nothing may leak
        if (pClear < 1) {
            if (iz > 0) reflect(ix, iy, iz, 1 - pClear);
            else if (s.translucency > 0) through(-iz, 1 - pClear);
        }
        if (pClear > 0 && s.alpha > SMOOTH) clear(ix, iy, iz);
        if (s.layered) cover.lay(this, ix, iy, iz);
        if (s.bent < 0.9999f && iz > 0) soften(side / (iz * s.bent));
        if (onlyGloss) takeBody(x, y, z, iz);
    }

    /** Takes the matt body from what was found, and its lobe from the density. */
    private void takeBody(float x, float y, float z, float iz) {
        matt(x, y, z, body);
        r = Math.max(0, r - body[0]);
        g = Math.max(0, g - body[1]);
        b = Math.max(0, b - body[2]);
        float through = s.translucency * (1 - s.metallic), lobe = (1 - pClear) * (1 - pGloss) * (1 - pCoat)
                * (iz > 0 ? 1 - through : through);
        pdf = Math.max(0, pdf - lobe * Math.abs(iz) * INV_PI);
    }

    /**
     * Rounds off the edge that the true face's horizon cuts into light on a bent normal (Chiang et al. 2019, "Taming the Shadow
     * Terminator").
     */
    private void soften(float share) {
        float k = softening(share);
        r *= k;
        g *= k;
        b *= k;
    }

    private static float softening(float share) {
        float q = Math.min(1, share);
        return q * (1 + q - q * q);
    }

    /** Part of what {@link #eval} gives for a direction of light that is matt, by colour; the rest is gloss, fuzz and coat. */
    public void matt(float x, float y, float z, float[] out) {
        out[0] = out[1] = out[2] = 0;
        float iz = x * s.nx + y * s.ny + z * s.nz, side = x * s.gx + y * s.gy + z * s.gz;
        if (iz * side <= 0 || pClear == 1) return;
        float k = iz > 0 ? body(iz) * (1 - s.translucency) : body(-iz) * s.translucency;
        k *= (1 - pClear) * under(Math.abs(iz));
        if (s.bent < 0.9999f && iz > 0) k *= softening(side / (iz * s.bent));
        out[0] = k * s.baseR;
        out[1] = k * s.baseG;
        out[2] = k * s.baseB;
    }

    /** Whether most of what a surface scatters is matt, so that its radiance follows from its irradiance. */
    public static boolean mostlyMatt(SurfacePoint p) {
        return p.transmission == 0 && p.metallic < 0.5f;
    }

    /** Whether gloss is so wide that it may be taken for part of the matt body; else it wants to be traced. */
    public boolean foldsGloss() {
        boolean narrow = gloss && s.alpha < FOLDED || s.layered && s.coat > 0 && s.coatAlpha < FOLDED;
        return !narrow || s.metallic > 0 || s.layered && cover.fuzz > 0;
    }

    /** Whether gloss can be traced apart from the body. */
    public boolean glossApart() {
        return hasGloss() && s.metallic == 0 && !(s.layered && cover.fuzz > 0);
    }

    /** Whether anything but the body scatters light into more than one direction. */
    public boolean hasGloss() {
        return gloss && s.alpha > SMOOTH || s.layered && (s.coat > 0 && s.coatAlpha > SMOOTH || cover.fuzz > 0);
    }

    /**
     * From now on, up to the next {@link #begin}, only what is not matt is scattered; for surfaces without transmission.
     *
     * @param always whether {@link #sample} is always to find some of it, rather than as often as it would among all
     */
    public void onlyGloss(boolean always) {
        onlyGloss = true;
        if (always) pGloss = 1;
    }

    /**
     * Radiance towards the view of the body, and of gloss that is folded into it, for an irradiance of pi from everywhere: three colours
     * for light from the view's side and three for light from the other. Of even light this is exact without coat and fuzz, which are taken
     * to dim what lies below on the way out alone.
     *
     * @param folded whether gloss is to count at all
     */
    public void albedo(boolean folded, float[] out) {
        float m = s.metallic, over = s.layered ? cover.leaves() : 1,
                k = (1 - m) * bodyO * (1 - pClear) * over;
        float front = k * (1 - s.translucency), back = k * s.translucency;
        out[0] = front * s.baseR;
        out[1] = front * s.baseG;
        out[2] = front * s.baseB;
        out[3] = back * s.baseR;
        out[4] = back * s.baseG;
        out[5] = back * s.baseB;
        if (!folded) return;
        if (gloss && s.alpha > SMOOTH) {
            k = (1 - pClear) * over;
            float facets = m > 0 ? m * (1 - Ggx.ess(oz, s.alpha)) : 0;
            out[0] += k * (Ggx.blend(oz, row, f0r, f90 - f0r) + facets * msR);
            out[1] += k * (Ggx.blend(oz, row, f0g, f90 - f0g) + facets * msG);
            out[2] += k * (Ggx.blend(oz, row, f0b, f90 - f0b) + facets * msB);
        }
        if (!s.layered) return;
        float coat = s.coat > 0 && s.coatAlpha > SMOOTH ? 1 - cover.coatLeaves : 0,
                soft = cover.fuzz > 0 ? (1 - cover.fuzzLeaves) / cover.fuzz : 0;
        out[0] += coat + soft * s.sheenR;
        out[1] += coat + soft * s.sheenG;
        out[2] += coat + soft * s.sheenB;
    }

    /**
     * By how much radiance from a direction on the view's side counts for irradiance over pi, by colour, per steradian. That is the cosine
     * over pi, times what the surface gives back of light from there over what it gives back of light from everywhere: a body below gloss
     * gives back less of slanting light, and folded gloss more. With {@link #albedo} all light that comes in goes out again.
     *
     * @param folded whether gloss is to count at all, where it {@link #foldsGloss}
     */
    public void lambert(float x, float y, float z, boolean folded, float[] out) {
        float iz = x * s.nx + y * s.ny + z * s.nz, side = x * s.gx + y * s.gy + z * s.gz;
        if (!(iz > 0 && side > 0)) {
            out[0] = out[1] = out[2] = 0;
            return;
        }
        float k = iz * INV_PI;
        if (s.bent < 0.9999f) k *= softening(side / (iz * s.bent));
        out[0] = out[1] = out[2] = k;
        if (!gloss || f90d == 0 || s.metallic == 1) return;
        float given = dielectricEnergy(iz), body = (1 - s.metallic) * (1 - s.translucency);
        boolean folds = foldsGloss() && s.alpha > SMOOTH;
        if (folds && !folded) {
            // Its albedo is that with gloss, whose share is left out.
            out[0] *= unshared(body * s.baseR, given);
            out[1] *= unshared(body * s.baseG, given);
            out[2] *= unshared(body * s.baseB, given);
            return;
        }
        out[0] *= share(body * s.baseR, given, folds);
        out[1] *= share(body * s.baseG, given, folds);
        out[2] *= share(body * s.baseB, given, folds);
    }

    private float unshared(float body, float given) {
        return body * (1 - given) / (body / bodyNorm + 1 - 1 / bodyNorm);
    }

    private float share(float body, float given, boolean folds) {
        if (!folds) return (1 - given) * bodyNorm;
        return (body * (1 - given) + given) / (body / bodyNorm + 1 - 1 / bodyNorm);
    }

    /** Whether some of the light is mirrored in one direction only. */
    public boolean mirrors() {
        return gloss && s.alpha <= SMOOTH || s.layered && s.coat > 0 && s.coatAlpha <= SMOOTH;
    }

    /** The matt body without its colour and what goes through, times the cosine. */
    private float body(float iz) {
        float bodyI = gloss && f90d > 0 && s.metallic < 1 ? 1 - dielectricEnergy(iz) : 1;
        return bodyScale * bodyO * bodyI * iz;
    }

    private void reflect(float ix, float iy, float iz, float weight) {
        float k = body(iz) * (1 - s.translucency) * weight;
        r = k * s.baseR;
        g = k * s.baseG;
        b = k * s.baseB;
        pdf = weight * (1 - pGloss) * (1 - s.translucency * (1 - s.metallic)) * iz * INV_PI;
        if (!gloss) return;
        if (msO > 0 && s.metallic > 0) {
            float ms = msO * (1 - Ggx.ess(iz, s.alpha)) * iz * weight;
            r += ms * msR;
            g += ms * msG;
            b += ms * msB;
        }
        if (s.alpha <= SMOOTH) return; // a mirror is found by its one direction only
        float hx = ox + ix, hy = oy + iy, hz = oz + iz, l = 1 / (float) Math.sqrt(hx * hx + hy * hy + hz * hz);
        float vh = (ox * hx + oy * hy + oz * hz) * l;
        boolean even = s.alphaX == s.alphaY;
        float d = even ? Ggx.d(hz * l, s.alpha) : Ggx.d(hx * l, hy * l, hz * l, s.alphaX, s.alphaY), f = Ggx.pow5(1 - vh);
        float k2 = weight * d * (even ? Ggx.g2(oz, iz, s.alpha) : Ggx.g2(ox, oy, oz, ix, iy, iz, s.alphaX, s.alphaY)) / (4 * oz);
        r += k2 * (f0r + (f90 - f0r) * f);
        g += k2 * (f0g + (f90 - f0g) * f);
        b += k2 * (f0b + (f90 - f0b) * f);
        pdf += weight * pGloss * d * (even ? Ggx.g1(oz, s.alpha) : Ggx.g1(ox, oy, oz, s.alphaX, s.alphaY)) / (4 * oz);
    }

    private void through(float iz, float weight) {
        float k = body(iz) * s.translucency * weight;
        r = k * s.baseR;
        g = k * s.baseG;
        b = k * s.baseB;
        pdf = weight * (1 - pGloss) * s.translucency * (1 - s.metallic) * iz * INV_PI;
    }

    /** Rough boundary of a clear solid; light is counted without the n^2 of radiance, which cancels on leaving. */
    private void clear(float ix, float iy, float iz) {
        boolean refl = iz > 0;
        float k = refl ? 1 : eta, hx = ox + k * ix, hy = oy + k * iy, hz = oz + k * iz;
        float l = 1 / (float) Math.sqrt(Math.max(1e-20f, hx * hx + hy * hy + hz * hz));
        if (hz < 0) l = -l;
        hx *= l;
        hy *= l;
        hz *= l;
        float vh = ox * hx + oy * hy + oz * hz, lh = ix * hx + iy * hy + iz * hz;
        if (vh <= 0 || (refl ? lh <= 0 : lh >= 0)) return;
        float f = Fresnel.dielectric(Math.min(1, vh), eta), d = Ggx.d(hz, s.alpha);
        float g2 = Ggx.g2(oz, iz, s.alpha), g1 = Ggx.g1(oz, s.alpha);
        float jacobian, choice;
        if (refl) {
            jacobian = 1 / (4 * oz);
            choice = f;
        } else {
            float den = vh + eta * lh;
            jacobian = vh * -lh * eta * eta / (den * den * oz);
            choice = 1 - f;
        }
        float v = pClear * between * choice * d * g2 * jacobian;
        r += v * (refl ? 1 : s.baseR);
        g += v * (refl ? 1 : s.baseG);
        b += v * (refl ? 1 : s.baseB);
        pdf += pClear * choice * d * g1 * jacobian;
    }

    /**
     * Chooses a direction. On true, (wx, wy, wz), the scattering, and the density are set; for a smooth direction
     * r, g, b are the weight itself and pdf is one.
     *
     * @param c chooses the lobe; {@code u1}, {@code u2} the direction; all in [0, 1)
     */
    public boolean sample(float c, float u1, float u2) {
        smooth = false;
        kind = MIRRORED;
        float ix, iy, iz;
        if (pCoat > 0) {
            if (c < pCoat) return s.coatAlpha <= SMOOTH ? mirrorCoat() : mirror(s.coatAlpha, s.coatAlpha, u1, u2);
            c = Math.min((c - pCoat) / (1 - pCoat), 0x1.fffffep-1f);
        }
        if (c < pClear) return sampleClear(c / pClear, u1, u2);
        float e = (c - pClear) / Math.max(1e-6f, 1 - pClear);
        if (e < pGloss) {
            return s.alpha <= SMOOTH ? mirrorGloss() : mirror(s.alphaX, s.alphaY, u1, u2);
        } else {
            if (onlyGloss) return false;
            kind = DIFFUSE;
            float rad = (float) Math.sqrt(u1), phi = 2 * (float) Math.PI * u2;
            ix = rad * (float) Math.cos(phi);
            iy = rad * (float) Math.sin(phi);
            iz = (float) Math.sqrt(Math.max(1e-9f, 1 - u1));
            float t = (e - pGloss) / Math.max(1e-6f, 1 - pGloss);
            if (t < s.translucency * (1 - s.metallic)) iz = -iz;
        }
        toWorld(ix, iy, iz);
        eval(wx, wy, wz);
        return pdf > 0;
    }

    /** Takes a direction that others have chosen: as {@link #sample} for the matt body, but the density is that of sampling it here. */
    public void towards(float x, float y, float z) {
        smooth = false;
        kind = DIFFUSE;
        wx = x;
        wy = y;
        wz = z;
        eval(x, y, z);
    }

    /** The one direction of a gloss without width, with its weight. */
    private boolean mirrorGloss() {
        float k = under(oz) / (pGloss * (1 - pCoat)), f = Ggx.pow5(1 - oz);
        return straight(k * (f0r + (f90 - f0r) * f), k * (f0g + (f90 - f0g) * f), k * (f0b + (f90 - f0b) * f));
    }

    private boolean mirrorCoat() {
        float w = cover.reflected(oz) / pCoat;
        return straight(w, w, w);
    }

    private boolean straight(float wr, float wg, float wb) {
        toWorld(-ox, -oy, oz);
        if (wx * s.gx + wy * s.gy + wz * s.gz <= 0) return false;
        smooth = true;
        r = wr;
        g = wg;
        b = wb;
        pdf = 1;
        return r + g + b > 0;
    }

    /** What coat and fuzz leave of light that goes in one way and comes out at the given cosine. */
    private float under(float cos) {
        return s.layered ? cover.leaves(cos) : 1;
    }

    /** Chooses a direction mirrored in a facet of a gloss. */
    private boolean mirror(float ax, float ay, float u1, float u2) {
        Ggx.visibleNormal(ox, oy, oz, ax, ay, u1, u2, h);
        float vh = 2 * (ox * h[0] + oy * h[1] + oz * h[2]), iz = vh * h[2] - oz;
        if (iz <= 0) return false;
        toWorld(vh * h[0] - ox, vh * h[1] - oy, iz);
        eval(wx, wy, wz);
        return pdf > 0;
    }

    private boolean sampleClear(float c, float u1, float u2) {
        boolean flat = s.alpha <= SMOOTH;
        if (flat) {
            h[0] = h[1] = 0;
            h[2] = 1;
        } else Ggx.visibleNormal(ox, oy, oz, s.alpha, u1, u2, h);
        float vh = ox * h[0] + oy * h[1] + oz * h[2];
        if (vh <= 0) return false;
        float f = Fresnel.dielectric(Math.min(1, vh), eta);
        boolean refl = c < f;
        float ix, iy, iz;
        if (refl) {
            ix = 2 * vh * h[0] - ox;
            iy = 2 * vh * h[1] - oy;
            iz = 2 * vh * h[2] - oz;
            if (iz <= 0) return false;
        } else {
            float sin2 = (1 - vh * vh) / (eta * eta), ct = (float) Math.sqrt(Math.max(0, 1 - sin2)), k = vh / eta - ct;
            ix = k * h[0] - ox / eta;
            iy = k * h[1] - oy / eta;
            iz = k * h[2] - oz / eta;
            kind = REFRACTED;
            if (iz >= 0) return false;
        }
        toWorld(ix, iy, iz);
        if (!flat) {
            eval(wx, wy, wz);
            return pdf > 0;
        }
        if ((wx * s.gx + wy * s.gy + wz * s.gz > 0) != refl) return false;
        smooth = true;
        float k = under(Math.abs(iz)) / (1 - pCoat);
        r = k * (refl ? 1 : s.baseR);
        g = k * (refl ? 1 : s.baseG);
        b = k * (refl ? 1 : s.baseB);
        pdf = 1;
        return true;
    }

    private void toWorld(float x, float y, float z) {
        wx = x * s.tx + y * s.bx + z * s.nx;
        wy = x * s.ty + y * s.by + z * s.ny;
        wz = x * s.tz + y * s.bz + z * s.nz;
        float l = 1 / (float) Math.sqrt(wx * wx + wy * wy + wz * wz);
        wx *= l;
        wy *= l;
        wz *= l;
    }
}
