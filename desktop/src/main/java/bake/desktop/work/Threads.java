package bake.desktop.work;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

/** Threads for what the window must not wait for: as many as are asked for, each ended when it has been idle for a minute. */
final class Threads {
    private Threads() {}

    /** What is asked for while the window closes is nobody's business any more. */
    static ExecutorService background() {
        return new ThreadPoolExecutor(0, Integer.MAX_VALUE, 60, TimeUnit.SECONDS, new SynchronousQueue<>(), r -> {
            Thread t = new Thread(r, "workbench");
            t.setDaemon(true);
            return t;
        }, new ThreadPoolExecutor.DiscardPolicy());
    }
}
