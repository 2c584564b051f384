package bake.studio.project;

import bake.formats.FormatException;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.user.UserFolders;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executor;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;

/**
 * An open project: its value, undo and redo, saving, autosave and recovery. Used from one thread, its owner's; files are written on a
 * thread of their own. Only one session may write a project; others read it.
 */
public final class ProjectSession implements AutoCloseable {
    public static final String AUTOSAVE = "project.autosave.json";
    private static final long AUTOSAVE_MILLIS = 700, LOOK_MILLIS = 2000, ALIVE_SECONDS = 10;

    private final Path file;
    private final Steps steps = new Steps();
    private final List<Runnable> listeners = new ArrayList<>();
    private final Recoveries recoveries;
    private final OutsideChanges outside;
    private final ScheduledExecutorService saver = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread t = new Thread(r, "autosave");
        t.setDaemon(true);
        return t;
    });
    private volatile ProjectLock lock;
    private volatile Executor owner = Runnable::run;
    private ProjectLock.Holder holder;
    private Project project, saved, theirs;
    /** Presets as they were chosen or changed for the next proofs, by name. */
    private Map<String, Preset> drafts = Map.of();
    private Future<?> pendingSave;

    private ProjectSession(Path file, Project project) throws IOException {
        this.file = file;
        this.project = saved = project;
        recoveries = new Recoveries(file);
        outside = new OutsideChanges(file);
    }

    /** Opens a project's folder or file: to write it, or only to read it where somebody else writes it. */
    public static ProjectSession open(Path p) throws IOException {
        Path file = ProjectFile.locate(p).toAbsolutePath().normalize();
        ProjectLock lock = null;
        ProjectLock.Holder holder = null;
        try {
            lock = ProjectLock.take(file.getParent());
        } catch (ProjectLock.Held e) {
            holder = e.holder();
        } catch (IOException e) {
            // A folder that nobody may write; saving will say so.
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).info("no lock: {}", e.toString());
        }
        try {
            ProjectSession s = new ProjectSession(file, ProjectFile.read(file,
                    new CheckedTexts(UserFolders.cache().resolve("checked"))));
            s.lock = lock;
            s.holder = holder;
            s.recoverable();
            return s;
        } catch (IOException | RuntimeException e) {
            if (lock != null) lock.close();
            throw e;
        }
    }

    /** The autosave of whoever is writing is none of ours. */
    private void recoverable() throws IOException {
        if (readOnly()) return;
        recoveries.setAside(file.resolveSibling(AUTOSAVE), saved);
        recoveries.look(saved);
    }

    /** Tells a thread, the owner's, of changes from outside and of a lock that was lost, from now on. */
    public void watch(Executor ownersThread) {
        owner = ownersThread;
        saver.scheduleWithFixedDelay(this::look, LOOK_MILLIS, LOOK_MILLIS, TimeUnit.MILLISECONDS);
        saver.scheduleWithFixedDelay(this::live, ALIVE_SECONDS, ALIVE_SECONDS, TimeUnit.SECONDS);
    }

    private void look() {
        ProjectLock l = lock;
        if (l != null && !l.held()) owner.execute(this::lost);
        Project p = outside.changed();
        if (p != null) owner.execute(() -> {
            theirs = p;
            tell();
        });
    }

    private void live() {
        ProjectLock l = lock;
        if (l == null) return;
        try {
            l.live();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("the lock could not be renewed: {}", e.getMessage());
        }
    }

    /** Somebody has taken the project over: what is not saved is set aside for whoever opens it next. */
    private void lost() {
        if (lock == null) return;
        lock.close();
        lock = null;
        holder = ProjectLock.holder(folder());
        if (changed()) {
            Project mine = project;
            saver.execute(() -> rescue(mine));
        }
        tell();
    }

    private void rescue(Project p) {
        try {
            recoveries.keep(p);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("unsaved work could not be kept: {}", e.getMessage());
        }
    }

    /** Whether somebody else writes the project, so that nothing is changed here. */
    public boolean readOnly() {
        return lock == null && holder != null;
    }

    /** Who writes the project where it is not this session, or null. */
    public ProjectLock.Holder holder() {
        return holder;
    }

    /** Takes the right to write where nobody has it any more: after another session of this process has ended. */
    public void claim() throws IOException {
        if (!readOnly()) return;
        try {
            lock = ProjectLock.take(folder());
        } catch (ProjectLock.Held e) {
            holder = e.holder();
            return;
        }
        begin();
    }

    private void begin() throws IOException {
        holder = null;
        project = saved = outside.read();
        steps.clear();
        recoverable();
        tell();
    }

    /** Takes the right to write from whoever has it, and reads what they saved last. */
    public void takeOver() throws IOException {
        lock = ProjectLock.takeOver(folder());
        begin();
    }

    /** The project as somebody else has saved it meanwhile, or null. */
    public Project changedOutside() {
        return theirs;
    }

    /** Goes on with what was saved by somebody else, as an edit that can be undone. */
    public void takeTheirs() {
        Project p = theirs;
        theirs = null;
        if (p == null) return;
        edit(null, x -> p);
        outside.known();
        saved = p;
        tell();
    }

    /** Goes on with what is here; saving then replaces what somebody else has saved. */
    public void keepMine() {
        theirs = null;
        outside.known();
        tell();
    }

    /** Work that was not saved when Bake last ended, the newest that nobody has decided on; or null. */
    public Project recovered() {
        return recoveries.next() == null ? null : recoveries.next().project();
    }

    /** When that was kept, local time, ISO 8601. */
    public String recoveredAt() {
        return recoveries.next() == null ? "" : recoveries.next().made();
    }

    /** Takes the recovered work as an edit that can be undone. Its file stays until the autosave holds what was in it. */
    public void recover() {
        Recoveries.Piece r = recoveries.taken();
        if (r == null) return;
        edit(null, x -> r.project());
        Project p = project;
        saver.execute(() -> {
            try {
                if (autosave(p)) Files.deleteIfExists(r.file());
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("recovered work stays in its file: {}", e.getMessage());
            }
        });
    }

    /** Deletes the recovered work for good. */
    public void discardRecovered() throws IOException {
        recoveries.decided();
    }

    public Project project() {
        return project;
    }

    public Path folder() {
        return file.getParent();
    }

    /** Whether there is work that is not saved; which view is looked at does not count. */
    public boolean changed() {
        return project != saved && !project.withCurrent(saved.current()).equals(saved);
    }

    public void onChange(Runnable r) {
        listeners.add(r);
    }

    private void tell() {
        listeners.forEach(Runnable::run);
    }

    /** All states that undo, redo and undecided recoveries can bring back, and the present ones. */
    public List<Project> states() {
        List<Project> out = new ArrayList<>(List.of(project, saved));
        out.addAll(steps.projects());
        out.addAll(recoveries.all());
        return out;
    }

    /**
     * Changes the project. Edits with the same key in quick succession, such as a slider's, are undone as one. Nothing is changed while
     * somebody else writes the project.
     *
     * @param key what is edited, or null; with a # and the number of a gesture, the whole gesture is one edit however
     *     long it takes
     * @return whether it may be changed
     */
    public boolean edit(String key, UnaryOperator<Project> change) {
        if (readOnly()) return false;
        Project next = change.apply(project);
        if (next == project) return true;
        steps.begin(key, state());
        take(next);
        return true;
    }

    /** Changes the view that is worked on. */
    public boolean editView(String key, UnaryOperator<View> change) {
        View v = project.currentView();
        if (v == null) return true;
        return edit(key == null ? null : v.name() + key, p -> {
            List<View> views = new ArrayList<>(p.views());
            View next = change.apply(v);
            if (next == v) return p;
            views.set(views.indexOf(v), next);
            Project q = p.withViews(views);
            return v.name().equals(next.name()) ? q : q.withCurrent(next.name());
        });
    }

    /** Looks at another view: no step, nothing to undo or to save. */
    public void look(String view) {
        if (view.equals(project.current())) return;
        steps.end();
        project = project.withCurrent(view);
        tell();
    }

    private Steps.State state() {
        return new Steps.State(project, drafts);
    }

    /** Presets as they were chosen or changed for the next proofs, by name. They are no part of the project's file. */
    public Map<String, Preset> drafts() {
        return drafts;
    }

    /** Notes with which settings the next proofs are made; no step. */
    public void chosen(Preset p) {
        if (p.equals(drafts.get(p.name()))) return;
        Map<String, Preset> all = new HashMap<>(drafts);
        all.put(p.name(), p);
        drafts = Map.copyOf(all);
    }

    /**
     * Changes the settings of the next proofs, as a step that can be undone.
     *
     * @param key as that of {@link #edit}
     */
    public void draft(String key, Preset before, Preset after) {
        chosen(before);
        steps.begin(key, state());
        chosen(after);
        tell();
    }

    public boolean canUndo() {
        return steps.canUndo();
    }

    public boolean canRedo() {
        return steps.canRedo();
    }

    /** What undo would take back, such as "time to 14:20"; empty for nothing. */
    public String undoes() {
        return steps.undoes(state());
    }

    /** What redo would do again. */
    public String redoes() {
        return steps.redoes(state());
    }

    public void undo() {
        if (steps.canUndo() && mayTake(steps.before())) take(steps.undo(state()));
    }

    public void redo() {
        if (steps.canRedo() && mayTake(steps.after())) take(steps.redo(state()));
    }

    /** Settings of proofs are nobody else's while somebody else writes the project. */
    private boolean mayTake(Steps.State s) {
        return !readOnly() || s.project() == project;
    }

    private void take(Steps.State s) {
        drafts = s.drafts();
        if (s.project() == project) tell();
        else take(s.project());
    }

    private void take(Project p) {
        project = p;
        if (pendingSave != null) pendingSave.cancel(false);
        pendingSave = saver.schedule(() -> autosave(p), AUTOSAVE_MILLIS, TimeUnit.MILLISECONDS);
        tell();
    }

    /** On the saver's thread, or when that has ended. */
    private boolean autosave(Project p) {
        ProjectLock l = lock;
        if (l != null && !l.held()) return false;
        try {
            ProjectFile.write(file.resolveSibling(AUTOSAVE), p);
            return true;
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("autosave failed: {}", e.getMessage());
            return false;
        }
    }

    /**
     * Writes project.json, and waits until that is done; the autosave is no longer needed then.
     *
     * @throws FormatException when it cannot be written, or must not be: another has the right to, or has saved something else
     */
    public void save() throws IOException {
        Project p = project;
        if (pendingSave != null) pendingSave.cancel(false);
        try {
            saver.submit(() -> {
                write(p);
                return null;
            }).get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.io.InterruptedIOException("saving was interrupted");
        } catch (ExecutionException e) {
            if (e.getCause() instanceof IOException x) throw x;
            throw new IOException(e.getCause());
        }
        saved = p;
        tell();
    }

    /**
     * The same without waiting.
     *
     * @param done told on the owner's thread: null, or what went wrong
     */
    public void saveLater(Consumer<Exception> done) {
        Project p = project;
        if (pendingSave != null) pendingSave.cancel(false);
        saver.execute(() -> {
            try {
                write(p);
                owner.execute(() -> {
                    saved = p;
                    tell();
                    done.accept(null);
                });
            } catch (IOException | RuntimeException e) {
                owner.execute(() -> done.accept(e));
            }
        });
    }

    /** On the saver's thread, so that an autosave under way cannot come after it. */
    private void write(Project p) throws IOException {
        ProjectLock l = lock;
        if (l == null && holder != null || l != null && !l.held())
            throw new FormatException(file.getFileName().toString(), null, "is written by " + (holder == null ? "another" : holder.words())
                    + " now; take it over, or save a copy");
        if (outside.changed() != null || outside.undecided())
            throw new FormatException(file.getFileName().toString(), null,
                    "was changed outside since it was read; choose whose state is to be kept, then save again");
        try {
            ProjectFile.write(file, p);
        } catch (IOException e) {
            throw new FormatException(file.toString(), null, "could not be written (" + e.getMessage()
                    + "); free some space or make the folder writable", e);
        }
        outside.known();
        Files.deleteIfExists(file.resolveSibling(AUTOSAVE));
    }

    /** Ends the session; what is not saved stays in the autosave and is offered at the next start. */
    @Override
    public void close() {
        boolean late = pendingSave != null && !pendingSave.isDone() && changed();
        if (late) pendingSave.cancel(false);
        saver.shutdown();
        try {
            saver.awaitTermination(5, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        if (late) autosave(project);
        if (lock != null) lock.close();
    }
}
