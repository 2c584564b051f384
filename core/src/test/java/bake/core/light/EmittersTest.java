package bake.core.light;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.geometry.Ray;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import bake.core.compiled.RenderScene;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** What light sampling says of its density is what a ray in that direction finds. */
class EmittersTest {
    private static Lamp lamp(Lamp.Kind kind, double x, boolean twoSided) {
        return new Lamp("l" + x, "g", kind, Affine.pointing(new Vec3(x, 0.3, 2), new Vec3(0.2, 0.1, -1)), 0.5, 0.4, 900, grey(1), 40, 70,
                true, twoSided);
    }

    private static RenderScene scene() {
        TestScene s = new TestScene();
        int glow = s.material(Material.glowing("glow", grey(50)));
        s.add(Shapes.quad("q", 0.7, 0.5, glow), Affine.translation(-2, 0, 1.5)).add(Shapes.box("b", 3, 3, 1, 3.2, 3.4, 1.4, glow));
        return s.lamp(lamp(Lamp.Kind.SPHERE, 0, false)).lamp(lamp(Lamp.Kind.RECTANGLE, 1, false)).lamp(lamp(Lamp.Kind.DISC, -1, true))
                .lamp(lamp(Lamp.Kind.POINT, 2, false)).compile();
    }

    @Test
    void densityOfWhatIsMet() {
        RenderScene s = scene();
        Emitters e = s.lights().emitters();
        assertEquals(6, e.count());
        SplittableRandom r = new SplittableRandom(3);
        LightSample out = new LightSample(), scratch = new LightSample();
        Ray ray = new Ray();
        int met = 0;
        for (int i = 0; i < 20_000; i++) {
            float px = (float) r.nextDouble(-2, 2), py = (float) r.nextDouble(-2, 2), pz = (float) r.nextDouble(0, 0.8);
            if (!e.sample(px, py, pz, r.nextFloat(), r.nextFloat(), r.nextFloat(), out) || out.point) continue;
            ray.set(px, py, pz, out.x, out.y, out.z, Float.POSITIVE_INFINITY);
            // another one, or another face, stands in the way
            if (!s.tracer().closest(ray) || Math.abs(ray.t - out.distance) > 1e-5f * out.distance) continue;
            float pdf;
            if (ray.item >= s.tracer().firstLamp())
                pdf = e.pdfLamp(s.tracer().lamps().lamp(ray.item - s.tracer().firstLamp()), px, py, pz, out.x, out.y, out.z, ray.t, scratch,
                        null, 0);
            else {
                var b = s.geometry().blas(ray.item);
                int p = ray.prim;
                Vec3 n = new Vec3(b.edge(p, 1, 0), b.edge(p, 1, 1), b.edge(p, 1, 2))
                        .cross(new Vec3(b.edge(p, 2, 0), b.edge(p, 2, 1), b.edge(p, 2, 2))).normalized();
                pdf = e.pdfGlow(ray.item, ray.prim, px, py, pz, ray.t, (float) Math.abs(n.dot(new Vec3(out.x, out.y, out.z))), scratch,
                        null, 0);
            }
            assertEquals(out.pdf, pdf, 0.01f * out.pdf);
            met++;
        }
        assertTrue(met > 10_000, met + " samples met their lamp");
    }

    /** The chances of all lamps add up to one: flux through a sphere around a sphere lamp is its lumens. */
    @Test
    void lumensArrive() {
        TestScene s = new TestScene().lamp(new Lamp("l", "g", Lamp.Kind.SPHERE, Affine.IDENTITY, 0.3, 0, 1234, grey(1), 0, 60, true,
                false));
        double lux = s.measure(new Vec3(0, 0, -3), Vec3.UP, 4096).lux();
        assertEquals(1234, lux * 4 * Math.PI * 9, 3);
    }

    /** A pane's density is what its samples have: the mean of one over the density is the solid angle that is seen. */
    @Test
    void openingsDensity() {
        TestScene s = new TestScene();
        int glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        RenderScene c = s.add(Shapes.quad("a", 1, 1.5, glass), Affine.translation(0, 0, 2))
                .add(Shapes.quad("b", 0.8, 0.8, glass), Affine.pointing(new Vec3(2, 0, 1), new Vec3(-1, 0, 0))).compile();
        assertEquals(2, c.openings().count(), "the two triangles of a pane count as one");
        LightSample out = new LightSample(), scratch = new LightSample();
        Ray ray = new Ray();
        SplittableRandom r = new SplittableRandom(6);
        double sum = 0;
        int n = 200_000;
        for (int i = 0; i < n; i++) {
            c.openings().sample(0.1f, 0.2f, 0.3f, r.nextFloat(), r.nextFloat(), r.nextFloat(), out, ray);
            sum += 1 / c.openings().pdf(0.1f, 0.2f, 0.3f, out.x, out.y, out.z, 0, ray) / n;
        }
        int hit = 0, m = 400_000;
        for (int i = 0; i < m; i++) {
            double z = r.nextDouble(-1, 1), t = r.nextDouble(2 * Math.PI), w = Math.sqrt(1 - z * z);
            if (c.openings().pdf(0.1f, 0.2f, 0.3f, (float) (w * Math.cos(t)), (float) (w * Math.sin(t)), (float) z, 0, ray) > 0) hit++;
        }
        assertEquals(4 * Math.PI * hit / m, sum, 0.03 * sum);
    }

    /** Learnt chances of pieces of panes make a density too, whole panes and triangles alike. */
    @Test
    void aimDensity() {
        TestScene s = new TestScene();
        int glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        Mesh triangle = new Mesh("t", new float[] {0, 0, 0, 1.2f, 0, 0, 0, 0.9f, 0}, null, null, new int[] {0, 1, 2}, glass);
        RenderScene c = s.add(Shapes.quad("a", 1, 1.5, glass), Affine.translation(0, 0, 2)).add(triangle, Affine.translation(1, 1, 1.5))
                .compile();
        assertEquals(2, c.openings().count());
        float[] weights = new float[3 + c.openings().targets()];
        SplittableRandom r = new SplittableRandom(8);
        for (int k = 3; k < weights.length; k++) weights[k] = k % 5 == 0 ? 0 : (float) r.nextDouble(1);
        Aim aim = c.openings().aim(weights, 3);
        LightSample out = new LightSample(), scratch = new LightSample();
        int n = 200_000;
        double size = 0;
        double[] chosen = new double[c.openings().targets()], all = new double[1];
        for (int i = 0; i < n; i++) {
            int way = aim.sample(0.1f, 0.2f, 0.3f, r.nextFloat(), r.nextFloat(), r.nextFloat(), out);
            chosen[way]++;
            assertTrue(weights[3 + way] > 0, "a piece that is worth nothing was chosen");
            float p = aim.pdf(0.1f, 0.2f, 0.3f, out.x, out.y, out.z, 0, 0);
            size += (1 - aim.whole()) / p / n;
            assertTrue(c.openings().perPiece(way, 0.1f, 0.2f, 0.3f, out.x, out.y, out.z) > 0);
        }
        double seen = 0;
        int m = 400_000;
        for (int i = 0; i < m; i++) {
            double z = r.nextDouble(-1, 1), t = r.nextDouble(2 * Math.PI), w = Math.sqrt(1 - z * z);
            float p = aim.pdf(0.1f, 0.2f, 0.3f, (float) (w * Math.cos(t)), (float) (w * Math.sin(t)), (float) z, 0, 0);
            all[0] += 4 * Math.PI * p / m;
            if (p > 0) seen += 4 * Math.PI / m;
        }
        assertEquals(1 - aim.whole(), all[0], 0.03, "panes and everything together make one");
        assertEquals(seen, size, 0.03 * seen, "solid angle of the pieces that may be chosen");
        double sum = 0;
        for (int k = 4; k < weights.length; k++) sum += weights[k];
        for (int k = 1; k < chosen.length; k++) assertEquals(weights[3 + k] / sum, chosen[k] / n, 0.005, "piece " + k);
        assertEquals(1, c.openings().aim(new float[c.openings().targets()], 0).whole(), 0f,
                "worth nothing at all: everything is looked at");
    }
}
