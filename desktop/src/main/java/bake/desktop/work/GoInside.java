package bake.desktop.work;

import bake.core.opening.Indoors;
import bake.core.scene.Camera;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import java.util.ArrayList;
import java.util.List;

/** Makes a view from inside a building: in its largest room with glass, looking along it, exposed for rooms by day. */
final class GoInside {
    /** A room by day, EV at ISO 100 (common practice, no source): 8 to 10. */
    private static final double EV = 9;

    private GoInside() {}

    static void from(Workbench bench) {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (f == null || f.spots() == null || bench.view() == null) return;
        bench.notices().say("Looking for a room\u2026");
        bench.inBackground(() -> {
            Indoors.Stand s = f.spots().indoors();
            bench.later(() -> {
                bench.notices().lastProperty().set(s != null ? null
                        : new Notices.Message("No room with glass was found; move the camera inside by hand.", true));
                if (s != null) add(bench, s);
            });
        });
    }

    private static void add(Workbench bench, Indoors.Stand s) {
        View v = bench.view();
        int n = 1;
        while (bench.project().view(n == 1 ? "Inside" : "Inside " + n) != null) n++;
        String name = n == 1 ? "Inside" : "Inside " + n;
        bench.edit(null, p -> {
            List<View> all = new ArrayList<>(p.views());
            all.add(v.withName(name).withSetting("interior").withCamera(Camera.of(s.eye(), s.target(), 18).withEv(EV)));
            return p.withViews(all).withCurrent(name);
        });
    }
}
