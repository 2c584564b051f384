package bake.core.solve;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.cache.MattLight;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.path.BounceSettings;
import bake.core.path.BounceSettings.First;
import bake.core.path.BounceSettings.Later;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.work.Workers;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What cells tell against the light meter, which follows every path to its end. */
class CacheRoundsTest {
    private static final int W = 64, H = 48, SEEDS = 3;
    private static final Camera IN = Camera.of(new Vec3(2.9, 0.3, 1.5), new Vec3(0.6, 2.9, 1.1), 16).withEv(9);

    /** A light room of 3.2 x 4 x 2.5 m that bright ground lights through one small window: nearly all of its light has bounced often. */
    private static TestScene room() {
        TestScene t = new TestScene();
        int white = t.material(Material.diffuse("white", grey(0.8))), land = t.material(Material.diffuse("land", grey(0.4)));
        return t.add(Shapes.box("land", -20, -20, -1, 20, 20, -0.2, land)).add(Shapes.box("floor", -0.2, -0.2, -0.2, 3.4, 4.2, 0, white))
                .add(Shapes.box("ceiling", -0.2, -0.2, 2.5, 3.4, 4.2, 2.7, white)).add(Shapes.box("west", -0.2, 0, 0, 0, 4, 2.5, white))
                .add(Shapes.box("east", 3.2, 0, 0, 3.4, 4, 2.5, white)).add(Shapes.box("south", -0.2, -0.2, 0, 3.4, 0, 2.5, white))
                .add(Shapes.box("left", -0.2, 4, 0, 1, 4.2, 2.5, white)).add(Shapes.box("right", 2.2, 4, 0, 3.4, 4.2, 2.5, white))
                .add(Shapes.box("below", 1, 4, 0, 2.2, 4.2, 1.1, white)).add(Shapes.box("above", 1, 4, 2, 2.2, 4.2, 2.5, white))
                .around(3000);
    }

    private record Place(Vec3 at, Vec3 normal) {}

    /** Off the corners, where cells are wide enough to be told apart from what they stand for. */
    private static List<Place> places() {
        List<Place> all = new ArrayList<>();
        for (int i = 1; i <= 4; i++)
            for (int j = 1; j <= 4; j++) {
                double u = 0.2 * i, v = 0.2 * j;
                all.add(new Place(new Vec3(3.2 * u, 3.6 * v, 0), new Vec3(0, 0, 1)));
                all.add(new Place(new Vec3(3.2 * u, 3.6 * v, 2.5), new Vec3(0, 0, -1)));
                all.add(new Place(new Vec3(0, 3.6 * u, 2.5 * v), new Vec3(1, 0, 0)));
            }
        return all;
    }

    /** Cells build on each other; however many do, they hold the light that there is, whatever the picture's own limit of bounces. */
    @ParameterizedTest
    @ValueSource(ints = {4, 64})
    @Tag("thorough")
    void cellsHoldTheLightThereIs(int bounces) {
        RenderScene s = room().compile();
        List<Place> places = places();
        double[] real = new double[places.size()];
        LightMeter meter = new LightMeter(s, 1000);
        try (Workers w = new Workers(2)) {
            w.run(real.length, (worker, i) -> real[i] = meter.measure(places.get(i).at, places.get(i).normal, 4000, 5, i).lux());
            double cached = 0, known = 0;
            for (int seed = 1; seed <= SEEDS; seed++) {
                PathSettings how = new PathSettings(bounces, 0, seed).withBounced(new BounceSettings(First.PATH_TRACING,
                        Later.RADIANCE_CACHE));
                Renderer r = new Renderer(s, IN, how, Film.byGroup(W, H, s.lights().groups().size()), Region.all(W, H), w);
                assertTrue(r.prepare(0, w, () -> false, share -> {}));
                MattLight cells = r.caches().cells();
                float[] light = new float[r.caches().cells().channels()];
                for (int i = 0; i < real.length; i++) {
                    Vec3 p = places.get(i).at, n = places.get(i).normal;
                    if (!cells.read((float) p.x(), (float) p.y(), (float) p.z(), (float) n.x(), (float) n.y(), (float) n.z(), 0.5f, 0.5f,
                            0.5f, light)) continue;
                    for (int c = 0; c < light.length; c += 3)
                        cached += Math.PI * (0.2126 * light[c] + 0.7152 * light[c + 1] + 0.0722 * light[c + 2]);
                    known += real[i];
                }
            }
            assertEquals(1, cached / known, 0.015);
        }
    }
}
