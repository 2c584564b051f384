package bake.studio.live;

import bake.core.math.Srgb;

/**
 * How the tones of a display picture lie: pixels by luminance, from ten stops below display white up to it.
 *
 * @param bins pixels in each of {@link #BINS} equal parts of the ten stops; what is darker counts to the first
 * @param most largest of the bins, at least 1
 * @param white share of pixels with a channel at its end, 0 to 1
 * @param codes pixels by display value, {@code mostCodes} the largest of them, at least 1
 * @param black share of pixels whose channels are all at the other end
 */
public record ToneHistogram(int[] bins, int most, double white, double black, int[] codes, int mostCodes) {
    /** Parts of the display's range that {@code codes} counts luminance in. */
    public static final int CODES = 64;
    public static final int BINS = 96, STOPS = 10;
    private static final double[] LINEAR = new double[256];

    static {
        for (int i = 0; i < 256; i++) LINEAR[i] = Srgb.decode(i / 255.0);
    }

    /** @param argb sRGB pixels */
    public static ToneHistogram of(int[] argb) {
        int[] n = new int[BINS], codes = new int[CODES];
        int high = 0, low = 0, most = 1, mostCodes = 1;
        for (int p : argb) {
            int r = p >> 16 & 255, g = p >> 8 & 255, b = p & 255, top = Math.max(r, Math.max(g, b));
            double l = 0.2126 * LINEAR[r] + 0.7152 * LINEAR[g] + 0.0722 * LINEAR[b];
            int k = (int) ((0.2126 * r + 0.7152 * g + 0.0722 * b) / 256 * CODES);
            mostCodes = Math.max(mostCodes, ++codes[k]);
            if (top >= 255) high++;
            if (top <= 2) low++;
            int i = l <= 0 ? 0 : (int) Math.clamp((Math.log(l) / Math.log(2) + STOPS) / STOPS * BINS, 0, BINS - 1);
            most = Math.max(most, ++n[i]);
        }
        double all = Math.max(1, argb.length);
        return new ToneHistogram(n, most, high / all, low / all, codes, mostCodes);
    }
}
