package bake.studio.render;

import bake.core.film.Region;
import bake.formats.project.SavedLook;
import bake.core.finish.Look;
import bake.formats.project.FinishSpec;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/** What files of scene light say of how their pictures were finished, so that they can be finished again. */
public final class FinishNotes {
    public static final String SATURATION = "saturatingLuminance", LOOK = "look", PLACE = "placeInWhole";

    private FinishNotes() {}

    /** Of a picture; a colour table is a file of the project and not among them. */
    public static Map<String, String> of(RenderJob.Order o) {
        Region r = o.region();
        Look l = o.look();
        Map<String, String> out = new TreeMap<>();
        out.put(SATURATION, Double.toString(o.camera().saturation()));
        out.put(PLACE, "[" + r.x() + "," + r.y() + "," + o.width() + "," + o.height() + "]");
        out.put(LOOK, new SavedLook(o.view(), 0, null, null, l.curve().name().toLowerCase(Locale.ROOT), l.whiteBalance(),
                FinishSpec.of(l)).text());
        return out;
    }
}
