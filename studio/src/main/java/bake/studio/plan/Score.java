package bake.studio.plan;

import bake.studio.queue.QueueEntry;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;

/**
 * What was promised for pictures that are done, and what became of it.
 *
 * @param ratio real by promised time: the geometric mean of all pictures; NaN for none
 * @param weeks the same by week, oldest first
 */
public record Score(double ratio, int pictures, List<Week> weeks) {
    public static final Score NONE = new Score(Double.NaN, 0, List.of());

    /** A week by ISO 8601, such as 2031-W10. */
    public record Week(String week, double ratio, int pictures) {
        public String words() {
            return String.format(Locale.ROOT, "%s  %.2f of what was promised, %d", week, ratio, pictures) + (pictures == 1 ? " picture" : " pictures");
        }
    }

    /** @param entries of a queue; only those count that are done and had a promise */
    public static Score of(List<QueueEntry> entries) {
        TreeMap<String, List<Double>> byWeek = new TreeMap<>();
        List<Double> all = new ArrayList<>();
        for (QueueEntry e : entries) {
            if (e.state() != QueueEntry.State.DONE || !(e.job().expected() > 0) || !(e.seconds() > 0)) continue;
            double off = Math.log(e.seconds() / e.job().expected());
            all.add(off);
            String week = week(e.ended());
            if (week != null) byWeek.computeIfAbsent(week, w -> new ArrayList<>()).add(off);
        }
        if (all.isEmpty()) return NONE;
        return new Score(mean(all), all.size(), byWeek.entrySet().stream().map(w -> new Week(w.getKey(), mean(w.getValue()),
                w.getValue().size())).toList());
    }

    private static double mean(List<Double> logs) {
        return Math.exp(logs.stream().mapToDouble(d -> d).average().orElse(0));
    }

    private static String week(String ended) {
        if (ended == null) return null;
        try {
            LocalDateTime t = LocalDateTime.parse(ended);
            return String.format(Locale.ROOT, "%d-W%02d", t.get(IsoFields.WEEK_BASED_YEAR), t.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
        } catch (DateTimeParseException e) {
            return null;
        }
    }
}
