package bake.demo;

import bake.core.math.Affine;
import bake.core.math.Vec3;

/** Trees, hedge, ferns and grass, each a few meshes placed many times. */
final class Planting {
    private Planting() {}

    private static Vec3 p(double x, double y, double z) {
        return new Vec3(x, y, z);
    }

    static void build(Kit k) {
        trees(k);
        hedge(k);
        ferns(k);
        grass(k);
    }

    /** A folded leaf of two triangles pointing any way. */
    static void leaf(MeshBuilder b, Vec3 at, Noise.Stream r, double length, double width) {
        double t = r.range(0, 2 * Math.PI), z = r.range(-0.9, 0.6), s = Math.sqrt(1 - z * z);
        Vec3 d = p(s * Math.cos(t), s * Math.sin(t), z), side = d.cross(p(r.range(-1, 1), r.range(-1, 1), r.range(-1, 1))).normalized();
        Vec3 n = side.cross(d).normalized();
        Vec3 mid = at.plus(d.times(length * 0.45)), tip = at.plus(d.times(length));
        int a = b.vertex(at, n, 0.5, 0), c = b.vertex(mid.plus(side.times(width / 2)).plus(n.times(width * 0.15)), n.plus(side.times(-0.3)),
                1, 0.5);
        int e = b.vertex(tip, n, 0.5, 1), f = b.vertex(mid.minus(side.times(width / 2)).plus(n.times(width * 0.15)),
                n.plus(side.times(0.3)), 0, 0.5);
        b.triangle(a, c, e);
        b.triangle(a, e, f);
    }

    private static void trees(Kit k) {
        MeshBuilder wood = new MeshBuilder(), twigs = new MeshBuilder(), light = new MeshBuilder(), dark = new MeshBuilder();
        Noise.Stream r = new Noise.Stream(7);
        Vec3[] trunk = new Vec3[17];
        for (int i = 0; i < trunk.length; i++) {
            double h = 7.6 * i / (trunk.length - 1.0);
            trunk[i] = p(0.16 * Math.sin(h * 0.9) + 0.02 * h, 0.13 * Math.sin(h * 0.7 + 1), h - 0.1);
        }
        for (int i = 0; i + 1 < trunk.length; i++)
            wood.tube(trunk[i], trunk[i + 1], 0.095 * (1 - i / 17.5), 0.095 * (1 - (i + 1) / 17.5), 12);
        for (int i = 0; i < 80; i++) {
            double h = 1.9 + 5.6 * Math.pow((i + 0.5) / 80, 0.9), reach =
                    2.0 * Math.sin(Math.PI * Math.clamp((8.3 - h) / 7.4, 0, 1)) * r.range(0.75, 1.1), t = i * 2.39996 + r.range(-0.3, 0.3);
            Vec3 a = on(trunk, h), d = p(Math.cos(t), Math.sin(t), 0.75).normalized();
            int steps = 6;
            for (int s = 0; s < steps; s++) {
                Vec3 b = a.plus(d.times(reach / steps));
                twigs.tube(a, b, 0.017 * (1 - s / 6.4) * (1 - h / 12), 0.017 * (1 - (s + 1) / 6.4) * (1 - h / 12), 5);
                if (s > 0)
                    for (int q = 0; q < 31; q++) {
                        Vec3 at = a.plus(b.minus(a).times(r.next())).plus(p(r.range(-1, 1), r.range(-1, 1), r.range(-1.2, 0.5))
                                .times(0.20));
                        leaf(r.next() < 0.5 ? light : dark, at, r, r.range(0.045, 0.07), r.range(0.03, 0.045));
                    }
                a = b;
                d = d.plus(p(r.range(-0.25, 0.25), r.range(-0.25, 0.25), -0.17)).normalized();
            }
        }
        int[] m = {k.mesh("Birch trunk", "birch bark", wood), k.mesh("Birch twigs", "twig", twigs),
                k.mesh("Birch leaves, light", "birch leaf light", light), k.mesh("Birch leaves, dark", "birch leaf dark", dark)};
        double[][] at = {{12.3, 11.3, 0.4, 1.0}, {18.6, 10.9, 2.5, 1.08}, {19.6, 4.6, 4.4, 0.93}};
        for (int i = 0; i < at.length; i++) {
            Affine f = Affine.translation(at[i][0], at[i][1], 0).times(Affine.rotation(Vec3.UP, at[i][2]))
                    .times(Affine.scale(at[i][3], at[i][3], at[i][3]));
            for (int q : m) k.place("Birch " + (i + 1), q, "Planting", f);
            bed(k, at[i][0], at[i][1], i);
        }
    }

    private static void bed(Kit k, double x, double y, int i) {
        MeshBuilder b = new MeshBuilder().surface(32, 3, (u, v) -> {
            double t = 2 * Math.PI * u, r = 0.62 * (1 - v);
            return p(x + r * Math.cos(t), y + r * Math.sin(t), -0.034 + 0.07 * Math.sqrt(Math.max(0, v)));
        });
        k.add("Planting", "Tree bed " + (i + 1), "soil", b);
    }

    private static Vec3 on(Vec3[] line, double h) {
        double f = h / 7.6 * (line.length - 1);
        int i = Math.clamp((int) f, 0, line.length - 2);
        return line[i].plus(line[i + 1].minus(line[i]).times(f - i));
    }

    private static void hedge(Kit k) {
        MeshBuilder light = new MeshBuilder(), dark = new MeshBuilder(), wood = new MeshBuilder();
        Noise.Stream r = new Noise.Stream(12);
        for (int i = 0; i < 7600; i++) {
            // Leaves stand near the clipped skin of the block.
            double x = r.range(-0.27, 0.27), y = r.range(-0.52, 0.52), z = r.range(0.05, 1.5);
            int face = r.below(5);
            if (face < 2) x = 0.29 * (face * 2 - 1) + r.range(-0.05, 0.03);
            else if (face == 2) z = 1.5 + r.range(-0.06, 0.04);
            leaf(r.next() < 0.55 ? light : dark, p(x, y, z), r, r.range(0.045, 0.07), r.range(0.028, 0.04));
        }
        for (int i = 0; i < 8; i++) wood.tube(p(r.range(-0.1, 0.1), r.range(-0.5, 0.5), -0.1),
                p(r.range(-0.2, 0.2), r.range(-0.5, 0.5), 1.35), 0.014, 0.004, 5);
        int[] m = {k.mesh("Hornbeam, light", "hornbeam leaf light", light), k.mesh("Hornbeam, dark", "hornbeam leaf dark", dark),
                k.mesh("Hornbeam wood", "twig", wood)};
        for (int i = 0; i < 15; i++) {
            Affine f = Affine.translation(Court.X1 - 0.55, -0.6 + i * 1.0, 0).times(Affine.rotation(Vec3.UP, i % 2 * Math.PI))
                    .times(Affine.scale(1, 1, 1 + 0.03 * Math.sin(i * 2.1)));
            for (int q : m) k.place("Hedge " + (i + 1), q, "Planting", f);
        }
        k.add("Planting", "Hedge bed", "soil", new MeshBuilder().box(Court.X1 - 0.95, -1.4, -0.2, Court.X1 - 0.01, Court.Y1 + 0.2, -0.005));
    }

    private static void ferns(Kit k) {
        int[] m = new int[3];
        for (int s = 0; s < m.length; s++) {
            MeshBuilder b = new MeshBuilder();
            Noise.Stream r = new Noise.Stream(60 + s);
            for (int i = 0; i < 22; i++) frond(b, r, i * 2.39996, r.range(0.42, 0.68));
            m[s] = k.mesh("Fern " + (s + 1), "fern leaf", b);
        }
        Noise.Stream r = new Noise.Stream(66);
        for (int i = 0; i < 64; i++) {
            double x = Court.X0 + r.range(0.05, 0.34), y = r.range(-0.9, 15.2);
            if (i >= 34) {
                double[] bed = i % 3 == 0 ? new double[] {12.3, 11.3} : i % 3 == 1 ? new double[] {18.6, 10.9} : new double[] {19.6, 4.6};
                double t = r.range(0, 2 * Math.PI), d = r.range(0.25, 0.55);
                x = bed[0] + d * Math.cos(t);
                y = bed[1] + d * Math.sin(t);
            }
            double s = r.range(0.6, 1.05);
            k.place("Fern " + (i + 1), m[r.below(3)], "Planting", Affine.translation(x, y, -0.01)
                    .times(Affine.rotation(Vec3.UP, r.range(0, 6.2))).times(Affine.scale(s, s, s)));
        }
        k.add("Planting", "Fern bed", "soil", new MeshBuilder().box(Court.X0 + 0.0, -1.35, -0.2, Court.X0 + 0.42, Court.Y1, -0.008));
    }

    /** One arching frond with leaflets in pairs, shorter to the tip. */
    private static void frond(MeshBuilder b, Noise.Stream r, double turn, double length) {
        double rise = r.range(0.6, 1.2);
        Vec3 out = p(Math.cos(turn), Math.sin(turn), 0), across = p(-Math.sin(turn), Math.cos(turn), 0), last = Vec3.ZERO;
        int n = 16;
        for (int i = 1; i <= n; i++) {
            double t = (double) i / n;
            Vec3 at = out.times(length * (t * 0.9)).plus(p(0, 0, length * rise * (t - 0.95 * t * t)));
            Vec3 along = at.minus(last).normalized();
            double size = 0.11 * length / 0.55 * Math.sin(Math.PI * Math.min(1, 0.12 + t * 0.92));
            for (int s = -1; s <= 1; s += 2) {
                Vec3 tip = at.plus(across.times(s * size)).plus(along.times(size * 0.35)).plus(p(0, 0, -0.15 * size)),
                        mid = at.plus(tip.minus(at).times(0.4));
                Vec3 n2 = across.cross(along).normalized();
                int a = b.vertex(at, n2, 0, 0), c = b.vertex(mid.plus(along.times(0.012)), n2, 0.5, 1), d = b.vertex(tip, n2, 1, 0.5),
                        e = b.vertex(mid.minus(along.times(0.012)), n2, 0.5, 0);
                if (size < 1e-3) continue;
                // Wound so that the upper side is the front on both sides of the stalk.
                b.triangle(a, s > 0 ? e : d, s > 0 ? d : e);
                b.triangle(a, s > 0 ? d : c, s > 0 ? c : d);
            }
            last = at;
        }
    }

    private static void grass(Kit k) {
        MeshBuilder b = new MeshBuilder();
        Noise.Stream r = new Noise.Stream(31);
        for (int i = 0; i < 46; i++) {
            double t = r.range(0, 6.28), d = 0.035 * Math.sqrt(r.next()), h = r.range(0.03, 0.085), lean = r.range(0.1, 0.7),
                    f = r.range(0, 6.28);
            Vec3 a = p(d * Math.cos(t), d * Math.sin(t), -0.035), side = p(Math.cos(f), Math.sin(f), 0).times(0.0022),
                    tip = a.plus(p(-Math.sin(f) * lean * h, Math.cos(f) * lean * h, h)),
                    mid = a.plus(tip.minus(a).times(0.5)).plus(p(0, 0, h * 0.1));
            Vec3 n = p(-Math.sin(f), Math.cos(f), 0.3).normalized();
            int q0 = b.vertex(a.minus(side), n, 0, 0), q1 = b.vertex(a.plus(side), n, 1, 0),
                    q2 = b.vertex(mid.minus(side.times(0.8)), n, 0, 0.5), q3 = b.vertex(mid.plus(side.times(0.8)), n, 1, 0.5),
                    q4 = b.vertex(tip, n, 0.5, 1);
            b.triangle(q0, q3, q1);
            b.triangle(q0, q2, q3);
            b.triangle(q2, q4, q3);
        }
        int m = k.mesh("Grass tuft", "grass blade", b);
        for (int i = 0; i < 420; i++) {
            // Tufts grow where the joints are: on the stones' long seams.
            double x = Court.X0 + 0.25 + 0.1 * (int) r.range(0, 114), y = r.range(-1.2, 15.5);
            if (x > 14.25 && x < 16.75 && y > 3.45 && y < 9.75) continue;
            if (Noise.fractal(x / 40, y / 40, 20, 2, 5) < 0.5) continue;
            double s = r.range(0.5, 1.2);
            k.place("Grass " + i, m, "Planting", Affine.translation(x, y, 0).times(Affine.rotation(Vec3.UP, r.range(0, 6.28)))
                    .times(Affine.scale(s, s, s)));
        }
        MeshBuilder wild = new MeshBuilder();
        for (int i = 0; i < 1500; i++) {
            double x = r.range(-0.25, 0.25), y = r.range(-0.25, 0.25), h = r.range(0.08, 0.3), f = r.range(0, 6.28),
                    lean = r.range(0.1, 0.6);
            Vec3 a = p(x, y, -0.02), side = p(Math.cos(f), Math.sin(f), 0).times(0.003),
                    tip = a.plus(p(-Math.sin(f) * lean * h, Math.cos(f) * lean * h, h));
            Vec3 n = p(-Math.sin(f), Math.cos(f), 0.4).normalized();
            int q0 = b0(wild, a.minus(side), n), q1 = b0(wild, a.plus(side), n), q2 = b0(wild, tip, n);
            wild.triangle(q0, q2, q1);
        }
        int w = k.mesh("Meadow grass", "grass blade", wild);
        for (int i = 0; i < 700; i++) {
            double x = r.range(-14, 40), y = r.range(-26, -1.9);
            if (x > 3.2 && x < 13.5 && y > -9.3 || x > -1.8 && x < 3.8 && y > -2.9) continue;
            double s = r.range(0.7, 1.3);
            k.place("Meadow grass " + i, w, "Planting", Affine.translation(x, y, -0.36).times(Affine.rotation(Vec3.UP, r.range(0, 6.28)))
                    .times(Affine.scale(s, s, s)));
        }
    }

    private static int b0(MeshBuilder b, Vec3 at, Vec3 n) {
        return b.vertex(at, n, 0, 0);
    }
}
