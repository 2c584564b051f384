package bake.demo;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.geometry.Ray;
import bake.core.math.Vec3;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.core.scene.Surroundings;
import bake.core.compiled.RenderScene;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
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
        ImportedModel m = ModelReader.read(dir.resolve("model/fernlow.gltf"), null, null);
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

    private static RenderScene compiled() {
        Kit k = new Kit();
        DemoProject.model(k);
        return RenderScene.compile(new Scene(k.meshes, k.instances, k.materials, k.textures, List.of(), new Surroundings.Plain(Vec3.ZERO)),
                new ForkJoinPool(2));
    }

    private static void aim(SplittableRandom r, Ray ray, double[] low, double[] high) {
        double z = r.nextDouble(-1, 1), t = r.nextDouble(2 * Math.PI), w = Math.sqrt(1 - z * z);
        ray.tMin = 0;
        ray.set((float) r.nextDouble(low[0], high[0]), (float) r.nextDouble(low[1], high[1]), (float) r.nextDouble(low[2], high[2]),
                (float) (w * Math.cos(t)), (float) (w * Math.sin(t)), (float) z, Float.POSITIVE_INFINITY);
    }

    /** From anywhere in the reading room every way out leads through glass, and no two surfaces lie in one another. */
    @Test
    void closedAndWithoutSurfacesInOnePlace() {
        RenderScene s = compiled();
        SplittableRandom r = new SplittableRandom(1);
        Ray ray = new Ray();
        int out = 0;
        for (int i = 0; i < 120_000; i++) {
            aim(r, ray, new double[] {0.05, 0.05, 0.05}, new double[] {8.95, 15.55, 4.7});
            boolean glass = false;
            while (true) {
                if (!s.tracer().closest(ray)) {
                    out++;
                    assertTrue(glass, String.format("light leaks from %.2f %.2f %.2f along %.3f %.3f %.3f", ray.ox, ray.oy, ray.oz, ray.dx,
                            ray.dy, ray.dz));
                    break;
                }
                if (!s.surfaces().isPane(s.geometry().blas(ray.item).materials()[ray.prim])) break;
                glass = true;
                ray.tMin = ray.t + 1e-4f;
                ray.set(ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
            }
        }
        assertTrue(out > 500, "windows let " + out + " rays out");
        int met = 0, twice = 0;
        for (int i = 0; i < 120_000; i++) {
            aim(r, ray, new double[] {-1, -5, 0.05}, new double[] {21, 16, 4.7});
            if (!s.tracer().closest(ray)) continue;
            met++;
            int first = s.geometry().instance(ray.item, ray.prim);
            // A surface of something else within a fifth of a millimetre: fine where edges meet, not over an area.
            ray.tMin = ray.t * (1 + 2e-7f);
            ray.set(ray.ox, ray.oy, ray.oz, ray.dx, ray.dy, ray.dz, ray.t + 2e-4f);
            if (s.tracer().closest(ray) && s.geometry().instance(ray.item, ray.prim) != first) twice++;
        }
        assertTrue(twice < 0.002 * met, twice + " of " + met + " rays met two things in one place");
    }

    /** What stands in the room stands on something: below each foot there is a surface within two centimetres. */
    @Test
    void nothingFloats() {
        RenderScene s = compiled();
        Kit k = new Kit();
        DemoProject.model(k);
        Ray ray = new Ray();
        int judged = 0;
        for (var in : k.instances) {
            if (!in.name().matches("(Chair|Table|Lounge chair|Side table|Standing lamp).*") || in.name().contains("seat")
                    || in.name().contains("lamp")) continue;
            float[] p = k.meshes.get(in.mesh()).positions();
            Vec3 lowest = null;
            for (int i = 0; i < p.length; i += 3) {
                Vec3 q = in.toWorld().point(new Vec3(p[i], p[i + 1], p[i + 2]));
                if (lowest == null || q.z() < lowest.z()) lowest = q;
            }
            ray.tMin = 0;
            ray.set((float) lowest.x(), (float) lowest.y(), (float) lowest.z() + 0.01f, 0.001f, 0.001f, -1, 0.03f);
            assertTrue(s.tracer().closest(ray), in.name() + " floats at " + lowest);
            judged++;
        }
        assertTrue(judged > 15, judged + " pieces of furniture");
    }
}
