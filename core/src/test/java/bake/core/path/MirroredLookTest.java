package bake.core.path;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;

import bake.core.TestScene;
import bake.core.math.Affine;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.surface.Fresnel;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MirroredLookTest {
    private static final float BEHIND = 10, MIRRORED = 1000;

    /** A pane at z = 1 with a dim patch behind it and a bright one where it mirrors the camera's look. */
    private static PathTracer tracer(double angle) {
        TestScene s = new TestScene();
        int dim = s.material(Material.glowing("dim", grey(BEHIND))), bright = s.material(Material.glowing("bright", grey(MIRRORED))),
                glass = s.material(Material.glass("pane", grey(1), 0, 1.52, true));
        Vec3 d = new Vec3(Math.sin(angle), 0, Math.cos(angle)), m = new Vec3(d.x(), 0, -d.z());
        s.add(Shapes.quad("pane", 200, 200, glass), Affine.translation(0, 0, 1));
        s.add(Shapes.quad("dim", 5, 5, dim), Affine.pointing(d.times(20), d.times(-1)));
        s.add(Shapes.quad("bright", 5, 5, bright), Affine.pointing(d.times(1 / d.z()).plus(m.times(20)), m.times(-1)));
        return new PathTracer(s.compile(), 0, 0);
    }

    /** Every single path shows both, as Fresnel has it, and the denoiser is told of what is behind. */
    @ParameterizedTest
    @CsvSource({"10", "45", "75"})
    void bothAreSeen(double degrees) {
        double a = Math.toRadians(degrees);
        PathTracer t = tracer(a);
        PathSampler r = new PathSampler();
        double through = Fresnel.paneTransmittance((float) Math.cos(a), 1.52f);
        for (int i = 0; i < 64; i++) {
            float[] out = new float[t.channels()];
            r.start(2, 1, i, 4);
            t.radiance(0, 0, 0, (float) Math.sin(a), 0, (float) Math.cos(a), r, out);
            assertEquals(through * BEHIND + (1 - through) * MIRRORED, out[out.length - 2], 1e-3 * MIRRORED * (1 - through), "path " + i);
            assertEquals(20, t.first.values[6], 0.01, "distance of what is behind");
        }
    }

    /** The same for paths whose beginning is kept for their neighbours; and what was mirrored counts as such. */
    @Test
    void partsAreToldApart() {
        double a = Math.toRadians(45);
        PathTracer t = tracer(a);
        double through = Fresnel.paneTransmittance((float) Math.cos(a), 1.52f);
        PathHead head = new PathHead(t.channels(), true);
        t.part(true);
        PathSampler r = new PathSampler();
        for (int i = 0; i < 16; i++) {
            head.begin();
            r.start(2, 1, i, 4);
            t.radiance(0, 0, 0, (float) Math.sin(a), 0, (float) Math.cos(a), r, head);
            int last = t.channels() - 2;
            assertEquals(through * BEHIND, head.out[LightPart.SEEN.ordinal() * t.channels() + last], 1e-3 * BEHIND);
            assertEquals((1 - through) * MIRRORED, head.out[LightPart.REFLECTED.ordinal() * t.channels() + last], 1e-3 * MIRRORED);
        }
    }
}
