package bake.desktop;

import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.studio.SunPosition;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import javafx.scene.layout.HBox;

/** Hours of a day by where its sun stands: early, noon, late, and the blue hour after sunset. */
final class SunTimes {
    /** Heights in degrees that are looked for; early and late light makes long shadows (common practice, no source). */
    private static final double LOW = 14, BLUE = -5;

    private SunTimes() {}

    static HBox buttons(Workbench bench) {
        HBox h = new HBox();
        h.getStyleClass().add("choice");
        String[][] all = {{"early", "Early", "Morning sun, 14\u00b0 high"}, {"noon", "Noon", "The sun at its highest"}, {"late", "Late", "Evening sun, 14\u00b0 high"}, {"blue", "Blue hour", "The sun 5\u00b0 below the horizon, after sunset"}};
        for (String[] b : all) {
            var button = Ui.button("sun-" + b[0], b[1], b[2], () -> go(bench, b[0]), "small");
            button.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(button, javafx.scene.layout.Priority.ALWAYS);
            h.getChildren().add(button);
        }
        return h;
    }

    private static void go(Workbench bench, String which) {
        if (bench.view() == null) return;
        try {
            ZonedDateTime t = SunPosition.moment(bench.project().place(), bench.view().around());
            LocalTime to = time(bench.project().place(), t, which);
            bench.editView(null, v -> v.withAround(v.around().withTime(t.toLocalDate().toString(), to.toString())));
        } catch (FormatException e) {
            bench.fail(e);
        }
    }

    /** The minute of a day at which the sun stands as wanted, or nearest to it. */
    static LocalTime time(Project.Place place, ZonedDateTime day, String which) {
        ZonedDateTime start = day.toLocalDate().atStartOfDay(day.getZone());
        int noon = 0;
        double[] height = new double[1440];
        for (int m = 0; m < 1440; m++) {
            // Hours of the clock: on days on which it is changed some come twice or not at all.
            height[m] = SunPosition.at(place, start.with(LocalTime.of(m / 60, m % 60))).height();
            if (height[m] > height[noon]) noon = m;
        }
        if (which.equals("noon")) return LocalTime.of(noon / 60, noon % 60);
        double want = which.equals("blue") ? BLUE : Math.min(LOW, 0.6 * height[noon]);
        int best = noon;
        boolean morning = which.equals("early");
        for (int m = morning ? 0 : noon; m < (morning ? noon : 1440); m++) if (Math.abs(height[m] - want) < Math.abs(height[best] - want)) best = m;
        return LocalTime.of(best / 60, best % 60).truncatedTo(ChronoUnit.MINUTES);
    }
}
