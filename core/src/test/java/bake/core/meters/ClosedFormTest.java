package bake.core.meters;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whole paths against closed forms. Every Monte Carlo check states its standard error and uses it as the bound. */
class ClosedFormTest {
    private static final Vec3 UP = Vec3.UP;

    /** The estimate agrees within three standard errors, and the error itself is small enough to mean something. */
    private static void agrees(double expected, LightMeter.Reading r, double relative) {
        assertTrue(r.error() <= expected * relative, "standard error " + r.error() + " is too large to judge " + expected);
        assertEquals(expected, r.lux(), 3.5 * r.error() + expected * 2e-4, "expected " + expected + ", measured " + r);
    }

    private static Lamp lamp(Lamp.Kind kind, Affine frame, double w, double h, double lm, boolean visible) {
        return new Lamp("lamp", "lamps", kind, frame, w, h, lm, new Vec3(1, 1, 1), 40, 60, visible, false);
    }

    private static Affine downFrom(double x, double y, double z) {
        return Affine.pointing(new Vec3(x, y, z), new Vec3(0, 0, -1));
    }

    /** Integrating sphere: E = Phi rho / (A (1 - rho)) for the reflected part (the sphere's own closed form). */
    @Test
    @Tag("thorough")
    void closedSphere() {
        double rho = 0.7, radius = 1, lumens = 1000;
        TestScene s = new TestScene();
        int m = s.material(Material.diffuse("paint", grey(rho)));
        s.add(Shapes.sphere("shell", radius, 96, m)).lamp(lamp(Lamp.Kind.POINT, Affine.IDENTITY, 0, 0, lumens, true));
        // The faceted sphere has a little less area than the true one.
        double area = 0;
        var mesh = Shapes.sphere("shell", radius, 96, m);
        for (int t = 0; t < mesh.triangles(); t++) area += area(mesh.positions(), mesh.indices(), t);
        double inscribed = 0.9993;
        LightMeter.Reading r = s.measure(new Vec3(0, 0, -inscribed), UP, 1 << 17);
        double direct = lumens / (4 * Math.PI * inscribed * inscribed);
        agrees(direct + lumens * rho / (area * (1 - rho)), r, 0.0012);
    }

    private static double area(float[] p, int[] idx, int t) {
        Vec3[] v = new Vec3[3];
        for (int k = 0; k < 3; k++) v[k] = new Vec3(p[3 * idx[3 * t + k]], p[3 * idx[3 * t + k] + 1], p[3 * idx[3 * t + k] + 2]);
        return v[1].minus(v[0]).cross(v[2].minus(v[0])).length() / 2;
    }

    /** Howell's catalogue of configuration factors, C-11: parallel unit squares one apart, 0.1998. */
    @Test
    void parallelSquares() {
        assertEquals(0.1998, squareFactor(false), 0.003 * 0.1998);
    }

    /** Howell's catalogue, C-14: unit squares at a right angle with a common edge, 0.2000. */
    @Test
    @Tag("thorough")
    void perpendicularSquares() {
        assertEquals(0.2000, squareFactor(true), 0.003 * 0.2);
    }

    /** Mean illuminance of a unit square from a glowing one, over its exitance. */
    private static double squareFactor(boolean upright) {
        TestScene s = new TestScene();
        int glow = s.material(Material.glowing("glow", grey(1 / Math.PI)));
        Affine place = upright
                ? Affine.pointing(new Vec3(-0.5, 0, 0.5), new Vec3(1, 0, 0)) : Affine.translation(0, 0, 1);
        s.add(Shapes.quad("source", 1, 1, glow), place);
        LightMeter meter = new LightMeter(s.compile(), 0);
        double sum = 0, errors = 0;
        int n = 24;
        for (int i = 0; i < n; i++)
            for (int j = 0; j < n; j++) {
                var r = meter.measure(new Vec3((i + 0.5) / n - 0.5, (j + 0.5) / n - 0.5, 0), UP, upright ? 2048 : 256, 3, i * n + j);
                sum += r.lux() / (n * n);
                errors += r.error() * r.error() / Math.pow(n, 4);
            }
        assertTrue(3 * Math.sqrt(errors) < 0.003 * 0.2, "standard error " + Math.sqrt(errors));
        return sum;
    }

    /** Inverse square and cosine law. Receivers as in the analytic cases of CIE 171:2006. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.5, 1, 2, 4})
    void pointSource(double x) {
        var r = new TestScene().lamp(lamp(Lamp.Kind.POINT, downFrom(0, 0, 3), 0, 0, 1000, true)).measure(new Vec3(x, 0, 0), UP, 64);
        double d2 = x * x + 9, expected = 1000 / (4 * Math.PI) / d2 * 3 / Math.sqrt(d2);
        assertEquals(expected, r.lux(), expected * 1e-4);
    }

    /** A spot's flux is all that arrives on a large enough sphere around it: here a fine ring integral of its floor. */
    @Test
    void spotKeepsItsLumens() {
        TestScene s = new TestScene().lamp(lamp(Lamp.Kind.SPOT, downFrom(0, 0, 1), 0, 0, 500, true));
        LightMeter meter = new LightMeter(s.compile(), 0);
        double flux = 0;
        int n = 2000;
        double edge = Math.tan(Math.toRadians(30.5));
        for (int i = 0; i < n; i++) {
            double x = edge * (i + 0.5) / n;
            flux += meter.measure(new Vec3(x, 0, 0), UP, 1, 1, i).lux() * 2 * Math.PI * x * edge / n;
        }
        assertEquals(500, flux, 1.5);
    }

    /** Disc parallel to the receiver, on and off its axis: E = pi L/2 (1 - (1+Z2-X2)/sqrt((1+Z2+X2)^2-4X2)...), Howell B-13. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.3, 0.8, 1.5, 3})
    void discSource(double x) {
        double radius = 0.5, h = 2, lm = 1200;
        Lamp l = lamp(Lamp.Kind.DISC, downFrom(0, 0, h), 2 * radius, 0, lm, true);
        double luminance = lm / (Math.PI * Math.PI * radius * radius);
        double a = x * x + h * h, r2 = radius * radius;
        double factor = 0.5 * (1 - (a - r2) / Math.sqrt((a + r2) * (a + r2) - 4 * x * x * r2));
        agrees(Math.PI * luminance * factor, new TestScene().lamp(l).measure(new Vec3(x, 0, 0), UP, 1 << 14), 0.002);
    }

    /** Rectangle parallel to the receiver below its corner (Lambert's formula; Howell B-3), added up from four corners. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.4, 1, 2, 3.5})
    void rectangleSource(double x) {
        double w = 1.2, d = 0.6, h = 1.5, lm = 3000, luminance = lm / (Math.PI * w * d);
        Lamp l = lamp(Lamp.Kind.RECTANGLE, Affine.frame(new Vec3(1, 0, 0), new Vec3(0, -1, 0), new Vec3(0, 0, -1), new Vec3(0, 0, h)), w, d,
                lm, true);
        double f = corner(x + w / 2, d / 2, h) * 2 - corner(x - w / 2, d / 2, h) * 2;
        agrees(Math.PI * luminance * f, new TestScene().lamp(l).measure(new Vec3(x, 0, 0), UP, 1 << 14), 0.002);
    }

    /** Factor of a rectangle spanning (0,0) to (a,b) at height h over the origin; odd in a. */
    private static double corner(double a, double b, double h) {
        double x = a / h, y = b / h, p = Math.sqrt(1 + x * x), q = Math.sqrt(1 + y * y);
        return (x / p * Math.atan(y / p) + y / q * Math.atan(x / q)) / (2 * Math.PI);
    }

    /** A sphere far or near lights like a point of its intensity, as long as it is wholly above the receiver's plane. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.7, 2})
    void sphereSource(double x) {
        double h = 1.4;
        Lamp l = lamp(Lamp.Kind.SPHERE, downFrom(0, 0, h), 0.8, 0, 900, true);
        double d2 = x * x + h * h, expected = 900 / (4 * Math.PI) / d2 * h / Math.sqrt(d2);
        agrees(expected, new TestScene().lamp(l).measure(new Vec3(x, 0, 0), UP, 1 << 13), 0.002);
    }

    /** A hidden lamp lights the same as a visible one. */
    @Test
    void hiddenLampLightsTheSame() {
        var seen = new TestScene().lamp(lamp(Lamp.Kind.SPHERE, downFrom(0, 0, 1.4), 0.8, 0, 900, true)).measure(Vec3.ZERO, UP, 1 << 13);
        var hidden = new TestScene().lamp(lamp(Lamp.Kind.SPHERE, downFrom(0, 0, 1.4), 0.8, 0, 900, false)).measure(Vec3.ZERO, UP, 1 << 13);
        assertEquals(seen.lux(), hidden.lux(), 3.5 * Math.hypot(seen.error(), hidden.error()));
    }

    /** Uniform surroundings of luminance L give pi L on an open plane. */
    @Test
    void openSky() {
        agrees(Math.PI * 100, new TestScene().around(100).measure(Vec3.ZERO, UP, 1 << 12), 0.002);
    }

    /** A pane over the whole view dims uniform surroundings by the hemisphere's mean transmittance, computed here. */
    @Test
    void paneOverTheReceiver() {
        TestScene s = new TestScene().around(100);
        int glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        s.add(Shapes.box("hood", -50, -50, -50, 50, 50, 50, glass));
        // The hood's inner mirror sees itself again and again: what is lost by reflection comes back as the same
        // luminance, so a closed clear hood changes nothing.
        agrees(Math.PI * 100, s.measure(Vec3.ZERO, UP, 1 << 14), 0.004);
    }

    /** A pane stained by a texture of one colour is a pane of that colour, for light that is aimed at and light that is met. */
    @Test
    void stainedGlass() {
        byte[] texels = new byte[4 * 4 * 4];
        for (int i = 0; i < texels.length; i += 4) {
            texels[i] = (byte) 204;
            texels[i + 1] = 102;
            texels[i + 2] = 51;
            texels[i + 3] = -1;
        }
        for (boolean lamp : new boolean[] {true, false}) {
            double[] lux = new double[2];
            for (int kind = 0; kind < 2; kind++) {
                TestScene s = new TestScene().around(lamp ? 0 : 100);
                if (lamp) s.lamp(new Lamp("p", "g", Lamp.Kind.POINT, Affine.translation(0.2, 0.1, 3), 0, 0, 1000, grey(1), 0, 60, true,
                        false));
                int image = s.texture(new bake.core.scene.Texture("stain", 4, 4, texels, false));
                Material plain = Material.glass("pane", kind == 0 ? new Vec3(0.8, 0.4, 0.2) : grey(1), 0, 1.5, true);
                int glass = s.material(kind == 0 ? plain : plain.withBaseImage(new Material.Image(image)));
                s.add(Shapes.quad("pane", 40, 40, glass), Affine.translation(0, 0, 1));
                lux[kind] = s.measure(Vec3.ZERO, UP, 1 << 13).lux();
            }
            assertEquals(lux[0], lux[1], 0.006 * lux[0], lamp ? "lamp" : "sky");
        }
    }
}
