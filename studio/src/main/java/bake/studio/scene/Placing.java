package bake.studio.scene;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.project.Project;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Where the models of a project stand: as their files say, put somewhere, or in the places of an object that they replace. */
final class Placing {
    private Placing() {}

    /** The parts of a copy of an object: instances of one name in one place. */
    private record Copy(String name, Affine toWorld) {}

    /** What a model's own coordinates become. */
    static Affine own(Project.ModelRef m) {
        Affine a = at(m);
        if (m.turn() != null) a = a.times(Affine.rotation(Vec3.UP, Math.toRadians(m.turn())));
        return m.scale() == null ? a : a.times(Affine.scale(m.scale(), m.scale(), m.scale()));
    }

    private static Affine at(Project.ModelRef m) {
        return m.at() == null ? Affine.IDENTITY : Affine.translation(m.at()[0], m.at()[1], m.at()[2]);
    }

    /**
     * Takes an object away and says where what replaces it stands: the middle of its underside where the object's was, turned as each copy
     * is turned against the first.
     *
     * @param instances what there is so far; loses all copies of the object
     * @param by the model that takes their places
     * @param findings where it is said that there is no such object
     */
    static List<Affine> inPlaceOf(Project.ModelRef m, List<Instance> instances, List<Mesh> meshes, ImportedModel by,
            List<Finding> findings) {
        List<Copy> copies = new ArrayList<>();
        Set<Copy> known = new HashSet<>();
        for (Instance i : instances) {
            Copy c = new Copy(i.name(), i.toWorld());
            if (m.replaces().equals(meshes.get(i.mesh()).name()) && known.add(c)) copies.add(c);
        }
        if (copies.isEmpty()) {
            // A newer export may have lost it; that is no reason to show nothing.
            findings.add(new Finding(Finding.Kind.NOT_READ, m.file(), "replaces '" + m.replaces()
                    + "', which is in none of the models before it; it is left out"));
            return List.of();
        }
        Copy first = copies.getFirst();
        Bounds old = new Bounds(), fresh = new Bounds();
        for (Instance i : instances) if (new Copy(i.name(), i.toWorld()).equals(first)) add(old, meshes.get(i.mesh()), i.toWorld());
        for (Instance i : by.instances()) add(fresh, by.meshes().get(i.mesh()), i.toWorld());
        Vec3 from = fresh.underside(), to = old.underside();
        Affine turned = own(m.placed(null, m.turn(), m.scale()));
        Affine inFirst = at(m).times(Affine.translation(to.x(), to.y(), to.z())).times(turned)
                .times(Affine.translation(-from.x(), -from.y(), -from.z()));
        instances.removeIf(i -> known.contains(new Copy(i.name(), i.toWorld())));
        Affine back = first.toWorld().inverse();
        return copies.stream().map(c -> c == first ? inFirst : c.toWorld().times(back).times(inFirst)).toList();
    }

    private static void add(Bounds b, Mesh m, Affine toWorld) {
        for (Vec3 c : Bounds.of(m.positions()).corners()) b.add(toWorld.point(c));
    }

    /** Moves what is to stand a little elsewhere. */
    static void nudge(List<Project.Nudge> nudges, List<Instance> instances) {
        Map<String, Vec3> by = new HashMap<>();
        for (Project.Nudge n : nudges) by.merge(n.object(), new Vec3(n.by()[0], n.by()[1], n.by()[2]), Vec3::plus);
        if (by.isEmpty()) return;
        instances.replaceAll(i -> {
            Vec3 d = by.get(i.name());
            return d == null ? i : new Instance(i.name(), i.mesh(), Affine.translation(d.x(), d.y(), d.z()).times(i.toWorld()), i.layer());
        });
    }
}
