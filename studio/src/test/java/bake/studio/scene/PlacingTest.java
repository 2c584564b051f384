package bake.studio.scene;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Further files in a scene, and files in the places of an object. */
class PlacingTest {
    @TempDir
    Path dir;

    /** A slab of 1 x 2 m, 0.5 m high, whose corner lies at (x, 0, 0); OBJ has y up. */
    private String slab(String name, double x) throws IOException {
        String v = "v %1$s 0 0\nv %2$s 0 0\nv %2$s 0 -2\nv %1$s 0 -2\nv %1$s 0.5 0\nv %2$s 0.5 0\nv %2$s 0.5 -2\nv %1$s 0.5 -2\n"
                .formatted(x, x + 1);
        Files.writeString(dir.resolve(name + ".obj"), "o " + name + "\n" + v + "f 1 4 3 2\nf 5 6 7 8\nf 1 2 6 5\nf 3 4 8 7\n");
        return name + ".obj";
    }

    private Scene scene(Project.ModelRef... models) throws IOException {
        Files.writeString(dir.resolve("project.json"), """
                {"bake": 1, "name": "p", "views": [{"name": "v", "camera": {"position": [0,-9,2], "target": [0,0,0]}}]}""");
        Project p = ProjectFile.read(dir.resolve("project.json")).withModels(List.of(models));
        return new SceneAssembly(dir).scene(p, p.views().getFirst());
    }

    private static double[][] box(Scene s, int instance) {
        Instance i = s.instances().get(instance);
        Mesh m = s.meshes().get(i.mesh());
        Bounds b = new Bounds();
        for (Vec3 c : Bounds.of(m.positions()).corners()) b.add(i.toWorld().point(c));
        Vec3 u = b.underside();
        return new double[][] {{u.x(), u.y(), u.z()}, b.size()};
    }

    private static void at(Scene s, int instance, double x, double y, double z, double w, double d, double h) {
        double[][] b = box(s, instance);
        double[] want = {x, y, z, w, d, h};
        for (int k = 0; k < 6; k++) assertEquals(want[k], b[k / 3][k % 3], 1e-5, "part " + k);
    }

    @Test
    void aFurtherFileIsPutTurnedAndSized() throws IOException {
        Project.ModelRef a = Project.ModelRef.of(slab("a", 0));
        Scene s = scene(a, a.placed(new double[] {10, 0, 3}, 90.0, 2.0));
        at(s, 0, 0.5, 1, 0, 1, 2, 0.5);
        // A quarter turn takes +x to +y and +y to -x.
        at(s, 1, 10 - 2, 1, 3, 4, 2, 1);
    }

    @Test
    void aFileTakesThePlacesOfAllCopies() throws IOException {
        Project.ModelRef a = Project.ModelRef.of(slab("a", 0)), b = Project.ModelRef.of(slab("b", 50));
        Scene s = scene(a, a.placed(new double[] {20, 0, 0}, 90.0, null), b.inPlaceOf("a"));
        assertEquals(2, s.instances().size());
        assertTrue(s.instances().stream().allMatch(i -> s.meshes().get(i.mesh()).name().equals("b")));
        at(s, 0, 0.5, 1, 0, 1, 2, 0.5);
        at(s, 1, 19, 0.5, 0, 2, 1, 0.5);
        // Moved and sized within its place.
        Scene t = scene(a, b.inPlaceOf("a").placed(new double[] {0, 0, 0.1}, null, 3.0));
        at(t, 0, 0.5, 1, 0.1, 3, 6, 1.5);
    }

    /** A newer export has lost the object: the rest stands, and it is said. */
    @Test
    void whatIsNotThereIsSaid() throws IOException {
        Project.ModelRef a = Project.ModelRef.of(slab("a", 0));
        Files.writeString(dir.resolve("project.json"), """
                {"bake": 1, "name": "p", "views": [{"name": "v", "camera": {"position": [0,-9,2], "target": [0,0,0]}}]}""");
        Project p = ProjectFile.read(dir.resolve("project.json")).withModels(List.of(a, a.inPlaceOf("chair")));
        SceneAssembly assembly = new SceneAssembly(dir);
        assertEquals(1, assembly.scene(p, p.views().getFirst()).instances().size());
        assertTrue(assembly.findings().stream().anyMatch(f -> f.text().contains("'chair'")), assembly.findings().toString());
    }

    /** What lies in another's plane is found, and gone once it is lifted; a lift moves that object and no other. */
    @Test
    void facesInOnePlaneAreFoundAndLifted() throws IOException {
        Project.ModelRef a = Project.ModelRef.of(slab("a", 0)), b = Project.ModelRef.of(slab("b", 0.5));
        scene(a, b);
        SceneAssembly all = new SceneAssembly(dir);
        Project p = ProjectFile.read(dir.resolve("project.json")).withModels(List.of(a, b));
        all.scene(p, p.views().getFirst());
        List<SceneAssembly.Coplanar> found = all.coplanar();
        // Top, bottom, and the two long sides, of which the slabs share one half.
        assertEquals(1, found.size(), found.toString());
        assertEquals(2 * 0.5 * 2 + 2 * 0.5 * 0.5, found.getFirst().area(), 1e-3);
        Project lifted = p.withNudges(List.of(new Project.Nudge("b", new double[] {0.001, 0.002, 0.003}, null)));
        Scene s = all.scene(lifted, lifted.views().getFirst());
        at(s, 0, 0.5, 1, 0, 1, 2, 0.5);
        at(s, 1, 1.001, 1.002, 0.003, 1, 2, 0.5);
        assertEquals(List.of(), all.coplanar());
    }
}
