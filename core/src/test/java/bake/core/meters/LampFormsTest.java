package bake.core.meters;

import bake.core.compiled.RenderScene;
import bake.core.path.PathTracer;
import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.PhotometricWeb;
import java.util.function.ToDoubleFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Every kind of lamp against its closed form at ten receivers, within half a percent (analytic cases as in CIE 171:2006). */
class LampFormsTest {
    private static final double H = 2, WITHIN = 0.005;

    private static Affine down(double z) {
        return Affine.frame(new Vec3(1, 0, 0), new Vec3(0, -1, 0), new Vec3(0, 0, -1), new Vec3(0, 0, z));
    }

    private static Lamp lamp(Lamp.Kind kind, double w, double h, boolean visible) {
        return new Lamp("lamp", "lamps", kind, down(H), w, h, 1500, grey(1), 40, 90, visible, false);
    }

    /** Ten receivers on the floor, out to 4.5 m from below the lamp; some are turned towards it. */
    private static void agrees(Lamp l, int samples, ToDoubleFunction<Vec3> floor) {
        for (int k = 0; k < 10; k++) {
            Vec3 at = new Vec3(0.5 * k * 0.9, 0.5 * k * 0.43, 0);
            var r = new TestScene().lamp(l).measure(at, Vec3.UP, samples);
            double want = floor.applyAsDouble(at);
            assertTrue(r.error() < want * 0.0015 + 1e-9, "receiver " + k + ": standard error " + r.error() + " is too large to judge "
                    + want);
            assertEquals(want, r.lux(), WITHIN * want, "receiver " + k + " of " + l.kind());
        }
    }

    private static double inverseSquare(double candela, Vec3 at) {
        double d2 = at.x() * at.x() + at.y() * at.y() + H * H;
        return candela * H / (d2 * Math.sqrt(d2));
    }

    @Test
    void point() {
        agrees(lamp(Lamp.Kind.POINT, 0, 0, true), 64, p -> inverseSquare(1500 / (4 * Math.PI), p));
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void sphere(boolean visible) {
        agrees(lamp(Lamp.Kind.SPHERE, 0.6, 0, visible), 1 << 13, p -> inverseSquare(1500 / (4 * Math.PI), p));
    }

    /** Howell's catalogue, B-13: a disc parallel to a small plane. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void disc(boolean visible) {
        double r2 = 0.25;
        agrees(lamp(Lamp.Kind.DISC, 1, 0, visible), 1 << 14, p -> {
            double x2 = p.x() * p.x() + p.y() * p.y(), a = x2 + H * H;
            return 1500 / (Math.PI * r2) * 0.5 * (1 - (a - r2) / Math.sqrt((a + r2) * (a + r2) - 4 * x2 * r2));
        });
    }

    /** Lambert's formula for a rectangle, added up from its corners. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void rectangle(boolean visible) {
        double w = 1.2, d = 0.5;
        agrees(lamp(Lamp.Kind.RECTANGLE, w, d, visible), 1 << 14, p ->
                1500 / (w * d) * (corner(p.x() + w / 2, p.y() + d / 2) - corner(p.x() - w / 2, p.y() + d / 2)
                - corner(p.x() + w / 2, p.y() - d / 2) + corner(p.x() - w / 2, p.y() - d / 2)));
    }

    private static double corner(double a, double b) {
        double x = a / H, y = b / H, p = Math.sqrt(1 + x * x), q = Math.sqrt(1 + y * y);
        return (x / p * Math.atan(y / p) + y / q * Math.atan(x / q)) / (2 * Math.PI);
    }

    /**
     * A thin tube is a line whose intensity goes with the sine of the angle to it: the integral over its length of
     * I/l sin(angle) H/d^3, by Simpson's rule.
     */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void tube(boolean visible) {
        double length = 1.5;
        agrees(lamp(Lamp.Kind.TUBE, 0.012, length, visible), 1 << 14, p -> {
            double perMetre = 1500 / (Math.PI * Math.PI) / length, sum = 0;
            int n = 2000;
            for (int i = 0; i <= n; i++) {
                double t = -length / 2 + length * i / n, x = p.x() - t, d2 = x * x + p.y() * p.y() + H * H;
                double sin = Math.sqrt((p.y() * p.y() + H * H) / d2);
                sum += perMetre * sin * H / (d2 * Math.sqrt(d2)) * (i == 0 || i == n ? 1 : i % 2 == 1 ? 4 : 2);
            }
            return sum * length / n / 3;
        });
    }

    /** A thick tube keeps its lumens: what arrives on a large sphere around it. */
    @Test
    void tubeKeepsItsLumens() {
        LightMeter meter = new LightMeter(new TestScene().lamp(lamp(Lamp.Kind.TUBE, 0.4, 0.9, true)).compile(), 0);
        double flux = 0, radius = 2.5;
        int n = 60;
        for (int i = 0; i < n; i++) {
            // By the angle to the tube's axis, x; the same all around it.
            double c = 1 - 2 * (i + 0.5) / n, s = Math.sqrt(1 - c * c);
            Vec3 out = new Vec3(c, s * 0.6, s * 0.8);
            flux += meter.measure(new Vec3(radius * c, radius * s * 0.6, H + radius * s * 0.8), out.times(-1), 1 << 12, 5, i).lux() * 4
                    * Math.PI * radius * radius / n;
        }
        assertEquals(1500, flux, 1500 * WITHIN);
    }

    /** A web of intensity cos^2 about its axis: inverse square and cosine law with that intensity, quarter by quarter. */
    @Test
    void web() {
        float[] v = new float[91], h = {0, 30, 60, 90};
        float[] cd = new float[91 * 4];
        for (int i = 0; i <= 90; i++) {
            v[i] = i;
            double c = Math.cos(Math.toRadians(i));
            for (int j = 0; j < 4; j++) cd[91 * j + i] = (float) (1000 * c * c * (1 + h[j] / 90));
        }
        PhotometricWeb w = new PhotometricWeb(PhotometricWeb.Angle.C, v, h, cd);
        // Flux: 2 pi times the integral of cos^2, a third, times the mean of the turn, 1.5.
        assertEquals(2 * Math.PI / 3 * 1000 * 1.5, w.lumens(), 0.002 * w.lumens());
        Lamp l = new Lamp("w", "g", Lamp.Kind.WEB, down(H), 0, 0, w.lumens(), grey(1), 0, 180, true, false, true, 1, w);
        agrees(l, 64, p -> {
            double d2 = p.x() * p.x() + p.y() * p.y() + H * H, c = H / Math.sqrt(d2),
                    turn = Math.toDegrees(Math.atan2(Math.abs(p.y()), Math.abs(p.x())));
            return inverseSquare(1000 * c * c * (1 + turn / 90), p);
        });
    }

    /** A lamp that the camera does not see lights all the same, and one that only reflections do not see. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3})
    void seenOrNot(int which) {
        boolean visible = (which & 1) > 0, mirrored = (which & 2) > 0;
        Lamp l = new Lamp("l", "g", Lamp.Kind.SPHERE, down(H), 0.6, 0, 1500, grey(1), 0, 60, visible, false, mirrored, 3, null);
        RenderScene s = new TestScene().lamp(l).compile();
        assertEquals(inverseSquare(1500 / (4 * Math.PI), new Vec3(1, 0, 0)),
                new LightMeter(s, 3).measure(new Vec3(1, 0, 0), Vec3.UP, 1 << 12, 3, 0).lux(), 0.5);
        PathTracer t = new PathTracer(s, 4, 0);
        float[] out = new float[t.channels()];
        var random = new bake.core.math.PathSampler();
        random.start(0, 0, 0, 1);
        t.radiance(0, 0, 0, 0, 0, 1, random, out);
        double seen = 0;
        for (float f : out) seen += f;
        assertEquals(visible, seen > 0);
    }

    /** What is said of illuminance at a distance is what a meter reads there. */
    @ParameterizedTest
    @ValueSource(strings = {"POINT", "SPHERE", "DISC", "RECTANGLE", "TUBE", "SPOT"})
    void luxAtADistance(String kind) {
        Lamp l = lamp(Lamp.Kind.valueOf(kind), kind.equals("TUBE") ? 0.01 : kind.equals("POINT") || kind.equals("SPOT") ? 0 : 0.5, 0.8,
                true);
        var r = new TestScene().lamp(l).measure(new Vec3(0, 0, 0), Vec3.UP, 1 << 14);
        assertEquals(l.luxAt(H), r.lux(), WITHIN * r.lux() + 3 * r.error());
    }
}
