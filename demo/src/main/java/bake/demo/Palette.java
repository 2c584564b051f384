package bake.demo;

import bake.core.math.Vec3;
import bake.core.scene.Material;
import bake.core.scene.Texture;

/** Materials and their procedural textures. Reflectances are invented for the demo, in the range of real ones. */
final class Palette {
    static final int BOARD_TONES = 6, BRICK_TONES = 4, SETT_TONES = 5, CLOTHS = 60;

    private Palette() {}

    /** Colour of a texel over the unit square. */
    private interface Pattern {
        Vec3 at(double u, double v);
    }

    /** Height of a texel over the unit square, metres. */
    private interface Relief {
        double at(double u, double v);
    }

    static void fill(Kit k) {
        Material.Image oak = new Material.Image(k.texture(picture("oak", 512, 1024, Palette::oak)), 1 / 0.64, 1 / 1.28, 0, 0, 0);
        Material.Image oakAcross = new Material.Image(oak.texture(), 1 / 0.64, 1 / 1.28, 0, 0, Math.PI / 2);
        Material.Image plaster = new Material.Image(k.texture(normals("plaster relief", 512, 2.0,
                (u, v) -> 0.0022 * Noise.fractal(u, v, 10, 5, 5))), 0.5, 0.5, 0, 0, 0);
        Material.Image linen = new Material.Image(k.texture(normals("linen relief", 256, 0.04, Palette::weave)), 25, 25, 0, 0, 0);
        Material.Image terrazzo = new Material.Image(k.texture(picture("terrazzo", 512, 512, Palette::terrazzo)), 1.6, 1.6, 0, 0, 0);
        Material.Image granite = new Material.Image(k.texture(picture("granite", 512, 512, Palette::granite)), 2.5, 2.5, 0, 0, 0);
        Material.Image brick = new Material.Image(k.texture(picture("brick", 512, 512, Palette::brick)), 2, 2, 0, 0, 0);
        Material.Image concrete = new Material.Image(k.texture(picture("concrete", 512, 512, Palette::concrete)), 0.4, 0.4, 0, 0, 0);
        Material.Image rug = new Material.Image(k.texture(picture("rug", 512, 768, Palette::rug)));
        Material.Image globe = new Material.Image(k.texture(picture("globe", 512, 256, Palette::globe)));
        Material.Image page = new Material.Image(k.texture(picture("page", 256, 256, Palette::page)));
        Material.Image meadow = new Material.Image(k.texture(picture("meadow", 512, 512, Palette::meadow)), 0.12, 0.12, 0, 0, 0);
        Material.Image sign = new Material.Image(k.texture(picture("exit sign", 256, 128, Palette::sign)));

        for (int i = 0; i < BOARD_TONES; i++) {
            double t = 0.86 + 0.27 * i / (BOARD_TONES - 1.0), w = 0.03 * (i % 3 - 1);
            k.material(Material.glossy("oak board " + i, new Vec3(Math.min(1, t + w), t * 0.98, t * 0.95 - w),
                    0.30 + 0.08 * ((i * 3) % 5) / 4).withBaseImage(oak));
        }
        k.material(Material.glossy("oak", new Vec3(1, 0.97, 0.93), 0.42).withBaseImage(oak));
        k.material(Material.glossy("oak across", new Vec3(1, 0.97, 0.93), 0.42).withBaseImage(oakAcross));
        k.material(Material.glossy("glulam", new Vec3(1, 0.99, 0.92), 0.55).withBaseImage(oakAcross));
        k.material(Material.diffuse("lime plaster", new Vec3(0.80, 0.78, 0.735)).withNormalImage(plaster, 1));
        k.material(Material.diffuse("mortar", new Vec3(0.46, 0.44, 0.41)));
        Vec3[] bricks = {new Vec3(0.86, 0.82, 0.8), new Vec3(1, 0.93, 0.88), new Vec3(0.72, 0.66, 0.66), new Vec3(0.92, 0.78, 0.7)};
        for (int i = 0; i < BRICK_TONES; i++) k.material(Material.glossy("brick " + i, bricks[i], 0.85).withBaseImage(brick));
        k.material(Material.glossy("concrete", new Vec3(0.9, 0.9, 0.9), 0.75).withBaseImage(concrete));
        k.material(Material.glossy("terrazzo", new Vec3(1, 1, 1), 0.22).withBaseImage(terrazzo));
        for (int i = 0; i < SETT_TONES; i++) {
            double t = 0.72 + 0.32 * i / (SETT_TONES - 1.0);
            k.material(Material.glossy("granite " + i, new Vec3(t, Math.min(1, t * (0.99 + 0.01 * (i % 2))), Math.min(1, t * 1.01)), 0.6)
                    .withBaseImage(granite));
        }
        k.material(Material.metal("brushed steel", new Vec3(0.56, 0.57, 0.58), 0.35));
        k.material(Material.metal("dark steel", new Vec3(0.20, 0.20, 0.21), 0.42));
        k.material(Material.metal("brass", new Vec3(0.83, 0.64, 0.30), 0.22));
        k.material(Material.glass("float glass", new Vec3(0.985, 0.995, 0.99), 0, 1.52, true));
        k.material(Material.diffuse("opal shade", new Vec3(0.92, 0.90, 0.84)).withTranslucency(0.55));
        k.material(Material.diffuse("lampshade linen", new Vec3(0.86, 0.80, 0.70)).withTranslucency(0.5).withNormalImage(linen, 0.6));
        k.material(Material.diffuse("linen", new Vec3(0.62, 0.56, 0.47)).withNormalImage(linen, 1));
        k.material(Material.diffuse("linen blue", new Vec3(0.16, 0.24, 0.33)).withNormalImage(linen, 1));
        k.material(Material.diffuse("curtain", new Vec3(0.84, 0.81, 0.75)).withTranslucency(0.45).withNormalImage(linen, 0.8));
        k.material(Material.diffuse("woven seat", new Vec3(0.55, 0.43, 0.26)).withNormalImage(linen, 1.4));
        k.material(Material.glossy("leather", new Vec3(0.22, 0.09, 0.045), 0.42));
        k.material(Material.diffuse("rug", new Vec3(1, 1, 1)).withBaseImage(rug));
        k.material(Material.glossy("globe", new Vec3(1, 1, 1), 0.3).withBaseImage(globe));
        k.material(Material.diffuse("paper", new Vec3(0.80, 0.76, 0.66)));
        k.material(Material.diffuse("printed page", new Vec3(1, 1, 1)).withBaseImage(page));
        k.material(Material.glossy("glazed clay", new Vec3(0.12, 0.22, 0.22), 0.12));
        k.material(Material.glossy("white clay", new Vec3(0.74, 0.71, 0.66), 0.3));
        for (int i = 0; i < CLOTHS; i++) k.material(Material.glossy("cloth " + i, cloth(i), 0.7));
        k.material(Material.glossy("water", new Vec3(0.012, 0.018, 0.018), 0.04));
        k.material(Material.diffuse("soil", new Vec3(0.10, 0.075, 0.055)));
        k.material(Material.diffuse("sand joint", new Vec3(0.20, 0.18, 0.15)));
        k.material(Material.diffuse("meadow", new Vec3(1, 1, 1)).withBaseImage(meadow));
        k.material(Material.diffuse("far hill", new Vec3(0.115, 0.15, 0.085)));
        k.material(Material.diffuse("far trees", new Vec3(0.045, 0.075, 0.035)));
        k.material(Material.glossy("birch bark", new Vec3(0.55, 0.53, 0.49), 0.8));
        k.material(Material.diffuse("twig", new Vec3(0.11, 0.085, 0.065)));
        k.material(Material.diffuse("birch leaf light", new Vec3(0.36, 0.52, 0.12)).withTranslucency(0.45));
        k.material(Material.diffuse("birch leaf dark", new Vec3(0.20, 0.36, 0.075)).withTranslucency(0.4));
        k.material(Material.diffuse("hornbeam leaf light", new Vec3(0.24, 0.40, 0.10)).withTranslucency(0.35));
        k.material(Material.diffuse("hornbeam leaf dark", new Vec3(0.13, 0.25, 0.06)).withTranslucency(0.3));
        k.material(Material.diffuse("fern leaf", new Vec3(0.19, 0.40, 0.085)).withTranslucency(0.4));
        k.material(Material.diffuse("grass blade", new Vec3(0.20, 0.33, 0.09)).withTranslucency(0.35));
        k.material(Material.glowing("shelf light", Lamps.warm(3000, Lamps.STRIP_LUMINANCE)));
        k.material(new Material("exit sign", new Vec3(0.2, 0.2, 0.2), null, 1, Material.AlphaMode.OPAQUE, 0.5, 0, 1, null, null, 1, 1, 0,
                false, 0,
                new Vec3(160, 160, 160), sign));
    }

    private static final double[][] CLOTH = {
        {0.20, 0.075, 0.05}, {0.28, 0.16, 0.08}, {0.10, 0.13, 0.17}, {0.055, 0.085, 0.075}, {0.36, 0.29, 0.19}, {0.13, 0.045, 0.045},
        {0.07, 0.07, 0.075}, {0.42, 0.37, 0.29}, {0.17, 0.19, 0.12}, {0.24, 0.10, 0.055}, {0.11, 0.16, 0.19}, {0.50, 0.45, 0.36},
        {0.33, 0.20, 0.07}};

    /** Quiet bookcloth: earths, greys, some blue and green, each copy a little lighter or darker. */
    private static Vec3 cloth(int i) {
        double[] c = CLOTH[i % CLOTH.length];
        double k = 0.65 + 0.7 * Noise.hash(i, 2, 9);
        return new Vec3(c[0], c[1], c[2]).times(k);
    }

    private static Vec3 mix(Vec3 a, Vec3 b, double t) {
        return a.times(1 - t).plus(b.times(t));
    }

    private static Vec3 oak(double u, double v) {
        double wave = 0.05 * Noise.fractal(u, v, 3, 2, 11), ring = Noise.value((u + wave) * 26, v * 2, 26, 3) * 0.6
                + Noise.value((u + wave * 0.5) * 90, v * 3, 90, 4) * 0.4;
        double pore = Noise.value(u * 256, v * 20, 256, 8), pores = pore > 0.78 ? (pore - 0.78) * 2.2 : 0;
        Vec3 c = mix(new Vec3(0.46, 0.295, 0.155), new Vec3(0.30, 0.175, 0.085), Math.clamp(ring * 1.2 - 0.1, 0, 1));
        return c.times(1 - 0.5 * pores).times(0.92 + 0.16 * Noise.fractal(u, v, 4, 3, 21));
    }

    private static Vec3 terrazzo(double u, double v) {
        Vec3 c = new Vec3(0.50, 0.47, 0.43).times(0.95 + 0.1 * Noise.fractal(u, v, 16, 3, 2));
        for (int layer = 0; layer < 3; layer++) {
            int n = 26 << layer;
            int i = (int) Math.floor(u * n), j = (int) Math.floor(v * n);
            for (int di = -1; di <= 1; di++)
                for (int dj = -1; dj <= 1; dj++) {
                    int a = Math.floorMod(i + di, n), b = Math.floorMod(j + dj, n), s = 40 + layer * 10;
                    double x = i + di + Noise.hash(a, b, s), y = j + dj + Noise.hash(a, b, s + 1), r = 0.15 + 0.3 * Noise.hash(a, b, s + 2);
                    double t = Noise.hash(a, b, s + 3) * 3, dx = u * n - x, dy = v * n - y,
                            q = Math.abs(dx * Math.cos(t) + dy * Math.sin(t)) + 0.6 * Math.abs(dy * Math.cos(t) - dx * Math.sin(t));
                    double kind = Noise.hash(a, b, s + 4);
                    if (q < r) c = kind < 0.45 ? new Vec3(0.70, 0.68, 0.63) : kind < 0.7 ? new Vec3(0.23, 0.20, 0.18) : kind < 0.88
                            ? new Vec3(0.45, 0.30, 0.22) : new Vec3(0.30, 0.36, 0.33);
                }
        }
        return c;
    }

    private static Vec3 granite(double u, double v) {
        double a = Noise.fractal(u, v, 90, 2, 3), b = Noise.fractal(u, v, 40, 3, 6);
        double g = 0.30 + 0.20 * (b - 0.5) + (a > 0.62 ? 0.14 : a < 0.36 ? -0.13 : 0);
        return new Vec3(g, g * 0.985, g * 0.96);
    }

    private static Vec3 brick(double u, double v) {
        double a = Noise.fractal(u, v, 12, 5, 33), b = Noise.fractal(u, v, 100, 2, 35);
        Vec3 c = mix(new Vec3(0.36, 0.185, 0.125), new Vec3(0.25, 0.115, 0.08), Math.clamp((a - 0.35) * 2.5, 0, 1));
        return c.times(b > 0.7 ? 0.7 : 1).times(0.9 + 0.2 * b);
    }

    private static Vec3 concrete(double u, double v) {
        double g = 0.42 + 0.10 * (Noise.fractal(u, v, 6, 6, 51) - 0.5) - (Noise.value(u * 160, v * 160, 160, 55) > 0.93 ? 0.10 : 0);
        return new Vec3(g, g * 0.985, g * 0.955);
    }

    private static Vec3 rug(double u, double v) {
        double edge = Math.min(Math.min(u, 1 - u) * 2, Math.min(v, 1 - v) * 3);
        double stripe = Math.floorMod((int) (v * 42), 6) < 1 ? 1 : 0, weave =
                0.9 + 0.1 * Math.sin(u * 2 * Math.PI * 128) * Math.sin(v * 2 * Math.PI * 192);
        double d = Math.abs(((u * 4) % 1) - 0.5) + Math.abs(((v * 6) % 1) - 0.5);
        Vec3 ground = new Vec3(0.36, 0.115, 0.07), c = ground;
        if (edge < 0.12) c = new Vec3(0.10, 0.13, 0.16);
        else if (edge < 0.17) c = new Vec3(0.55, 0.47, 0.34);
        else if (d < 0.16) c = new Vec3(0.52, 0.43, 0.30);
        else if (d < 0.22) c = new Vec3(0.11, 0.14, 0.17);
        else if (stripe > 0) c = mix(ground, new Vec3(0.5, 0.4, 0.28), 0.35);
        return c.times(weave * (0.88 + 0.24 * Noise.fractal(u, v, 24, 3, 71)));
    }

    private static Vec3 globe(double u, double v) {
        double land = Noise.fractal(u, v, 4, 5, 91) + 0.10 * Math.cos((v - 0.5) * 3);
        Vec3 c = land > 0.60 ? mix(new Vec3(0.42, 0.36, 0.20), new Vec3(0.26, 0.30, 0.14), Noise.fractal(u, v, 8, 3, 93))
                : new Vec3(0.30, 0.38, 0.40);
        boolean grid = (u * 24) % 1 < 0.03 || (v * 12) % 1 < 0.03;
        return grid ? c.times(0.8) : c;
    }

    private static Vec3 page(double u, double v) {
        Vec3 paper = new Vec3(0.80, 0.77, 0.68);
        boolean text = u > 0.14 && u < 0.86 && v > 0.12 && v < 0.9, line = (v * 34) % 1 < 0.45;
        boolean word = Noise.hash((int) (u * 40), (int) (v * 34), 5) > 0.14 && !(Math.floorMod((int) (v * 34), 9) == 8 && u > 0.5);
        return text && line && word ? paper.times(0.38) : paper;
    }

    private static Vec3 meadow(double u, double v) {
        double a = Noise.fractal(u, v, 8, 6, 61);
        return mix(new Vec3(0.085, 0.12, 0.045), new Vec3(0.17, 0.19, 0.075), Math.clamp(a * 1.6 - 0.3, 0, 1));
    }

    /** A pictogram of our own: an open door leaf and an arrow through it. */
    private static Vec3 sign(double u, double v) {
        Vec3 green = new Vec3(0.01, 0.36, 0.12), white = new Vec3(0.9, 0.95, 0.9);
        double x = u * 2, y = v;
        boolean frame = x > 1.15 && x < 1.75 && y > 0.14 && y < 0.86 && !(x > 1.22 && x < 1.68 && y > 0.21 && y < 0.87);
        boolean shaft = x > 0.25 && x < 1.05 && y > 0.46 && y < 0.54, head = x > 0.92 && x < 1.4 && Math.abs(y - 0.5) < (1.4 - x) * 0.42;
        return frame || shaft || head ? white : green;
    }

    private static double weave(double u, double v) {
        double n = 12, a = Math.sin(u * 2 * Math.PI * n), b = Math.sin(v * 2 * Math.PI * n);
        boolean over = (Math.floorMod((int) (u * 2 * n), 2) + Math.floorMod((int) (v * 2 * n), 2)) % 2 == 0;
        return 0.00022 * (over ? Math.abs(a) : Math.abs(b)) * (0.8 + 0.4 * Noise.fractal(u, v, 6, 2, 81));
    }

    private static Texture picture(String name, int w, int h, Pattern p) {
        byte[] d = new byte[4 * w * h];
        java.util.stream.IntStream.range(0, h).parallel().forEach(y -> {
            for (int x = 0; x < w; x++) {
                Vec3 c = p.at((x + 0.5) / w, (y + 0.5) / h);
                int o = 4 * (y * w + x);
                d[o] = code(c.x());
                d[o + 1] = code(c.y());
                d[o + 2] = code(c.z());
                d[o + 3] = -1;
            }
        });
        return new Texture(name, w, h, d, true);
    }

    private static byte code(double linear) {
        return (byte) Math.clamp(Math.round(255 * bake.core.math.Srgb.encode(Math.clamp(linear, 0, 1))), 0, 255);
    }

    /** Normal map of a relief that spans {@code metres}; green points up in the picture, as glTF asks. */
    private static Texture normals(String name, int n, double metres, Relief r) {
        byte[] d = new byte[4 * n * n];
        double e = 1.0 / n;
        java.util.stream.IntStream.range(0, n).parallel().forEach(y -> {
            for (int x = 0; x < n; x++) {
                double u = (x + 0.5) / n, v = (y + 0.5) / n;
                double dx = (r.at(u + e, v) - r.at(u - e, v)) / (2 * e * metres), dy = (r.at(u, v + e) - r.at(u, v - e)) / (2 * e * metres);
                Vec3 m = new Vec3(-dx, dy, 1).normalized();
                int o = 4 * (y * n + x);
                d[o] = (byte) Math.round(127.5 + 127.5 * m.x());
                d[o + 1] = (byte) Math.round(127.5 + 127.5 * m.y());
                d[o + 2] = (byte) Math.round(127.5 + 127.5 * m.z());
                d[o + 3] = -1;
            }
        });
        return new Texture(name, n, n, d, false);
    }
}
