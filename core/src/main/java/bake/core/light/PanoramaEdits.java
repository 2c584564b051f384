package bake.core.light;

import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import bake.core.scene.Surroundings.PanoramaSun;

/** Changes of a panorama's picture: its contrast and colours, and its sun taken out. */
public final class PanoramaEdits {
    /** A sun is at most this large, and this many times as bright as all else on average, or it is none. */
    private static final double MOST_RADIUS = 2.5, LEAST_CONTRAST = 40;

    private PanoramaEdits() {}

    /** What is left of a panorama without its sun, and the sun. */
    public record Parted(Panorama rest, PanoramaSun sun) {}

    /**
     * The same picture with another contrast and stronger or weaker colours. Mean luminance over the dome is kept.
     *
     * @param gamma exponent on luminance, above 0; above 1 deepens shadows
     * @param saturation factor on the distance of colours from grey, 0 for none
     */
    public static Panorama graded(Panorama p, double gamma, double saturation) {
        float[] rgb = p.copy();
        double before = mean(p.width(), p.height(), rgb);
        if (!(before > 0)) return p;
        for (int i = 0; i < rgb.length; i += 3) {
            double l = luminance(rgb, i), k = l > 0 && gamma != 1 ? Math.pow(l / before, gamma - 1) : 1;
            for (int c = 0; c < 3; c++) rgb[i + c] = (float) Math.max(0, k * (l + saturation * (rgb[i + c] - l)));
        }
        double after = mean(p.width(), p.height(), rgb);
        float back = (float) (before / after);
        for (int i = 0; i < rgb.length; i++) rgb[i] *= back;
        return new Panorama(p.name(), p.width(), p.height(), rgb);
    }

    private static double luminance(float[] rgb, int i) {
        return 0.2126 * rgb[i] + 0.7152 * rgb[i + 1] + 0.0722 * rgb[i + 2];
    }

    private static double mean(int w, int h, float[] rgb) {
        double sum = 0, weight = 0;
        for (int y = 0; y < h; y++) {
            double s = Math.sin(Math.PI * (y + 0.5) / h), row = 0;
            for (int x = 0; x < w; x++) row += luminance(rgb, 3 * (y * w + x));
            sum += s * row;
            weight += s * w;
        }
        return sum / weight;
    }

    /**
     * Takes the sun out: the brightest spot, as far as it stands out from the sky around it, which closes the hole. What is left and the
     * sun together shed what the whole did on every plane that sees the spot.
     *
     * @param degrees diameter of the sun's disc that is to shine in its place
     * @return null where nothing in the picture is like a sun
     */
    public static Parted sunOut(Panorama p, double degrees) {
        int w = p.width(), h = p.height(), best = 0;
        float most = 0;
        double mean = 0, weights = 0;
        for (int y = 0; y < h; y++) {
            double s = Math.sin(Math.PI * (y + 0.5) / h);
            for (int x = 0; x < w; x++) {
                float l = p.luminance(y * w + x);
                mean += s * l;
                weights += s;
                if (l > most) {
                    most = l;
                    best = y * w + x;
                }
            }
        }
        mean /= weights;
        Vec3 centre = direction(p, best);
        double[] ring = ring(p, centre);
        double around = 0.2126 * ring[0] + 0.7152 * ring[1] + 0.0722 * ring[2];
        // A clipped sun is no brighter than the glow around it: then it must at least stand out from the dome.
        if (!(most > 4 * mean) || !(most > 1.5 * around) && !(most > LEAST_CONTRAST * mean)) return null;
        float[] rgb = p.copy();
        double[] flux = new double[3];
        Vec3 towards = Vec3.ZERO;
        int reach = rows(h);
        int y0 = best / w;
        for (int y = Math.max(0, y0 - reach); y <= Math.min(h - 1, y0 + reach); y++) {
            double solid = solid(w, h, y);
            for (int x = 0; x < w; x++) {
                int i = y * w + x;
                Vec3 d = direction(p, i);
                if (d.dot(centre) < Math.cos(Math.toRadians(MOST_RADIUS))) continue;
                double own = 0;
                for (int c = 0; c < 3; c++) {
                    double over = Math.max(0, rgb[3 * i + c] - ring[c]);
                    flux[c] += over * solid;
                    own += over * solid * (c == 1 ? 0.7152 : c == 0 ? 0.2126 : 0.0722);
                    rgb[3 * i + c] = (float) Math.min(rgb[3 * i + c], ring[c]);
                }
                towards = towards.plus(d.times(own));
            }
        }
        if (!(towards.length() > 0)) return null;
        return new Parted(new Panorama(p.name() + " without its sun", w, h, rgb),
                new PanoramaSun(towards.normalized(), new Vec3(flux[0], flux[1], flux[2]), degrees));
    }

    private static int rows(int h) {
        return (int) Math.ceil(MOST_RADIUS / 180 * h) + 1;
    }

    private static double solid(int w, int h, int y) {
        return 2 * Math.PI / w * (Math.cos(Math.PI * y / h) - Math.cos(Math.PI * (y + 1) / h));
    }

    private static Vec3 direction(Panorama p, int i) {
        double t = Math.PI * (i / p.width() + 0.5) / p.height(), a = 2 * Math.PI * ((i % p.width() + 0.5) / p.width() - 0.5);
        return new Vec3(Math.sin(t) * Math.sin(a), Math.sin(t) * Math.cos(a), Math.cos(t));
    }

    /** Mean colour just around the spot. */
    private static double[] ring(Panorama p, Vec3 centre) {
        double[] sum = new double[3];
        double weight = 0, inner = Math.cos(Math.toRadians(MOST_RADIUS)), outer = Math.cos(Math.toRadians(1.6 * MOST_RADIUS));
        int w = p.width(), h = p.height(), y0 = (int) (Math.acos(Math.clamp(centre.z(), -1, 1)) / Math.PI * h), reach = 2 * rows(h);
        for (int y = Math.max(0, y0 - reach); y <= Math.min(h - 1, y0 + reach); y++) {
            double s = solid(w, h, y);
            for (int x = 0; x < w; x++) {
                double c = direction(p, y * w + x).dot(centre);
                if (c > inner || c < outer) continue;
                for (int k = 0; k < 3; k++) sum[k] += s * p.at(3 * (y * w + x) + k);
                weight += s;
            }
        }
        for (int k = 0; k < 3; k++) sum[k] /= Math.max(1e-12, weight);
        return sum;
    }
}
