package bake.desktop.work;

import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;

/** Quitting while a picture is being made: it is asked what is to become of it. Holds no control. */
public final class Leaving {
    private final Workbench bench;
    private final BooleanProperty asked = new SimpleBooleanProperty();
    private Runnable hide = () -> {}, end = () -> {};
    private boolean leaving;

    Leaving(Workbench bench) {
        this.bench = bench;
        bench.prover().runningProperty().addListener((o, a, b) -> over());
    }

    /** @param hideWindow takes the window away while work goes on, {@code endAll} ends the process */
    public void by(Runnable hideWindow, Runnable endAll) {
        hide = hideWindow;
        end = endAll;
    }

    /** True while an answer is waited for. */
    public BooleanProperty askedProperty() {
        return asked;
    }

    /** What is being made, in words. */
    public String what() {
        return "A proof is being made.";
    }

    private boolean working() {
        // Finals are made by a process of their own, which goes on.
        return bench.prover().runningProperty().get();
    }

    /** Quits at once where nothing is being made, else asks. */
    public void quit() {
        if (working()) asked.set(true);
        else end.run();
    }

    /** Stops the picture, keeps what there is of it, and quits then. */
    public void stopAndQuit() {
        asked.set(false);
        leaving = true;
        bench.prover().stop();
        over();
    }

    /** Lets the work end without the window. */
    public void goOnWithout() {
        asked.set(false);
        leaving = true;
        hide.run();
        over();
    }

    public void stay() {
        asked.set(false);
    }

    private void over() {
        if (working()) return;
        asked.set(false);
        if (leaving) end.run();
    }
}
