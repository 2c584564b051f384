package bake.core.geometry;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Faces in one plane are found with the area that they share, and nothing else is. */
class CoplanarFacesTest {
    private static final List<Mesh> MESHES = List.of(Shapes.quad("floor", 6, 4, 0), Shapes.quad("rug", 2, 1.5, 0),
            Shapes.box("table", -0.5, -0.5, 0, 0.5, 0.5, 0.7, 0));

    private static List<CoplanarFaces.Pair> find(Affine floor, Affine rug, Affine table) {
        return CoplanarFaces.find(MESHES, List.of(new Instance("floor", 0, floor, 0), new Instance("rug", 1, rug, 0),
                new Instance("table", 2, table, 0)), () -> false);
    }

    @Test
    void aRugInTheFloor() {
        List<CoplanarFaces.Pair> all = find(Affine.IDENTITY, Affine.translation(0.3, 0.2, 0), Affine.translation(-2, 0, 0));
        assertEquals(1, all.size(), "the table stands on the floor, back to back: " + all);
        assertEquals(1, all.getFirst().smaller());
        assertEquals(0, all.getFirst().larger());
        assertEquals(3, all.getFirst().area(), 1e-6);
        assertEquals(1, all.getFirst().normal().z(), 1e-9);
        // Half of it lies beyond the edge.
        assertEquals(1.5, find(Affine.IDENTITY, Affine.translation(3, 0, 0), Affine.translation(-2, 0, 0)).getFirst().area(), 1e-6);
    }

    @Test
    void whatIsNoFault() {
        assertTrue(find(Affine.IDENTITY, Affine.translation(0, 0, 0.001), Affine.translation(0, 0, 0)).isEmpty(), "a millimetre apart");
        assertTrue(find(Affine.IDENTITY, Affine.translation(4, 0, 0), Affine.translation(-2, 0, 0)).isEmpty(), "edge to edge");
        Affine flipped = Affine.pointing(Vec3.ZERO, new Vec3(0, 0, -1));
        assertTrue(find(Affine.IDENTITY, flipped, Affine.translation(-2, 0, 0)).isEmpty(), "back to back");
    }

    /** In any direction, far from the origin, and where the planes fall on two steps. */
    @Test
    void anywhere() {
        java.util.SplittableRandom r = new java.util.SplittableRandom(3);
        for (int k = 0; k < 200; k++) {
            Vec3 n = new Vec3(r.nextDouble() - 0.5, r.nextDouble() - 0.5, r.nextDouble() - 0.5).normalized(),
                    at = new Vec3(r.nextDouble(-60, 60), r.nextDouble(-60, 60), r.nextDouble(-5, 5));
            Affine a = Affine.pointing(at, n), b = Affine.pointing(at.plus(n.times(r.nextDouble(-2e-5, 2e-5))), n);
            List<CoplanarFaces.Pair> all = find(a, b, Affine.translation(0, 0, 500));
            assertEquals(1, all.size(), "place " + k + ", facing " + n);
            assertEquals(3, all.getFirst().area(), 0.02);
            assertTrue(all.getFirst().normal().dot(n) > 0.999);
        }
    }
}
