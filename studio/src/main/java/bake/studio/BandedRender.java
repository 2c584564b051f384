package bake.studio;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.transport.RenderScene;
import bake.core.transport.Workers;
import bake.formats.FormatException;
import bake.formats.picture.ExrRows;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.function.Consumer;

/**
 * Renders a picture that is too large for the memory: in bands from the top down, each to its end, then written to disk and
 * forgotten. After the same number of passes every pixel is the same to the bit as of a picture rendered at once.
 */
public final class BandedRender {
    private final RenderScene scene;
    private final RenderJob.Order order;
    private final Workers workers;
    private volatile RenderJob current;
    private volatile boolean stopped;

    /** @param order of the whole picture; its time limit is shared out among the bands */
    public BandedRender(RenderScene scene, RenderJob.Order order, Workers workers) {
        this.scene = scene;
        this.order = order;
        this.workers = workers;
    }

    /** Rows of a band whose film stays within some bytes; at least 16. */
    public static int rows(int width, long bytes) {
        return (int) Math.clamp(bytes / ((long) width * Film.bytesPerPixel(1)) / 16 * 16, 16, 1 << 20);
    }

    /** Whether a picture's film would take more than some bytes. */
    public static boolean needed(int width, int height, long bytes) {
        return (long) width * height * Film.bytesPerPixel(1) > bytes;
    }

    /** Memory that one film may take: a third of what Java may have. */
    public static long filmBytes() {
        return Runtime.getRuntime().maxMemory() / 3;
    }

    /** @throws FormatException when a picture in bands cannot be written under that name */
    public static void checkEnding(Path file) throws FormatException {
        if (!file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".exr"))
            throw new FormatException(file.getFileName().toString(), null, "is too large to be held in memory; pictures that large are written as .exr");
    }

    /** Ends the picture; nothing is kept, since half of a file is none. */
    public void stop() {
        stopped = true;
        RenderJob j = current;
        if (j != null) j.stop();
    }

    /**
     * Renders into a file.
     *
     * @param bytes that a band's film may take
     * @param each told after every pass how far the whole is, on the calling thread
     * @return the progress of the whole
     * @throws FormatException when the file's ending is not .exr
     */
    public RenderJob.Progress run(Path file, long bytes, Consumer<RenderJob.Progress> each) throws IOException {
        checkEnding(file);
        Region r = order.region();
        int rows = Math.min(r.height(), rows(r.width(), bytes));
        long rays = 0;
        double seconds = 0, noise = 0, left = order.preset().timeLimit();
        int fewest = Integer.MAX_VALUE;
        try (ExrRows out = new ExrRows(file, r.width(), r.height())) {
            for (int y = 0; y < r.height(); y += rows) {
                int n = Math.min(rows, r.height() - y);
                Region band = new Region(r.x(), r.y() + y, r.width(), n);
                var preset = left > 0 ? order.preset().withLimits(order.preset().noiseAim(), left * n / (r.height() - y), order.preset().samples()) : order.preset();
                RenderJob job = new RenderJob(scene, new RenderJob.Order(order.view(), order.camera(), order.look(), preset, order.width(), order.height(), band, order.seed(), false), workers,
                        new Film(order.width(), order.height(), new int[scene.lights().groups().size()], band));
                current = job;
                if (stopped) job.stop();
                double before = seconds, done = y / (double) r.height(), share = n / (double) r.height();
                long raysBefore = rays;
                job.run(p -> each.accept(new RenderJob.Progress(p.state() == RenderJob.State.DONE && done + share < 1 ? RenderJob.State.RENDERING : p.state(), p.passes(), p.noise(), before + p.seconds(),
                        left(p, before, done, share), done + share * p.fraction(), raysBefore + p.rays())));
                if (job.state() == RenderJob.State.STOPPED) return new RenderJob.Progress(RenderJob.State.STOPPED, 0, Double.POSITIVE_INFINITY, before, 0, done, rays);
                RenderJob.Progress p = job.progress();
                rays += p.rays();
                seconds += p.seconds();
                left = left > 0 ? Math.max(0.01, left - p.seconds()) : 0;
                noise += p.noise() * p.noise() * share;
                fewest = Math.min(fewest, p.passes());
                write(out, job.film(), band);
            }
            out.finish();
        }
        return new RenderJob.Progress(RenderJob.State.DONE, fewest, Math.sqrt(noise), seconds, 0, 1, rays);
    }

    private static double left(RenderJob.Progress p, double before, double done, double share) {
        double part = done + share * p.fraction();
        return part > 0 ? (before + p.seconds()) * (1 - part) / part : Double.NaN;
    }

    private static void write(ExrRows out, Film film, Region band) throws IOException {
        float[] row = new float[3 * band.width()], c = new float[3];
        for (int y = band.y(); y < band.y() + band.height(); y++) {
            for (int x = 0; x < band.width(); x++) {
                film.mean(band.x() + x, y, null, c);
                System.arraycopy(c, 0, row, 3 * x, 3);
            }
            out.row(row);
        }
    }
}
