package bake.cli;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/** While open, Ctrl-C and the system's request to end are answered by stopping the work, whose result is then still written. */
final class Interrupt implements AutoCloseable {
    private static final long SECONDS = 60;

    private final CountDownLatch done = new CountDownLatch(1);
    private final Thread hook;

    private Interrupt(Runnable stop) {
        // Java ends once its hooks have; until then the main thread goes on.
        hook = new Thread(() -> {
            stop.run();
            try {
                done.await(SECONDS, TimeUnit.SECONDS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }, "interrupt");
        Runtime.getRuntime().addShutdownHook(hook);
    }

    static Interrupt calls(Runnable stop) {
        return new Interrupt(stop);
    }

    @Override
    public void close() {
        done.countDown();
        try {
            Runtime.getRuntime().removeShutdownHook(hook);
        } catch (IllegalStateException e) {
            // already on the way out
        }
    }
}
