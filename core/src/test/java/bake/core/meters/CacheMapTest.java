package bake.core.meters;

import static bake.core.TestScene.grey;
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
import bake.core.solve.Caches;
import bake.core.work.Workers;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Caches laid over the model: many tones with dark dots where there is something, one dark grey where there is nothing. */
class CacheMapTest {
    private static final int W = 96, H = 72;

    private static final Camera CAMERA = Camera.of(new Vec3(0, -0.7, 0), new Vec3(0, 1, 0), 20).withEv(8);

    private static RenderScene ball() {
        TestScene t = new TestScene();
        t.add(Shapes.sphere("shell", 1, 48, t.material(Material.diffuse("paint", grey(0.7)))));
        return t.lamp(new Lamp("lamp", "l", Lamp.Kind.POINT, Affine.IDENTITY, 0, 0, 1000, grey(1), 0, 60, true, false)).compile();
    }

    private static Set<Integer> tones(RenderScene s, Caches c, CacheMap.What what, Workers w) {
        Film f = Film.byGroup(W, H, s.lights().groups().size());
        CacheMap m = new CacheMap(s, c, what, CAMERA, f, w);
        m.pass(0, w, () -> false);
        Set<Integer> out = new HashSet<>();
        float[] rgb = new float[3];
        for (int y = 0; y < H; y++)
            for (int x = 0; x < W; x++) {
                f.mean(x, y, null, rgb);
                out.add(tone(rgb[0]) << 16 | tone(rgb[1]) << 8 | tone(rgb[2]));
            }
        return out;
    }

    /** Maps are kept as light that shows so. */
    private static int tone(float light) {
        return (int) Math.round(20 * Math.sqrt(light / CAMERA.saturation()));
    }

    @ParameterizedTest
    @EnumSource(CacheMap.What.class)
    void showsWhatThereIs(CacheMap.What what) {
        RenderScene s = ball();
        BounceSettings how = what == CacheMap.What.PHOTONS ? new BounceSettings(BounceSettings.First.PATH_TRACING,
                BounceSettings.Later.PHOTON_MAP).withPhotons(20_000)
                : new BounceSettings(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.RADIANCE_CACHE);
        try (Workers w = new Workers(2)) {
            Film f = Film.byGroup(W, H, s.lights().groups().size());
            Renderer r = new Renderer(s, CAMERA, new PathSettings(8, 0, 1).withBounced(how), f, Region.all(W, H), w);
            assertTrue(r.prepare(0, w, () -> false, x -> {}));
            assertTrue(tones(s, r.caches(), what, w).size() > 20, "tones");
            assertTrue(tones(s, Caches.NONE, what, w).size() < 12, "shades of one grey");
        }
    }

    /** Photons are dots: most of the picture is not dark. */
    @Test
    @Tag("thorough")
    void photonsAreDots() {
        RenderScene s = ball();
        try (Workers w = new Workers(2)) {
            Film f = Film.byGroup(W, H, s.lights().groups().size());
            Renderer r = new Renderer(s, CAMERA, new PathSettings(8, 0, 1)
                    .withBounced(new BounceSettings(BounceSettings.First.PATH_TRACING, BounceSettings.Later.PHOTON_MAP)
                    .withPhotons(50_000)), f, Region.all(W, H), w);
            r.prepare(0, w, () -> false, x -> {});
            Film shown = Film.byGroup(W, H, s.lights().groups().size());
            new CacheMap(s, r.caches(), CacheMap.What.PHOTONS, CAMERA, shown, w).pass(0, w, () -> false);
            int dark = 0;
            float[] rgb = new float[3];
            for (int y = 0; y < H; y++)
                for (int x = 0; x < W; x++) {
                    shown.mean(x, y, null, rgb);
                    if (tone(rgb[1]) <= 6) dark++;
                }
            assertTrue(dark > 20 && dark < W * H / 3, dark + " dark pixels");
        }
    }
}
