package bake.studio.plan;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.studio.cache.HierarchyCache;
import bake.studio.look.Looks;
import bake.studio.preset.Presets;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;

/**
 * Every picture of a delivery at a sixteenth of its pixels, with the settings of its final but for its limits: a wrong camera, a missing
 * texture or wrong light are seen before the night.
 */
public final class DryRun {
    /** A small picture, or why there is none. */
    public record Small(String view, int[] argb, int width, int height, String trouble) {}

    private static final int PART = 4, LEAST_WIDTH = 16, MOST_WIDTH = 480;
    private static final double NOISE = 9, SECONDS = 12;
    private final Workers workers;
    private volatile boolean stop;
    private volatile RenderJob job;

    public DryRun(Workers workers) {
        this.workers = workers;
    }

    /** Makes them one after another on the calling thread; trouble with one does not stop the others. */
    public void make(Project p, Path folder, List<Deliveries.Picture> all, Consumer<Small> each) {
        SceneAssembly assembly = new SceneAssembly(folder);
        RenderScene before = null;
        for (Deliveries.Picture x : all) {
            if (stop) return;
            Small made;
            try {
                before = RenderScene.compile(assembly.scene(Presets.seen(p, x.preset()), x.view()), before, Workers.COMPILING,
                        HierarchyCache.shared());
                made = small(before, x, folder);
            } catch (IOException | RuntimeException | OutOfMemoryError e) {
                made = new Small(x.view().name(), null, 0, 0, e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage());
            }
            each.accept(made);
        }
    }

    private Small small(RenderScene scene, Deliveries.Picture x, Path folder) throws IOException {
        int w = Math.clamp(x.width() / PART, LEAST_WIDTH, MOST_WIDTH), h = Math.max(1, (int) ((long) w * x.height() / x.width()));
        Preset q = x.preset().withLimits(NOISE, SECONDS, 0).withDenoise(true).withAimDenoised(null);
        RenderJob j = new RenderJob(scene, new RenderJob.Order(x.view().name(), x.view().camera().camera(), Looks.of(folder, x.view()), q,
                w, h,
                null, 1, false), workers);
        job = j;
        if (stop) j.stop();
        j.run(g -> {});
        job = null;
        return new Small(x.view().name(), PictureOutput.argb(j.film(), j.finish(), null, j.order().region(), true), w, h, null);
    }

    /** Ends after the tiles in work; the picture in work is handed over as it is. */
    public void stop() {
        stop = true;
        RenderJob j = job;
        if (j != null) j.stop();
    }
}
