package bake.core.solve;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.BounceSettings;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.work.Workers;
import org.junit.jupiter.api.Test;

class RoomSizeTest {
    private static RenderScene room() {
        TestScene t = new TestScene();
        int m = t.material(Material.diffuse("paint", grey(0.5)));
        // 6 x 4 x 3 m, and something far away that is seen by nobody inside.
        return t.add(Shapes.box("room", -3, -2, 0, 3, 2, 3, m)).add(Shapes.box("far", 40, 40, 0, 45, 45, 9, m))
                .lamp(new Lamp("lamp", "l", Lamp.Kind.POINT, Affine.translation(0, 0, 2.5), 0, 0, 1000, grey(1), 0, 60, true, false))
                .compile();
    }

    @Test
    void aRoomIsAsLargeAsItsDiagonal() {
        RoomSize size = RoomSize.around(new Vec3(-2, -1, 1.5), room().tracer());
        assertEquals(Math.sqrt(36 + 16 + 9), size.diagonal(), 0.4);
        assertEquals(size.diagonal() / 10, size.gatherRadius(), 1e-9);
        assertTrue(Double.isInfinite(RoomSize.around(new Vec3(20, 0, 1), room().tracer()).diagonal()));
    }

    /** The number is heeded: with a shorter reach more records are needed. */
    @Test
    void recordsReachAsFarAsTheyMay() {
        RenderScene s = room();
        int[] records = new int[3];
        double[] radius = {0, 0.78, 0.1};
        for (int k = 0; k < 3; k++) {
            Film f = Film.byGroup(320, 240, s.lights().groups().size());
            try (Workers w = new Workers(2)) {
                PathSettings p = new PathSettings(64, 0, 3).withBounced(new BounceSettings(BounceSettings.First.IRRADIANCE_CACHE,
                        BounceSettings.Later.NONE).withRadius(radius[k]).withRays(64));
                Renderer r = new Renderer(s, Camera.of(new Vec3(-2.5, -1.5, 1.5), new Vec3(2, 1, 1.2), 20), p, f, Region.all(320, 240), w);
                r.prepare(0, w, () -> false, share -> { });
                records[k] = r.caches().records().records();
            }
        }
        assertTrue(records[2] > 2 * records[0], records[2] + " against " + records[0]);
        assertEquals(records[0], records[1], 0.1 * records[0]);
    }
}
