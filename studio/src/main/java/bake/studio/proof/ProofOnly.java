package bake.studio.proof;

import bake.formats.project.LampSpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.preset.Presets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What is otherwise in one proof alone; neither project nor preset are changed by it.
 *
 * @param part of the width that it is made at: 1 for all, 2 for half, 4 for a quarter
 * @param clay whether all is matt grey
 * @param unseenOff whether lamps of the project that the camera does not see themselves are off
 * @param layersOff layers that are left out
 */
public record ProofOnly(int part, boolean clay, boolean unseenOff, Set<String> layersOff) {
    public static final ProofOnly NOTHING = new ProofOnly(1, false, false, Set.of());

    public ProofOnly {
        if (part < 1) throw new IllegalArgumentException("a proof is made at the whole of its width, or at a part of it");
        layersOff = Set.copyOf(layersOff);
    }

    public ProofOnly withPart(int p) {
        return new ProofOnly(p, clay, unseenOff, layersOff);
    }

    public ProofOnly withClay(boolean c) {
        return new ProofOnly(part, c, unseenOff, layersOff);
    }

    public ProofOnly withUnseenOff(boolean u) {
        return new ProofOnly(part, clay, u, layersOff);
    }

    public ProofOnly withLayersOff(Set<String> l) {
        return new ProofOnly(part, clay, unseenOff, l);
    }

    public boolean nothing() {
        return equals(NOTHING);
    }

    /** The settings of the proof. */
    public Preset of(Preset p, View v) {
        Preset out = part > 1 ? p.withWidth(Math.max(16, Presets.size(p, v)[0] / part)) : p;
        return clay ? out.withClay(true) : out;
    }

    /** The project as the proof shows it. */
    public Project of(Project p) {
        Project out = p;
        if (unseenOff) {
            List<LampSpec> seen = p.lamps().stream().filter(l -> !Boolean.FALSE.equals(l.alone(p.lamps()).visible())).toList();
            if (seen.size() < p.lamps().size()) out = out.withLamps(seen);
        }
        if (!layersOff.isEmpty()) {
            List<Project.Layer> l = new ArrayList<>(p.layers());
            l.removeIf(x -> layersOff.contains(x.name()));
            layersOff.stream().sorted().forEach(n -> l.add(new Project.Layer(n, false, Map.of())));
            out = out.withLayers(List.copyOf(l));
        }
        return out;
    }
}
