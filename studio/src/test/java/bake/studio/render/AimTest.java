package bake.studio.render;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.finish.Look;
import bake.core.film.Region;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.estimate.Work;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Pictures that are done when what is left after denoising is at the aim. */
class AimTest {
    private static final int W = 160, H = 100;

    @TempDir
    Path dir;

    private static Preset preset(double aim, int samples) {
        return Preset.of("p", 1, "final", "interior", 0, aim, 0, samples, 4, 0, true);
    }

    private RenderJob job(Preset p, long seed, Workers w) throws IOException {
        Files.writeString(dir.resolve("project.json"), StudioTest.ROOM.replace("[20,20,20]", "[300,300,300]"));
        Project pr = ProjectFile.read(dir.resolve("project.json"));
        RenderScene s = RenderScene.compile(new SceneAssembly(dir).scene(pr, pr.views().getFirst()), Workers.COMPILING);
        return new RenderJob(s, new RenderJob.Order("One", pr.views().getFirst().camera().camera(), Look.PLAIN, p, W, H, null, seed, false),
                w);
    }

    /** Luminance on a linear scale, of white. */
    private static double[] shown(RenderJob j, boolean denoised) {
        int[] argb = PictureOutput.argb(j.film(), j.finish(), null, Region.all(W, H), denoised);
        double[] out = new double[argb.length];
        for (int i = 0; i < out.length; i++)
            out[i] = 0.2126 * linear(argb[i] >> 16 & 255) + 0.7152 * linear(argb[i] >> 8 & 255) + 0.0722 * linear(argb[i] & 255);
        return out;
    }

    /** IEC 61966-2-1. */
    private static double linear(int code) {
        double v = code / 255.0;
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }

    @Test
    void endsWhenTheDenoisedPictureIsAtItsAimAndTellsHowWrongItIs() throws IOException {
        try (Workers w = new Workers(2)) {
            RenderJob j = job(preset(1, 4000).withAimDenoised(true), 1, w), truth = job(preset(0, 250), 2, w);
            j.run(g -> assertTrue(g.passes() >= 6 || Double.isInfinite(g.noise()), "nothing is said of the first passes: " + g));
            assertEquals(RenderJob.State.DONE, j.state());
            assertTrue(j.progress().passes() < 4000 && j.progress().noise() <= 1, j.progress().toString());
            assertTrue(j.rawNoise() > 2 * j.progress().noise(), "denoising has taken most of " + j.rawNoise());
            assertEquals(j.delivered().percent(), j.progress().noise(), 0.2 * j.progress().noise());
            truth.run(g -> {});
            double[] a = shown(j, true), b = shown(truth, false);
            double off = 0, light = 0;
            for (int i = 0; i < a.length; i++) {
                off += (a[i] - b[i]) * (a[i] - b[i]);
                light += b[i] * b[i];
            }
            double real = Math.sqrt(Math.max(0, 1e4 * off / light - truth.rawNoise() * truth.rawNoise()));
            // Rather too much than too little: edges of what glows are better than their halves tell, which share looks.
            assertTrue(j.progress().noise() > 0.65 * real && j.progress().noise() < 1.75 * real, "said to be " + j.progress().noise() + ", is "
                    + real);
        }
    }

    /** Noise before and after denoising are two figures: neither is taken for the other. */
    @Test
    void aimsOfEitherKindAreApart() throws IOException {
        try (Workers w = new Workers(2)) {
            RenderJob before = job(preset(2.5, 4000), 1, w), after = job(preset(2.5, 4000).withAimDenoised(true), 1, w);
            before.run(g -> {});
            after.run(g -> {});
            assertEquals(before.rawNoise(), before.progress().noise());
            assertEquals(6, after.progress().passes(), "no final in less than six");
            RenderJob test = job(Preset.of("p", 1, "test", "interior", 0, 6, 0, 4000, 4, 0, true).withAimDenoised(true), 1, w);
            test.run(g -> {});
            assertEquals(3, test.progress().passes(), "no test in less than three");
            assertTrue(before.progress().passes() > 2 * after.progress().passes(), before.progress().toString());
        }
        Preset cached = preset(2, 0).withBounces("irradiance cache", "radiance cache", true);
        assertEquals(1600, EngineSettings.bounced(cached).gatherRays());
        assertEquals(1600, EngineSettings.bounced(EngineSettings.ending(cached, 0, 60, 0)).gatherRays(), "as good where time ends it");
        Preset p = preset(1, 0);
        assertTrue(!Work.solvers(p).equals(Work.solvers(p.withAimDenoised(true))));
        assertEquals(2, p.withAimDenoised(true).rawAim());
        assertEquals(1, p.withAimDenoised(true).withDenoise(false).rawAim(), "where nothing is denoised it is noise as rendered");
    }
}
