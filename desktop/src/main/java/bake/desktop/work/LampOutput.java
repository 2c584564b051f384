package bake.desktop.work;

import bake.core.scene.Lamp;
import bake.desktop.text.Texts;
import bake.formats.SafePath;
import bake.formats.light.IesFile;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.scene.LampFactory;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** How much light lamps give, and setting it to what a fader says. Holds no control. */
public final class LampOutput {
    private final Workbench bench;
    /** Read once: asked on the interface's thread at every touch of a dial. */
    private final Map<String, IesFile.Photometry> read = new HashMap<>();

    LampOutput(Workbench bench) {
        this.bench = bench;
    }

    /** A lamp as it shines, or null where its settings cannot be used. */
    public Lamp lamp(LampSpec l) {
        try {
            return LampFactory.lamp(l.alone(bench.project().lamps()), this::photometry);
        } catch (IOException | IllegalArgumentException e) {
            return null;
        }
    }

    private IesFile.Photometry photometry(String f) throws IOException {
        String key = bench.folder() + "/" + f;
        IesFile.Photometry p = read.get(key);
        if (p == null) read.put(key, p = IesFile.read(SafePath.inside(bench.folder(), f, "project.json")));
        return p;
    }

    private List<LampSpec> group(String name) {
        return bench.project().lamps().stream().filter(l -> l.groupName().equals(name)).toList();
    }

    private double stops(String group) {
        return bench.view() == null ? 0 : bench.view().faders().getOrDefault(group, 0.0);
    }

    private static boolean sky(String group) {
        return group.equals("Sky") || group.equals("Surroundings");
    }

    /** What {@link #set} would do with a group, in words; null where its fader stands at zero or the model gives its light. */
    public String offer(String group) {
        double stops = stops(group);
        if (stops == 0 || bench.project() == null) return null;
        if (group.equals("Sun")) return String.format(java.util.Locale.ROOT, "Set the sun to this level: %+.1f stops", stops + level(true));
        if (sky(group)) return String.format(java.util.Locale.ROOT, "Set the sky to this level: %+.1f stops", stops + level(false));
        List<LampSpec> lamps = group(group);
        if (lamps.isEmpty()) return null;
        double lumens = lamps.stream().map(this::lamp).mapToDouble(l -> l == null ? 0 : l.lumens()).sum();
        return (lamps.size() == 1 ? "Set this lamp to this output: " : "Set these " + lamps.size() + " lamps to this output: ")
                + Texts.three(lumens) + " \u2192 " + Texts.three(lumens * Math.pow(2, stops)) + " lm";
    }

    private double level(boolean sun) {
        View.Around a = bench.view().around();
        return a.or(sun ? a.sunStops() : a.skyStops(), 0);
    }

    /** Writes what a group's fader says into the scene, and puts the fader back to zero. */
    public void set(String group) {
        double stops = stops(group);
        if (offer(group) == null) return;
        double k = Math.pow(2, stops);
        String view = bench.view().name();
        boolean ours = !group(group).isEmpty();
        bench.edit(null, p -> {
            Project out = ours ? p.withLamps(p.lamps().stream().map(l -> l.groupName().equals(group)
                    && l.like() == null ? brighter(l, k) : l).toList()) : p;
            return out.withViews(out.views().stream().map(x -> {
                // Every view's own level of these lamps stays what it was.
                if (!x.name().equals(view)) return ours ? x.withFader(group, x.faders().getOrDefault(group, 0.0) - stops) : x;
                View.Around a = x.around();
                View y = x.withFader(group, 0);
                return group.equals("Sun") ? y.withAround(a.withStops(a.or(a.sunStops(), 0) + stops, a.or(a.skyStops(), 0)))
                        : sky(group) ? y.withAround(a.withStops(a.or(a.sunStops(), 0), a.or(a.skyStops(), 0) + stops)) : y;
            }).toList());
        });
        bench.notices().say(group + " gives " + Math.round(100 * k) + " % of what it gave before, its fader is back at 0.");
    }

    private static LampSpec brighter(LampSpec l, double k) {
        return l.withLumens(l.lumens() == null ? null : l.lumens() * k).withCandela(l.candela() == null ? null : l.candela() * k)
                .withLuminance(l.luminance() == null ? null : l.luminance() * k).withLux(l.lux() == null ? null : l.lux() * k)
                .withMultiplier(l.file() == null || l.lumens() != null ? l.multiplier()
                : Double.valueOf((l.multiplier() == null ? 1 : l.multiplier()) * k));
    }
}
