package bake.desktop.work;

import bake.core.guide.Guides;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.GuideStore;
import bake.studio.live.Showing;
import java.io.IOException;
import java.util.concurrent.ExecutorService;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** The guides of the current view: what its last proof has learnt, and what is kept of that for later pictures. Holds no control. */
public final class GuideHand {
    /** What a proof has learnt, with what it was made from. */
    public record Offer(Project project, View view, Guides guides, int passes) {}

    private final Workbench bench;
    private final ExecutorService background;
    private final ObjectProperty<GuideStore.Kept> kept = new SimpleObjectProperty<>();
    private final ObjectProperty<Offer> offer = new SimpleObjectProperty<>();
    private boolean looking, again;

    GuideHand(Workbench bench, ExecutorService background) {
        this.bench = bench;
        this.background = background;
    }

    void begin() {
        kept.set(null);
        offer.set(null);
        if (showing().get().ofGuides()) showing().set(Showing.PICTURE);
    }

    /** What is kept for the view, or null. */
    public ObjectProperty<GuideStore.Kept> keptProperty() {
        return kept;
    }

    /** What the last proof of the session has learnt, or null. */
    public ObjectProperty<Offer> offerProperty() {
        return offer;
    }

    /** What the easel shows on the Light station: {@link Showing#SKY_GUIDE} and {@link Showing#LAMP_GUIDE} are what there is of guides. */
    public ObjectProperty<Showing> showing() {
        return bench.lighting().showing();
    }

    /** The guides that can be shown: those of the view's last proof, or else what is kept. */
    public Guides toShow() {
        View v = bench.view();
        Offer o = offer.get();
        if (o != null && v != null && o.view.name().equals(v.name())) return o.guides;
        return kept.get() == null ? null : kept.get().guides();
    }

    /** A proof was made. */
    void made(Project project, View view, Guides guides, int passes) {
        if (guides == null) return;
        offer.set(new Offer(project, view, guides, passes));
        if (showing().get().ofGuides()) bench.easel().show();
    }

    /** Whether the last proof was one of the current view, and learnt something. */
    public boolean canKeep() {
        return offer.get() != null && bench.view() != null && offer.get().view.name().equals(bench.view().name());
    }

    /** Keeps what the last proof has learnt. */
    public void keep() {
        Offer o = offer.get();
        GuideStore store = new GuideStore(bench.folder());
        if (canKeep()) work(() -> store.keep(o.project, o.view, o.guides, o.passes));
    }

    /** Forgets what is kept for the view. */
    public void forget() {
        View v = bench.view();
        GuideStore store = new GuideStore(bench.folder());
        work(() -> store.forget(v));
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

    /** Looks again whether what is kept fits the project as it is; asked after every edit, done when there is time. */
    void look() {
        if (bench.folder() == null || bench.view() == null) return;
        if (looking) {
            again = true;
            return;
        }
        looking = true;
        Project p = bench.project();
        View v = bench.view();
        GuideStore store = new GuideStore(bench.folder());
        background.execute(() -> {
            GuideStore.Kept k = null;
            try {
                k = store.find(p, v);
            } catch (IOException e) {
                bench.notices().fail(e);
            }
            GuideStore.Kept found = k;
            bench.later(() -> {
                looking = false;
                kept.set(found);
                if (again) {
                    again = false;
                    look();
                }
            });
        });
    }
}
