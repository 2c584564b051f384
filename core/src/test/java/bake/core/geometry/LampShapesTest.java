package bake.core.geometry;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** Lamp bodies against their own equations. */
class LampShapesTest {
    private static final Affine FRAME = Affine.pointing(new Vec3(1, -2, 3), new Vec3(1, 2, -1));

    private static Lamp lamp(Lamp.Kind kind, double w, double h, boolean visible) {
        return new Lamp("l", "g", kind, FRAME, w, h, 100, new Vec3(1, 1, 1), 30, 60, visible, false);
    }

    private static double meet(LampShapes s, Vec3 from, Vec3 d) {
        Ray r = new Ray();
        r.set((float) from.x(), (float) from.y(), (float) from.z(), (float) d.x(), (float) d.y(), (float) d.z(), Float.POSITIVE_INFINITY);
        return s.intersect(0, r);
    }

    /** Rays towards points on and around a sphere, from near and from a kilometre away. */
    @Test
    void sphere() {
        LampShapes s = new LampShapes(List.of(lamp(Lamp.Kind.SPHERE, 0.6, 0, true)));
        SplittableRandom r = new SplittableRandom(4);
        Vec3 c = FRAME.origin();
        for (int i = 0; i < 4000; i++) {
            double far = Math.pow(10, r.nextDouble(0, 3));
            Vec3 from = c.plus(new Vec3(r.nextDouble(-1, 1), r.nextDouble(-1, 1), r.nextDouble(-1, 1)).normalized().times(far));
            Vec3 aim = c.plus(new Vec3(r.nextDouble(-0.6, 0.6), r.nextDouble(-0.6, 0.6), r.nextDouble(-0.6, 0.6))),
                    d = aim.minus(from).normalized();
            double b = c.minus(from).dot(d), miss = c.minus(from).minus(d.times(b)).length();
            if (Math.abs(miss - 0.3) < 1e-3 + 1e-4 * far) continue; // too near the rim for single precision
            double t = meet(s, from, d);
            if (miss > 0.3) assertEquals(-1, t, "passes by at " + miss);
            else assertEquals(b - Math.sqrt(0.09 - miss * miss), t, 2e-3 + 2e-6 * far, "from " + far);
        }
    }

    /** Rectangle and disc: points of the plane inside are met, those outside are not, from both sides. */
    @Test
    void flatBodies() {
        LampShapes rectangle = new LampShapes(List.of(lamp(Lamp.Kind.RECTANGLE, 2, 0.8, true))),
                disc = new LampShapes(List.of(lamp(Lamp.Kind.DISC, 1.5, 0, true)));
        SplittableRandom r = new SplittableRandom(5);
        int met = 0;
        for (int i = 0; i < 4000; i++) {
            double x = r.nextDouble(-1.5, 1.5), y = r.nextDouble(-1.5, 1.5);
            Vec3 on = FRAME.point(new Vec3(x, y, 0)),
                    from = FRAME.point(new Vec3(r.nextDouble(-3, 3), r.nextDouble(-3, 3), (i % 2 == 0 ? 1 : -1) * r.nextDouble(0.3, 4)));
            Vec3 d = on.minus(from).normalized();
            double distance = on.minus(from).length();
            if (Math.abs(Math.abs(x) - 1) > 1e-3 && Math.abs(Math.abs(y) - 0.4) > 1e-3) {
                boolean in = Math.abs(x) < 1 && Math.abs(y) < 0.4;
                assertEquals(in ? distance : -1, meet(rectangle, from, d), 1e-4);
                met += in ? 1 : 0;
            }
            double radius = Math.hypot(x, y);
            if (Math.abs(radius - 0.75) > 1e-3) assertEquals(radius < 0.75 ? distance : -1, meet(disc, from, d), 1e-4);
        }
        assertTrue(met > 500);
    }

    /** Boxes hold their bodies; lamps without a body, or hidden ones, are not there. */
    @Test
    void boundsAndHidden() {
        LampShapes all = new LampShapes(List.of(lamp(Lamp.Kind.SPHERE, 0.6, 0, false), lamp(Lamp.Kind.POINT, 0, 0, true),
                lamp(Lamp.Kind.SPOT, 0, 0, true), lamp(Lamp.Kind.RECTANGLE, 2, 0.8, true), lamp(Lamp.Kind.DISC, 1.5, 0, true)));
        assertEquals(2, all.count());
        assertEquals(3, all.lamp(0));
        float[] box = new float[6];
        for (int k = 0; k < 2; k++) {
            all.bounds(k, box, 0);
            for (int i = 0; i < 400; i++) {
                double a = 2 * Math.PI * i / 400;
                Vec3 p = k == 0 ? FRAME.point(new Vec3(Math.signum(Math.cos(a)), 0.4 * Math.signum(Math.sin(a)), 0))
                        : FRAME.point(new Vec3(0.75 * Math.cos(a), 0.75 * Math.sin(a), 0));
                double[] q = {p.x(), p.y(), p.z()};
                for (int c = 0; c < 3; c++) assertTrue(q[c] >= box[c] - 1e-6 && q[c] <= box[3 + c] + 1e-6);
            }
        }
    }
}
