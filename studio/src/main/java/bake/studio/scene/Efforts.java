package bake.studio.scene;

import bake.core.scene.Effort;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.formats.project.EffortSpec;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** What a project asks for single materials, objects, layers and lamps, by their numbers in the scene. */
final class Efforts {
    private Efforts() {}

    /** Names that nothing has are passed over: a model that is drawn anew may bring them back. */
    static Effort.Table of(Project p, List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<String> layers) {
        Map<String, Map<String, Effort>> by = new HashMap<>();
        for (EffortSpec e : p.efforts()) if (!e.usual() && !e.of().equals("lamp"))
            by.computeIfAbsent(e.of(), k -> new HashMap<>()).merge(e.name(), effort(e), Effort::and);
        if (by.isEmpty()) return Effort.Table.NONE;
        Map<String, Effort> own = by.getOrDefault("material", Map.of()), objects = by.getOrDefault("object", Map.of()),
                all = by.getOrDefault("layer", Map.of());
        List<Effort> m = new ArrayList<>(), i = new ArrayList<>();
        if (!own.isEmpty()) for (Material x : materials) m.add(own.getOrDefault(x.name(), Effort.USUAL));
        if (!objects.isEmpty() || !all.isEmpty()) for (Instance x : instances) {
            Effort a = objects.getOrDefault(meshes.get(x.mesh()).name(), Effort.USUAL), b = all.getOrDefault(layers.get(x.layer()),
                    Effort.USUAL);
            i.add(a == Effort.USUAL ? b : b == Effort.USUAL ? a : a.and(b));
        }
        return new Effort.Table(List.copyOf(m), List.copyOf(i));
    }

    private static Effort effort(EffortSpec e) {
        return new Effort(e.samples() == null ? 1 : e.samples(), e.edges() == null ? 0 : e.edges(),
                e.reflections() == null ? Effort.ALL : e.reflections());
    }

    /** A lamp with how often it is looked at against others. */
    static LampSpec looked(LampSpec l, Project p) {
        for (EffortSpec e : p.efforts()) if (e.of().equals("lamp") && e.name().equals(l.name()) && e.samples() != null)
            return l.withWeight((l.weight() == null ? 1 : l.weight()) * e.samples());
        return l;
    }
}
