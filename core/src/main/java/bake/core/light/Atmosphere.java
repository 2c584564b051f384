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
 * <p>Rayleigh coefficients are those of Bruneton and Neyret 2008 carried to these wavelengths with the inverse fourth power;
 * ozone follows the Chappuis band (Serdyuchenko et al. 2014, read off from memory). Haze is Linke-style
 * turbidity at 550 nm: aerosol optical depth = (haze - 1) times that of the air.
 */
public final class Atmosphere {
    private static final double GROUND = 6360, TOP = 6460;
    private static final double[] RAYLEIGH = {8.90e-3, 13.66e-3, 26.7e-3};
    private static final double[] OZONE = {2.55e-3, 1.86e-3, 0.20e-3};
    private static final double RAYLEIGH_HEIGHT = 8, HAZE_HEIGHT = 1.2, HAZE_G = 0.8, HAZE_ALBEDO = 0.9;
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
        haze = (Math.clamp(turbidity, 1, 10) - 1) * RAYLEIGH[1] * RAYLEIGH_HEIGHT / HAZE_HEIGHT;
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
        double[] out = new double[3];
        march(EYE, view.z(), view.dot(sun), sun.z(), 32, out, null, true);
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

    private void lookupTransmittance(double r, double mu, double[] out) {
        r = Math.clamp(r, GROUND, TOP);
        double rho = Math.sqrt(Math.max(0, r * r - GROUND * GROUND)), span = Math.sqrt(TOP * TOP - GROUND * GROUND);
        double d = Math.max(0, toSphere(r, Math.max(mu, -rho / r), TOP)), dMin = TOP - r, dMax = rho + span;
        double x = Math.clamp((d - dMin) / (dMax - dMin), 0, 1) * (TW - 1), y = Math.clamp(rho / span, 0, 1) * (TH - 1);
        bilinear(transmittance, TW, TH, x, y, out);
    }

    private static void bilinear(float[] t, int w, int h, double x, double y, double[] out) {
        int i = Math.clamp((int) x, 0, w - 2), j = Math.clamp((int) y, 0, h - 2);
        double fx = x - i, fy = y - j;
        for (int c = 0; c < 3; c++) {
            int o = 3 * (j * w + i) + c;
            out[c] = (t[o] * (1 - fx) + t[o + 3] * fx) * (1 - fy) + (t[o + 3 * w] * (1 - fx) + t[o + 3 * w + 3] * fx) * fy;
        }
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
                march(r, mu, s * Math.cos(phi) * sin + mu * mus, mus, 20, l, f, false);
                for (int c = 0; c < 3; c++) {
                    second[c] += l[c] / (n * n);
                    factor[c] += f[c] / (n * n);
                }
            }
        for (int c = 0; c < 3; c++) multiple[3 * (y * MS + x) + c] = (float) (second[c] / (1 - factor[c]));
    }

    /**
     * Marches a view ray. Full: with phase functions and multiple scattering. Otherwise, for the multiple scattering
     * table: isotropic phase, and {@code transfer} gets the light returned of a unit everywhere.
     */
    private void march(double r, double mu, double cosSun, double musView, int steps, double[] out, double[] transfer, boolean full) {
        double ground = toGround(r, mu), end = ground > 0 ? ground : toSphere(r, mu, TOP);
        if (end <= 0) return;
        double pr = full ? 3 / (16 * Math.PI) * (1 + cosSun * cosSun) : 1 / (4 * Math.PI);
        double pm = full ? hazePhase(cosSun) : 1 / (4 * Math.PI);
        double[] t = {1, 1, 1}, sun = new double[3], ms = new double[3];
        double last = 0;
        for (int i = 0; i < steps; i++) {
            // Quadratic steps: air is thin far up, and near haze counts most.
            double next = end * (i + 1.0) * (i + 1.0) / ((double) steps * steps), dt = next - last, at = last + dt * 0.5;
            last = next;
            double q = Math.sqrt(r * r + at * at + 2 * r * mu * at), h = q - GROUND;
            // Sun cosine at the sample; the sun's direction is fixed, the local zenith turns.
            double mus = Math.clamp((r * musView + at * cosSun) / q, -1, 1);
            sunLight(q, mus, sun);
            double dr = density(h, RAYLEIGH_HEIGHT), veil = haze * density(h, HAZE_HEIGHT), dm = HAZE_ALBEDO * veil, layer = ozone(h);
            if (full) lookupMultiple(q, mus, ms);
            for (int c = 0; c < 3; c++) {
                double sr = RAYLEIGH[c] * dr, ext = sr + veil + OZONE[c] * layer, step = Math.exp(-ext * dt);
                double gain = ext > 1e-12 ? (1 - step) / ext : dt;
                out[c] += t[c] * gain * (sun[c] * (sr * pr + dm * pm) + (full ? ms[c] * (sr + dm) : 0));
                if (transfer != null) transfer[c] += t[c] * gain * (sr + dm);
                t[c] *= step;
            }
        }
        if (ground > 0) {
            double q = GROUND, mus = Math.clamp((r * musView + end * cosSun) / q, -1, 1);
            sunLight(q + 0.001, mus, sun);
            if (full) lookupMultiple(q + 0.001, mus, ms);
            for (int c = 0; c < 3; c++)
                out[c] += t[c] * albedo / Math.PI * (sun[c] * Math.max(0, mus) + (full ? Math.PI * ms[c] : 0));
        }
    }

    private void sunLight(double r, double mu, double[] out) {
        if (toGround(r, mu) > 0) out[0] = out[1] = out[2] = 0;
        else lookupTransmittance(r, mu, out);
    }

    private void lookupMultiple(double r, double mus, double[] out) {
        double y = Math.sqrt(Math.clamp((r - GROUND) / (TOP - GROUND), 0, 1)) * (MSH - 1);
        bilinear(multiple, MS, MSH, (mus * 0.5 + 0.5) * (MS - 1), y, out);
    }

    /** Cornette and Shanks 1992. */
    private static double hazePhase(double cos) {
        double g = HAZE_G, g2 = g * g, d = 1 + g2 - 2 * g * cos;
        return 3 / (8 * Math.PI) * (1 - g2) * (1 + cos * cos) / ((2 + g2) * d * Math.sqrt(d));
    }
}
