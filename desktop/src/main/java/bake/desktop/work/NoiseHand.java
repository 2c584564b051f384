package bake.desktop.work;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.noise.NoiseFinder;
import bake.studio.noise.NoiseFindings;
import bake.studio.preset.Presets;
import bake.studio.scene.SceneAssembly;
import java.util.concurrent.Executor;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Finds where the noise of the current view is, and takes what helps. Holds no control. */
public final class NoiseHand {
    private final Workbench bench;
    private final Executor background;
    private final ObjectProperty<NoiseFindings> findings = new SimpleObjectProperty<>();
    /** How far the search is, 0 to 1; below 0 while there is none. */
    private final DoubleProperty progress = new SimpleDoubleProperty(-1);
    private volatile boolean stop;

    NoiseHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        bench.viewProperty().addListener((o, a, b) -> {
            if (a == null || b == null || !a.name().equals(b.name())) findings.set(null);
        });
    }

    /** What was found for the view, or null. */
    public ObjectProperty<NoiseFindings> findingsProperty() {
        return findings;
    }

    public DoubleProperty progressProperty() {
        return progress;
    }

    public boolean busy() {
        return progress.get() >= 0;
    }

    public void stop() {
        stop = true;
    }

    /** Looks; takes as long as a few tests, while which the easel rests. */
    public void find() {
        View v = bench.view();
        Preset p = bench.prover().presetProperty().get();
        if (v == null || p == null || busy()) return;
        if (bench.prover().busy() || bench.finals().busy()) {
            bench.notices().say("Other pictures are being made; wait for them, or stop them first.");
            return;
        }
        Project project = Presets.seen(bench.project(), p);
        SceneAssembly assembly = new SceneAssembly(bench.folder());
        stop = false;
        progress.set(0);
        bench.easel().hold();
        background.execute(() -> {
            NoiseFindings found = null;
            try {
                found = new NoiseFinder(assembly, bench.workers(), () -> stop).find(project, v, p, d -> bench.later(() -> progress.set(d)));
            } catch (Exception | OutOfMemoryError e) {
                bench.notices().fail(e);
            }
            NoiseFindings f = found;
            bench.later(() -> {
                progress.set(-1);
                if (f != null && bench.view() != null && bench.view().name().equals(v.name())) findings.set(f);
                bench.easel().release();
            });
        });
    }

    /** Takes a remedy: more paths for a material, as an edit of the project, or at edges, as a setting of the next proofs. */
    public void take(NoiseFindings.Remedy r) {
        if (r.against().edges()) bench.prover().change(q -> q.withEdges(r.paths()));
        else bench.edit(null, p -> NoiseFinder.with(p, r.against().material(), r.paths()));
    }

    /** Whether a remedy is taken already. */
    public boolean taken(NoiseFindings.Remedy r) {
        Preset p = bench.prover().presetProperty().get();
        if (r.against().edges()) return p != null && p.edges() != null && p.edges() >= r.paths();
        return bench.project() != null && bench.project().efforts().stream().anyMatch(e -> e.of().equals("material")
                && e.name().equals(r.against().material()) && e.samples() != null && e.samples() >= r.paths());
    }
}
