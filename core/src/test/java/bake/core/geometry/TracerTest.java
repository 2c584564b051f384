package bake.core.geometry;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import bake.core.scene.Material;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;

class TracerTest {
    private static final ForkJoinPool POOL = ForkJoinPool.commonPool();
    private static final SurfaceTable SOLID = new SurfaceTable(List.of(Material.diffuse("m", new Vec3(0.5, 0.5, 0.5))), List.of());

    /** Many instances of a large mesh (kept as instances), single meshes (merged), and a lamp. */
    private static Geometry scene() {
        SplittableRandom r = new SplittableRandom(3);
        List<Mesh> meshes = List.of(Shapes.sphere("ball", 0.5, 24, 0), Shapes.box("box", -8, -8, -2, 8, 8, -1, 0),
                Shapes.quad("quad", 3, 3, 0));
        List<Instance> in = new ArrayList<>();
        for (int i = 0; i < 60; i++)
            in.add(new Instance("ball", 0, Affine.translation(r.nextDouble(-6, 6), r.nextDouble(-6, 6), r.nextDouble(-1, 4))
                    .times(Affine.rotation(new Vec3(r.nextDouble(), 1, 0.3), r.nextDouble(6)))
                    .times(Affine.scale(r.nextDouble(0.3, 2), 1, r.nextDouble(0.3, 2))), 0));
        in.add(new Instance("box", 1, Affine.IDENTITY, 0));
        in.add(new Instance("quad", 2, Affine.translation(0, 0, 6).times(Affine.rotation(new Vec3(1, 0, 0), 0.4)), 0));
        return new Geometry(meshes, in, POOL);
    }

    private static LampShapes lamps() {
        return new LampShapes(List.of(new Lamp("l", "g", Lamp.Kind.SPHERE, Affine.translation(2, 2, 5), 0.6, 0, 100, new Vec3(1, 1, 1), 0,
                60, true, false)));
    }

    @Test
    void vectorAndScalarFindTheSame() {
        Geometry g = scene();
        assertTrue(Tracer.VECTORS, "tests run with the vector module");
        Tracer wide = new WideTracer(g, lamps(), SOLID, POOL), scalar = new ScalarTracer(g, lamps(), SOLID, POOL);
        SplittableRandom r = new SplittableRandom(9);
        Ray a = new Ray(), b = new Ray();
        int hits = 0;
        for (int i = 0; i < 40_000; i++) {
            float[] d = ray(r, i);
            a.set(d[0], d[1], d[2], d[3], d[4], d[5], Float.POSITIVE_INFINITY);
            b.set(d[0], d[1], d[2], d[3], d[4], d[5], Float.POSITIVE_INFINITY);
            boolean x = wide.closest(a), y = scalar.closest(b);
            assertEquals(y, x, "ray " + i);
            if (!x) continue;
            hits++;
            assertEquals(b.t, a.t, 0f, "distance of ray " + i);
            a.set(d[0], d[1], d[2], d[3], d[4], d[5], b.t * 1.01f);
            assertFalse(wide.open(a), "something is in the way of ray " + i);
            a.set(d[0], d[1], d[2], d[3], d[4], d[5], b.t * 0.99f);
            assertTrue(wide.open(a), "nothing is in the way of ray " + i);
        }
        assertTrue(hits > 10_000, hits + " hits");
    }

    private static float[] ray(SplittableRandom r, int i) {
        double z = r.nextDouble(-1, 1), t = r.nextDouble(2 * Math.PI), s = Math.sqrt(1 - z * z);
        float[] d = {(float) r.nextDouble(-7, 7), (float) r.nextDouble(-7, 7), (float) r.nextDouble(-0.9, 7), (float) (s * Math.cos(t)),
                (float) (s * Math.sin(t)), (float) z};
        if (i % 10 == 0) { // along an axis, where components are zero
            d[3] = d[4] = d[5] = 0;
            d[3 + i / 10 % 3] = i / 30 % 2 == 0 ? 1 : -1;
        }
        return d;
    }

    /** Against every triangle in turn. */
    @Test
    void agreesWithBruteForce() {
        Mesh m = Shapes.sphere("ball", 1, 12, 0);
        Geometry g = new Geometry(List.of(m), List.of(new Instance("ball", 0, Affine.IDENTITY, 0)), POOL);
        Tracer t = Tracer.of(g, new LampShapes(List.of()), SOLID, POOL);
        SplittableRandom r = new SplittableRandom(4);
        Ray ray = new Ray();
        for (int i = 0; i < 3000; i++) {
            float[] d = ray(r, 1);
            ray.set(d[0] * 0.4f, d[1] * 0.4f, d[2] * 0.4f, d[3], d[4], d[5], Float.POSITIVE_INFINITY);
            double best = brute(m, ray);
            assertEquals(best < 1e9, t.closest(ray));
            if (best < 1e9) assertEquals(best, ray.t, 1e-4);
        }
    }

    private static double brute(Mesh m, Ray ray) {
        Vec3 o = new Vec3(ray.ox, ray.oy, ray.oz), d = new Vec3(ray.dx, ray.dy, ray.dz);
        double best = 1e9;
        for (int t = 0; t < m.triangles(); t++) {
            Vec3[] v = new Vec3[3];
            for (int k = 0; k < 3; k++) v[k] = new Vec3(m.positions()[3 * m.indices()[3 * t + k]],
                    m.positions()[3 * m.indices()[3 * t + k] + 1], m.positions()[3 * m.indices()[3 * t + k] + 2]);
            Vec3 n = v[1].minus(v[0]).cross(v[2].minus(v[0]));
            double q = v[0].minus(o).dot(n) / d.dot(n);
            if (!(q > 0 && q < best)) continue;
            Vec3 p = o.plus(d.times(q));
            boolean in = true;
            for (int k = 0; k < 3; k++) in &= v[(k + 1) % 3].minus(v[k]).cross(p.minus(v[k])).dot(n) >= 0;
            if (in) best = q;
        }
        return best;
    }

    /** A thousand placed copies cost the memory of one. */
    @Test
    void instancesShareTheirTriangles() {
        Mesh m = Shapes.sphere("ball", 1, 64, 0);
        List<Instance> in = new ArrayList<>();
        for (int i = 0; i < 1000; i++) in.add(new Instance("ball", 0, Affine.translation(3 * i, 0, 0), 0));
        Geometry g = new Geometry(List.of(m), in, POOL);
        assertEquals(m.triangles(), g.uniqueTriangles());
        assertEquals(1000, g.items());
    }

    /** The tree is the same however many threads build it. */
    @Test
    void buildDoesNotDependOnThreads() {
        SplittableRandom r = new SplittableRandom(5);
        float[] boxes = new float[6 * 30_000];
        for (int i = 0; i < 30_000; i++)
            for (int k = 0; k < 3; k++) {
                boxes[6 * i + k] = (float) r.nextDouble(-10, 10);
                boxes[6 * i + 3 + k] = boxes[6 * i + k] + (float) r.nextDouble(0.5);
            }
        try (ForkJoinPool one = new ForkJoinPool(1); ForkJoinPool four = new ForkJoinPool(4)) {
            Bvh a = BvhBuilder.build(boxes, 4, one), b = BvhBuilder.build(boxes, 4, four);
            org.junit.jupiter.api.Assertions.assertArrayEquals(a.order(), b.order());
            org.junit.jupiter.api.Assertions.assertArrayEquals(a.nodes(), b.nodes());
        }
    }

    @Test
    void emptySceneHasNothing() {
        Tracer t = Tracer.of(new Geometry(List.of(), List.of(), POOL), new LampShapes(List.of()), SOLID, POOL);
        Ray ray = new Ray();
        ray.set(0, 0, 0, 0, 0, 1, Float.POSITIVE_INFINITY);
        assertFalse(t.closest(ray));
        assertTrue(t.open(ray));
        assertNotNull(ray);
    }
}
