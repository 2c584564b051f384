package bake.studio.render;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import java.util.SplittableRandom;

/**
 * Knows whether the fast ray kernel has been compiled in this process. Until then it is many times slower than the simple
 * one, so the easel begins with that, while rays traced here on the side bring the fast one up.
 */
public final class KernelWarmth {
    private static final int BATCH = 1500;
    private static final long LONGEST_NANOS = 8_000_000_000L;

    private static volatile boolean warm;
    private static boolean begun;

    private KernelWarmth() {}

    public static boolean isWarm() {
        return warm;
    }

    /** Begins to warm the kernel of {@code fast}, once in a process; ends when it outruns that of {@code simple}. */
    public static synchronized void begin(RenderScene fast, RenderScene simple) {
        if (begun) return;
        begun = true;
        if (fast.tracer().getClass() == simple.tracer().getClass() || fast.tracer().bounds() == null) {
            warm = true;
            return;
        }
        Thread t = new Thread(() -> {
            long start = System.nanoTime();
            SplittableRandom random = new SplittableRandom(5);
            Ray ray = new Ray();
            do {
                long simply = time(simple.tracer(), random, ray);
                warm = time(fast.tracer(), random, ray) < simply;
            } while (!warm && System.nanoTime() - start < LONGEST_NANOS);
            warm = true;
        }, "kernel warmth");
        t.setDaemon(true);
        t.start();
    }

    private static long time(Tracer t, SplittableRandom r, Ray ray) {
        float[] b = t.bounds();
        long start = System.nanoTime();
        for (int i = 0; i < BATCH; i++) {
            double z = r.nextDouble(-1, 1), a = r.nextDouble(2 * Math.PI), w = Math.sqrt(1 - z * z);
            // From the middle of things, where the rays of pictures are.
            ray.set(between(b[0], b[3], r), between(b[1], b[4], r), between(b[2], b[5], r), (float) (w * Math.cos(a)),
                    (float) (w * Math.sin(a)), (float) z, Float.POSITIVE_INFINITY);
            t.closest(ray);
            ray.set(ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, 20);
            t.open(ray);
        }
        return System.nanoTime() - start;
    }

    private static float between(float lo, float hi, SplittableRandom r) {
        return lo + (hi - lo) * (0.45f + 0.1f * (float) r.nextDouble());
    }
}
