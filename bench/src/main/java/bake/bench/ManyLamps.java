package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Lamp;
import bake.core.scene.Scene;
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
import java.util.Locale;

/**
 * Ever more lamps in the reading room by night, with one bounce and with ten: how noisy a picture of some passes is, and what a pass
 * takes.
 *
 * <pre>bake bench lamps [PASSES [WIDTH]]</pre>
 */
public final class ManyLamps {
    private ManyLamps() {}

    public static void main(String[] args) throws Exception {
        int passes = args.length > 0 ? Integer.parseInt(args[0]) : 24, width = args.length > 1 ? Integer.parseInt(args[1]) : 320;
        Path folder = DemoProject.ensure(Files.createTempDirectory("bake-bench").resolve("demo"), LocalDate.of(2026, 11, 1));
        ProjectSession session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
        View view = session.project().view("Reading room, morning");
        Scene day = new SceneAssembly(session.folder()).scene(session.project(), view);
        Workers workers = new Workers(2);
        RenderScene before = null;
        for (int n : new int[] {30, 150, 500, 1500}) {
            Scene night = day.withSurroundings(new Surroundings.Plain(Vec3.ZERO)).withLamps(lamps(n));
            RenderScene scene = before = RenderScene.compile(night, before, Workers.COMPILING);
            for (int bounces : new int[] {1, 10}) {
                int height = width * 9 / 16;
                Film[] f = new Film[2];
                double t = 0;
                for (int i = 0; i < 2; i++) {
                    f[i] = Film.merged(width, height, scene.lights().groups().size());
                    Renderer r = new Renderer(scene, view.camera().camera(), new PathSettings(bounces, 0, 1 + i, true, PixelFilter.TENT),
                            f[i],
                            Region.all(width, height), workers);
                    long b = System.nanoTime();
                    for (int p = 0; p < passes; p++) r.pass(p, workers, () -> false);
                    t += (System.nanoTime() - b) / 1e9 / passes / 2;
                }
                Compared c = new Compared(width, height);
                c.add(f);
                System.out.printf(Locale.ROOT, "%5d lamps, %2d bounces: variance %.4f, mean %.3f; a pass takes %.3f s%n", n, bounces,
                        c.variance(0), c.mean(0), t);
            }
        }
        System.exit(0);
    }

    /** Strips under shelves, and candles and small lamps on them, all over the room. */
    static List<Lamp> lamps(int n) {
        List<Lamp> out = new ArrayList<>();
        java.util.SplittableRandom r = new java.util.SplittableRandom(7);
        for (int i = 0; i < n; i++) {
            double x = i % 2 == 0 ? 0.45 : r.nextDouble(0.6, 8.4), y = r.nextDouble(2.6, 15),
                    z = i % 2 == 0 ? 0.35 + 0.38 * r.nextInt(7) : r.nextDouble(0.9, 3.5);
            Affine at = Affine.frame(new Vec3(0, 1, 0), new Vec3(1, 0, 0), new Vec3(0, 0, -1), new Vec3(x, y, z));
            out.add(i % 2 == 0 ? new Lamp("strip " + i, "Shelves", Lamp.Kind.RECTANGLE, at, 0.8, 0.015, 120, new Vec3(1, 1, 1), 0, 60,
                    false, false)
                    : new Lamp("candle " + i, "Candles", Lamp.Kind.SPHERE, at, 0.03, 0, r.nextDouble(12, 60), new Vec3(1, 1, 1), 0, 60,
                    true, false));
        }
        return out;
    }
}
