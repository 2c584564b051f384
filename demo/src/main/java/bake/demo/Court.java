package bake.demo;

import bake.core.math.Vec3;

/** The paved court east of the room: setts, basin, wall, pergola, gate, and the land around. */
final class Court {
    static final double X0 = Room.W + Room.WALL, X1 = X0 + 12, Y1 = Room.L;
    private static final double BX0 = 14.4, BX1 = 16.6, BY0 = 3.6, BY1 = 9.6;

    private Court() {}

    private static Vec3 p(double x, double y, double z) {
        return new Vec3(x, y, z);
    }

    static void build(Kit k) {
        setts(k);
        basin(k);
        wall(k);
        pergola(k);
        gate(k);
        land(k);
    }

    private static void setts(Kit k) {
        MeshBuilder[] tones = new MeshBuilder[Palette.SETT_TONES];
        for (int i = 0; i < tones.length; i++) tones[i] = new MeshBuilder();
        Noise.Stream r = new Noise.Stream(21);
        double w = 0.1, l = 0.2, gap = 0.007;
        for (int i = 0; X0 + 0.25 + (i + 1) * w < X1 - 0.3; i++)
            for (int j = 0; j * l < Y1 + 1.4; j++) {
                double x = X0 + 0.25 + i * w, y = -1.3 + j * l - (i % 2) * l / 2;
                if (x + w > BX0 - 0.13 && x < BX1 + 0.13 && y + l > BY0 - 0.13 && y < BY1 + 0.13) continue;
                double h = -0.020 + r.range(-0.0025, 0.0025), c = 0.006, u = r.range(0, 3), v = r.range(0, 3);
                double a0 = x + gap / 2, a1 = x + w - gap / 2, b0 = y + gap / 2, b1 = y + l - gap / 2;
                double t1 = r.range(-0.0015, 0.0015), t2 = r.range(-0.0015, 0.0015);
                Vec3 q0 = p(a0 + c, b0 + c, h + t1), q1 = p(a1 - c, b0 + c, h + t2), q2 = p(a1 - c, b1 - c, h - t1),
                        q3 = p(a0 + c, b1 - c, h - t2);
                Vec3 s0 = p(a0, b0, h - 0.03), s1 = p(a1, b0, h - 0.03), s2 = p(a1, b1, h - 0.03), s3 = p(a0, b1, h - 0.03);
                MeshBuilder b = tones[r.below(tones.length)];
                b.quad(q0, q1, q2, q3, u, v).quad(s0, s1, q1, q0, u, v).quad(s1, s2, q2, q1, u, v).quad(s2, s3, q3, q2, u, v)
                        .quad(s3, s0, q0, q3, u, v);
            }
        for (int i = 0; i < tones.length; i++) k.add("Court", "Granite setts " + (i + 1), "granite " + i, tones[i]);
        // Sand between the stones, with a hole for the basin.
        MeshBuilder s = new MeshBuilder();
        double z = -0.032;
        s.quad(p(X0 - 0.1, -1.6, z), p(BX0 - 0.1, -1.6, z), p(BX0 - 0.1, Y1 + 0.4, z), p(X0 - 0.1, Y1 + 0.4, z))
                .quad(p(BX1 + 0.1, -1.6, z), p(X1, -1.6, z), p(X1, Y1 + 0.4, z), p(BX1 + 0.1, Y1 + 0.4, z));
        s.quad(p(BX0 - 0.1, -1.6, z), p(BX1 + 0.1, -1.6, z), p(BX1 + 0.1, BY0 - 0.1, z), p(BX0 - 0.1, BY0 - 0.1, z))
                .quad(p(BX0 - 0.1, BY1 + 0.1, z), p(BX1 + 0.1, BY1 + 0.1, z), p(BX1 + 0.1, Y1 + 0.4, z), p(BX0 - 0.1, Y1 + 0.4, z));
        k.add("Court", "Sand joints", "sand joint", s);
    }

    private static void basin(Kit k) {
        MeshBuilder b = new MeshBuilder();
        double e = 0.012, f = 0.11, low = -0.4, top = 0.012;
        for (double[] q : new double[][] {{BX0 - f, BY0 - f, BX1 + f, BY0}, {BX0 - f, BY1, BX1 + f, BY1 + f},
                {BX0 - f, BY0 - 0.001, BX0, BY1 + 0.001}, {BX1, BY0 - 0.001, BX1 + f, BY1 + 0.001}})
            b.box(q[0], q[1], low, q[2], q[3], -0.016);
        k.add("Court", "Basin edge", "granite 1", b);
        MeshBuilder rim = new MeshBuilder();
        rim.box(BX0 - e, BY0 - e, low, BX0 + 0.001, BY1 + e, top).box(BX1 - 0.001, BY0 - e, low, BX1 + e, BY1 + e, top)
                .box(BX0, BY0 - e, low, BX1, BY0 + 0.001, top).box(BX0, BY1 - 0.001, low, BX1, BY1 + e, top);
        k.add("Court", "Basin brim", "dark steel", rim);
        k.add("Court", "Water", "water", new MeshBuilder().quad(p(BX0, BY0, -0.003), p(BX1, BY0, -0.003), p(BX1, BY1, -0.003),
                p(BX0, BY1, -0.003)));
    }

    private static void wall(Kit k) {
        double h = 2.8;
        k.add("Court", "Court wall", "mortar", new MeshBuilder().box(X1, -1.6, -0.3, X1 + 0.24, Y1 + 0.7, h - 0.02));
        Bricks.wall(k, "Court wall", p(X1, -1.6, 0), p(0, 1, 0), p(-1, 0, 0), Y1 + 2.2, h - 0.06, new double[0][]);
        k.add("Court", "Court wall coping", "concrete", new MeshBuilder().box(X1 - 0.04, -1.65, h - 0.06, X1 + 0.28, Y1 + 0.75, h));
        MeshBuilder plinth = new MeshBuilder();
        plinth.box(X0 - 0.01, -1.55, -0.2, X0 + 0.26, Y1 + 0.3, -0.012);
        k.add("Court", "Plinth strip", "concrete", plinth);
    }

    private static void pergola(Kit k) {
        MeshBuilder b = new MeshBuilder();
        double y0 = 12.9, y1 = 15.2;
        for (int i = 0; i < 5; i++) {
            double x = X0 + 0.9 + i * 2.55;
            for (double y : new double[] {y0, y1}) b.box(x - 0.06, y - 0.06, -0.05, x + 0.06, y + 0.06, 2.62, i, y, 63);
        }
        for (double y : new double[] {y0, y1}) b.box(X0 + 0.5, y - 0.035, 2.6, X1 - 0.35, y + 0.035, 2.8);
        for (double x = X0 + 0.6; x < X1 - 0.4; x += 0.34) b.box(x - 0.022, y0 - 0.45, 2.76, x + 0.022, y1 + 0.35, 2.9, x, 0, 63);
        b.box(X0 + 2.0, 14.4, 0.38, X0 + 5.4, 14.9, 0.43).box(X0 + 2.2, 14.5, -0.03, X0 + 2.3, 14.8, 0.385)
                .box(X0 + 5.1, 14.5, -0.03, X0 + 5.2, 14.8, 0.385);
        k.add("Court", "Pergola", "oak", b);
    }

    /** A steel-framed glazed gate beside the building; the court's south is open beyond it. */
    private static void gate(Kit k) {
        MeshBuilder f = new MeshBuilder(), g = new MeshBuilder();
        double y = -1.45, x0 = X0 + 0.3, h = 2.3;
        for (int i = 0; i <= 3; i++) f.box(x0 + i * 0.95 - 0.025, y - 0.025, -0.05, x0 + i * 0.95 + 0.025, y + 0.025, h);
        f.box(x0, y - 0.02, h - 0.05, x0 + 2.85, y + 0.02, h + 0.02).box(x0, y - 0.02, 0.02, x0 + 2.85, y + 0.02, 0.08)
                .box(x0, y - 0.015, 1.0, x0 + 2.85, y + 0.015, 1.03);
        g.quad(p(x0, y, 0.05), p(x0 + 2.85, y, 0.05), p(x0 + 2.85, y, h - 0.02), p(x0, y, h - 0.02));
        f.tube(p(x0 + 1.06, y - 0.07, 0.9), p(x0 + 1.06, y - 0.07, 1.3), 0.012, 0.012, 10);
        k.add("Court", "Gate frame", "dark steel", f);
        k.add("Court", "Gate glass", "float glass", g);
    }

    private static void land(Kit k) {
        k.add("Far", "Meadow", "meadow", new MeshBuilder().surface(40, 40, (u, v) -> p((u - 0.5) * 700, (v - 0.5) * 700, -0.36)));
        MeshBuilder path = new MeshBuilder().box(3.5, -9.0, -0.5, 13.2, -1.45, -0.205, 0, 0, 2)
                .box(-1.5, -2.6, -0.5, 3.5, -1.45, -0.21, 0, 0, 2);
        k.add("Court", "Forecourt", "concrete", path);
        k.add("Court", "Court edge", "concrete", new MeshBuilder().box(X0 - 0.05, -1.62, -0.5, X1 + 0.3, -1.42, -0.025));
        MeshBuilder hills = new MeshBuilder(), trees = new MeshBuilder();
        hills.surface(180, 10, (u, v) -> {
            double t = 2 * Math.PI * u, r = 330 + 700 * (1 - v), ridge = 14 + 42 * Noise.fractal(u, 0.37, 6, 4, 3);
            return p(r * Math.cos(t), r * Math.sin(t), -1 + ridge * Math.pow(Math.sin(Math.PI / 2 * (1 - v)), 1.4));
        });
        trees.surface(1400, 3, (u, v) -> {
            double t = 2 * Math.PI * u, r = 300 + 20 * Math.sin(7 * t),
                    h = 5 + 7 * Noise.fractal(u, 0.7, 24, 3, 8) + 4 * Noise.value(u * 700, 0.5, 700, 9);
            return p(r * Math.cos(t), r * Math.sin(t), -1 + (1 - v) * h);
        });
        k.add("Far", "Hills", "far hill", hills);
        k.add("Far", "Tree line", "far trees", trees);
    }
}
