package bake.studio;

import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.UnaryOperator;

/**
 * An open project: its value, undo and redo, saving, autosave and recovery. Used from one thread; autosave writes on
 * its own.
 */
public final class ProjectSession implements AutoCloseable {
    static final String AUTOSAVE = "project.autosave.json";
    private static final int DEEPEST_UNDO = 300;
    private static final long SAME_EDIT_NANOS = 1_200_000_000L;
    private static final long AUTOSAVE_MILLIS = 700;

    private final Path file;
    private final Deque<Project> undo = new ArrayDeque<>(), redo = new ArrayDeque<>();
    private final List<Runnable> listeners = new ArrayList<>();
    private final ScheduledExecutorService saver = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread t = new Thread(r, "autosave");
        t.setDaemon(true);
        return t;
    });
    private Project project, saved, recovered;
    private String lastKey;
    private long lastEdit;
    private Future<?> pendingSave;

    private ProjectSession(Path file, Project project) {
        this.file = file;
        this.project = saved = project;
    }

    /** Opens a project's folder or file. */
    public static ProjectSession open(Path p) throws IOException {
        Path file = ProjectFile.locate(p).toAbsolutePath().normalize();
        ProjectSession s = new ProjectSession(file, ProjectFile.read(file,
                new CheckedTexts(HierarchyCache.userFolder().resolve("checked"))));
        s.lookForRecovery();
        return s;
    }

    private void lookForRecovery() {
        Path auto = file.resolveSibling(AUTOSAVE);
        if (!Files.isRegularFile(auto)) return;
        try {
            Project p = ProjectFile.read(auto);
            // Which view was looked at is no work to bring back.
            if (!ProjectFile.toJson(p.withCurrent(project.current())).equals(ProjectFile.toJson(project))) recovered = p;
            else Files.deleteIfExists(auto);
        } catch (IOException e) {
            // A broken autosave offers nothing; the project itself is whole.
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("autosave cannot be read: {}", e.getMessage());
        }
    }

    /** Work that was not saved when Bake last ended, or null. */
    public Project recovered() {
        return recovered;
    }

    /** Takes the recovered work as an edit that can be undone. */
    public void recover() {
        Project p = recovered;
        recovered = null;
        if (p != null) edit(null, x -> p);
    }

    /** Leaves the recovered work for good. */
    public void discardRecovered() throws IOException {
        recovered = null;
        Files.deleteIfExists(file.resolveSibling(AUTOSAVE));
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

    /**
     * Changes the project. Edits with the same key in quick succession, such as a slider's, are undone as one.
     *
     * @param key what is edited, or null; with a # and the number of a gesture, the whole gesture is one edit however
     *     long it takes
     */
    public void edit(String key, UnaryOperator<Project> change) {
        Project next = change.apply(project);
        if (next == project) return;
        long now = System.nanoTime();
        boolean same = key != null && key.equals(lastKey) && (key.contains("#") || now - lastEdit < SAME_EDIT_NANOS) && !undo.isEmpty();
        if (!same) {
            undo.push(project);
            while (undo.size() > DEEPEST_UNDO) undo.removeLast();
        }
        redo.clear();
        lastKey = key;
        lastEdit = now;
        take(next);
    }

    /** Changes the view that is worked on. */
    public void editView(String key, UnaryOperator<View> change) {
        View v = project.currentView();
        if (v == null) return;
        edit(key == null ? null : v.name() + key, p -> {
            List<View> views = new ArrayList<>(p.views());
            View next = change.apply(v);
            if (next == v) return p;
            views.set(views.indexOf(v), next);
            Project q = p.withViews(views);
            return v.name().equals(next.name()) ? q : q.withCurrent(next.name());
        });
    }

    public boolean canUndo() {
        return !undo.isEmpty();
    }

    public boolean canRedo() {
        return !redo.isEmpty();
    }

    public void undo() {
        if (undo.isEmpty()) return;
        redo.push(project);
        lastKey = null;
        take(undo.pop());
    }

    public void redo() {
        if (redo.isEmpty()) return;
        undo.push(project);
        lastKey = null;
        take(redo.pop());
    }

    private void take(Project p) {
        project = p;
        if (pendingSave != null) pendingSave.cancel(false);
        pendingSave = saver.schedule(() -> autosave(p), AUTOSAVE_MILLIS, TimeUnit.MILLISECONDS);
        listeners.forEach(Runnable::run);
    }

    private void autosave(Project p) {
        try {
            ProjectFile.write(file.resolveSibling(AUTOSAVE), p);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("autosave failed: {}", e.getMessage());
        }
    }

    /** Writes project.json; the autosave is no longer needed then. */
    public void save() throws IOException {
        if (pendingSave != null) pendingSave.cancel(false);
        try {
            ProjectFile.write(file, project);
        } catch (IOException e) {
            throw new FormatException(file.toString(), null, "could not be written (" + e.getMessage()
                    + "); free some space or make the folder writable", e);
        }
        saved = project;
        // In the saver's own queue, so that an autosave under way cannot come after it.
        try {
            saver.submit(() -> Files.deleteIfExists(file.resolveSibling(AUTOSAVE))).get(5, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (java.util.concurrent.ExecutionException | java.util.concurrent.TimeoutException e) {
            org.slf4j.LoggerFactory.getLogger(ProjectSession.class).warn("autosave not removed", e);
        }
        listeners.forEach(Runnable::run);
    }

    /** Ends the session; what is not saved stays in the autosave and is offered at the next start. */
    @Override
    public void close() {
        if (pendingSave != null && !pendingSave.isDone() && changed()) {
            pendingSave.cancel(false);
            autosave(project);
        }
        saver.shutdown();
    }
}
