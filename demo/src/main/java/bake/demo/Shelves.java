package bake.demo;

import bake.core.math.Affine;
import bake.core.math.Vec3;

/** The west wall's oak shelving, its light strips, and some four thousand books. */
final class Shelves {
    private static final double DEEP = 0.32, BAY = 1.2, START = 2.4, TOP = 2.15, BOARD = 0.026;
    private static final int BAYS = 11, SHAPES = 60;
    private static final double[] LEVELS = {0.10, 0.50, 0.90, 1.30, 1.70};

    private Shelves() {}

    static void build(Kit k) {
        MeshBuilder up = new MeshBuilder(), flat = new MeshBuilder(), light = new MeshBuilder();
        for (int i = 0; i <= BAYS; i++) {
            double y = START + i * BAY;
            up.box(0.004, Math.min(y - 0.0125, Room.L - 0.03), 0.001, DEEP, Math.min(y + 0.0125, Room.L - 0.004), TOP, i * 0.37, 0, 63);
        }
        up.box(0.002, START - 0.01, 0.05, 0.014, Room.L - 0.005, TOP - 0.01, 0, 0, 8);
        for (double z : LEVELS) flat.box(0.01, START, z - BOARD, DEEP - 0.006, Room.L - 0.01, z, 0, z, 63);
        flat.box(0.003, START - 0.03, TOP - 0.005, DEEP + 0.02, Room.L - 0.003, TOP + 0.03);
        flat.box(0.02, START, 0.002, DEEP - 0.03, Room.L - 0.01, 0.07);
        for (int b = 0; b < BAYS; b++)
            for (int s = 1; s <= LEVELS.length; s++) {
                double z = s < LEVELS.length ? LEVELS[s] - BOARD : TOP - 0.005, y = START + b * BAY;
                light.box(DEEP - 0.045, y + 0.025, z - 0.007, DEEP - 0.033, y + BAY - 0.025, z - 0.001, 0, 0, 63);
            }
        k.add("Shelves and books", "Shelf uprights", "oak", up);
        k.add("Shelves and books", "Shelf boards", "oak", flat);
        k.add("Lamps", "Shelf lights", "shelf light", light);
        books(k);
    }

    /** Number of the cover mesh, its pages, thickness and height. */
    private record Book(int cover, int pages, double thick, double high, double deep) {}

    private static void books(Kit k) {
        Book[] shapes = new Book[SHAPES];
        Noise.Stream r = new Noise.Stream(400);
        for (int i = 0; i < SHAPES; i++) shapes[i] = book(k, i, r);
        int end = k.mesh("Bookend", "dark steel", new MeshBuilder().box(0, 0, 0, 0.11, 0.1, 0.002).box(0, 0, 0, 0.11, 0.002, 0.16));
        int n = 0;
        for (int b = 0; b < BAYS; b++)
            for (int s = 0; s < LEVELS.length; s++) {
                double room = (s + 1 < LEVELS.length ? LEVELS[s + 1] - BOARD : TOP) - LEVELS[s] - 0.03;
                n += fill(k, shapes, r, START + b * BAY + 0.016, START + (b + 1) * BAY - 0.016, LEVELS[s] + 0.0005, room, end, n);
            }
    }

    private static Book book(Kit k, int i, Noise.Stream r) {
        double t = r.range(0.0065, 0.0195), h = r.range(0.17, 0.31), d = h * r.range(0.66, 0.78), c = 0.0025;
        MeshBuilder cover = new MeshBuilder(), pages = new MeshBuilder();
        // Lying in its own frame: x depth (spine at +x), y thickness, z height.
        cover.box(0, 0, 0, d, c, h).box(0, t - c, 0, d, t, h);
        cover.surface(5, 1, (u, v) -> {
            double a = Math.PI * (u - 0.5);
            return new Vec3(d + t * 0.22 * Math.cos(a), t / 2 + t / 2 * Math.sin(a), v * h);
        });
        double rim = 0.003;
        pages.box(rim, c, rim, d, t - c, h - rim, 0, 0, 35);
        return new Book(k.mesh("Book " + i + " cover", "cloth " + i, cover), k.mesh("Book " + i + " pages", "paper", pages), t, h, d);
    }

    private static int fill(Kit k, Book[] shapes, Noise.Stream r, double y0, double y1, double z, double room, int end, int number) {
        int n = 0;
        double y = y0, gapAt = r.next() < 0.22 ? r.range(y0 + 0.3, y1 - 0.3) : 1e9, lean = 0;
        int family = r.below(shapes.length);
        while (true) {
            if (r.next() < 0.12) family = r.below(shapes.length);
            Book b = shapes[r.next() < 0.55 ? family : r.below(shapes.length)];
            if (b.high > room) {
                family = r.below(shapes.length);
                continue;
            }
            if (y > gapAt) {
                if (r.next() < 0.5) n += pile(k, shapes, r, y + 0.01, z, room, number + n);
                else k.place("Bookend", end, "Shelves and books", Affine.translation(0.15, y + 0.001, z));
                y += r.range(0.26, 0.36);
                gapAt = 1e9;
                lean = r.next() < 0.6 ? 0.16 : 0;
                continue;
            }
            double w = b.thick + 0.0012;
            if (y + w + (lean > 0 ? 0.05 : 0) > y1) break;
            double tilt = lean, push = r.range(0.02, 0.05);
            Affine a = Affine.translation(Math.max(0.018, 0.30 - b.deep - push), y, z);
            if (tilt > 0.01) {
                // A leaning book turns about its lower far edge and leans on what comes before it.
                a = Affine.translation(Math.max(0.018, 0.30 - b.deep - push), y + b.high * Math.sin(tilt), z + 0.001)
                        .times(Affine.rotation(new Vec3(1, 0, 0), tilt));
                y += b.high * Math.sin(tilt) - b.high * Math.sin(tilt) * 0.02;
                lean = 0;
            }
            put(k, b, a, number + n++);
            y += w;
        }
        return n;
    }

    private static int pile(Kit k, Book[] shapes, Noise.Stream r, double y, double z, double room, int number) {
        double at = z;
        int n = 2 + r.below(3);
        for (int i = 0; i < n; i++) {
            Book b = shapes[r.below(shapes.length)];
            // Lying flat, spine to the front: height along y, thickness up.
            Affine a = Affine.translation(0.27 - b.deep, y, at + b.thick).times(new Affine(1, 0, 0, 0, 0, 0, 1, 0, 0, -1, 0, 0));
            if (b.high > 0.25 || at + b.thick - z > room) continue;
            put(k, b, a, number + i);
            at += b.thick + 0.0008;
        }
        return n;
    }

    static void put(Kit k, Book b, Affine a, int number) {
        k.place("Book " + number, b.cover, "Shelves and books", a);
        k.place("Pages " + number, b.pages, "Shelves and books", a);
    }
}
