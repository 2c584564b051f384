package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.guide.Guides;
import bake.core.light.Openings;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Locale;

/**
 * What a kept guide is worth: variance of the first passes of a picture that begins with one, against one that learns anew, as many passes
 * each.
 *
 * <pre>bake bench kept [WIDTH [PASSES_THAT_TAUGHT [VIEW]]]</pre>
 */
public final class KeptGuides {
    private static final int PAIRS = 3;

    private KeptGuides() {}

    public static void main(String[] args) throws Exception {
        int width = args.length > 0 ? Integer.parseInt(args[0]) : 320, taught = args.length > 1 ? Integer.parseInt(args[1]) : 33;
        String name = args.length > 2 ? args[2] : "Reading room, morning";
        Path folder = DemoProject.ensure(Files.createTempDirectory("bake-bench").resolve("demo"), LocalDate.of(2026, 11, 1));
        ProjectSession session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
        View view = session.project().view(name);
        RenderScene panes = RenderScene.compile(new SceneAssembly(session.folder()).scene(session.project(), view), Workers.COMPILING);
        int height = width * view.size()[1] / view.size()[0];
        try (Workers workers = new Workers(2)) {
            for (boolean known : new boolean[] {true, false}) {
                RenderScene scene = known ? panes : panes.with(Openings.none());
                Guides guides = make(scene, view, null, 999, taught, width, height, workers).guides();
                System.out.printf(Locale.ROOT, "%s, openings %s, %d places learnt in %d passes%n", name, known ? "known" : "not known",
                        guides.places(), taught);
                for (int passes : new int[] {1, 2, 4, 8, 16}) {
                    double[] v = new double[2];
                    for (int k = 0; k < 2; k++) {
                        Compared c = new Compared(width, height);
                        for (int i = 0; i < PAIRS; i++) {
                            Film[] f = new Film[2];
                            for (int s = 0; s < 2; s++) f[s] = make(scene, view, k == 0 ? null : guides, 1 + 2 * i + s, passes, width,
                                    height, workers).film();
                            c.add(f);
                        }
                        for (int i = 0; i < PAIRS; i++) v[k] += c.variance(i) / PAIRS;
                    }
                    System.out.printf(Locale.ROOT, "  after %2d passes: variance %.4f learning anew, %.4f with the kept guide, %.2f times less%n", passes, v[0], v[1], v[0] / v[1]);
                }
            }
        }
        System.exit(0);
    }

    private static Renderer make(RenderScene scene, View view, Guides guides, long seed, int passes, int width, int height,
            Workers workers) {
        Film f = Film.merged(width, height, scene.lights().groups().size());
        Renderer r = new Renderer(scene, view.camera().camera(), new PathSettings(10, 0, seed), f, Region.all(width, height), workers);
        if (guides != null && !r.begin(guides)) throw new IllegalStateException("the guide does not suit");
        for (int p = 0; p < passes; p++) r.pass(p, workers, () -> false);
        return r;
    }
}
