package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.light.Openings;
import bake.core.opening.OpeningFinder;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Portal;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ForkJoinPool;

/**
 * Ways of looking for daylight against each other, at equal time: the surroundings as a whole, portals by hand, openings that were found,
 * the sky guide alone, and what is done by itself (glass panes and the guide). Two pictures of each way with different seeds; all take
 * turns, whichever has used least time so far. The view is lit by an overcast sky alone.
 *
 * <pre>bake bench daylight [SECONDS [WIDTH [VIEW]]]</pre>
 *
 * Figures: half the mean of ((A - B) / M)^2 over pixels, M the mean of all with a floor of a twentieth of its mean; and of how many
 * standard errors the means differ from those of all others, for the picture and at worst and on the root mean square of its 16 x 16
 * blocks. The variance is given once more for the pixels that show the room alone.
 */
public final class Daylighting {
    /** Windows of the reading room, its roof light and its glazed entrance, as an artist would draw them. */
    private static List<Portal> byHand(List<Portal> found) {
        // Half a hand smaller than the holes: drawn by eye.
        return found.stream().map(p -> new Portal(p.name(), p.corners().stream().map(c -> p.middle().plus(c.minus(p.middle()).times(0.97)))
                .toList())).toList();
    }

    private record Way(String name, Renderer[] pictures, Film[] films, double[] used, int[] passes) {}

    private Daylighting() {}

    public static void main(String[] args) throws Exception {
        double seconds = args.length > 0 ? Double.parseDouble(args[0]) : 20;
        int width = args.length > 1 ? Integer.parseInt(args[1]) : 320;
        String name = args.length > 2 ? args[2] : "Reading room, morning";
        Path folder = DemoProject.ensure(Files.createTempDirectory("bake-bench").resolve("demo"), LocalDate.of(2026, 11, 1));
        ProjectSession session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
        View morning = session.project().view(name);
        // Under an overcast sky (type 1 of ISO 15469): all light of the view is that of the surroundings.
        View view = morning.withAround(morning.around().withStandardSky(1)).withOff("Pendants", true);
        for (var l : session.project().lamps()) view = view.withOff(l.groupName(), true);
        view = view.withOff(bake.core.light.LightTable.GLOW, true);
        RenderScene scene = RenderScene.compile(new SceneAssembly(session.folder()).scene(session.project(), view), Workers.COMPILING);
        ForkJoinPool pool = ForkJoinPool.commonPool();
        long t = System.nanoTime();
        List<Portal> found = new OpeningFinder(scene, pool).find(session.project().views().stream().map(v -> v.camera().camera().position())
                .toList(), () -> false);
        System.out.printf(Locale.ROOT, "find openings: %d in %.2f s%n", found.size(), (System.nanoTime() - t) / 1e9);
        for (Portal p : found) System.out.printf(Locale.ROOT, "  %-14s %5.2f m2 at %s facing %s%n", p.name(), p.size(), text(p.middle()),
                text(p.normal()));
        Workers workers = new Workers(2);
        Map<String, RenderScene> scenes = new LinkedHashMap<>();
        scenes.put("whole", scene.with(Openings.none()));
        scenes.put("portals by hand", scene.with(Openings.of(byHand(found), scene.geometry(), scene.surfaces(), pool)));
        scenes.put("found openings", scene.with(Openings.of(found, scene.geometry(), scene.surfaces(), pool)));
        scenes.put("sky guide alone", scene.with(Openings.none()));
        scenes.put("by itself (panes)", scene);
        int height = width * view.size()[1] / view.size()[0];
        Way[] ways = new Way[scenes.size()];
        int k = 0;
        for (var e : scenes.entrySet()) {
            Renderer[] r = new Renderer[2];
            Film[] f = new Film[2];
            for (int i = 0; i < 2; i++) {
                f[i] = Film.merged(width, height, e.getValue().lights().groups().size());
                PathSettings s = new PathSettings(10, 0, 1 + i, !e.getKey().equals("whole"), bake.core.film.PixelFilter.TENT)
                        .withExchange(!Boolean.getBoolean("plain"));
                r[i] = new Renderer(e.getValue(), view.camera().camera(), s, f[i], Region.all(width, height), workers);
                Film warm = Film.merged(width, height, e.getValue().lights().groups().size());
                new Renderer(e.getValue(), view.camera().camera(), s, warm, Region.all(width, height), workers)
                        .pass(0, workers, () -> false);
            }
            ways[k++] = new Way(e.getKey(), r, f, new double[2], new int[2]);
        }
        while (true) {
            Way least = null;
            int which = 0;
            for (Way w : ways) for (int i = 0; i < 2; i++) if (least == null || w.used[i] < least.used[which]) {
                least = w;
                which = i;
            }
            if (least.used[which] >= seconds) break;
            long b = System.nanoTime();
            least.pictures[which].pass(least.passes[which]++, workers, () -> false);
            least.used[which] += (System.nanoTime() - b) / 1e9;
        }
        Compared c = new Compared(width, height);
        for (Way w : ways) c.add(w.films);
        double first = c.variance(0), portals = c.variance(1);
        boolean[] walls = walls(scene, view, width, height);
        int n = 0;
        for (boolean b : walls) if (b) n++;
        System.out.printf(Locale.ROOT, "of %.0f %% of the pixels, in which no window and nothing behind one is seen:%n",
                100.0 * n / walls.length);
        for (int i = 0; i < ways.length; i++)
            System.out.printf(Locale.ROOT, "%-18s variance %9.5f %5.2f times less, without the hundredth of them that vary most %9.5f %5.2f times less%n", ways[i].name, c.variance(i, walls, 0), c.variance(0, walls, 0) / c.variance(i, walls, 0),
                    c.variance(i, walls, 0.01), c.variance(0, walls, 0.01) / c.variance(i, walls, 0.01));
        for (int i = 0; i < ways.length; i++)
            System.out.printf(Locale.ROOT, "%-18s passes %4d  variance %9.5f  %5.2f times less than whole, %3.0f %% of the portals' gain, absolute %9.6f %5.2f times less, mean %.3f, off by %.2f standard errors, blocks %.2f on average and %.2f at worst of %d%n", ways[i].name,
                    ways[i].passes[0] + ways[i].passes[1], c.variance(i), first / c.variance(i),
                    100 * (first / c.variance(i)) / (first / portals), c.absolute(i), c.absolute(0) / c.absolute(i), c.mean(i), c.off(i),
                    c.blocks(i)[0], c.blocks(i)[1], c.count());
        System.exit(0);
    }

    /**
     * Pixels that show a surface of the room, also half a pixel beside them: light straight from outside varies at its edges whatever way
     * it is looked for.
     */
    private static boolean[] walls(RenderScene scene, View view, int width, int height) {
        boolean[] out = new boolean[width * height];
        var lens = new bake.core.compiled.Lens(view.camera().camera(), width, height);
        var ray = new bake.core.geometry.Ray();
        var point = new bake.core.surface.SurfacePoint();
        float[] r = new float[6];
        for (int i = 0; i < out.length; i++) {
            out[i] = true;
            for (float dy = -1; dy <= 1; dy += 0.5f)
                for (float dx = -1; dx <= 1; dx += 0.5f) {
                    lens.ray((i % width + 0.5f + dx) / width, (i / width + 0.5f + dy) / height, 0, 0, r);
                    ray.set(r[0], r[1], r[2], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
                    if (!scene.tracer().closest(ray) || ray.item >= scene.tracer().firstLamp()) {
                        out[i] = false;
                        continue;
                    }
                    point.load(scene.geometry(), scene.surfaces(), ray);
                    out[i] &= !scene.surfaces().isPane(point.material);
                }
        }
        return out;
    }

    private static String text(bake.core.math.Vec3 v) {
        return String.format(Locale.ROOT, "(%.2f, %.2f, %.2f)", v.x(), v.y(), v.z());
    }
}
