package bake.bench;

import bake.core.finish.ToneCurve;
import bake.core.scene.Camera;

/**
 * Says how far a picture is from a reference, after the tone curve, as shares of the displayed range; the reference's own noise is taken
 * off.
 */
final class Judge {
    private final Reference of;
    private final double gain;
    private final double[] mean;

    Judge(Reference of, Camera camera) {
        this.of = of;
        gain = 1 / camera.saturation();
        double[] a = luminance(of.halves()[0]), b = luminance(of.halves()[1]);
        mean = new double[a.length];
        for (int i = 0; i < a.length; i++) mean[i] = (a[i] + b[i]) / 2;
    }

    private static double[] luminance(float[] rgb) {
        double[] out = new double[rgb.length / 3];
        for (int i = 0; i < out.length; i++) out[i] = 0.2126 * rgb[3 * i] + 0.7152 * rgb[3 * i + 1] + 0.0722 * rgb[3 * i + 2];
        return out;
    }

    private double[] displayed(double[] l) {
        double[] out = new double[l.length];
        for (int i = 0; i < l.length; i++) out[i] = ToneCurve.FILM.apply(l[i] * gain);
        return out;
    }

    private double[] blocks(double[] of, int size) {
        int w = this.of.width() / size, h = this.of.height() / size;
        double[] out = new double[w * h];
        for (int y = 0; y < h * size; y++) for (int x = 0; x < w * size; x++)
            out[y / size * w + x / size] += of[y * this.of.width() + x] / (size * size);
        return out;
    }

    private static double rms(double[] a, double[] b) {
        double s = 0;
        for (int i = 0; i < a.length; i++) s += (a[i] - b[i]) * (a[i] - b[i]);
        return Math.sqrt(s / a.length);
    }

    /** Root mean square error that the reference itself has. */
    double noise() {
        return noise(1);
    }

    private double noise(int block) {
        return rms(blocks(displayed(luminance(of.halves()[0])), block), blocks(displayed(luminance(of.halves()[1])), block)) / 2;
    }

    /** Root mean square error of the displayed picture, in means of blocks. */
    double error(float[] rgb, int block) {
        double e = rms(blocks(displayed(luminance(rgb)), block), blocks(displayed(mean), block)), n = noise(block);
        return Math.sqrt(Math.max(0, e * e - n * n));
    }

    /**
     * Mean luminance over the reference's, of the pixels that are not shown white: in those noise must not be cut off, or it would darken
     * the mean.
     */
    double mean(float[] rgb) {
        double a = 0, b = 0;
        double[] l = luminance(rgb);
        for (int i = 0; i < l.length; i++)
            if (mean[i] * gain < 1) {
                a += l[i];
                b += mean[i];
            }
        return a / b;
    }

    /** Relative difference of each block's mean luminance, and how unsure the reference makes it; what is shown white is left out. */
    double[][] differences(float[] rgb, int block) {
        double[] own = blocks(shown(luminance(rgb)), block), ref = blocks(shown(mean), block),
                a = blocks(shown(luminance(of.halves()[0])), block), b = blocks(shown(luminance(of.halves()[1])), block);
        double floor = 0;
        for (double r : ref) floor += 0.02 * r / ref.length;
        double[][] out = new double[2][own.length];
        for (int i = 0; i < own.length; i++) {
            out[0][i] = (own[i] - ref[i]) / Math.max(ref[i], floor);
            out[1][i] = Math.abs(a[i] - b[i]) / 2 / Math.max(ref[i], floor);
        }
        return out;
    }

    private double[] shown(double[] l) {
        double[] out = new double[l.length];
        for (int i = 0; i < l.length; i++) out[i] = mean[i] * gain < 1 ? l[i] : 0;
        return out;
    }

    /** Share of the blocks whose mean luminance is within a relative difference. */
    double within(float[] rgb, int block, double most) {
        double[] d = differences(rgb, block)[0];
        int n = 0;
        for (double x : d) if (Math.abs(x) <= most) n++;
        return n / (double) d.length;
    }

    /** A picture of what is too light and too dark, three stops stronger than it is; grey where all is well. */
    int[] differencePicture(float[] rgb) {
        double[] a = displayed(luminance(rgb)), b = displayed(mean);
        int[] out = new int[a.length];
        for (int i = 0; i < out.length; i++) {
            int v = (int) Math.clamp(128 + 255 * 8 * (a[i] - b[i]), 0, 255);
            out[i] = 0xff000000 | v * 0x010101;
        }
        return out;
    }
}
