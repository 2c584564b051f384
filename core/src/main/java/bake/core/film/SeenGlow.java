package bake.core.film;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.function.Consumer;

/**
 * What the camera sees glow straight or through panes, of pixels at its edges: lamps, glowing surfaces, sky. It is known without following
 * light, so it is taken from many cheap looks beside the paths, which then bring only the rest: their own share of it is left out. The mean
 * of both is that of the paths (a control variate whose mean is estimated from more samples; Lavenberg and Welch 1981), and the edge of a
 * lamp a thousand times as bright as the wall behind it is smooth long before its light is clean.
 */
final class SeenGlow {
    private final int planes;
    /** Place of each pixel that is kept, or -1; its sums of colours by plane, of squared luminance, and how many looks are in them. */
    private final int[] place, looks;
    private final float[] sums, squares;

    /** @param pixels that are kept, of {@code all} */
    SeenGlow(int all, int planes, int[] pixels) {
        this.planes = planes;
        place = new int[all];
        Arrays.fill(place, -1);
        for (int i = 0; i < pixels.length; i++) place[pixels[i]] = i;
        looks = new int[pixels.length];
        squares = new float[pixels.length];
        sums = new float[3 * planes * pixels.length];
    }

    boolean keeps(int pixel) {
        return place[pixel] >= 0;
    }

    /** Adds what a path or a look saw, cd/m2; nothing is added for one that saw nothing. */
    void add(int pixel, int plane, float r, float g, float b) {
        int k = place[pixel], o = 3 * (planes * k + plane);
        sums[o] += r;
        sums[o + 1] += g;
        sums[o + 2] += b;
        float l = 0.2126f * r + 0.7152f * g + 0.0722f * b;
        squares[k] += l * l;
    }

    void looked(int pixel, int times) {
        looks[place[pixel]] += times;
    }

    /** Mean of a plane's colour, of paths and looks together. */
    float mean(int pixel, int plane, int colour, int paths) {
        int k = place[pixel];
        return sums[3 * (planes * k + plane) + colour] / Math.max(1, paths + looks[k]);
    }

    /** Variance of the mean luminance, (cd/m2)^2. */
    double variance(int pixel, int paths) {
        int k = place[pixel], n = paths + looks[k];
        if (n < 2) return 0;
        double l = 0;
        for (int p = 0; p < planes; p++) {
            int o = 3 * (planes * k + p);
            l += 0.2126 * sums[o] + 0.7152 * sums[o + 1] + 0.0722 * sums[o + 2];
        }
        return Math.max(0, squares[k] - l * l / n) / (n - 1.0) / n;
    }

    void save(Consumer<ByteBuffer> out) {
        Floats.write(out, place);
        Floats.write(out, looks);
        Floats.write(out, squares);
        Floats.write(out, sums);
    }

    /** Of a film whose {@code kept} pixels were noted. */
    static SeenGlow load(Consumer<ByteBuffer> in, int all, int planes, int kept) {
        int[] at = new int[all];
        Floats.read(in, at);
        int[] pixels = new int[kept];
        for (int i = 0; i < all; i++) {
            if (at[i] >= kept || at[i] < -1) throw new IllegalArgumentException("a pixel at place " + at[i] + " of " + kept);
            if (at[i] >= 0) pixels[at[i]] = i;
        }
        SeenGlow g = new SeenGlow(all, planes, pixels);
        Floats.read(in, g.looks);
        Floats.read(in, g.squares);
        Floats.read(in, g.sums);
        return g;
    }

    int kept() {
        return looks.length;
    }
}
