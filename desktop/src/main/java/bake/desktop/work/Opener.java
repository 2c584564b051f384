package bake.desktop.work;

import bake.formats.project.Project;
import bake.studio.project.ProjectCopy;
import java.io.IOException;
import java.nio.file.Path;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;

/** Reads projects and models to be opened, one at a time; what is open stays until the next is read whole. Holds no control. */
public final class Opener {
    private final Workbench bench;
    private final BooleanSupplier busy;
    private final Consumer<Opened> take;
    private final Runnable leave;
    private final ReadOnlyBooleanWrapper opening = new ReadOnlyBooleanWrapper();
    private Reading reading;

    /**
     * @param busy whether a picture is being made
     * @param take gets what was read, on the interface's thread
     * @param leave closes what is open
     */
    Opener(Workbench bench, BooleanSupplier busy, Consumer<Opened> take, Runnable leave) {
        this.bench = bench;
        this.busy = busy;
        this.take = take;
        this.leave = leave;
    }

    public ReadOnlyBooleanProperty openingProperty() {
        return opening.getReadOnlyProperty();
    }

    /** What is being opened, or null. */
    public Reading reading() {
        return reading;
    }

    /** Opens a project or starts one from a model file; {@code what} may be "demo". */
    public void open(String what) {
        open(Reading.begin(what));
    }

    /** Takes a project that is being read. */
    public void open(Reading r) {
        stop();
        if (busy.getAsBoolean()) {
            r.stop();
            bench.notices().complain("A picture is being made; stop it before another project is opened.");
            return;
        }
        reading = r;
        opening.set(true);
        r.done.whenComplete((o, e) -> {
            if (e != null && !r.stopped()) bench.notices().fail(Opened.cause(e));
            bench.later(() -> {
                if (reading == r && o != null) take.accept(o);
                else if (o != null) o.session().close();
                if (reading != r) return;
                reading = null;
                opening.set(false);
            });
        });
    }

    /** Gives up what is being opened; what was open before stays. */
    public void stop() {
        if (reading == null) return;
        reading.stop();
        reading = null;
        opening.set(false);
    }

    /** Writes a whole copy of the project as it is now into a new folder and goes on there; what is here stays as it was saved. */
    public void saveCopy(Path folder) {
        Project p = bench.project();
        Path from = bench.folder();
        if (p == null) return;
        bench.notices().say("Copying to " + folder.getFileName() + "\u2026");
        bench.inBackground(() -> {
            try {
                ProjectCopy.make(p, from, folder);
                bench.later(() -> {
                    if (from.equals(bench.folder())) open(folder.toString());
                });
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Closes the project. What is not saved is kept beside it and offered when it is opened again. */
    public void close() {
        stop();
        if (bench.project() == null) return;
        if (busy.getAsBoolean()) {
            bench.notices().complain("A picture is being made; stop it before the project is closed.");
            return;
        }
        boolean unsaved = bench.document().changedProperty().get();
        String name = bench.project().name();
        leave.run();
        bench.notices().say(unsaved ? "Closed " + name + ". What was not saved is offered when it is opened again."
                : "Closed " + name + ".");
    }
}
