package bake.desktop.work;

import bake.core.math.Vec3;
import bake.core.opening.Drawing;
import bake.desktop.text.Lamps;
import bake.formats.project.LampSpec;
import bake.studio.live.Spots;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** What is done with lamps on the picture and in the list. Holds no control. */
public final class LampHand {
    /** How far before a surface a new lamp stands, metres. */
    private static final double OFF = 0.06;

    private final Workbench bench;
    private final Lighting lighting;
    private final ExecutorService background;
    private final StringProperty chosen = new SimpleStringProperty();
    private String kind = "sphere", iesFile;

    LampHand(Workbench bench, Lighting lighting, ExecutorService background) {
        this.bench = bench;
        this.lighting = lighting;
        this.background = background;
    }

    void begin() {
        chosen.set(null);
    }

    /** Name of the lamp that is worked on, or null. */
    public StringProperty chosenProperty() {
        return chosen;
    }

    /** The next click on the picture puts a lamp of a kind there. */
    public void place(String lampKind) {
        kind = lampKind;
        lighting.toolProperty().set(Lighting.Tool.LAMP);
    }

    /** Takes a photometric file into the project; the next click on the picture puts a lamp with it there. */
    public void placeFile(java.nio.file.Path file) {
        java.nio.file.Path folder = bench.folder();
        if (folder == null) return;
        background.execute(() -> {
            try {
                bake.formats.light.IesFile.read(file);
                String inside = bench.skyFiles().bring(folder, file, "lamps");
                bench.later(() -> {
                    if (!folder.equals(bench.folder())) return;
                    iesFile = inside;
                    place("ies");
                });
            } catch (java.io.IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    private Vec3 before(Spots.Place p) {
        return p.at().plus(p.normal().times(OFF));
    }

    /** Puts a lamp of the kind that is to be placed before a surface. */
    void add(Spots.Place p) {
        Set<String> names = bench.project().lamps().stream().map(LampSpec::name).collect(Collectors.toSet());
        String word = Lamps.title(kind);
        int n = 1;
        while (names.contains(word + " " + n)) n++;
        String name = word + " " + n;
        Vec3 d = kind.equals("tube") ? across(p.normal()) : p.normal();
        LampSpec l = Lamps.standard(LampSpec.of(name, "Placed lamps", kind, array(before(p)), array(d))
                .with("file", kind.equals("ies") ? iesFile : null));
        bench.edit(null, q -> {
            List<LampSpec> all = new ArrayList<>(q.lamps());
            all.add(l);
            return q.withLamps(all);
        });
        chosen.set(name);
    }

    private static Vec3 across(Vec3 n) {
        return (Math.abs(n.z()) > 0.9 ? new Vec3(1, 0, 0) : Vec3.UP.cross(n)).normalized();
    }

    /** Moves a lamp before a surface. */
    void move(String name, Spots.Place p) {
        if (find(name) != null) change(name, "lamp moved", z -> z.with("position", array(before(p))));
    }

    /**
     * Drags a lamp to a place of the picture: along the surface that is seen there, or with {@code level} at the height that it has.
     * One drag is one edit.
     */
    public void drag(String name, double x, double y, boolean level) {
        Spots s = lighting.spots();
        LampSpec l = find(name);
        if (s == null || l == null) return;
        if (level) {
            Vec3[] look = s.look(x, y);
            Vec3 to = Drawing.meet(new Vec3(l.position()[0], l.position()[1], l.position()[2]), Vec3.UP, look[0], look[1]);
            if (to != null) change(name, "lamp moved", z -> z.with("position", array(to)));
            return;
        }
        Spots.Place p = s.place(x, y);
        if (p != null) move(name, p);
    }

    static double[] array(Vec3 v) {
        return new double[] {round(v.x()), round(v.y()), round(v.z())};
    }

    private static double round(double d) {
        return Math.rint(d * 1e4) / 1e4;
    }

    /** The lamp of a name, or null. */
    public LampSpec find(String name) {
        return bench.project() == null ? null : bench.project().lamps().stream().filter(l -> l.name().equals(name)).findFirst()
                .orElse(null);
    }

    /** Changes a lamp; one that shares its settings changes with those it shares them with. */
    public void change(String name, String key, UnaryOperator<LampSpec> how) {
        bench.edit(key == null ? null : key + " " + name,
                p -> p.withLamps(p.lamps().stream().map(l -> l.name().equals(name) ? how.apply(l) : l).toList()));
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
            LampSpec c = LampSpec.of(copy, l.group(), null, at, l.direction())
                    .with("like", l.like() != null ? l.like() : l.name(), "turn", l.turn());
            all.add(all.indexOf(l) + 1, c);
            return p.withLamps(all);
        });
        chosen.set(copy);
    }

    /** Gives a lamp settings of its own. */
    public void single(String name) {
        change(name, null, l -> l.alone(bench.project().lamps()));
    }

    public void delete(String name) {
        bench.edit(null, p -> {
            // Those that shared its settings keep them.
            List<LampSpec> all = p.lamps().stream().filter(l -> !l.name().equals(name))
                    .map(l -> name.equals(l.like()) ? l.alone(p.lamps()) : l).toList();
            return p.withLamps(all);
        });
        chosen.set(null);
    }
}
