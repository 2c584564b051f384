package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
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
import bake.demo.DemoProject;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/**
 * Scenes that ways of computing bounced light are measured on: the demo's views, a closed box with coloured walls, and a lamp around a
 * corner.
 */
record BenchScene(String name, RenderScene scene, Camera camera, double aspect) {
    static final List<String> NAMES = List.of("Reading room, morning", "Reading room, evening", "Study nook", "Court, noon",
            "Entrance, dusk", "box", "corner");
    private static ProjectSession session;
    private static SceneAssembly assembly;

    /** One whose name begins so. */
    static BenchScene of(String begin) throws Exception {
        String name = NAMES.stream().filter(n -> n.startsWith(begin)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no scene " + begin + " in " + NAMES));
        if (name.equals("box")) return box();
        if (name.equals("corner")) return corner();
        if (session == null) {
            Path folder = DemoProject.ensure(Files.createTempDirectory("bake-bench").resolve("demo"), LocalDate.of(2026, 11, 1));
            session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
            assembly = new SceneAssembly(session.folder());
        }
        View v = session.project().view(name);
        return new BenchScene(name, RenderScene.compile(assembly.scene(session.project(), v), Workers.COMPILING), v.camera().camera(),
                v.size()[1] / (double) v.size()[0]);
    }

    /** A film for a picture this wide, or for the part of it that the property "crop" names as x,y,width,height. */
    Film film(int width) {
        int height = (int) Math.round(width * aspect);
        String crop = System.getProperty("crop");
        if (crop == null) return Film.merged(width, height, scene.lights().groups().size());
        int[] c = java.util.Arrays.stream(crop.split(",")).mapToInt(Integer::parseInt).toArray();
        return new Film(width, height, new int[scene.lights().groups().size()], new bake.core.film.Region(c[0], c[1], c[2], c[3]));
    }

    private static Vec3 grey(double v) {
        return new Vec3(v, v, v);
    }

    private static BenchScene made(String name, List<Mesh> meshes, List<Material> materials, List<Lamp> lamps, Camera c) {
        List<Instance> all = new ArrayList<>();
        for (int i = 0; i < meshes.size(); i++) all.add(new Instance(meshes.get(i).name(), i, Affine.IDENTITY, 0));
        Scene s = new Scene(meshes, all, materials, List.of(), lamps, new Surroundings.Plain(Vec3.ZERO));
        return new BenchScene(name, RenderScene.compile(s, Workers.COMPILING), c, 0.75);
    }

    /** A closed box of 3 x 3 x 3 m, one wall red and one green, two blocks in it, a lamp under the ceiling. */
    private static BenchScene box() {
        List<Material> m = List.of(Material.diffuse("white", grey(0.75)), Material.diffuse("red", new Vec3(0.6, 0.05, 0.05)),
                Material.diffuse("green", new Vec3(0.1, 0.45, 0.1)));
        List<Mesh> s = new ArrayList<>(shell(3, 3, 3, new int[] {0, 0, 1, 2, 0, 0}));
        s.add(Shapes.box("low block", 1.7, 0.4, 0, 2.6, 1.3, 0.9, 0));
        s.add(Shapes.box("high block", 0.5, 1.5, 0, 1.3, 2.3, 1.8, 0));
        Lamp l = new Lamp("lamp", "Lamp", Lamp.Kind.RECTANGLE, Affine.pointing(new Vec3(1.5, 1.5, 2.99), new Vec3(0, 0, -1)), 0.7, 0.7,
                4000, grey(1), 0, 60, true, false);
        return made("box", s, m, List.of(l), Camera.of(new Vec3(1.5, 0.05, 1.5), new Vec3(1.5, 3, 1.4), 22).withEv(7));
    }

    /** Two rooms joined by a gap beside a wall of 10 cm; the lamp is in the one that is not seen. */
    private static BenchScene corner() {
        List<Material> m = List.of(Material.diffuse("white", grey(0.75)), Material.diffuse("wood", new Vec3(0.45, 0.3, 0.18)));
        List<Mesh> s = new ArrayList<>(shell(6, 4, 2.8, new int[] {1, 0, 0, 0, 0, 0}));
        s.add(Shapes.box("wall", 2.95, 1.1, 0, 3.05, 4, 2.8, 0));
        s.add(Shapes.box("table", 4, 2, 0.7, 5.2, 2.8, 0.75, 1));
        Lamp l = new Lamp("lamp", "Lamp", Lamp.Kind.SPHERE, Affine.translation(1, 3.2, 2.2), 0.2, 0, 3000, grey(1), 0, 60, true, false);
        return made("corner", s, m, List.of(l), Camera.of(new Vec3(3.5, 0.3, 1.6), new Vec3(5, 3.5, 1.1), 22).withEv(4));
    }

    /** Walls of 10 cm around a room; materials of floor, ceiling, west, east, south, north. */
    private static List<Mesh> shell(double w, double d, double h, int[] m) {
        double t = 0.1;
        return List.of(Shapes.box("floor", -t, -t, -t, w + t, d + t, 0, m[0]), Shapes.box("ceiling", -t, -t, h, w + t, d + t, h + t, m[1]),
                Shapes.box("west", -t, -t, 0, 0, d + t, h, m[2]),
                Shapes.box("east", w, -t, 0, w + t, d + t, h, m[3]), Shapes.box("south", 0, -t, 0, w, 0, h, m[4]),
                Shapes.box("north", 0, d, 0, w, d + t, h, m[5]));
    }
}
