package bake.desktop.work;

import bake.core.compiled.RenderScene;
import bake.core.solve.RoomSize;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.estimate.Estimate;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.preset.Presets;
import bake.studio.render.EngineSettings;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Says what the next proof will take, and what the ways to compute bounced light cost for it. Holds no control. */
public final class CostHand {
    /** The aim that both ways are compared at where a preset has none, percent. */
    private static final double USUAL_AIM = 2;

    /**
     * What both ways take.
     *
     * @param exact seconds that path tracing alone would take, {@code cached} those with caches
     * @param noise percent that both are for, at {@code width} x {@code height} pixels
     */
    public record Ways(double exact, double cached, double noise, int width, int height) {}

    private final Workbench bench;
    private final Executor background;
    private final Prover prover;
    private final Estimator estimator = new Estimator(WorkLog.shared());
    private final ObjectProperty<Ways> ways = new SimpleObjectProperty<>();
    private final ObjectProperty<Estimate> estimate = new SimpleObjectProperty<>();
    private final BooleanProperty measuring = new SimpleBooleanProperty();
    private final ObjectProperty<RoomSize> room = new SimpleObjectProperty<>();
    private View sizing;
    private int asked;
    private volatile boolean stop;

    CostHand(Workbench bench, Executor background, Prover prover) {
        this.bench = bench;
        this.background = background;
        this.prover = prover;
        bench.viewProperty().addListener((o, a, b) -> {
            ways.set(null);
            room.set(null);
            sizing = null;
            foresee();
        });
        prover.onlyProperty().addListener((o, a, b) -> foresee());
        prover.presetProperty().addListener((o, a, b) -> {
            // The solvers chosen do not change what either way costs.
            if (a == null || b == null || a.noiseAim() != b.noiseAim() || a.width() != b.width() || !a.name().equals(b.name()))
                ways.set(null);
            foresee();
        });
    }

    /** What was measured for the current view and preset, or null. */
    public ObjectProperty<Ways> waysProperty() {
        return ways;
    }

    /** What the next proof will take, or null while nothing like it was made here. */
    public ObjectProperty<Estimate> estimateProperty() {
        return estimate;
    }

    Estimator estimator() {
        return estimator;
    }

    /** Looks up what the next proof will take, without making anything. */
    void foresee() {
        View v = bench.view();
        Path folder = bench.folder();
        int number = ++asked;
        if (v == null || prover.presetProperty().get() == null || folder == null) {
            estimate.set(null);
            return;
        }
        Preset p = prover.onlyProperty().get().of(prover.presetProperty().get(), v);
        Project project = Presets.seen(prover.onlyProperty().get().of(bench.project()), p);
        background.execute(() -> {
            Estimate found = null;
            try {
                found = estimator.quick(project, folder, v, p, Presets.size(p, v), bench.workers().threads());
            } catch (IOException e) {
                // A file that cannot be looked at is said where it is used.
            }
            Estimate there = found;
            bench.later(() -> {
                if (number == asked) estimate.set(there);
            });
        });
    }

    /** What the current view stands in, or null before that is known: asking for it finds it out. */
    public ObjectProperty<RoomSize> roomProperty() {
        View v = bench.view();
        if (v == null || v == sizing || bench.easel().live() == null) return room;
        sizing = v;
        Project project = bench.project();
        background.execute(() -> {
            try {
                RoomSize size = RoomSize.around(v.camera().camera().position(), bench.easel().live().compile(project, v).tracer());
                bench.later(() -> {
                    if (bench.view() == v) room.set(size);
                });
            } catch (Exception e) {
                bench.notices().fail(e);
            }
        });
        return room;
    }

    public BooleanProperty measuringProperty() {
        return measuring;
    }

    public void stop() {
        stop = true;
    }

    /** Makes small pictures both ways, and so learns what pictures of the view take. */
    public void measure() {
        View v = bench.view();
        Preset p = prover.presetProperty().get();
        if (v == null || p == null || measuring.get() || prover.busy() || bench.finals().busy()) return;
        Project project = bench.project();
        Path folder = bench.folder();
        stop = false;
        measuring.set(true);
        bench.easel().hold();
        background.execute(() -> {
            Ways found = null;
            try {
                found = both(project, folder, v, p);
            } catch (Exception | OutOfMemoryError e) {
                bench.notices().fail(e);
            }
            Ways there = found;
            bench.later(() -> {
                measuring.set(false);
                if (bench.view() == v && prover.presetProperty().get() != null) ways.set(there);
                bench.easel().release();
                foresee();
            });
        });
    }

    private Ways both(Project project, Path folder, View v, Preset p) throws IOException {
        Preset cached = EngineSettings.bounced(p).cached() ? p : p.withExact(null).withBounces("irradiance cache", "radiance cache", true);
        double aim = p.noiseAim() > 0 ? p.noiseAim() : USUAL_AIM;
        int[] size = Presets.size(p, v);
        RenderScene[] scene = new RenderScene[1];
        Workers workers = bench.workers();
        Estimate[] e = new Estimate[2];
        for (int k = 0; k < 2; k++) {
            Preset q = (k == 0 ? p.withExact(true) : cached).withLimits(aim, 0, 0);
            e[k] = estimator.of(project, folder, v, q, size, () -> {
                if (scene[0] == null) scene[0] = bench.easel().live().compile(project, v);
                return scene[0];
            }, workers, () -> stop);
            if (e[k] == null) return null;
        }
        return new Ways(e[0].seconds(), e[1].seconds(), aim, size[0], size[1]);
    }
}
