package bake.studio.noise;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.path.LightPart;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Causes of noise in a room whose noise is known to come from its floor. */
class NoiseFinderTest {
    private static final String ROOM = """
            {"bake": 1, "name": "Room",
             "materials": [{"name": "wall", "base": [0.7,0.7,0.7], "roughness": 1, "ior": 1}, {"name": "steel", "base": [0.8,0.8,0.8], "metallic": 1, "roughness": 0.35}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "steel"},
                        {"name": "back", "type": "box", "center": [0,3,1.5], "size": [6,0.2,3], "material": "wall"}],
             "lamps": [{"name": "a", "group": "Left", "kind": "sphere", "position": [-2,-5,2], "diameter": 0.3, "lumens": 3000},
                       {"name": "b", "group": "Dim", "kind": "sphere", "position": [2,-5,2], "diameter": 0.3, "lumens": 2}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.6], "target": [0,1,0.6], "focal": 24, "iso": 800}, "size": [60, 40],
                        "around": {"kind": "plain", "luminance": [0,0,0]}}]}""";
    @TempDir
    private Path dir;
    private Project project;
    private View view;
    private final Preset preset = Preset.of("P", 1, "test", "interior", 0, 0, 0, 8, 4, 0, false);

    @BeforeEach
    void room() throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM);
        project = ProjectFile.read(dir.resolve("project.json"));
        view = project.views().getFirst();
    }

    @Test
    void theWorstComesFirstAndWhatHelpsIsMeasured() throws IOException {
        NoiseFindings f;
        double[] done = {0};
        try (Workers w = new Workers(2)) {
            f = new NoiseFinder(new SceneAssembly(dir), w, () -> false).find(project, view, preset, d -> {
                assertTrue(d > done[0] && d <= 1);
                done[0] = d;
            });
        }
        assertEquals(1, f.causes().stream().mapToDouble(NoiseFindings.Cause::share).sum(), 1e-6);
        assertEquals(f.causes().size(), f.causes().stream().map(NoiseFindings.Cause::material).distinct().count(), "a cause is named once");
        assertEquals(1, f.ways().stream().mapToDouble(NoiseFindings.Share::share).sum(), 1e-6);
        assertEquals(1, f.sources().stream().mapToDouble(NoiseFindings.Share::share).sum(), 1e-6);
        assertEquals("Left", f.sources().getFirst().name());
        assertTrue(f.sources().getFirst().share() > 0.95, "" + f.sources());
        NoiseFindings.Cause worst = f.causes().stream().filter(c -> !c.edges()).findFirst().orElseThrow();
        assertEquals("steel", worst.material(), f.causes().toString());
        assertTrue(worst.way() == LightPart.DIRECT || worst.way() == LightPart.REFLECTED || worst.way() == LightPart.BOUNCED,
                worst.toString());
        NoiseFindings.Remedy r = f.remedies().stream().filter(x -> !x.against().edges()).findFirst().orElseThrow();
        assertEquals(4, r.paths());
        // Four times the paths for that material alone: its part falls to a quarter, as far as the estimate of noise tells.
        double steel = f.causes().stream().filter(c -> "steel".equals(c.material())).mapToDouble(NoiseFindings.Cause::share).sum();
        assertEquals(Math.sqrt(1 - 0.75 * steel), r.noise() / f.noise(), 0.2, f.toString());
        assertTrue(r.time() > 1 && r.time() < 5, "" + r.time());
        assertEquals(r.time() * r.noise() * r.noise() / f.noise() / f.noise(), r.worth(f), 1e-9);
        double mean = 0;
        for (float m : f.map()) mean += m * m / f.map().length;
        assertEquals(1, mean, 0.01);
        Project taken = NoiseFinder.with(NoiseFinder.with(project, "steel", 4), "steel", 16);
        assertEquals(1, taken.efforts().size());
        assertEquals(16, taken.efforts().getFirst().samples());
    }

    @Test
    void toldOfTheDeliveredPictureAtTheProofsSize() throws IOException {
        Preset cached = preset.withDenoise(true).withBounces("irradiance cache", "radiance cache", true);
        try (Workers w = new Workers(2)) {
            NoiseFinder finder = new NoiseFinder(new SceneAssembly(dir), w, () -> false);
            NoiseFindings f = finder.find(project, view, cached, d -> { }), raw = finder.find(project, view, cached.withDenoise(false),
                    d -> { });
            assertTrue(f.noise() > 0 && f.noise() < 0.7 * raw.noise(), f.noise() + " of " + raw.noise());
            assertEquals(raw.ways(), f.ways(), "shares are those of the light itself");
            assertEquals(200, f.width(), "small views are looked at larger");
        }
    }

    @Test
    void aPictureThatKnowsAnotherAddsNothing() throws IOException {
        Preset cached = preset.withLimits(0, 0, 2).withBounces("irradiance cache", "radiance cache", true);
        RenderScene scene = RenderScene.compile(new SceneAssembly(dir).scene(project, view), Workers.COMPILING);
        try (Workers w = new Workers(2)) {
            RenderJob a = made(scene, cached, 1, null, w);
            long records = a.caches().records().records(), rounds = a.caches().cells().rounds();
            assertTrue(records > 10 && rounds > 0);
            RenderJob b = made(scene, cached, 2, a, w);
            assertEquals(records, b.caches().records().records());
            assertEquals(rounds, b.caches().cells().rounds());
            float[] x = new float[3], y = new float[3];
            double one = 0, other = 0;
            for (int i = 0; i < 60 * 40; i++) {
                a.film().mean(i % 60, i / 60, null, x);
                b.film().mean(i % 60, i / 60, null, y);
                one += x[1];
                other += y[1];
            }
            assertEquals(1, other / one, 0.05);
        }
    }

    private RenderJob made(RenderScene scene, Preset p, long seed, RenderJob known, Workers w) throws IOException {
        RenderJob j = new RenderJob(scene, new RenderJob.Order("One", view.camera().camera(), view.look(), p, 60, 40, null, seed,
                Film.Split.NONE), w);
        if (known != null) j.knowing(known);
        j.run(g -> { });
        return j;
    }

    @Test
    void stops() throws IOException {
        try (Workers w = new Workers(2)) {
            assertNull(new NoiseFinder(new SceneAssembly(dir), w, () -> true).find(project, view, preset, d -> { }));
        }
    }
}
