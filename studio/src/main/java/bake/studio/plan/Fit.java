package bake.studio.plan;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.estimate.Estimate;
import bake.studio.queue.QueueHours;
import bake.studio.render.EngineSettings;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/** What would make a delivery fit, each with the time that it gains; and what more the time would buy where there is enough. */
public final class Fit {
    /** From this chance on a delivery is taken to fit, and from this share of the time on there is time to spare. */
    public static final double ENOUGH = 0.9, SPARE = 0.5;
    private static final int MOST = 5;
    private static final double SMALLER = 0.8, COARSER = 1.5;

    private Fit() {}

    /**
     * One way.
     *
     * @param words what it does
     * @param project as it would be
     * @param gain seconds that it saves; negative for what it costs
     * @param chance of being in time with it
     */
    public record Way(String words, Project project, double gain, double chance) {}

    /** Predicts a picture of a delivery, and quickly; null where nothing is known. */
    public interface Predictor {
        Estimate of(Project p, Deliveries.Picture x) throws IOException;
    }

    /**
     * The ways there are, those that gain most first; where the delivery fits with time to spare, what better quality it would buy.
     *
     * @param works what is known of the pictures that are in the delivery, in their order
     */
    public static List<Way> ways(Project p, Path folder, List<Plan.Work> works, QueueHours hours, ZonedDateTime now, Predictor predictor)
            throws IOException {
        DeliverySpec d = Deliveries.current(p);
        String said = Deliveries.due(p, d);
        if (said == null) return List.of();
        ZonedDateTime due = LocalDateTime.parse(said).atZone(now.getZone());
        Plan plan = Plan.of(works, hours, now, due);
        double budget = Plan.budget(hours, now, due), sum = works.stream().mapToDouble(Plan.Work::seconds).sum();
        boolean spare = plan.chance() >= ENOUGH && sum < SPARE * budget;
        if (plan.chance() >= ENOUGH && !spare) return List.of();
        List<Way> out = new ArrayList<>();
        int at = 0;
        for (Deliveries.Picture x : Deliveries.pictures(p, folder, d, LocalDate.now())) {
            if (x.off()) continue;
            if (at >= works.size()) break;
            DeliverySpec.Item i = d.item(x.view().name());
            List<Object[]> tries = new ArrayList<>();
            String name = x.view().name();
            // What was promised as it is stays as it is.
            if (i.isLocked()) {
                at++;
                continue;
            }
            if (spare) {
                if (x.preset().noiseAim() > 0.5) tries.add(new Object[] {percent(name + aimed(x), x, 1 / COARSER),
                        i.withNoise(round(x.preset().noiseAim() / COARSER))});
            } else {
                double scale = (i.scale() == null ? 1 : i.scale()) * SMALLER;
                if (scale > 0.2 && x.preset().width() == 0) tries.add(new Object[] {String.format(Locale.ROOT, "%s: %.0f %% of its size", name,
                        100 * scale), i.withScale(round(scale))});
                if (x.preset().noiseAim() > 0) tries.add(new Object[] {percent(name + aimed(x), x, COARSER),
                        i.withNoise(round(x.preset().noiseAim() * COARSER))});
                if (!EngineSettings.bounced(x.preset()).cached()) tries.add(new Object[] {name + ": bounced light from caches",
                        i.withCached(true)});
            }
            for (Object[] t : tries) {
                Project q = Deliveries.with(p, (DeliverySpec.Item) t[1]);
                Estimate e = predictor.of(q, picture(q, folder, x.view()));
                if (e == null) continue;
                Plan.Work w = works.get(at);
                out.add(way((String) t[0], q, works, at, new Plan.Work(w.name(), e.seconds(), e.low(), e.high()), hours, now, due));
            }
            at++;
        }
        if (!spare) {
            List<Deliveries.Picture> all = Deliveries.pictures(p, folder, d, LocalDate.now()).stream().filter(x -> !x.off()).toList();
            if (all.size() > 1 && all.size() == works.size()) {
                // Whatever is left out is the longest.
                int longest = -1;
                for (int k = 0; k < works.size(); k++) if (!d.item(all.get(k).view().name()).isLocked() && (longest < 0
                        || works.get(k).seconds() > works.get(longest).seconds())) longest = k;
                if (longest >= 0) {
                    String name = all.get(longest).view().name();
                    out.add(way(name + " is left out of this round", Deliveries.with(p, d.item(name).withOff(true)), works, longest,
                            new Plan.Work(name, 0, 0, 0), hours, now, due));
                }
            }
            LocalDateTime later = LocalDateTime.parse(said).plusDays(1);
            Project q = Deliveries.with(p, d.withDue(later.truncatedTo(ChronoUnit.MINUTES).toString()));
            out.add(new Way("One more night: due a day later", q, 0, Plan.of(works, hours, now, later.atZone(now.getZone())).chance()));
        }
        out.removeIf(w -> spare ? w.chance < ENOUGH : w.gain <= 0 && w.chance <= plan.chance());
        out.sort(Comparator.comparingDouble((Way w) -> -w.chance).thenComparingDouble(w -> -w.gain));
        return List.copyOf(out.subList(0, Math.min(MOST, out.size())));
    }

    private static Deliveries.Picture picture(Project q, Path folder, View v) {
        return Deliveries.pictures(q, folder, Deliveries.current(q), LocalDate.now()).stream().filter(x -> x.view().name().equals(v.name()))
                .findFirst().orElseThrow();
    }

    private static Way way(String words, Project q, List<Plan.Work> works, int at, Plan.Work instead, QueueHours hours, ZonedDateTime now,
            ZonedDateTime due) {
        List<Plan.Work> other = new ArrayList<>(works);
        other.set(at, instead);
        return new Way(words, q, works.get(at).seconds() - instead.seconds(), Plan.of(other, hours, now, due).chance());
    }

    private static String aimed(Deliveries.Picture x) {
        return x.preset().aimsAtDenoised() ? ": error left " : ": noise ";
    }

    private static String percent(String words, Deliveries.Picture x, double factor) {
        return words + number(round(x.preset().noiseAim() * factor)) + " % instead of " + number(x.preset().noiseAim()) + " %";
    }

    private static String number(double v) {
        return v == Math.rint(v) ? String.format(Locale.ROOT, "%.0f", v) : String.format(Locale.ROOT, "%.2f", v).replaceAll("0$", "");
    }

    private static double round(double v) {
        return Math.round(v * 100) / 100.0;
    }
}
