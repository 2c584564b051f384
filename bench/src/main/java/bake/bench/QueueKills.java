package bake.bench;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueJob;
import bake.studio.queue.QueueWorker;
import bake.studio.queue.RenderQueue;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;

/**
 * Kills whoever works a queue at random moments until all is done: every picture must be there once, the same bits as when nobody was
 * killed, and nothing half-made under a final's name. Now and then the project's folder goes away or its finals cannot be written.
 *
 * <p>{@code ./bake bench queue-kills [KILLS]}
 */
public final class QueueKills {
    private static final String ROOM = """
            {"bake": 1, "name": "Room",
             "materials": [{"name": "wall", "base": [0.7,0.7,0.7], "roughness": 0.4}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"},
                        {"name": "block", "type": "box", "center": [0,0,0.5], "size": [1,1,1], "material": "wall"}],
             "lamps": [{"name": "bulb", "kind": "sphere", "position": [1,1,2], "diameter": 0.2, "lumens": 90000}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5], "focal": 28}, "size": [64, 40]}]}""";
    private static final int BATCH = 12;

    private QueueKills() {}

    public static void main(String[] args) throws Exception {
        if (args.length == 2 && args[0].equals("work")) {
            try (QueueWorker w = new QueueWorker(new RenderQueue(Path.of(args[1])), 1, new WorkLog(Path.of(args[1]).resolve("work.jsonl")),
                    Clock.systemDefaultZone())) {
                System.exit(w.run(false) ? 0 : 1);
            }
        }
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 300;
        Path dir = Files.createTempDirectory("bake-queue"), room = Files.createDirectories(dir.resolve("room"));
        Files.writeString(room.resolve("project.json"), ROOM);
        Project p = ProjectFile.read(room.resolve("project.json"));
        View v = p.views().getFirst();
        RenderQueue queue = new RenderQueue(dir.resolve("queue"));
        // Pictures of several kinds: traced, cached, one with fine edges.
        Preset plain = Preset.of("p", 1, "final", "interior", 0, 0, 0, 40, 4, 0, false);
        List<Preset> kinds = List.of(plain, plain.withBounces("irradiance cache", "radiance cache", null).withGatherRays(32)
                .withLimits(0, 0, 3), plain.withEdges(3));
        String[] truth = new String[kinds.size()];
        for (int k = 0; k < truth.length; k++) {
            QueueJob j = add(queue, p, room, v, kinds.get(k), "truth-" + k).getFirst();
            Process w = work(dir);
            w.waitFor();
            truth[k] = sum(Path.of(j.files().getFirst()));
        }
        Random random = new Random(5);
        int kills = 0, wrong = 0, made = 0, away = 0;
        List<QueueJob> open = new ArrayList<>();
        Set<String> names = new TreeSet<>();
        while (kills < count || !open.isEmpty()) {
            if (open.isEmpty()) for (int i = 0; i < BATCH && kills < count; i++) open.addAll(add(queue, p, room, v, kinds.get(
                    i % truth.length),
                    "final-" + (made + i) + "-" + i % truth.length));
            Process w = work(dir);
            boolean kill = kills < count;
            if (kill) {
                Thread.sleep(1600 + random.nextInt(3000));
                if (random.nextInt(12) == 0 && w.isAlive()) {
                    // A project's folder that goes away and returns.
                    away++;
                    Files.move(room, dir.resolve("away"));
                    Thread.sleep(300);
                    if (Files.isDirectory(room)) remove(room);
                    Files.move(dir.resolve("away"), room);
                }
                w.toHandle().destroyForcibly();
                kills++;
            }
            w.waitFor();
            queue.refresh();
            for (QueueEntry e : queue.entries()) if (e.state() == QueueEntry.State.FAILED) queue.again(e.job().id());
            // What is there under a final's name is whole, and right.
            for (QueueJob j : List.copyOf(open)) {
                QueueEntry e = queue.entry(j.id());
                Path f = Path.of(e.job().files().getFirst());
                String kind = j.files().getFirst().replaceAll(".*-(\\d)\\.png", "$1");
                if (Files.exists(f) && !sum(f).equals(truth[Integer.parseInt(kind)])) {
                    wrong++;
                    System.out.println("kill " + kills + ": " + f.getFileName() + " has other bits");
                }
                if (e.state() != QueueEntry.State.DONE) continue;
                if (!Files.exists(f) || !names.add(f.toString())) {
                    wrong++;
                    System.out.println("kill " + kills + ": " + f.getFileName() + (Files.exists(f) ? " was made twice" : " is missing"));
                }
                open.remove(j);
                made++;
            }
            if (open.isEmpty()) queue.forget();
        }
        try (var all = Files.list(room.resolve("finals"))) {
            long extra = all.filter(f -> !f.getFileName().toString().startsWith(".") && !names.contains(f.toString())
                    && !f.getFileName().toString().startsWith("truth")).count();
            if (extra > 0) {
                wrong += (int) extra;
                System.out.println(extra + " files that nobody asked for");
            }
        }
        System.out.printf("%d kills, the folder was away %d times, %d pictures made, each once: %d things wrong%n", kills, away, made, wrong);
        System.exit(wrong == 0 ? 0 : 1);
    }

    private static void remove(Path made) throws Exception {
        try (var all = Files.walk(made)) {
            for (Path f : all.sorted(java.util.Comparator.reverseOrder()).toList()) Files.deleteIfExists(f);
        }
    }

    private static List<QueueJob> add(RenderQueue q, Project p, Path room, View v, Preset preset, String name) throws Exception {
        // What others have cached is part of a picture; here each begins with nothing.
        if (Files.isDirectory(room.resolve("caches"))) remove(room.resolve("caches"));
        return Deliveries.add(q, p, room, Deliveries.FIRST, List.of(new Deliveries.Picture(v, preset, 64, 40, List.of(room.resolve("finals").resolve(
                name + ".png")), false)), false, null);
    }

    private static Process work(Path dir) throws Exception {
        return new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(), "--add-modules", "jdk.incubator.vector", "-Xshare:auto",
                "-cp", System.getProperty("java.class.path"), QueueKills.class.getName(), "work", dir.resolve("queue")
                        .toString()).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.appendTo(dir.resolve("log").toFile())).start();
    }

    private static String sum(Path f) throws Exception {
        MessageDigest d = MessageDigest.getInstance("SHA-256");
        try (InputStream in = new DigestInputStream(Files.newInputStream(f), d)) {
            in.transferTo(java.io.OutputStream.nullOutputStream());
        }
        return HexFormat.of().formatHex(d.digest());
    }
}
