package bake.desktop;

import bake.core.math.Vec3;
import bake.core.opening.OpeningFinder;
import bake.core.scene.Portal;
import bake.formats.project.Project;
import bake.studio.Spots;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** What is done with openings: finding them, putting portals on them, looking for what is wrong with those. Holds no control. */
public final class PortalHand {
    private final Workbench bench;
    private final Lighting lighting;
    private final ExecutorService background;
    private final StringProperty chosen = new SimpleStringProperty();
    private final ObjectProperty<Map<String, OpeningFinder.Fault>> faults = new SimpleObjectProperty<>(Map.of());
    private final BooleanProperty finding = new SimpleBooleanProperty();
    private List<Portal> found;
    private Object foundIn;
    private volatile boolean stop;

    PortalHand(Workbench bench, Lighting lighting, ExecutorService background) {
        this.bench = bench;
        this.lighting = lighting;
        this.background = background;
    }

    void begin() {
        stop = true;
        chosen.set(null);
        faults.set(Map.of());
        found = null;
    }

    /** Name of the portal that is worked on, or null. */
    public StringProperty chosenProperty() {
        return chosen;
    }

    public BooleanProperty findingProperty() {
        return finding;
    }

    /** What is wrong with portals, by their names. */
    public ObjectProperty<Map<String, OpeningFinder.Fault>> faultsProperty() {
        return faults;
    }

    private static Portal portal(Project.PortalSpec p) {
        return new Portal(p.name(), java.util.Arrays.stream(p.corners()).map(c -> new Vec3(c[0], c[1], c[2])).toList());
    }

    /** The project's portals. */
    public List<Portal> all() {
        return bench.project() == null ? List.of() : bench.project().portals().stream().map(PortalHand::portal).toList();
    }

    private List<Vec3> cameras() {
        return bench.project().views().stream().map(v -> v.camera().camera().position()).toList();
    }

    /** Finds all openings of the rooms that have a view, and puts portals on those that have none. */
    public void find() {
        Spots s = lighting.spots();
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

    public void stop() {
        stop = true;
    }

    private void take(List<Portal> all) {
        List<Portal> have = all();
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
                out.add(new Project.PortalSpec(word + " " + n, f.corners().stream().map(LampHand::array).toArray(double[][]::new), null, Map.of()));
            }
            return p.withPortals(out);
        });
        check();
    }

    private static boolean named(List<Project.PortalSpec> all, String name) {
        return all.stream().anyMatch(x -> x.name().equals(name));
    }

    /** Puts a portal on the opening that was clicked: one that the analysis knows, or else the glass there. */
    void at(Spots s, double x, double y) {
        lighting.toolProperty().set(Lighting.Tool.LOOK);
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

    public void change(String name, UnaryOperator<Project.PortalSpec> how) {
        bench.edit(null, p -> p.withPortals(p.portals().stream().map(x -> x.name().equals(name) ? how.apply(x) : x).filter(java.util.Objects::nonNull).toList()));
        check();
    }

    public void flip(String name) {
        change(name, p -> {
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
        Spots s = lighting.spots();
        if (s == null || bench.project() == null) return;
        List<Portal> all = all();
        background.execute(() -> {
            Map<String, OpeningFinder.Fault> out = new java.util.TreeMap<>();
            for (Portal p : all) {
                OpeningFinder.Fault f = s.check(p);
                if (f != OpeningFinder.Fault.NONE) out.put(p.name(), f);
            }
            bench.later(() -> faults.set(out));
        });
    }
}
