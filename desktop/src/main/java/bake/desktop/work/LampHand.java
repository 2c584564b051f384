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
import javafx.beans.property.StringProperty;

/** What is done with lamps on the picture and in the list. Holds no control. */
public final class LampHand {
    /** How far before a surface a new lamp stands, metres. */
    private static final double OFF = 0.06;

    private final Workbench bench;
    private final Lighting lighting;
    private final ExecutorService background;
    private final LampChoice choice = new LampChoice();
    private final StringProperty chosen = choice.firstProperty();
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

    /** All lamps that are worked on. */
    public LampChoice choice() {
        return choice;
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
                .withFile(kind.equals("ies") ? iesFile : null));
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
        LampSpec l = find(name);
        if (l != null) moveTo(name, before(p));
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
            if (to != null) moveTo(name, to);
            return;
        }
        Spots.Place p = s.place(x, y);
        if (p != null) move(name, p);
    }

    /** Moves a lamp to a place, and those that are chosen with it by as much. */
    private void moveTo(String name, Vec3 to) {
        LampSpec l = find(name);
        by(name, to.minus(position(l)));
    }

    private void by(String name, Vec3 way) {
        Set<String> all = with(name);
        bench.edit("lamp moved " + all, p -> p.withLamps(p.lamps().stream()
                .map(z -> all.contains(z.name()) ? z.withPosition(array(position(z).plus(way))) : z).toList()));
    }

    /** Moves the chosen lamps by so much, metres. */
    public void nudge(Vec3 way) {
        if (chosen.get() != null) by(chosen.get(), way);
    }

    /** Aims a lamp, and those that are chosen with it, at what is seen at a place of the picture. */
    public void aim(String name, double x, double y) {
        Spots s = lighting.spots();
        Spots.Place p = s == null || find(name) == null ? null : s.place(x, y);
        if (p == null) return;
        Set<String> all = with(name);
        bench.edit("lamp aimed " + all, q -> q.withLamps(q.lamps().stream().map(z -> {
            Vec3 d = p.at().minus(position(z));
            return all.contains(z.name()) && d.length() > 1e-3 ? z.withDirection(array(d.normalized())) : z;
        }).toList()));
    }

    private static Vec3 position(LampSpec l) {
        return new Vec3(l.position()[0], l.position()[1], l.position()[2]);
    }

    /** A lamp with those that are chosen together with it. */
    private Set<String> with(String name) {
        return choice.allProperty().get().contains(name) ? choice.allProperty().get() : Set.of(name);
    }

    /**
     * Gives a lamp another name; those that share its settings follow.
     *
     * @throws IllegalArgumentException when another lamp has it
     */
    public void rename(String name, String wanted) {
        if (wanted.isEmpty()) throw new IllegalArgumentException("A lamp has a name.");
        if (wanted.equals(name)) return;
        if (find(wanted) != null) throw new IllegalArgumentException("There is a lamp called '" + wanted + "' already; choose another name.");
        bench.edit(null, p -> p.withLamps(p.lamps().stream().map(l -> l.name().equals(name) ? l.withName(wanted)
                : name.equals(l.like()) ? l.withLike(wanted) : l).toList()));
        chosen.set(wanted);
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

    /** Changes one lamp. */
    public void change(String name, String key, UnaryOperator<LampSpec> how) {
        change(Set.of(name), key, how);
    }

    private void change(Set<String> names, String key, UnaryOperator<LampSpec> how) {
        bench.edit(key == null ? null : key + " " + names,
                p -> p.withLamps(p.lamps().stream().map(l -> names.contains(l.name()) ? how.apply(l) : l).toList()));
    }

    /** Changes the settings of all chosen lamps; one that shares its settings changes with those it shares them with. */
    public void changeChosen(String key, UnaryOperator<LampSpec> how) {
        Set<String> owners = choice.allProperty().get().stream().map(this::find).filter(java.util.Objects::nonNull)
                .map(l -> l.like() != null && find(l.like()) != null ? l.like() : l.name()).collect(Collectors.toSet());
        change(owners, key, how);
    }

    /** Changes what each of the chosen lamps has for itself, such as its group. */
    public void changeEach(String key, UnaryOperator<LampSpec> how) {
        change(choice.allProperty().get(), key, how);
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
                    .withLike(l.like() != null ? l.like() : l.name()).withTurn(l.turn());
            all.add(all.indexOf(l) + 1, c);
            return p.withLamps(all);
        });
        chosen.set(copy);
    }

    /** Gives a lamp settings of its own. */
    public void single(String name) {
        change(name, null, l -> l.alone(bench.project().lamps()));
    }

    /** Deletes a lamp with those that are chosen together with it. */
    public void delete(String name) {
        Set<String> gone = with(name);
        bench.edit(null, p -> {
            // Those that shared their settings keep them.
            List<LampSpec> all = p.lamps().stream().filter(l -> !gone.contains(l.name()))
                    .map(l -> l.like() != null && gone.contains(l.like()) ? l.alone(p.lamps()) : l).toList();
            return p.withLamps(all);
        });
        chosen.set(null);
    }
}
