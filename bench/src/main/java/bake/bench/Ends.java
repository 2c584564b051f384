package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.Checkpoint;
import bake.studio.render.FileOptions;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;

/**
 * Kills a process again and again between a picture's last pass and its finished file, and looks each time whether the picture or what it
 * can be gone on with is there, and whether the next run ends with the same bits without rendering again.
 *
 * <p>{@code ./bake bench ends [COUNT]}
 */
public final class Ends {
    private static final String ROOM = """
        {"bake": 1, "name": "ends", "shapes": [{"name": "floor", "type": "quad", "size": [4, 4], "center": [0, 0, 0], "material": "wall"}],
         "materials": [{"name": "wall", "base": [0.7, 0.6, 0.5]}],
         "views": [{"name": "One", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "size": [1600, 1000]}]}
        """;
    private static final int WIDTH = 1600, HEIGHT = 1000;
    /** Longer than the picture takes to be written, so that kills come before, while and after. */
    private static final int MOST_MILLIS = 900;

    private Ends() {}

    public static void main(String[] args) throws Exception {
        if (args.length == 2 && args[0].equals("work")) {
            work(Path.of(args[1]));
            return;
        }
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 100, before = 0, lost = 0;
        Path dir = Files.createTempDirectory("bake-ends"), picture = dir.resolve("final.png");
        run(dir, -1);
        byte[] whole = Files.readAllBytes(picture);
        Random random = new Random(815);
        for (int k = 0; k < count; k++) {
            Files.delete(picture);
            run(dir, random.nextInt(MOST_MILLIS));
            boolean there = Files.exists(picture);
            if (!there) before++;
            String wrong = there && !Arrays.equals(whole, Files.readAllBytes(picture)) ? "half a picture stands under its name"
                    : !there && !Files.exists(Checkpoint.beside(picture)) ? "neither the picture nor its passes are there" : null;
            if (wrong == null && !there) {
                String said = run(dir, -1);
                if (!said.contains("resumed 2")) wrong = "passes were rendered again: " + said;
                else if (!Arrays.equals(whole, Files.readAllBytes(picture))) wrong = "the picture is another one";
            }
            if (wrong != null) {
                lost++;
                System.out.println("kill " + k + ": " + wrong);
                if (!Files.exists(picture)) Files.write(picture, whole);
            }
            Files.deleteIfExists(Checkpoint.beside(picture));
        }
        System.out.printf("%d kills after the last pass, %d of them before the file was there: %d pictures lost%n", count, before, lost);
        System.exit(lost == 0 ? 0 : 1);
    }

    /** Renders in a process of its own; killed so long after the last pass, or not at all for less than 0. */
    private static String run(Path dir, int killMillis) throws IOException, InterruptedException {
        Process p = new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(), "--add-modules", "jdk.incubator.vector",
                "--enable-native-access=ALL-UNNAMED", "-cp", System.getProperty("java.class.path"), Ends.class.getName(), "work",
                dir.toString()).redirectError(ProcessBuilder.Redirect.DISCARD).start();
        BufferedReader in = p.inputReader();
        String said = in.readLine();
        if (killMillis >= 0) {
            Thread.sleep(killMillis);
            p.toHandle().destroyForcibly();
        }
        p.waitFor();
        return said == null ? "nothing" : said;
    }

    private static void work(Path dir) throws Exception {
        Project p = ProjectFile.read(Json.parse(ROOM, "ends"), "ends");
        View v = p.views().getFirst();
        Preset preset = Preset.of("p", 1, "final", "interior", 0, 0, 0, 2, 2, 0, false);
        RenderScene scene = RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING).quickToStart(Workers.COMPILING);
        Path picture = dir.resolve("final.png");
        try (Workers workers = new Workers(2)) {
            RenderJob.Order order = new RenderJob.Order(v.name(), v.camera().camera(), v.look(), preset, WIDTH, HEIGHT, null, 1, false);
            RenderJob job = new RenderJob(scene, order, workers);
            job.keepIn(new Checkpoint(Checkpoint.beside(picture), Checkpoint.identity(p, dir, v, order), e -> {
                throw new IllegalStateException(e);
            }));
            job.run(g -> {});
            System.out.println("rendered, resumed " + job.resumedAt());
            PictureOutput.write(picture, job, FileOptions.SCREEN);
            job.written();
        }
    }
}
