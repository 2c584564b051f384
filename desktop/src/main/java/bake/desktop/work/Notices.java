package bake.desktop.work;

import java.io.IOException;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** What the window has to say. May be told on any thread; the list changes on the interface's. */
public final class Notices {
    /** A line for the artist: a notice, or an error with what to do. */
    public record Message(String text, boolean error) {}

    private static final int MOST = 5;
    private final Executor ui;
    private final ObjectProperty<Message> last = new SimpleObjectProperty<>();
    private final ObservableList<Message> all = FXCollections.observableArrayList();

    Notices(Executor ui) {
        this.ui = ui;
        last.addListener((o, a, m) -> stack(m));
    }

    /** The newest; null clears all that are no errors. */
    public ObjectProperty<Message> lastProperty() {
        return last;
    }

    /** What was said and is still to be read, the newest last. */
    public ObservableList<Message> all() {
        return all;
    }

    /** One that tells how something goes on takes the place of the one before. */
    private void stack(Message m) {
        if (m == null) {
            all.removeIf(x -> !x.error());
            return;
        }
        if (!all.isEmpty() && all.getLast().text().endsWith("\u2026")) all.removeLast();
        if (all.contains(m)) return;
        all.add(m);
        while (all.size() > MOST) all.removeFirst();
    }

    /** A message has been read. */
    public void close(Message m) {
        all.remove(m);
        if (last.get() == m) last.set(all.isEmpty() ? null : all.getLast());
    }

    public void say(String text) {
        ui.execute(() -> last.set(new Message(text, false)));
    }

    /** Shows what is wrong, in words that are ready. */
    public void complain(String text) {
        ui.execute(() -> last.set(new Message(text, true)));
    }

    /** Shows and logs what went wrong. */
    public void fail(Throwable e) {
        String text = e instanceof OutOfMemoryError ? "There is not enough memory for this; make the picture smaller or switch layers off."
                : e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
        // A refusal says all there is to say; only what nobody foresaw is worth its trace.
        var log = org.slf4j.LoggerFactory.getLogger(Notices.class);
        if (e instanceof IOException || e instanceof IllegalArgumentException) log.info("{}", text);
        else log.warn("{}", text, e);
        complain(text);
    }
}
