package bake.desktop.work;

import bake.core.cache.IrradianceCache;
import bake.core.math.Vec3;
import bake.core.path.BounceSettings;
import bake.core.solve.Caches;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.CacheStore;
import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import bake.studio.live.Spots;
import bake.studio.render.EngineSettings;
import bake.studio.render.RenderJob;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.value.ObservableValue;

/**
 * The caches of bounced light: what the last proof has computed, and what is kept of it for later pictures of the same light. Holds no
 * control.
 */
public final class CacheHand {
    /** What a proof has cached, with what it was made from and where its time went. */
    public record Offer(Path folder, Project project, View view, Preset preset, Caches caches, RenderJob.Phases phases) {}

    private final Workbench bench;
    private final Executor background;
    private final ObservableValue<Preset> preset;
    private final ObjectProperty<List<CacheStore.Entry>> kept = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<Offer> offer = new SimpleObjectProperty<>();
    private final ObjectProperty<Asked> asked = new SimpleObjectProperty<>();
    private final BooleanProperty anyway = new SimpleBooleanProperty();
    private boolean looking, again;

    CacheHand(Workbench bench, Executor background, ObservableValue<Preset> preset) {
        this.bench = bench;
        this.preset = preset;
        preset.addListener((o, a, b) -> {
            if (a == null || b == null || !EngineSettings.bounced(a).equals(EngineSettings.bounced(b))) look();
        });
        this.background = background;
        showing().addListener((o, a, b) -> {
            asked.set(null);
            // A print that hangs on the easel would hide it.
            if (b != Showing.PICTURE) bench.prints().aProperty().set(null);
        });
        bench.projectProperty().addListener((o, a, b) -> look());
        bench.viewProperty().addListener((o, a, b) -> look());
    }

    /** The files that are kept, each compared with the current view. */
    public ObjectProperty<List<CacheStore.Entry>> keptProperty() {
        return kept;
    }

    /** What the last proof of the session has cached, or null. */
    public ObjectProperty<Offer> offerProperty() {
        return offer;
    }

    /**
     * What the easel shows on the Prove station: the picture, or of the caches {@link Showing#RECORDS}, {@link Showing#CELLS} or
     * {@link Showing#PHOTONS}.
     */
    public ObjectProperty<Showing> showing() {
        return bench.easel().showing(Station.PROVE);
    }

    /** Whether the next proofs begin with kept caches of other light too, for a look; their prints say so. */
    public BooleanProperty anywayProperty() {
        return anyway;
    }

    /** What records made the place that was clicked, or null. */
    public ObjectProperty<Asked> askedProperty() {
        return asked;
    }

    /**
     * What was found at a place of the picture.
     *
     * @param material its name
     */
    public record Asked(String material, IrradianceCache.Sources sources) {}

    /** Takes a click on the picture, 0 to 1 from the left and the top. */
    public void click(double x, double y) {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        IrradianceCache c = toShow().records();
        Spots.Place p = f == null || f.spots() == null || c == null ? null : f.spots().place(x, y);
        Vec3 at = p == null ? null : p.at(), n = p == null ? null : p.normal();
        asked.set(p == null ? null : new Asked(p.material(), c.sources((float) at.x(), (float) at.y(), (float) at.z(), (float) n.x(),
                (float) n.y(), (float) n.z())));
    }

    /** Keeps what is there from being replaced or deleted, or lets it be. */
    public void lock(boolean on) {
        var folder = bench.folder();
        if (folder != null) work(() -> CacheStore.of(folder).lock(on));
    }

    /** The caches that can be shown: those of the last proof. */
    Caches toShow() {
        return offer.get() == null ? Caches.NONE : offer.get().caches;
    }

    /**
     * What a proof begins with.
     *
     * @param other whether some of it is of other light
     */
    record Begin(Caches caches, boolean other) {}

    /**
     * Caches to begin a proof with: those kept that fit. Not on the window's thread.
     *
     * @param anyway whether those of other light are taken where none fit
     */
    Begin toBegin(Path folder, Project p, View v, Preset preset, boolean anyway) throws IOException {
        CacheStore store = CacheStore.of(folder, preset);
        if (store == null) return new Begin(Caches.NONE, false);
        BounceSettings how = EngineSettings.bounced(preset);
        Caches fit = store.fitting(p, folder, v, how, false);
        if (!anyway) return new Begin(fit, false);
        Caches all = store.fitting(p, folder, v, how, true);
        boolean more = fit.cells() == null && all.cells() != null || fit.records() == null && all.records() != null || fit.photons() == null
                && all.photons() != null || fit.caustics() == null && all.caustics() != null;
        return new Begin(more ? all : fit, more);
    }

    /** A proof was made. */
    void made(Project project, View view, Preset preset, Caches c, RenderJob.Phases phases) {
        offer.set(c.empty() ? null : new Offer(bench.folder(), project, view, preset, c, phases));
        if (offer.get() == null) showing().set(Showing.PICTURE);
    }

    /** Keeps what the last proof has cached. */
    public void keep() {
        Offer o = offer.get();
        if (o != null) work(() -> CacheStore.of(o.folder).keep(o.project, o.folder, o.view, EngineSettings.bounced(o.preset), o.caches));
    }

    /** Deletes all that is kept. */
    public void clear() {
        var folder = bench.folder();
        if (folder != null) work(() -> CacheStore.of(folder).clear());
    }

    private interface Work {
        void run() throws IOException;
    }

    private void work(Work w) {
        background.execute(() -> {
            try {
                w.run();
            } catch (IOException e) {
                bench.notices().fail(e);
            }
            bench.later(this::look);
        });
    }

    private void look() {
        // What another project's proofs have cached went with it.
        if (offer.get() != null && !offer.get().folder.equals(bench.folder())) {
            showing().set(Showing.PICTURE);
            offer.set(null);
        }
        if (bench.folder() == null || bench.view() == null || preset.getValue() == null) {
            kept.set(List.of());
            return;
        }
        if (looking) {
            again = true;
            return;
        }
        looking = true;
        Project p = bench.project();
        View v = bench.view();
        var folder = bench.folder();
        BounceSettings how = EngineSettings.bounced(preset.getValue());
        background.execute(() -> {
            List<CacheStore.Entry> found = List.of();
            try {
                found = CacheStore.of(folder).list(p, folder, v, how);
            } catch (IOException e) {
                bench.notices().fail(e);
            }
            List<CacheStore.Entry> all = found;
            bench.later(() -> {
                looking = false;
                if (folder.equals(bench.folder())) kept.set(all);
                if (again) {
                    again = false;
                    look();
                }
            });
        });
    }
}
