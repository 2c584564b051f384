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
import org.junit.jupiter.api.Test;

/**
 * A closed room with a ceiling of 0.7, walls of 0.5 and a floor of 0.2 (common practice for interiors, no source), lit by a small
 * ceiling lamp: path tracing against radiosity (Goral et al. 1984), solved here on a fine mesh and gathered at the point. The two
 * share nothing: patches, form factors by contour integrals (Sparrow 1963), Gauss and Seidel's iteration.
 */
class RadiosityTest {
    private static final double W = 6, D = 4, H = 3, LAMP = 0.6, LUMENS = 4000;
    private static final int CELLS = 9;

    /** A rectangle: corner, two edges, inward normal. */
    private record Patch(Vec3 o, Vec3 a, Vec3 b, Vec3 n, double rho) {
        Vec3 at(double u, double v) {
            return o.plus(a.times(u)).plus(b.times(v));
        }

        double area() {
            return a.cross(b).length();
        }
    }

    /** Factor from a small plane at p to a rectangle that is wholly above it: Lambert's formula over the edges. */
    private static double pointFactor(Vec3 p, Vec3 n, Patch q) {
        Vec3[] c = {q.at(0, 0).minus(p), q.at(1, 0).minus(p), q.at(1, 1).minus(p), q.at(0, 1).minus(p)};
        double sum = 0;
        for (int i = 0; i < 4; i++) {
            Vec3 u = c[i], v = c[(i + 1) % 4], x = u.cross(v);
            double l = x.length();
            if (l < 1e-14) continue;
            sum += n.dot(x) / l * Math.atan2(l, u.dot(v));
        }
        return Math.abs(sum) / (2 * Math.PI);
    }

    private static java.util.List<Patch> room() {
        java.util.List<Patch> out = new java.util.ArrayList<>();
        Vec3 x = new Vec3(W, 0, 0), y = new Vec3(0, D, 0), z = new Vec3(0, 0, H), o = Vec3.ZERO;
        wall(out, o, x, y, new Vec3(0, 0, 1), 0.2);
        wall(out, z, x, y, new Vec3(0, 0, -1), 0.7);
        wall(out, o, x, z, new Vec3(0, 1, 0), 0.5);
        wall(out, y, x, z, new Vec3(0, -1, 0), 0.5);
        wall(out, o, y, z, new Vec3(1, 0, 0), 0.5);
        wall(out, x, y, z, new Vec3(-1, 0, 0), 0.5);
        return out;
    }

    private static void wall(java.util.List<Patch> out, Vec3 o, Vec3 a, Vec3 b, Vec3 n, double rho) {
        for (int i = 0; i < CELLS; i++)
            for (int j = 0; j < CELLS; j++)
                out.add(new Patch(o.plus(a.times(i / (double) CELLS)).plus(b.times(j / (double) CELLS)), a.times(1.0 / CELLS),
                        b.times(1.0 / CELLS), n, rho));
    }

    @Test
    void floorOfARoom() {
        var patches = room();
        int n = patches.size();
        Patch lamp = new Patch(new Vec3(W / 2 - LAMP / 2, D / 2 - LAMP / 2, H - 0.01), new Vec3(LAMP, 0, 0), new Vec3(0, LAMP, 0),
                new Vec3(0, 0, -1), 0);
        double exitance = LUMENS / (LAMP * LAMP);
        double[] direct = new double[n], b = new double[n];
        float[][] factor = new float[n][n];
        for (int i = 0; i < n; i++) {
            Patch p = patches.get(i);
            // Factors of a patch are the mean over four places on it.
            for (int s = 0; s < 4; s++) {
                Vec3 at = p.at(0.25 + 0.5 * (s % 2), 0.25 + 0.5 * (s / 2));
                if (p.n().z() >= 0 && at.z() < H - 0.02) direct[i] += pointFactor(at, p.n(), lamp) * exitance / 4;
                for (int j = 0; j < n; j++) if (!patches.get(j).n().equals(p.n()))
                    factor[i][j] += (float) (pointFactor(at, p.n(), patches.get(j)) / 4);
            }
        }
        for (int round = 0; round < 60; round++)
            for (int i = 0; i < n; i++) {
                double e = direct[i];
                for (int j = 0; j < n; j++) e += factor[i][j] * b[j];
                b[i] = patches.get(i).rho() * e;
            }
        TestScene s = new TestScene();
        int floor = s.material(Material.diffuse("floor", grey(0.2))), ceiling = s.material(Material.diffuse("ceiling", grey(0.7))),
                wall = s.material(Material.diffuse("wall", grey(0.5)));
        s.add(Shapes.quad("floor", W, D, floor), Affine.translation(W / 2, D / 2, 0))
                .add(Shapes.quad("ceiling", W, D, ceiling), Affine.translation(W / 2, D / 2, H));
        s.add(Shapes.box("south", -1, -1, -1, W + 1, 0, H + 1, wall)).add(Shapes.box("north", -1, D, -1, W + 1, D + 1, H + 1, wall));
        s.add(Shapes.box("west", -1, -1, -1, 0, D + 1, H + 1, wall)).add(Shapes.box("east", W, -1, -1, W + 1, D + 1, H + 1, wall));
        s.lamp(new Lamp("lamp", "l", Lamp.Kind.RECTANGLE, Affine.pointing(new Vec3(W / 2, D / 2, H - 0.01), new Vec3(0, 0, -1)), LAMP, LAMP,
                LUMENS, grey(1), 0, 60, true, false));
        LightMeter meter = new LightMeter(s.compile(), 200);
        int k = 0;
        for (double[] at : new double[][] {{3, 2}, {1, 1}, {5, 3}, {0.5, 2}, {3, 3.5}}) {
            Vec3 p = new Vec3(at[0], at[1], 0);
            double expected = pointFactor(p, Vec3.UP, lamp) * exitance;
            for (int j = 0; j < n; j++) if (patches.get(j).n().z() <= 0) expected += pointFactor(p, Vec3.UP, patches.get(j)) * b[j];
            var r = meter.measure(new Vec3(at[0], at[1], 1e-4), Vec3.UP, 1 << 16, 3, k++);
            assertTrue(r.error() < 0.003 * expected, "standard error " + r.error() + " of " + expected);
            assertEquals(expected, r.lux(), 0.01 * expected, "floor at " + at[0] + ", " + at[1]);
        }
    }
}
