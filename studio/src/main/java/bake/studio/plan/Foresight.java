package bake.studio.plan;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.studio.cache.HierarchyCache;
import bake.studio.estimate.Estimate;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.preset.Presets;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;

/** What the pictures of a delivery will take: from pictures made here before, else from a small one of each. */
public final class Foresight {
    private final Path folder;
    private final Workers workers;
    private final Estimator estimator;
    private final SceneAssembly assembly;
    private RenderScene compiled;

    public Foresight(Path folder, Workers workers) {
        this(folder, workers, new Estimator(WorkLog.shared()), new SceneAssembly(folder));
    }

    public Foresight(Path folder, Workers workers, Estimator estimator, SceneAssembly assembly) {
        this.folder = folder;
        this.workers = workers;
        this.estimator = estimator;
        this.assembly = assembly;
    }

    /** A picture of the delivery with what is known of it. */
    public record Known(Deliveries.Picture picture, Estimate estimate) {
        public Plan.Work work() {
            return new Plan.Work(picture.view().name(), estimate.seconds(), estimate.low(), estimate.high());
        }
    }

    /**
     * All pictures that are in the delivery, in order; takes some seconds for each view of which none was made here.
     *
     * @param told which view it is at, and how far it is, 0 to 1
     * @param stop gives up; what is known until then is returned
     */
    public List<Known> all(Project p, BiConsumer<String, Double> told, BooleanSupplier stop) throws IOException {
        List<Known> out = once(p, told, stop);
        // What held one of them up for half a minute is no measure of a night.
        return !stop.getAsBoolean() && estimator.forgetHiccups() ? once(p, told, stop) : out;
    }

    private List<Known> once(Project p, BiConsumer<String, Double> told, BooleanSupplier stop) throws IOException {
        List<Known> out = new ArrayList<>();
        List<Deliveries.Picture> all = Deliveries.pictures(p, folder, Deliveries.current(p), LocalDate.now()).stream().filter(
                x -> !x.off()).toList();
        for (Deliveries.Picture x : all) {
            if (stop.getAsBoolean()) break;
            Project q = Presets.seen(p, x.preset());
            Estimate e = estimator.of(q, folder, x.view(), x.preset(), size(x), () -> {
                told.accept(x.view().name(), out.size() / (double) all.size());
                return compile(q, x);
            }, workers, stop);
            if (e == null) break;
            out.add(new Known(x, e));
        }
        return out;
    }

    /** The same for one picture where that takes no time; null where nothing is known. */
    public Estimate quick(Project p, Deliveries.Picture x) throws IOException {
        return estimator.quick(Presets.seen(p, x.preset()), folder, x.view(), x.preset(), size(x), workers.threads());
    }

    private static int[] size(Deliveries.Picture x) {
        return new int[] {x.width(), x.height()};
    }

    private synchronized RenderScene compile(Project p, Deliveries.Picture x) throws IOException {
        return compiled = RenderScene.compile(assembly.scene(p, x.view()), compiled, Workers.COMPILING, HierarchyCache.shared());
    }
}
