package bake.desktop.work;

import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import bake.studio.project.ProjectSession;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
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
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/**
 * What the window shows and can do, without a control in it. All properties change on the thread of {@code ui}; work
 * is done on threads of its own.
 */
public final class Workbench implements AutoCloseable {
    /** A line for the artist: a notice, or an error with what to do. */
    public record Message(String text, boolean error) {}

    private static final int MOST_MESSAGES = 5;
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
    private final ReadOnlyObjectWrapper<LiveRender.Frame> frame = new ReadOnlyObjectWrapper<>();
    private final ObjectProperty<Showing> showing = new SimpleObjectProperty<>(Showing.PICTURE);
    private final ObjectProperty<Message> message = new SimpleObjectProperty<>();
    private final ObservableList<Message> messages = FXCollections.observableArrayList();
    private final BooleanProperty opening = new SimpleBooleanProperty(), changed = new SimpleBooleanProperty(),
            recovery = new SimpleBooleanProperty(), readOnly = new SimpleBooleanProperty(), outside = new SimpleBooleanProperty();
    private final ObservableList<Proof> proofs = FXCollections.observableArrayList();
    private final ObjectProperty<Proof> printA = new SimpleObjectProperty<>(), printB = new SimpleObjectProperty<>();
    private final Prover prover;
    private final Finals finals;
    private final Leaving leaving;
    private ProjectSession session;
    private ProofStore store;
    private LiveRender live;
    private final ModelFiles models = new ModelFiles(this, background);
    private final Lighting lighting = new Lighting(this, background);
    private final SkyFiles skyFiles = new SkyFiles(this, background);
    private final Sights sights = new Sights(this);
    private final GuideHand guides = new GuideHand(this, background);
    private Reading reading;
    private int easelWidth = 640, easelHeight = 360;

    public Workbench(Executor ui) {
        showing.addListener((o, a, b) -> show());
        station.addListener((o, a, b) -> {
            if ((a == Station.MODEL) != (b == Station.MODEL) && showing.get() != Showing.PICTURE
                    || (a == Station.LIGHT || b == Station.LIGHT) && (lighting.luxProperty().get() || guides.shownProperty().get() != null)
                    || (a == Station.PROVE || b == Station.PROVE) && prover().caches().shownProperty().get() != null) show();
        });
        this.ui = ui;
        prover = new Prover(this, background);
        finals = new Finals(this, background);
        leaving = new Leaving(this);
        message.addListener((o, a, m) -> stack(m));
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

    public ReadOnlyObjectProperty<LiveRender.Frame> frameProperty() {
        return frame.getReadOnlyProperty();
    }

    public ObjectProperty<Message> messageProperty() {
        return message;
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
            say("This window writes the project now.");
        } catch (IOException e) {
            fail(e);
        }
    }

    public ReadOnlyObjectProperty<ModelFacts> factsProperty() {
        return models.facts().getReadOnlyProperty();
    }

    public ObservableList<Proof> proofs() {
        return proofs;
    }

    public ObjectProperty<Proof> printAProperty() {
        return printA;
    }

    public ObjectProperty<Proof> printBProperty() {
        return printB;
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

    public ProofStore store() {
        return store;
    }

    public Path folder() {
        return session == null ? null : session.folder();
    }

    public Workers workers() {
        return workers;
    }

    LiveRender live() {
        return live;
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
                fail(e);
            }
        });
    }

    /** Shows what went wrong; on any thread. */
    public void complain(String text) {
        later(() -> message.set(new Message(text, true)));
    }

    void say(String text) {
        later(() -> message.set(new Message(text, false)));
    }

    public void fail(Throwable e) {
        String text = e instanceof OutOfMemoryError ? "There is not enough memory for this; make the picture smaller or switch layers off."
                : e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
        // A refusal says all there is to say; only what nobody foresaw is worth its trace.
        var log = org.slf4j.LoggerFactory.getLogger(Workbench.class);
        if (e instanceof IOException || e instanceof IllegalArgumentException) log.info("{}", text);
        else log.warn("{}", text, e);
        later(() -> message.set(new Message(text, true)));
    }

    /** Adds a message; one that tells how something goes on takes the place of the one before. Null clears what are no errors. */
    private void stack(Message m) {
        if (m == null) {
            messages.removeIf(x -> !x.error());
            return;
        }
        if (!messages.isEmpty() && messages.getLast().text().endsWith("\u2026")) messages.removeLast();
        if (messages.contains(m)) return;
        messages.add(m);
        while (messages.size() > MOST_MESSAGES) messages.removeFirst();
    }

    /** What was said and is still to be read, the newest last. */
    public ObservableList<Message> messages() {
        return messages;
    }

    /** A message has been read. */
    public void close(Message m) {
        messages.remove(m);
        if (message.get() == m) message.set(messages.isEmpty() ? null : messages.getLast());
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
            message.set(new Message("A picture is being made; stop it before another project is opened.", true));
            return;
        }
        reading = r;
        opening.set(true);
        r.done.whenComplete((o, e) -> {
            if (e != null && !r.stopped()) fail(Opened.cause(e));
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
        if (live != null) live.close();
        if (session != null) session.close();
        session = o.session();
        try {
            // The project may be the one that was open here.
            session.claim();
        } catch (IOException e) {
            fail(e);
        }
        store = o.store();
        proofs.setAll(o.proofs());
        printA.set(null);
        printB.set(null);
        models.take(o);
        lighting.begin();
        guides.begin();
        frame.set(null);
        message.set(null);
        live = new LiveRender(o.assembly(), o.compiled(), workers, x -> later(() -> frame.set(x)), this::fail);
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
            show();
            guides.look();
        }
        if (before != null && before.portals() != p.portals()) lighting.openings().check();
        if (before != null && before.models() != p.models()) models.learn(p);
    }

    /** Puts a newer file in place of one of the project's models. */
    public void replaceModel(String old, Path model) {
        models.replace(old, model);
    }

    /** Size that the easel can show, pixels; the live picture is rendered at it. */
    public void easelSize(int w, int h) {
        if (w == easelWidth && h == easelHeight || w < 16 || h < 16) return;
        easelWidth = w;
        easelHeight = h;
        show();
    }

    /** Width and height of the live picture: the view's shape fitted into the easel. */
    public int[] pictureSize() {
        View v = view.get();
        double aspect = v == null ? 16.0 / 9 : (double) v.size()[0] / v.size()[1];
        int w = Math.min(easelWidth, (int) Math.round(easelHeight * aspect));
        return new int[] {Math.max(16, w), Math.max(16, (int) Math.round(w / aspect))};
    }

    void show() {
        if (live == null || view.get() == null) return;
        int[] s = pictureSize();
        live.guides(guides.toShow());
        live.caches(prover.caches().toShow());
        live.show(project.get(), view.get(), s[0], s[1], shown());
    }

    /** Rests the easel while a proof or a final is made. */
    void hold() {
        if (live != null) live.hold();
    }

    void release() {
        if (live == null || view.get() == null || prover.busy() || finals.busy()) return;
        int[] s = pictureSize();
        live.release(project.get(), view.get(), s[0], s[1], shown());
    }

    /** How the Model station shows the model; the others show the picture. */
    public ObjectProperty<Showing> showingProperty() {
        return showing;
    }

    private Showing shown() {
        if (station.get() == Station.MODEL) return showing.get();
        if (station.get() == Station.PROVE && prover.caches().shownProperty().get() != null) return prover.caches().shownProperty().get();
        if (station.get() != Station.LIGHT) return Showing.PICTURE;
        return lighting.luxProperty().get() ? Showing.LUX : guides.shownProperty().get() != null ? guides.shownProperty().get()
                : Showing.PICTURE;
    }

    /** Starts a material from one of the library, keeping what the project says of it besides; null goes back to the model's. */
    public void startFrom(String material, String from) {
        edit(null, p -> {
            List<Project.Surface> out = new ArrayList<>(p.materials());
            out.removeIf(s -> s.name().equals(material));
            // What a shape is made of must stay there, be it plain.
            if (from != null || p.shapes().stream().anyMatch(s -> material.equals(s.material())))
                out.add(Project.Surface.of(material, from));
            return p.withMaterials(List.copyOf(out));
        });
    }

    public void edit(String key, UnaryOperator<Project> change) {
        if (session != null && !session.edit(key, change)) sayReadOnly();
    }

    public void editView(String key, UnaryOperator<View> change) {
        if (session != null && !session.editView(key, change)) sayReadOnly();
    }

    private void sayReadOnly() {
        message.set(new Message("Opened to read: " + session.holder().words() + " writes this project. Take it over to change it.", true));
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
            if (e == null) say("Saved " + s.folder().getFileName() + ".");
            else fail(e);
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
            fail(e);
        }
        recovery.set(session.recovered() != null);
    }

    public void chooseView(String name) {
        if (session != null) session.look(name);
    }

    /** Keeps the current camera as a new view. */
    public void addView() {
        View v = view.get();
        if (v == null) return;
        String name = v.name() + ", copy";
        for (int i = 2; project.get().view(name) != null; i++) name = v.name() + ", copy " + i;
        String chosen = name;
        edit(null, p -> {
            List<View> views = new ArrayList<>(p.views());
            views.add(views.indexOf(v) + 1, v.withName(chosen));
            return p.withViews(views).withCurrent(chosen);
        });
    }

    public void renameView(String name) {
        View v = view.get();
        String n = name.strip();
        if (v == null || n.isEmpty() || n.equals(v.name())) return;
        if (project.get().view(n) != null) {
            message.set(new Message("There is a view called '" + n + "' already; choose another name.", true));
            return;
        }
        editView(null, x -> x.withName(n));
    }

    public void deleteView() {
        View v = view.get();
        if (v == null || project.get().views().size() < 2) return;
        edit(null, p -> {
            List<View> views = new ArrayList<>(p.views());
            int at = views.indexOf(v);
            views.remove(v);
            return p.withViews(views).withCurrent(views.get(Math.min(at, views.size() - 1)).name());
        });
    }

    public void switchLayer(String name, boolean on) {
        edit(null, p -> {
            List<Project.Layer> l = new ArrayList<>(p.layers());
            l.removeIf(x -> x.name().equals(name));
            if (!on) l.add(new Project.Layer(name, false, java.util.Map.of()));
            return p.withLayers(l);
        });
    }

    /** Copies an HDRI into the project's folder if it is not there, and uses it as light. */
    public void useHdri(Path file) {
        skyFiles.panorama(file, name -> editView(null, v -> v.withAround(v.around().withFile(name).withKind("hdri"))));
    }

    /** Changes what is kept with a proof. */
    public void keep(Proof changedProof) {
        ProofStore st = store;
        int i = 0;
        while (i < proofs.size() && proofs.get(i).number() != changedProof.number()) i++;
        if (i == proofs.size()) return;
        Proof old = proofs.set(i, changedProof);
        if (printA.get() == old) printA.set(changedProof);
        if (printB.get() == old) printB.set(changedProof);
        background.execute(() -> {
            try {
                st.save(changedProof);
            } catch (IOException e) {
                fail(e);
            }
        });
    }

    public void delete(Proof p) {
        ProofStore st = store;
        proofs.remove(p);
        if (printA.get() == p) printA.set(null);
        if (printB.get() == p) printB.set(null);
        background.execute(() -> {
            try {
                st.delete(p);
            } catch (IOException e) {
                fail(e);
            }
        });
    }

    /** Takes the settings of a proof back: its view, in place of the one of the same name or beside the others. */
    public void takeBack(Proof p) {
        edit(null, x -> {
            List<View> views = new ArrayList<>(x.views());
            View same = x.view(p.view().name());
            if (same != null) views.set(views.indexOf(same), p.view());
            else views.add(p.view());
            return x.withViews(views).withCurrent(p.view().name());
        });
        prover.presetProperty().set(p.preset());
    }

    void hang(Proof p) {
        proofs.addFirst(p);
        printA.set(p);
    }

    @Override
    public void close() {
        stopOpening();
        prover.stop();
        finals.stop();
        if (live != null) live.close();
        if (session != null) session.close();
        background.shutdown();
        workers.close();
    }
}
