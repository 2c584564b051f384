package bake.studio.preset;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The presets of a project: its own, then those that ship. */
public final class Presets {
    private Presets() {}

    public static List<Preset> all(Project p) {
        List<Preset> out = new ArrayList<>(p.presets());
        for (Preset s : Preset.SHIPPED) if (out.stream().noneMatch(o -> o.name().equals(s.name()))) out.add(s);
        return out;
    }

    /** The first preset of a purpose that suits a view. */
    public static Preset suiting(Project p, View v, boolean isFinal) {
        return all(p).stream().filter(x -> x.isFinal() == isFinal && x.setting().equals(v.setting())).findFirst()
                .orElseGet(() -> all(p).stream().filter(x -> x.isFinal() == isFinal).findFirst().orElseThrow());
    }

    /**
     * The preset of a name, whatever its case; "test" and "final" mean the one that suits the view.
     *
     * @throws IllegalArgumentException naming those there are
     */
    public static Preset named(Project p, View v, String name) {
        if (name.equalsIgnoreCase("test") || name.equalsIgnoreCase("final")) return suiting(p, v, name.equalsIgnoreCase("final"));
        return all(p).stream().filter(x -> x.name().toLowerCase(Locale.ROOT).equals(name.toLowerCase(Locale.ROOT))).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no preset '" + name + "'; there are: test, final, "
                + String.join(", ", all(p).stream().map(Preset::name).toList())));
    }

    /** Picture size that a preset gives a view, pixels: width, height. */
    public static int[] size(Preset p, View v) {
        if (p.width() <= 0) return v.size().clone();
        return new int[] {p.width(), Math.max(1, Math.round((float) p.width() * v.size()[1] / v.size()[0]))};
    }
}
