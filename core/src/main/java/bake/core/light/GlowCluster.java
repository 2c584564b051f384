package bake.core.light;

import bake.core.math.Distribution;

/**
 * Triangles that glow and are chosen from together.
 *
 * @param corners in the world, 9 numbers each
 * @param faces middle and unit normal, {@link #FACE} numbers each
 * @param power what each gives about, {@code area} in m2, {@code reach} the square of its longest edge
 * @param closed whether they bound a body, whose inner side nobody sees
 * @param offset how far off each of them rays begin and end, metres
 * @param item where each comes from, {@code prim} the place there
 * @param choice by power
 */
record GlowCluster(float[] corners, float[] faces, float[] power, float[] area, float[] reach, boolean closed, float[] offset, int[] item,
        int[] prim, Distribution choice) {
    /** Up to so many triangles are looked at one by one. */
    static final int LOOKED = 12;
    /** Numbers of a triangle's middle and unit normal. */
    static final int FACE = 6;
    /** Triangles are looked at as they are seen from within so many times their longest edge. */
    private static final float NEAR = 6;

    /** About what a triangle could give at a place; 0 where it is hidden by others. */
    private float weight(int k, float px, float py, float pz) {
        float[] f = faces;
        int o = FACE * k;
        float x = px - f[o], y = py - f[o + 1], z = pz - f[o + 2], d2 = x * x + y * y + z * z,
                side = x * f[o + 3] + y * f[o + 4] + z * f[o + 5];
        if (closed && side <= 0) return 0;
        float cos = Math.abs(side) / ((float) Math.sqrt(d2) + 1e-20f);
        return power[k] * (cos + 0.05f) / Math.max(d2, 0.1f * reach[k]);
    }

    /** Chance that a triangle is chosen at a place. */
    float chance(int k, float px, float py, float pz) {
        if (area.length > LOOKED) return choice.probability(k);
        float sum = 0;
        for (int i = 0; i < area.length; i++) sum += weight(i, px, py, pz);
        return sum > 0 ? weight(k, px, py, pz) / sum : 0;
    }

    /** A triangle, whose chance is in the sample then; -1 when nothing can give light. */
    int choose(float px, float py, float pz, float choose, LightSample s) {
        int n = area.length, last = -1;
        if (n > LOOKED) {
            last = choice.sample(choose);
            s.face = choice.probability(last);
            return last;
        }
        float sum = 0;
        for (int i = 0; i < n; i++) sum += s.faces[i] = weight(i, px, py, pz);
        float target = choose * sum;
        for (int i = 0; i < n && target >= 0; i++) {
            float w = s.faces[i];
            if (!(w > 0)) continue;
            last = i;
            target -= w;
        }
        if (last >= 0) s.face = s.faces[last] / sum;
        return last;
    }

    /** Whether a triangle is sampled as it is seen from a place; then {@code out} is how. */
    boolean near(int k, float px, float py, float pz, SphericalTriangle out) {
        float[] q = corners;
        int o = 9 * k;
        float x = (q[o] + q[o + 3] + q[o + 6]) / 3 - px, y = (q[o + 1] + q[o + 4] + q[o + 7]) / 3 - py,
                z = (q[o + 2] + q[o + 5] + q[o + 8]) / 3 - pz;
        return x * x + y * y + z * z < NEAR * NEAR * reach[k] && out.from(q, o, px, py, pz);
    }
}
