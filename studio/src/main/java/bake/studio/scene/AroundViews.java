package bake.studio.scene;

import bake.core.light.GeneralSky;
import bake.core.math.Vec3;
import bake.core.scene.Outlook;
import bake.core.scene.Surroundings;
import bake.formats.FormatException;
import bake.formats.model.Finding;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** What lies around the model in the views of a project: the light from there, and what is seen in its place. */
final class AroundViews {
    private final Panoramas skies;
    private final Backdrops backdrops;

    /** @param folder of the project */
    AroundViews(Path folder) {
        skies = new Panoramas(folder);
        backdrops = new Backdrops(folder);
    }

    /** What is doubtful about its pictures. */
    List<Finding> findings() {
        return skies.findings();
    }

    /** What is seen where that is not the light. */
    Outlook outlook(Project project, View view, Surroundings light) throws IOException {
        View.Around a = view.around();
        Outlook.Sight own = a.ground() != null && light instanceof Surroundings.Hdri h ? new Outlook.Grounded(h, ground(a.ground())) : null;
        Outlook.Sight behind = a.backdrop() == null ? own : sight(project, view, a.backdrop().over(a)),
                mirrored = a.mirrored() == null ? own : sight(project, view, a.mirrored().over(a));
        return behind == null && mirrored == null && !a.leavesBackdropOut() ? Outlook.PLAIN
                : new Outlook(behind, mirrored, a.leavesBackdropOut());
    }

    private Outlook.Sight sight(Project project, View view, View.Around a) throws IOException {
        if (a.kind().equals("picture")) return backdrops.plate(view, a);
        Surroundings s = light(project, view, a);
        return a.ground() != null && s instanceof Surroundings.Hdri h ? new Outlook.Grounded(h, ground(a.ground())) : new Outlook.Far(s);
    }

    private static Outlook.Ground ground(View.GroundSpec g) {
        return new Outlook.Ground(g.x(), g.y(), g.z(), g.radius(), g.tripod(), g.softness(), g.stretch());
    }

    /** The light from around the model. */
    Surroundings light(Project project, View view, View.Around a) throws IOException {
        double skyStops = a.or(a.skyStops(), 0);
        // The sun is nearer in January than in July, and the clear sky is its light.
        double near = Math.log(SunPosition.nearness(project.place(), a)) / Math.log(2);
        return switch (a.kind()) {
            case "hdri" -> skies.hdri(project, view, a);
            case "picture" -> throw new FormatException("project.json", "view '" + view.name() + "'",
                    "is lit by a flat picture, which gives no light; it can be the backdrop");
            case "plain" -> new Surroundings.Plain(a.luminance() == null ? new Vec3(1000, 1000, 1000)
                    : MaterialLibrary.vec(a.luminance()).times(Math.pow(2, skyStops)));
            case "standard sky" -> {
                int type = a.standardSky();
                if (type < 1 || type > GeneralSky.TYPES)
                    throw new FormatException("project.json", "view '" + view.name() + "'",
                            "has the standard sky " + type + "; there are 1 to " + GeneralSky.TYPES);
                yield new Surroundings.General(type, SunPosition.direction(project.place(), a), a.or(a.haze(), 2.5),
                        a.or(a.sunStops(), 0) + near, skyStops,
                        a.or(a.sunSize(), Surroundings.SunSky.SUN_DEGREES), a.or(a.albedo(), 0.2), a.sunDisc() == null || a.sunDisc());
            }
            default -> new Surroundings.SunSky(SunPosition.direction(project.place(), a), a.or(a.haze(), 2.5), a.or(a.sunStops(), 0) + near,
                    skyStops + near,
                    a.or(a.sunSize(), Surroundings.SunSky.SUN_DEGREES), a.or(a.albedo(), 0.2), a.sunDisc() == null || a.sunDisc(),
                    a.moon() != null && a.moon());
        };
    }
}
