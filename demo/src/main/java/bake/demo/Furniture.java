package bake.demo;

import bake.core.math.Affine;
import bake.core.math.Vec3;

/** Tables, chairs, the study nook and the small things that show someone reads here. */
final class Furniture {
    static final double TABLE_X = 4.8, TABLE_TOP = 0.75;
    static final double[] TABLE_Y = {4.4, 7.6, 10.8};

    private Furniture() {}

    private static Vec3 p(double x, double y, double z) {
        return new Vec3(x, y, z);
    }

    static void build(Kit k) {
        tables(k);
        chairs(k);
        nook(k);
        onTheTables(k);
    }

    private static void tables(Kit k) {
        MeshBuilder b = new MeshBuilder();
        double w = 0.45, l = 1.2;
        // A top with chamfered edges, an apron set back, and four tapered legs.
        double c = 0.006, t = TABLE_TOP, u = t - 0.035;
        b.box(-w + c, -l + c, u, w - c, l - c, t, 0.3, 0, 3);
        double[][] ring = {{-w, -l}, {w, -l}, {w, l}, {-w, l}};
        for (int i = 0; i < 4; i++) {
            double[] q = ring[i], r = ring[(i + 1) % 4];
            Vec3 a0 = p(q[0], q[1], u), a1 = p(r[0], r[1], u), b0 = p(q[0], q[1], t - c), b1 = p(r[0], r[1], t - c);
            b.quad(a0, a1, b1, b0).quad(b0, b1, inset(r, c, t), inset(q, c, t));
        }
        b.box(-w + 0.08, -l + 0.08, u - 0.08, w - 0.08, l - 0.08, u + 0.001, 0, 0, 60);
        for (double[] q : ring) b.tube(p(q[0] * 0.84, q[1] * 0.93, u), p(q[0] * 0.9, q[1] * 0.955, 0.0005), 0.032, 0.019, 14);
        int table = k.mesh("Table", "oak", b);
        for (double y : TABLE_Y) k.place("Table", table, "Furniture", Affine.translation(TABLE_X, y, 0));
    }

    private static Vec3 inset(double[] q, double c, double z) {
        return p(q[0] - Math.signum(q[0]) * c, q[1] - Math.signum(q[1]) * c, z);
    }

    private static void chairs(Kit k) {
        MeshBuilder oak = new MeshBuilder(), seat = new MeshBuilder();
        // Faces +x in its own frame; origin on the floor under the seat.
        for (double s : new double[] {-1, 1}) {
            oak.tube(p(0.19, s * 0.2, 0.0005), p(0.175, s * 0.19, 0.44), 0.014, 0.018, 12);
            oak.tube(p(-0.21, s * 0.19, 0.0005), p(-0.185, s * 0.185, 0.46), 0.014, 0.017, 12)
                    .tube(p(-0.185, s * 0.185, 0.45), p(-0.235, s * 0.2, 0.80), 0.017, 0.012, 12);
            oak.tube(p(0.18, s * 0.192, 0.22), p(-0.197, s * 0.187, 0.25), 0.009, 0.009, 10);
        }
        oak.tube(p(0.176, -0.19, 0.41), p(0.176, 0.19, 0.41), 0.014, 0.014, 10)
                .tube(p(-0.188, -0.185, 0.41), p(-0.188, 0.185, 0.41), 0.014, 0.014, 10);
        for (double s : new double[] {-1, 1}) oak.tube(p(0.176, s * 0.19, 0.415), p(-0.188, s * 0.185, 0.415), 0.014, 0.014, 10);
        for (double side : new double[] {1, -1})
            oak.surface(18, 6, (u, v) -> {
                double y = (u - 0.5) * 0.46 * side, z = 0.665 + v * 0.145 + 0.02 * Math.sin(Math.PI * u),
                        bend = 0.055 * (1 - Math.pow(2 * u - 1, 2));
                double thick = 0.009 * Math.sqrt(Math.max(0, 1 - Math.pow(2 * v - 1, 4)));
                return p(-0.215 - bend - 0.03 * v - side * thick, y, z);
            });
        seat.cushion(p(-0.006, 0, 0.437), 0.195, 0.20, 0.016, 12);
        int a = k.mesh("Chair", "oak", oak), b = k.mesh("Chair seat", "woven seat", seat);
        Noise.Stream r = new Noise.Stream(18);
        int n = 0;
        for (double y : TABLE_Y)
            for (int side = -1; side <= 1; side += 2)
                for (int i = -1; i <= 1; i++) {
                    double out = r.next() < 0.2 ? 0.28 : r.range(0.04, 0.12),
                            turn = r.range(-0.12, 0.12) + (out > 0.2 ? r.range(-0.5, 0.5) : 0);
                    Affine f = Affine.translation(TABLE_X + side * (0.45 + out), y + i * 0.75 + r.range(-0.04, 0.04), 0)
                            .times(Affine.rotation(Vec3.UP, (side > 0 ? Math.PI : 0) + turn));
                    n++;
                    k.place("Chair " + n, a, "Furniture", f);
                    k.place("Chair seat " + n, b, "Furniture", f);
                }
    }

    private static void nook(Kit k) {
        k.add("Furniture", "Rug", "rug", rug());
        Affine f = Affine.translation(4.55, 14.25, 0.012).times(Affine.rotation(Vec3.UP, -Math.PI / 2 - 0.35));
        MeshBuilder frame = new MeshBuilder(), skin = new MeshBuilder();
        for (double s : new double[] {-1, 1}) {
            frame.tube(p(0.33, s * 0.33, 0), p(0.28, s * 0.32, 0.56), 0.016, 0.02, 12)
                    .tube(p(-0.42, s * 0.33, 0), p(-0.30, s * 0.32, 0.54), 0.016, 0.02, 12);
            frame.surface(16, 6, (u, v) -> p(-0.34 + 0.7 * v, s * 0.325 + 0.032 * Math.cos(2 * Math.PI * u) * s,
                    0.565 + 0.012 * Math.sin(2 * Math.PI * u) * s * s + 0.02 * v));
            frame.tube(p(0.3, s * 0.31, 0.3), p(-0.36, s * 0.31, 0.24), 0.014, 0.014, 10);
        }
        frame.tube(p(0.29, -0.32, 0.3), p(0.29, 0.32, 0.3), 0.014, 0.014, 10)
                .tube(p(-0.34, -0.32, 0.26), p(-0.34, 0.32, 0.26), 0.014, 0.014, 10);
        skin.under(Affine.translation(0, 0, 0.35).times(Affine.rotation(p(0, 1, 0), 0.10))).cushion(Vec3.ZERO, 0.33, 0.285, 0.075, 16);
        skin.under(Affine.translation(-0.36, 0, 0.66).times(Affine.rotation(p(0, 1, 0), -1.28))).cushion(Vec3.ZERO, 0.36, 0.285, 0.07, 16);
        int a = k.mesh("Lounge chair", "oak", frame), b = k.mesh("Lounge chair leather", "leather", skin);
        k.place("Lounge chair", a, "Furniture", f);
        k.place("Lounge chair leather", b, "Furniture", f);
        k.add("Furniture", "Side table", "oak", new MeshBuilder().turned(p(5.45, 13.95, 0.012), 40, 0.13, 0, 0.13, 0.012, 0.018, 0.03,
                0.016, 0.47, 0.06, 0.475, 0.225, 0.478, 0.23, 0.484, 0.228, 0.496, 0.0005, 0.497));
        openBook(k, p(5.42, 13.88, 0.5095), 0.5, "Open book on the side table");
        cup(k, p(5.54, 14.07, 0.5095));
    }

    private static MeshBuilder rug() {
        double x0 = 3.35, y0 = 12.75, w = 2.0 + 0.6, l = 2.5;
        return new MeshBuilder().surface(40, 40, (u, v) -> {
            double edge = Math.min(Math.min(u, 1 - u), Math.min(v, 1 - v)) * 40;
            return p(x0 + u * w, y0 + v * l, 0.0012 + 0.010 * Math.min(1, edge) + 0.0007 * Math.sin(u * 17) * Math.sin(v * 13));
        });
    }

    private static void cup(Kit k, Vec3 at) {
        k.add("Furniture", "Cup", "white clay", new MeshBuilder().turned(at, 28, 0.0005, 0.001, 0.024, 0.0012, 0.036, 0.012, 0.041, 0.05,
                0.042, 0.085, 0.0395, 0.0855, 0.038, 0.05, 0.033, 0.014, 0.0005, 0.010));
    }

    private static void openBook(Kit k, Vec3 at, double turn, String name) {
        Affine f = Affine.translation(at.x(), at.y(), at.z()).times(Affine.rotation(Vec3.UP, turn));
        MeshBuilder pages = new MeshBuilder().under(f), cover = new MeshBuilder().under(f);
        for (double s : new double[] {-1, 1})
            pages.surface(14, 1, (u, v) -> {
                double q = s > 0 ? u : 1 - u, x = s * q * 0.155, z = 0.006 + 0.016 * Math.sin(Math.PI * Math.min(1, q * 1.25 + 0.12))
                        * (1 - 0.55 * q);
                return p(x, (v - 0.5) * 0.22, z);
            });
        cover.box(-0.16, -0.115, 0, 0.16, 0.115, 0.005);
        k.add("Furniture", name, "printed page", pages);
        k.add("Furniture", name + ", cover", "cloth 7", cover);
    }

    private static void onTheTables(Kit k) {
        double t = TABLE_TOP + 0.0005;
        openBook(k, p(TABLE_X - 0.22, 4.05, t), Math.PI / 2 + 0.2, "Open book 1");
        openBook(k, p(TABLE_X + 0.2, 7.95, t), -Math.PI / 2 - 0.1, "Open book 2");
        openBook(k, p(TABLE_X - 0.2, 11.1, t), Math.PI / 2, "Open book 3");
        // A globe on a brass foot.
        Vec3 g = p(TABLE_X + 0.02, 5.35, t);
        k.add("Furniture", "Globe", "globe",
                new MeshBuilder().under(Affine.translation(g.x(), g.y(), g.z() + 0.22).times(Affine.rotation(p(1, 0.4, 0), 0.41)))
                .surface(48, 24, (u, v) -> p(0.13 * Math.cos(2 * Math.PI * u) * Math.cos(Math.PI * (v - 0.5)),
                0.13 * Math.sin(2 * Math.PI * u) * Math.cos(Math.PI * (v - 0.5)), 0.13 * Math.sin(Math.PI * (v - 0.5)))));
        k.add("Furniture", "Globe foot", "brass", new MeshBuilder().turned(g, 28, 0.09, 0, 0.09, 0.008, 0.02, 0.02, 0.012, 0.085, 0.02,
                0.092, 0.0005, 0.093));
        bowl(k, p(TABLE_X, 7.6, t));
        vase(k, p(TABLE_X - 0.02, 10.8, t));
        Noise.Stream r = new Noise.Stream(55);
        int n = 0;
        for (double[] s : new double[][] {{TABLE_X + 0.18, 4.55}, {TABLE_X - 0.2, 8.35}, {TABLE_X + 0.16, 10.3}}) {
            double z = t;
            for (int i = 0; i < 4; i++) {
                double h = r.range(0.018, 0.035), turn = r.range(-0.5, 0.5);
                MeshBuilder c = new MeshBuilder().under(Affine.translation(s[0], s[1], z).times(Affine.rotation(Vec3.UP, turn)));
                c.box(-0.08, -0.115, 0, 0.08, 0.115, 0.003).box(-0.08, -0.115, h - 0.003, 0.08, 0.115, h)
                        .box(-0.082, -0.115, 0, -0.0785, 0.115, h);
                MeshBuilder q = new MeshBuilder().under(Affine.translation(s[0], s[1], z).times(Affine.rotation(Vec3.UP, turn)))
                        .box(-0.079, -0.112, 0.0025, 0.076, 0.112, h - 0.0025, 0, 0, 60);
                k.add("Furniture", "Pile " + n, "cloth " + (n * 7 % 60), c);
                k.add("Furniture", "Pile pages " + n++, "paper", q);
                z += h + 0.0006;
            }
        }
    }

    private static void bowl(Kit k, Vec3 at) {
        k.add("Furniture", "Bowl", "glazed clay", new MeshBuilder().turned(at, 48, 0.0005, 0, 0.05, 0.001, 0.055, 0.008, 0.10, 0.03, 0.15,
                0.075, 0.153, 0.078, 0.150, 0.079, 0.098, 0.038, 0.05, 0.016, 0.0005, 0.013));
    }

    private static void vase(Kit k, Vec3 at) {
        k.add("Furniture", "Vase", "white clay", new MeshBuilder().turned(at, 40, 0.0005, 0, 0.05, 0.0005, 0.062, 0.02, 0.085, 0.09, 0.08,
                0.15, 0.045, 0.21, 0.033, 0.25, 0.04, 0.275, 0.036, 0.276, 0.030, 0.25, 0.04, 0.2, 0.0005, 0.12));
        MeshBuilder twigs = new MeshBuilder(), leaves = new MeshBuilder();
        Noise.Stream r = new Noise.Stream(91);
        for (int i = 0; i < 9; i++) {
            double t = r.range(0, 2 * Math.PI), lean = r.range(0.15, 0.5);
            Vec3 a = at.plus(p(0, 0, 0.15)), d = p(Math.cos(t) * lean, Math.sin(t) * lean, 1).normalized();
            for (int s = 0; s < 6; s++) {
                double len = 0.11;
                Vec3 b = a.plus(d.times(len));
                if (s == 0) b = at.plus(p(Math.cos(t) * 0.018, Math.sin(t) * 0.018, 0.275));
                twigs.tube(a, b, 0.0026 - 0.0003 * s, 0.0023 - 0.0003 * s, 6);
                if (s > 1) for (int l = 0; l < 4; l++) Planting.leaf(leaves, a.plus(b.minus(a).times(r.next())), r, 0.028, 0.016);
                a = b;
                d = d.plus(p(r.range(-0.3, 0.3), r.range(-0.3, 0.3), r.range(-0.15, 0.05))).normalized();
            }
        }
        k.add("Furniture", "Branches", "twig", twigs);
        k.add("Furniture", "Branch leaves", "birch leaf dark", leaves);
    }
}
