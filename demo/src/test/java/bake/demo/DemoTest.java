package bake.demo;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Mesh;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DemoTest {
    @TempDir
    Path dir;

    @Test
    void theLibraryStands() throws IOException {
        Path f = DemoProject.ensure(dir, LocalDate.of(2026, 11, 26));
        Project p = ProjectFile.read(f);
        assertEquals(5, p.views().size());
        assertEquals("2026-11-30T12:00", p.due(), "the second working day after a Thursday is a Monday");
        ImportedModel m = ModelReader.read(dir.resolve("model/fernlow.gltf"), 1, true);
        assertEquals(Kit.LAYERS, m.layers());
        assertTrue(m.uniqueTriangles() >= 300_000 && m.uniqueTriangles() <= 600_000, m.uniqueTriangles() + " unique triangles");
        assertEquals(0, m.findings().size(), m.findings().toString());
        long books = m.instances().stream().filter(i -> i.name().matches("Book \\d+")).count();
        assertTrue(books >= 4000 && books <= 5000, books + " books");
        assertEquals(20, p.lamps().size());
        // A second start makes nothing new and keeps what the user changed.
        ProjectFile.write(f, p.withName("Mine"));
        DemoProject.ensure(dir, LocalDate.of(2026, 12, 24));
        assertEquals("Mine", ProjectFile.read(f).name());
    }

    @Test
    void theSameEveryTime() {
        Kit a = new Kit(), b = new Kit();
        DemoProject.model(a);
        DemoProject.model(b);
        assertEquals(a.instances, b.instances);
        for (int i = 0; i < a.meshes.size(); i++) {
            Mesh x = a.meshes.get(i), y = b.meshes.get(i);
            assertArrayEquals(x.positions(), y.positions());
            assertArrayEquals(x.indices(), y.indices());
        }
    }
}
