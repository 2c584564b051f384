package bake.desktop.work;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Executor;
import java.util.function.BiConsumer;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/** The open project: its value and the view that is worked on, edits, undo, saving, and who writes it. Holds no control. */
public final class Document {
    private final Notices notices;
    private final Executor ui, background;
    private final BiConsumer<Project, Project> changes;
    private final ReadOnlyObjectWrapper<Project> project = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<View> view = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyBooleanWrapper changed = new ReadOnlyBooleanWrapper(), recovery = new ReadOnlyBooleanWrapper(),
            readOnly = new ReadOnlyBooleanWrapper(), outside = new ReadOnlyBooleanWrapper();
    private final ReadOnlyObjectWrapper<Map<String, Preset>> drafts = new ReadOnlyObjectWrapper<>(Map.of());
    private ProjectSession session;

    /** @param changes told of the project before and after whatever changed; the first may be null */
    Document(Notices notices, Executor ui, Executor background, BiConsumer<Project, Project> changes) {
        this.notices = notices;
        this.ui = ui;
        this.background = background;
        this.changes = changes;
    }

    public ReadOnlyObjectProperty<Project> projectProperty() {
        return project.getReadOnlyProperty();
    }

    /** The project that is open, or null. */
    public Project project() {
        return project.get();
    }

    /** How many source groups its light has, about: sun, surroundings, what glows, and the groups of lamps. */
    public int sourceGroups() {
        return 3 + (project() == null ? 0 : (int) project().lamps().stream().map(l -> l.group()).distinct().count());
    }

    /** The view that is worked on, or null. */
    public View view() {
        return view.get();
    }

    public ReadOnlyObjectProperty<View> viewProperty() {
        return view.getReadOnlyProperty();
    }

    /** Presets as they were chosen or changed for the next proofs, by name. */
    public ReadOnlyObjectProperty<Map<String, Preset>> draftsProperty() {
        return drafts.getReadOnlyProperty();
    }

    /** @see ProjectSession#chosen */
    void chosen(Preset p) {
        if (session == null) return;
        session.chosen(p);
        drafts.set(session.drafts());
    }

    /** @see ProjectSession#draft */
    void draft(String key, Preset before, Preset after) {
        if (session != null) session.draft(key, before, after);
    }

    public ReadOnlyBooleanProperty changedProperty() {
        return changed.getReadOnlyProperty();
    }

    /** True while unsaved work of an earlier run waits for a decision. */
    public ReadOnlyBooleanProperty recoveryProperty() {
        return recovery.getReadOnlyProperty();
    }

    /** True while somebody else writes the project. */
    public ReadOnlyBooleanProperty readOnlyProperty() {
        return readOnly.getReadOnlyProperty();
    }

    /** True while what somebody else has saved waits for a decision. */
    public ReadOnlyBooleanProperty outsideProperty() {
        return outside.getReadOnlyProperty();
    }

    /** What is open, or null. */
    public ProjectSession session() {
        return session;
    }

    public Path folder() {
        return session == null ? null : session.folder();
    }

    /** Takes another project; what was open is closed. Whoever calls then has {@link #begin} show it. */
    void take(ProjectSession s) {
        close();
        session = s;
        try {
            // The project may be the one that was open here.
            session.claim();
        } catch (IOException e) {
            notices.fail(e);
        }
    }

    /** Shows what was taken. */
    void begin() {
        session.onChange(this::refresh);
        session.watch(ui);
        refresh();
    }

    void close() {
        if (session != null) session.close();
        session = null;
    }

    /** Shows that nothing is open. */
    void leave() {
        close();
        for (ReadOnlyBooleanWrapper b : new ReadOnlyBooleanWrapper[] {changed, recovery, readOnly, outside}) b.set(false);
        drafts.set(Map.of());
        view.set(null);
        project.set(null);
    }

    private void refresh() {
        Project before = project.get(), p = session.project();
        drafts.set(session.drafts());
        project.set(p);
        view.set(p.currentView());
        changed.set(session.changed());
        recovery.set(session.recovered() != null);
        readOnly.set(session.readOnly());
        outside.set(session.changedOutside() != null);
        changes.accept(before, p);
    }

    /** Takes the right to write from whoever has it. */
    public void takeOver() {
        try {
            session.takeOver();
            notices.say("This window writes the project now.");
        } catch (IOException e) {
            notices.fail(e);
        }
    }

    public void edit(String key, UnaryOperator<Project> change) {
        if (session != null && !session.edit(key, change)) sayReadOnly();
    }

    public void editView(String key, UnaryOperator<View> change) {
        if (session != null && !session.editView(key, change)) sayReadOnly();
    }

    private void sayReadOnly() {
        notices.complain("Opened to read: " + session.holder().words() + " writes this project. Take it over to change it.");
        // Controls show what still holds.
        refresh();
    }

    public void undo() {
        if (session != null) session.undo();
    }

    public void redo() {
        if (session != null) session.redo();
    }

    public boolean canUndo() {
        return session != null && session.canUndo();
    }

    public boolean canRedo() {
        return session != null && session.canRedo();
    }

    public void save() {
        if (session == null) return;
        ProjectSession s = session;
        s.saveLater(e -> {
            if (e == null) notices.say("Saved " + s.folder().getFileName() + ".");
            else notices.fail(e);
        });
    }

    public void recover() {
        session.recover();
        recovery.set(session.recovered() != null);
    }

    public void discardRecovered() {
        try {
            session.discardRecovered();
        } catch (IOException e) {
            notices.fail(e);
        }
        recovery.set(session.recovered() != null);
    }
}
