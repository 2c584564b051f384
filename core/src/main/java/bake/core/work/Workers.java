package bake.core.work;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;

/** The threads that render: a fixed number, below the desktop's other work in priority. */
public final class Workers implements AutoCloseable {
    /** One piece of work. */
    public interface Task {
        void run(int worker, int index);
    }

    /** Where scenes are compiled: every processor, since nothing is to be seen before that is done. */
    public static final ForkJoinPool COMPILING = new ForkJoinPool(Runtime.getRuntime().availableProcessors());

    private static final long REST_MILLIS = 40;
    private final int threads;
    private final ExecutorService pool;
    private volatile int allowed;

    public Workers(int threads) {
        this.threads = Math.max(1, threads);
        allowed = this.threads;
        pool = Executors.newFixedThreadPool(this.threads, r -> {
            Thread t = new Thread(r, "render");
            t.setDaemon(true);
            t.setPriority(Thread.MIN_PRIORITY + 1);
            return t;
        });
    }

    public int threads() {
        return threads;
    }

    /**
     * Has only so many of the threads work from now on, at least one; the others rest after the piece they are at. No result
     * depends on it.
     */
    public void allow(int most) {
        allowed = Math.clamp(most, 1, threads);
    }

    /** Runs pieces 0 to {@code count - 1}, each once, in any order; returns when all are done. */
    public void run(int count, Task task) {
        AtomicInteger next = new AtomicInteger();
        List<Future<?>> all = new ArrayList<>();
        for (int w = 0; w < threads; w++) {
            int worker = w;
            all.add(pool.submit(() -> {
                while (rested(worker, next, count)) {
                    int i = next.getAndIncrement();
                    if (i < count) task.run(worker, i);
                }
            }));
        }
        for (Future<?> f : all) await(f);
    }

    /** Waits while a thread is not to work; whether there is something left for it. */
    private boolean rested(int worker, AtomicInteger next, int count) {
        while (worker >= allowed && next.get() < count) {
            try {
                Thread.sleep(REST_MILLIS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return next.get() < count;
            }
        }
        return next.get() < count;
    }

    private static void await(Future<?> f) {
        boolean interrupted = false;
        try {
            while (true) {
                try {
                    f.get();
                    return;
                } catch (InterruptedException e) {
                    interrupted = true; // the pieces must end before their arrays are touched again
                } catch (ExecutionException e) {
                    if (e.getCause() instanceof RuntimeException r) throw r;
                    if (e.getCause() instanceof Error r) throw r;
                    throw new IllegalStateException(e.getCause());
                }
            }
        } finally {
            if (interrupted) Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        pool.shutdownNow();
    }
}
