package bake.core.light;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.math.Affine;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What leaves sources is their luminous flux. */
class EmissionTest {
    private static final int RAYS = 200_000;

    private static double[] flux(RenderScene s) {
        Emission e = new Emission(s.lights(), s.openings(), s.tracer().bounds(), new Vec3(0, 0, 0));
        PathSampler random = new PathSampler();
        double[] sum = new double[s.lights().groups().size()];
        for (int i = 0; i < RAYS; i++) {
            random.start(0, 0, i, 3);
            if (e.emit(random)) sum[e.group] += e.g / RAYS;
        }
        return sum;
    }

    /** The lumens of a lamp are what it is given. */
    @ParameterizedTest
    @EnumSource(value = Lamp.Kind.class, names = {"WEB"}, mode = EnumSource.Mode.EXCLUDE)
    void lamps(Lamp.Kind kind) {
        TestScene t = new TestScene();
        RenderScene s = t.add(Shapes.quad("floor", 1, 1, t.material(Material.diffuse("m", grey(0.5)))), Affine.translation(0, 0, -2))
                .lamp(new Lamp("l", "l", kind, Affine.IDENTITY, 0.3, kind == Lamp.Kind.RECTANGLE || kind == Lamp.Kind.TUBE ? 0.8 : 0, 1000,
                grey(1), 20, 60, true, false)).compile();
        double[] f = flux(s);
        // A spot's candela are set by its mean cone; its soft edge gives or takes a little.
        assertEquals(1000, f[s.lights().groups().indexOf("l")], kind == Lamp.Kind.SPOT ? 60 : 8);
    }

    /** A glowing sheet gives pi times its luminance times its area from each side; a body from its outer side alone. */
    @Test
    void glow() {
        TestScene t = new TestScene();
        int m = t.material(Material.glowing("g", grey(100)));
        RenderScene sheet = t.add(Shapes.quad("q", 2, 0.5, m)).compile();
        assertEquals(2 * Math.PI * 100, flux(sheet)[sheet.lights().glowGroup()], 3);
        TestScene u = new TestScene();
        int n = u.material(Material.glowing("g", grey(100)));
        RenderScene body = u.add(Shapes.box("b", 0, 0, 0, 1, 2, 3, n)).compile();
        assertEquals(22 * Math.PI * 100, flux(body)[body.lights().glowGroup()], 0.01 * 22 * Math.PI * 100);
    }

    /**
     * Even surroundings send pi times their luminance through every square metre of a window from each side, whichever way lines are
     * chosen.
     */
    @Test
    void throughOpenings() {
        TestScene t = new TestScene();
        int glass = t.material(Material.glass("pane", grey(1), 0, 1.52, true)), wall = t.material(Material.diffuse("w", grey(0.5)));
        t.add(Shapes.quad("pane", 1, 1.5, glass), Affine.translation(0, 0, 2)).add(Shapes.quad("floor", 6, 6, wall))
                .around(new Surroundings.Plain(grey(10)));
        RenderScene s = t.compile();
        Emission e = new Emission(s.lights(), s.openings(), s.tracer().bounds(), new Vec3(0, 0, 0));
        assertTrue(s.openings().count() > 0);
        PathSampler random = new PathSampler();
        double sum = 0;
        for (int i = 0; i < RAYS; i++) {
            random.start(0, 0, i, 3);
            if (!e.emit(random)) continue;
            double k = (2 - e.z) / e.dz, x = e.x + k * e.dx, y = e.y + k * e.dy;
            if (k > 0 && Math.abs(x) < 0.5 && Math.abs(y) < 0.75) sum += e.g / RAYS;
        }
        assertEquals(2 * Math.PI * 10 * 1.5, sum, 0.02 * 2 * Math.PI * 15);
    }

    /** Directions evenly spread over a triangle: the mean of the cosine is the form factor's closed form, by Lambert's formula. */
    @Test
    void sphericalTriangle() {
        SphericalTriangle t = new SphericalTriangle();
        float[] c = {1, 0, 0.5f, 0, 1, 0.5f, -0.5f, -0.5f, 1};
        assertTrue(t.from(c, 0, 0, 0, 0));
        double sum = 0, lambert = 0;
        int n = 300;
        for (int i = 0; i < n; i++)
            for (int k = 0; k < n; k++) {
                t.sample((i + 0.5f) / n, (k + 0.5f) / n);
                sum += Math.max(0, t.z) / n / n;
            }
        for (int k = 0; k < 3; k++) {
            Vec3 a = new Vec3(c[3 * k], c[3 * k + 1], c[3 * k + 2]).normalized(),
                    b = new Vec3(c[3 * ((k + 1) % 3)], c[3 * ((k + 1) % 3) + 1], c[3 * ((k + 1) % 3) + 2]).normalized();
            lambert += Math.acos(a.dot(b)) * a.cross(b).normalized().z() / 2;
        }
        assertEquals(Math.abs(lambert), sum * t.angle, 1e-3);
    }
}
