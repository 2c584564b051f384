package bake.desktop.work;

import bake.formats.project.Project;
import bake.studio.estimate.Estimate;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import bake.studio.plan.Fit;
import bake.studio.plan.Foresight;
import bake.studio.plan.LockedOrder;
import bake.studio.plan.Plan;
import bake.studio.plan.Score;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueHours;
import bake.studio.queue.QueueStatus;
import bake.studio.queue.RenderQueue;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** When the delivery will be ready, the chance of being in time, and what would make it fit. Holds no control. */
public final class PlanHand {
    /** Range of what is left of a picture in work. */
    private static final double LEFT_RANGE = 1.12;
    private final Workbench bench;
    private final Executor background;
    private final Finals finals;
    private final ObjectProperty<Plan> plan = new SimpleObjectProperty<>();
    private final ObjectProperty<List<Fit.Way>> ways = new SimpleObjectProperty<>(List.of());
    private final BooleanProperty looking = new SimpleBooleanProperty();
    private Foresight foresight;
    private Path of;
    private int asked;

    PlanHand(Workbench bench, Executor background, Finals finals) {
        this.bench = bench;
        this.background = background;
        this.finals = finals;
        finals.rows().addListener((javafx.collections.ListChangeListener<Finals.Row>) c -> make());
    }

    /** Null while nothing is known of any picture. */
    public ObjectProperty<Plan> planProperty() {
        return plan;
    }

    /** What would make it fit, or what more the time would buy. */
    public ObjectProperty<List<Fit.Way>> waysProperty() {
        return ways;
    }

    /** Whether small pictures are made to find out. */
    public BooleanProperty lookingProperty() {
        return looking;
    }

    /** How many pictures that are to be made nothing is known of. */
    public long unknown() {
        return finals.rows().stream().filter(r -> r.open() && r.estimate() == null && finals.status(r) == null).count();
    }

    private Foresight foresight() {
        if (foresight == null || !bench.folder().equals(of)) {
            of = bench.folder();
            foresight = new Foresight(of, bench.workers(), new Estimator(WorkLog.shared()), new SceneAssembly(of));
        }
        return foresight;
    }

    /** Learns what takes no time to know. */
    void foresee() {
        Project p = bench.project();
        if (p == null || bench.folder() == null) return;
        Foresight f = foresight();
        Path folder = bench.folder();
        background.execute(() -> {
            try {
                for (Deliveries.Picture x : Deliveries.pictures(p, folder, Deliveries.current(p), java.time.LocalDate.now())) {
                    Estimate e = f.quick(p, x);
                    if (e != null) bench.later(() -> finals.learn(p, x.view().name(), e));
                }
            } catch (IOException | IllegalArgumentException e) {
                // What cannot be read is said where it is used.
            }
        });
    }

    /** Makes a small picture of each view that nothing is known of. */
    public void find() {
        Project p = bench.project();
        if (p == null || finals.busy() || bench.prover().busy()) return;
        Foresight f = foresight();
        looking.set(true);
        bench.easel().hold();
        background.execute(() -> {
            try {
                for (Foresight.Known k : f.all(p, (view, done) -> bench.later(() -> bench.notices().say("Making a small picture of " + view + ".")),
                        () -> bench.project() != p)) bench.later(() -> finals.learn(p, k.picture().view().name(), k.estimate()));
            } catch (IOException | RuntimeException | OutOfMemoryError e) {
                bench.notices().fail(e);
            } finally {
                bench.later(() -> {
                    looking.set(false);
                    bench.easel().release();
                });
            }
        });
    }

    /** The delivery's due time in this machine's zone, or null. */
    public ZonedDateTime due() {
        String s = bench.project() == null ? null : Deliveries.due(bench.project(), finals.delivery());
        try {
            return s == null ? null : LocalDateTime.parse(s).atZone(ZonedDateTime.now().getZone());
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    /** When this machine may work. */
    public QueueHours hours() {
        QueueHand.Seen s = finals.queue().seenProperty().get();
        return s == null ? QueueHours.ALWAYS : s.hours();
    }

    /** What stands before the delivery, and the delivery itself, in the order in which it will be made. */
    private List<Plan.Work> works() {
        List<Plan.Work> out = new ArrayList<>();
        QueueHand.Seen s = finals.queue().seenProperty().get();
        List<Integer> mine = finals.rows().stream().filter(Finals.Row::queued).map(r -> r.entry().job().id()).toList();
        if (s != null) for (QueueEntry e : s.entries()) {
            if (e.state().over()) continue;
            Finals.Row r = finals.rows().stream().filter(x -> x.queued() && x.entry().job().id() == e.job().id()).findFirst().orElse(null);
            String name = mine.contains(e.job().id()) ? e.job().view() : e.job().title() + ": " + e.job().view();
            QueueStatus in = s.status();
            if (in != null && in.job() == e.job().id() && in.left() >= 0) out.add(new Plan.Work(name, in.left(), in.left() / LEFT_RANGE,
                    in.left()
                    * LEFT_RANGE));
            else if (r != null && r.estimate() != null) out.add(new Plan.Work(name, r.estimate().seconds(), r.estimate().low(),
                    r.estimate().high()));
            else if (e.job().expected() > 0) out.add(new Plan.Work(name, e.job().expected(), e.job().expected() / 1.4, e.job().expected()
                    * 1.4));
        }
        for (Finals.Row r : finals.rows()) if (r.open() && !r.queued() && r.estimate() != null)
            out.add(new Plan.Work(r.view(), r.estimate().seconds(), r.estimate().low(), r.estimate().high()));
        return out;
    }

    private void make() {
        Project p = bench.project();
        List<Plan.Work> works = works();
        int number = ++asked;
        if (p == null || works.isEmpty()) {
            plan.set(null);
            ways.set(List.of());
            return;
        }
        QueueHours h = hours();
        ZonedDateTime due = due(), now = ZonedDateTime.now();
        Path folder = bench.folder();
        Foresight f = foresight();
        boolean all = unknown() == 0 && finals.rows().stream().noneMatch(Finals.Row::queued);
        background.execute(() -> {
            Plan made = Plan.of(works, h, now, due);
            List<Fit.Way> found = List.of();
            try {
                if (all) found = Fit.ways(p, folder, works, h, now, f::quick);
            } catch (IOException | IllegalArgumentException e) {
                // No ways are offered then.
            }
            List<Fit.Way> offered = found;
            bench.later(() -> {
                if (number != asked) return;
                plan.set(made);
                ways.set(offered);
            });
        });
    }

    /**
     * Makes a picture of the delivery before another one, in the queue and where it is not added yet.
     *
     * @param before what is to come after it, or null for the end
     */
    public void move(String view, String before) {
        Project p = bench.project();
        if (p == null || view.equals(before)) return;
        if (locked(view)) {
            bench.notices().say(view + " is locked where it is.");
            return;
        }
        QueueEntry e = queued(view), b = before == null ? null : queued(before);
        if (e == null) bench.edit(null, x -> Deliveries.move(x, bench.folder(), view, before));
        else {
            int id = e.job().id(), next = b == null ? 0 : b.job().id();
            List<Integer> kept = finals.rows().stream().filter(r -> r.queued() && locked(r.view())).map(r -> r.entry().job().id()).toList();
            finals.queue().tell(q -> move(q, id, next, kept));
        }
    }

    /** On the queue's thread: one move, or as many as it takes for others to stay where they are. */
    private static void move(RenderQueue q, int id, int next, List<Integer> kept) throws IOException {
        if (kept.isEmpty()) {
            q.move(id, next);
            return;
        }
        List<Integer> waiting = q.entries().stream().filter(x -> x.state() == QueueEntry.State.WAITING).map(x -> x.job().id()).toList(),
                order = LockedOrder.moved(waiting, kept::contains, id, next == 0 ? null : next);
        if (order.equals(waiting)) return;
        for (int i = order.size() - 1; i >= 0; i--) q.move(order.get(i), i == order.size() - 1 ? 0 : order.get(i + 1));
    }

    /** Whether a picture keeps its place and its settings. */
    public boolean locked(String view) {
        return bench.project() != null && finals.delivery().item(view).isLocked();
    }

    /** Whether it is a picture of this delivery. */
    public boolean has(String view) {
        return finals.rows().stream().anyMatch(r -> r.view().equals(view));
    }

    public void lock(String view, boolean locked) {
        finals.changeView(view, i -> i.withLocked(locked ? true : null));
    }

    private QueueEntry queued(String view) {
        return finals.rows().stream().filter(r -> r.view().equals(view) && r.queued()).map(Finals.Row::entry).findFirst().orElse(null);
    }

    /** Takes one of the ways, as a step that can be undone. */
    public void take(Fit.Way w) {
        bench.edit(null, p -> w.project());
    }

    /** What was promised and what became of it. */
    public Score score() {
        QueueHand.Seen s = finals.queue().seenProperty().get();
        return s == null ? Score.NONE : Score.of(s.entries());
    }
}
