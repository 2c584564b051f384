package bake.desktop.work;

import bake.core.scene.Material;
import bake.formats.model.Finding;
import bake.studio.scene.SceneAssembly;
import java.util.List;
import java.util.Map;

/**
 * What the Model station says about the files of a project.
 *
 * @param size of everything, metres, or null where there is nothing
 * @param coplanar objects with faces in one plane, largest overlap first; none while nobody has looked for them
 */
public record ModelFacts(List<String> layers, long[] triangles, long unique, long placed, List<Finding> findings, List<Material> materials,
        double[] size, Map<String, SceneAssembly.Copies> objects, List<SceneAssembly.Coplanar> coplanar) {
    static final ModelFacts NONE = new ModelFacts(List.of(), new long[0], 0, 0, List.of(), List.of(), null, Map.of(), List.of());

    static ModelFacts of(SceneAssembly a) {
        if (a.layers().isEmpty()) return NONE;
        long[] t = a.layerTriangles();
        return new ModelFacts(a.layers(), t, a.uniqueTriangles(), java.util.Arrays.stream(t).sum(), a.findings(), a.materials(), a.size(),
                a.objects(), List.of());
    }

    ModelFacts with(List<SceneAssembly.Coplanar> found) {
        return new ModelFacts(layers, triangles, unique, placed, findings, materials, size, objects, found);
    }
}
