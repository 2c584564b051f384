package bake.desktop.work;

import bake.core.scene.Material;
import bake.formats.project.EffortSpec;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** What is done for single materials, objects, layers and lamps beyond what is done for all. Holds no control. */
public final class EffortHand {
    private final Workbench bench;

    EffortHand(Workbench bench) {
        this.bench = bench;
    }

    public List<EffortSpec> all() {
        return bench.project() == null ? List.of() : bench.project().efforts();
    }

    /** What there is of a kind: "material", "object", "layer" or "lamp". */
    public List<String> names(String of) {
        ModelFacts f = bench.models().factsProperty().get();
        if (bench.project() == null || f == null) return List.of();
        return switch (of) {
            case "material" -> f.materials().stream().map(Material::name).distinct().sorted().toList();
            case "object" -> f.objects().keySet().stream().sorted().toList();
            case "layer" -> f.layers();
            default -> bench.project().lamps().stream().map(LampSpec::name).toList();
        };
    }

    /** Changes what is done for a thing, which may be new to the list. */
    public void change(String of, String name, UnaryOperator<EffortSpec> how) {
        bench.edit(null, p -> {
            List<EffortSpec> l = new ArrayList<>(p.efforts());
            int at = at(p, of, name);
            EffortSpec made = how.apply(at < 0 ? new EffortSpec(of, name) : l.get(at));
            if (at < 0) l.add(made);
            else l.set(at, made);
            return p.withEfforts(List.copyOf(l));
        });
    }

    public void remove(EffortSpec e) {
        bench.edit(null, p -> p.withEfforts(p.efforts().stream().filter(x -> !x.equals(e)).toList()));
    }

    private static int at(Project p, String of, String name) {
        for (int i = 0; i < p.efforts().size(); i++)
            if (p.efforts().get(i).of().equals(of) && p.efforts().get(i).name().equals(name)) return i;
        return -1;
    }
}
