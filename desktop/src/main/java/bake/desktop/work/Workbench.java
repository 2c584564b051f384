package bake.desktop.work;

import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import java.nio.file.Path;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.function.UnaryOperator;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * What the window shows and can do, without a control in it. All properties change on the thread of {@code ui}; work
 * is done on threads of its own.
 */
public final class Workbench implements AutoCloseable {
    private final Executor ui;
    private final Workers workers;
    private final ExecutorService background = Threads.background();
    private final ObjectProperty<Station> station = new SimpleObjectProperty<>(Station.LIGHT);
    private final Document document;
    private final Opener opener = new Opener(this, () -> prover().runningProperty().get(), this::take, this::leave);
    private final Prover prover;
    private final Finals finals;
    private final Leaving leaving;
    private final Notices notices;
    private final EaselPicture easel;
    private final Prints prints;
    private final CompareHand comparing;
    private final TakeBackHand takingBack;
    private final Views views = new Views(this);
    private final ModelFiles models = new ModelFiles(this, background);
    private final Lighting lighting;
    private final SkyFiles skyFiles = new SkyFiles(this, background);
    private final Sights sights = new Sights(this);
    private final GuideHand guides;
    private final FinishHand finish;
    private final LooksHand looks;
    private final NoiseHand noise;
    private final Tones tones;

    public Workbench(Executor ui) {
        workers = new Workers(Runtime.getRuntime().availableProcessors());
        this.ui = ui;
        notices = new Notices(ui);
        document = new Document(notices, ui, background, this::changed);
        prints = new Prints(this, ui, background, notices);
        comparing = new CompareHand(this, background);
        easel = new EaselPicture(this);
        lighting = new Lighting(this, background);
        guides = new GuideHand(this, background);
        prover = new Prover(this, background);
        finals = new Finals(this, background);
        takingBack = new TakeBackHand(this, background);
        leaving = new Leaving(this);
        finish = new FinishHand(this, skyFiles, background);
        looks = new LooksHand(this, background);
        noise = new NoiseHand(this, background);
        tones = new Tones(this);
    }

    public ObjectProperty<Station> stationProperty() {
        return station;
    }

    /** The open project, with all that is done to it as a whole. */
    public Document document() {
        return document;
    }

    /** What is being opened. */
    public Opener opener() {
        return opener;
    }

    public ReadOnlyObjectProperty<Project> projectProperty() {
        return document.projectProperty();
    }

    /** The project that is open, or null. */
    public Project project() {
        return document.project();
    }

    public ReadOnlyObjectProperty<View> viewProperty() {
        return document.viewProperty();
    }

    /** The view that is worked on, or null. */
    public View view() {
        return document.view();
    }

    public Path folder() {
        return document.folder();
    }

    /** @see bake.studio.project.ProjectSession#edit */
    public void edit(String key, UnaryOperator<Project> change) {
        document.edit(key, change);
    }

    /** @see bake.studio.project.ProjectSession#editView */
    public void editView(String key, UnaryOperator<View> change) {
        document.editView(key, change);
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

    /** Looks at two prints. */
    public CompareHand comparing() {
        return comparing;
    }

    /** Takes settings back from prints. */
    public TakeBackHand takingBack() {
        return takingBack;
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

    /** How pictures are finished. */
    public FinishHand finish() {
        return finish;
    }

    /** Looks that have a name. */
    public LooksHand looks() {
        return looks;
    }

    /** Where noise comes from. */
    public NoiseHand noise() {
        return noise;
    }

    /** The tones of the live picture. */
    public Tones tones() {
        return tones;
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

    private void take(Opened o) {
        easel.close();
        document.take(o.session());
        prints.take(o.store(), o.proofs());
        models.take(o);
        lighting.begin();
        guides.begin();
        notices.lastProperty().set(null);
        easel.take(o);
        document.begin();
    }

    private void leave() {
        easel.leave();
        document.leave();
        prints.leave();
        models.leave();
        notices.lastProperty().set(null);
    }

    private void changed(Project before, Project p) {
        if (before != p) {
            easel.show();
            guides.look();
        }
        if (before != null && before.portals() != p.portals()) lighting.openings().check();
        if (before != null && (before.models() != p.models() || before.materials() != p.materials()
                || before.nudges() != p.nudges())) models.learn(p);
    }

    @Override
    public void close() {
        opener.stop();
        prover.stop();
        noise.stop();
        finals.close();
        easel.close();
        document.close();
        background.shutdown();
        workers.close();
    }
}
