package bake.core.surface;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.geometry.Geometry;
import bake.core.geometry.LampShapes;
import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import bake.core.scene.Texture;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;

/** What a ray finds where it meets a surface: place, frame, textures. */
class SurfacePointTest {
    private static final ForkJoinPool POOL = ForkJoinPool.commonPool();
    /** A quad from (0,0) to (1,1) facing up, v running down as in glTF. */
    private static final Mesh SHEET = new Mesh("sheet", new float[] {0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0}, null,
            new float[] {0, 1, 1, 1, 1, 0, 0, 0}, new int[] {0, 1, 2, 0, 2, 3}, 0);

    private final Ray ray = new Ray();
    private final SurfacePoint point = new SurfacePoint();

    private SurfacePoint meet(Mesh m, Affine a, Material material, List<Texture> textures, Vec3 from, Vec3 direction) {
        Geometry g = new Geometry(List.of(m), List.of(new Instance(m.name(), 0, a, 0)), POOL);
        SurfaceTable t = new SurfaceTable(List.of(material), textures);
        Tracer tracer = Tracer.of(g, new LampShapes(List.of()), t, POOL);
        Vec3 d = direction.normalized();
        ray.set((float) from.x(), (float) from.y(), (float) from.z(), (float) d.x(), (float) d.y(), (float) d.z(), Float.POSITIVE_INFINITY);
        assertTrue(tracer.closest(ray), "the ray meets it");
        point.load(g, t, ray);
        return point;
    }

    private SurfacePoint above(Material m, List<Texture> textures, double x, double y) {
        return meet(SHEET, Affine.IDENTITY, m, textures, new Vec3(x, y, 1), new Vec3(0, 0, -1));
    }

    /** Two by two texels: red, green above; blue, white below. */
    private static Texture four(boolean srgb) {
        int[][] c = {{255, 0, 0}, {0, 255, 0}, {0, 0, 255}, {255, 255, 255}};
        byte[] b = new byte[16];
        for (int i = 0; i < 4; i++) {
            for (int k = 0; k < 3; k++) b[4 * i + k] = (byte) c[i][k];
            b[4 * i + 3] = -1;
        }
        return new Texture("four", 2, 2, b, srgb);
    }

    private static Texture one(int r, int g, int b, boolean srgb) {
        return new Texture("one", 1, 1, new byte[] {(byte) r, (byte) g, (byte) b, -1}, srgb);
    }

    @Test
    void texelsLieWhereTheyShould() {
        Material m = Material.diffuse("m", new Vec3(1, 1, 1)).withBaseImage(new Material.Image(0));
        List<Texture> t = List.of(four(true));
        above(m, t, 0.25, 0.75);
        assertTrue(point.baseR > 0.99 && point.baseG < 0.01 && point.baseB < 0.01, "top left is red");
        above(m, t, 0.75, 0.75);
        assertTrue(point.baseG > 0.99 && point.baseR < 0.01, "top right is green");
        above(m, t, 0.25, 0.25);
        assertTrue(point.baseB > 0.99 && point.baseR < 0.01, "below left is blue");
        above(m, t, 0.5, 0.75);
        assertEquals(0.5, point.baseR, 0.01, "between texels light is blended, not code");
    }

    /** Vertex colours are blended over the face and multiply the base colour, in one hierarchy with meshes that have none. */
    @Test
    void vertexColours() {
        Mesh m = SHEET.withColours(new float[] {1, 0, 0, 0, 1, 0, 0, 1, 0, 1, 0, 0});
        meet(m, Affine.IDENTITY, Material.diffuse("m", new Vec3(0.8, 0.4, 0.5)), List.of(), new Vec3(0.25, 0.5, 1), new Vec3(0, 0, -1));
        assertEquals(0.6, point.baseR, 1e-5);
        assertEquals(0.1, point.baseG, 1e-5);
        assertEquals(0, point.baseB, 1e-5);
        Geometry g = new Geometry(List.of(m, SHEET), List.of(new Instance("a", 0, Affine.IDENTITY, 0),
                new Instance("b", 1, Affine.translation(2, 0, 0), 0)), POOL);
        SurfaceTable t = new SurfaceTable(List.of(Material.diffuse("m", new Vec3(0.8, 0.4, 0.5))), List.of());
        ray.set(2.5f, 0.5f, 1, 0, 0, -1, Float.POSITIVE_INFINITY);
        assertTrue(Tracer.of(g, new LampShapes(List.of()), t, POOL).closest(ray));
        point.load(g, t, ray);
        assertEquals(0.8, point.baseR, 1e-5, "its neighbour stays as it is");
    }

    /** Repeats, offset and turn follow KHR_texture_transform. */
    @Test
    void textureTransform() {
        List<Texture> t = List.of(four(true));
        Material twice = Material.diffuse("m", new Vec3(1, 1, 1)).withBaseImage(new Material.Image(0, 2, 2, 0, 0, 0));
        above(twice, t, 0.125, 0.875);
        assertTrue(point.baseR > 0.99 && point.baseG < 0.01, "a quarter holds the whole picture");
        above(twice, t, 0.625, 0.875);
        assertTrue(point.baseR > 0.99, "and so does the next");
        Material moved = Material.diffuse("m", new Vec3(1, 1, 1)).withBaseImage(new Material.Image(0, 1, 1, 0.5, 0, 0));
        above(moved, t, 0.25, 0.75);
        assertTrue(point.baseG > 0.99 && point.baseR < 0.01, "half a picture on");
        Material turned = Material.diffuse("m", new Vec3(1, 1, 1)).withBaseImage(new Material.Image(0, 1, 1, 0, 0, Math.PI));
        above(turned, t, 0.25, 0.75);
        assertTrue(point.baseR > 0.99 && point.baseG > 0.99 && point.baseB > 0.99,
                "half a turn brings the opposite corner: " + point.baseR);
    }

    /** Data pictures are linear: green is roughness, blue is metalness. */
    @Test
    void dataChannels() {
        Material m = new Material("m", new Vec3(0.5, 0.5, 0.5), null, 1, Material.AlphaMode.OPAQUE, 0.5, 1, 0.8, new Material.Image(0),
                null, 1, 1.5, 0, false, 0, Vec3.ZERO, null);
        above(m, List.of(one(255, 128, 51, false)), 0.3, 0.6);
        double rough = 0.8 * 128 / 255;
        assertEquals(rough * rough, point.alpha, 1e-4);
        assertEquals(0.2, point.metallic, 1e-4);
    }

    /** A normal map's red leans to growing u, its green to falling v, which is up the picture. */
    @Test
    void normalMapLeans() {
        Material m = Material.diffuse("m", new Vec3(1, 1, 1)).withNormalImage(new Material.Image(0), 1);
        above(m, List.of(one(218, 128, 218, false)), 0.4, 0.4);
        assertTrue(point.nx > 0.6 && Math.abs(point.ny) < 0.02 && point.nz > 0.6, "red: " + point.nx + " " + point.ny + " " + point.nz);
        above(m, List.of(one(128, 218, 218, false)), 0.4, 0.4);
        assertTrue(point.ny > 0.6 && Math.abs(point.nx) < 0.02, "green: " + point.nx + " " + point.ny + " " + point.nz);
        above(m, List.of(one(128, 128, 255, false)), 0.4, 0.4);
        assertEquals(1, point.nz, 1e-4, "flat");
        frameIsSound();
    }

    private void frameIsSound() {
        double tn = point.tx * point.nx + point.ty * point.ny + point.tz * point.nz,
                tb = point.tx * point.bx + point.ty * point.by + point.tz * point.bz;
        assertEquals(0, tn, 1e-4);
        assertEquals(0, tb, 1e-4);
        assertEquals(1, Math.sqrt(point.nx * point.nx + point.ny * point.ny + point.nz * point.nz), 1e-4);
        assertEquals(1, Math.sqrt(point.bx * point.bx + point.by * point.by + point.bz * point.bz), 1e-4);
    }

    /** From below the same sheet faces down, and its back is known as such. */
    @Test
    void bothSides() {
        Material m = Material.diffuse("m", new Vec3(1, 1, 1));
        assertTrue(above(m, List.of(), 0.3, 0.3).front);
        assertEquals(1, point.gz, 1e-6);
        meet(SHEET, Affine.IDENTITY, m, List.of(), new Vec3(0.3, 0.3, -1), new Vec3(0, 0, 1));
        assertFalse(point.front);
        assertEquals(-1, point.gz, 1e-6);
        assertEquals(-1, point.nz, 1e-6);
    }

    /** A ball that is stretched, turned, mirrored and moved has the normals of an ellipsoid, merged into the world or not. */
    @Test
    void normalsOfPlacedMeshes() {
        Mesh ball = Shapes.sphere("ball", 1, 96, 0);
        Affine a = Affine.translation(4, -2, 1).times(Affine.rotation(new Vec3(1, 2, 3), 0.9)).times(Affine.scale(-2, 0.7, 1.2)),
                back = a.inverse();
        Material m = Material.diffuse("m", new Vec3(1, 1, 1));
        SplittableRandom r = new SplittableRandom(2);
        for (int copies = 1; copies <= 2; copies++) {
            // Two copies of a large mesh stay instances; one is merged.
            List<Instance> in = copies == 1 ? List.of(new Instance("a", 0, a, 0))
                    : List.of(new Instance("a", 0, a, 0), new Instance("b", 0, Affine.translation(50, 0, 0), 0));
            Geometry g = new Geometry(List.of(ball), in, POOL);
            SurfaceTable t = new SurfaceTable(List.of(m), List.of());
            Tracer tracer = Tracer.of(g, new LampShapes(List.of()), t, POOL);
            for (int i = 0; i < 300; i++) {
                Vec3 from = new Vec3(4 + r.nextDouble(-5, 5), -2 + r.nextDouble(-5, 5), 1 + r.nextDouble(-5, 5));
                Vec3 d = new Vec3(4, -2, 1).minus(from).normalized();
                if (back.point(from).length() < 1.05) continue;
                ray.set((float) from.x(), (float) from.y(), (float) from.z(), (float) d.x(), (float) d.y(), (float) d.z(),
                        Float.POSITIVE_INFINITY);
                assertTrue(tracer.closest(ray));
                point.load(g, t, ray);
                Vec3 local = back.point(new Vec3(point.px, point.py, point.pz));
                // The gradient of |M^-1 (p - o)|^2.
                Vec3 n = new Vec3(back.m00() * local.x() + back.m10() * local.y() + back.m20() * local.z(),
                        back.m01() * local.x() + back.m11() * local.y() + back.m21() * local.z(),
                        back.m02() * local.x() + back.m12() * local.y() + back.m22() * local.z()).normalized();
                assertEquals(1, n.dot(new Vec3(point.nx, point.ny, point.nz)), 2e-3, "copies " + copies + ", ray " + i);
                assertTrue(point.gx * d.x() + point.gy * d.y() + point.gz * d.z() < 0, "faces the ray");
                frameIsSound();
            }
        }
    }

    /** Glow follows its picture, and a cut-out is there only where its coverage says so. */
    @Test
    void glowAndCoverage() {
        Material glow = new Material("g", new Vec3(0, 0, 0), null, 1, Material.AlphaMode.OPAQUE, 0.5, 0, 1, null, null, 1, 1, 0, false, 0,
                new Vec3(100, 100, 100), new Material.Image(0));
        above(glow, List.of(four(true)), 0.25, 0.75);
        assertEquals(100, point.emitR, 0.5);
        assertEquals(0, point.emitG, 0.5);
        byte[] half = new byte[2 * 1 * 4];
        java.util.Arrays.fill(half, (byte) -1);
        half[7] = 0;
        Texture holes = new Texture("holes", 2, 1, half, true);
        Material cut = Material.diffuse("c", new Vec3(1, 1, 1)).withBaseImage(new Material.Image(0))
                .withAlpha(1, Material.AlphaMode.MASK, 0.5);
        Geometry g = new Geometry(List.of(SHEET), List.of(new Instance("s", 0, Affine.IDENTITY, 0)), POOL);
        SurfaceTable t = new SurfaceTable(List.of(cut), List.of(holes));
        Tracer tracer = Tracer.of(g, new LampShapes(List.of()), t, POOL);
        ray.set(0.25f, 0.5f, 1, 0, 0, -1, Float.POSITIVE_INFINITY);
        assertTrue(tracer.closest(ray), "the left half is there");
        ray.set(0.75f, 0.5f, 1, 0, 0, -1, Float.POSITIVE_INFINITY);
        assertFalse(tracer.closest(ray), "the right half is not");
        ray.set(0.75f, 0.5f, 1, 0, 0, -1, 5);
        assertTrue(tracer.open(ray), "and casts no shadow");
    }
}
