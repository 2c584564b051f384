package bake.desktop.work;

import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * What the window shows and can do, without a control in it. All properties change on the thread of {@code ui}; work
 * is done on threads of its own.
 */
public final class Workbench implements AutoCloseable {
    private final Executor ui;
    private final Workers workers = new Workers(Runtime.getRuntime().availableProcessors());
    private final ExecutorService background = Executors.newCachedThreadPool(r -> {
        Thread t = new Thread(r, "workbench");
        t.setDaemon(true);
        return t;
    });
    private final ObjectProperty<Station> station = new SimpleObjectProperty<>(Station.LIGHT);
    private final ReadOnlyObjectWrapper<Project> project = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<View> view = new ReadOnlyObjectWrapper<>();
    private final BooleanProperty opening = new SimpleBooleanProperty(), changed = new SimpleBooleanProperty(),
            recovery = new SimpleBooleanProperty(), readOnly = new SimpleBooleanProperty(), outside = new SimpleBooleanProperty();
    private final Prover prover;
    private final Finals finals;
    private final Leaving leaving;
    private ProjectSession session;
    private final Notices notices;
    private final EaselPicture easel;
    private final Prints prints;
    private final Views views = new Views(this);
    private final ModelFiles models = new ModelFiles(this, background);
    private final Lighting lighting;
    private final SkyFiles skyFiles = new SkyFiles(this, background);
    private final Sights sights = new Sights(this);
    private final GuideHand guides;
    private Reading reading;

    public Workbench(Executor ui) {
        this.ui = ui;
        notices = new Notices(ui);
        prints = new Prints(background, notices);
        easel = new EaselPicture(this);
        lighting = new Lighting(this, background);
        guides = new GuideHand(this, background);
        prover = new Prover(this, background);
        finals = new Finals(this, background);
        leaving = new Leaving(this);
    }

    public ObjectProperty<Station> stationProperty() {
        return station;
    }

    public ReadOnlyObjectProperty<Project> projectProperty() {
        return project.getReadOnlyProperty();
    }

    public Project project() {
        return project.get();
    }

    public ReadOnlyObjectProperty<View> viewProperty() {
        return view.getReadOnlyProperty();
    }

    public View view() {
        return view.get();
    }

    public BooleanProperty openingProperty() {
        return opening;
    }

    public BooleanProperty changedProperty() {
        return changed;
    }

    /** True while unsaved work of an earlier run waits for a decision. */
    public BooleanProperty recoveryProperty() {
        return recovery;
    }

    /** True while somebody else writes the project. */
    public BooleanProperty readOnlyProperty() {
        return readOnly;
    }

    /** True while what somebody else has saved waits for a decision. */
    public BooleanProperty outsideProperty() {
        return outside;
    }

    /** What is open, or null. */
    public ProjectSession session() {
        return session;
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

    public ModelFiles models() {
        return models;
    }

    public Notices notices() {
        return notices;
    }

    public EaselPicture easel() {
        return easel;
    }

    public Prints prints() {
        return prints;
    }

    public Views views() {
        return views;
    }

    public Prover prover() {
        return prover;
    }

    public Finals finals() {
        return finals;
    }

    public Lighting lighting() {
        return lighting;
    }

    SkyFiles skyFiles() {
        return skyFiles;
    }

    public GuideHand guides() {
        return guides;
    }

    public Sights sights() {
        return sights;
    }

    public Path folder() {
        return session == null ? null : session.folder();
    }

    public Workers workers() {
        return workers;
    }

    /** Runs on the interface's thread. */
    public void later(Runnable r) {
        ui.execute(r);
    }

    public void inBackground(Runnable r) {
        background.execute(() -> {
            try {
                r.run();
            } catch (RuntimeException | OutOfMemoryError e) {
                notices.fail(e);
            }
        });
    }

    public Leaving leaving() {
        return leaving;
    }

    /** Opens a project or starts one from a model file; {@code what} may be "demo". */
    public void open(String what) {
        open(Reading.begin(what));
    }

    /** Takes a project that is being read. */
    public void open(Reading r) {
        stopOpening();
        if (prover.runningProperty().get() || finals.runningProperty().get()) {
            r.stop();
            notices.complain("A picture is being made; stop it before another project is opened.");
            return;
        }
        reading = r;
        opening.set(true);
        r.done.whenComplete((o, e) -> {
            if (e != null && !r.stopped()) notices.fail(Opened.cause(e));
            later(() -> {
                if (reading == r && o != null) take(o);
                else if (o != null) o.session().close();
                if (reading != r) return;
                reading = null;
                opening.set(false);
            });
        });
    }

    /** What is being opened, or null. */
    public Reading reading() {
        return reading;
    }

    /** Gives up what is being opened; what was open before stays. */
    public void stopOpening() {
        if (reading == null) return;
        reading.stop();
        reading = null;
        opening.set(false);
    }

    private void take(Opened o) {
        prover.stop();
        finals.stop();
        easel.close();
        if (session != null) session.close();
        session = o.session();
        try {
            // The project may be the one that was open here.
            session.claim();
        } catch (IOException e) {
            notices.fail(e);
        }
        prints.take(o.store(), o.proofs());
        models.take(o);
        lighting.begin();
        guides.begin();
        notices.lastProperty().set(null);
        easel.take(o);
        session.onChange(this::refresh);
        session.watch(ui);
        refresh();
    }

    private void refresh() {
        Project before = project.get();
        Project p = session.project();
        project.set(p);
        view.set(p.currentView());
        changed.set(session.changed());
        recovery.set(session.recovered() != null);
        readOnly.set(session.readOnly());
        outside.set(session.changedOutside() != null);
        if (before != p) {
            easel.show();
            guides.look();
        }
        if (before != null && before.portals() != p.portals()) lighting.openings().check();
        if (before != null && before.models() != p.models()) models.learn(p);
    }

    public void edit(String key, UnaryOperator<Project> change) {
        if (session != null && !session.edit(key, change)) sayReadOnly();
    }

    public void editView(String key, UnaryOperator<View> change) {
        if (session != null && !session.editView(key, change)) sayReadOnly();
    }

    private void sayReadOnly() {
        notices.complain("Opened to read: " + session.holder().words() + " writes this project. Take it over to change it.");
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

    /** Copies an HDRI into the project's folder if it is not there, and uses it as light. */
    public void useHdri(Path file) {
        skyFiles.panorama(file, name -> editView(null, v -> v.withAround(v.around().withFile(name).withKind("hdri"))));
    }

    @Override
    public void close() {
        stopOpening();
        prover.stop();
        finals.stop();
        easel.close();
        if (session != null) session.close();
        background.shutdown();
        workers.close();
    }
}
