package bake.desktop.work;

import bake.core.compiled.RenderScene;
import bake.core.film.Region;
import bake.core.guide.Guides;
import bake.core.solve.Caches;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.GuideStore;
import bake.studio.estimate.Estimate;
import bake.studio.live.LiveRender;
import bake.studio.look.Looks;
import bake.studio.preset.Presets;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofOnly;
import bake.studio.proof.ProofStore;
import bake.studio.render.FileOptions;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import java.nio.file.Path;
import java.util.Objects;
import java.util.concurrent.Executor;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Makes proofs: one at a time, with progress, pause, and a stop that keeps what was made. */
public final class Prover {
    /** A picture of the proof in the making. */
    public record Preview(int width, int height, int[] argb) {}

    /** Title of prints that were made with caches of other light. */
    public static final String OTHER_LIGHT = "for a look: caches of other light";

    private final Workbench bench;
    private final Executor background;
    private final Making making;
    private final BooleanProperty running = new SimpleBooleanProperty(), paused = new SimpleBooleanProperty(),
            marking = new SimpleBooleanProperty();
    private final PresetDraft draft;
    private Path of;
    private final ObjectProperty<Region> region = new SimpleObjectProperty<>();
    private final ObjectProperty<ProofOnly> only = new SimpleObjectProperty<>(ProofOnly.NOTHING);
    private final CacheHand caches;
    private final CostHand costs;
    private final PresetHand presets;
    private volatile RenderJob job;
    private volatile boolean stopAsked, pauseAsked;

    Prover(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        making = new Making(bench::later, running::get);
        marking.addListener((o, a, b) -> {
            if (!b) region.set(null);
        });
        region.addListener((o, a, b) -> {
            if (b != null) marking.set(true);
        });
        draft = new PresetDraft(bench);
        caches = new CacheHand(bench, background, draft.presetProperty());
        costs = new CostHand(bench, background, this);
        presets = new PresetHand(bench, background, this);
        bench.viewProperty().addListener((o, a, b) -> {
            if (!Objects.equals(of, bench.folder())) only.set(ProofOnly.NOTHING);
            of = bench.folder();
        });
    }

    public ReadOnlyObjectProperty<RenderJob.Progress> progressProperty() {
        return making.progress.getReadOnlyProperty();
    }

    public ReadOnlyObjectProperty<Preview> previewProperty() {
        return making.preview.getReadOnlyProperty();
    }

    public BooleanProperty runningProperty() {
        return running;
    }

    public BooleanProperty pausedProperty() {
        return paused;
    }

    /** Test or Final. */
    public BooleanProperty wantsFinalProperty() {
        return draft.wantsFinalProperty();
    }

    /** The caches of bounced light. */
    public CacheHand caches() {
        return caches;
    }

    /** What ways to compute bounced light cost. */
    public CostHand costs() {
        return costs;
    }

    /** The presets of shelves. */
    public PresetHand presets() {
        return presets;
    }

    /** Settings of the next proof: a preset, perhaps changed. */
    public ObjectProperty<Preset> presetProperty() {
        return draft.presetProperty();
    }

    /** Changes the settings of the next proof. */
    public void change(UnaryOperator<Preset> how) {
        draft.change(how);
    }

    /** Takes the settings of a print, as part of a step. */
    void takeBack(String step, Preset p) {
        draft.change(step, p);
    }

    /** What is otherwise in the next proofs alone. */
    public ObjectProperty<ProofOnly> onlyProperty() {
        return only;
    }

    /** Part of the picture to render, as shares of a thousand of its width and height, or null for all. */
    public ObjectProperty<Region> regionProperty() {
        return region;
    }

    /** Whether a region is being marked; without it there is none. */
    public BooleanProperty markingProperty() {
        return marking;
    }

    /** How many settings differ from the preset of the same name. */
    public int changes() {
        return presets.changes().size();
    }

    /** Whether a proof is made, or what one would cost is measured. */
    boolean busy() {
        return running.get() || costs.measuringProperty().get() || bench.noise().busy();
    }

    /** Starts a proof of the current view. */
    public void start() {
        View v = bench.view();
        Preset now = presetProperty().get(), p = now == null || v == null ? null : only.get().of(now, v);
        if (p == null || running.get()) return;
        if (bench.finals().busy()) {
            bench.notices().say("Small pictures for the finals are being made; wait a moment, or stop that first.");
            return;
        }
        if (busy()) {
            bench.notices().say("Small pictures are being made to measure costs or noise; stop that first, or wait for them.");
            return;
        }
        Project project = only.get().of(bench.project());
        ProofStore store = bench.prints().store();
        running.set(true);
        paused.set(false);
        stopAsked = false;
        pauseAsked = false;
        making.begin();
        bench.notices().lastProperty().set(null);
        bench.easel().hold();
        Region part = region.get();
        boolean anyway = caches.anywayProperty().get();
        LiveRender live = bench.easel().live();
        Path folder = bench.folder();
        Estimate foreseen = costs.estimateProperty().get();
        background.execute(() -> make(new Place(folder, project, store, live), v, p, part, anyway, foreseen));
    }

    /** Where a proof belongs, whatever is opened while it is made. */
    private record Place(Path folder, Project project, ProofStore store, LiveRender live) {}

    private void make(Place at, View v, Preset p, Region part, boolean anyway, Estimate foreseen) {
        ProofStore store = at.store;
        Project project = Presets.seen(at.project, p);
        try {
            int[] s = Presets.size(p, v);
            Region r = part == null ? null : new Region(part.x() * s[0] / 1000, part.y() * s[1] / 1000,
                    Math.max(1, part.width() * s[0] / 1000), Math.max(1, part.height() * s[1] / 1000));
            RenderScene scene = at.live.compile(project, v);
            CacheHand.Begin begin = caches.toBegin(at.folder, project, v, p, anyway);
            FileOptions files = FileOptions.SCREEN.beside(p);
            RenderJob.Order order = new RenderJob.Order(v.name(), v.camera().camera(), Looks.of(at.folder, v), p, s[0], s[1], r, 1,
                    files.split());
            PictureOutput.check(order, files, scene);
            RenderJob j = new RenderJob(scene, order, bench.workers()).guidedBy(new GuideStore(at.folder).fitting(project, v))
                    .with(begin.caches());
            job = j;
            if (pauseAsked) j.pause();
            if (stopAsked) j.stop();
            j.run(g -> making.shown(j, g));
            if (j.progress().passes() == 0) bench.notices().say("Stopped before the first pass was done; nothing to keep.");
            else {
                long saving = System.nanoTime();
                Proof made = store.keep(j, v, project, bench.workers().threads());
                if (part == null && begin.caches() == Caches.NONE)
                    costs.estimator().made(project, at.folder, v, j, bench.workers().threads(), (System.nanoTime() - saving) / 1e9,
                            foreseen);
                Proof kept = begin.other() ? made.withTitle(OTHER_LIGHT) : made;
                if (begin.other()) store.save(kept);
                Guides learnt = j.guides();
                int passes = j.progress().passes();
                bench.later(() -> {
                    if (bench.prints().store() != store) return;
                    bench.prints().hang(kept);
                    costs.foresee();
                    bench.guides().made(project, v, learnt, passes);
                    caches.made(project, v, p, j.caches(), j.phases());
                });
            }
        } catch (Exception | OutOfMemoryError e) {
            bench.notices().fail(e);
        } finally {
            job = null;
            bench.later(() -> {
                running.set(false);
                making.end();
                bench.easel().release();
            });
        }
    }

    /** Ends the proof; what was made is kept and hung. */
    public void stop() {
        stopAsked = true;
        RenderJob j = job;
        if (j != null) j.stop();
        paused.set(false);
    }

    public void pause(boolean wanted) {
        if (!running.get()) return;
        // A job that is still being prepared is told when it is there.
        pauseAsked = wanted;
        RenderJob j = job;
        if (j != null && wanted) j.pause();
        else if (j != null) j.resume();
        paused.set(wanted);
    }
}
