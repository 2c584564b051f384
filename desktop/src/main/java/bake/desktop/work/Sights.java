package bake.desktop.work;

import bake.formats.project.Project;
import bake.formats.project.View.Around;
import bake.formats.project.View;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;

/** What the camera and its mirrors see of the surroundings, panoramas that stand on the ground, and shadow catchers. Holds no control. */
public final class Sights {
    /** Where other surroundings may be seen than those that give the light. */
    public enum Part {
        BACKDROP("backdrop"), MIRRORED("mirrored");

        public final String key;

        Part(String key) {
            this.key = key;
        }

        public Around of(Around a) {
            return this == BACKDROP ? a.backdrop() : a.mirrored();
        }

        Around in(Around a, Around seen) {
            return this == BACKDROP ? a.withBackdrop(seen) : a.withMirrored(seen);
        }
    }

    /** Name of the ground that is laid out, and of its material; its height below what it lies under, metres. */
    public static final String GROUND = "Shadow catcher";
    private static final double BELOW = 0.004, WIDE = 120;

    private final Workbench bench;

    Sights(Workbench bench) {
        this.bench = bench;
    }

    /** Kind of what is seen, as a project writes it; null for the light itself. */
    public String kind(Part p) {
        Around own = bench.view() == null ? null : p.of(bench.view().around());
        return own == null ? null : own.kind();
    }

    /** Chooses what is seen: a kind as a project writes it, or null for the light itself. HDRI and picture need a file first. */
    public void choose(Part p, String kind) {
        if (bench.view() == null || java.util.Objects.equals(kind, kind(p))) return;
        change(null, a -> {
            if (kind == null) return p.in(a, null);
            Around of = Around.DEFAULT.withKind(kind).withDate(null).withTime(null).withHaze(null).withSunStops(null).withSkyStops(null)
                    .withSunSize(null).withAlbedo(null);
            if (kind.equals("plain")) of = of.withLuminance(new double[] {500, 500, 500}).withSkyStops(0.0);
            // A panorama that lights the model already is a good one to begin with, at another level or turned.
            if (kind.equals("hdri") && a.file() != null) of = of.withFile(a.file());
            return p.in(a, of);
        });
    }

    /** Takes a file into the project and shows it. */
    public void use(Part p, String kind, Path file) {
        java.util.function.Consumer<String> take = name -> change(null, a -> {
            Around of = p.of(a) != null && kind.equals(p.of(a).kind()) ? p.of(a)
                    : Around.hdri(name, 0, 0).withKind(kind).withRotation(null);
            return p.in(a, of.withFile(name));
        });
        if (kind.equals("picture")) bench.skyFiles().picture(file, take);
        else bench.skyFiles().panorama(file, take);
    }

    /** Changes what is seen. */
    public void change(Part p, String key, UnaryOperator<Around> how) {
        change(key, a -> p.of(a) == null ? a : p.in(a, how.apply(p.of(a))));
    }

    public void change(String key, UnaryOperator<Around> how) {
        bench.editView(key, v -> v.withAround(how.apply(v.around())));
    }

    /** Stands the panorama that gives the light on the ground, around where the camera is, or puts it far away again. */
    public void stand(boolean onGround) {
        View v = bench.view();
        if (v == null) return;
        double[] at = v.camera().position();
        change(null, a -> a.withGround(onGround ? new View.GroundSpec(round(at[0]), round(at[1]), 0.0, null, null, null, null, Map.of())
                : null));
    }

    private static double round(double d) {
        return Math.rint(d * 100) / 100;
    }

    /** Names of the materials that catch shadows. */
    public List<String> catchers() {
        return bench.project() == null ? List.of() : bench.project().materials().stream().filter(s -> Boolean.TRUE.equals(s.catcher()))
                .map(Project.Surface::name).toList();
    }

    /** Lets everything of a material show nothing but shadow and bounce, or be itself again. */
    public void catchShadows(String material, boolean on) {
        bench.edit(null, p -> {
            List<Project.Surface> out = new ArrayList<>(p.materials());
            Project.Surface s = out.stream().filter(x -> x.name().equals(material)).findFirst().orElse(null);
            Project.Surface now = (s == null ? Project.Surface.of(material, null) : s).withCatcher(on ? true : null);
            if (s == null) out.add(now);
            else out.set(out.indexOf(s), now);
            return p.withMaterials(List.copyOf(out));
        });
    }

    /** Whether there is a ground that was laid out to catch shadows. */
    public boolean hasGround() {
        return bench.project() != null && bench.project().shapes().stream().anyMatch(s -> s.name().equals(GROUND));
    }

    /** Lays out a round ground that catches shadows, or takes it away. */
    public void ground(boolean there) {
        View v = bench.view();
        if (v == null || there == hasGround()) return;
        View.GroundSpec g = v.around().ground();
        double[] at = v.camera().position();
        bench.edit(null, p -> {
            List<Project.Shape> shapes = new ArrayList<>(p.shapes());
            List<Project.Surface> materials = new ArrayList<>(p.materials());
            shapes.removeIf(s -> s.name().equals(GROUND));
            materials.removeIf(s -> s.name().equals(GROUND));
            if (there) {
                double[] middle = g == null ? new double[] {round(at[0]), round(at[1]), -BELOW}
                        : new double[] {g.x(), g.y(), g.z() - BELOW};
                shapes.add(new Project.Shape(GROUND, "disc", middle, new double[] {g == null ? WIDE : 2 * g.radius()},
                        new double[] {0, 0, 1}, GROUND, GROUND, Map.of()));
                materials.add(Project.Surface.of(GROUND, null).withBase(new double[] {0.3, 0.3, 0.3}).withIor(1.0).withRoughness(1.0)
                        .withCatcher(true));
            }
            return p.withShapes(shapes).withMaterials(List.copyOf(materials));
        });
    }
}
