package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.finish.Look;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;

/**
 * Three scenes that bring out what is wrong with a renderer: sun through two panes and a curtain, ten thousand plants at noon, and
 * a corridor of mirrors with a tiny lamp.
 *
 * <pre>bake bench worst FOLDER [SECONDS]</pre>
 */
public final class WorstPictures {
    private final List<Mesh> meshes = new ArrayList<>();
    private final List<Instance> instances = new ArrayList<>();
    private final List<Material> materials = new ArrayList<>();
    private final List<Lamp> lamps = new ArrayList<>();

    private WorstPictures() {}

    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[0]);
        double seconds = args.length > 1 ? Double.parseDouble(args[1]) : 60;
        curtain().picture(folder.resolve("curtain.png"), seconds, new Surroundings.SunSky(new Vec3(-0.75, -0.25, 0.55).normalized(), 3, 0,
                0, 0.533, 0.2),
                Camera.of(new Vec3(1.9, -2.6, 1.5), new Vec3(-0.6, 0.4, 1.2), 24).withEv(9.5));
        plants().picture(folder.resolve("plants.png"), seconds, new Surroundings.SunSky(new Vec3(0.15, -0.3, 0.95).normalized(), 3, 0, 0,
                0.533, 0.2),
                Camera.of(new Vec3(0, -14, 2.2), new Vec3(0, 0, 0.4), 28).withEv(14));
        mirrors().picture(folder.resolve("mirrors.png"), seconds, new Surroundings.Plain(Vec3.ZERO),
                Camera.of(new Vec3(0.3, -3.6, 1.5), new Vec3(0.45, 3, 1.3), 24).withEv(5));
        System.exit(0);
    }

    private int material(Material m) {
        materials.add(m);
        return materials.size() - 1;
    }

    private void add(Mesh m, Affine a) {
        meshes.add(m);
        instances.add(new Instance(m.name(), meshes.size() - 1, a, 0));
    }

    private void picture(Path file, double seconds, Surroundings around, Camera camera) throws Exception {
        Scene s = new Scene(meshes, instances, materials, List.of(), lamps, around);
        RenderScene scene = RenderScene.compile(s, Workers.COMPILING);
        Preset p = Preset.of("worst", 1, "test", "interior", 0, 0, seconds, 0, 40, 0, false);
        try (Workers w = new Workers(Runtime.getRuntime().availableProcessors())) {
            RenderJob j = new RenderJob(scene, new RenderJob.Order("worst", camera, Look.PLAIN, p, 640, 400, null, 1, false), w);
            j.run(g -> {});
            PictureOutput.write(file, j.film(), j.finish(), null, j.order().region(), false, bake.studio.render.FileOptions.SCREEN,
                    bake.formats.picture.ExrNotes.PLAIN);
            System.out.printf(Locale.ROOT, "%s: %d passes, noise %.1f %%, %.2f M rays/s%n", file, j.progress().passes(),
                    j.progress().noise(), j.progress().rays() / j.progress().seconds() / 1e6);
        }
    }

    /** A room whose one window has two panes and a translucent curtain of folds behind them. */
    private static WorstPictures curtain() {
        WorstPictures s = new WorstPictures();
        int wall = s.material(Material.diffuse("wall", new Vec3(0.7, 0.69, 0.66))),
                floor = s.material(Material.glossy("floor", new Vec3(0.35, 0.22, 0.12), 0.3));
        int glass = s.material(Material.glass("glass", new Vec3(0.97, 0.98, 0.97), 0, 1.52, true)),
                cloth = s.material(Material.diffuse("curtain", new Vec3(0.8, 0.78, 0.74)).withTranslucency(0.5));
        s.add(Shapes.quad("floor", 5, 6, floor), Affine.IDENTITY);
        s.add(Shapes.quad("ceiling", 5, 6, wall), Affine.translation(0, 0, 2.8));
        s.add(Shapes.quad("north", 5, 2.8, wall), Affine.pointing(new Vec3(0, 3, 1.4), new Vec3(0, -1, 0)));
        s.add(Shapes.quad("south", 5, 2.8, wall), Affine.pointing(new Vec3(0, -3, 1.4), new Vec3(0, 1, 0)));
        s.add(Shapes.box("east", 2.5, -3, 0, 2.7, 3, 2.8, wall), Affine.IDENTITY);
        s.add(Shapes.box("sill", -2.7, -3, 0, -2.5, 3, 0.8, wall), Affine.IDENTITY);
        s.add(Shapes.box("lintel", -2.7, -3, 2.3, -2.5, 3, 2.8, wall), Affine.IDENTITY);
        s.add(Shapes.box("left", -2.7, -3, 0.8, -2.5, -1, 2.3, wall), Affine.IDENTITY);
        s.add(Shapes.box("right", -2.7, 1.4, 0.8, -2.5, 3, 2.3, wall), Affine.IDENTITY);
        for (double x : new double[] {-2.62, -2.6})
            s.add(Shapes.quad("pane", 1.5, 2.4, glass), Affine.pointing(new Vec3(x, 0.2, 1.55), new Vec3(1, 0, 0)));
        s.add(folds(cloth, -1.1, 0.45), Affine.translation(-2.35, 0, 0.05));
        s.add(folds(cloth, 0.9, 1.5), Affine.translation(-2.35, 0, 0.05));
        s.add(Shapes.sphere("ball", 0.3, 48, s.material(Material.metal("steel", new Vec3(0.56, 0.57, 0.58), 0.15))),
                Affine.translation(-0.6, 0.9, 0.3));
        return s;
    }

    private static Mesh folds(int material, double y0, double y1) {
        int n = 160;
        float[] p = new float[6 * (n + 1)];
        int[] idx = new int[6 * n];
        for (int i = 0; i <= n; i++) {
            double y = y0 + (y1 - y0) * i / n;
            for (int k = 0; k < 2; k++) {
                p[6 * i + 3 * k] = (float) (0.05 * Math.sin(y * 38));
                p[6 * i + 3 * k + 1] = (float) y;
                p[6 * i + 3 * k + 2] = k * 2.45f;
            }
            if (i == n) continue;
            int a = 2 * i;
            int[] q = {a, a + 2, a + 1, a + 1, a + 2, a + 3};
            System.arraycopy(q, 0, idx, 6 * i, 6);
        }
        return new Mesh("curtain", p, null, null, idx, material);
    }

    /** Ten thousand copies of a plant of a thousand leaves, under a high sun. */
    private static WorstPictures plants() {
        WorstPictures s = new WorstPictures();
        int soil = s.material(Material.diffuse("soil", new Vec3(0.12, 0.09, 0.06)));
        s.add(Shapes.quad("ground", 200, 200, soil), Affine.IDENTITY);
        SplittableRandom r = new SplittableRandom(4);
        for (int kind = 0; kind < 3; kind++) {
            int leaf = s.material(Material.glossy("leaf " + kind, new Vec3(0.16 + 0.08 * kind, 0.36 - 0.04 * kind, 0.07), 0.45)
                    .withTranslucency(0.4));
            s.meshes.add(plant(leaf, r));
        }
        for (int i = 0; i < 10_000; i++) {
            double x = (i % 100 - 49.5) * 0.9 + r.nextDouble(-0.4, 0.4), y = (i / 100) * 0.9 - 6 + r.nextDouble(-0.4, 0.4),
                    k = r.nextDouble(0.7, 1.5);
            Affine a = Affine.translation(x, y, 0).times(Affine.rotation(Vec3.UP, r.nextDouble(6.28))).times(Affine.scale(k, k, k));
            s.instances.add(new Instance("plant", 1 + i % 3, a, 0));
        }
        return s;
    }

    private static Mesh plant(int material, SplittableRandom r) {
        int leaves = 500;
        float[] p = new float[12 * leaves];
        int[] idx = new int[6 * leaves];
        for (int i = 0; i < leaves; i++) {
            double turn = r.nextDouble(6.28), height = r.nextDouble(0.05, 0.9), out = 0.35 * Math.sqrt(r.nextDouble()) * (1 - 0.5 * height),
                    length = r.nextDouble(0.06, 0.13), dip = r.nextDouble(-0.6, 0.5);
            double cx = out * Math.cos(turn), cy = out * Math.sin(turn), face = r.nextDouble(6.28), dx = Math.cos(face) * length,
                    dy = Math.sin(face) * length;
            double[][] c = {{cx, cy, height}, {cx + 0.5 * dx - 0.25 * dy, cy + 0.5 * dy + 0.25 * dx, height + 0.5 * dip * length},
                    {cx + dx, cy + dy, height + dip * length},
                {cx + 0.5 * dx + 0.25 * dy, cy + 0.5 * dy - 0.25 * dx, height + 0.5 * dip * length}};
            for (int k = 0; k < 4; k++) for (int a = 0; a < 3; a++) p[12 * i + 3 * k + a] = (float) c[k][a];
            int b = 4 * i;
            int[] q = {b, b + 1, b + 2, b, b + 2, b + 3};
            System.arraycopy(q, 0, idx, 6 * i, 6);
        }
        return new Mesh("plant", p, null, null, idx, material);
    }

    /** A corridor of two mirrors with a lamp of four millimetres, and something to see. */
    private static WorstPictures mirrors() {
        WorstPictures s = new WorstPictures();
        int mirror = s.material(Material.metal("mirror", new Vec3(0.92, 0.93, 0.92), 0)),
                floor = s.material(Material.glossy("floor", new Vec3(0.3, 0.29, 0.27), 0.15));
        int wall = s.material(Material.diffuse("wall", new Vec3(0.6, 0.55, 0.5))),
                red = s.material(Material.diffuse("red", new Vec3(0.6, 0.08, 0.05)));
        s.add(Shapes.quad("floor", 2, 8, floor), Affine.IDENTITY);
        s.add(Shapes.quad("ceiling", 2, 8, wall), Affine.translation(0, 0, 2.6));
        s.add(Shapes.quad("left", 8, 2.6, mirror), Affine.pointing(new Vec3(-1, 0, 1.3), new Vec3(1, 0, 0)));
        s.add(Shapes.quad("right", 8, 2.6, mirror), Affine.pointing(new Vec3(1, 0, 1.3), new Vec3(-1, 0, 0)));
        s.add(Shapes.quad("end", 2, 2.6, wall), Affine.pointing(new Vec3(0, 4, 1.3), new Vec3(0, -1, 0)));
        s.add(Shapes.quad("back", 2, 2.6, wall), Affine.pointing(new Vec3(0, -4, 1.3), new Vec3(0, 1, 0)));
        s.add(Shapes.sphere("ball", 0.35, 48, red), Affine.translation(-0.3, 1.2, 0.35));
        s.lamps.add(new Lamp("bulb", "Lamps", Lamp.Kind.SPHERE, Affine.translation(0.1, 0.6, 2.2), 0.004, 0, 900,
                new Vec3(1, 0.85, 0.65).times(1 / new Vec3(1, 0.85, 0.65).luminance()), 0, 60, true, false));
        return s;
    }
}
