package bake.cli;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.estimate.Estimate;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.preset.PresetKeys;
import bake.studio.preset.Presets;
import bake.studio.preset.Shelves;
import bake.studio.scene.SceneAssembly;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Predicts what a picture will take. */
@Command(name = "estimate", mixinStandardHelpOptions = true, sortOptions = false, description =
        "Say how long a picture will take and how noisy it will be, from pictures made here before or a small one made now.")
final class EstimateCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "--view", paramLabel = "NAME", description = "view; default: the one last worked on")
    private String view;

    @Option(names = "--preset", paramLabel = "NAME[@VERSION]", description = "preset, or test or final (default: test)")
    private String preset = "test";

    @Option(names = "--shelf", paramLabel = "FOLDER", description = "the studio's shelf of presets")
    private Path shelf;

    @Option(names = "--size", paramLabel = "WxH", description = "pixels; default: the preset's")
    private String size;

    @Option(names = "--threads", paramLabel = "N", description = "default: all processors")
    private Integer threads;

    @Option(names = "--set", paramLabel = "path=value", description = "change the project, or a value of the preset by its key")
    private List<String> sets;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Projects.Opened p = Projects.open(project, sets);
        View v = p.view(view);
        Preset s = PresetKeys.set(p.project(), Presets.named(p.project(), v, preset, Shelves.of(p.folder(), shelf)), sets);
        int[] wh = size == null ? Presets.size(s, v) : RenderCommand.size(size);
        int n = threads == null ? Runtime.getRuntime().availableProcessors() : threads;
        if (n < 1 || n > 1024) throw new IllegalArgumentException("--threads takes 1 to 1024");
        try (Workers workers = new Workers(n)) {
            Estimator e = new Estimator(WorkLog.shared(), true);
            Estimate r = e.of(p.project(), p.folder(), v, s, wh, () -> RenderScene.compile(new SceneAssembly(p.folder()).scene(
                    p.project(), v),
                    null, Workers.COMPILING, HierarchyCache.shared()), workers, () -> false);
            if (r == null) throw new IOException("nothing could be measured; the picture is too small");
            double[] score = e.score();
            if (json) {
                ObjectNode out = Json.MAPPER.createObjectNode();
                out.put("seconds", r.seconds()).put("low", r.low()).put("high", r.high()).put("noise", r.noise()).put("passes", r.passes());
                out.putObject("phases").put("caches", r.caches()).put("passes", r.rendering()).put("finish", r.finish());
                out.put("basis", r.basis()).put("limit", r.limit()).put("view", v.name()).put("preset", s.name()).put("version", s.version())
                        .putArray("size").add(wh[0]).add(wh[1]);
                if (score[1] > 0) out.putObject("score").put("within20Percent", score[0]).put("of", (int) score[1]);
                spec.commandLine().getOut().println(out.toPrettyString());
            } else {
                spec.commandLine().getOut().printf(Locale.ROOT, "%s, %s v%d, %dx%d: %s (%s to %s), noise %.2f %%, ends by its %s%n", v.name(),
                        s.name(), s.version(), wh[0], wh[1], time(r.seconds()), time(r.low()), time(r.high()), r.noise(), r.limit());
                spec.commandLine().getOut().printf(Locale.ROOT, "  caches %s, %d passes %s, finish %s; from %s%n", time(r.caches()), r.passes(),
                        time(r.rendering()), time(r.finish()), r.basis());
                if (score[1] > 0) spec.commandLine().getOut().printf(Locale.ROOT, "  so far %.0f %% of %d predictions were right within 20 %%%n",
                        100 * score[0], (int) score[1]);
            }
        }
        return 0;
    }

    private static String time(double s) {
        return s < 90 ? String.format(Locale.ROOT, "%.1f s", s) : s < 5400 ? String.format(Locale.ROOT, "%.0f min", s / 60)
                : String.format(Locale.ROOT, "%.1f h", s / 3600);
    }
}
