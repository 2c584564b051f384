package bake.desktop.station.light;

import bake.desktop.parts.Ui;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.studio.scene.SunPosition;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.function.IntToDoubleFunction;
import javafx.scene.layout.HBox;

/** Hours of a day by where its sun stands: early, noon, late, and the blue hour after sunset. */
final class SunTimes {
    /** Heights in degrees that are looked for; early and late light makes long shadows (common practice, no source). */
    private static final double LOW = 14, BLUE = -5;

    private static final int STEP = 20;

    private SunTimes() {}

    static HBox buttons(LightWork work) {
        HBox h = new HBox();
        h.getStyleClass().add("choice");
        String[][] all = {{"early", "Early", "Morning sun, 14\u00b0 high"}, {"noon", "Noon", "The sun at its highest"},
                {"late", "Late", "Evening sun, 14\u00b0 high"}, {"blue", "Blue hour", "The sun 5\u00b0 below the horizon, after sunset"}};
        for (String[] b : all) {
            var button = Ui.button("sun-" + b[0], b[1], b[2], () -> go(work, b[0]), "small");
            button.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(button, javafx.scene.layout.Priority.ALWAYS);
            h.getChildren().add(button);
        }
        return h;
    }

    private static void go(LightWork work, String which) {
        if (work.document().view() == null) return;
        try {
            ZonedDateTime t = SunPosition.moment(work.document().project().place(), work.document().view().around());
            LocalTime to = time(work.document().project().place(), t, which);
            work.document().editView(null, v -> v.withAround(v.around().withTime(t.toLocalDate().toString(), to.toString())));
        } catch (FormatException e) {
            work.notices().fail(e);
        }
    }

    /** The minute of a day at which the sun stands as wanted, or nearest to it. */
    static LocalTime time(Project.Place place, ZonedDateTime day, String which) {
        ZonedDateTime start = day.toLocalDate().atStartOfDay(day.getZone());
        // Hours of the clock: on days on which it is changed some come twice or not at all.
        IntToDoubleFunction height = m -> SunPosition.at(place, start.with(LocalTime.of(m / 60, m % 60))).height();
        int noon = least(0, 1439, m -> -height.applyAsDouble(m));
        if (which.equals("noon")) return LocalTime.of(noon / 60, noon % 60);
        double want = which.equals("blue") ? BLUE : Math.min(LOW, 0.6 * height.applyAsDouble(noon));
        boolean morning = which.equals("early");
        int best = least(morning ? 0 : noon, morning ? noon : 1439, m -> Math.abs(height.applyAsDouble(m) - want));
        return LocalTime.of(best / 60, best % 60).truncatedTo(ChronoUnit.MINUTES);
    }

    /** The minute from {@code a} to {@code b} at which a smooth function of the day is least: looked for in steps first. */
    private static int least(int a, int b, IntToDoubleFunction f) {
        int best = a;
        double least = Double.POSITIVE_INFINITY;
        for (int step = STEP, from = a, to = b; step >= 1; step = step == 1 ? 0 : 1) {
            for (int m = from; m <= to; m += step) {
                double v = f.applyAsDouble(m);
                if (v < least) {
                    least = v;
                    best = m;
                }
            }
            from = Math.max(a, best - STEP);
            to = Math.min(b, best + STEP);
        }
        return best;
    }
}
