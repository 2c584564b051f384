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

    private final int threads;
    private final ExecutorService pool;

    public Workers(int threads) {
        this.threads = Math.max(1, threads);
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

    /** Runs pieces 0 to {@code count - 1}, each once, in any order; returns when all are done. */
    public void run(int count, Task task) {
        AtomicInteger next = new AtomicInteger();
        List<Future<?>> all = new ArrayList<>();
        for (int w = 0; w < threads; w++) {
            int worker = w;
            all.add(pool.submit(() -> {
                for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) task.run(worker, i);
            }));
        }
        for (Future<?> f : all) await(f);
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
