package bake.studio.scene;

import bake.formats.FormatException;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Locale;

/** The same camera in other light: the sun of its day at another height, and lamps on or off. */
public enum Moods {
    /** The sun is 20 degrees up and rises; at its highest; 4 degrees under the horizon after it set; and deep night under the moon. */
    MORNING(20, 13, 9.5), NOON(90, 15, 10), DUSK(-4, 7, 6), NIGHT(-30, 4, 5.5);

    private static final int MINUTES = 24 * 60, STEP = 2;
    private final double height, outside, inside;

    /**
     * @param outside exposure to begin with, EV at ISO 100, {@code inside} the same indoors (common practice, no source); a meter
     * says better
     */
    Moods(double height, double outside, double inside) {
        this.height = height;
        this.outside = outside;
        this.inside = inside;
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** What a view is called in this mood. */
    public String name(View v) {
        return v.name() + ", " + word();
    }

    /** Whether a view is another one of these in some mood. */
    public static boolean isMood(View v, List<View> all) {
        for (Moods m : values()) for (View x : all) if (x != v && v.name().equals(m.name(x))) return true;
        return false;
    }

    /** A view in this mood, under a name of its own. */
    public View of(View v, Project p) throws FormatException {
        ZonedDateTime day = SunPosition.moment(p.place(), v.around().withKind("sun and sky"));
        LocalTime t = time(p.place(), day);
        View.Around a = v.around().withKind("sun and sky").withSunAzimuth(null).withSunHeight(null).withMoon(this == NIGHT ? true : null)
                .withTime(day.toLocalDate().toString(), String.format(Locale.ROOT, "%02d:%02d", t.getHour(), t.getMinute()));
        View out = v.withAround(a).withName(name(v)).withCamera(v.camera().camera().withEv(v.setting().equals("interior") ? inside : outside));
        List<String> groups = p.lamps().stream().map(LampSpec::group).distinct().toList();
        for (String g : groups) if (g != null) out = out.withOff(g, this == MORNING || this == NOON);
        return out;
    }

    /** When the sun of a day comes nearest to this height: before it is highest in the morning, after that in the evening. */
    private LocalTime time(Project.Place place, ZonedDateTime day) {
        int noon = 0;
        double[] h = new double[MINUTES / STEP];
        for (int i = 0; i < h.length; i++) {
            h[i] = SunPosition.at(place, day.with(LocalTime.ofSecondOfDay(60L * STEP * i))).height();
            if (h[i] > h[noon]) noon = i;
        }
        int best = noon;
        int from = this == MORNING ? 0 : noon, to = this == MORNING ? noon : this == NOON ? noon + 1 : h.length;
        for (int i = from; i < to; i++) if (Math.abs(h[i] - height) < Math.abs(h[best] - height)) best = i;
        return LocalTime.ofSecondOfDay(60L * STEP * best);
    }
}
