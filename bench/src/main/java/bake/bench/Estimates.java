package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.estimate.Estimate;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.preset.Presets;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Locale;

/**
 * Predicts proofs of the demo's views and makes them: test settings cached and traced, then final ones, at two sizes. Begins knowing
 * nothing, and learns as the window would.
 *
 * <p>{@code ./bake bench estimates [WIDTH [AIM]]}: pixels of the smaller size; and the noise that finals are made to, percent, and tests to
 * twice of it, where these are not the presets' own limits, and then finals are traced as well
 */
public final class Estimates {
    private Estimates() {}

    public static void main(String[] args) throws Exception {
        int width = args.length > 0 ? Integer.parseInt(args[0]) : 240;
        double aim = args.length > 1 ? Double.parseDouble(args[1]) : 0;
        Path file = DemoProject.ensure(DemoProject.home(), LocalDate.now()), folder = file.getParent();
        Project p = ProjectFile.read(file);
        Path log = Files.createTempDirectory("bake-estimates").resolve("work.jsonl");
        int right = 0, near = 0, all = 0;
        System.out.println("view, preset, size: predicted (range), real; noise predicted, real; from");
        try (Workers workers = new Workers(Runtime.getRuntime().availableProcessors())) {
            SceneAssembly assembly = new SceneAssembly(folder);
            Estimator e = new Estimator(new WorkLog(log));
            for (View v : p.views()) {
                RenderScene scene = RenderScene.compile(assembly.scene(p, v), null, Workers.COMPILING, HierarchyCache.shared());
                for (int k = 0; k < (aim > 0 ? 4 : 3); k++) {
                    Preset base = Presets.suiting(p, v, k >= 2), exact = base.withExact(k % 2 == 0 ? base.exact() : Boolean.TRUE),
                            q = aim == 0 ? exact : exact.withLimits(k >= 2 ? aim : 2 * aim, 0, 0);
                    for (int s = 0; s < 2; s++) {
                        int w = s == 0 ? width : width * 3 / 2, h = Math.max(1, w * v.size()[1] / v.size()[0]);
                        Estimate said = e.of(p, folder, v, q, new int[] {w, h}, () -> scene, workers, () -> false);
                        RenderJob j = new RenderJob(scene, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), q, w, h, null,
                                1 + s, false),
                                workers);
                        j.run(g -> {});
                        long saving = System.nanoTime();
                        PictureOutput.writePng8(log.resolveSibling("x.png"), j.film(), j.finish(), null, j.order().region(), q.denoise());
                        double saved = (System.nanoTime() - saving) / 1e9;
                        RenderJob.Phases t = j.phases();
                        double real = t.caches() + t.passes() + t.finish() + saved, noise = j.progress().noise();
                        e.made(p, folder, v, j, workers.threads(), saved, said);
                        boolean good = Math.abs(Math.log(real / said.seconds())) < Math.log(1.2), clean = Math.abs(Math.log(
                                noise / said.noise()))
                                < Math.log(1.25);
                        all++;
                        if (good) right++;
                        if (clean) near++;
                        System.out.printf(Locale.ROOT, "%s, %s%s, %dx%d: %.1f s (%.1f to %.1f), %.1f s%s; %.2f, %.2f %%%s; %s%n", v.name(), q.name(),
                                Boolean.TRUE.equals(q.exact()) ? ", exact" : "", w, h, said.seconds(), said.low(), said.high(), real,
                                good ? "" : " *", said.noise(), noise, clean ? "" : " *", said.basis());
                    }
                }
            }
        }
        System.out.printf("%d of %d times within 20 %%, %d of %d noises within 25 %%%n", right, all, near, all);
    }
}
