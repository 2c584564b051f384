package bake.core.geometry;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import bake.core.surface.SurfaceTable;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;

/** What the ray kernels promise beyond finding the right triangle. */
class KernelTest {
    private static final ForkJoinPool POOL = ForkJoinPool.commonPool();
    private static final SurfaceTable SOLID = new SurfaceTable(List.of(Material.diffuse("m", new Vec3(0.5, 0.5, 0.5))), List.of());

    private static List<Tracer> both(List<Mesh> meshes, List<Instance> in) {
        Geometry g = new Geometry(meshes, in, POOL);
        LampShapes none = new LampShapes(List.of());
        return List.of(new WideTracer(g, none, SOLID, POOL), new ScalarTracer(g, none, SOLID, POOL));
    }

    private static List<Instance> once(Mesh m) {
        return List.of(new Instance(m.name(), 0, Affine.IDENTITY, 0));
    }

    /** A quarter of a million rays, both ways, with instances: nothing is left for the garbage collector. */
    @Test
    void nothingIsAllocatedPerRay() {
        SplittableRandom r = new SplittableRandom(3);
        List<Instance> in = new ArrayList<>();
        for (int i = 0; i < 40; i++) in.add(new Instance("ball", 0, Affine.translation(r.nextDouble(-6, 6), r.nextDouble(-6, 6),
                r.nextDouble(-6, 6)), 0));
        in.add(new Instance("floor", 1, Affine.translation(0, 0, -7), 0));
        Tracer t = both(List.of(Shapes.sphere("ball", 0.8, 24, 0), Shapes.quad("floor", 30, 30, 0)), in).getFirst();
        var threads = (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();
        Ray ray = new Ray();
        long id = Thread.currentThread().threadId(), bytes = Long.MAX_VALUE;
        int hits = 0;
        // The first rounds are interpreted, where vectors are objects; what counts is compiled code.
        for (int round = 0; round < 40 && bytes > 0; round++) {
            long before = threads.getThreadAllocatedBytes(id);
            hits = shoot(t, ray, 25_000);
            bytes = threads.getThreadAllocatedBytes(id) - before;
        }
        assertTrue(hits > 1000);
        assertEquals(0, bytes / 25_000, "bytes a ray in the best round of 25,000: " + bytes / 25_000.0);
    }

    private static int shoot(Tracer t, Ray ray, int n) {
        int hits = 0, s = 12345;
        for (int i = 0; i < n; i++) {
            float[] d = ray.packet; // any array that is at hand: a new one would count
            for (int k = 0; k < 3; k++) {
                s = s * 1664525 + 1013904223;
                d[k] = (s >>> 8) * 0x1p-23f - 1;
            }
            float l = 1 / (float) Math.sqrt(d[0] * d[0] + d[1] * d[1] + d[2] * d[2] + 1e-9f);
            ray.set(0, 0, 0, d[0] * l, d[1] * l, d[2] * l, Float.POSITIVE_INFINITY);
            if (t.closest(ray)) hits++;
            ray.set(0, 0, 0, ray.dx, ray.dy, ray.dz, 5);
            if (!t.open(ray)) hits++;
        }
        return hits;
    }

    /** What lies nearer than the least distance does not count. */
    @Test
    void leastDistance() {
        Mesh a = Shapes.quad("a", 2, 2, 0);
        List<Instance> in = List.of(new Instance("near", 0, Affine.IDENTITY, 0), new Instance("far", 0, Affine.translation(0, 0, 3), 0));
        for (Tracer t : both(List.of(a), in)) {
            Ray ray = new Ray();
            ray.set(0.3f, 0.2f, -1, 0, 0, 1, Float.POSITIVE_INFINITY);
            assertTrue(t.closest(ray));
            assertEquals(1, ray.t, 1e-6);
            ray.set(0.3f, 0.2f, -1, 0, 0, 1, Float.POSITIVE_INFINITY);
            ray.tMin = 1.5f;
            assertTrue(t.closest(ray));
            assertEquals(4, ray.t, 1e-6);
            ray.set(0.3f, 0.2f, -1, 0, 0, 1, 3.9f);
            assertTrue(t.open(ray));
            ray.tMin = 0;
            ray.set(0.3f, 0.2f, -1, 0, 0, 1, 3.9f);
            assertFalse(t.open(ray));
        }
    }

    /** Between two boxes that touch no ray slips through: a floor of many tiles, seen from all heights and far off origin. */
    @Test
    void floorHasNoCracks() {
        List<Instance> in = new ArrayList<>();
        for (int x = 0; x < 24; x++) for (int y = 0; y < 24; y++)
            in.add(new Instance("tile", 0, Affine.translation(1000 + x, -500 + y, 0), 0));
        SplittableRandom r = new SplittableRandom(11);
        for (Tracer t : both(List.of(Shapes.quad("tile", 1, 1, 0)), in)) {
            Ray ray = new Ray();
            int missed = 0;
            for (int i = 0; i < 60_000; i++) {
                double x = 1000 + r.nextDouble(23), y = -500 + r.nextDouble(23), h = Math.pow(10, r.nextDouble(-2, 2));
                // Half of the rays aim at the seams.
                if (i % 2 == 0) x = Math.rint(x) + 0.5 * (x > 1022 ? -1 : 1);
                Vec3 d = new Vec3(r.nextDouble(-0.2, 0.2), r.nextDouble(-0.2, 0.2), -1).normalized();
                ray.set((float) (x - d.x() * h), (float) (y - d.y() * h), (float) (-d.z() * h), (float) d.x(), (float) d.y(), (float) d.z(),
                        Float.POSITIVE_INFINITY);
                if (!t.closest(ray)) missed++;
            }
            assertEquals(0, missed, "rays of 60,000 that fell through");
        }
    }

    /** From inside a closed body every ray meets it, also one that aims at a corner or along an edge, near the origin and far off. */
    @Test
    void closedBodiesAreTight() {
        for (double far : new double[] {0, 300}) {
            Mesh ball = Shapes.sphere("ball", 1.7, 40, 0);
            float[] p = ball.positions().clone();
            for (int i = 0; i < p.length; i += 3) p[i] = (float) (p[i] + far);
            Mesh m = new Mesh("ball", p, null, null, ball.indices(), 0);
            SplittableRandom r = new SplittableRandom(5);
            for (Tracer t : both(List.of(m), once(m))) {
                Ray ray = new Ray();
                int missed = 0;
                for (int i = 0; i < 200_000; i++) {
                    float ox = (float) (far + r.nextDouble(-0.9, 0.9)), oy = (float) r.nextDouble(-0.9, 0.9),
                            oz = (float) r.nextDouble(-0.9, 0.9);
                    int k = 3 * r.nextInt(ball.indices().length / 3), a = 3 * ball.indices()[k], b = 3 * ball.indices()[k + 1];
                    double s = i % 3 == 0 ? 0 : r.nextDouble();
                    Vec3 d = new Vec3(p[a] + s * (p[b] - p[a]) - ox, p[a + 1] + s * (p[b + 1] - p[a + 1]) - oy,
                            p[a + 2] + s * (p[b + 2] - p[a + 2]) - oz).normalized();
                    ray.set(ox, oy, oz, (float) d.x(), (float) d.y(), (float) d.z(), Float.POSITIVE_INFINITY);
                    if (!t.closest(ray)) missed++;
                }
                assertEquals(0, missed, "rays of 200,000 that left the ball");
            }
        }
    }

    /** A ray exactly on the edge that two triangles of a pane share goes through one of them, whichever way the pane is turned. */
    @Test
    void sharedEdgesOfPanesCountOnce() {
        SurfaceTable glass = new SurfaceTable(List.of(Material.glass("g", new Vec3(0.5, 0.5, 0.5), 0, 1.5, true)), List.of());
        float[] p = {-1, -1, 0, 1, -1, 0, 1, 1, 0, -1, 1, 0};
        for (int[] idx : new int[][] {{0, 1, 2, 0, 2, 3}, {0, 2, 1, 0, 3, 2}, {0, 1, 2, 0, 3, 2}}) {
            Mesh m = new Mesh("pane", p, null, null, idx, 0);
            Geometry g = new Geometry(List.of(m), once(m), POOL);
            for (Tracer t : List.of(new WideTracer(g, new LampShapes(List.of()), glass, POOL),
                    new ScalarTracer(g, new LampShapes(List.of()), glass, POOL))) {
                Ray ray = new Ray();
                ray.set(0.3f, 0.2f, -1, 0, 0, 1, 2);
                assertTrue(t.open(ray));
                float once = ray.tr;
                for (float a : new float[] {-0.75f, 0, 0.25f, 0.5f}) {
                    for (int side = -1; side <= 1; side += 2) {
                        ray.set(a, a, side, 0, 0, -side, 2);
                        assertTrue(t.open(ray));
                        assertEquals(once, ray.tr, 1e-6, "met " + (ray.tr < once ? "twice" : "not at all"));
                    }
                }
            }
        }
    }

    /** Faces without area are there in no direction. */
    @Test
    void degenerateTrianglesAreNeverMet() {
        float[] p = {0, 0, 0, 1, 0, 0, 2, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0};
        Mesh m = new Mesh("flat", p, null, null, new int[] {0, 1, 2, 3, 4, 5, 0, 0, 1}, 0);
        for (Tracer t : both(List.of(m), once(m))) {
            Ray ray = new Ray();
            for (int i = 0; i < 200; i++) {
                double a = i * 0.1;
                ray.set(0.5f, (float) Math.cos(a), (float) Math.sin(a), 0, (float) -Math.cos(a), (float) -Math.sin(a),
                        Float.POSITIVE_INFINITY);
                assertFalse(t.closest(ray));
            }
        }
    }

    /** The key tells any change of what is built, and nothing else. */
    @Test
    void contentKeys() {
        Mesh m = Shapes.sphere("ball", 1, 8, 0);
        String key = ContentKey.of(List.of(m), once(m), new int[] {0});
        assertEquals(key, ContentKey.of(List.of(Shapes.sphere("ball", 1, 8, 0)), once(m), new int[] {0}));
        assertEquals(key, ContentKey.of(List.of(Shapes.sphere("renamed", 1, 8, 0)), once(m), new int[] {0}), "names are not built in");
        float[] moved = m.positions().clone();
        moved[100] = Math.nextUp(moved[100]);
        assertNotEquals(key, ContentKey.of(List.of(new Mesh("ball", moved, m.normals(), m.uvs(), m.indices(), 0)), once(m), new int[] {0}));
        assertNotEquals(key, ContentKey.of(List.of(m.withMaterial(1)), once(m), new int[] {0}));
        assertNotEquals(key, ContentKey.of(List.of(m), once(m), new int[] {1}));
        assertNotEquals(key, ContentKey.of(List.of(m), List.of(new Instance("ball", 0, Affine.translation(0, 0, 1e-9), 0)), new int[] {0}));
        assertNotEquals(key, ContentKey.of(List.of(new Mesh("ball", m.positions(), null, m.uvs(), m.indices(), 0)), once(m),
                new int[] {0}));
    }

    /** A hierarchy that leads nowhere, or in circles, is not used. */
    @Test
    void unsoundHierarchiesAreKnown() {
        Mesh m = Shapes.sphere("ball", 1, 16, 0);
        Blas b = Blas.of(m, POOL);
        assertTrue(b.isSound());
        assertFalse(with(b, Bvh.CHILDREN, 0).isSound(), "a node that is its own child");
        assertFalse(with(b, Bvh.CHILDREN, 1 << 20).isSound(), "a child that is not there");
        assertFalse(with(b, Bvh.CHILDREN, ~(1 << 20)).isSound(), "a leaf that is not there");
        int[] v = b.vertices().clone();
        v[0] = 1 << 24;
        assertFalse(new Blas(b.bvh(), b.packets(), v, b.normals(), b.uvs(), b.colours(), b.materials(), b.sources(), b.triangles())
                .isSound(), "a vertex that is not there");
    }

    private static Blas with(Blas b, int at, int value) {
        int[] n = b.bvh().nodes().clone();
        n[at] = value;
        return new Blas(new Bvh(n, b.bvh().order(), 4, b.bvh().bounds()), b.packets(), b.vertices(), b.normals(), b.uvs(), b.colours(),
                b.materials(), b.sources(), b.triangles());
    }

    /** What a store has is used; what it lacks is given to it; what is unsound is built again. */
    @Test
    void storesAreAsked() {
        Mesh m = Shapes.sphere("ball", 1, 16, 0);
        java.util.Map<String, Blas> kept = new java.util.HashMap<>();
        int[] asked = {0};
        BlasStore store = new BlasStore() {
            @Override
            public Blas find(String key) {
                asked[0]++;
                return kept.get(key);
            }

            @Override
            public void keep(String key, Blas blas) {
                kept.put(key, blas);
            }
        };
        Geometry first = new Geometry(List.of(m), once(m), POOL, store);
        assertEquals(1, kept.size());
        Geometry second = new Geometry(List.of(m), once(m), POOL, store);
        assertEquals(2, asked[0]);
        assertTrue(first.blas(0) == second.blas(0), "found, not built");
        String key = kept.keySet().iterator().next();
        kept.put(key, with(first.blas(0), Bvh.CHILDREN, 0));
        assertTrue(new Geometry(List.of(m), once(m), POOL, store).blas(0).isSound());
    }
}
