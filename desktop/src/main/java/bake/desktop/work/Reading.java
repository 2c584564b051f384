package bake.desktop.work;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;

/** A project or model that is being read on a thread of its own; it may be stopped. */
public final class Reading {
    public final CompletableFuture<Opened> done = new CompletableFuture<>();
    final long began = System.nanoTime();
    private final AtomicBoolean stopped = new AtomicBoolean();
    private volatile String step = "Opening";

    /** Begins to read. */
    public static Reading begin(String what) {
        Reading r = new Reading();
        Thread.ofPlatform().daemon().name("open").start(() -> {
            try {
                r.done.complete(Opened.read(what, r));
            } catch (Throwable e) {
                r.done.completeExceptionally(e);
            }
        });
        return r;
    }

    /** Ends it as soon as what is being done can be ended. */
    public void stop() {
        stopped.set(true);
    }

    public boolean stopped() {
        return stopped.get();
    }

    public void step(String now) {
        step = now;
    }

    /** What is being done, and for how long already. */
    public String words() {
        long seconds = (System.nanoTime() - began) / 1_000_000_000L;
        return step + (seconds >= 1 ? ", " + seconds + " s" : "\u2026");
    }
}
