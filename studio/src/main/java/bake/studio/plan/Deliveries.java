package bake.studio.plan;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.preset.Presets;
import bake.studio.queue.FileNames;
import bake.studio.queue.QueueJob;
import bake.studio.queue.RenderQueue;
import bake.studio.render.Channel;
import bake.studio.render.FileOptions;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** What a project's delivery means: its pictures with their settings, sizes and files. */
public final class Deliveries {
    /** What a project that names none delivers. */
    public static final DeliverySpec FIRST = DeliverySpec.of("R1");
    private static final int LARGEST = 30_000;

    private Deliveries() {}

    /** One picture of a delivery, all considered. */
    public record Picture(View view, Preset preset, int width, int height, List<Path> files, boolean off) {}

    /** The delivery that is worked on: the last one. */
    public static DeliverySpec current(Project p) {
        return p.deliveries().isEmpty() ? FIRST : p.deliveries().getLast();
    }

    /** The project with its delivery changed. */
    public static Project with(Project p, DeliverySpec d) {
        List<DeliverySpec> all = new ArrayList<>(p.deliveries());
        if (all.isEmpty()) all.add(d);
        else all.set(all.size() - 1, d);
        return p.withDeliveries(List.copyOf(all));
    }

    /** The project with what is otherwise for a view changed. */
    public static Project with(Project p, DeliverySpec.Item item) {
        DeliverySpec d = current(p);
        List<DeliverySpec.Item> items = new ArrayList<>(d.views());
        items.removeIf(i -> i.view().equals(item.view()));
        items.add(item);
        return with(p, d.withViews(List.copyOf(items)));
    }

    /** The project with a new round after the last one, which begins as that one is. */
    public static Project nextRound(Project p) {
        DeliverySpec d = current(p);
        List<DeliverySpec> all = new ArrayList<>(p.deliveries());
        if (all.isEmpty()) all.add(d);
        all.add(d.withName("R" + (all.size() + 1)).withDue(null));
        return p.withDeliveries(List.copyOf(all));
    }

    /** Name of the round before one; null for the first. */
    public static String before(Project p, String round) {
        for (int i = 1; i < p.deliveries().size(); i++) if (p.deliveries().get(i).name().equals(round)) return p.deliveries().get(
                i - 1).name();
        return null;
    }

    /** Local date and time at which it is due, ISO 8601; null for none. */
    public static String due(Project p, DeliverySpec d) {
        return d.due() != null ? d.due() : p.due();
    }

    /**
     * All pictures of a delivery, those left out with them.
     *
     * @throws IllegalArgumentException when a preset or a place in the file names is not there
     */
    public static List<Picture> pictures(Project p, Path folder, DeliverySpec d, LocalDate today) {
        List<Picture> out = new ArrayList<>();
        Path to = folder(folder, d);
        for (View v : p.views()) {
            DeliverySpec.Item i = d.item(v.name());
            Preset s = preset(p, v, i);
            double k = i.scale() == null ? 1 : i.scale();
            int w = Math.clamp(Math.round(v.size()[0] * k), 1, LARGEST), h = Math.clamp(Math.round(v.size()[1] * k), 1, LARGEST);
            if (s.width() > 0) {
                w = s.width();
                h = Presets.size(s, v)[1];
            }
            String name = FileNames.name(d.names() == null ? FileNames.USUAL : d.names(), p.name(), v.name(), today, d.name(), s.name(),
                    w, h);
            out.add(new Picture(v, s, w, h, d.files().stream().map(f -> to.resolve(name + "." + f)).toList(), i.isOff()));
        }
        out.sort(Comparator.comparingInt(x -> {
            int at = d.order().indexOf(x.view.name());
            return at < 0 ? Integer.MAX_VALUE : at;
        }));
        return out;
    }

    /**
     * The project with a picture made before another one; those that are locked keep their places.
     *
     * @param before name of a view, or null for the end
     */
    public static Project move(Project p, Path folder, String view, String before) {
        DeliverySpec d = current(p);
        List<String> names = pictures(p, folder, d, LocalDate.EPOCH).stream().map(x -> x.view.name()).toList(),
                moved = LockedOrder.moved(names, n -> d.item(n).isLocked(), view, before);
        return moved.equals(names) ? p : with(p, d.withOrder(List.copyOf(moved)));
    }

    /** The project with a place more whose light the report says; its name is made one of its own. */
    public static Project withPoint(Project p, String name, double[] at, double[] facing) {
        DeliverySpec d = current(p);
        String free = name;
        for (int n = 2; taken(d, free); n++) free = name + " " + n;
        List<DeliverySpec.Point> all = new ArrayList<>(d.points());
        all.add(new DeliverySpec.Point(free, at, facing, null));
        return with(p, d.withPoints(List.copyOf(all)));
    }

    private static boolean taken(DeliverySpec d, String name) {
        return d.points().stream().anyMatch(x -> x.name().equals(name));
    }

    /** Where the files of a delivery go. */
    public static Path folder(Path project, DeliverySpec d) {
        return project.resolve(d.folder() == null ? "finals" : d.folder()).normalize();
    }

    private static Preset preset(Project p, View v, DeliverySpec.Item i) {
        Preset s = i.preset() == null ? Presets.suiting(p, v, true) : Presets.all(p).stream().filter(x -> x.name().equalsIgnoreCase(
                i.preset()))
                .findFirst().orElseThrow(() -> new IllegalArgumentException("the delivery's preset '" + i.preset() + "' is not in the project"));
        if (i.noise() != null || i.time() != null || i.samples() != null)
            s = s.withLimits(i.noise() == null ? s.noiseAim() : i.noise(), i.time() == null ? s.timeLimit() : i.time(),
                    i.samples() == null ? s.samples() : i.samples());
        if (i.cached() != null) s = i.cached() ? s.withBounces("irradiance cache", "radiance cache", s.cachedSurroundings()).withExact(null)
                : s.withBounces(null, null, null);
        return s;
    }

    /** How a delivery's files are written. */
    public static FileOptions options(DeliverySpec d) {
        FileOptions u = FileOptions.USUAL;
        return new FileOptions(d.dpi() == null ? u.dpi() : d.dpi(), d.bits() == null ? u.bits() : d.bits(), d.quality() == null
                ? u.quality()
                : d.quality(), d.floats() != null && d.floats(), Channel.all(d.channels()), FileOptions.gamut(d.gamut()));
    }

    /**
     * Adds pictures of a delivery to a queue, as the project is now.
     *
     * @param expected seconds that are predicted for each, 0 where not known; null for none
     */
    public static List<QueueJob> add(RenderQueue queue, Project p, Path folder, DeliverySpec d, List<Picture> pictures, boolean replace,
            List<Double> expected) throws IOException {
        List<QueueJob> jobs = new ArrayList<>();
        String now = LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString();
        for (int i = 0; i < pictures.size(); i++) {
            Picture x = pictures.get(i);
            jobs.add(new QueueJob(0, folder.toAbsolutePath().normalize().toString(), p.name(), d.name(), x.view.name(), x.preset, x.width,
                    x.height, x.files.stream().map(f -> f.toAbsolutePath().toString()).toList(), options(d).beside(x.preset), replace, 0,
                    due(p, d), null, now,
                    expected == null ? 0 : expected.get(i)));
        }
        return queue.add(p, jobs);
    }
}
