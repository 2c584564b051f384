package bake.desktop.work;

import bake.core.math.Vec3;
import bake.core.opening.OpeningFinder;
import bake.core.scene.Portal;
import bake.formats.project.Project;
import bake.studio.live.Spots;
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
    private final ObjectProperty<List<Portal>> bare = new SimpleObjectProperty<>(List.of());
    /** Openings that the analysis knows, and those of them that have no glass. */
    private List<Portal> found, open = List.of();
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
        open = List.of();
        bare.set(List.of());
    }

    /** Name of the portal that is worked on, or null. */
    public StringProperty chosenProperty() {
        return chosen;
    }

    public BooleanProperty findingProperty() {
        return finding;
    }

    /** Openings without glass that have no portal, as far as openings are known. */
    public ObjectProperty<List<Portal>> bareProperty() {
        return bare;
    }

    /** Openings that the analysis knows of the model as it is. */
    public List<Portal> known() {
        return found == null || bench.project() == null || foundIn != bench.project().models() ? List.of() : found;
    }

    /** Puts portals on the openings that need one. */
    public void cover() {
        addPortals(bare.get());
    }

    /** Adds a portal that was drawn. */
    public void add(Portal p) {
        addPortals(List.of(p));
        chosen.set(bench.project().portals().getLast().name());
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
        analyse(s, false, this::take);
    }

    /** Learns where openings are without putting anything on them, unless it is known already. */
    public void learn() {
        Spots s = lighting.spots();
        if (s == null || finding.get() || bench.project() == null || foundIn == bench.project().models()) return;
        found = null;
        foundIn = bench.project().models();
        finding.set(true);
        stop = false;
        analyse(s, true, all -> {});
    }

    private void analyse(Spots s, boolean quietly, java.util.function.Consumer<List<Portal>> then) {
        List<Vec3> inside = cameras();
        Object in = bench.project().models();
        List<Portal> before = known();
        background.execute(() -> {
            try {
                List<Portal> all = before.isEmpty() ? s.openings(inside, quietly, () -> stop) : before;
                List<Portal> unglazed = all == null ? null : all.stream().filter(p -> !s.glazed(p)).toList();
                bench.later(() -> {
                    finding.set(false);
                    if (all == null) return;
                    found = all;
                    foundIn = in;
                    open = unglazed;
                    then.accept(all);
                    uncovered();
                });
            } catch (RuntimeException | OutOfMemoryError e) {
                bench.later(() -> finding.set(false));
                bench.notices().fail(e);
            }
        });
    }

    private void uncovered() {
        bare.set(known().isEmpty() ? List.of() : missing(open));
    }

    private List<Portal> missing(List<Portal> openings) {
        List<Portal> have = all();
        return openings.stream().filter(p -> have.stream().noneMatch(h ->
                h.middle().minus(p.middle()).length() < 0.6 * Math.sqrt(Math.min(h.size(), p.size())))).toList();
    }

    public void stop() {
        stop = true;
    }

    private void take(List<Portal> all) {
        List<Portal> fresh = missing(all);
        if (all.isEmpty()) bench.notices().lastProperty()
                .set(new Notices.Message("No opening was found: no view's camera stands in a room. Put a camera inside, or draw portals on the glass.", true));
        else if (fresh.isEmpty()) bench.notices().say("All " + all.size() + " openings have a portal already.");
        else {
            addPortals(fresh);
            bench.notices().say(fresh.size() + (fresh.size() == 1 ? " opening has" : " openings have") + " a portal now. Undo takes them back.");
        }
    }

    private void addPortals(List<Portal> fresh) {
        bench.edit(null, p -> {
            List<Project.PortalSpec> out = new ArrayList<>(p.portals());
            for (Portal f : fresh) {
                int n = 1;
                String word = f.name().replaceAll(" \\d+$", "");
                while (named(out, word + " " + n)) n++;
                out.add(new Project.PortalSpec(word + " " + n, f.corners().stream().map(LampHand::array).toArray(double[][]::new), null,
                        Map.of()));
            }
            return p.withPortals(out);
        });
    }

    private static boolean named(List<Project.PortalSpec> all, String name) {
        return all.stream().anyMatch(x -> x.name().equals(name));
    }

    /** Puts a portal on the opening that was clicked: one that the analysis knows, or else the glass there. */
    void at(Spots s, double x, double y) {
        lighting.toolProperty().set(Lighting.Tool.LOOK);
        Vec3[] look = s.look(x, y);
        finding.set(true);
        stop = false;
        analyse(s, false, all -> {
            Portal hit = OpeningFinder.along(all, look[0], look[1]);
            if (hit != null) addPortals(List.of(hit));
            else bench.inBackground(() -> {
                Portal glass = s.glass(look[0], look[1]);
                bench.later(() -> {
                    if (glass != null) addPortals(List.of(glass));
                    else bench.notices().lastProperty().set(new Notices.Message("There is no opening and no glass; click a window, a roof light or a hole in a wall.", true));
                });
            });
        });
    }

    public void change(String name, UnaryOperator<Project.PortalSpec> how) {
        bench.edit(null, p -> p.withPortals(p.portals().stream().map(x -> x.name().equals(name) ? how.apply(x) : x)
                .filter(java.util.Objects::nonNull).toList()));
    }

    /** Moves the chosen portal by so much, metres. */
    public void nudge(Vec3 by) {
        String name = chosen.get();
        bench.edit("portal moved " + name, p -> p.withPortals(p.portals().stream().map(x -> x.name().equals(name) ? new Project.PortalSpec(name,
                java.util.Arrays.stream(x.corners()).map(c -> LampHand.array(new Vec3(c[0], c[1], c[2]).plus(by))).toArray(double[][]::new),
                x.on(), x.other()) : x).toList()));
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
        uncovered();
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
