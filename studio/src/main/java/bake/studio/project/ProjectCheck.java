package bake.studio.project;

import bake.core.scene.Scene;
import bake.core.scene.Surroundings;
import bake.formats.model.Finding;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.scene.SceneAssembly;
import bake.studio.scene.SunPosition;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/** What an artist should look at in a project before spending time on pictures. */
public final class ProjectCheck {
    private ProjectCheck() {}

    /**
     * One line for each finding.
     *
     * @throws IOException when a file of the project cannot be used at all
     */
    public static List<String> findings(Project p, SceneAssembly assembly) throws IOException {
        List<String> out = new ArrayList<>();
        if (p.views().isEmpty()) out.add("views: there is none; add a camera on the View station");
        if (p.models().isEmpty() && p.shapes().isEmpty()) out.add("models: the project is empty; add a model file");
        for (View v : p.views()) {
            Scene s = assembly.scene(p, v);
            String at = "view '" + v.name() + "': ";
            boolean dark = s.surroundings() instanceof Surroundings.Plain q && q.luminance().luminance() <= 0;
            if (dark && s.lamps().isEmpty() && s.materials().stream().noneMatch(m -> m.glows()))
                out.add(at + "nothing gives light; choose a sky or add a lamp");
            if (s.instances().isEmpty()) out.add(at + "nothing stands in the picture; switch a layer on or add a model");
            String odd = v.around().kind().equals("sun and sky") || v.around().kind().equals("standard sky")
                    ? SunPosition.oddity(p.place(), v.around()) : null;
            if (odd != null) out.add(at + odd);
            double ev = v.camera().camera().ev100();
            // Common practice, no source: full sun is EV 15, an ordinary room by day 8 to 11.
            if (v.setting().equals("interior") && ev > 13)
                out.add(at + String.format(java.util.Locale.ROOT, "EV %.1f is an exposure for outdoors; a room by day wants about 9", ev));
            if (v.setting().equals("exterior") && ev < 8 && s.surroundings() instanceof Surroundings.SunSky k && k.toSun().z() > 0.1)
                out.add(at + String.format(java.util.Locale.ROOT, "EV %.1f is an exposure for indoors; full sun wants about 14", ev));
        }
        for (Finding f : assembly.findings()) out.add(f.line());
        for (SceneAssembly.Coplanar c : assembly.coplanar()) out.add("faces in one plane: " + c.line() + "; lift one of them at Model");
        return out;
    }
}
