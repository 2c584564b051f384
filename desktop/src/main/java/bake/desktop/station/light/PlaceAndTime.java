package bake.desktop.station.light;

import bake.desktop.parts.Field;
import bake.desktop.text.Quantity;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.studio.scene.SunPosition;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.function.UnaryOperator;

/** The fields of where the building stands, and of the day and hour whose sun shines. */
final class PlaceAndTime {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH),
            LONG_DATE = DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH);
    private final LightWork work;
    private final BooleanSupplier busy;
    private final Field date = new Field("date", 118, this::day), time = new Field("time", 62, this::clock),
            latitude = new Field("latitude", 70, t -> take(t, 0)), longitude = new Field("longitude", 70, t -> take(t, 1)),
            zone = new Field("zone", 140, t -> take(t, 2));

    /** @param busy whether values are being shown, so that none is taken */
    PlaceAndTime(LightWork work, BooleanSupplier busy) {
        this.work = work;
        this.busy = busy;
    }

    Field date() {
        return date;
    }

    Field time() {
        return time;
    }

    Field latitude() {
        return latitude;
    }

    Field longitude() {
        return longitude;
    }

    Field zone() {
        return zone;
    }

    void show(ZonedDateTime moment) {
        date.show(DATE.format(moment));
        time.show(moment.toLocalTime().truncatedTo(ChronoUnit.MINUTES).toString());
    }

    void show(Project.Place p) {
        latitude.show(String.format(Locale.ROOT, "%.3f", p.latitude()));
        longitude.show(String.format(Locale.ROOT, "%.3f", p.longitude()));
        zone.show(p.zone());
    }

    /** Takes a part of the place: latitude, longitude or the time zone. */
    private void take(String t, int part) {
        if (busy.getAsBoolean() || work.document().project() == null) return;
        var p = work.document().project().place();
        double v = part < 2 ? Quantity.DEGREES.parse(t, part == 0 ? -90 : -180, part == 0 ? 90 : 180) : 0;
        if (part == 2) checked(t);
        var q = new Project.Place(part == 0 ? v : p.latitude(), part == 1 ? v : p.longitude(), part == 2 ? t : p.zone(), p.north(),
                p.other());
        if (!q.equals(p)) work.document().edit(null, x -> x.withPlace(q));
    }

    private static void checked(String t) {
        try {
            ZoneId.of(t);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException("'" + t + "' is no time zone; one looks like Europe/Zurich or +01:00.");
        }
    }

    private void day(String t) {
        try {
            LocalDate d = t.matches("\\d{4}-\\d{2}-\\d{2}") ? LocalDate.parse(t) : LocalDate.parse(t, t.length() > 11 ? LONG_DATE : DATE);
            moment(m -> m.with(d));
        } catch (DateTimeParseException e) {
            throw new IllegalArgumentException("'" + t + "' is no date; one looks like 14 March 2027 or 2027-03-14.");
        }
    }

    private void clock(String t) {
        try {
            String full = t.matches("\\d:\\d{2}.*") ? "0" + t : t;
            if (full.matches("\\d{2}:\\d{2}([+-]\\d{2}:\\d{2}|Z)")) {
                work.around(null, a -> a.withTime(a.date(), full));
                return;
            }
            LocalTime c = LocalTime.parse(full);
            moment(m -> m.with(c));
        } catch (DateTimeParseException e) {
            throw new IllegalArgumentException("'" + t + "' is no time; one looks like 09:10.");
        }
    }

    private void moment(UnaryOperator<ZonedDateTime> change) {
        if (work.document().view() == null) return;
        try {
            ZonedDateTime m = change.apply(SunPosition.moment(work.document().project().place(), work.document().view().around()));
            work.around(null, a -> a.withTime(m.toLocalDate().toString(), m.toLocalTime().truncatedTo(ChronoUnit.MINUTES).toString()));
        } catch (FormatException e) {
            work.notices().fail(e);
        }
    }
}
