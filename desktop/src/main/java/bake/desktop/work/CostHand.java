package bake.desktop.work;

import bake.core.compiled.RenderScene;
import bake.core.solve.RoomSize;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.preset.SolverCosts;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Measures on this machine what the ways to compute bounced light cost for the next proof. Holds no control. */
public final class CostHand {
    private final Workbench bench;
    private final Executor background;
    private final Prover prover;
    private final ObjectProperty<SolverCosts> costs = new SimpleObjectProperty<>();
    private final BooleanProperty measuring = new SimpleBooleanProperty();
    private final ObjectProperty<RoomSize> room = new SimpleObjectProperty<>();
    private View sizing;
    private volatile boolean stop;

    CostHand(Workbench bench, Executor background, Prover prover) {
        this.bench = bench;
        this.background = background;
        this.prover = prover;
        bench.viewProperty().addListener((o, a, b) -> {
            costs.set(null);
            room.set(null);
            sizing = null;
        });
        prover.presetProperty().addListener((o, a, b) -> {
            // The solvers chosen do not change what either way costs.
            if (a == null || b == null || a.noiseAim() != b.noiseAim() || a.width() != b.width() || !a.name().equals(b.name()))
                costs.set(null);
        });
    }

    /** What was measured for the current view and preset, or null. */
    public ObjectProperty<SolverCosts> costsProperty() {
        return costs;
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

    public void measure() {
        View v = bench.view();
        Preset p = prover.presetProperty().get();
        if (v == null || p == null || measuring.get() || prover.busy() || bench.finals().busy()) return;
        Project project = bench.project();
        stop = false;
        measuring.set(true);
        bench.easel().hold();
        background.execute(() -> {
            SolverCosts found = null;
            try {
                RenderScene scene = bench.easel().live().compile(project, v);
                found = SolverCosts.measure(scene, v, p, bench.workers(), () -> stop);
            } catch (Exception | OutOfMemoryError e) {
                bench.notices().fail(e);
            }
            SolverCosts there = found;
            bench.later(() -> {
                measuring.set(false);
                if (bench.view() == v && prover.presetProperty().get() != null) costs.set(there);
                bench.easel().release();
            });
        });
    }
}
