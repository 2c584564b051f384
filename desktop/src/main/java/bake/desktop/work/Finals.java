package bake.desktop.work;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.studio.estimate.Estimate;
import bake.studio.live.Spots;
import bake.studio.plan.Deliveries;
import bake.studio.preset.Presets;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueStatus;
import bake.studio.queue.RenderQueue;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executor;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** The delivery that is worked on: its pictures, and what has become of them in the queue. Holds no control. */
public final class Finals {
    /**
     * One picture of the delivery.
     *
     * @param entry how it stands in the queue, or null where it was not added yet
     * @param estimate what it will take, or null where that is not known
     */
    public record Row(Deliveries.Picture picture, QueueEntry entry, Estimate estimate) {
        public String view() {
            return picture.view().name();
        }

        /** Whether it is in the queue and not over. */
        public boolean queued() {
            return entry != null && !entry.state().over();
        }

        /** Whether it is to be made with the delivery, and was not yet. */
        public boolean open() {
            return !picture.off() && (entry == null || entry.state() != QueueEntry.State.DONE);
        }
    }

    private final Workbench bench;
    private final Executor background;
    private final ObservableList<Row> rows = FXCollections.observableArrayList();
    private final BooleanProperty running = new SimpleBooleanProperty();
    private final QueueHand queue;
    private final PlanHand plan;
    private final TryOut tryOut;
    private final FinalsStart start;
    /** What is known of each picture, by view; and what it was known for. */
    private final Map<String, Estimate> known = new HashMap<>();
    private Project knownFor;

    Finals(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        queue = new QueueHand(bench, background);
        plan = new PlanHand(bench, background, this);
        tryOut = new TryOut(bench, background, this);
        start = new FinalsStart(bench, background, this);
        bench.projectProperty().addListener((o, a, b) -> refresh());
        queue.seenProperty().addListener((o, a, b) -> refresh());
    }

    public ObservableList<Row> rows() {
        return rows;
    }

    /** Whether a picture of this project is in work. */
    public BooleanProperty runningProperty() {
        return running;
    }

    /** The machine's queue. */
    public QueueHand queue() {
        return queue;
    }

    /** When it will be ready. */
    public PlanHand plan() {
        return plan;
    }

    /** The delivery in small, to look at before the night. */
    public TryOut tryOut() {
        return tryOut;
    }

    /** The delivery that is worked on. */
    public DeliverySpec delivery() {
        return bench.project() == null ? Deliveries.FIRST : Deliveries.current(bench.project());
    }

    /** Where its files go. */
    public Path folder() {
        return bench.folder() == null ? null : Deliveries.folder(bench.folder(), delivery());
    }

    /** Changes the delivery, as one step that can be undone. */
    public void change(UnaryOperator<DeliverySpec> how) {
        bench.edit(null, p -> Deliveries.with(p, how.apply(Deliveries.current(p))));
    }

    /** Changes what is otherwise for a view. */
    public void changeView(String view, UnaryOperator<DeliverySpec.Item> how) {
        bench.edit(null, p -> Deliveries.with(p, how.apply(Deliveries.current(p).item(view))));
    }

    /** Names of the presets that finals may be made with. */
    public List<String> presets() {
        return bench.project() == null ? List.of() : Presets.all(bench.project()).stream().filter(Preset::isFinal).map(
                Preset::name).toList();
    }

    /** Has the report say how much light falls on a place. */
    public void measure(Spots.Place p) {
        bench.edit(null, x -> Deliveries.withPoint(x, p.object(), new double[] {p.at().x(), p.at().y(), p.at().z()},
                new double[] {p.normal().x(),
                p.normal().y(), p.normal().z()}));
        bench.notices().say("The report will say the light on " + p.object() + "; the list is at Finals.");
    }

    /** Begins the next round with what this one has. */
    public void nextRound() {
        bench.edit(null, Deliveries::nextRound);
    }

    void refresh() {
        Project p = bench.project();
        // What was foreseen may come when the project is closing.
        if (p == null || bench.folder() == null) {
            rows.clear();
            return;
        }
        QueueHand.Seen s = queue.seenProperty().get();
        if (knownFor != p) {
            knownFor = p;
            known.clear();
            plan.foresee();
        }
        List<Row> out = new ArrayList<>();
        try {
            for (Deliveries.Picture x : Deliveries.pictures(p, bench.folder(), delivery(), LocalDate.now()))
                out.add(new Row(x, entry(s, x.view().name()), known.get(x.view().name())));
        } catch (IllegalArgumentException e) {
            bench.notices().fail(e);
        }
        if (!out.equals(rows)) rows.setAll(out);
        running.set(out.stream().anyMatch(r -> r.entry() != null && r.entry().state() == QueueEntry.State.RENDERING && s.status() != null));
    }

    /** The last picture of the queue that is this view's in this delivery. */
    private QueueEntry entry(QueueHand.Seen s, String view) {
        QueueEntry found = null;
        if (s != null) for (QueueEntry e : s.entries())
            if (e.job().view().equals(view) && e.job().delivery().equals(delivery().name()) && Path.of(e.job().project()).equals(
                    bench.folder()
                    .toAbsolutePath().normalize()) && (found == null || e.job().id() > found.job().id())) found = e;
        return found;
    }

    /** Takes what was found out about a picture of a project. */
    public void learn(Project of, String view, Estimate e) {
        if (of != knownFor || e == null) return;
        known.put(view, e);
        refresh();
    }

    public void choose(Row r, boolean chosen) {
        changeView(r.view(), i -> i.withOff(chosen ? null : Boolean.TRUE));
    }

    /** Adding pictures to the queue. */
    public FinalsStart start() {
        return start;
    }

    /** What the picture in work says of itself, where it is this row's; null elsewhere. */
    public QueueStatus status(Row r) {
        QueueHand.Seen s = queue.seenProperty().get();
        return s != null && s.status() != null && r.entry() != null && s.status().job() == r.entry().job().id() ? s.status() : null;
    }

    /** Stops the picture in work and keeps what it has; the others wait. */
    public void stop() {
        for (Row r : rows) if (r.entry() != null && r.entry().state() == QueueEntry.State.RENDERING)
            queue.tell(q -> q.stopAndKeep(r.entry().job().id()));
        else if (r.queued()) queue.tell(q -> q.cancel(r.entry().job().id()));
    }

    /** Whether small pictures are being made, which take all threads. */
    boolean busy() {
        return tryOut.runningProperty().get() || plan.lookingProperty().get();
    }

    void close() {
        queue.close();
        tryOut.stop();
    }
}
