package bake.core.opening;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.core.scene.Portal;
import java.util.List;
import org.junit.jupiter.api.Test;

class DrawingTest {
    private static List<Vec3> flat(double... xz) {
        List<Vec3> out = new java.util.ArrayList<>();
        for (int i = 0; i < xz.length; i += 2) out.add(new Vec3(xz[i], 0, xz[i + 1]));
        return out;
    }

    @Test
    void looksMeetPlanes() {
        Vec3 p = Drawing.meet(new Vec3(0, 2, 0), new Vec3(0, -1, 0), new Vec3(1, 0, 1), new Vec3(0, 1, 0.5).normalized());
        assertEquals(2, p.y(), 1e-9);
        assertEquals(2, p.z(), 1e-9);
        assertNull(Drawing.meet(new Vec3(0, 2, 0), new Vec3(0, -1, 0), Vec3.ZERO, new Vec3(0, -1, 0)), "behind");
        assertNull(Drawing.meet(new Vec3(0, 2, 0), new Vec3(0, -1, 0), Vec3.ZERO, new Vec3(1, 0, 0)), "along it");
    }

    /** On an upright wall that stands askew the sides are level and plumb; on a roof they follow its slope. */
    @Test
    void rectangles() {
        for (Vec3 n : new Vec3[] {new Vec3(0.6, 0.8, 0), new Vec3(0, 0.6, 0.8), Vec3.UP, new Vec3(0, 0.1, 1).normalized()}) {
            Vec3 a = new Vec3(1, 2, 3), u = Math.abs(n.z()) > 0.9 ? new Vec3(0, 1, 0).cross(n).normalized() : Vec3.UP.cross(n).normalized(),
                    b = a.plus(u.times(2)).plus(n.cross(u).times(0.5));
            List<Vec3> c = Drawing.rectangle(a, b, n);
            assertEquals(1, new Portal("p", c).size(), 1e-6);
            for (int i = 0; i < 4; i++) {
                assertEquals(0, c.get(i).minus(a).dot(n), 1e-9);
                assertEquals(0, c.get((i + 1) % 4).minus(c.get(i)).dot(c.get((i + 2) % 4).minus(c.get((i + 1) % 4))), 1e-6, "right angles");
            }
            assertTrue(c.stream().anyMatch(x -> x.minus(b).length() < 1e-6));
        }
    }

    @Test
    void facesTheLook() {
        List<Vec3> c = flat(0, 0, 1, 0, 1, 1, 0, 1);
        for (Vec3 along : new Vec3[] {new Vec3(0.2, 1, 0), new Vec3(0.2, -1, 0)})
            assertTrue(Drawing.facing("p", c, along).normal().dot(along) < 0);
    }

    @Test
    void faults() {
        assertNull(Drawing.fault(flat(0, 0, 1, 0, 1, 1, 0.5, 1.4, 0, 1)));
        assertNull(Drawing.fault(flat(0, 0, 2, 0, 2, 2, 1, 2, 1, 1, 0, 1)), "an angle that goes inwards is no crossing");
        assertTrue(Drawing.fault(flat(0, 0, 1, 0)).contains("three"));
        assertTrue(Drawing.fault(flat(0, 0, 1, 0, 2, 0)).contains("size"));
        assertTrue(Drawing.fault(flat(0, 0, 1, 1, 1, 0, 0.5, 1.5)).contains("cross"));
        assertNotNull(Drawing.fault(flat(0, 0, 1, 1, 1, 0, 0, 1)));
    }
}
