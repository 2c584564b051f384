package bake.studio.live;

/**
 * How bright the columns of a picture are: for each of some strips from left to right how many of its pixels have which display value.
 *
 * @param counts strip by strip, each from black to white
 * @param most largest of them, at least 1
 */
public record Waveform(int strips, int levels, int[] counts, int most) {
    /** @param argb sRGB pixels, row by row */
    public static Waveform of(int[] argb, int width, int strips, int levels) {
        int[] n = new int[strips * levels];
        int most = 1;
        for (int i = 0; i < argb.length; i++) {
            int p = argb[i], x = (int) ((long) (i % width) * strips / width);
            double l = (0.2126 * (p >> 16 & 255) + 0.7152 * (p >> 8 & 255) + 0.0722 * (p & 255)) / 256;
            most = Math.max(most, ++n[x * levels + (int) (l * levels)]);
        }
        return new Waveform(strips, levels, n, most);
    }
}
