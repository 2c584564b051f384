package bake.core.denoise;

/**
 * Light above the display's white on a logarithmic scale, about as the display shows it, so that a lamp a thousand times as bright as the
 * wall beside it does not drown that; and back.
 *
 * @param white luminance from which the scale bends, cd/m2
 */
record Highlights(double white) {
    /** Factor on light of a luminance. */
    float compress(float l) {
        return l > white ? (float) (white * (1 + Math.log(l / white)) / l) : 1;
    }

    /** Factor on small differences beside that luminance. */
    float slope(float l) {
        return l > white ? (float) (white / l) : 1;
    }

    /** Takes it back, three colours for each pixel, and squared errors of their luminance with them. */
    void expand(float[] rgb, float[] errors) {
        for (int i = 0; i < rgb.length; i += 3) {
            double l = 0.2126 * rgb[i] + 0.7152 * rgb[i + 1] + 0.0722 * rgb[i + 2];
            if (!(l > white)) continue;
            double there = white * Math.exp(l / white - 1);
            for (int c = i; c < i + 3; c++) rgb[c] *= (float) (there / l);
            errors[i / 3] *= (float) (there / white * there / white);
        }
    }
}
