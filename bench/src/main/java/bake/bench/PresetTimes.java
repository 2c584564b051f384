package bake.bench;

import bake.core.compare.Flip;
import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.picture.DisplayPicture;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.ShippedPresets;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.preset.Presets;
import bake.studio.render.NoiseFall;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * What each preset that ships takes at equal size and how far off its picture is, beside a path traced one.
 *
 * <p>{@code ./bake bench presets WIDTH SECONDS FOLDER [PROJECT#VIEW]...}: pixels, the longest that one picture is rendered, where the
 * pictures go, and views (default: one of the demo's for each setting). A final that the time ends is said with what it would have taken.
 */
public final class PresetTimes {
    private PresetTimes() {}

    public static void main(String[] args) throws Exception {
        int width = Integer.parseInt(args[0]);
        double most = Double.parseDouble(args[1]);
        Path out = Files.createDirectories(Path.of(args[2]));
        List<String> views = new ArrayList<>(List.of(args).subList(3, args.length));
        if (views.isEmpty()) views.addAll(List.of("demo#Reading room, morning", "demo#Court, noon", "demo#Entrance, dusk"));
        System.out.println("view | preset | seconds | passes | noise % | error % | blocks % | FLIP");
        try (Workers workers = new Workers(Runtime.getRuntime().availableProcessors())) {
            for (String s : views) view(s, width, most, out, workers);
        }
    }

    private static void view(String which, int width, double most, Path out, Workers workers) throws Exception {
        String[] part = which.split("#", 2);
        Path file = part[0].equals("demo") ? DemoProject.ensure(DemoProject.home(), LocalDate.now()) : ProjectFile.locate(Path.of(part[0]));
        Project p = ProjectFile.read(file);
        View v = part.length < 2 ? p.currentView() : p.view(part[1]);
        int h = Math.max(1, width * v.size()[1] / v.size()[0]);
        // The picture that all are measured against has another seed, and nothing that could be off.
        Preset exact = ShippedPresets.find("Interior final, exact", 0).preset().withLimits(0.5, 4 * most, 0);
        RenderJob truth = made(p, v, file.getParent(), exact, width, h, 77, workers);
        int[] reference = PictureOutput.argb(truth.film(), truth.finish(), null, truth.order().region(), false);
        String name = v.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z]+", "-");
        write(out.resolve(name + "-reference.png"), reference, width, h);
        System.out.printf(Locale.ROOT, "%s | reference | %.0f | %d | %.2f%n", v.name(), truth.progress().seconds(),
                truth.progress().passes(), truth.progress().noise());
        Map<String, Double> seconds = new LinkedHashMap<>();
        for (Preset q : ShippedPresets.PRESETS) {
            boolean dusk = q.name().startsWith("Dusk");
            if (!q.setting().equals(v.setting()) && !(dusk && v.name().contains("dusk")) || Boolean.TRUE.equals(q.clay())) continue;
            double limit = q.isFinal() ? most : q.timeLimit();
            RenderJob j = made(p, v, file.getParent(), q.withLimits(q.noiseAim(), limit, q.samples()), width, h, 1, workers);
            int[] shown = PictureOutput.argb(j.film(), j.finish(), null, j.order().region(), q.denoise());
            write(out.resolve(name + "-" + q.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z]+", "-") + ".png"), shown, width, h);
            RenderJob.Progress g = j.progress();
            RenderJob.Phases t = j.phases();
            // What is left falls with the power that was seen.
            double whole = g.noise() <= q.noiseAim() ? g.seconds() : t.caches() + t.passes() * NoiseFall.passes(q.aimsAtDenoised(),
                    g.passes(), g.noise(), j.falling(), q.noiseAim()) / g.passes();
            seconds.put(q.name(), q.isFinal() ? whole : g.seconds());
            double[] e = error(shown, reference, width, h);
            System.out.printf(Locale.ROOT, "%s | %s | %.0f%s | %d | %.2f | %.2f | %.2f | %.4f%n", v.name(), q.name(), g.seconds(),
                    g.noise() > q.noiseAim() && q.isFinal() ? String.format(Locale.ROOT, " (%.0f for its noise)", whole) : "", g.passes(),
                    g.noise(), e[0], e[1], Flip.mean(Flip.map(shown, reference, width, h, Flip.PIXELS_PER_DEGREE)));
        }
        seconds.forEach((n, s) -> {
            Double f = n.contains("test") ? seconds.get(n.replace("test", "final")) : null;
            if (f != null) System.out.printf(Locale.ROOT, "%s: %s takes 1/%.1f of its final%n", v.name(), n, f / s);
        });
    }

    private static RenderJob made(Project p, View v, Path folder, Preset q, int w, int h, long seed, Workers workers) throws Exception {
        RenderScene scene = RenderScene.compile(new SceneAssembly(folder).scene(Presets.seen(p, q), v), null, Workers.COMPILING,
                HierarchyCache.shared());
        RenderJob j = new RenderJob(scene, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), q, w, h, null, seed, false),
                workers);
        j.run(g -> {});
        return j;
    }

    private static void write(Path file, int[] argb, int w, int h) throws Exception {
        DisplayPicture.writePng(file, DisplayPicture.image8(w, h, argb, false), 72);
    }

    /** Root of the mean square of displayed differences, percent of white: of pixels, and of the means of blocks of 8 x 8. */
    private static double[] error(int[] a, int[] b, int w, int h) {
        double sum = 0, blocks = 0;
        int n = 0;
        for (int i = 0; i < a.length; i++) for (int s = 0; s < 24; s += 8) sum += Math.pow((a[i] >> s & 255) - (b[i] >> s & 255), 2);
        for (int y = 0; y + 8 <= h; y += 8) for (int x = 0; x + 8 <= w; x += 8) for (int s = 0; s < 24; s += 8, n++) {
            double d = 0;
            for (int k = 0; k < 64; k++) {
                int i = (y + k / 8) * w + x + k % 8;
                d += (a[i] >> s & 255) - (b[i] >> s & 255);
            }
            blocks += d * d / 64 / 64;
        }
        return new double[] {100 * Math.sqrt(sum / 3 / a.length) / 255, 100 * Math.sqrt(blocks / n) / 255};
    }
}
