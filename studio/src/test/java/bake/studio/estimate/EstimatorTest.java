package bake.studio.estimate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.NoiseFall;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Times that can be believed: from work that was done, mended by how far off earlier predictions were. */
class EstimatorTest {
    private static final String ROOM = """
            {"bake": 1, "name": "x", "materials": [{"name": "wall", "base": [0.7,0.7,0.7]}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5]}, "size": [400, 200]}]}""";
    private static final Preset TRACED = Preset.of("p", 1, "test", "interior", 0, 4, 0, 0, 4, 0, false);

    @TempDir
    private Path dir;

    private Project project() throws IOException {
        return ProjectFile.read(Json.parse(ROOM, "x"), "x");
    }

    private Work work(Project p, int passes, double rendering, double noise, double predicted) throws IOException {
        return new Work(Work.scene(p, dir, p.views().getFirst()), Work.solvers(TRACED), 2, 20_000, passes, 0, rendering, 0.2, noise, 0.5,
                predicted,
                0, predicted > 0 ? "pictures" : "", 0, 0, null);
    }

    /** The first passes, which find everything cold, do not speak for the later ones. */
    @Test
    void coldPassesAreApart() {
        Work w = new Work("x", "traced", 2, 20_000, 10, 0, 3, 0.2, 8, 0.5, 0, 0, "", 0.2, 0, null);
        assertEquals(0.2, w.pass());
        assertEquals(1, w.cold(), 1e-9);
        Work old = new Work("x", "traced", 2, 20_000, 10, 0, 3, 0.2, 8, 0.5, 0, 0, "", 0, 0, null);
        assertEquals(0.3, old.pass(), 1e-9);
        assertEquals(0, old.cold(), 1e-9);
    }

    /** Caches of records that gather with more rays take longer, and of what is denoised less is left in a larger picture. */
    @Test
    void raysAndSizesOfOtherPictures() throws IOException {
        Project p = project();
        Preset test = TRACED.withDenoise(true).withAimDenoised(true).withBounces("irradiance cache", "radiance cache", true).withGatherRays(
                200).withLimits(0, 0, 16);
        WorkLog log = new WorkLog(dir.resolve("rays.jsonl"));
        log.add(new Work(Work.scene(p, dir, p.views().getFirst()), Work.solvers(test), 2, 80_000, 16, 30, 20, 0.2, 4, 0.3, 0, 0, "", 0, 200, null));
        Estimator e = new Estimator(log);
        Estimate same = e.quick(p, dir, p.views().getFirst(), test, new int[] {400, 200}, 2),
                more = e.quick(p, dir, p.views().getFirst(), test.withGatherRays(1600), new int[] {400, 200}, 2),
                large = e.quick(p, dir, p.views().getFirst(), test, new int[] {1600, 800}, 2);
        assertEquals(30, same.caches(), 1e-6);
        assertEquals(30 * 2050.0 / 650, more.caches(), 1e-6);
        assertEquals(4, same.noise(), 1e-6);
        assertEquals(4 * (1 + 450 / Math.sqrt(1_280_000)) / (1 + 450 / Math.sqrt(80_000)), large.noise(), 1e-6, "less is left of sixteen times the pixels");
        assertEquals(16 * same.rendering() * Math.pow(16, -0.1), large.rendering(), 1e-6, "which share records");
    }

    /** An aim that is never reached is foretold as that, at once; judging is denoising too. */
    @Test
    void aimsFarOff() throws IOException {
        Project p = project();
        Preset far = TRACED.withDenoise(true).withAimDenoised(true).withLimits(1e-6, 0, 0);
        WorkLog log = new WorkLog(dir.resolve("far.jsonl"));
        log.add(new Work(Work.scene(p, dir, p.views().getFirst()), Work.solvers(far), 2, 80_000, 6, 0, 6, 2, 4, 0.3, 0, 0, "", 1, 0, 400_000.0));
        Estimate e = new Estimator(log).quick(p, dir, p.views().getFirst(), far, new int[] {400, 200}, 2);
        assertTrue(e.seconds() > 1e6, e.toString());
        Preset near = far.withLimits(0, 0, 3);
        e = new Estimator(log).quick(p, dir, p.views().getFirst(), near, new int[] {200, 100}, 2);
        assertEquals(2 * 40_000 / 400_000.0, e.finish(), 1e-9, "judged once, denoised once");
    }

    /** Of small pictures one that was held up is told by its rays; two cannot tell which of them it was. */
    @Test
    void hiccups() throws IOException {
        assertEquals(0.5, Estimator.slowest(0.9, 0.4, 1, 1.2, 1.1));
        assertEquals(0, Estimator.slowest(0.2, 1));
        assertEquals(0, Estimator.slowest());
        assertTrue(!new Estimator(new WorkLog(dir.resolve("none.jsonl"))).forgetHiccups(), "nothing was made");
    }

    /** A picture that aims at what is left after denoising is judged at steps, and ends at the next one. */
    @Test
    void endsWhereItIsJudged() {
        Preset p = TRACED.withDenoise(true).withAimDenoised(true);
        assertEquals(3, RenderJob.ends(p, 3));
        assertEquals(4, RenderJob.ends(p, 3.2));
        assertEquals(8, RenderJob.ends(p, 8));
        assertEquals(10, RenderJob.ends(p, 8.1));
        assertEquals(15, RenderJob.ends(p, 12.5));
        assertEquals(12.5, RenderJob.ends(TRACED, 12.5), "noise before denoising is judged nearly after each pass");
    }

    /**
     * 16 passes of 20,000 pixels took 2 s and ended at 8 %: half the noise takes four times the passes, four times the
     * pixels four times each.
     */
    @Test
    void fromPicturesThatWereMade() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        WorkLog log = new WorkLog(dir.resolve("work.jsonl"));
        Estimator e = new Estimator(log);
        assertNull(e.quick(p, dir, v, TRACED, new int[] {400, 200}, 2), "nothing is known");
        log.add(work(p, 16, 2, 8, 0));
        Estimate one = e.quick(p, dir, v, TRACED, new int[] {400, 200}, 2);
        assertEquals(64, one.passes());
        assertEquals(4.0 * 4 * 2, one.rendering(), 1e-6);
        assertEquals(4, one.noise(), 1e-9);
        assertEquals("noise aim", one.limit());
        assertEquals(0.8, one.finish(), 1e-9);
        // A time limit ends it earlier, and the noise is what comes out then.
        Estimate timed = e.quick(p, dir, v, TRACED.withLimits(4, 8, 0), new int[] {400, 200}, 2);
        assertEquals("time limit", timed.limit());
        assertEquals(8.8, timed.seconds(), 1e-6);
        assertEquals(8, timed.noise(), 1e-6);
        assertNull(e.quick(p, dir, v, TRACED, new int[] {400, 200}, 1), "another number of threads says nothing");
        Project other = p.withMaterials(java.util.List.of(p.materials().getFirst().withRoughness(0.1)));
        assertNull(e.quick(other, dir, v, TRACED, new int[] {400, 200}, 2), "nor does another material");
    }

    /** Predictions that were all a third too short are mended by it, and the range says how sure that is. */
    @Test
    void learnsFromItsMistakes() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        WorkLog log = new WorkLog(dir.resolve("work.jsonl"));
        log.add(work(p, 16, 2, 8, 0));
        Estimator e = new Estimator(log);
        double before = e.quick(p, dir, v, TRACED, new int[] {400, 200}, 2).rendering();
        for (int k = 0; k < 20; k++) log.add(work(p, 16, 2, 8, 2.2 / 1.5));
        Estimate after = e.quick(p, dir, v, TRACED, new int[] {400, 200}, 2);
        assertEquals(Math.pow(1.5, 20.0 / 22), after.rendering() / before, 1e-6);
        assertTrue(after.low() < after.seconds() && after.seconds() < after.high() && after.high() < 1.2 * after.seconds(),
                after.toString());
        assertEquals(0, e.score()[0], "none was right within a fifth");
        assertEquals(20, e.score()[1]);
        Files.writeString(dir.resolve("work.jsonl"), "{half a li", java.nio.file.StandardOpenOption.APPEND);
        assertEquals(21, log.list().size(), "what a killed process left is passed over");
    }

    /** Where nothing is known a small picture is made, and is not far off what then is made. */
    @Test
    void fromASmallPicture() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        Estimator e = new Estimator(new WorkLog(dir.resolve("work.jsonl")));
        try (Workers w = new Workers(2)) {
            RenderScene scene = RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING);
            Estimate made = e.of(p, dir, v, TRACED, new int[] {400, 200}, () -> scene, w, () -> false);
            assertTrue(made.probed() && made.seconds() > 0 && made.passes() >= 3, made.toString());
            assertNotNull(e.quick(p, dir, v, TRACED, new int[] {200, 100}, 2), "from then on it is known");
            assertNull(e.of(p, dir, v, TRACED.withExact(null).withBounces("irradiance cache", "radiance cache", true), new int[] {400, 200},
                    () -> scene, w, () -> true), "and can be stopped");
        }
    }

    /** A sunny room whose noise fell by the power of 0.3 at ten passes had 0.44 at three hundred; there and back it is one curve. */
    @Test
    void noiseCatchesUpWithTheRoot() {
        double at = NoiseFall.noise(false, 10, 20, 0.3, 300), later = NoiseFall.noise(false, 10, 20, 0.3, 303);
        assertEquals(0.44, Math.log(at / later) / Math.log(303 / 300.0), 0.02);
        for (double aim : new double[] {15, 5, 1, 0.3}) assertEquals(aim, NoiseFall.noise(false, 10, 20, 0.3,
                NoiseFall.passes(false, 10, 20, 0.3,
                aim)), 1e-6 * aim);
        assertEquals(40, NoiseFall.passes(false, 10, 20, 0.5, 10), 1e-9);
        assertTrue(NoiseFall.passes(false, 10, 20, 0.3, 2) < 0.3 * 10 * Math.pow(10, 1 / 0.3));
    }

    /** What denoising leaves falls as it was seen to at first, and as it usually does later. */
    @Test
    void whatIsLeftComesBackToTheUsualFall() {
        for (int k = 0; k < 2; k++) {
            double power = 0.1 + 0.4 * k, at = NoiseFall.noise(true, 6, 5, power, 6.01), late = NoiseFall.noise(true, 6, 5, power, 120);
            assertEquals(power, Math.log(5 / at) / Math.log(6.01 / 6), 0.01);
            double slope = Math.log(late / NoiseFall.noise(true, 6, 5, power, 121)) / Math.log(121 / 120.0);
            assertEquals(NoiseFall.DENOISED, slope, 0.02);
            assertEquals(late, NoiseFall.noise(true, 6, 5, power, NoiseFall.passes(true, 6, 5, power, late)), 1e-6);
        }
    }
}
