package bake.studio.cache;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;

import bake.core.geometry.Blas;
import bake.core.geometry.BlasStore;
import bake.core.geometry.Geometry;
import bake.core.math.Affine;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class HierarchyCacheTest {
    @TempDir
    Path dir;

    private static Blas ball() {
        Mesh m = Shapes.sphere("ball", 1, 24, 3);
        return new Geometry(List.of(m), List.of(new Instance("ball", 0, Affine.translation(1, 2, 3), 0)), ForkJoinPool.commonPool(),
                BlasStore.NONE).blas(0);
    }

    @Test
    void comesBackAsItWas() throws IOException {
        HierarchyCache c = new HierarchyCache(dir);
        assertNull(c.find("k"));
        Blas a = ball();
        c.write("k", a);
        Blas b = c.find("k");
        assertNotNull(b);
        assertArrayEquals(a.bvh().nodes(), b.bvh().nodes());
        assertArrayEquals(a.bvh().bounds(), b.bvh().bounds());
        assertArrayEquals(a.packets(), b.packets());
        assertArrayEquals(a.vertices(), b.vertices());
        assertArrayEquals(a.normals(), b.normals());
        assertArrayEquals(a.uvs(), b.uvs());
        assertArrayEquals(a.materials(), b.materials());
        assertArrayEquals(a.sources(), b.sources());
        assertEquals(a.triangles(), b.triangles());
        assertNull(c.find("other"));
    }

    /** A file that was cut short, changed or never was one is as good as none. */
    @Test
    void damageIsPassedOver() throws IOException {
        HierarchyCache c = new HierarchyCache(dir);
        c.write("k", ball());
        Path f = dir.resolve("k.bvh");
        byte[] good = Files.readAllBytes(f);
        SplittableRandom r = new SplittableRandom(2);
        for (int i = 0; i < 60; i++) {
            byte[] bad = good.clone();
            if (i % 3 == 0) bad = java.util.Arrays.copyOf(bad, r.nextInt(good.length));
            else bad[r.nextInt(good.length)] ^= (byte) (1 << r.nextInt(8));
            Files.write(f, bad);
            assertNull(c.find("k"), "damage " + i);
        }
        Files.write(f, good);
        assertNotNull(c.find("k"));
    }
}
