package bake.studio.live;

import bake.core.light.LightTable;
import bake.core.scene.Camera;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What is odd about the light of a view, told from its picture, with what to do about it. */
public final class LightFindings {
    /** Stops by which daylight may outshine lamps before they are lost, and by which an exposure may miss the picture. */
    private static final double DROWNED = 8, MISSED = 4;
    /** Middle grey in what saturates the picture (ISO 12232, saturation based: 18 % over 1.2 x 0.78, taken for a ninth). */
    private static final double GREY = 1 / 9.0;

    private LightFindings() {}

    /**
     * One of them.
     *
     * @param stops by which a brighter exposure would mend it; 0 where it would not
     */
    public record Finding(String text, double stops) {}

    /** @param f a picture of the view with at least two passes */
    public static List<Finding> of(Project project, View view, LiveRender.Frame f) {
        List<Finding> out = new ArrayList<>();
        double day = 0, lamps = 0, all = 0;
        for (int g = 0; g < f.light().length; g++) {
            all += f.light()[g];
            if (g <= LightTable.DOME) day += f.light()[g];
            else if (!f.groups().get(g).equals(LightTable.BACKDROP)) lamps += f.light()[g];
        }
        boolean indoors = "interior".equals(view.setting()), night = f.skyLux() + f.sunLux() < 1;
        boolean lit = project.lamps().stream().map(LampSpec::groupName).anyMatch(g -> !view.off().contains(g));
        if (!(all > 0)) {
            out.add(new Finding(night && !lit ? "There is no light at all: move the sun above the horizon, or switch a lamp on."
                    : "No light reaches this view: switch a lamp on, or open the room to the sky.", 0));
            return out;
        }
        if (indoors && !night && day < 0.002 * all && day * 50_000 < f.skyLux() + f.sunLux())
            out.add(new Finding("No daylight reaches this view. Look for layers that close the windows, or let "
                    + (project.portals().isEmpty() ? "the openings be found" : "the portals be checked") + " below.", 0));
        if (lit && lamps > 0 && day > lamps * Math.pow(2, DROWNED))
            out.add(new Finding(String.format(Locale.ROOT,
                    "The lamps are drowned by daylight, %.0f stops below it. Switch their groups off here to save time, or choose a later hour.", Math.log(day / lamps) / Math.log(2)), 0));
        Camera c = view.camera().camera();
        double stops = Math.log(c.saturation() * GREY / all) / Math.log(2);
        if (Math.abs(stops) > MISSED)
            out.add(new Finding(String.format(Locale.ROOT, "The exposure fits no light of this view: the picture is %.0f stops too %s.",
                    Math.abs(stops), stops > 0 ? "dark" : "bright"), stops));
        return out;
    }

    /** A camera that exposes brighter by some stops. */
    public static Camera exposed(Camera c, double stops) {
        double t = c.shutter() * Math.pow(2, stops);
        return c.withExposure(c.fNumber(), Math.clamp(t, 1e-5, 1000), c.iso());
    }
}
