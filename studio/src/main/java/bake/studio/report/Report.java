package bake.studio.report;

import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.proof.Differences;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.RenderQueue;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
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
     * @param files with their sums, in the same order
     * @param changes since the last round in words; null where there was none
     */
    public record Made(String view, int width, int height, String preset, double seconds, double noise, int passes, String light,
            BufferedImage preview,
            List<Path> files, List<String> sums, List<String> changes) {
        /** Facts in the order in which they are told: name and value. */
        public List<String[]> facts() {
            List<String[]> out = new ArrayList<>();
            out.add(new String[] {"Size", width + " x " + height});
            out.add(new String[] {"Preset", preset});
            out.add(new String[] {"Light", light});
            out.add(new String[] {"Time", time(seconds)});
            out.add(new String[] {"Noise", String.format(Locale.ROOT, "%.2f %%, %d passes", noise, passes)});
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
        for (View v : p.views()) {
            QueueEntry e = done(queue, folder, round, v.name());
            if (e != null) views.add(made(queue, e, before == null ? null : done(queue, folder, before, v.name())));
        }
        if (views.isEmpty()) throw new FormatException(p.name(), "delivery '" + round + "'", "has no finished picture in the queue; render it first");
        return new Report(p.name(), round, LocalDate.now(), due, List.copyOf(views));
    }

    private static QueueEntry done(RenderQueue q, Path folder, String round, String view) {
        QueueEntry found = null;
        for (QueueEntry e : q.entries()) if (e.state() == QueueEntry.State.DONE && e.job().view().equals(view)
                && e.job().delivery().equals(round)
                && Path.of(e.job().project()).equals(folder.toAbsolutePath().normalize()) && (found == null
                        || e.job().id() > found.job().id())) found = e;
        return found;
    }

    private static Made made(RenderQueue q, QueueEntry e, QueueEntry before) throws IOException {
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
        return new Made(j.view(), j.width(), j.height(), j.preset().name() + " v" + j.preset().version(), e.seconds(), e.noise(), e.passes(), light(v),
                preview(files), files, e.sums(), changes);
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
                if (whole != null) return smaller(whole);
            } catch (IOException e) {
                // Another kind may be readable.
            }
        }
        return null;
    }

    private static BufferedImage smaller(BufferedImage i) {
        int w = Math.min(PREVIEW, i.getWidth()), h = Math.max(1, (int) ((long) i.getHeight() * w / i.getWidth()));
        BufferedImage out = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = out.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        g.setColor(java.awt.Color.WHITE);
        g.fillRect(0, 0, w, h);
        // Halves first: one large step would leave pixels out.
        BufferedImage from = i;
        while (from.getWidth() > 2 * w) {
            BufferedImage half = new BufferedImage(from.getWidth() / 2, Math.max(1, from.getHeight() / 2), BufferedImage.TYPE_INT_RGB);
            Graphics2D q = half.createGraphics();
            q.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
            q.drawImage(from, 0, 0, half.getWidth(), half.getHeight(), null);
            q.dispose();
            from = half;
        }
        g.drawImage(from, 0, 0, w, h, null);
        g.dispose();
        return out;
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
