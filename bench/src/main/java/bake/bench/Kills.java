package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import bake.studio.project.ModelStore;
import bake.studio.project.ProjectSession;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.queue.QueueWorker;
import bake.studio.queue.RenderQueue;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import javax.imageio.ImageIO;

/**
 * Kills a process again and again while it saves, autosaves, imports models, keeps proofs and makes finals, and looks each time whether
 * anything is lost that it had said was done.
 *
 * <p>{@code ./bake bench kills [COUNT]}
 */
public final class Kills {
    private static final String ROOM = """
        {"bake": 1, "name": "0", "shapes": [{"name": "floor", "type": "quad", "size": [4, 4], "center": [0, 0, 0], "material": "wall"}],
         "materials": [{"name": "wall", "base": [0.7, 0.6, 0.5]}],
         "views": [{"name": "One", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "size": [64, 40]}]}
        """;

    /** The longest that a kill is waited for, and how long after a word it comes at most. */
    private static final long LONGEST_NANOS = 20_000_000_000L, AFTER_NANOS = 500_000_000L;
    private static final int WIDTH = 64, HEIGHT = 40;

    private Kills() {}

    public static void main(String[] args) throws Exception {
        if (args.length == 2 && args[0].equals("work")) {
            work(Path.of(args[1]));
            return;
        }
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 200;
        Path dir = Files.createTempDirectory("bake-kills");
        Files.writeString(dir.resolve("project.json"), ROOM);
        Random random = new Random(4711);
        Map<String, Integer> during = new TreeMap<>();
        int lost = 0;
        for (int k = 0; k < count; k++) {
            List<String> said = new ArrayList<>();
            Process p = new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(), "--add-modules", "jdk.incubator.vector",
                    "--enable-native-access=ALL-UNNAMED", "-cp", System.getProperty("java.class.path"),
                    Kills.class.getName(), "work", dir.toString()).redirectError(ProcessBuilder.Redirect.DISCARD).start();
            BufferedReader in = p.inputReader();
            said.add(in.readLine());
            // Anywhere within what follows one of the things that are said: so each kind of work is met.
            int words = 1 + random.nextInt(9);
            long latest = System.nanoTime() + LONGEST_NANOS, end = Long.MAX_VALUE;
            while (System.nanoTime() < Math.min(end, latest)) {
                if (said.size() >= words && end == Long.MAX_VALUE) end = System.nanoTime() + (long) (random.nextDouble() * AFTER_NANOS);
                while (in.ready()) said.add(in.readLine());
                Thread.sleep(1);
            }
            // By its handle: the process itself would close the stream with what was said last.
            p.toHandle().destroyForcibly();
            p.waitFor();
            for (String line = in.readLine(); line != null; line = in.readLine()) said.add(line);
            String last = said.getLast();
            during.merge(last == null ? "start" : last.split(" ")[0], 1, Integer::sum);
            List<String> wrong = check(dir, said);
            lost += wrong.size();
            for (String w : wrong) System.out.println("kill " + k + " after '" + last + "': " + w);
        }
        System.out.printf("%d kills, last words before them %s: %d things lost%n", count, during, lost);
        try (var all = Files.walk(dir)) {
            if (lost == 0) for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) Files.deleteIfExists(p);
        }
        System.exit(lost == 0 ? 0 : 1);
    }

    /** Says on standard output what is done, after it was. */
    private static void work(Path dir) throws Exception {
        ProjectSession s = ProjectSession.open(dir);
        System.out.println("open " + s.readOnly());
        while (s.recovered() != null) s.recover();
        ProofStore proofs = new ProofStore(dir);
        Preset preset = Preset.of("p", 1, "final", "interior", 0, 0, 0, 2, 2, 0, false);
        try (Workers workers = new Workers(1)) {
            for (int n = Integer.parseInt(s.project().name()) + 1; ; n++) {
                int now = n;
                s.edit(null, p -> p.withName("" + now));
                s.save();
                System.out.println("saved " + now);
                Path obj = Files.writeString(dir.resolve("export.obj"), "v 0 0 0\nv 1 0 0\nv 1 1 " + now + "\nf 1 2 3\n");
                String model = new ModelStore(dir).bring(obj);
                s.edit(null, p -> p.withModels(List.of(Project.ModelRef.of(model))));
                s.save();
                System.out.println("model " + model);
                Project p = s.project();
                View v = p.views().getFirst();
                RenderScene scene = RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING)
                        .quickToStart(Workers.COMPILING);
                RenderJob j = new RenderJob(scene, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), preset, WIDTH, HEIGHT, null,
                        1, false), workers);
                j.run(g -> {});
                System.out.println("proof " + proofs.keep(j, v, p, 1).number());
                RenderQueue queue = new RenderQueue(dir.resolve("queue"));
                Deliveries.add(queue, p, dir, Deliveries.FIRST, List.of(new Deliveries.Picture(v, preset, WIDTH, HEIGHT,
                        List.of(dir.resolve("final.png")), false)), true, null);
                try (QueueWorker q = new QueueWorker(queue, 1, new WorkLog(dir.resolve("work.jsonl")), Clock.systemDefaultZone())) {
                    if (!q.run(false)) throw new IllegalStateException(queue.entries().toString());
                }
                System.out.println("final " + now);
            }
        }
    }

    private static List<String> check(Path dir, List<String> said) {
        List<String> wrong = new ArrayList<>();
        if (said.contains("open true")) wrong.add("a dead process still held the project");
        Project p;
        try {
            p = ProjectFile.read(dir.resolve("project.json"));
        } catch (IOException e) {
            wrong.add("the project cannot be read: " + e.getMessage());
            return wrong;
        }
        int number = Integer.parseInt(p.name());
        for (String line : said) {
            if (line == null) continue;
            String[] w = line.split(" ");
            if (w[0].equals("saved") && Integer.parseInt(w[1]) > number) wrong.add("save " + w[1] + " is gone, there is " + number);
            if (w[0].equals("model") && !Files.isRegularFile(dir.resolve(w[1]))) wrong.add("model " + w[1] + " is gone");
            if (w[0].equals("proof") && new ProofStore(dir).list().stream().noneMatch(x -> x.number() == Integer.parseInt(w[1])))
                wrong.add("proof " + w[1] + " is gone");
        }
        try {
            for (Project.ModelRef m : p.models()) new SceneAssembly(dir).model(m);
            for (Proof x : new ProofStore(dir).list())
                if (ImageIO.read(new ProofStore(dir).picture(x).toFile()) == null) wrong.add("proof " + x.number() + " is broken");
            if (Files.exists(dir.resolve("final.png")) && ImageIO.read(dir.resolve("final.png").toFile()).getHeight() != HEIGHT)
                wrong.add("the final is broken");
        } catch (IOException e) {
            wrong.add(e.toString());
        }
        return wrong;
    }
}
