package bake.studio.plan;

import bake.studio.queue.QueueHours;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;

/**
 * When the pictures of a delivery will be ready, one after another on one machine.
 *
 * @param bars one for each picture, in order
 * @param end most likely end of the last one; in eight of ten cases between {@code early} and {@code late}
 * @param chance of being ready in time, 0 to 1; NaN without a due time
 */
public record Plan(List<Bar> bars, ZonedDateTime end, ZonedDateTime early, ZonedDateTime late, double chance) {
    /** Draws by which times are added up. */
    private static final int DRAWS = 2000;
    /** Seconds within which eight of ten fall lie so many standard deviations around the middle. */
    private static final double EIGHT_OF_TEN = 1.2816;
    /** Share of the scatter that all pictures of a night have in common: what else the machine does (common practice, no source). */
    private static final double COMMON = 0.5;
    private static final long SEED = 20_310_307;
    /** Seconds of work that are as good as no end: what has no limit is said to take any number of them. */
    private static final double NEVER = 366 * 86_400;

    /**
     * What is known of a picture before it is made.
     *
     * @param seconds most likely; eight of ten fall between {@code low} and {@code high}; of a picture in work what is left
     */
    public record Work(String name, double seconds, double low, double high) {
        /** Spread of the logarithm. */
        double sigma() {
            return low > 0 && high > low ? Math.log(high / low) / 2 / EIGHT_OF_TEN : 0;
        }
    }

    /** A picture on the clock: most likely begin and end, and the end in eight of ten cases. */
    public record Bar(Work work, ZonedDateTime begin, ZonedDateTime end, ZonedDateTime early, ZonedDateTime late) {}

    /**
     * @param now when the first one can begin
     * @param due null for none
     */
    public static Plan of(List<Work> works, QueueHours hours, ZonedDateTime now, ZonedDateTime due) {
        double[][] ends = new double[works.size()][DRAWS];
        SplittableRandom random = new SplittableRandom(SEED);
        double[] last = new double[DRAWS];
        for (int d = 0; d < DRAWS; d++) {
            double common = normal(random), at = 0;
            for (int i = 0; i < works.size(); i++) {
                Work w = works.get(i);
                double z = Math.sqrt(COMMON) * common + Math.sqrt(1 - COMMON) * normal(random);
                at += w.seconds * Math.exp(w.sigma() * z);
                ends[i][d] = at;
            }
            last[d] = at;
        }
        List<Bar> bars = new ArrayList<>();
        double sum = 0;
        for (int i = 0; i < works.size(); i++) {
            ZonedDateTime begin = hours.next(after(hours, now, sum));
            sum += works.get(i).seconds;
            Arrays.sort(ends[i]);
            bars.add(new Bar(works.get(i), begin, after(hours, now, sum), after(hours, now, ends[i][DRAWS / 10]),
                    after(hours, now, ends[i][DRAWS * 9 / 10])));
        }
        if (works.isEmpty()) return new Plan(List.of(), now, now, now, due == null ? Double.NaN : due.isBefore(now) ? 0 : 1);
        double chance = due == null ? Double.NaN : Arrays.stream(last).filter(s -> s <= budget(hours, now, due)).count() / (double) DRAWS;
        Bar b = bars.getLast();
        return new Plan(List.copyOf(bars), b.end, b.early, b.late, chance);
    }

    private static ZonedDateTime after(QueueHours h, ZonedDateTime now, double seconds) {
        return h.after(now, Duration.ofMillis(Math.round(1000 * Math.min(seconds, NEVER))));
    }

    /** Seconds of work that the hours leave until the due time. */
    public static double budget(QueueHours h, ZonedDateTime now, ZonedDateTime due) {
        if (!now.isBefore(due)) return 0;
        double lo = 0, hi = Duration.between(now, due).toSeconds();
        if (!h.after(now, Duration.ofSeconds((long) hi)).isAfter(due)) return hi;
        for (int i = 0; i < 40; i++) {
            double mid = (lo + hi) / 2;
            if (after(h, now, mid).isAfter(due)) hi = mid;
            else lo = mid;
        }
        return lo;
    }

    /** One draw of the normal distribution (Box and Muller 1958). */
    private static double normal(SplittableRandom r) {
        return Math.sqrt(-2 * Math.log(1 - r.nextDouble())) * Math.cos(2 * Math.PI * r.nextDouble());
    }
}
