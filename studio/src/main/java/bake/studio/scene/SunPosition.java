package bake.studio.scene;

import bake.core.math.Vec3;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import net.e175.klaus.solarpositioning.DeltaT;
import net.e175.klaus.solarpositioning.SPA;

/** Where the sun stands, by the algorithm of Reda and Andreas 2004 (NREL/TP-560-34302). */
public final class SunPosition {
    private static final Pattern WITH_OFFSET = Pattern.compile("(\\d{2}:\\d{2}(?::\\d{2})?)([+-]\\d{2}:\\d{2}|Z)");

    private SunPosition() {}

    /**
     * A place in the sky.
     *
     * @param azimuth degrees clockwise from north
     * @param height degrees above the horizon
     */
    public record Angles(double azimuth, double height) {}

    public static ZonedDateTime moment(Project.Place place, View.Around a) throws FormatException {
        try {
            LocalDate d = a.date() == null ? LocalDate.of(2027, 3, 14) : LocalDate.parse(a.date());
            String written = a.time() == null ? "09:10" : a.time();
            Matcher parts = WITH_OFFSET.matcher(written);
            ZoneOffset offset = parts.matches() ? ZoneOffset.of(parts.group(2)) : null;
            LocalTime t = LocalTime.parse(parts.matches() ? parts.group(1) : written);
            return ZonedDateTime.ofLocal(LocalDateTime.of(d, t), ZoneId.of(place.zone()), offset);
        } catch (DateTimeException e) {
            throw new FormatException("project.json", "date, time or zone",
                    "is not one (" + e.getMessage() + "); write 2027-03-14, 09:10 and Europe/Zurich or +01:00");
        }
    }

    /**
     * What is odd about a local time, or null: when clocks go forward an hour is left out, and one is moved by that hour; when they go
     * back an hour comes twice, and the first is taken where the time does not name its offset, as 02:30+01:00 does.
     */
    public static String oddity(Project.Place place, View.Around a) throws FormatException {
        if (a.byHand() || a.time() == null || a.date() == null) return null;
        ZonedDateTime when = moment(place, a);
        String written = a.time().substring(0, 5), shown = when.toLocalTime().toString().substring(0, 5);
        if (!written.equals(shown)) return written + " is left out that day, as clocks go forward; " + shown + " is taken";
        var offsets = when.getZone().getRules().getValidOffsets(when.toLocalDateTime());
        if (offsets.size() < 2 || WITH_OFFSET.matcher(a.time()).matches()) return null;
        return written + " comes twice that day, as clocks go back; the first is taken. " + written + offsets.getLast() + " is the second";
    }

    public static Angles at(Project.Place place, ZonedDateTime when) {
        var p = SPA.calculateSolarPosition(when, place.latitude(), place.longitude(), 0, DeltaT.estimate(when.toLocalDate()), 1013, 10);
        return new Angles(p.azimuth(), 90 - p.zenithAngle());
    }

    /** Where the sun of a view stands: by its clock, or where it was put by hand. */
    public static Angles of(Project.Place place, View.Around a) throws FormatException {
        return a.byHand() ? new Angles(((a.sunAzimuth() % 360) + 360) % 360, a.sunHeight()) : at(place, moment(place, a));
    }

    /**
     * Sunlight outside of the air on a day over that of the mean distance: 1.035 in January, 0.967 in July (Spencer 1971, "Fourier series
     * representation of the position of the sun"; the coefficients from memory). A sun that was put by hand stands at its mean distance.
     */
    public static double nearness(Project.Place place, View.Around a) throws FormatException {
        if (a.byHand()) return 1;
        double g = 2 * Math.PI * (moment(place, a).getDayOfYear() - 1) / 365;
        return 1.000110 + 0.034221 * Math.cos(g) + 0.001280 * Math.sin(g) + 0.000719 * Math.cos(2 * g) + 0.000077 * Math.sin(2 * g);
    }

    /** Unit vector to the sun in the model's axes. */
    public static Vec3 direction(Project.Place place, View.Around a) throws FormatException {
        return direction(of(place, a), place.north());
    }

    /** Unit vector for angles; {@code north} is the direction of north, degrees clockwise from +y. */
    public static Vec3 direction(Angles s, double north) {
        double az = Math.toRadians(s.azimuth + north), h = Math.toRadians(s.height);
        return new Vec3(Math.cos(h) * Math.sin(az), Math.cos(h) * Math.cos(az), Math.sin(h));
    }
}
