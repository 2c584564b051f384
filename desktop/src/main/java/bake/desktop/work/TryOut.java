package bake.desktop.work;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.studio.cache.HierarchyCache;
import bake.studio.plan.Deliveries;
import bake.studio.preset.Presets;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Every picture of the delivery at a sixteenth of its size, to see in the evening what would be wrong in the morning. Holds no control. */
public final class TryOut {
    /** A small picture, or why there is none. */
    public record Small(String view, int[] argb, int width, int height, String trouble) {}

    private static final int MOST_WIDTH = 480;
    private static final double NOISE = 9, SECONDS = 12;
    private final Workbench bench;
    private final Executor background;
    private final Finals finals;
    private final ObjectProperty<List<Small>> sheet = new SimpleObjectProperty<>(List.of());
    private final BooleanProperty running = new SimpleBooleanProperty();
    private volatile boolean stop;
    private volatile RenderJob job;

    TryOut(Workbench bench, Executor background, Finals finals) {
        this.bench = bench;
        this.background = background;
        this.finals = finals;
        bench.projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || !a.name().equals(b.name())) sheet.set(List.of());
        });
    }

    public ObjectProperty<List<Small>> sheetProperty() {
        return sheet;
    }

    public BooleanProperty runningProperty() {
        return running;
    }

    /** Makes them, one after another; each is shown as soon as it is there. */
    public void start() {
        Project p = bench.project();
        if (p == null || bench.finals().busy() || bench.prover().busy()) return;
        Path folder = bench.folder();
        List<Deliveries.Picture> all = finals.rows().stream().filter(r -> !r.picture().off()).map(Finals.Row::picture).toList();
        running.set(true);
        stop = false;
        sheet.set(List.of());
        bench.easel().hold();
        background.execute(() -> {
            try {
                make(p, folder, all);
            } finally {
                bench.later(() -> {
                    running.set(false);
                    bench.easel().release();
                });
            }
        });
    }

    private void make(Project p, Path folder, List<Deliveries.Picture> all) {
        List<Small> made = new ArrayList<>();
        SceneAssembly assembly = new SceneAssembly(folder);
        RenderScene before = null;
        for (Deliveries.Picture x : all) {
            if (stop) return;
            String view = x.view().name();
            try {
                before = RenderScene.compile(assembly.scene(Presets.seen(p, x.preset()), x.view()), before, Workers.COMPILING,
                        HierarchyCache.shared());
                made.add(small(before, x));
            } catch (Exception | OutOfMemoryError e) {
                made.add(new Small(view, null, 0, 0, e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage()));
            }
            List<Small> now = List.copyOf(made);
            bench.later(() -> sheet.set(now));
        }
    }

    private Small small(RenderScene scene, Deliveries.Picture x) throws java.io.IOException {
        int w = Math.clamp(x.width() / 4, 16, MOST_WIDTH), h = Math.max(1, (int) ((long) w * x.height() / x.width()));
        Preset q = x.preset().withLimits(NOISE, SECONDS, 0).withDenoise(true);
        RenderJob j = new RenderJob(scene, new RenderJob.Order(x.view().name(), x.view().camera().camera(), x.view().look(), q, w, h,
                null, 1, false),
                bench.workers());
        job = j;
        if (stop) j.stop();
        j.run(g -> {});
        job = null;
        return new Small(x.view().name(), PictureOutput.argb(j.film(), j.finish(), null, j.order().region(), true), w, h, null);
    }

    public void stop() {
        stop = true;
        RenderJob j = job;
        if (j != null) j.stop();
    }
}
