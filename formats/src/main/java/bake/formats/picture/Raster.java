package bake.formats.picture;

/**
 * A scene-referred picture.
 *
 * @param rgb linear Rec. 709, length 3 width height, row by row from the top
 */
public record Raster(int width, int height, float[] rgb) {
    /** Most pixels a picture file may have: 16384 x 8192, the largest panorama in use. */
    public static final long MOST_PIXELS = 16384L * 8192;

    /** Replaces NaN, infinite and negative values, and says how many there were. */
    public int mend() {
        int bad = 0;
        for (int i = 0; i < rgb.length; i++) {
            float v = rgb[i];
            if (v >= 0 && v <= 1e9f) continue;
            rgb[i] = v > 1e9f ? 1e9f : 0;
            bad++;
        }
        return bad;
    }
}
