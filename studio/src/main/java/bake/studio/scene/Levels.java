package bake.studio.scene;

import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import bake.formats.project.View;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What a view's faders, shifts and mutes make of the light of its source groups. */
public final class Levels {
    /** Mired of the display's white: 6504 K. */
    private static final double WHITE = 1e6 / 6504;

    private Levels() {}

    /** Factor by colour of each group that is not left as it is. */
    public static Map<String, Vec3> of(View v) {
        Map<String, Vec3> out = new HashMap<>();
        Set<String> names = new HashSet<>(v.faders().keySet());
        names.addAll(v.shifts().keySet());
        names.addAll(v.muted());
        for (String g : names) out.put(g, v.muted().contains(g) ? Vec3.ZERO
                : shift(v.shifts().getOrDefault(g, 0.0)).times(Math.pow(2, v.faders().getOrDefault(g, 0.0))));
        return out;
    }

    /** Whether two views have their light mixed alike. */
    public static boolean alike(View a, View b) {
        return of(a).equals(of(b));
    }

    /** The same with only some groups heard, where any are chosen. */
    public static Map<String, Vec3> of(View v, List<String> groups, Set<String> solo) {
        Map<String, Vec3> out = of(v);
        if (!solo.isEmpty()) for (String g : groups) if (!solo.contains(g)) out.put(g, Vec3.ZERO);
        return out;
    }

    /** What a shift does to white light of the display: the ratio of two black bodies, with its luminance kept. */
    public static Vec3 shift(double mired) {
        if (mired == 0) return new Vec3(1, 1, 1);
        Vec3 a = Blackbody.rgb(1e6 / WHITE), b = Blackbody.rgb(Math.clamp(1e6 / Math.max(20, WHITE + mired), 1000, 40_000));
        Vec3 k = new Vec3(Math.max(0.001, b.x() / a.x()), Math.max(0.001, b.y() / a.y()), Math.max(0.001, b.z() / a.z()));
        return k.times(1 / k.luminance());
    }
}
