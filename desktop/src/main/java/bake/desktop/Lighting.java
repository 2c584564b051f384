package bake.desktop;

import bake.core.math.Vec3;
import bake.core.opening.OpeningFinder;
import bake.core.scene.Portal;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.LiveRender;
import bake.studio.Spots;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** What the Light station can do besides setting values: lamps and portals on the picture, the light meter, soloed groups. Holds no control. */
public final class Lighting {
    /** What a click on the picture does. */
    public enum Tool { LOOK, LAMP, MOVE, PORTAL }

    /** How far before a surface a new lamp stands, metres. */
    private static final double OFF = 0.06;

    private final Workbench bench;
    private final ExecutorService background;
    private final ObjectProperty<Tool> tool = new SimpleObjectProperty<>(Tool.LOOK);
    private final StringProperty lamp = new SimpleStringProperty(), portal = new SimpleStringProperty();
    private final ObjectProperty<Set<String>> solo = new SimpleObjectProperty<>(Set.of());
    private final ObjectProperty<Spots.Reading> reading = new SimpleObjectProperty<>();
    private final ObjectProperty<Map<String, OpeningFinder.Fault>> faults = new SimpleObjectProperty<>(Map.of());
    private final BooleanProperty finding = new SimpleBooleanProperty(), lux = new SimpleBooleanProperty();
    private List<Portal> found;
    private Object foundIn;
    private volatile boolean stop;
    private boolean metering;
    private double[] meterAt;
    private String kind = "sphere", iesFile;

    Lighting(Workbench bench, ExecutorService background) {
        this.bench = bench;
        this.background = background;
        lux.addListener((o, a, b) -> bench.show());
    }

    /** Forgets what belonged to the project that was open before. */
    void begin() {
        stop = true;
        solo.set(Set.of());
        tool.set(Tool.LOOK);
        lamp.set(null);
        portal.set(null);
        faults.set(Map.of());
        found = null;
    }

    public ObjectProperty<Tool> toolProperty() {
        return tool;
    }

    /** Name of the lamp that is worked on, or null. */
    public StringProperty lampProperty() {
        return lamp;
    }

    /** Name of the portal that is worked on, or null. */
    public StringProperty portalProperty() {
        return portal;
    }

    public ObjectProperty<Set<String>> soloProperty() {
        return solo;
    }

    /** What the light meter reads under the pointer; null for nothing. */
    public ObjectProperty<Spots.Reading> readingProperty() {
        return reading;
    }

    public BooleanProperty findingProperty() {
        return finding;
    }

    /** Whether the easel shows illuminance in false colours. */
    public BooleanProperty luxProperty() {
        return lux;
    }

    /** What is wrong with portals, by their names. */
    public ObjectProperty<Map<String, OpeningFinder.Fault>> faultsProperty() {
        return faults;
    }

    /** Hears one group more, or one less; none soloed means all are heard. */
    public void solo(String group, boolean on) {
        Set<String> s = new HashSet<>(solo.get());
        if (on) s.add(group);
        else s.remove(group);
        solo.set(s);
        if (bench.live() != null) bench.live().solo(s);
    }

    /** Writes what a group's fader says into the scene, and puts the fader back to zero. */
    public void takeOver(String group) {
        View v = bench.view();
        double stops = v == null ? 0 : v.faders().getOrDefault(group, 0.0);
        if (stops == 0) return;
        boolean lamps = bench.project().lamps().stream().anyMatch(l -> l.groupName().equals(group));
        boolean sun = group.equals("Sun"), sky = group.equals("Sky") || group.equals("Surroundings");
        if (!lamps && !sun && !sky) {
            bench.messageProperty().set(new Workbench.Message(group + " comes with the model; set it on its material, or keep the fader.", true));
            return;
        }
        double k = Math.pow(2, stops);
        String view = v.name();
        bench.edit(null, p -> {
            Project out = lamps ? p.withLamps(p.lamps().stream().map(l -> l.groupName().equals(group) && l.like() == null ? brighter(l, k) : l).toList()) : p;
            return out.withViews(out.views().stream().map(x -> {
                // Every view's own level of these lamps stays what it was.
                if (!x.name().equals(view)) return lamps ? x.withFader(group, x.faders().getOrDefault(group, 0.0) - stops) : x;
                View.Around a = x.around();
                View y = x.withFader(group, 0);
                return sun ? y.withAround(a.withStops(a.or(a.sunStops(), 0) + stops, a.or(a.skyStops(), 0))) : sky ? y.withAround(a.withStops(a.or(a.sunStops(), 0), a.or(a.skyStops(), 0) + stops)) : y;
            }).toList());
        });
        bench.say("Taken over: " + group + " is now " + Math.round(100 * k) + " % of what it was, its fader back at 0.");
    }

    private static LampSpec brighter(LampSpec l, double k) {
        return l.with("lumens", l.lumens() == null ? null : l.lumens() * k, "candela", l.candela() == null ? null : l.candela() * k, "luminance", l.luminance() == null ? null : l.luminance() * k, "lux", l.lux() == null ? null : l.lux() * k,
                "multiplier", l.file() == null || l.lumens() != null ? l.multiplier() : Double.valueOf((l.multiplier() == null ? 1 : l.multiplier()) * k));
    }

    /** The next click on the picture puts a lamp of a kind there. */
    public void place(String lampKind) {
        kind = lampKind;
        tool.set(Tool.LAMP);
    }

    /** Takes a photometric file into the project; the next click on the picture puts a lamp with it there. */
    public void placeFile(java.nio.file.Path file) {
        background.execute(() -> {
            try {
                bake.formats.light.IesFile.read(file);
                String inside = bench.bring(file, "lamps");
                bench.later(() -> {
                    iesFile = inside;
                    place("ies");
                });
            } catch (java.io.IOException e) {
                bench.fail(e);
            }
        });
    }

    private Spots spots() {
        LiveRender.Frame f = bench.frameProperty().get();
        return f == null ? null : f.spots();
    }

    /** Takes a click on the picture, 0 to 1 from the left and the top. */
    public void click(double x, double y) {
        Spots s = spots();
        if (s == null || tool.get() == Tool.LOOK) return;
        Spots.Place p = s.place(x, y);
        switch (tool.get()) {
            case LAMP -> {
                if (p != null) add(p);
            }
            case MOVE -> {
                LampSpec l = find(lamp.get());
                if (l != null && p != null) change(l.name(), "lamp moved", z -> z.with("position", array(before(p))));
            }
            default -> {
                portalAt(s, p, x, y);
                return;
            }
        }
        if (p == null) bench.messageProperty().set(new Workbench.Message("There is only sky; click a surface.", true));
        else tool.set(Tool.LOOK);
    }

    private Vec3 before(Spots.Place p) {
        return p.at().plus(p.normal().times(OFF));
    }

    private void add(Spots.Place p) {
        Set<String> names = bench.project().lamps().stream().map(LampSpec::name).collect(Collectors.toSet());
        String word = Lamps.title(kind);
        int n = 1;
        while (names.contains(word + " " + n)) n++;
        String name = word + " " + n;
        Vec3 d = kind.equals("tube") ? across(p.normal()) : p.normal();
        LampSpec l = Lamps.standard(LampSpec.of(name, "Placed lamps", kind, array(before(p)), array(d)).with("file", kind.equals("ies") ? iesFile : null));
        bench.edit(null, q -> {
            List<LampSpec> all = new ArrayList<>(q.lamps());
            all.add(l);
            return q.withLamps(all);
        });
        lamp.set(name);
    }

    private static Vec3 across(Vec3 n) {
        return (Math.abs(n.z()) > 0.9 ? new Vec3(1, 0, 0) : Vec3.UP.cross(n)).normalized();
    }

    static double[] array(Vec3 v) {
        return new double[] {round(v.x()), round(v.y()), round(v.z())};
    }

    private static double round(double d) {
        return Math.rint(d * 1e4) / 1e4;
    }

    /** The lamp of a name, or null. */
    public LampSpec find(String name) {
        return bench.project() == null ? null : bench.project().lamps().stream().filter(l -> l.name().equals(name)).findFirst().orElse(null);
    }

    /** Changes a lamp; one that shares its settings changes with those it shares them with. */
    public void change(String name, String key, UnaryOperator<LampSpec> how) {
        bench.edit(key == null ? null : key + " " + name, p -> p.withLamps(p.lamps().stream().map(l -> l.name().equals(name) ? how.apply(l) : l).toList()));
    }

    /** A copy beside a lamp that shares its settings. */
    public void copy(String name) {
        LampSpec l = find(name);
        if (l == null) return;
        Set<String> names = bench.project().lamps().stream().map(LampSpec::name).collect(Collectors.toSet());
        int n = 2;
        while (names.contains(l.name() + ", copy " + n)) n++;
        String copy = l.name() + ", copy " + n;
        double[] at = {l.position()[0] + 0.3, l.position()[1], l.position()[2]};
        bench.edit(null, p -> {
            List<LampSpec> all = new ArrayList<>(p.lamps());
            LampSpec c = LampSpec.of(copy, l.group(), null, at, l.direction()).with("like", l.like() != null ? l.like() : l.name(), "turn", l.turn());
            all.add(all.indexOf(l) + 1, c);
            return p.withLamps(all);
        });
        lamp.set(copy);
    }

    /** Gives a lamp settings of its own. */
    public void single(String name) {
        change(name, null, l -> l.alone(bench.project().lamps()));
    }

    public void deleteLamp(String name) {
        bench.edit(null, p -> {
            // Those that shared its settings keep them.
            List<LampSpec> all = p.lamps().stream().filter(l -> !l.name().equals(name)).map(l -> name.equals(l.like()) ? l.alone(p.lamps()) : l).toList();
            return p.withLamps(all);
        });
        lamp.set(null);
    }

    // ---- portals

    private static Portal portal(Project.PortalSpec p) {
        return new Portal(p.name(), java.util.Arrays.stream(p.corners()).map(c -> new Vec3(c[0], c[1], c[2])).toList());
    }

    /** The project's portals. */
    public List<Portal> portals() {
        return bench.project() == null ? List.of() : bench.project().portals().stream().map(Lighting::portal).toList();
    }

    private List<Vec3> cameras() {
        return bench.project().views().stream().map(v -> v.camera().camera().position()).toList();
    }

    /** Finds all openings of the rooms that have a view, and puts portals on those that have none. */
    public void findOpenings() {
        Spots s = spots();
        if (s == null || finding.get()) return;
        finding.set(true);
        stop = false;
        List<Vec3> inside = cameras();
        background.execute(() -> {
            try {
                List<Portal> all = s.openings(inside, () -> stop);
                bench.later(() -> {
                    finding.set(false);
                    if (all != null) take(all);
                });
            } catch (RuntimeException | OutOfMemoryError e) {
                bench.later(() -> finding.set(false));
                bench.fail(e);
            }
        });
    }

    public void stopFinding() {
        stop = true;
    }

    private void take(List<Portal> all) {
        List<Portal> have = portals();
        List<Portal> fresh = all.stream().filter(p -> have.stream().noneMatch(h -> h.middle().minus(p.middle()).length() < 0.6 * Math.sqrt(Math.min(h.size(), p.size())))).toList();
        if (all.isEmpty()) bench.messageProperty().set(new Workbench.Message("No opening was found: no view's camera stands in a room. Put a camera inside, or draw portals on the glass.", true));
        else if (fresh.isEmpty()) bench.say("All " + all.size() + " openings have a portal already.");
        else {
            addPortals(fresh);
            bench.say(fresh.size() + (fresh.size() == 1 ? " opening has" : " openings have") + " a portal now. Undo takes them back.");
        }
    }

    private void addPortals(List<Portal> fresh) {
        bench.edit(null, p -> {
            List<Project.PortalSpec> out = new ArrayList<>(p.portals());
            for (Portal f : fresh) {
                int n = 1;
                String word = f.name().replaceAll(" \\d+$", "");
                while (named(out, word + " " + n)) n++;
                out.add(new Project.PortalSpec(word + " " + n, f.corners().stream().map(Lighting::array).toArray(double[][]::new), null, Map.of()));
            }
            return p.withPortals(out);
        });
        check();
    }

    private static boolean named(List<Project.PortalSpec> all, String name) {
        return all.stream().anyMatch(x -> x.name().equals(name));
    }

    /** Puts a portal on the opening that was clicked: one that the analysis knows, or else the glass there. */
    private void portalAt(Spots s, Spots.Place p, double x, double y) {
        tool.set(Tool.LOOK);
        Vec3[] look = s.look(x, y);
        List<Vec3> inside = cameras();
        Object in = bench.project().models();
        List<Portal> known = foundIn == in ? found : null;
        finding.set(true);
        stop = false;
        background.execute(() -> {
            try {
                List<Portal> all = known != null ? known : s.openings(inside, () -> stop);
                Portal hit = all == null ? null : OpeningFinder.along(all, look[0], look[1]);
                if (hit == null && all != null) hit = s.glass(look[0], look[1]);
                Portal put = hit;
                bench.later(() -> {
                    finding.set(false);
                    found = all;
                    foundIn = in;
                    if (put != null) addPortals(List.of(put));
                    else if (all != null) bench.messageProperty().set(new Workbench.Message("There is no opening and no glass; click a window, a roof light or a hole in a wall.", true));
                });
            } catch (RuntimeException | OutOfMemoryError e) {
                bench.later(() -> finding.set(false));
                bench.fail(e);
            }
        });
    }

    public void changePortal(String name, UnaryOperator<Project.PortalSpec> how) {
        bench.edit(null, p -> p.withPortals(p.portals().stream().map(x -> x.name().equals(name) ? how.apply(x) : x).filter(java.util.Objects::nonNull).toList()));
        check();
    }

    public void flip(String name) {
        changePortal(name, p -> {
            double[][] c = p.corners().clone();
            for (int i = 0, j = c.length - 1; i < j; i++, j--) {
                double[] t = c[i];
                c[i] = c[j];
                c[j] = t;
            }
            return new Project.PortalSpec(p.name(), c, p.on(), p.other());
        });
    }

    /** Looks at all portals for what is wrong with them. */
    public void check() {
        Spots s = spots();
        if (s == null || bench.project() == null) return;
        List<Portal> all = portals();
        background.execute(() -> {
            Map<String, OpeningFinder.Fault> out = new java.util.TreeMap<>();
            for (Portal p : all) {
                OpeningFinder.Fault f = s.check(p);
                if (f != OpeningFinder.Fault.NONE) out.put(p.name(), f);
            }
            bench.later(() -> faults.set(out));
        });
    }

    // ---- light meter

    /** Reads the picture under the pointer; the last place asked for wins. */
    public void meter(double x, double y) {
        meterAt = new double[] {x, y};
        Spots s = spots();
        if (s == null || metering) return;
        metering = true;
        double[] at = meterAt;
        background.execute(() -> {
            Spots.Reading r = s.read(at[0], at[1]);
            bench.later(() -> {
                metering = false;
                if (meterAt == null) return;
                reading.set(r);
                if (meterAt != at) meter(meterAt[0], meterAt[1]);
            });
        });
    }

    public void noMeter() {
        meterAt = null;
        reading.set(null);
    }
}
