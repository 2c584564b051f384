package bake.desktop.text;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Dates with a time of day as people write them. */
public final class Moments {
    private static final DateTimeFormatter SHOWN = DateTimeFormatter.ofPattern("EEE d MMM uuuu HH:mm", Locale.ENGLISH);
    private static final Pattern TIMED = Pattern.compile("(.*?)[ ,T]*(\\d{1,2})[:.h](\\d{2})(?::\\d{2})?");
    private static final List<DateTimeFormatter> DATES = List.of(of("d MMMM uuuu"), of("d MMM uuuu"), of("uuuu-MM-dd"), of("d.M.uuuu"));

    private Moments() {}

    private static DateTimeFormatter of(String pattern) {
        return new DateTimeFormatterBuilder().parseCaseInsensitive().appendPattern(pattern).toFormatter(Locale.ENGLISH)
                .withResolverStyle(ResolverStyle.STRICT);
    }

    /** What a project keeps, or null where it keeps none that can be read. */
    public static LocalDateTime read(String iso) {
        if (iso == null) return null;
        try {
            return LocalDateTime.parse(iso);
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    public static String text(LocalDateTime t) {
        return SHOWN.format(t);
    }

    /**
     * Takes a date with or without a time, a weekday, "today" or "tomorrow". Without a time it is noon.
     *
     * @throws IllegalArgumentException with words for the artist when it is neither
     */
    public static LocalDateTime parse(String text, LocalDateTime now) {
        Matcher m = TIMED.matcher(text.strip());
        boolean timed = m.matches();
        String day = (timed ? m.group(1) : text).strip();
        try {
            LocalTime at = timed ? LocalTime.of(Integer.parseInt(m.group(2)), Integer.parseInt(m.group(3))) : LocalTime.NOON;
            return day(day, now.toLocalDate()).atTime(at);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException("'" + text + "' is no date; write one like Friday 12:00, 14 March 2027 17:00 or 2027-03-14 17:00.");
        }
    }

    private static LocalDate day(String t, LocalDate today) {
        if (t.isEmpty() || t.equalsIgnoreCase("today")) return today;
        if (t.equalsIgnoreCase("tomorrow")) return today.plusDays(1);
        // A weekday may stand before the date; alone it is the next one.
        String first = t.split("[ ,]+")[0], rest = t.substring(first.length()).replaceFirst("^[ ,]+", "");
        for (DayOfWeek d : DayOfWeek.values()) {
            boolean named = first.length() >= 2 && d.name().startsWith(first.toUpperCase(Locale.ROOT).replaceAll("\\.$", ""));
            if (named && rest.isEmpty()) return today.with(TemporalAdjusters.next(d));
            if (named) return day(rest, today);
        }
        for (DateTimeFormatter f : DATES) {
            try {
                return LocalDate.parse(t, f);
            } catch (DateTimeParseException e) {
                // the next way of writing it
            }
        }
        throw new DateTimeException(t);
    }
}
