package bake.desktop.work;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.studio.plan.Deliveries;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.RenderQueue;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Adds the pictures of a delivery to the queue; where that would replace finals it is asked first. Holds no control. */
public final class FinalsStart {
    private final Workbench bench;
    private final Executor background;
    private final Finals finals;
    private final ObjectProperty<List<Path>> existing = new SimpleObjectProperty<>(List.of());
    /** Whether pictures are on their way into the queue. */
    private boolean adding;

    FinalsStart(Workbench bench, Executor background, Finals finals) {
        this.bench = bench;
        this.background = background;
        this.finals = finals;
    }

    /** Finals that are there already, while it is asked what is to become of them; empty while nothing is asked. */
    public ObjectProperty<List<Path>> existingProperty() {
        return existing;
    }

    /** Adds the pictures that are open to the queue and has it worked; where that would replace finals it is asked first. */
    public void now() {
        Project p = bench.project();
        // A second click, before the first is seen, adds nothing twice.
        if (adding || p == null) return;
        adding = true;
        List<Path> files = wanted().stream().flatMap(r -> r.picture().files().stream()).toList();
        // A share may take its time to say what it has.
        background.execute(() -> {
            List<Path> there = files.stream().filter(Files::exists).toList();
            bench.later(() -> {
                adding = false;
                if (bench.project() != p) return;
                existing.set(there);
                if (there.isEmpty()) add(false);
            });
        });
    }

    private List<Finals.Row> wanted() {
        return finals.rows().stream().filter(r -> r.open() && !r.queued()).toList();
    }

    /** Makes the finals anew; each that is there goes once its new one is whole. */
    public void replace() {
        existing.set(List.of());
        add(true);
    }

    /** Makes the finals beside those that are there, under numbered names. */
    public void number() {
        existing.set(List.of());
        add(false);
    }

    /** Leaves everything as it is. */
    public void leave() {
        existing.set(List.of());
    }

    private void add(boolean replace) {
        Project p = bench.project();
        Path folder = bench.folder();
        DeliverySpec d = finals.delivery();
        List<Finals.Row> wanted = wanted();
        if (adding || p == null || wanted.isEmpty()) return;
        adding = true;
        List<Double> expected = wanted.stream().map(r -> r.estimate() == null ? 0.0 : r.estimate().seconds()).toList();
        background.execute(() -> {
            try {
                RenderQueue q = finals.queue().open();
                // A picture that was stopped goes on where it was.
                List<Finals.Row> fresh = new ArrayList<>();
                for (Finals.Row r : wanted) if (r.entry() != null
                        && r.entry().state() == QueueEntry.State.KEPT) q.again(r.entry().job().id());
                else fresh.add(r);
                Deliveries.add(q, p, folder, d, fresh.stream().map(Finals.Row::picture).toList(), replace,
                        fresh.stream().map(r -> expected.get(
                        wanted
                        .indexOf(r))).toList());
                finals.queue().work();
            } catch (IOException | RuntimeException e) {
                bench.notices().fail(e);
            } finally {
                // After what the queue now holds was shown.
                bench.later(() -> adding = false);
            }
        });
    }
}
