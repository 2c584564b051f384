package bake.studio.report;

import bake.formats.FormatException;
import bake.formats.picture.Shrink;
import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.proof.Differences;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.RenderQueue;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;

/**
 * The facts of a delivery that is done.
 *
 * @param title of the project, {@code round} name of the delivery
 * @param date of the report
 * @param due local date and time, or null
 * @param views what was made, in the project's order
 */
public record Report(String title, String round, LocalDate date, String due, List<Made> views) {
    private static final int PREVIEW = 1400;

    /**
     * One picture.
     *
     * @param preview a display picture of it, at most {@value #PREVIEW} pixels wide; null where only scene light was written
     * @param before the same of the last round, or null
     * @param files with their sums, in the same order
     * @param changes since the last round in words; null where there was none
     * @param levels illuminance at the delivery's points under this picture's light
     */
    public record Made(String view, int width, int height, String preset, double seconds, double noise, boolean denoised, int passes,
            String light, BufferedImage preview, BufferedImage before, List<Path> files, List<String> sums, List<String> changes,
            List<LightLevels.Level> levels) {
        /** Facts in the order in which they are told: name and value. */
        public List<String[]> facts() {
            List<String[]> out = new ArrayList<>();
            out.add(new String[] {"Size", width + " x " + height});
            out.add(new String[] {"Preset", preset});
            out.add(new String[] {"Light", light});
            out.add(new String[] {"Time", time(seconds)});
            out.add(new String[] {denoised ? "Error left" : "Noise", String.format(Locale.ROOT, "%.2f %%, %d passes", noise, passes)});
            if (!levels.isEmpty()) out.add(new String[] {"Light levels", String.join(", ", levels.stream().map(LightLevels.Level::words).toList())});
            return out;
        }
    }

    /**
     * Gathers what the queue knows of a delivery.
     *
     * @param before name of the round before, or null
     * @throws FormatException when none of its pictures is done
     */
    public static Report of(RenderQueue queue, Project p, Path folder, String round, String before, String due) throws IOException {
        queue.refresh();
        List<Made> views = new ArrayList<>();
        LightLevels levels = new LightLevels(folder);
        for (View v : p.views()) {
            QueueEntry e = done(queue, folder, round, v.name());
            if (e != null) views.add(made(queue, e, before == null ? null : done(queue, folder, before, v.name()), levels, points(p,
                    round)));
        }
        if (views.isEmpty()) throw new FormatException(p.name(), "delivery '" + round + "'", "has no finished picture in the queue; render it first");
        return new Report(p.name(), round, LocalDate.now(), due, List.copyOf(views));
    }

    private static List<DeliverySpec.Point> points(Project p, String round) {
        return p.deliveries().stream().filter(d -> d.name().equals(round)).findFirst().map(DeliverySpec::points).orElse(List.of());
    }

    private static QueueEntry done(RenderQueue q, Path folder, String round, String view) {
        QueueEntry found = null;
        for (QueueEntry e : q.entries()) if (e.state() == QueueEntry.State.DONE && e.job().view().equals(view)
                && e.job().delivery().equals(round)
                && Path.of(e.job().project()).equals(folder.toAbsolutePath().normalize()) && (found == null
                        || e.job().id() > found.job().id())) found = e;
        return found;
    }

    private static Made made(RenderQueue q, QueueEntry e, QueueEntry before, LightLevels levels,
            List<DeliverySpec.Point> points) throws IOException {
        var j = e.job();
        Project p = q.project(j.id());
        View v = p.view(j.view());
        List<Path> files = j.files().stream().map(Path::of).toList();
        List<String> changes = null;
        if (before != null) {
            Project then = q.project(before.job().id());
            changes = Differences.between(new Differences.State(then, then.view(j.view()), before.job().preset()), new Differences.State(
                    p, v, j.preset()))
                    .stream().map(d -> d.part().word() + ": " + d.what() + " " + d.a() + " \u2192 " + d.b()).toList();
        }
        return new Made(j.view(), j.width(), j.height(), j.preset().name() + " v" + j.preset().version(), e.seconds(), e.noise(), j.preset().aimsAtDenoised(), e.passes(), light(v),
                preview(files), before == null ? null : preview(before.job().files().stream().map(Path::of).toList()), files, e.sums(),
                        changes,
                levels.at(p, v, points));
    }

    private static String light(View v) {
        var a = v.around();
        return a.kind().equals("sun and sky") || a.kind().equals("standard sky") ? a.kind() + ", " + a.date() + " " + a.time() : a.kind();
    }

    private static BufferedImage preview(List<Path> files) {
        for (Path f : files) {
            String n = f.toString().toLowerCase(Locale.ROOT);
            if (n.endsWith(".exr") || n.endsWith(".hdr") || !Files.isRegularFile(f)) continue;
            try {
                BufferedImage whole = ImageIO.read(f.toFile());
                if (whole != null) return Shrink.within(whole, PREVIEW, 4 * PREVIEW);
            } catch (IOException e) {
                // Another kind may be readable.
            }
        }
        return null;
    }

    /** Seconds of all pictures. */
    public double seconds() {
        return views.stream().mapToDouble(Made::seconds).sum();
    }

    static String time(double s) {
        long n = Math.round(s);
        return n < 90 ? n + " s" : n < 5400 ? n / 60 + " min " + n % 60 + " s" : n / 3600 + " h " + n % 3600 / 60 + " min";
    }
}
