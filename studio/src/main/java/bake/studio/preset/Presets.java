package bake.studio.preset;

import bake.formats.FormatException;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.SharedPreset;
import bake.formats.project.ShippedPresets;
import bake.formats.project.View;
import bake.studio.scene.SunPosition;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The presets of a project: its own, then those that ship. */
public final class Presets {
    /** Setting of presets for what lamps light. */
    private static final String DUSK = "dusk";
    private static final Pattern VERSIONED = Pattern.compile("(.+)@(\\d{1,6})");

    private Presets() {}

    public static List<Preset> all(Project p) {
        List<Preset> out = new ArrayList<>(p.presets());
        for (Preset s : ShippedPresets.PRESETS) if (out.stream().noneMatch(o -> o.name().equals(s.name()))) out.add(s);
        return out;
    }

    /**
     * The presets that a project's pictures can be made with: its own, which are those that it has pinned, then those of shelves,
     * then those that ship.
     */
    public static List<Preset> all(Project p, Shelves shelves) {
        List<Preset> out = new ArrayList<>(p.presets());
        for (List<Preset> more : List.of(shelves.current(), ShippedPresets.PRESETS))
            for (Preset s : more) if (out.stream().noneMatch(o -> o.name().equalsIgnoreCase(s.name()))) out.add(s);
        return out;
    }

    /**
     * The project with a preset pinned: it keeps a copy of this version, so that its pictures can be made again whatever becomes of
     * shelves.
     */
    public static Project pinned(Project p, Preset used) {
        boolean there = p.presets().stream().anyMatch(x -> x.equals(used));
        if (there) return p;
        List<Preset> out = new ArrayList<>(p.presets());
        out.removeIf(x -> x.name().equalsIgnoreCase(used.name()));
        out.add(used);
        return p.withPresets(List.copyOf(out));
    }

    /** The project as pictures of a preset show it. */
    public static Project seen(Project p, Preset s) {
        return Boolean.TRUE.equals(s.clay()) && !p.inClay() ? p.withClay(true) : p;
    }

    /** The first preset of a purpose that suits a view. */
    public static Preset suiting(Project p, View v, boolean isFinal) {
        return suiting(p, isFinal, lamplit(p, v) ? DUSK : v.setting()).or(() -> suiting(p, isFinal, v.setting()))
                .orElseGet(() -> all(p).stream().filter(x -> x.isFinal() == isFinal).findFirst().orElseThrow());
    }

    private static Optional<Preset> suiting(Project p, boolean isFinal, String setting) {
        return all(p).stream().filter(x -> x.isFinal() == isFinal && x.setting().equals(setting)).findFirst();
    }

    /** Whether a view shows from outside what lamps light once the sun is down. */
    private static boolean lamplit(Project p, View v) {
        try {
            return v.setting().equals("exterior") && "sun and sky".equals(v.around().kind())
                    && p.lamps().stream().anyMatch(l -> !v.off().contains(l.groupName()))
                    && SunPosition.of(p.place(), v.around()).height() < 0;
        } catch (FormatException e) {
            return false; // said where the view is read
        }
    }

    /**
     * The preset of a name, whatever its case, as NAME@VERSION or without a version; "test" and "final" mean the one that suits the view.
     *
     * @throws IllegalArgumentException naming those there are
     */
    public static Preset named(Project p, View v, String name, Shelves shelves) throws IOException {
        if (name.equalsIgnoreCase("test") || name.equalsIgnoreCase("final")) return suiting(p, v, name.equalsIgnoreCase("final"));
        Matcher m = VERSIONED.matcher(name);
        if (m.matches()) return version(p, m.group(1), Integer.parseInt(m.group(2)), shelves);
        List<Preset> all = all(p, shelves);
        return all.stream().filter(x -> x.name().equalsIgnoreCase(name)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no preset '" + name + "'; there are: test, final, "
                + String.join(", ", all.stream().map(Preset::name).toList())));
    }

    private static Preset version(Project p, String name, int version, Shelves shelves) throws IOException {
        for (List<Preset> here : List.of(p.presets(), ShippedPresets.PRESETS))
            for (Preset x : here) if (x.name().equalsIgnoreCase(name) && x.version() == version) return x;
        Shelves.Found f = shelves.find(name);
        SharedPreset s = f == null ? null : f.entry().version(version);
        if (s == null) throw new IllegalArgumentException("there is no preset '" + name + "' of version " + version + (f == null ? ""
                : "; the shelf '" + f.shelf().name() + "' has " + String.join(", ", f.entry().versions().stream()
                        .map(e -> "" + e.preset().version()).toList())));
        return s.preset();
    }

    /** Picture size that a preset gives a view, pixels: width, height. */
    public static int[] size(Preset p, View v) {
        if (p.width() <= 0) return v.size().clone();
        return new int[] {p.width(), Math.max(1, Math.round((float) p.width() * v.size()[1] / v.size()[0]))};
    }
}
