package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.light.LightTable;
import bake.core.light.Openings;
import bake.core.opening.OpeningFinder;
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
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ForkJoinPool;

/**
 * Whether ways of looking for daylight mean the same light, block by block: many pictures of each way with seeds of their own, whose block
 * means give honest standard errors although pixels of one picture are tied together.
 *
 * <pre>bake bench means [PICTURES [PASSES [WIDTH]]]</pre>
 *
 * For each way the root mean square and the greatest number of standard errors by which a block's mean differs from that of the
 * surroundings taken as a whole. With n pictures each, Student's t of 2n - 2 degrees of freedom has a root mean square of sqrt((n - 1) / (n
 * - 2)).
 */
public final class DaylightMeans {
    private static final int BLOCK = 16;

    private DaylightMeans() {}

    public static void main(String[] args) throws Exception {
        int pictures = args.length > 0 ? Integer.parseInt(args[0]) : 12, passes = args.length > 1 ? Integer.parseInt(args[1]) : 8,
                width = args.length > 2 ? Integer.parseInt(args[2]) : 320;
        Path folder = DemoProject.ensure(Files.createTempDirectory("bake-bench").resolve("demo"), LocalDate.of(2026, 11, 1));
        ProjectSession session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
        View view = session.project().view("Reading room, morning");
        view = view.withAround(view.around().withStandardSky(1)).withOff(LightTable.GLOW, true);
        for (var l : session.project().lamps()) view = view.withOff(l.groupName(), true);
        RenderScene scene = RenderScene.compile(new SceneAssembly(session.folder()).scene(session.project(), view), Workers.COMPILING);
        ForkJoinPool pool = ForkJoinPool.commonPool();
        var found = new OpeningFinder(scene, pool).find(session.project().views().stream().map(v -> v.camera().camera().position())
                .toList(), () -> false);
        Map<String, RenderScene> ways = new LinkedHashMap<>();
        ways.put("whole", scene.with(Openings.none()));
        ways.put("found openings", scene.with(Openings.of(found, scene.geometry(), scene.surfaces(), pool)));
        ways.put("sky guide alone", scene.with(Openings.none()));
        ways.put("panes", scene);
        int height = width * view.size()[1] / view.size()[0], across = width / BLOCK, blocks = across * (height / BLOCK);
        double[][] mean = new double[ways.size()][blocks], square = new double[ways.size()][blocks];
        double[] all = new double[ways.size()], allSquare = new double[ways.size()];
        try (Workers workers = new Workers(2)) {
            int way = 0;
            for (var e : ways.entrySet()) {
                for (int i = 0; i < pictures; i++) {
                    Film f = Film.merged(width, height, e.getValue().lights().groups().size());
                    Renderer r = new Renderer(e.getValue(), view.camera().camera(),
                            new PathSettings(10, 0, 1000L * way + i, !e.getKey().equals("whole"), PixelFilter.TENT), f,
                            Region.all(width, height), workers);
                    for (int p = 0; p < passes; p++) r.pass(p, workers, () -> false);
                    double whole = 0;
                    for (int b = 0; b < blocks; b++) {
                        double m = block(f, b % across * BLOCK, b / across * BLOCK);
                        mean[way][b] += m / pictures;
                        square[way][b] += m * m / pictures;
                        whole += m / blocks;
                    }
                    all[way] += whole / pictures;
                    allSquare[way] += whole * whole / pictures;
                }
                way++;
            }
        }
        int k = 0;
        for (String name : ways.keySet()) {
            double sum = 0, worst = 0;
            int beyond = 0;
            for (int b = 0; b < blocks && k > 0; b++) {
                double t = t(mean[k][b], square[k][b], mean[0][b], square[0][b], pictures);
                sum += t * t;
                worst = Math.max(worst, Math.abs(t));
                if (Math.abs(t) > 3) beyond++;
            }
            System.out.printf(Locale.ROOT, "%-16s mean %.3f, off by %.2f standard errors; blocks off by %.2f (root mean square; by chance %.2f), %.2f at worst, %d of %d beyond 3%n", name, all[k],
                    k == 0 ? 0 : t(all[k], allSquare[k], all[0], allSquare[0], pictures), Math.sqrt(sum / blocks),
                    Math.sqrt((pictures - 1) / (pictures - 2.0)), worst, beyond, blocks);
            k++;
        }
        System.exit(0);
    }

    private static double t(double a, double aSquare, double b, double bSquare, int n) {
        return (a - b) / Math.sqrt(Math.max(1e-12, (aSquare - a * a + bSquare - b * b) / (n - 1)));
    }

    private static double block(Film f, int x0, int y0) {
        float[] c = new float[3];
        double sum = 0;
        for (int y = y0; y < y0 + BLOCK; y++)
            for (int x = x0; x < x0 + BLOCK; x++) {
                f.mean(x, y, null, c);
                sum += 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
            }
        return sum / (BLOCK * BLOCK);
    }
}
