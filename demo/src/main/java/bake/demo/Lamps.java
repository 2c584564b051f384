package bake.demo;

import bake.core.math.Affine;
import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import bake.formats.project.LampSpec;
import java.util.ArrayList;
import java.util.List;

/** Lamps with their fittings. */
public final class Lamps {
    /** 400 lm/m from a bar 12 x 6 mm: all its skin glows, 0.036 m2 for each metre. */
    static final double STRIP_LUMINANCE = 400 / (Math.PI * 2 * (0.012 + 0.006));
    static final String PENDANTS = "Pendants", TABLE = "Table lamps", WASHERS = "Gallery washers", READING = "Reading lamp",
            LOBBY = "Lobby lamps";
    static final double[] PENDANT_X = {2.7, 4.8, 6.9}, PENDANT_Y = {4.9, 8.8, 12.7};

    private Lamps() {}

    static Vec3 warm(double kelvin, double luminance) {
        return Blackbody.rgb(kelvin).times(luminance);
    }

    static List<LampSpec> build(Kit k) {
        List<LampSpec> out = new ArrayList<>();
        MeshBuilder rods = new MeshBuilder();
        int n = 0;
        for (double y : PENDANT_Y)
            for (double x : PENDANT_X) {
                rods.tube(new Vec3(x, y, 3.155), new Vec3(x, y, Room.H + 0.01), 0.005, 0.005, 8)
                        .turned(new Vec3(x, y, 3.14), 16, 0.001, 0, 0.045, 0.004, 0.04, 0.03, 0.006, 0.045);
                rods.turned(new Vec3(x, y, Room.H - 0.03), 16, 0.05, 0, 0.05, 0.035);
                out.add(sphere("Pendant " + ++n, PENDANTS, x, y, 3.0, 0.32, 1100, 2700));
            }
        k.add("Lamps", "Pendant rods", "brass", rods);
        // The glass lies a hair inside the lamp's glowing skin: it is what one sees while the lamp is off.
        int globe = k.mesh("Pendant glass", "white clay", new MeshBuilder()
                .surface(40, 20, (u, v) -> new Vec3(0.158 * Math.cos(2 * Math.PI * u) * Math.cos(Math.PI * (v - 0.5)),
                0.158 * Math.sin(2 * Math.PI * u) * Math.cos(Math.PI * (v - 0.5)), 0.158 * Math.sin(Math.PI * (v - 0.5)))));
        for (double y : PENDANT_Y) for (double x : PENDANT_X) k.place("Pendant glass", globe, "Lamps", Affine.translation(x, y, 3.0));
        tableLamps(k, out);
        standing(k, out);
        MeshBuilder spots = new MeshBuilder();
        for (double x : new double[] {2.2, 6.8}) {
            spots.tube(new Vec3(x, 1.3, 4.62), new Vec3(x, 1.12, 4.52), 0.04, 0.05, 16)
                    .tube(new Vec3(x, 1.3, Room.H + 0.01), new Vec3(x, 1.3, 4.6), 0.008, 0.008, 8);
            out.add(LampSpec.of("Washer " + (x < 4 ? 1 : 2), WASHERS, "spot", new double[] {x, 1.08, 4.49}, new double[] {0, -0.85, -0.53})
                    .withLumens(1400.0).withKelvin(3000.0).withBeam(50.0).withField(110.0).withVisible(false));
        }
        k.add("Lamps", "Gallery washers", "dark steel", spots);
        for (double x : new double[] {6.8, 8.0})
            out.add(LampSpec.of("Lobby lamp " + (x < 7 ? 1 : 2), LOBBY, "disc", new double[] {x, 0.95, 2.405}, new double[] {0, 0, -1})
                    .withDiameter(0.22).withLumens(900.0).withKelvin(3000.0).withVisible(true));
        k.add("Lamps", "Exit sign", "exit sign", new MeshBuilder().quad(new Vec3(6.05, 2.41, 2.44), new Vec3(5.75, 2.41, 2.44),
                new Vec3(5.75, 2.41, 2.59), new Vec3(6.05, 2.41, 2.59)));
        exitCoordinates(k);
        return out;
    }

    /** The sign's picture spans the sign, not a metre. */
    private static void exitCoordinates(Kit k) {
        float[] uv = k.meshes.getLast().uvs();
        float[] want = {0, 1, 1, 1, 1, 0, 0, 0};
        System.arraycopy(want, 0, uv, 0, 8);
    }

    private static LampSpec sphere(String name, String group, double x, double y, double z, double diameter, double lm, double kelvin) {
        return LampSpec.of(name, group, "sphere", new double[] {x, y, z}, null)
                .withDiameter(diameter).withLumens(lm).withKelvin(kelvin).withVisible(true);
    }

    private static void tableLamps(Kit k, List<LampSpec> out) {
        int body = k.mesh("Table lamp", "brass", new MeshBuilder().turned(Vec3.ZERO, 24, 0.085, 0, 0.085, 0.008, 0.03, 0.016, 0.010, 0.03,
                0.008, 0.12, 0.008, 0.30, 0.016, 0.305, 0.016, 0.33, 0.004, 0.335));
        int shade = k.mesh("Table lamp shade", "opal shade", new MeshBuilder().surface(32, 10, (u, v) -> {
            double t = 2 * Math.PI * u, r = 0.045 + 0.105 * Math.sin(v * Math.PI / 2);
            return new Vec3(r * Math.cos(t), r * Math.sin(t), 0.455 - 0.115 * (1 - Math.cos(v * Math.PI / 2)));
        }));
        int n = 0;
        for (double y : Furniture.TABLE_Y)
            for (double e : new double[] {-0.6, 0.6}) {
                Affine a = Affine.translation(Furniture.TABLE_X, y + e, Furniture.TABLE_TOP);
                k.place("Table lamp " + ++n, body, "Lamps", a);
                k.place("Table lamp shade " + n, shade, "Lamps", a);
                out.add(sphere("Table lamp " + n, TABLE, Furniture.TABLE_X, y + e, Furniture.TABLE_TOP + 0.385, 0.055, 450, 2700));
            }
    }

    private static void standing(Kit k, List<LampSpec> out) {
        double x = 3.45, y = 14.75;
        k.add("Lamps", "Standing lamp", "brass", new MeshBuilder().turned(new Vec3(x, y, 0), 32, 0.15, 0, 0.15, 0.012, 0.02, 0.022, 0.010,
                0.04, 0.010, 1.44, 0.004, 1.45));
        k.add("Lamps", "Standing lamp shade", "lampshade linen", new MeshBuilder().surface(40, 1, (u, v) -> {
            double t = 2 * Math.PI * u, r = 0.23 - 0.05 * v;
            return new Vec3(x + r * Math.cos(t), y + r * Math.sin(t), 1.36 + 0.26 * v);
        }));
        out.add(sphere("Standing lamp", READING, x, y, 1.485, 0.07, 800, 2700));
    }
}
