package bake.bench;

import bake.core.film.Film;
import java.util.ArrayList;
import java.util.List;

/** Pairs of pictures, made in several ways with two seeds each, against each other. */
final class Compared {
    private static final int BLOCK = 16;
    private final int width, height;
    private final List<float[][]> pairs = new ArrayList<>();
    private final List<double[][]> variances = new ArrayList<>();

    Compared(int width, int height) {
        this.width = width;
        this.height = height;
    }

    void add(Film[] films) {
        float[][] l = new float[2][width * height];
        double[][] v = new double[2][width * height];
        float[] c = new float[3];
        for (int k = 0; k < 2; k++)
            for (int i = 0; i < width * height; i++) {
                films[k].mean(i % width, i / width, null, c);
                l[k][i] = 0.2126f * c[0] + 0.7152f * c[1] + 0.0722f * c[2];
                v[k][i] = films[k].variance(i % width, i / width);
            }
        pairs.add(l);
        variances.add(v);
    }

    private double all(int i) {
        double s = 0;
        for (float[][] p : pairs) s += (p[0][i] + p[1][i]) / (2.0 * pairs.size());
        return s;
    }

    /** Relative variance of one picture. */
    double variance(int way) {
        double mean = 0, sum = 0;
        for (int i = 0; i < width * height; i++) mean += all(i) / (width * height);
        for (int i = 0; i < width * height; i++)
            sum += Math.pow((pairs.get(way)[0][i] - pairs.get(way)[1][i]) / (all(i) + 0.05 * mean), 2) / 2;
        return sum / (width * height);
    }

    /** The same over the pixels that are set in {@code of}, and without the share of them that vary most. */
    double variance(int way, boolean[] of, double without) {
        double mean = 0, sum = 0;
        int n = 0;
        for (int i = 0; i < width * height; i++) mean += all(i) / (width * height);
        double[] each = new double[width * height];
        for (int i = 0; i < width * height; i++) if (of[i]) each[n++] =
                Math.pow((pairs.get(way)[0][i] - pairs.get(way)[1][i]) / (all(i) + 0.05 * mean), 2) / 2;
        java.util.Arrays.sort(each, 0, n);
        int end = (int) Math.round(n * (1 - without));
        for (int i = 0; i < end; i++) sum += each[i];
        return sum / end;
    }

    /** Variance of one picture over the square of its mean: what is bright counts most. */
    double absolute(int way) {
        double mean = 0, sum = 0;
        for (int i = 0; i < width * height; i++) {
            mean += all(i) / (width * height);
            sum += Math.pow(pairs.get(way)[0][i] - pairs.get(way)[1][i], 2) / 2;
        }
        return sum / (width * height) / (mean * mean);
    }

    double mean(int way) {
        return part(way, 0, 0, width, height)[0];
    }

    /** How many standard errors a way's mean is off the mean of the others. */
    double off(int way) {
        return off(way, 0, 0, width, height);
    }

    private double off(int way, int x0, int y0, int x1, int y1) {
        double own[] = part(way, x0, y0, x1, y1), others = 0, error = own[1];
        // The others weigh by how sure they are.
        double weights = 0;
        for (int k = 0; k < pairs.size(); k++) {
            if (k == way) continue;
            double[] p = part(k, x0, y0, x1, y1);
            double w = 1 / Math.max(1e-12, p[1]);
            others += w * p[0];
            weights += w;
        }
        return (own[0] - others / weights) / Math.sqrt(error + 1 / weights);
    }

    /** Mean of a part of both pictures of a way, and the variance of that mean, from the pixels' own estimates. */
    private double[] part(int way, int x0, int y0, int x1, int y1) {
        double sum = 0, var = 0;
        int n = 0;
        for (int y = y0; y < y1; y++)
            for (int x = x0; x < x1; x++, n++)
                for (int k = 0; k < 2; k++) {
                    sum += pairs.get(way)[k][y * width + x] / 2;
                    var += variances.get(way)[k][y * width + x] / 4;
                }
        return new double[] {sum / n, var / n / n};
    }

    int count() {
        return (width / BLOCK) * (height / BLOCK);
    }

    /** Root mean square, and worst, number of standard errors that blocks are off. */
    double[] blocks(int way) {
        double square = 0, worst = 0;
        for (int j = 0; j < height / BLOCK; j++)
            for (int i = 0; i < width / BLOCK; i++) {
                double o = off(way, i * BLOCK, j * BLOCK, (i + 1) * BLOCK, (j + 1) * BLOCK);
                square += o * o;
                worst = Math.max(worst, Math.abs(o));
            }
        return new double[] {Math.sqrt(square / count()), worst};
    }
}
