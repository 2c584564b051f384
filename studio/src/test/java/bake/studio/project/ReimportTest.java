package bake.studio.project;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Scene;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.first.NewProject;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A newer model in place of an older one. */
class ReimportTest {
    @TempDir
    Path dir;

    private Path obj(String name, String material, double height) throws IOException {
        Path f = dir.resolve(name);
        Files.writeString(dir.resolve("m.mtl"), "newmtl wall\nKd 0.5 0.5 0.5\nnewmtl door\nKd " + height / 10 + " 0.2 0.1\n");
        Files.writeString(f, "mtllib m.mtl\no House\nv 0 0 0\nv 4 0 0\nv 4 " + height + " 0\nusemtl " + material + "\nf 1 2 3\n");
        return f;
    }

    @Test
    void whatWasGivenHoldsOnByName() throws IOException {
        Path folder = dir.resolve("project");
        NewProject.create(obj("house.obj", "wall", 3), folder);
        Path file = folder.resolve("project.json");
        SceneAssembly first = new SceneAssembly(folder);
        Project plain = ProjectFile.read(file);
        first.scene(plain, plain.views().getFirst());
        String layer = first.layers().getFirst();
        Project p = plain.withShapes(List.of()).withMaterials(List.of(Project.Surface.of("wall", "brick, red")))
                .withLayers(List.of(new Project.Layer(layer, false, Map.of())));
        ProjectFile.write(file, p);
        assertEquals(List.of(), ProjectImport.replace(obj("house-v2.obj", "wall", 5), folder, null));
        Project q = ProjectFile.read(file);
        assertEquals("house-v2.obj", Path.of(q.models().getFirst().file()).getFileName().toString());
        Scene s = new SceneAssembly(folder).scene(q.withLayers(List.of()), q.views().getFirst());
        assertEquals(0.34, s.materials().getFirst().base().x(), 1e-9, "the brick is still there");
        float most = 0;
        for (float v : s.meshes().getFirst().positions()) most = Math.max(most, v);
        assertEquals(5, most, 1e-6, "and the house is higher");
        assertEquals(p.views().getFirst().camera().camera(), q.views().getFirst().camera().camera());
        assertTrue(!q.layerOn("House"));
        List<String> lost = ProjectImport.replace(obj("house-v3.obj", "door", 7), folder, "house-v2.obj");
        // The newer file has its own side files: those of the ones before stay theirs.
        Project third = ProjectFile.read(file);
        assertEquals(0.7, new SceneAssembly(folder).scene(third, third.views().getFirst()).materials().stream()
                .filter(m -> m.name().equals("door")).findFirst().orElseThrow().base().x(), 1e-9);
        assertTrue(Files.readString(folder.resolve(q.models().getFirst().file()).resolveSibling("m.mtl")).contains("Kd 0.5 0.2 0.1"));
        assertEquals(List.of("material 'wall' is not in the new file"), lost);
        assertThrows(FormatException.class, () -> ProjectImport.replace(dir.resolve("house.obj"), folder, "none.obj"));
        FormatException none = assertThrows(FormatException.class, () ->
                ProjectImport.replace(dir.resolve("house.obj"), dir.resolve("nowhere"), null));
        assertTrue(none.getMessage().contains("holds no project"), none.getMessage());
    }

    @Test
    void layersByWhatIsAsked() throws IOException {
        Path folder = dir.resolve("project");
        NewProject.create(obj("house.obj", "wall", 3), folder);
        Project p = ProjectFile.read(folder.resolve("project.json"));
        for (String by : new String[] {"material", "file", "node"}) {
            SceneAssembly a = new SceneAssembly(folder);
            a.scene(Settings.set(p, "models[0].layersBy=" + by), p.views().getFirst());
            assertEquals(by.equals("material") ? "wall" : by.equals("file") ? "house.obj" : "House", a.layers().getFirst());
        }
    }
}
