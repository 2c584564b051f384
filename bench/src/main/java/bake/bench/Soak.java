package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import bake.studio.project.ProjectSession;
import bake.studio.render.RenderJob;
import bake.studio.scene.MaterialLibrary;
import bake.studio.scene.SceneAssembly;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;

/**
 * Random edits of the demo while the easel renders it: heap after collection, time from an edit to the first picture, failures,
 * and in the end the same bits as a fresh start.
 *
 * <pre>bake bench soak [MINUTES [SEED]]</pre>
 */
public final class Soak {
    private final SplittableRandom random;
    private final AtomicLong asked = new AtomicLong(), frames = new AtomicLong();
    private final List<Double> waits = new ArrayList<>();
    private final AtomicReference<Throwable> failed = new AtomicReference<>();
    private Project project;
    private View view;

    private Soak(long seed) {
        random = new SplittableRandom(seed);
    }

    public static void main(String[] args) throws Exception {
        double minutes = args.length > 0 ? Double.parseDouble(args[0]) : 30;
        int code = new Soak(args.length > 1 ? Long.parseLong(args[1]) : 1).run(minutes);
        System.exit(code);
    }

    private int run(double minutes) throws Exception {
        Path folder = DemoProject.ensure(Files.createTempDirectory("bake-soak").resolve("demo"), LocalDate.of(2026, 11, 1));
        ProjectSession session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
        project = session.project();
        view = project.views().getFirst();
        SceneAssembly assembly = new SceneAssembly(session.folder());
        long begin = System.nanoTime(), end = begin + (long) (minutes * 60e9), report = begin;
        int edits = 0;
        double firstHeap = 0, lastHeap = 0;
        boolean same;
        try (Workers workers = new Workers(Runtime.getRuntime().availableProcessors());
                LiveRender live = new LiveRender(assembly, null, workers, f -> shown(), failed::set)) {
            while (System.nanoTime() < end && failed.get() == null) {
                Showing showing = edit();
                edits++;
                asked.set(System.nanoTime());
                live.show(project, view, 480, 320, showing);
                Thread.sleep(random.nextInt(8) == 0 ? random.nextInt(4000) : random.nextInt(40, 900));
                if (System.nanoTime() - report > 120e9 || edits == 60) {
                    report = System.nanoTime();
                    lastHeap = heap();
                    if (firstHeap == 0) firstHeap = lastHeap;
                    say("%5.1f min  %5d edits  %6d pictures  heap after collection %6.1f MB", (report - begin) / 60e9, edits, frames.get(),
                            lastHeap);
                }
            }
            // Before the comparison, which holds two whole scenes.
            lastHeap = heap();
            // The scene as it was edited all along, and one that nothing happened to.
            RenderScene used = live.compile(project, view),
                    fresh = RenderScene.compile(new SceneAssembly(session.folder()).scene(project, view), null, Workers.COMPILING,
                    HierarchyCache.shared());
            live.hold();
            same = Arrays.equals(bits(used, workers), bits(fresh, workers));
        }
        synchronized (waits) {
            waits.sort(null);
            int n = waits.size();
            say("edit to first picture, ms: median %.0f, 95 of 100 under %.0f, 99 under %.0f, worst %.0f", waits.get(n / 2),
                    waits.get(n * 95 / 100), waits.get(n * 99 / 100), waits.get(n - 1));
        }
        say("edits %d, pictures %d, heap first %.1f MB, last %.1f MB, same bits as a fresh start: %s, failure: %s", edits, frames.get(),
                firstHeap, lastHeap, same, failed.get());
        if (failed.get() != null) failed.get().printStackTrace();
        return same && failed.get() == null ? 0 : 1;
    }

    private static void say(String format, Object... values) {
        System.out.println(String.format(Locale.ROOT, format, values));
    }

    private void shown() {
        frames.incrementAndGet();
        long at = asked.getAndSet(0);
        if (at == 0) return;
        synchronized (waits) {
            waits.add((System.nanoTime() - at) / 1e6);
        }
    }

    private static double heap() throws InterruptedException {
        for (int i = 0; i < 3; i++) {
            System.gc();
            Thread.sleep(60);
        }
        return ManagementFactory.getMemoryMXBean().getHeapMemoryUsage().getUsed() / 1e6;
    }

    /** One random edit of what an artist changes in a day. */
    private Showing edit() {
        switch (random.nextInt(10)) {
            case 0 -> view = project.views().get(random.nextInt(project.views().size()));
            case 1, 2 -> around(a -> view =
                    view.withAround(a.withTime(a.date(), String.format("%02d:%02d", random.nextInt(5, 21), random.nextInt(60)))));
            case 3 -> around(a -> view = view.withAround(a.withHaze(random.nextDouble(1.5, 9))));
            case 4 -> around(a -> view = view.withAround(a.withStops(random.nextDouble(-3, 2), random.nextDouble(-3, 2))));
            case 5, 6 -> {
                var c = view.camera().camera();
                view = view.withCamera(c.withEv(random.nextDouble(7, 14)));
            }
            case 7 -> {
                if (!project.layers().isEmpty()) {
                    var l = project.layers().get(random.nextInt(project.layers().size()));
                    project = project.withLayers(project.layers().stream()
                            .map(x -> x == l ? new Project.Layer(x.name(), !x.on(), x.other()) : x).toList());
                }
            }
            case 8 -> {
                var all = MaterialLibrary.all();
                String of = random.nextBoolean() ? "lime plaster" : "oak";
                project = random.nextInt(3) == 0 ? project.withMaterials(List.of())
                        : project.withMaterials(List.of(Project.Surface.of(of, all.get(random.nextInt(all.size())).name())));
            }
            default -> {
                return Showing.values()[random.nextInt(4)];
            }
        }
        return Showing.PICTURE;
    }

    private void around(Consumer<View.Around> change) {
        if (view.around().kind().equals("sun and sky")) change.accept(view.around());
    }

    private float[] bits(RenderScene s, Workers workers) throws Exception {
        Preset p = Preset.of("soak", 1, "test", "interior", 0, 0, 0, 5, 8, 20, false);
        RenderJob j = new RenderJob(s, new RenderJob.Order(view.name(), view.camera().camera(), view.look(), p, 160, 110, null, 7, false),
                workers);
        j.run(g -> {});
        Film f = j.film();
        float[] out = new float[3 * f.width() * f.height()], c = new float[3];
        for (int i = 0; i < f.width() * f.height(); i++) {
            f.mean(i % f.width(), i / f.width(), null, c);
            System.arraycopy(c, 0, out, 3 * i, 3);
        }
        return out;
    }
}
