package bake.studio.cache;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.finish.Look;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.light.GuideFile;
import bake.formats.project.LampSpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Guides that a project keeps: used while they fit, said to be out of date when something has changed, refused when damaged. */
class GuideStoreTest {
    @TempDir
    Path dir;

    private Project project() throws IOException {
        Files.writeString(dir.resolve("project.json"), """
            {"bake": 1, "name": "room", "materials": [{"name": "wall", "base": [0.7, 0.6, 0.5], "ior": 1}, {"name": "glass", "transmission": 1, "thin": true, "roughness": 0}],
             "shapes": [{"name": "floor", "type": "quad", "size": [4, 4], "center": [0, 0, 0], "material": "wall"}, {"name": "back", "type": "quad", "size": [4, 4], "center": [0, 2, 1.5], "normal": [0, -1, 0], "material": "wall"},
              {"name": "pane", "type": "quad", "size": [4, 3], "center": [-2, 0, 1.5], "normal": [1, 0, 0], "material": "glass"}],
             "lamps": [{"name": "bulb", "kind": "sphere", "position": [1,1,2], "diameter": 0.1, "lumens": 500}],
             "views": [{"name": "One", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "size": [48, 30]}, {"name": "one ", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "size": [48, 30]}]}
            """);
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private RenderJob job(Project p, View v, Workers w) throws IOException {
        RenderScene s = RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING);
        return new RenderJob(s, order(v), w);
    }

    private static RenderJob.Order order(View v) {
        return new RenderJob.Order(v.name(), v.camera().camera(), Look.PLAIN,
                Preset.of("p", 1, "test", "interior", 0, 0, 0, 4, 6, 0.3, true), 48, 30, null, 1, false);
    }

    private Project kept() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        try (Workers w = new Workers(2)) {
            RenderJob j = job(p, v, w);
            j.run(x -> {});
            assertFalse(j.guided());
            assertTrue(new GuideStore(dir).keep(p, v, j.guides(), j.progress().passes()));
        }
        return p;
    }

    @Test
    void keptAndUsed() throws IOException {
        Project fresh = project();
        String before = Begun.identity(fresh, dir, fresh.views().getFirst(), order(fresh.views().getFirst()), null);
        Project p = kept();
        View v = p.views().getFirst();
        GuideStore.Kept k = new GuideStore(dir).find(p, v);
        assertTrue(k.fits());
        assertEquals(4, k.passes());
        assertNotEquals(before, Begun.identity(p, dir, v, order(v), null), "an unfinished picture without the guide is another one");
        float[][] pixels = new float[2][3];
        for (int threads = 1; threads <= 2; threads++)
            try (Workers w = new Workers(threads)) {
                RenderJob j = job(p, v, w).guidedBy(new GuideStore(dir).fitting(p, v));
                assertTrue(j.guided());
                j.run(x -> {});
                j.film().mean(20, 20, null, pixels[threads - 1]);
            }
        assertArrayEquals(pixels[0], pixels[1]);
        assertNull(new GuideStore(dir).find(p, p.views().get(1)), "a view that is called nearly the same has its own");
        new GuideStore(dir).forget(v);
        assertNull(new GuideStore(dir).find(p, v));
        assertEquals(before, Begun.identity(p, dir, v, order(v), null));
    }

    /** What has changed is said; what has nothing to do with where light is looked for is none of it. */
    @Test
    void outOfDate() throws IOException {
        Project p = kept();
        GuideStore store = new GuideStore(dir);
        View v = p.views().getFirst();
        assertEquals(List.of("the lamps"),
                store.find(p.withLamps(p.lamps().stream().map((UnaryOperator<LampSpec>) l -> l.withLumens(900.0)).toList()), v)
                .changed());
        assertEquals(List.of("the sky"), store.find(p, v.withAround(v.around().withHaze(4.0))).changed());
        assertEquals(List.of("the portals"),
                store.find(p.withPortals(List.of(new Project.PortalSpec("p", new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 0, 1}}, null,
                Map.of()))), v).changed());
        assertEquals(List.of("the model"), store.find(p.withShapes(p.shapes().subList(0, 2)), v).changed());
        assertNull(store.fitting(p.withShapes(p.shapes().subList(0, 2)), v), "never used silently");
        assertTrue(store.find(p, v.withFader("Sun", 2).withSize(100, 50)
                .withAround(v.around().withSkyStops(1.0).withBackdrop(View.Around.DEFAULT).withApart(true))).fits());
        assertTrue(store.find(p.withName("another"), v.withCamera(v.camera().camera().withFocal(50))).fits(),
                "a camera that moves learns on");
    }

    /** Every byte that is wrong, and every end that is missing, is found. */
    @Test
    void damagedFiles() throws IOException {
        Project p = kept();
        View v = p.views().getFirst();
        GuideStore store = new GuideStore(dir);
        byte[] good = Files.readAllBytes(store.file(v));
        SplittableRandom r = new SplittableRandom(3);
        List<byte[]> all = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            byte[] b = good.clone();
            b[i < 20 ? i : r.nextInt(b.length)] ^= (byte) (1 << r.nextInt(8));
            all.add(b);
        }
        for (int i = 0; i < 40; i++) all.add(java.util.Arrays.copyOf(good, r.nextInt(good.length)));
        for (byte[] b : all) {
            Files.write(store.file(v), b);
            assertNull(store.fitting(p, v));
            FormatException e = org.junit.jupiter.api.Assertions.assertThrows(FormatException.class, () -> store.find(p, v));
            assertTrue(e.getMessage().contains(".guide"), e.getMessage());
        }
        Files.write(store.file(v), good);
        assertNotNull(store.fitting(p, v));
        GuideFile.Kept k = GuideFile.read(store.file(v));
        assertEquals("One", k.words().get("view"));
    }
}
