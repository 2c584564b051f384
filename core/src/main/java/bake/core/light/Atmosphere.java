package bake.core.light;

import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import java.util.stream.IntStream;

/**
 * A clear sky computed from the air: Rayleigh scattering, aerosol, ozone, single scattering along the view ray and
 * multiple scattering by Hillaire 2020 ("A Scalable and Production Ready Sky and Atmosphere Rendering Technique",
 * section 5.5). Three wavelengths stand for the three primaries: their dominant ones, 611, 549 and 464 nm (CIE 15, from
 * memory). Kilometres inside, cd/m2 outside.
 *
 * <p>Rayleigh coefficients are the optical depths of Bodhaine et al. 1999 (eq. 30, from memory) over the scale height; ozone follows the
 * Chappuis band (Serdyuchenko et al. 2014, read off from memory). Haze is Linke's turbidity: Ineichen 2008 (eq. 4, from memory) finds
 * 0.128 of aerosol optical depth at 550 nm for each unit above 2.2, since a good unit of it is water vapour, which takes no visible light.
 * A hyperbola with that slope stands for the line, so that every step of haze is seen and 1 is air alone.
 */
public final class Atmosphere {
    private static final double GROUND = 6360, TOP = 6460;
    private static final double[] RAYLEIGH = {7.905e-3, 12.224e-3, 24.36e-3};
    private static final double[] OZONE = {2.55e-3, 1.86e-3, 0.20e-3};
    /** Aerosol optical depth for each unit of haze, where there is much, and how slowly it gets there. */
    private static final double DEPTH = 0.128, BEND = 2.4;
    private static final double RAYLEIGH_HEIGHT = 8, HAZE_HEIGHT = 1.2, HAZE_G = 0.8, HAZE_ALBEDO = 0.9;
    /** Steps along a line of sight. */
    private static final int SIGHT = 32;
    private static final int TW = 128, TH = 32, MS = 24, MSH = 12;
    /** Eye height above the ground, km: a hair, so that the horizon is well defined. */
    private static final double EYE = GROUND + 0.02;

    private final double haze;
    private final double albedo;
    private final Vec3 solar;
    private final float[] transmittance = new float[3 * TW * TH];
    private final float[] multiple = new float[3 * MS * MSH];

    /**
     * @param turbidity 1 (air alone) to 10
     * @param groundAlbedo 0 to 1
     */
    public Atmosphere(double turbidity, double groundAlbedo) {
        double over = Math.clamp(turbidity, 1, 10) - 1;
        haze = DEPTH * over * over / (over + BEND) / HAZE_HEIGHT;
        albedo = groundAlbedo;
        solar = Blackbody.rgb(SunModel.KELVIN).times(SunModel.EXTRATERRESTRIAL_LUX);
        IntStream.range(0, TH).parallel().forEach(y -> {
            for (int x = 0; x < TW; x++) fillTransmittance(x, y);
        });
        IntStream.range(0, MSH).parallel().forEach(y -> {
            for (int x = 0; x < MS; x++) fillMultiple(x, y);
        });
    }

    /** Illuminance by colour on a plane facing the sun at the ground, lux, for the sun's height in radians. */
    public Vec3 sunIlluminance(double height) {
        double[] t = new double[3];
        lookupTransmittance(EYE, Math.sin(height), t);
        double horizon = -Math.acos(GROUND / EYE);
        // The disc sinks over half a degree; its light goes with the part still above the horizon.
        double above = Math.clamp((height - horizon) / 0.0093 + 0.5, 0, 1);
        return solar.times(new Vec3(t[0], t[1], t[2])).times(above);
    }

    /**
     * Luminance by colour of the sky (or the lit ground below the horizon) in a direction, cd/m2.
     *
     * @param view unit direction, z up
     * @param sun unit direction to the sun
     */
    public Vec3 sky(Vec3 view, Vec3 sun) {
        return sky(sight(view.z()), view.dot(sun), sun.z());
    }

    /** A line of sight from the eye under a cosine from the zenith. */
    SightLine sight(double mu) {
        double ground = toGround(EYE, mu), end = ground > 0 ? ground : toSphere(EYE, mu, TOP), last = 0;
        SightLine s = new SightLine(mu, SIGHT, ground);
        for (int i = 0; i < SIGHT; i++) {
            // Quadratic steps: air is thin far up, and near haze counts most.
            double next = end * (i + 1.0) * (i + 1.0) / ((double) SIGHT * SIGHT), dt = next - last, at = last + dt * 0.5;
            last = next;
            double q = Math.sqrt(EYE * EYE + at * at + 2 * EYE * mu * at), h = q - GROUND;
            s.at[i] = at;
            s.radius[i] = q;
            s.row[i] = rowOf(q);
            s.rowMultiple[i] = rowOfMultiple(q);
            double dr = density(h, RAYLEIGH_HEIGHT), veil = haze * density(h, HAZE_HEIGHT), layer = ozone(h);
            for (int c = 0; c < 3; c++) {
                double sr = RAYLEIGH[c] * dr, ext = sr + veil + OZONE[c] * layer, step = Math.exp(-ext * dt);
                double gain = s.through[c] * (ext > 1e-12 ? (1 - step) / ext : dt);
                s.air[3 * i + c] = gain * sr;
                s.haze[3 * i + c] = gain * HAZE_ALBEDO * veil;
                s.through[c] *= step;
            }
        }
        return s;
    }

    /**
     * Luminance by colour along a line of sight, cd/m2.
     *
     * @param cosSun cosine of the angle to the sun
     * @param sunUp sine of the sun's height
     */
    Vec3 sky(SightLine s, double cosSun, double sunUp) {
        double pr = 3 / (16 * Math.PI) * (1 + cosSun * cosSun), pm = hazePhase(cosSun);
        double[] sun = new double[3], ms = new double[3], out = new double[3];
        for (int i = 0; i < s.steps; i++) {
            // Sun cosine at the sample; the sun's direction is fixed, the local zenith turns.
            double mus = Math.clamp((EYE * sunUp + s.at[i] * cosSun) / s.radius[i], -1, 1);
            if (toGround(s.radius[i], mus) > 0) sun[0] = sun[1] = sun[2] = 0;
            else lookupTransmittance(s.radius[i], s.row[i], mus, sun);
            bilinear(multiple, MS, MSH, (mus * 0.5 + 0.5) * (MS - 1), s.rowMultiple[i], ms);
            for (int c = 0; c < 3; c++) {
                double air = s.air[3 * i + c], veil = s.haze[3 * i + c];
                out[c] += sun[c] * (air * pr + veil * pm) + ms[c] * (air + veil);
            }
        }
        if (s.ground > 0) {
            double mus = Math.clamp((EYE * sunUp + s.ground * cosSun) / GROUND, -1, 1);
            sunLight(GROUND + 0.001, mus, sun);
            lookupMultiple(GROUND + 0.001, mus, ms);
            for (int c = 0; c < 3; c++) out[c] += s.through[c] * albedo / Math.PI * (sun[c] * Math.max(0, mus) + Math.PI * ms[c]);
        }
        return new Vec3(out[0], out[1], out[2]).times(solar);
    }

    private static double density(double h, double scale) {
        return Math.exp(-Math.max(0, h) / scale);
    }

    private static double ozone(double h) {
        return Math.max(0, 1 - Math.abs(h - 25) / 15);
    }

    private static double toSphere(double r, double mu, double radius) {
        double d = r * r * (mu * mu - 1) + radius * radius;
        return d < 0 ? -1 : -r * mu + Math.sqrt(d);
    }

    /** Distance to the ground, or -1. */
    private static double toGround(double r, double mu) {
        double d = r * r * (mu * mu - 1) + GROUND * GROUND;
        if (d < 0 || mu >= 0) return -1;
        double t = -r * mu - Math.sqrt(d);
        return t > 0 ? t : -1;
    }

    private void fillTransmittance(int x, int y) {
        // Bruneton and Neyret's mapping puts the nodes where the horizon bends the curve.
        double rho = Math.sqrt(TOP * TOP - GROUND * GROUND) * y / (TH - 1), r = Math.sqrt(rho * rho + GROUND * GROUND);
        double dMin = TOP - r, dMax = rho + Math.sqrt(TOP * TOP - GROUND * GROUND);
        double d = dMin + (dMax - dMin) * x / (TW - 1);
        double mu = d == 0 ? 1 : Math.clamp((TOP * TOP - r * r - d * d) / (2 * r * d), -1, 1);
        int steps = 40;
        double[] depth = new double[3];
        for (int i = 0; i < steps; i++) {
            double t = d * (i + 0.5) / steps, h = Math.sqrt(r * r + t * t + 2 * r * mu * t) - GROUND;
            double air = density(h, RAYLEIGH_HEIGHT), veil = haze * density(h, HAZE_HEIGHT), layer = ozone(h);
            for (int c = 0; c < 3; c++) depth[c] += (RAYLEIGH[c] * air + veil + OZONE[c] * layer) * d / steps;
        }
        for (int c = 0; c < 3; c++) transmittance[3 * (y * TW + x) + c] = (float) Math.exp(-depth[c]);
    }

    /** Distance to the horizon from the top of the air, km. */
    private static final double SPAN = Math.sqrt(TOP * TOP - GROUND * GROUND);

    private static double rowOf(double r) {
        return Math.clamp(Math.sqrt(Math.max(0, r * r - GROUND * GROUND)) / SPAN, 0, 1) * (TH - 1);
    }

    private void lookupTransmittance(double r, double mu, double[] out) {
        r = Math.clamp(r, GROUND, TOP);
        lookupTransmittance(r, rowOf(r), mu, out);
    }

    private void lookupTransmittance(double r, double row, double mu, double[] out) {
        double rho = row * SPAN / (TH - 1), dMin = TOP - r, dMax = rho + SPAN;
        double d = Math.max(0, toSphere(r, Math.max(mu, -rho / r), TOP));
        bilinear(transmittance, TW, TH, Math.clamp((d - dMin) / (dMax - dMin), 0, 1) * (TW - 1), row, out);
    }

    private static void bilinear(float[] t, int w, int h, double x, double y, double[] out) {
        int i = Math.min((int) x, w - 2), j = Math.min((int) y, h - 2), o = 3 * (j * w + i), p = o + 3 * w;
        double fx = x - i, fy = y - j, a = (1 - fx) * (1 - fy), b = fx * (1 - fy), c = (1 - fx) * fy, d = fx * fy;
        out[0] = t[o] * a + t[o + 3] * b + t[p] * c + t[p + 3] * d;
        out[1] = t[o + 1] * a + t[o + 4] * b + t[p + 1] * c + t[p + 4] * d;
        out[2] = t[o + 2] * a + t[o + 5] * b + t[p + 2] * c + t[p + 5] * d;
    }

    /** Light that has scattered more than once, for a sun cosine and a height; isotropic (Hillaire 2020, eq. 5 to 10). */
    private void fillMultiple(int x, int y) {
        double mus = 2.0 * x / (MS - 1) - 1, r = GROUND + 0.001 + (TOP - GROUND - 0.002) * Math.pow(y / (MSH - 1.0), 2);
        double[] second = new double[3], factor = new double[3], l = new double[3], f = new double[3];
        double sin = Math.sqrt(Math.max(0, 1 - mus * mus));
        int n = 8;
        for (int i = 0; i < n; i++)
            for (int j = 0; j < n; j++) {
                double mu = 1 - 2 * (i + 0.5) / n, phi = 2 * Math.PI * (j + 0.5) / n, s = Math.sqrt(1 - mu * mu);
                java.util.Arrays.fill(l, 0);
                java.util.Arrays.fill(f, 0);
                march(r, mu, s * Math.cos(phi) * sin + mu * mus, mus, 20, l, f);
                for (int c = 0; c < 3; c++) {
                    second[c] += l[c] / (n * n);
                    factor[c] += f[c] / (n * n);
                }
            }
        for (int c = 0; c < 3; c++) multiple[3 * (y * MS + x) + c] = (float) (second[c] / (1 - factor[c]));
    }

    /**
     * Marches a ray for the multiple scattering table, with isotropic phase; {@code transfer} gets the light returned of a unit everywhere.
     */
    private void march(double r, double mu, double cosSun, double musView, int steps, double[] out, double[] transfer) {
        double ground = toGround(r, mu), end = ground > 0 ? ground : toSphere(r, mu, TOP);
        if (end <= 0) return;
        double phase = 1 / (4 * Math.PI);
        double[] t = {1, 1, 1}, sun = new double[3];
        double last = 0;
        for (int i = 0; i < steps; i++) {
            double next = end * (i + 1.0) * (i + 1.0) / ((double) steps * steps), dt = next - last, at = last + dt * 0.5;
            last = next;
            double q = Math.sqrt(r * r + at * at + 2 * r * mu * at), h = q - GROUND;
            sunLight(q, Math.clamp((r * musView + at * cosSun) / q, -1, 1), sun);
            double dr = density(h, RAYLEIGH_HEIGHT), veil = haze * density(h, HAZE_HEIGHT), layer = ozone(h);
            for (int c = 0; c < 3; c++) {
                double scatter = RAYLEIGH[c] * dr + HAZE_ALBEDO * veil, ext = RAYLEIGH[c] * dr + veil + OZONE[c] * layer,
                        step = Math.exp(-ext * dt);
                double gain = t[c] * (ext > 1e-12 ? (1 - step) / ext : dt) * scatter;
                out[c] += gain * sun[c] * phase;
                transfer[c] += gain;
                t[c] *= step;
            }
        }
        if (ground > 0) {
            double mus = Math.clamp((r * musView + end * cosSun) / GROUND, -1, 1);
            sunLight(GROUND + 0.001, mus, sun);
            for (int c = 0; c < 3; c++) out[c] += t[c] * albedo / Math.PI * sun[c] * Math.max(0, mus);
        }
    }

    private void sunLight(double r, double mu, double[] out) {
        if (toGround(r, mu) > 0) out[0] = out[1] = out[2] = 0;
        else lookupTransmittance(r, mu, out);
    }

    private static double rowOfMultiple(double r) {
        return Math.sqrt(Math.clamp((r - GROUND) / (TOP - GROUND), 0, 1)) * (MSH - 1);
    }

    private void lookupMultiple(double r, double mus, double[] out) {
        bilinear(multiple, MS, MSH, (mus * 0.5 + 0.5) * (MS - 1), rowOfMultiple(r), out);
    }

    /** Cornette and Shanks 1992. */
    private static double hazePhase(double cos) {
        double g = HAZE_G, g2 = g * g, d = 1 + g2 - 2 * g * cos;
        return 3 / (8 * Math.PI) * (1 - g2) * (1 + cos * cos) / ((2 + g2) * d * Math.sqrt(d));
    }
}
