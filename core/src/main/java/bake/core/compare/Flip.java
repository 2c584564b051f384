package bake.core.compare;

import bake.core.math.Srgb;
import java.util.stream.IntStream;

/**
 * The difference that a viewer perceives who flips between two pictures: FLIP (Andersson, Nilsson, Akenine-Moeller, Oskarsson, Astroem and
 * Fairchild 2020, "FLIP: A Difference Evaluator for Alternating Images"; the constants of the paper, from memory). 0 for no difference, 1
 * for the greatest.
 *
 * <p>Both are filtered with the eye's contrast sensitivity in an opponent colour space, compared in L*a*b* with a distance for large
 * colour differences, and where edges and points come or go the difference counts more.
 */
public final class Flip {
    /** A monitor 0.7 m wide of 3840 pixels, seen from 0.7 m. */
    public static final double PIXELS_PER_DEGREE = 0.7 * 3840 / 0.7 * Math.PI / 180;

    /** Exponents of colour and feature differences, and how the colour difference is mapped: p_c of the greatest becomes p_t. */
    private static final double QC = 0.7, QF = 0.5, PC = 0.4, PT = 0.95;
    /** Width of the features looked for, degrees. */
    private static final double FEATURE = 0.082;
    /** Contrast sensitivity of the achromatic, red-green and blue-yellow channel as sums of two Gaussians (table 1): a1, b1, a2, b2. */
    private static final double[][] SENSITIVITY = {{1, 0.0047, 0, 1e-5}, {1, 0.0053, 0, 1e-5}, {34.1, 0.04, 13.5, 0.025}};
    /** CIE 1931 XYZ of linear sRGB's primaries (IEC 61966-2-1), and of its white. */
    private static final double[][] XYZ = {{0.4124564, 0.3575761, 0.1804375}, {0.2126729, 0.7151522, 0.0721750},
        {0.0193339, 0.1191920, 0.9503041}};
    private static final double[] WHITE = {0.9504700, 1.0000001, 1.0888300};
    private static final double[][] RGB = {{3.2404542, -1.5371385, -0.4985314}, {-0.9692660, 1.8760108, 0.0415560},
        {0.0556434, -0.2040259, 1.0572252}};
    private static final double MOST = most();

    private Flip() {}

    /**
     * The difference pixel by pixel.
     *
     * @param a sRGB pixels 0xAARRGGBB, row by row; alpha is not looked at
     * @param b of the same size
     * @param pixelsPerDegree how many pixels a degree of the viewer's sight holds
     * @return width x height values, 0 to 1
     */
    public static float[] map(int[] a, int[] b, int width, int height, double pixelsPerDegree) {
        if (a.length != width * height || b.length != a.length)
            throw new IllegalArgumentException("pictures of two sizes cannot be compared");
        float[][] x = opponent(a), y = opponent(b);
        float[] edges = features(x[0], y[0], width, height, pixelsPerDegree);
        float[][] fx = seen(x, width, height, pixelsPerDegree), fy = seen(y, width, height, pixelsPerDegree);
        float[] out = new float[a.length];
        IntStream.range(0, height).parallel().forEach(row -> {
            double[] p = new double[3], q = new double[3];
            for (int i = row * width; i < (row + 1) * width; i++) {
                lab(fx, i, p);
                lab(fy, i, q);
                double colour = mapped(Math.pow(distance(p, q), QC));
                out[i] = (float) Math.pow(colour, 1 - edges[i]);
            }
        });
        return out;
    }

    /** Mean of a map: the number of a pair of pictures. */
    public static double mean(float[] map) {
        double sum = 0;
        for (float f : map) sum += f;
        return map.length == 0 ? 0 : sum / map.length;
    }

    /** Y Cx Cz of linearised L*a*b* without its cube root (section 4.1). */
    private static float[][] opponent(int[] argb) {
        float[][] out = new float[3][argb.length];
        for (int i = 0; i < argb.length; i++) {
            double r = Srgb.decode((argb[i] >> 16 & 255) / 255.0), g = Srgb.decode((argb[i] >> 8 & 255) / 255.0),
                    b = Srgb.decode((argb[i] & 255) / 255.0);
            double x = (XYZ[0][0] * r + XYZ[0][1] * g + XYZ[0][2] * b) / WHITE[0],
                    y = (XYZ[1][0] * r + XYZ[1][1] * g + XYZ[1][2] * b) / WHITE[1],
                    z = (XYZ[2][0] * r + XYZ[2][1] * g + XYZ[2][2] * b) / WHITE[2];
            out[0][i] = (float) (116 * y - 16);
            out[1][i] = (float) (500 * (x - y));
            out[2][i] = (float) (200 * (y - z));
        }
        return out;
    }

    /** Each channel filtered by its sensitivity. A sum of two Gaussians is not separable, each of the two is. */
    private static float[][] seen(float[][] in, int w, int h, double ppd) {
        float[][] out = new float[3][];
        double widest = 0.04;
        int radius = (int) Math.ceil(3 * Math.sqrt(widest / (2 * Math.PI * Math.PI)) * ppd);
        for (int c = 0; c < 3; c++) {
            double[] s = SENSITIVITY[c], one = gaussian(s[1], radius, ppd), two = gaussian(s[3], radius, ppd);
            double k1 = s[0] * Math.PI / s[1] * square(one), k2 = s[2] * Math.PI / s[3] * square(two), all = k1 + k2;
            float[] first = filtered(in[c], w, h, normal(one), normal(one));
            if (k2 > 0) {
                float[] second = filtered(in[c], w, h, normal(two), normal(two));
                for (int i = 0; i < first.length; i++) first[i] = (float) ((k1 * first[i] + k2 * second[i]) / all);
            }
            out[c] = first;
        }
        return out;
    }

    /** exp(-pi^2 x^2 / b) at whole pixels, x in degrees. */
    private static double[] gaussian(double b, int radius, double ppd) {
        double[] g = new double[2 * radius + 1];
        for (int i = -radius; i <= radius; i++) {
            double x = i / ppd;
            g[i + radius] = Math.exp(-Math.PI * Math.PI * x * x / b);
        }
        return g;
    }

    /** Sum over the square kernel that a separable one stands for. */
    private static double square(double[] g) {
        double s = 0;
        for (double v : g) s += v;
        return s * s;
    }

    private static double[] normal(double[] g) {
        double s = Math.sqrt(square(g));
        double[] out = new double[g.length];
        for (int i = 0; i < g.length; i++) out[i] = g[i] / s;
        return out;
    }

    /** Across by one kernel, down by the other; at the edges the last pixel goes on. */
    private static float[] filtered(float[] in, int w, int h, double[] across, double[] down) {
        float[] mid = new float[in.length], out = new float[in.length];
        int r = across.length / 2, s = down.length / 2;
        IntStream.range(0, h).parallel().forEach(y -> {
            for (int x = 0; x < w; x++) {
                double sum = 0;
                for (int k = -r; k <= r; k++) sum += across[k + r] * in[y * w + Math.clamp(x + k, 0, w - 1)];
                mid[y * w + x] = (float) sum;
            }
        });
        IntStream.range(0, h).parallel().forEach(y -> {
            for (int x = 0; x < w; x++) {
                double sum = 0;
                for (int k = -s; k <= s; k++) sum += down[k + s] * mid[Math.clamp(y + k, 0, h - 1) * w + x];
                out[y * w + x] = (float) sum;
            }
        });
        return out;
    }

    /** How much edges and points differ, 0 to 1, already to the power of q_f (section 4.2). */
    private static float[] features(float[] a, float[] b, int w, int h, double ppd) {
        double sigma = 0.5 * FEATURE * ppd;
        int radius = (int) Math.ceil(3 * sigma);
        double[] smooth = new double[2 * radius + 1], edge = smooth.clone(), point = smooth.clone();
        for (int i = -radius; i <= radius; i++) {
            double g = Math.exp(-i * i / (2 * sigma * sigma));
            smooth[i + radius] = g;
            edge[i + radius] = -i * g;
            point[i + radius] = (i * i / (sigma * sigma) - 1) * g;
        }
        smooth = normal(smooth);
        halves(edge);
        halves(point);
        float[] out = new float[a.length], la = lightness(a), lb = lightness(b);
        float[] ea = norm(la, w, h, edge, smooth), eb = norm(lb, w, h, edge, smooth), pa = norm(la, w, h, point, smooth),
                pb = norm(lb, w, h, point, smooth);
        for (int i = 0; i < out.length; i++) {
            double d = Math.max(Math.abs(ea[i] - eb[i]), Math.abs(pa[i] - pb[i])) / Math.sqrt(2);
            out[i] = (float) Math.min(1, Math.pow(d, QF));
        }
        return out;
    }

    /** Positive weights sum to 1 and negative ones to -1. */
    private static void halves(double[] k) {
        double plus = 0, minus = 0;
        for (double v : k) {
            if (v > 0) plus += v;
            else minus -= v;
        }
        for (int i = 0; i < k.length; i++) k[i] /= k[i] > 0 ? plus : minus;
    }

    private static float[] lightness(float[] y) {
        float[] out = new float[y.length];
        for (int i = 0; i < y.length; i++) out[i] = (y[i] + 16) / 116;
        return out;
    }

    private static float[] norm(float[] in, int w, int h, double[] derived, double[] smooth) {
        float[] x = filtered(in, w, h, derived, smooth), y = filtered(in, w, h, smooth, derived);
        for (int i = 0; i < x.length; i++) x[i] = (float) Math.hypot(x[i], y[i]);
        return x;
    }

    /** L*a*b* of a filtered pixel, brought back into the display's colours, with a* and b* weakened in the dark (Hunt effect). */
    private static void lab(float[][] ycc, int i, double[] out) {
        double y = (ycc[0][i] + 16) / 116, x = ycc[1][i] / 500 + y, z = y - ycc[2][i] / 200;
        double[] xyz = {x * WHITE[0], y * WHITE[1], z * WHITE[2]}, rgb = new double[3];
        for (int c = 0; c < 3; c++) rgb[c] = Math.clamp(RGB[c][0] * xyz[0] + RGB[c][1] * xyz[1] + RGB[c][2] * xyz[2], 0, 1);
        lab(rgb, out);
    }

    private static void lab(double[] rgb, double[] out) {
        double[] f = new double[3];
        for (int c = 0; c < 3; c++) {
            double v = (XYZ[c][0] * rgb[0] + XYZ[c][1] * rgb[1] + XYZ[c][2] * rgb[2]) / WHITE[c], d = 6 / 29.0;
            f[c] = v > d * d * d ? Math.cbrt(v) : v / (3 * d * d) + 4 / 29.0;
        }
        out[0] = 116 * f[1] - 16;
        out[1] = 0.01 * out[0] * 500 * (f[0] - f[1]);
        out[2] = 0.01 * out[0] * 200 * (f[1] - f[2]);
    }

    /** HyAB (Abasi, Tehran and Fairchild 2019): city block between lightness and colour. */
    private static double distance(double[] p, double[] q) {
        return Math.abs(p[0] - q[0]) + Math.hypot(p[1] - q[1], p[2] - q[2]);
    }

    /** The greatest colour difference that there is: green against blue. */
    private static double most() {
        double[] g = new double[3], b = new double[3];
        lab(new double[] {0, 1, 0}, g);
        lab(new double[] {0, 0, 1}, b);
        return Math.pow(distance(g, b), QC);
    }

    private static double mapped(double d) {
        double limit = PC * MOST;
        return d < limit ? PT / limit * d : Math.min(1, PT + (d - limit) / (MOST - limit) * (1 - PT));
    }
}
