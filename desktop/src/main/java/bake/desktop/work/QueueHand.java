package bake.desktop.work;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.studio.plan.Deliveries;
import bake.studio.queue.Manners;
import bake.studio.queue.Presence;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueHours;
import bake.studio.queue.QueueProcess;
import bake.studio.queue.QueueStatus;
import bake.studio.queue.RenderQueue;
import bake.studio.report.Handover;
import bake.studio.report.Report;
import bake.studio.user.UserFolders;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableMap;
import javax.imageio.ImageIO;

/** Follows and steers the machine's queue, which is worked by a process of its own. Holds no control. */
public final class QueueHand {
    /** How the queue stands; {@code status} is null where nobody works it. */
    public record Seen(List<QueueEntry> entries, boolean paused, QueueHours hours, Manners manners, QueueStatus status) {}

    /** Has a queue worked. */
    public interface Starter {
        void start(Path queue) throws IOException;
    }

    /** Something that is asked of the queue. */
    public interface Asking {
        void of(RenderQueue q) throws IOException;
    }

    private static final long POLL_MILLIS = 350, PRESENT_NANOS = 20_000_000_000L;
    private final Workbench bench;
    private final Executor background;
    private final ObjectProperty<Seen> seen = new SimpleObjectProperty<>();
    private Path folder = UserFolders.queue();
    private Starter starter = QueueProcess::start;
    private RenderQueue queue;
    private final ObservableMap<Integer, Small> smalls = FXCollections.observableHashMap();
    private final Map<Path, FileTime> smallOf = new HashMap<>();
    private long told = System.nanoTime() - PRESENT_NANOS;
    private volatile boolean closed;

    QueueHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        Thread t = new Thread(this::follow, "queue window");
        t.setDaemon(true);
        t.start();
    }

    /** Where the queue lives and how it is worked, if not as usual. */
    public synchronized void use(Path queueFolder, Starter how) {
        folder = queueFolder;
        starter = how;
        queue = null;
    }

    /** Null until it was looked at. */
    public ObjectProperty<Seen> seenProperty() {
        return seen;
    }

    synchronized RenderQueue open() throws IOException {
        if (queue == null) queue = new RenderQueue(folder);
        queue.refresh();
        return queue;
    }

    private void follow() {
        while (!closed) {
            try {
                look();
                Thread.sleep(POLL_MILLIS);
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private void look() {
        try {
            RenderQueue q = open();
            Seen s = new Seen(q.entries(), q.paused(), q.hours(), q.manners(), QueueStatus.read(q.folder()));
            Map<Integer, Small> fresh = looks(q, s.entries());
            bench.later(() -> {
                if (closed) return;
                smalls.putAll(fresh);
                if (!s.equals(seen.get())) seen.set(s);
            });
        } catch (IOException e) {
            // It is looked at again in a moment.
        }
    }

    /** Small pictures that were made since they were last looked at. */
    private Map<Integer, Small> looks(RenderQueue q, List<QueueEntry> entries) {
        Map<Integer, Small> out = new HashMap<>();
        for (QueueEntry e : entries) {
            Path f = q.small(e.job().id());
            try {
                FileTime t = Files.getLastModifiedTime(f);
                if (t.equals(smallOf.get(f))) continue;
                BufferedImage i = ImageIO.read(f.toFile());
                if (i == null) continue;
                smallOf.put(f, t);
                out.put(e.job().id(), new Small(i.getRGB(0, 0, i.getWidth(), i.getHeight(), null, 0, i.getWidth()), i.getWidth(),
                        i.getHeight()));
            } catch (IOException x) {
                // There is none yet, or it is just being replaced.
            }
        }
        return out;
    }

    /** How pictures of the queue look so far, by number. */
    public ObservableMap<Integer, Small> smalls() {
        return smalls;
    }

    /** Somebody works in the window: what the queue leaves to them is theirs. */
    public void present() {
        long now = System.nanoTime();
        if (now - told < PRESENT_NANOS) return;
        told = now;
        Path f;
        synchronized (this) {
            f = folder;
        }
        background.execute(() -> Presence.tell(f));
    }

    /** Has it worked from now on, where nobody does. */
    void work() throws IOException {
        Starter s;
        Path f;
        synchronized (this) {
            s = starter;
            f = folder;
        }
        s.start(f);
        look();
    }

    /** Asks something of the queue in the background. */
    public void tell(Asking what) {
        background.execute(() -> {
            try {
                what.of(open());
                look();
            } catch (IOException | RuntimeException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Gives the machine back within a moment, or goes on. */
    public void pause(boolean wanted) {
        tell(q -> q.pause(wanted));
    }

    /** Has it worked, where it was left. */
    public void goOn() {
        tell(q -> work());
    }

    /** Pictures that wait while nobody works the queue. */
    public boolean left() {
        Seen s = seen.get();
        return s != null && s.status() == null && s.entries().stream().anyMatch(e -> !e.state().over());
    }

    /** Writes what the delivery is handed over with. */
    public void report() {
        Project p = bench.project();
        Path project = bench.folder();
        DeliverySpec d = bench.finals().delivery();
        tell(q -> {
            Report r = Report.of(q, p, project, d.name(), Deliveries.before(p, d.name()), Deliveries.due(p, d));
            List<Path> made = Handover.write(Deliveries.folder(project, d), r);
            bench.notices().say("Written: " + String.join(", ", made.stream().map(f -> f.getFileName().toString()).toList()) + ".");
        });
    }

    void close() {
        closed = true;
    }
}
