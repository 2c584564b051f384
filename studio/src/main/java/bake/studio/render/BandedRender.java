package bake.studio.render;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.guide.Guides;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.project.Preset;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.function.Consumer;

/**
 * Renders a picture that is too large for the memory: in bands from the top down, each to its end, then kept on disk
 * ({@link BandStore}) until all are there. After the same number of passes every pixel is the same to the bit as of a
 * picture rendered at once.
 */
public final class BandedRender {
    private final RenderScene scene;
    private final RenderJob.Order order;
    private final Workers workers;
    private final Guides guides;
    private volatile RenderJob current;
    private volatile boolean stopped, paused;

    /**
     * @param order of the whole picture; its time limit is shared out among the bands
     * @param guides kept ones that every band begins with, or null
     */
    public BandedRender(RenderScene scene, RenderJob.Order order, Guides guides, Workers workers) {
        this.guides = guides;
        this.scene = scene;
        // What is that large is never denoised: its noise is judged as it is rendered.
        Preset p = order.preset();
        this.order = order.with(EngineSettings.ending(p, p.rawAim(), p.timeLimit(), p.samples()).withAimDenoised(null));
        this.workers = workers;
    }

    /** Rows of a band whose film stays within some bytes; at least 16. */
    public static int rows(int width, long bytes) {
        return (int) Math.clamp(bytes / ((long) width * Film.bytesPerPixel(2)) / 16 * 16, 16, 1 << 20);
    }

    /** Whether a picture's film would take more than some bytes. */
    public static boolean needed(int width, int height, long bytes) {
        return (long) width * height * Film.bytesPerPixel(2) > bytes;
    }

    /** Memory that one film may take: a third of what Java may have. */
    public static long filmBytes() {
        return Runtime.getRuntime().maxMemory() / 3;
    }

    /** @throws FormatException when a picture in bands cannot be written under that name */
    public static void checkEnding(Path file) throws FormatException {
        if (!file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".exr"))
            throw new FormatException(file.getFileName().toString(), null,
                    "is too large to be held in memory; pictures that large are written as .exr");
    }

    /** Ends the picture; the bands that are done are kept beside its file. */
    public void stop() {
        stopped = true;
        RenderJob j = current;
        if (j != null) j.stop();
    }

    /** Rests within a moment, or goes on. */
    public void pause(boolean wanted) {
        paused = wanted;
        RenderJob j = current;
        if (j != null && wanted) j.pause();
        else if (j != null) j.resume();
    }

    /**
     * Renders into a file, going on from the bands that an earlier run has left beside it.
     *
     * @param identity of everything that decides on the picture's bits, from {@link Checkpoint#identity}
     * @param bytes that a band's film may take
     * @param each told after every pass how far the whole is, on the calling thread
     * @return the progress of the whole
     * @throws FormatException when the file's ending is not .exr
     */
    public RenderJob.Progress run(Path file, String identity, long bytes, Consumer<RenderJob.Progress> each) throws IOException {
        checkEnding(file);
        Region r = order.region();
        int rows = Math.min(r.height(), rows(r.width(), bytes));
        var limits = order.preset();
        String whole = identity + " " + limits.noiseAim() + " " + limits.timeLimit() + " " + limits.samples();
        int channels = scene.scene().outlook().apart() ? 4 : 3;
        try (BandStore store = new BandStore(Checkpoint.beside(file), whole, r.width(), r.height(), channels)) {
            while (store.state().rows() < r.height()) {
                RenderJob job = band(store.state(), rows, each);
                if (job.state() == RenderJob.State.STOPPED) {
                    BandStore.State s = store.state();
                    return new RenderJob.Progress(RenderJob.State.STOPPED, 0, Double.POSITIVE_INFINITY, s.seconds(), 0,
                            s.rows() / (double) r.height(), s.rays());
                }
                Film film = job.film();
                float[] c = new float[3], front = film.front();
                int n = Math.min(rows, r.height() - store.state().rows());
                store.add(n, job.progress(), (y, rgb) -> {
                    for (int x = 0; x < r.width(); x++) {
                        film.mean(r.x() + x, r.y() + y, front, c);
                        System.arraycopy(c, 0, rgb, channels * x, 3);
                        if (channels == 4) rgb[4 * x + 3] = film.cover(r.x() + x, r.y() + y);
                    }
                });
            }
            store.finish(file, PictureOutput.notes(order));
            BandStore.State s = store.state();
            store.delete();
            return new RenderJob.Progress(RenderJob.State.DONE, s.fewest(), Math.sqrt(s.noise()), s.seconds(), 0, 1, s.rays());
        }
    }

    private RenderJob band(BandStore.State before, int rows, Consumer<RenderJob.Progress> each) throws IOException {
        Region r = order.region();
        int y = before.rows(), n = Math.min(rows, r.height() - y);
        Region band = new Region(r.x(), r.y() + y, r.width(), n);
        double limit = order.preset().timeLimit(), left = Math.max(0.01, limit - before.seconds());
        var preset = limit > 0 ? order.preset().withLimits(order.preset().noiseAim(), left * n / (r.height() - y), order.preset().samples())
                : order.preset();
        RenderJob.Order part = new RenderJob.Order(order.view(), order.camera(), order.look(), preset, order.width(), order.height(), band,
                order.seed(), false);
        RenderJob job = new RenderJob(scene, part, workers, RenderJob.film(part, scene, band)).guidedBy(guides);
        current = job;
        if (paused) job.pause();
        if (stopped) job.stop();
        double done = y / (double) r.height(), share = n / (double) r.height();
        job.run(p -> each.accept(new RenderJob.Progress(p.state() == RenderJob.State.DONE
                && done + share < 1 ? RenderJob.State.RENDERING : p.state(), p.passes(), p.noise(), before.seconds() + p.seconds(),
                left(p, before.seconds(), done, share), done + share * p.fraction(), before.rays() + p.rays())));
        return job;
    }

    private static double left(RenderJob.Progress p, double before, double done, double share) {
        double part = done + share * p.fraction();
        return part > 0 ? (before + p.seconds()) * (1 - part) / part : Double.NaN;
    }
}
