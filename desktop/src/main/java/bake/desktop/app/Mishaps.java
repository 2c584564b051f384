package bake.desktop.app;

import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What nobody foresaw, on any thread: it is written to the log and shown in the window, and never ends that. */
final class Mishaps {
    private static final Logger LOG = LoggerFactory.getLogger(Mishaps.class);
    private static volatile Consumer<String> shown = s -> {};
    private static volatile String last = "";
    private static volatile long lastTime;

    private Mishaps() {}

    /** Catches what is thrown and not caught, on all threads from now on. */
    static void catchAll() {
        Thread.setDefaultUncaughtExceptionHandler((t, e) -> happened(t.getName(), e));
    }

    /** @param show where the artist is told; may be called on any thread */
    static void tell(Consumer<String> show) {
        shown = show;
    }

    static void happened(String where, Throwable e) {
        String text = "Something went wrong in Bake itself (" + e.getClass().getSimpleName() + (e.getMessage() == null ? "" : ": "
                + e.getMessage()) + "). The work goes on; what happened is in the log, " + System.getProperty("bake.log", "bake.log") + ".";
        LOG.warn("{}, on thread {}", e, where, e);
        // What happens sixty times a second is said once.
        long now = System.nanoTime();
        if (text.equals(last) && now - lastTime < 10_000_000_000L) return;
        last = text;
        lastTime = now;
        shown.accept(text);
    }
}
