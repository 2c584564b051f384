package bake.studio.live;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Pictures of the easel as their finish changes. */
class FrameMakerTest {
    private static final int W = 1200, H = 800;
    private static final String ROOM = """
            {"bake": 1, "name": "Room", "materials": [{"name": "wall", "base": [0.7,0.6,0.5], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"}],
             "views": [{"name": "One", "camera": {"position": [0,-5,1], "target": [0,0,0.5], "focal": 24},
                        "finish": {"wash": 1, "outline": 1, "glow": 0.2, "grain": 0.2, "skyLighten": 1}}]}""";
    @TempDir
    Path dir;

    /** A finish that takes long is seen small at once and then whole, from the same film; both show the change. */
    @Test
    void slowOnesAreSeenSmallFirst() throws Exception {
        Files.writeString(dir.resolve("project.json"), ROOM);
        Project p = ProjectFile.read(dir.resolve("project.json"));
        LinkedBlockingQueue<LiveRender.Frame> frames = new LinkedBlockingQueue<>();
        try (Workers workers = new Workers(2);
                LiveRender live = new LiveRender(new SceneAssembly(dir), null, workers, frames::add, x -> { })) {
            live.patience(1);
            View v = p.views().getFirst();
            live.show(p, v, W, H);
            LiveRender.Frame sharp = next(frames);
            while (sharp.width() < W) sharp = next(frames);
            live.show(p, v.withFinish(v.finish().withLighten(1.0)), W, H);
            LiveRender.Frame first = next(frames), whole = next(frames);
            assertTrue(first.width() < W && first.width() >= 8, "small first: " + first.width());
            assertEquals(W / (double) H, first.width() / (double) first.height(), 0.1);
            assertEquals(W, whole.width());
            assertEquals(sharp.passes(), whole.passes(), "nothing was rendered");
            assertEquals(mean(whole), mean(first), 10);
            assertTrue(mean(first) > mean(sharp) + 10);
        }
    }

    /**
     * From the second pass on the picture is as clean as a proof, and not shown again until it is cleaner; a fader shows at once what is
     * denoised in a moment, and then the clean one.
     */
    @Test
    void cleanOnceItRests() throws Exception {
        Files.writeString(dir.resolve("project.json"), ROOM.replace("\"wash\": 1, \"outline\": 1, ", ""));
        Project p = ProjectFile.read(dir.resolve("project.json"));
        LinkedBlockingQueue<LiveRender.Frame> frames = new LinkedBlockingQueue<>();
        try (Workers workers = new Workers(2);
                LiveRender live = new LiveRender(new SceneAssembly(dir), null, workers, frames::add, x -> { })) {
            live.patience(16);
            View v = p.views().getFirst();
            live.show(p, v, 240, 160);
            List<Integer> passes = new ArrayList<>();
            LiveRender.Frame last = next(frames);
            while (last.passes() < 16) {
                if (last.width() == 240) passes.add(last.passes());
                last = next(frames);
            }
            // A quick machine may show none but the first two before the last.
            assertEquals(2, passes.getFirst(), "one sample has no halves");
            assertTrue(passes.size() <= 8, "not each of those passes is shown: " + passes);
            for (int i = 1; i < passes.size(); i++)
                assertTrue(passes.get(i) >= FrameMaker.next(passes.get(i - 1)), passes.toString());
            live.show(p, v.withFader("Sky", 1).withFader("Sun", 1), 240, 160);
            LiveRender.Frame quick = next(frames), clean = next(frames);
            assertEquals(16, quick.passes());
            assertEquals(16, clean.passes(), "nothing was rendered");
            assertEquals(mean(clean), mean(quick), 3);
            assertTrue(!java.util.Arrays.equals(quick.argb(), clean.argb()), "denoised otherwise");
            // Only the finish changes: what was denoised well serves on.
            live.show(p, v.withFader("Sky", 1).withFader("Sun", 1).withWhiteBalance(5000.0), 240, 160);
            assertEquals(16, next(frames).passes());
        }
    }

    private static LiveRender.Frame next(LinkedBlockingQueue<LiveRender.Frame> frames) throws InterruptedException {
        LiveRender.Frame f = frames.poll(60, TimeUnit.SECONDS);
        assertNotNull(f, "a picture within a minute");
        return f;
    }

    private static double mean(LiveRender.Frame f) {
        double s = 0;
        for (int c : f.argb()) s += c >> 8 & 255;
        return s / f.argb().length;
    }
}
