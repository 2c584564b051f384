package bake.core.finish;

/**
 * Scene light of sky and backdrop changed apart from the rest, by how much of each pixel shows them. A pixel that shows both is light of
 * one plus light of the other; what of it is sky's is estimated from the open pixels around it, so that edges stay as they are drawn.
 */
final class SkyGrade {
    private static final int REACH = 2;
    private static final float OPEN = 0.995f;

    private SkyGrade() {}

    /**
     * @param rgb light, three colours a pixel; not changed
     * @param open share of each pixel that shows what lies behind the model, 0 to 1
     */
    static float[] run(float[] rgb, int w, int h, float[] open, Look.Sky s) {
        float[] out = rgb.clone();
        float gain = (float) Math.pow(2, s.lighten()), more = (float) s.saturation();
        // A picture balanced for bluer light looks warmer.
        WhiteBalance warm = new WhiteBalance(Look.NEUTRAL * Math.pow(2, s.warmth()));
        Rows.each(h, y -> {
            float[] sky = new float[3], graded = new float[3];
            for (int x = 0; x < w; x++) {
                int i = y * w + x;
                float k = open[i];
                if (!(k > 0)) continue;
                if (k > OPEN) System.arraycopy(rgb, 3 * i, sky, 0, 3);
                else around(rgb, w, h, open, x, y, sky);
                for (int c = 0; c < 3; c++) graded[c] = gain * sky[c];
                warm.apply(graded, 0);
                float l = 0.2126f * graded[0] + 0.7152f * graded[1] + 0.0722f * graded[2];
                for (int c = 0; c < 3; c++) {
                    float g = Math.max(0, graded[c] + more * (graded[c] - l));
                    out[3 * i + c] = Math.max(0, rgb[3 * i + c] + k * (g - sky[c]));
                }
            }
        });
        return out;
    }

    /** Light of the sky near a pixel: the mean of those around it, which count by the fourth power of how open they are. */
    private static void around(float[] rgb, int w, int h, float[] open, int x, int y, float[] out) {
        float sum = 0;
        out[0] = out[1] = out[2] = 0;
        for (int v = Math.max(0, y - REACH); v <= Math.min(h - 1, y + REACH); v++)
            for (int u = Math.max(0, x - REACH); u <= Math.min(w - 1, x + REACH); u++) {
                int i = v * w + u;
                float k = open[i] * open[i];
                k *= k;
                sum += k;
                for (int c = 0; c < 3; c++) out[c] += k * rgb[3 * i + c];
            }
        for (int c = 0; c < 3; c++) out[c] /= sum;
    }
}
