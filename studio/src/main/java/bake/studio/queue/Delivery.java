package bake.studio.queue;

import bake.core.compiled.RenderScene;
import bake.core.solve.Caches;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.Begun;
import bake.studio.cache.CacheStore;
import bake.studio.cache.GuideStore;
import bake.studio.preset.Presets;
import bake.studio.render.BandedRender;
import bake.studio.render.Checkpoint;
import bake.studio.render.FileOptions;
import bake.studio.render.OutputPlace;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

/** Renders the finals of chosen views one after another into a folder. Runs on the calling thread. */
public final class Delivery {
    /**
     * One final of the delivery.
     *
     * @param replace whether a file of that name may go, once the new final is whole
     */
    public record Item(View view, Preset preset, int width, int height, Path file, boolean replace) {
        /** Where a final goes that was stopped: never in place of a whole one. */
        public Path unfinished() {
            String n = file.getFileName().toString();
            int dot = n.lastIndexOf('.');
            return file.resolveSibling(n.substring(0, dot) + " (unfinished)" + n.substring(dot));
        }
    }

    /** Told how it goes, on the delivering thread. */
    public interface Listener {
        void progress(Item item, RenderJob.Progress p);

        /** @param resumedAt the pass that it went on from, or 0 */
        void finished(Item item, RenderJob.Progress p, int resumedAt);

        /** @param kept what there is of a final that was stopped, under a name that says so */
        void stopped(Item item, RenderJob.Progress p, Path kept);

        void failed(Item item, Exception e);

        /** Something is amiss that does not end the picture. */
        void warned(Item item, String text);
    }

    /** Makes a view ready to render. */
    public interface Compiler {
        RenderScene compile(Project p, View v) throws IOException;
    }

    private final Workers workers;
    private final Compiler compiler;
    private final Path folder;
    private volatile boolean stopped;
    private volatile RenderJob current;
    private volatile BandedRender bands;

    /** @param folder of the project */
    public Delivery(Workers workers, Compiler compiler, Path folder) {
        this.folder = folder;
        this.workers = workers;
        this.compiler = compiler;
    }

    /** File name of a view's final: letters, digits and dashes only. */
    public static String fileName(View v, String ending) {
        String s = v.name().toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{Nd}]+", "-").replaceAll("(^-|-$)", "");
        return (s.isEmpty() ? "view" : s) + ending;
    }

    /** Asks for the final in work to be kept after its next pass, so that nothing more than that can be lost. */
    public void saveSoon() {
        RenderJob j = current;
        if (j != null) j.saveSoon();
    }

    /** Stops the final in work, keeping what it has, and leaves the rest. */
    public void stop() {
        stopped = true;
        RenderJob j = current;
        if (j != null) j.stop();
        BandedRender b = bands;
        if (b != null) b.stop();
    }

    /** Renders all items in order; a failure of one does not keep the others from being made. */
    public void run(Project project, List<Item> items, Listener listener) {
        for (Item i : items) {
            if (stopped) return;
            try {
                if (!i.replace() && Files.exists(i.file()))
                    throw new FileAlreadyExistsException(i.file().toString(), null,
                            "is there already; deliver again and say whether it is to be replaced");
                try (OutputPlace held = OutputPlace.hold(i.file(), (long) i.width() * i.height())) {
                    make(project, i, listener);
                }
            } catch (Exception e) {
                listener.failed(i, e);
            } catch (OutOfMemoryError e) {
                listener.failed(i, new IOException("there is not enough memory for a picture this large; make it smaller, or deliver EXR"));
            } finally {
                current = null;
                bands = null;
            }
        }
    }

    private void make(Project whole, Item i, Listener listener) throws IOException {
        Project project = Presets.seen(whole, i.preset());
        RenderScene scene = compiler.compile(project, i.view());
        RenderJob.Order order = new RenderJob.Order(i.view().name(), i.view().camera().camera(), i.view().look(), i.preset(), i.width(),
                i.height(), null, 1, false);
        if (BandedRender.needed(i.width(), i.height(), BandedRender.filmBytes())) inBands(scene, order, project, i, listener);
        else whole(scene, order, project, i, listener);
    }

    private void whole(RenderScene scene, RenderJob.Order order, Project project, Item i, Listener listener) throws IOException {
        // What tests have cached serves the final, which goes on filling it.
        CacheStore store = CacheStore.of(folder, i.preset());
        Caches caches = store == null ? Caches.NONE : store.fitting(project, folder, i.view(), RenderJob.bounced(i.preset()), false);
        RenderJob job = new RenderJob(scene, order, workers).guidedBy(new GuideStore(folder).fitting(project, i.view())).with(caches);
        job.keepIn(new Checkpoint(Checkpoint.beside(i.file()), Begun.identity(project, folder, i.view(), order, store),
                e -> listener.warned(i, "the unfinished picture could not be kept: " + e.getMessage())));
        current = job;
        if (stopped) job.stop();
        job.run(p -> listener.progress(i, p));
        if (job.progress().passes() == 0) throw new IOException("stopped before the first pass was done");
        boolean whole = job.state() == RenderJob.State.DONE;
        Path to = whole ? i.file() : i.unfinished();
        PictureOutput.write(to, job, FileOptions.USUAL);
        if (!whole) {
            listener.stopped(i, job.progress(), to);
            return;
        }
        job.written();
        Files.deleteIfExists(i.unfinished());
        if (store != null) keep(store, project, i, job.caches(), listener);
        listener.finished(i, job.progress(), job.resumedAt());
    }

    /** The next views of the same light begin with what this one has cached. */
    private void keep(CacheStore store, Project project, Item i, Caches caches, Listener listener) {
        try {
            store.keepMore(project, folder, i.view(), RenderJob.bounced(i.preset()), caches);
        } catch (IOException e) {
            listener.warned(i, "its caches could not be kept: " + e.getMessage());
        }
    }

    /** A picture that does not fit into the memory. */
    private void inBands(RenderScene scene, RenderJob.Order order, Project project, Item i, Listener listener) throws IOException {
        BandedRender b = new BandedRender(scene, order, new GuideStore(folder).fitting(project, i.view()), workers);
        bands = b;
        if (stopped) b.stop();
        RenderJob.Progress p = b.run(i.file(), Begun.identity(project, folder, i.view(), order, null), BandedRender.filmBytes(),
                g -> listener.progress(i, g));
        if (p.state() == RenderJob.State.STOPPED)
            throw new IOException(String.format(java.util.Locale.ROOT,
                    "stopped; %.0f %% is kept beside the file: deliver it again to go on", 100 * p.fraction()));
        listener.finished(i, p, 0);
    }
}
