package bake.core.path;

/** Adds light to a sample, no more than a limit at a time. */
public final class Clamp {
    private Clamp() {}

    /**
     * Adds one colour to a source group.
     *
     * @param out three colours for each group
     * @param limit greatest luminance that is added, cd/m2; infinite for all
     * @return luminance that was left out, cd/m2
     */
    public static float add(float[] out, int group, float r, float g, float b, float limit) {
        float l = 0.2126f * r + 0.7152f * g + 0.0722f * b, left = 0;
        if (!(l < Float.POSITIVE_INFINITY)) return 0; // an overflow or NaN must not spoil the pixel
        if (l > limit) {
            float k = limit / l;
            left = l - limit;
            r *= k;
            g *= k;
            b *= k;
        }
        out[3 * group] += r;
        out[3 * group + 1] += g;
        out[3 * group + 2] += b;
        return left;
    }
}
