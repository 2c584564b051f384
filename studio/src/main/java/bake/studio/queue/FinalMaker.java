package bake.studio.queue;

import bake.core.compiled.RenderScene;
import bake.core.solve.Caches;
import bake.core.work.Workers;
import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.cache.Begun;
import bake.studio.cache.CacheStore;
import bake.studio.cache.GuideStore;
import bake.studio.cache.HierarchyCache;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.look.Looks;
import bake.studio.preset.Presets;
import bake.studio.render.BandedRender;
import bake.studio.render.Checkpoint;
import bake.studio.render.EngineSettings;
import bake.studio.render.OutputPlace;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/**
 * Makes one picture of the queue: from what was kept when it was added, going on from where a killed run was, to files that appear only
 * whole. Its bits do not depend on when it was stopped, nor on what was rendered before it.
 */
final class FinalMaker {
    /** How a picture ended: its progress, and the files that were written. */
    record Made(RenderJob.Progress progress, List<Path> files, boolean whole) {}

    private final Workers workers;
    private final WorkLog log;
    /** The scene of the last picture, whose parts the next one of the project takes over. */
    private Path of;
    private SceneAssembly assembly;
    private RenderScene compiled;
    private volatile RenderJob job;
    private volatile BandedRender bands;
    private volatile boolean stop, pause;

    FinalMaker(Workers workers, WorkLog log) {
        this.workers = workers;
        this.log = log;
    }

    /** Ends the picture in work as soon as its tiles are done. */
    void stop() {
        stop = true;
        RenderJob j = job;
        if (j != null) j.stop();
        BandedRender b = bands;
        if (b != null) b.stop();
    }

    /** Rests within a moment, or goes on. */
    void pause(boolean wanted) {
        if (pause == wanted) return;
        pause = wanted;
        RenderJob j = job;
        if (j != null && wanted) j.pause();
        else if (j != null) j.resume();
        BandedRender b = bands;
        if (b != null) b.pause(wanted);
    }

    /** What the picture in work shows so far; null where there is none, or where it is made in bands. */
    RenderJob job() {
        return job;
    }

    /**
     * @param project as it was when the picture was added
     * @param own folder of the job, for what it is gone on from
     * @param writing called when the files are about to be written; says under which names
     */
    Made make(QueueJob q, Project project, Path own, Consumer<RenderJob.Progress> each, Naming writing) throws IOException {
        stop = false;
        Path folder = Path.of(q.project());
        Project p = Presets.seen(project, q.preset());
        View v = p.view(q.view());
        if (v == null) throw new FormatException(q.title(), "view '" + q.view() + "'", "is not in the project");
        here(folder);
        RenderJob.Order order = new RenderJob.Order(v.name(), v.camera().camera(), Looks.of(folder, v), q.preset(), q.width(), q.height(),
                null, 1,
                q.options().split());
        if (q.state() != null && !q.state().equals(state(p, folder, v, order)))
            throw new FormatException(q.title(), "view '" + q.view() + "'",
                    "is not made: files of the project (model, sky or photometry) were changed since it was added; add it again");
        List<OutputPlace> held = new ArrayList<>();
        try {
            for (String f : q.files()) held.add(hold(Path.of(f), (long) q.width() * q.height()));
            RenderScene scene = compile(p, folder, v);
            PictureOutput.check(order, q.options(), scene);
            boolean large = BandedRender.needed(q.width(), q.height(), BandedRender.filmBytes());
            return large ? inBands(q, p, folder, v, order, scene, own, each, writing) : whole(q, p, folder, v, order, scene, own, each,
                    writing);
        } finally {
            job = null;
            bands = null;
            for (OutputPlace h : held) h.close();
        }
    }

    /** A place that cannot be written to now may be later: a disk that is full, a share that is away. */
    private static OutputPlace hold(Path f, long pixels) throws IOException {
        try {
            return OutputPlace.hold(f, pixels);
        } catch (FormatException e) {
            throw new IOException(e.getMessage(), e);
        }
    }

    /** A folder that goes away while its picture is made, such as a share that is lost, is not begun anew. */
    private static void here(Path folder) throws IOException {
        if (!Files.isRegularFile(folder.resolve(ProjectFile.NAME)))
            throw new IOException("the project's folder " + folder + " is not there; bring it back, then try again");
    }

    /** What was written while the folder was away went somewhere else. */
    private static void written(Path folder, List<Path> files) throws IOException {
        here(folder);
        for (Path f : files) if (!Files.isRegularFile(f)) throw new IOException(f + " went away while it was written; it is written again");
    }

    /** Says under which names the files go; asked once the picture is there. */
    interface Naming {
        List<Path> files(boolean whole) throws IOException;
    }

    /** Names what a picture is made of, to notice what was changed between adding and rendering. */
    static String state(Project p, Path folder, View v, RenderJob.Order o) throws IOException {
        return Checkpoint.identity(p, folder, v, o);
    }

    private RenderScene compile(Project p, Path folder, View v) throws IOException {
        if (!folder.equals(of)) {
            of = folder;
            assembly = new SceneAssembly(folder);
            compiled = null;
        }
        return compiled = RenderScene.compile(assembly.scene(p, v), compiled, Workers.COMPILING, HierarchyCache.shared());
    }

    private Made whole(QueueJob q, Project p, Path folder, View v, RenderJob.Order order, RenderScene scene, Path own,
            Consumer<RenderJob.Progress> each, Naming writing) throws IOException {
        CacheStore store = new CacheStore(own.resolve("caches"));
        GuideStore guides = new GuideStore(folder, own.resolve("guides"));
        Caches caches = Files.isDirectory(store.folder()) ? store.fitting(p, folder, v, EngineSettings.bounced(q.preset()), false)
                : Caches.NONE;
        RenderJob j = new RenderJob(scene, order, workers).guidedBy(guides.fitting(p, v)).with(caches);
        Checkpoint kept = new Checkpoint(own.resolve("unfinished"), Begun.identity(p, folder, v, order, store, guides),
                e -> org.slf4j.LoggerFactory.getLogger(FinalMaker.class).warn("an unfinished final could not be kept: {}", e.getMessage()));
        j.keepIn(kept);
        job = j;
        if (pause) j.pause();
        if (stop) j.stop();
        try {
            j.run(each);
        } catch (FormatException broken) {
            // What was kept of it is of no use: it begins anew.
            Files.deleteIfExists(own.resolve("unfinished"));
            throw new IOException("what was kept of the unfinished picture cannot be read; it begins anew", broken);
        }
        boolean done = j.state() == RenderJob.State.DONE;
        if (j.progress().passes() == 0) throw new IOException("stopped before the first pass was done");
        long saving = System.nanoTime();
        List<Path> files = writing.files(done);
        here(folder);
        for (Path f : files) PictureOutput.write(f, j, q.options());
        written(folder, files);
        if (done && j.resumedAt() == 0 && caches == Caches.NONE) new Estimator(log).made(p, folder, v, j, workers.threads(),
                (System.nanoTime() - saving) / 1e9, null);
        if (done) keepCaches(p, folder, v, q, j.caches());
        return new Made(j.progress(), files, done);
    }

    /** Later pictures of the same light begin with what this one has cached. */
    private static void keepCaches(Project p, Path folder, View v, QueueJob q, Caches c) {
        CacheStore store = CacheStore.of(folder, q.preset());
        if (store == null) return;
        try {
            store.keepMore(p, folder, v, EngineSettings.bounced(q.preset()), c);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(FinalMaker.class).warn("caches of a final could not be kept: {}", e.getMessage());
        }
    }

    private Made inBands(QueueJob q, Project p, Path folder, View v, RenderJob.Order order, RenderScene scene, Path own,
            Consumer<RenderJob.Progress> each, Naming writing) throws IOException {
        for (String f : q.files()) BandedRender.checkEnding(Path.of(f));
        GuideStore guides = new GuideStore(folder, own.resolve("guides"));
        BandedRender b = new BandedRender(scene, order, guides.fitting(p, v), workers);
        bands = b;
        b.pause(pause);
        if (stop) b.stop();
        Path picture = own.resolve("picture.exr");
        RenderJob.Progress g = Files.isRegularFile(picture) ? new RenderJob.Progress(RenderJob.State.DONE, 0, 0, 0, 0, 1, 0, 1)
                : b.run(picture, Begun.identity(p, folder, v, order, null, guides), BandedRender.filmBytes(), each);
        if (g.state() == RenderJob.State.STOPPED) throw new IOException("stopped; its bands are kept");
        List<Path> files = writing.files(true);
        here(folder);
        for (Path f : files) AtomicFile.write(f, o -> Files.copy(picture, o));
        written(folder, files);
        return new Made(g, files, true);
    }
}
