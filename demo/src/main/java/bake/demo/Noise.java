package bake.demo;

import bake.core.math.PathSampler;

/** Deterministic noise: the same numbers on every machine. */
final class Noise {
    private Noise() {}

    /** A number in [0, 1) for three whole numbers. */
    static double hash(int a, int b, int c) {
        return (PathSampler.hash(a * 0x9e3779b1 ^ PathSampler.hash(b * 0x85ebca77 ^ PathSampler.hash(c + 0x165667b1))) >>> 8) * 0x1p-24;
    }

    /** Smooth value noise of mean one half, repeating every {@code period} cells. */
    static double value(double x, double y, int period, int seed) {
        int i = (int) Math.floor(x), j = (int) Math.floor(y);
        double fx = x - i, fy = y - j;
        fx = fx * fx * (3 - 2 * fx);
        fy = fy * fy * (3 - 2 * fy);
        int i0 = Math.floorMod(i, period), i1 = Math.floorMod(i + 1, period), j0 = Math.floorMod(j, period),
                j1 = Math.floorMod(j + 1, period);
        double a = hash(i0, j0, seed), b = hash(i1, j0, seed), c = hash(i0, j1, seed), d = hash(i1, j1, seed);
        return (a * (1 - fx) + b * fx) * (1 - fy) + (c * (1 - fx) + d * fx) * fy;
    }

    /** Several octaves of {@link #value} over the unit square, tiling. */
    static double fractal(double u, double v, int cells, int octaves, int seed) {
        double sum = 0, weight = 0.5, total = 0;
        for (int o = 0; o < octaves; o++) {
            int n = cells << o;
            sum += weight * value(u * n, v * n, n, seed + 31 * o);
            total += weight;
            weight *= 0.5;
        }
        return sum / total;
    }

    /** A stream of numbers for placing things. */
    static final class Stream {
        private final int seed;
        private int n;

        Stream(int seed) {
            this.seed = seed;
        }

        double next() {
            return hash(seed, n++, 77);
        }

        double range(double a, double b) {
            return a + (b - a) * next();
        }

        int below(int k) {
            return Math.min(k - 1, (int) (next() * k));
        }
    }
}
