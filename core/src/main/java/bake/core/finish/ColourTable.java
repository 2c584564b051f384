package bake.core.finish;

/**
 * A table of display colours for display colours: three curves, or a cube that is interpolated in tetrahedra (Sakamoto and Itooka 1981).
 *
 * @param size entries of a curve, or along each edge of the cube
 * @param cube whether it is one
 * @param low input of the first entry, by colour; {@code high} that of the last
 * @param values three for each entry; in a cube red runs fastest
 */
public record ColourTable(int size, boolean cube, float[] low, float[] high, float[] values) {
    /** The colour that the table has for one, three display values. */
    public void through(float[] c) {
        apply(c, 0, 1);
    }

    /** Adapts the colour at {@code c[o]}, mixed with what it was. */
    void apply(float[] c, int o, float strength) {
        float r = place(c[o], 0), g = place(c[o + 1], 1), b = place(c[o + 2], 2);
        if (cube) cube(c, o, r, g, b, strength);
        else {
            c[o] += strength * (curve(r, 0) - c[o]);
            c[o + 1] += strength * (curve(g, 1) - c[o + 1]);
            c[o + 2] += strength * (curve(b, 2) - c[o + 2]);
        }
    }

    private float place(float v, int k) {
        return Math.clamp((v - low[k]) / (high[k] - low[k]), 0f, 1f) * (size - 1);
    }

    private float curve(float x, int k) {
        int i = Math.min((int) x, size - 2);
        float t = x - i;
        return values[3 * i + k] + t * (values[3 * i + 3 + k] - values[3 * i + k]);
    }

    private void cube(float[] c, int o, float r, float g, float b, float strength) {
        int i = Math.min((int) r, size - 2), j = Math.min((int) g, size - 2), k = Math.min((int) b, size - 2);
        float x = r - i, y = g - j, z = b - k;
        int dx = 3, dy = 3 * size, dz = 3 * size * size, at = i * dx + j * dy + k * dz;
        // Along the edges of the cell from its first corner to its last, the longest way first.
        int first, second;
        float a, m, e;
        if (x >= y) {
            if (y >= z) { first = dx; second = dx + dy; a = x; m = y; e = z; }
            else if (x >= z) { first = dx; second = dx + dz; a = x; m = z; e = y; }
            else { first = dz; second = dx + dz; a = z; m = x; e = y; }
        } else {
            if (z >= y) { first = dz; second = dy + dz; a = z; m = y; e = x; }
            else if (z >= x) { first = dy; second = dy + dz; a = y; m = z; e = x; }
            else { first = dy; second = dx + dy; a = y; m = x; e = z; }
        }
        int last = at + dx + dy + dz;
        for (int q = 0; q < 3; q++) {
            float v = (1 - a) * values[at + q] + (a - m) * values[at + first + q] + (m - e) * values[at + second + q] + e * values[last
                    + q];
            c[o + q] += strength * (v - c[o + q]);
        }
    }
}
