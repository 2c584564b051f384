package bake.studio.queue;

import bake.core.work.Workers;
import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.picture.DisplayPicture;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.estimate.WorkLog;
import bake.studio.project.Digests;
import bake.studio.render.RenderJob;
import bake.studio.user.DesktopNote;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.stream.Stream;

/**
 * Works a queue off: one picture after another, each with all threads. One of a machine works at a time. Whatever happens to a picture, the
 * next one is begun; what can be tried again is, after all others.
 */
public final class QueueWorker implements AutoCloseable {
    /** How often a picture is tried that had trouble. */
    private static final int TRIES = 3;
    private static final long POLL_MILLIS = 150, SMALL_NANOS = 4_000_000_000L, STATUS_NANOS = 300_000_000L;
    private static final int SMALL_WIDTH = 320;

    private final RenderQueue queue;
    private final Workers workers;
    private final FinalMaker maker;
    private final Clock clock;
    private final FileChannel channel;
    private final Presence presence;
    private final BiConsumer<String, String> note;
    private int made, failed;
    private final Thread watcher = new Thread(this::watch, "queue");
    private volatile boolean quit;
    private volatile int at;
    private volatile boolean dropped;
    private volatile RenderJob.Progress progress;

    /** @throws FormatException when another process works the queue */
    public QueueWorker(RenderQueue queue, int threads, WorkLog log, Clock clock) throws IOException {
        this(queue, threads, log, clock, DesktopNote::say);
    }

    /** @param note takes a title and a text, when all is done or something is wrong */
    QueueWorker(RenderQueue queue, int threads, WorkLog log, Clock clock, BiConsumer<String, String> note) throws IOException {
        this.queue = queue;
        this.clock = clock;
        this.note = note;
        presence = new Presence(queue.folder(), clock);
        Files.createDirectories(queue.folder());
        channel = FileChannel.open(queue.folder().resolve("worker.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock lock;
        try {
            lock = channel.tryLock();
        } catch (OverlappingFileLockException e) {
            lock = null;
        }
        if (lock == null) {
            channel.close();
            throw new FormatException("queue", null, "is worked by another process already; bake queue list shows how far it is");
        }
        workers = new Workers(threads);
        maker = new FinalMaker(workers, log);
        watcher.setDaemon(true);
        watcher.start();
    }

    /** Leaves the queue after the tiles in work; the picture goes on from its last kept passes when the queue is worked again. */
    public void quit() {
        quit = true;
        maker.pause(false);
        maker.stop();
    }

    /**
     * Renders until nothing is left.
     *
     * @param wait whether to wait for more after that, until {@link #quit}
     * @return whether nothing failed
     */
    public boolean run(boolean wait) throws IOException {
        boolean good = true;
        try (Awake awake = Awake.hold()) {
            sweep();
            while (!quit) {
                queue.refresh();
                QueueEntry e = queue.next();
                if (e == null) tellDone();
                if (e == null && !wait) break;
                String why = e == null ? "waiting" : rests();
                if (why != null) {
                    status(0, why);
                    pause();
                    continue;
                }
                good &= one(e);
            }
        }
        return good && queue.entries().stream().noneMatch(q -> q.state() == QueueEntry.State.FAILED);
    }

    private static void pause() {
        try {
            Thread.sleep(POLL_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Why nothing is to be rendered now, or null; how many threads may is set on the way. */
    private String rests() {
        if (queue.paused()) return "resting";
        if (!queue.hours().open(ZonedDateTime.now(clock))) return "waiting for its hours";
        Manners m = queue.manners();
        boolean here = m != Manners.ALL && presence.here();
        workers.allow(here && m == Manners.HALF ? workers.threads() / 2 : workers.threads());
        return here && m == Manners.REST ? "resting while someone works here" : null;
    }

    /** One note for all that was made since the last one. */
    private void tellDone() {
        if (made + failed == 0) return;
        note.accept(failed == 0 ? "Finals are done" : "Finals need a look", (made == 1 ? "1 picture is done" : made + " pictures are done")
                + (failed == 0 ? "." : ", " + failed + " could not be made: bake queue list says why."));
        made = failed = 0;
    }

    private boolean one(QueueEntry e) throws IOException {
        QueueJob j = e.job();
        at = j.id();
        dropped = false;
        progress = null;
        queue.tell(RenderQueue.event("begin", j.id()));
        status(j.id(), "rendering");
        Path own = queue.state(j.id()).getParent();
        try {
            Project p = ProjectFile.read(queue.state(j.id()));
            FinalMaker.Made m = maker.make(j, p, own, g -> shown(j, g), whole -> names(j.id(), whole));
            ended(j, m);
            made++;
            clean(own);
            return true;
        } catch (IOException | RuntimeException | OutOfMemoryError x) {
            queue.refresh();
            if (quit || dropped || queue.entry(j.id()) == null || queue.entry(j.id()).state() == QueueEntry.State.CANCELLED) {
                if (dropped) clean(own);
                return true;
            }
            return trouble(e, x);
        } finally {
            at = 0;
        }
    }

    /** The names under which files are written: noted before, so that a killed run finds its own ones again. */
    private List<Path> names(int id, boolean whole) throws IOException {
        if (quit || dropped) throw new IOException("stopped");
        queue.refresh();
        QueueEntry e = queue.entry(id);
        List<Path> files = e.job().files().stream().map(Path::of).toList();
        if (!whole) return files.stream().map(FileNames::unfinished).toList();
        if (!e.writing()) {
            // Something of that name may have come while it was rendered.
            List<String> free = FileNames.free(e.job().files(), java.util.Set.of(), e.job().replace());
            if (!free.equals(e.job().files())) {
                ObjectNode n = RenderQueue.event("files", id);
                ArrayNode a = n.putArray("files");
                free.forEach(a::add);
                queue.tell(n);
                files = free.stream().map(Path::of).toList();
            }
            queue.tell(RenderQueue.event("writing", id));
        }
        return files;
    }

    private void ended(QueueJob j, FinalMaker.Made m) throws IOException {
        ObjectNode n = RenderQueue.event(m.whole() ? "done" : "kept", j.id());
        n.put("seconds", m.progress().seconds()).put("noise", Double.isFinite(m.progress().noise()) ? m.progress().noise() : 0)
                .put("passes", m.progress().passes());
        ArrayNode sums = n.putArray("sums");
        for (Path f : m.files()) sums.add(sum(f));
        if (!m.whole()) n.put("note", "kept as " + m.files().getFirst().getFileName() + "; try it again to go on");
        queue.tell(n);
    }

    static String sum(Path f) throws IOException {
        MessageDigest d = Digests.sha();
        try (InputStream in = new DigestInputStream(Files.newInputStream(f), d)) {
            in.transferTo(java.io.OutputStream.nullOutputStream());
        }
        return Digests.hex(d);
    }

    /** What happened, in words with what to do; tried again where that may help. */
    private boolean trouble(QueueEntry e, Throwable x) throws IOException {
        boolean again = !(x instanceof FormatException) && e.tries() + 1 < TRIES;
        String what = x instanceof OutOfMemoryError ? "there was not enough memory; close other programs, make it smaller, or deliver EXR"
                : x.getMessage() == null ? x.getClass().getSimpleName() : x.getMessage();
        if (!(x instanceof IOException) && !(x instanceof OutOfMemoryError))
            org.slf4j.LoggerFactory.getLogger(QueueWorker.class).error("picture {} of the queue", e.job().id(), x);
        if (!again) failed++;
        try {
            queue.tell(RenderQueue.event("trouble", e.job().id()).put("note", what).put("again", again));
        } catch (IOException full) {
            // The queue's own disk is full: the picture stays as it is, and is tried when there is room.
            org.slf4j.LoggerFactory.getLogger(QueueWorker.class).error("the queue cannot be written", full);
            pause();
        }
        return again;
    }

    /** What pictures that are over have left to be gone on from. */
    private void sweep() throws IOException {
        queue.refresh();
        for (QueueEntry q : queue.entries())
            if (q.state() == QueueEntry.State.DONE || q.state() == QueueEntry.State.CANCELLED) clean(queue.state(q.job().id()).getParent());
    }

    private static void clean(Path own) {
        try (Stream<Path> all = Files.isDirectory(own) ? Files.walk(own) : Stream.empty()) {
            for (Path f : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                String n = f.getFileName().toString();
                if (!f.equals(own) && !n.equals(ProjectFile.NAME) && !n.equals("small.png")) Files.deleteIfExists(f);
            }
        } catch (IOException e) {
            // It is only room on the disk; the next start tries again.
        }
    }

    private long lastSmall, lastStatus;

    /** On the rendering thread: a sign of life, and a small picture now and then. */
    private void shown(QueueJob j, RenderJob.Progress g) {
        progress = g;
        long now = System.nanoTime();
        if (now - lastStatus > STATUS_NANOS) {
            lastStatus = now;
            status(j.id(), "rendering");
        }
        RenderJob r = maker.job();
        if (r == null || g.passes() == 0 || now - lastSmall < SMALL_NANOS && g.state() == RenderJob.State.RENDERING) return;
        lastSmall = now;
        try {
            small(r, queue.small(j.id()));
        } catch (IOException e) {
            // It is only to be looked at.
        }
    }

    /** A picture of what there is, each of its pixels one of the film's. */
    private static void small(RenderJob r, Path to) throws IOException {
        int w = Math.min(SMALL_WIDTH, r.order().width()), h = Math.max(1, r.order().height() * w / r.order().width());
        int[] all = r.finish().argb(r.film(), null), out = new int[w * h];
        for (int i = 0; i < out.length; i++)
            out[i] = all[(int) ((long) (i / w) * r.order().height() / h) * r.order().width() + (int) ((long) (i % w)
                    * r.order().width() / w)];
        AtomicFile.write(to, o -> DisplayPicture.writePng(o, DisplayPicture.image8(w, h, out, false), 72));
    }

    private void status(int id, String state) {
        QueueStatus.of(id, state, progress).write(queue.folder());
    }

    /** Hears what others ask for, and says that it lives. */
    private void watch() {
        long said = 0;
        while (!quit) {
            pause();
            try {
                queue.refresh();
            } catch (IOException e) {
                continue;
            }
            int id = at;
            if (id == 0) continue;
            String rests = rests();
            maker.pause(rests != null);
            QueueEntry e = queue.entry(id);
            if (e == null || e.state() == QueueEntry.State.CANCELLED) {
                dropped = true;
                maker.pause(false);
                maker.stop();
            } else if (queue.keeps(id)) {
                maker.pause(false);
                maker.stop();
            }
            if (System.nanoTime() - said > 1_000_000_000L) {
                said = System.nanoTime();
                status(id, rests != null ? rests : "rendering");
            }
        }
    }

    @Override
    public void close() throws IOException {
        quit();
        workers.close();
        channel.close();
    }
}
