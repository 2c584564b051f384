package bake.demo;

import bake.core.math.Vec3;

/** Brickwork as geometry: 240 x 71 mm faces with 10 mm joints, running bond, cut at openings. */
final class Bricks {
    private static final double LONG = 0.24, HIGH = 0.071, JOINT = 0.010, PROUD = 0.008;

    private Bricks() {}

    /**
     * @param origin lower left corner seen from outside along {@code right}
     * @param out direction the wall faces
     * @param holes left, bottom, right, top in the wall's own plane
     */
    static void wall(Kit k, String name, Vec3 origin, Vec3 right, Vec3 out, double width, double height, double[][] holes) {
        MeshBuilder[] tones = new MeshBuilder[Palette.BRICK_TONES];
        for (int i = 0; i < tones.length; i++) tones[i] = new MeshBuilder();
        Noise.Stream r = new Noise.Stream(name.hashCode());
        int courses = (int) (height / (HIGH + JOINT));
        boolean leftHanded = right.cross(Vec3.UP).dot(out) < 0;
        for (int c = 0; c < courses; c++) {
            double z = c * (HIGH + JOINT), x = -(c % 2) * (LONG + JOINT) / 2;
            for (; x < width; x += LONG + JOINT)
                piece(tones, r, origin, right, out, leftHanded, Math.max(0, x), Math.min(width, x + LONG), z, z + HIGH, holes);
        }
        for (int i = 0; i < tones.length; i++) k.add("Shell", name + " bricks " + (i + 1), "brick " + i, tones[i]);
    }

    private static void piece(MeshBuilder[] tones, Noise.Stream r, Vec3 o, Vec3 right, Vec3 out, boolean flip, double x0, double x1,
            double z0, double z1, double[][] holes) {
        for (double[] h : holes)
            if (x1 > h[0] && x0 < h[2] && z1 > h[1] && z0 < h[3]) {
                if (x0 < h[0] - 0.03) piece(tones, r, o, right, out, flip, x0, h[0], z0, z1, holes);
                if (x1 > h[2] + 0.03) piece(tones, r, o, right, out, flip, h[2], x1, z0, z1, holes);
                return;
            }
        if (x1 - x0 < 0.03) return;
        MeshBuilder b = tones[r.below(tones.length)];
        double d = PROUD + r.range(-0.0015, 0.0015), u = r.range(0, 5), v = r.range(0, 5);
        Vec3[] f = new Vec3[4], g = new Vec3[4];
        double[][] at = {{x0, z0}, {x1, z0}, {x1, z1}, {x0, z1}};
        for (int i = 0; i < 4; i++) {
            g[i] = o.plus(right.times(at[i][0])).plus(new Vec3(0, 0, at[i][1])).minus(out.times(0.002));
            f[i] = g[i].plus(out.times(d + 0.002));
        }
        if (flip) {
            b.quad(f[1], f[0], f[3], f[2], u, v);
            for (int i = 0; i < 4; i++) b.quad(g[(i + 1) % 4], g[i], f[i], f[(i + 1) % 4], u, v);
        } else {
            b.quad(f[0], f[1], f[2], f[3], u, v);
            for (int i = 0; i < 4; i++) b.quad(g[i], g[(i + 1) % 4], f[(i + 1) % 4], f[i], u, v);
        }
    }
}
