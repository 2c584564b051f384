package bake.core.meters;

import bake.core.path.PathTracer;
import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Glowing triangles light what is near, slanting and far from the origin as the closed form of a parallel rectangle says (Howell B-3). */
class GlowingMeshTest {
    private static final Vec3 DOWN = new Vec3(0, 0, -1);

    /** Factor of a rectangle spanning (0, 0) to (a, b) at a distance h; odd in a and b. */
    private static double corner(double a, double b, double h) {
        double x = a / h, y = b / h, p = Math.sqrt(1 + x * x), q = Math.sqrt(1 + y * y);
        return (x / p * Math.atan(y / p) + y / q * Math.atan(x / q)) / (2 * Math.PI);
    }

    private static double factor(double x, double w, double d, double h) {
        return 2 * (corner(x + w / 2, d / 2, h) - corner(x - w / 2, d / 2, h));
    }

    private static void check(double expected, LightMeter.Reading r) {
        assertTrue(r.error() < 0.006 * expected, "standard error " + r.error() + " of " + expected);
        assertEquals(expected, r.lux(), 3.5 * r.error() + 1e-3 * expected, "measured " + r);
    }

    /** A cove: a strip of 3 cm lies 12 cm under a ceiling and is looked at more and more along its plane. */
    @ParameterizedTest
    @CsvSource({"0.02, 0", "0.3, 0", "0.6, 0", "1, 0", "0.6, 80", "1, 300"})
    void stripUnderCeiling(double x, double away) {
        double w = 0.03, d = 2, h = 0.12, luminance = 5000;
        TestScene s = new TestScene();
        int glow = s.material(Material.glowing("glow", grey(luminance))), wall = s.material(Material.diffuse("wall", grey(0)));
        s.add(Shapes.quad("strip", w, d, glow), Affine.translation(away, away, 0));
        s.add(Shapes.box("ceiling", away - 2, away - 2, h, away + 2, away + 2, h + 0.1, wall));
        check(Math.PI * luminance * factor(x, w, d, h), meter(s, 0).measure(new Vec3(away + x, away, h), DOWN, 1 << 16, 3, 0));
    }

    /** A light ceiling of one sheet far from the origin, seen from all over the floor. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 1, 2.9})
    void lightCeiling(double x) {
        double w = 6, h = 2.5, luminance = 800, away = 100;
        TestScene s = new TestScene();
        int glow = s.material(Material.glowing("glow", grey(luminance)));
        s.add(Shapes.quad("ceiling", w, w, glow), Affine.translation(away, 0, h));
        check(Math.PI * luminance * factor(x, w, w, h), meter(s, 0).measure(new Vec3(away + x, 0, 0), Vec3.UP, 1 << 16, 3, 0));
    }

    /**
     * Paths that bounce off a surface right beside the strip must find it by light sampling too: a matt surface's luminance, seen by the
     * camera's own way.
     */
    @Test
    void surfaceBesideStrip() {
        double w = 0.03, d = 2, h = 0.12, luminance = 5000, rho = 0.5;
        TestScene s = new TestScene();
        int glow = s.material(Material.glowing("glow", grey(luminance))), wall = s.material(Material.diffuse("wall", grey(rho)));
        s.add(Shapes.quad("strip", w, d, glow)).add(Shapes.box("ceiling", -2, -2, h, 2, 2, h + 0.1, wall));
        PathTracer t = new PathTracer(s.compile(), 1, 0);
        var random = new bake.core.math.PathSampler();
        float[] sum = new float[t.channels()];
        int n = 1 << 15;
        double all = 0;
        for (int i = 0; i < n; i++) {
            random.start(1, 2, i, 9);
            java.util.Arrays.fill(sum, 0);
            t.radiance(0.6f, 0, -1, 0, 0, 1, random, sum);
            for (int g = 0; g < sum.length; g += 3) all += sum[g] / n;
        }
        double expected = rho * luminance * factor(0.6, w, d, h);
        assertEquals(expected, all, 0.01 * expected);
    }

    /** What is cut out of a glowing sheet, or thin, gives no light: half of it gives half. */
    @ParameterizedTest
    @ValueSource(strings = {"thin", "pane"})
    void partlyThere(String how) {
        double luminance = 1000, x = 0.4, w = 1, h = 1;
        TestScene s = new TestScene();
        Material m = Material.glowing("glow", grey(luminance));
        int glow = s.material(how.equals("thin") ? m.withAlpha(0.5, Material.AlphaMode.BLEND, 0.5)
                : Material.glass("glow", grey(1), 0, 1.5, true).withEmission(grey(luminance)));
        s.add(Shapes.quad("sheet", w, w, glow), Affine.translation(0, 0, h));
        double share = how.equals("thin") ? 0.5 : 1;
        // Light sampling and bounces must both count it, or they count it too little together.
        check(share * Math.PI * luminance * factor(x, w, w, h), meter(s, 0).measure(new Vec3(x, 0, 0), Vec3.UP, 1 << 16, 3, 0));
    }

    private static LightMeter meter(TestScene s, int bounces) {
        return new LightMeter(s.compile(), bounces);
    }
}
