package bake.studio.scene;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import bake.formats.FormatException;
import bake.formats.project.Project;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Set;

/** Meshes of the simple shapes that a project names, made once. */
final class ShapeMeshes {
    private final Map<Project.Shape, Mesh> meshes = new IdentityHashMap<>();

    /** Forgets all but these. */
    void keep(Set<Mesh> used) {
        meshes.values().retainAll(used);
    }

    /** The mesh of a shape, the same object each time. */
    Mesh mesh(Project.Shape s, int material) throws FormatException {
        Mesh known = meshes.get(s);
        if (known == null || known.material() != material) meshes.put(s, known = shape(s, material));
        return known;
    }

    private static Mesh shape(Project.Shape s, int material) throws FormatException {
        double[] z = s.size();
        int need = switch (s.type()) {
            case "quad" -> 2;
            case "box" -> 3;
            default -> 1;
        };
        if (z.length != need) throw new FormatException("project.json", "shape '" + s.name() + "'",
                "a " + s.type() + " needs " + need + " number" + (need > 1 ? "s" : "") + " as its size");
        return switch (s.type()) {
            case "quad" -> Shapes.quad(s.name(), z[0], z[1], material);
            case "box" -> Shapes.box(s.name(), -z[0] / 2, -z[1] / 2, -z[2] / 2, z[0] / 2, z[1] / 2, z[2] / 2, material);
            case "sphere" -> Shapes.sphere(s.name(), z[0] / 2, 64, material);
            default -> Shapes.disc(s.name(), z[0] / 2, 128, material);
        };
    }

    /** Where a shape stands. */
    static Affine placement(Project.Shape s) {
        Vec3 c = MaterialLibrary.vec(s.center());
        if (s.normal() == null || s.type().equals("box") || s.type().equals("sphere")) return Affine.translation(c.x(), c.y(), c.z());
        return Affine.pointing(c, MaterialLibrary.vec(s.normal()));
    }
}
