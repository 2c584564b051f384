package bake.studio.queue;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.zone.ZoneOffsetTransition;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * When this machine may render: always, or from one time of the day to another, and all day at weekends or not. Days are those of the
 * machine's own time zone, so that a night in which the clock is changed is an hour longer or shorter.
 *
 * @param from begin of the hours, {@code to} their end, which may be on the next day; the same for the whole day
 * @param weekends whether Saturdays and Sundays are free all day
 */
public record QueueHours(LocalTime from, LocalTime to, boolean weekends) {
    public static final QueueHours ALWAYS = new QueueHours(LocalTime.MIDNIGHT, LocalTime.MIDNIGHT, false),
            NIGHTS = new QueueHours(LocalTime.of(19, 0), LocalTime.of(7, 30), true);
    private static final Pattern TEXT = Pattern.compile("(\\d{1,2}):(\\d{2})\\s*(?:-|to)\\s*(\\d{1,2}):(\\d{2})(\\s*(?:,|and)?\\s*weekends)?");
    private static final Duration STEP = Duration.ofMinutes(1);

    /**
     * "always", "nights", or such as "19:00-07:30, weekends".
     *
     * @throws IllegalArgumentException for anything else
     */
    public static QueueHours of(String text) {
        String t = text.strip().toLowerCase(Locale.ROOT);
        if (t.equals("always")) return ALWAYS;
        if (t.equals("nights")) return NIGHTS;
        Matcher m = TEXT.matcher(t);
        if (!m.matches()) throw new IllegalArgumentException("hours are always, nights, or such as 19:00-07:30, weekends; not '" + text + "'");
        try {
            return new QueueHours(LocalTime.of(Integer.parseInt(m.group(1)), Integer.parseInt(m.group(2))),
                    LocalTime.of(Integer.parseInt(m.group(3)), Integer.parseInt(m.group(4))), m.group(5) != null);
        } catch (java.time.DateTimeException e) {
            throw new IllegalArgumentException("hours go from 0:00 to 23:59, not '" + text + "'", e);
        }
    }

    /** As {@link #of} reads it. */
    public String text() {
        return equals(ALWAYS) ? "always" : equals(NIGHTS) ? "nights" : from + "-" + to + (weekends ? ", weekends" : "");
    }

    /** Whether it may work at a moment. */
    public boolean open(ZonedDateTime at) {
        if (from.equals(to)) return true;
        DayOfWeek d = at.getDayOfWeek();
        if (weekends && (d == DayOfWeek.SATURDAY || d == DayOfWeek.SUNDAY)) return true;
        LocalTime t = at.toLocalTime();
        return from.isBefore(to) ? !t.isBefore(from) && t.isBefore(to) : !t.isBefore(from) || t.isBefore(to);
    }

    /** The next moment, from one on, at which it may work. */
    public ZonedDateTime next(ZonedDateTime at) {
        ZonedDateTime t = at;
        while (!open(t)) t = edge(t);
        return t;
    }

    /** When work of some length is done that begins at a moment or as soon after it as may be. */
    public ZonedDateTime after(ZonedDateTime at, Duration work) {
        ZonedDateTime t = next(at);
        Duration left = work;
        while (true) {
            if (from.equals(to)) return t.plus(left);
            ZonedDateTime end = t;
            while (open(end) && Duration.between(t, end).compareTo(left) < 0) end = edge(end);
            Duration here = Duration.between(t, end);
            if (here.compareTo(left) >= 0) return t.plus(left);
            left = left.minus(here);
            t = next(end);
        }
    }

    /** A local time that a changed clock leaves out is the moment of the change. */
    private static ZonedDateTime moment(LocalDateTime local, ZoneId zone) {
        ZoneOffsetTransition change = zone.getRules().getTransition(local);
        return change != null && change.isGap() ? change.getInstant().atZone(zone) : local.atZone(zone);
    }

    /** The next moment at which anything may change: a begin, an end, or midnight. */
    private ZonedDateTime edge(ZonedDateTime t) {
        ZonedDateTime best = t.toLocalDate().plusDays(1).atStartOfDay(t.getZone());
        for (LocalTime e : new LocalTime[] {from, to}) {
            ZonedDateTime x = moment(t.toLocalDate().atTime(e), t.getZone());
            if (x.isAfter(t) && x.isBefore(best)) best = x;
        }
        // Where the clock jumps over an edge there is still a way on.
        return best.isAfter(t) ? best : t.plus(STEP);
    }
}
