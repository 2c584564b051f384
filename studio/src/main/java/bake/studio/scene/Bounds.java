package bake.studio.scene;

import bake.core.math.Vec3;

/** The box around points. */
public final class Bounds {
    private final double[] low = {1e300, 1e300, 1e300}, high = {-1e300, -1e300, -1e300};

    public static Bounds of(float[] xyz) {
        Bounds b = new Bounds();
        for (int i = 0; i < xyz.length; i++) {
            b.low[i % 3] = Math.min(b.low[i % 3], xyz[i]);
            b.high[i % 3] = Math.max(b.high[i % 3], xyz[i]);
        }
        return b;
    }

    public void add(Vec3 p) {
        double[] c = {p.x(), p.y(), p.z()};
        for (int k = 0; k < 3; k++) {
            low[k] = Math.min(low[k], c[k]);
            high[k] = Math.max(high[k], c[k]);
        }
    }

    /** None for a box around nothing. */
    public Vec3[] corners() {
        if (low[0] > high[0]) return new Vec3[0];
        Vec3[] out = new Vec3[8];
        for (int i = 0; i < 8; i++) out[i] = new Vec3((i & 1) == 0 ? low[0] : high[0], (i & 2) == 0 ? low[1] : high[1],
                (i & 4) == 0 ? low[2] : high[2]);
        return out;
    }

    public Vec3 middle() {
        return new Vec3((low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2);
    }

    /** The middle of its lowest face. */
    public Vec3 underside() {
        return new Vec3((low[0] + high[0]) / 2, (low[1] + high[1]) / 2, low[2]);
    }

    public double[] size() {
        return new double[] {Math.max(0, high[0] - low[0]), Math.max(0, high[1] - low[1]), Math.max(0, high[2] - low[2])};
    }
}
