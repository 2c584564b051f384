package bake.demo;

import bake.core.math.Affine;
import bake.core.math.Vec3;

/** The reading room's shell and joinery. Inner size 9.0 x 15.6 x 5.4; solids overlap where they meet, so no light leaks. */
final class Room {
    static final double W = 9.0, L = 15.6, H = 5.4, WALL = 0.48;
    static final double[] WINDOWS = {1.56, 4.68, 7.8, 10.92, 14.04};
    private static final double SILL = 0.45, HEAD = 4.05, HALF = 0.75, SPLAY = 0.22;

    private Room() {}

    static void build(Kit k) {
        floor(k);
        walls(k);
        roof(k);
        windows(k);
        gallery(k);
        lobby(k);
        niche(k);
    }

    private static Vec3 p(double x, double y, double z) {
        return new Vec3(x, y, z);
    }

    private static void floor(Kit k) {
        Noise.Stream r = new Noise.Stream(1);
        MeshBuilder[] tones = new MeshBuilder[Palette.BOARD_TONES];
        for (int i = 0; i < tones.length; i++) tones[i] = new MeshBuilder();
        int rows = 56;
        double pitch = W / rows;
        for (int i = 0; i < rows; i++) {
            double x = i * pitch, y = -r.range(0.2, 2.2);
            while (y < L) {
                double len = r.range(1.7, 2.6), a = Math.max(0, y), b = Math.min(L, y + len);
                // Every board is cut from its own place of the log, and lies a hair higher or lower.
                if (b - a > 0.02) tones[r.below(tones.length)].box(x + 0.001, a + 0.001, -0.025, x + pitch - 0.001, b - 0.001,
                        -0.0004 * r.next(), r.range(0, 7), r.range(0, 7), 62);
                y += len;
            }
        }
        for (int i = 0; i < tones.length; i++) k.add("Shell", "Oak floor " + (i + 1), "oak board " + i, tones[i]);
        k.add("Shell", "Floor slab", "concrete", new MeshBuilder().box(-WALL, -WALL, -0.35, W + WALL, L + WALL, -0.024));
    }

    private static void walls(Kit k) {
        MeshBuilder in = new MeshBuilder(), out = new MeshBuilder();
        double top = H + 0.1, low = -0.3;
        // West, solid.
        in.quad(p(0, L, low), p(0, 0, low), p(0, 0, top), p(0, L, top));
        // East: piers, parapets and lintels between the splayed reveals.
        double y0 = 0;
        for (int i = 0; i <= WINDOWS.length; i++) {
            double y1 = i < WINDOWS.length ? WINDOWS[i] - HALF - SPLAY : L;
            in.quad(p(W, y0, low), p(W, y1, low), p(W, y1, top), p(W, y0, top), y0, 0);
            if (i < WINDOWS.length) {
                double a = WINDOWS[i] - HALF - SPLAY, b = WINDOWS[i] + HALF + SPLAY, ai = WINDOWS[i] - HALF, bi = WINDOWS[i] + HALF,
                        X = W + WALL - 0.1;
                double h = HEAD + SPLAY;
                in.quad(p(W, a, low), p(W, b, low), p(W, b, SILL), p(W, a, SILL), a, 0);
                in.quad(p(W, a, h), p(W, b, h), p(W, b, top), p(W, a, top), a, 0);
                in.quad(p(X, ai, SILL), p(W, a, SILL), p(W, a, h), p(X, ai, HEAD));
                in.quad(p(W, b, SILL), p(X, bi, SILL), p(X, bi, HEAD), p(W, b, h));
                in.quad(p(X, ai, HEAD), p(W, a, h), p(W, b, h), p(X, bi, HEAD));
                in.quad(p(W, a, SILL), p(X, ai, SILL), p(X, bi, SILL), p(W, b, SILL));
                // Outer reveal, square, in brick.
                double o = W + WALL + 0.02;
                out.quad(p(X, ai, SILL), p(X, ai, HEAD), p(o, ai, HEAD), p(o, ai, SILL));
                out.quad(p(X, bi, HEAD), p(X, bi, SILL), p(o, bi, SILL), p(o, bi, HEAD));
                out.quad(p(X, bi, HEAD), p(o, bi, HEAD), p(o, ai, HEAD), p(X, ai, HEAD));
                y0 = b;
            }
        }
        // South, with the entrance; north, with the niche.
        in.quad(p(0, 0, low), p(6.2, 0, low), p(6.2, 0, top), p(0, 0, top));
        in.quad(p(8.6, 0, low), p(W, 0, low), p(W, 0, top), p(8.6, 0, top));
        in.quad(p(6.2, 0, 2.32), p(8.6, 0, 2.32), p(8.6, 0, top), p(6.2, 0, top));
        in.quad(p(6.2, 0, -0.02), p(6.2, -WALL, -0.02), p(6.2, -WALL, 2.32), p(6.2, 0, 2.32));
        in.quad(p(8.6, -WALL, -0.02), p(8.6, 0, -0.02), p(8.6, 0, 2.32), p(8.6, -WALL, 2.32));
        in.quad(p(6.2, 0, 2.32), p(6.2, -WALL, 2.32), p(8.6, -WALL, 2.32), p(8.6, 0, 2.32));
        in.quad(p(3.1, L, low), p(0, L, low), p(0, L, top), p(3.1, L, top));
        in.quad(p(W, L, low), p(6.1, L, low), p(6.1, L, top), p(W, L, top));
        in.quad(p(6.1, L, 2.25), p(3.1, L, 2.25), p(3.1, L, top), p(6.1, L, top));
        k.add("Shell", "Plaster walls", "lime plaster", in);
        // Outer skin behind the bricks; it stands off the plaster by the wall's thickness and closes every side.
        double X = W + WALL, Y = L + WALL + 0.3, t = 5.9;
        out.box(-WALL, -WALL, low, -WALL + 0.02, Y, t, 0, 0, 63);
        out.box(-WALL, Y - 0.02, low, X, Y, t, 0, 0, 63);
        for (double[] s : new double[][] {{-WALL, 6.2, low, t}, {8.6, X, low, t}, {6.2, 8.6, 2.32, t}})
            out.box(s[0], -WALL, s[2], s[1], -WALL + 0.02, s[3], 0, 0, 63);
        double y = -WALL;
        for (int i = 0; i <= WINDOWS.length; i++) {
            double y1 = i < WINDOWS.length ? WINDOWS[i] - HALF : Y;
            out.box(X - 0.02, y, low, X, y1, t, 0, 0, 63);
            if (i == WINDOWS.length) break;
            out.box(X - 0.02, y1, low, X, y1 + 2 * HALF, SILL, 0, 0, 63);
            out.box(X - 0.02, y1, HEAD, X, y1 + 2 * HALF, t, 0, 0, 63);
            y = y1 + 2 * HALF;
        }
        k.add("Shell", "Outer skin", "mortar", out);
        Bricks.wall(k, "East facade", p(X, -WALL, 0), p(0, 1, 0), p(1, 0, 0), Y + WALL, 5.9, holes());
        Bricks.wall(k, "South facade", p(-WALL, -WALL, 0), p(1, 0, 0), p(0, -1, 0), X + WALL, 5.9,
                new double[][] {{6.2 + WALL, 0, 8.6 + WALL, 2.32}});
    }

    private static double[][] holes() {
        double[][] h = new double[WINDOWS.length][];
        for (int i = 0; i < h.length; i++) h[i] = new double[] {WINDOWS[i] - HALF + WALL, SILL, WINDOWS[i] + HALF + WALL, HEAD};
        return h;
    }

    private static void roof(Kit k) {
        MeshBuilder b = new MeshBuilder();
        double x0 = 0.2, x1 = 1.5, y0 = 2.7, y1 = 15.1, t = 5.78, Y = L + WALL + 0.3;
        b.box(-WALL, -WALL, H, x0, Y, t).box(x1, -WALL, H, W + WALL, Y, t);
        b.box(x0, -WALL, H, x1, y0, t).box(x0, y1, H, x1, Y, t);
        // The splayed shaft, its outer skin and the curb that holds the glass.
        double a0 = 0.4, a1 = 1.3, b0 = 2.9, b1 = 14.9, z = 6.2;
        b.quad(p(x0, y1, H), p(x0, y0, H), p(a0, b0, z), p(a0, b1, z));
        b.quad(p(x1, y0, H), p(x1, y1, H), p(a1, b1, z), p(a1, b0, z));
        b.quad(p(x0, y0, H), p(x1, y0, H), p(a1, b0, z), p(a0, b0, z));
        b.quad(p(x1, y1, H), p(x0, y1, H), p(a0, b1, z), p(a1, b1, z));
        k.add("Shell", "Ceiling and roof", "lime plaster", b);
        MeshBuilder c = new MeshBuilder();
        c.box(x0 - 0.1, y0 - 0.1, t - 0.02, a0, y1 + 0.1, z + 0.02).box(a1, y0 - 0.1, t - 0.02, x1 + 0.1, y1 + 0.1, z + 0.02);
        c.box(a0, y0 - 0.1, t - 0.02, a1, b0, z + 0.02).box(a0, b1, t - 0.02, a1, y1 + 0.1, z + 0.02);
        for (double e : new double[] {-WALL - 0.04, W + WALL - 0.01}) c.box(e, -WALL - 0.04, 5.72, e + 0.05, Y + 0.04, 5.96);
        for (double e : new double[] {-WALL - 0.04, Y - 0.01}) c.box(-WALL - 0.04, e, 5.72, W + WALL + 0.04, e + 0.05, 5.96);
        k.add("Shell", "Copings", "dark steel", c);
        k.add("Shell", "Roof glass", "float glass", new MeshBuilder().quad(p(a0, b0, z - 0.02), p(a1, b0, z - 0.02), p(a1, b1, z - 0.02),
                p(a0, b1, z - 0.02)));
        MeshBuilder beams = new MeshBuilder();
        for (int i = 0; i < 7; i++) {
            double y = 1.95 * (i + 1);
            beams.box(-0.02, y - 0.09, H - 0.52, W + 0.02, y + 0.09, H + 0.02, i * 0.7, i * 0.4, 63);
        }
        k.add("Joinery", "Glulam beams", "glulam", beams);
    }

    private static void windows(Kit k) {
        MeshBuilder f = new MeshBuilder(), g = new MeshBuilder(), bench = new MeshBuilder();
        double x0 = W + WALL - 0.16, x1 = W + WALL - 0.07;
        for (double c : WINDOWS) {
            double a = c - HALF, b = c + HALF;
            f.box(x0, a - 0.03, SILL - 0.01, x1, a + 0.06, HEAD + 0.01).box(x0, b - 0.06, SILL - 0.01, x1, b + 0.03, HEAD + 0.01);
            f.box(x0 + 0.002, a, SILL - 0.03, x1 + 0.03, b, SILL + 0.06).box(x0 + 0.002, a, HEAD - 0.06, x1 - 0.002, b, HEAD + 0.03);
            f.box(x0 + 0.004, a, 3.1, x1 - 0.004, b, 3.155).box(x0 + 0.006, c - 0.0275, SILL, x1 - 0.006, c + 0.0275, 3.12);
            // Two panes, 16 mm apart, let into the frame.
            for (double x : new double[] {x0 + 0.037, x0 + 0.053})
                g.quad(p(x, a + 0.05, SILL + 0.05), p(x, b - 0.05, SILL + 0.05), p(x, b - 0.05, HEAD - 0.05), p(x, a + 0.05, HEAD - 0.05));
            bench.box(W - 0.12, a - SPLAY + 0.005, SILL - 0.045, x0 - 0.01, b + SPLAY - 0.005, SILL + 0.004, c, 0, 63);
        }
        k.add("Joinery", "Window frames", "oak", f);
        k.add("Joinery", "Window panes", "float glass", g);
        k.add("Joinery", "Window benches", "oak", bench);
        int cushion = k.mesh("Cushion", "linen", new MeshBuilder().cushion(Vec3.ZERO, 0.17, 0.62, 0.055, 14));
        int bolster = k.mesh("Bolster", "linen blue", new MeshBuilder().cushion(Vec3.ZERO, 0.07, 0.2, 0.17, 12));
        for (int i = 0; i < WINDOWS.length; i++) {
            k.place("Cushion " + (i + 1), cushion, "Furniture", Affine.translation(W + 0.07, WINDOWS[i], SILL + 0.048));
            if (i != 2) k.place("Bolster " + (i + 1), bolster, "Furniture",
                    Affine.translation(W + 0.12, WINDOWS[i] + (i % 2 == 0 ? 0.5 : -0.5), SILL + 0.25)
                    .times(Affine.rotation(Vec3.UP, i % 2 == 0 ? 1.2 : -1.3)).times(Affine.rotation(p(0, 1, 0), 0.25)));
        }
        MeshBuilder rail = new MeshBuilder();
        for (int w : new int[] {1, 3}) {
            double c = WINDOWS[w];
            rail.tube(p(W - 0.07, c - 1.05, 4.36), p(W - 0.07, c + 1.05, 4.36), 0.012, 0.012, 10);
            for (double e : new double[] {-1.0, 1.0}) rail.tube(p(W + 0.01, c + e, 4.36), p(W - 0.07, c + e, 4.36), 0.008, 0.008, 8);
            curtain(k, c + (w == 1 ? -0.68 : 0.68), w);
        }
        k.add("Curtains", "Curtain rails", "brass", rail);
    }

    /** A third of the window's width, in soft folds that open out towards the floor. */
    private static void curtain(Kit k, double middle, int seed) {
        MeshBuilder b = new MeshBuilder().surface(220, 44, (u, v) -> {
            double z = 0.06 + v * 4.28, spread = 0.30 + 0.05 * (1 - v), fold = 0.045 + 0.02 * (1 - v);
            double wave = Math.sin(u * 2 * Math.PI * 8 + 0.5 * Math.sin(3 * v + seed)) + 0.25
                    * Math.sin(u * 2 * Math.PI * 19 + seed + 2 * v);
            return new Vec3(W - 0.07 - fold * wave, middle + (u - 0.5) * 2 * spread, z);
        });
        k.add("Curtains", "Curtain " + seed, "curtain", b);
    }

    private static void gallery(Kit k) {
        k.add("Shell", "Gallery slab", "concrete", new MeshBuilder().box(-0.02, -0.02, 2.42, W + 0.02, 2.4, 2.6));
        k.add("Joinery", "Gallery floor", "oak", new MeshBuilder().box(0, 0, 2.59, W, 2.42, 2.62));
        MeshBuilder rail = new MeshBuilder();
        for (double x = 0.06; x < W; x += 0.11) rail.tube(p(x, 2.37, 2.61), p(x, 2.37, 3.6), 0.006, 0.006, 6);
        rail.box(0, 2.35, 3.6, W, 2.39, 3.612).box(0, 2.355, 2.68, W, 2.385, 2.69);
        k.add("Joinery", "Gallery rail", "dark steel", rail);
        MeshBuilder slats = new MeshBuilder();
        for (double x = 3.06; x < 6.0; x += 0.09) slats.box(x, 2.22, 0, x + 0.03, 2.28, 2.43, x * 3, x, 62);
        slats.box(3.0, 2.215, -0.01, 6.06, 2.285, 0.05);
        k.add("Joinery", "Slatted screen", "oak", slats);
    }

    private static void lobby(Kit k) {
        double x0 = 6.2, x1 = 8.6, y1 = 1.8, h = 2.4;
        MeshBuilder f = new MeshBuilder(), g = new MeshBuilder();
        double e = 0.02;
        for (double[] c : new double[][] {{x0, y1}, {x1, y1}, {x0, 0.02}, {x1, 0.02}, {7.0, y1}, {7.8, y1}, {x0, 0.9}, {x1, 0.9}})
            f.box(c[0] - e, c[1] - e, -0.01, c[0] + e, c[1] + e, h + 0.03);
        f.box(x0, y1 - 0.015, h - 0.04, x1, y1 + 0.015, h + 0.01).box(x0 - 0.015, 0, h - 0.04, x0 + 0.015, y1, h + 0.01)
                .box(x1 - 0.015, 0, h - 0.04, x1 + 0.015, y1, h + 0.01);
        f.box(x0, y1 - 0.015, 0, x1, y1 + 0.015, 0.03).box(x0 - 0.015, 0, 0, x0 + 0.015, y1, 0.03)
                .box(x1 - 0.015, 0, 0, x1 + 0.015, y1, 0.03);
        f.tube(p(7.06, y1 + 0.05, 0.85), p(7.06, y1 + 0.05, 1.45), 0.012, 0.012, 10)
                .tube(p(7.74, y1 + 0.05, 0.85), p(7.74, y1 + 0.05, 1.45), 0.012, 0.012, 10);
        g.quad(p(x1, y1, 0), p(x0, y1, 0), p(x0, y1, h), p(x1, y1, h)).quad(p(x0, y1, 0), p(x0, 0, 0), p(x0, 0, h), p(x0, y1, h))
                .quad(p(x1, 0, 0), p(x1, y1, 0), p(x1, y1, h), p(x1, 0, h));
        // The outer doors stand in the wall.
        for (double x : new double[] {6.24, 7.02, 7.38, 7.42, 7.78, 8.56}) f.box(x - 0.03, -0.30, -0.01, x + 0.03, -0.24, 2.33);
        f.box(6.2, -0.295, 2.24, 8.6, -0.245, 2.33).box(6.2, -0.295, -0.01, 8.6, -0.245, 0.08);
        g.quad(p(6.2, -0.27, 0), p(8.6, -0.27, 0), p(8.6, -0.27, 2.3), p(6.2, -0.27, 2.3));
        for (double x : new double[] {7.30, 7.50}) f.tube(p(x, -0.34, 0.8), p(x, -0.34, 1.5), 0.014, 0.014, 10);
        k.add("Joinery", "Lobby frame", "brass", f);
        k.add("Joinery", "Lobby glass", "float glass", g);
        k.add("Shell", "Entrance mat", "linen blue", new MeshBuilder().box(6.5, 0.2, -0.01, 8.3, 1.6, 0.008));
        k.add("Shell", "Entrance step", "terrazzo", new MeshBuilder().box(5.9, -1.5, -0.2, 8.9, -0.2, -0.015));
    }

    private static void niche(Kit k) {
        MeshBuilder b = new MeshBuilder();
        double x0 = 3.1, x1 = 6.1, y = L, back = L + 0.5, h = 2.25;
        b.box(x0 - 0.04, y - 0.03, -0.2, x0 + 0.05, back, h).box(x1 - 0.05, y - 0.03, -0.2, x1 + 0.04, back, h);
        b.box(x0 - 0.04, y - 0.03, h - 0.05, x1 + 0.04, back, h + 0.06).box(x0, back - 0.05, -0.2, x1, back + 0.1, h + 0.02);
        b.box(x0 - 0.2, y - 0.35, -0.02, x1 + 0.2, back, 0.06).box(x0 + 0.04, back - 0.34, 0.05, x1 - 0.04, back - 0.02, 0.42);
        k.add("Shell", "Terrazzo niche", "terrazzo", b);
    }
}
