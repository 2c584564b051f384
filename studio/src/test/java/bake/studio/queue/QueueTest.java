package bake.studio.queue;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The queue: its journal, its order, its worker, and trouble. */
class QueueTest {
    private static final String ROOM = """
            {"bake": 1, "name": "Room", "due": "2031-03-07T12:00",
             "materials": [{"name": "wall", "base": [0.7,0.7,0.7], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"},
                        {"name": "block", "type": "box", "center": [0,0,0.5], "size": [1,1,1], "material": "wall"}],
             "lamps": [{"name": "bulb", "kind": "sphere", "position": [1,1,2], "diameter": 0.2, "lumens": 90000}],
             "presets": [{"name": "F", "version": 1, "purpose": "final", "setting": "interior", "width": 0, "noiseAim": 0, "timeLimit": 0, "samples": 4, "bounces": 3, "clamp": 0},
                         {"name": "Long", "version": 1, "purpose": "final", "setting": "exterior", "width": 0, "noiseAim": 0, "timeLimit": 0, "samples": 4000, "bounces": 3, "clamp": 0}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5], "focal": 28}, "size": [48, 30]},
                       {"name": "Two", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [40, 30]},
                       {"name": "Slow", "setting": "exterior", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [400, 300]}]}""";
    @TempDir
    private Path dir;
    private Path folder;
    private RenderQueue queue;

    @BeforeEach
    void room() throws IOException {
        folder = Files.createDirectories(dir.resolve("room"));
        Files.writeString(folder.resolve("project.json"), ROOM);
        queue = new RenderQueue(dir.resolve("queue"));
    }

    private Project project() throws IOException {
        return ProjectFile.read(folder.resolve("project.json"));
    }

    private List<QueueJob> add(DeliverySpec d, String... views) throws IOException {
        Project p = project();
        return Deliveries.add(queue, p, folder, d, Deliveries.pictures(p, folder, d, LocalDate.of(2031, 3, 1)).stream().filter(
                x -> List.of(views)
                .contains(x.view().name())).toList(), false, null);
    }

    private static final DeliverySpec R1 = DeliverySpec.of("R1");

    private QueueWorker worker(Clock c) throws IOException {
        return new QueueWorker(new RenderQueue(dir.resolve("queue")), 2, new WorkLog(dir.resolve("work.jsonl")), c);
    }

    private boolean run() throws IOException {
        try (QueueWorker w = worker(Clock.systemDefaultZone())) {
            return w.run(false);
        }
    }

    private QueueEntry entry(int id) throws IOException {
        queue.refresh();
        return queue.entry(id);
    }

    private static void until(String what, BooleanSupplier c) {
        long end = System.nanoTime() + 30_000_000_000L;
        while (!c.getAsBoolean()) {
            if (System.nanoTime() > end) throw new AssertionError("waited half a minute until " + what);
            try {
                Thread.sleep(20);
            } catch (InterruptedException e) {
                throw new AssertionError(e);
            }
        }
    }

    /** A line that was cut goes, one that is damaged is passed over, and nothing else is lost. */
    @Test
    void journalSurvivesWhatCrashesLeave() throws IOException {
        Journal j = new Journal(dir);
        for (int i = 0; i < 5; i++) {
            int n = i;
            j.write(out -> out.add(Json.MAPPER.createObjectNode().put("n", n)));
        }
        Path f = dir.resolve("journal.jsonl");
        Files.writeString(f, "12345678 {\"n\": 9", StandardOpenOption.APPEND);
        assertEquals(5, new Journal(dir).read().size(), "a cut line is none");
        new Journal(dir).write(out -> out.add(Json.MAPPER.createObjectNode().put("n", 5)));
        byte[] b = Files.readAllBytes(f);
        int second = new String(b, StandardCharsets.UTF_8).indexOf('\n') + 12;
        b[second] ^= 1;
        Files.write(f, b);
        List<JsonNode> all = new Journal(dir).read();
        assertEquals(List.of(0, 2, 3, 4, 5), all.stream().map(x -> x.path("n").asInt()).toList());
        assertEquals(5, j.read().size());
        assertEquals(0, j.read().size(), "each line once");
    }

    @Test
    void picturesAreMadeInOrderAndAsTheProjectWas() throws IOException {
        DeliverySpec d = R1.withFiles(List.of("png", "exr")).withNames("{project} {view} {date} {size}");
        List<QueueJob> jobs = add(d, "One", "Two");
        assertEquals(List.of(1, 2), jobs.stream().map(QueueJob::id).toList());
        assertEquals("room-one-2031-03-01-48x30.png", Path.of(jobs.getFirst().files().getFirst()).getFileName().toString());
        // An edit after that changes nothing.
        Files.writeString(folder.resolve("project.json"), ROOM.replace("90000", "9"));
        queue.move(2, 1);
        assertEquals(List.of(2, 1), queue.entries().stream().map(e -> e.job().id()).toList());
        queue.priority(1, 5);
        assertEquals(List.of(1, 2), queue.entries().stream().map(e -> e.job().id()).toList());
        assertTrue(run());
        for (QueueJob j : jobs) {
            QueueEntry e = entry(j.id());
            assertEquals(QueueEntry.State.DONE, e.state());
            assertEquals(4, e.passes());
            for (int i = 0; i < 2; i++) assertEquals(e.sums().get(i), QueueWorker.sum(Path.of(j.files().get(i))));
        }
        Files.writeString(folder.resolve("project.json"), ROOM);
        // The same again goes under a name of its own, and is the same picture.
        List<QueueJob> again = add(d, "One");
        assertEquals(3, again.getFirst().id());
        assertTrue(again.getFirst().files().getFirst().endsWith("48x30-2.png"), again.getFirst().files().toString());
        assertTrue(run());
        assertEquals(entry(1).sums(), entry(3).sums());
        queue.forget();
        assertEquals(0, queue.entries().size());
        assertEquals(4, add(d, "Two").getFirst().id(), "numbers are never given twice");
    }

    /** What was begun by a process that is gone is gone on with, and its files are its own. */
    @Test
    void killedInTheMiddle() throws IOException {
        QueueJob j = add(R1, "One").getFirst();
        queue.tell(RenderQueue.event("begin", 1));
        queue.tell(RenderQueue.event("writing", 1));
        Path file = Path.of(j.files().getFirst());
        Files.createDirectories(file.getParent());
        Files.writeString(file, "half of it");
        assertTrue(run());
        assertEquals(QueueEntry.State.DONE, entry(1).state());
        assertEquals(List.of(file.getFileName().toString()), names(file.getParent()));
        // One that came meanwhile from somebody else is not touched.
        QueueJob two = add(R1, "Two").getFirst();
        Path other = Path.of(two.files().getFirst());
        Files.writeString(other, "somebody's");
        assertTrue(run());
        assertEquals("somebody's", Files.readString(other));
        assertTrue(entry(2).job().files().getFirst().endsWith("two-2.png"), entry(2).job().files().toString());
    }

    private static List<String> names(Path folder) throws IOException {
        try (var all = Files.list(folder)) {
            return all.map(p -> p.getFileName().toString()).filter(n -> !n.startsWith(".")).sorted().toList();
        }
    }

    /** Trouble of one picture does not stop the others; what may pass is tried again, and each says what to do. */
    @Test
    void trouble() throws IOException {
        Path wall = dir.resolve("wall");
        Files.writeString(wall, "a file where a folder should be");
        add(R1.withFolder(wall.resolve("in").toString()), "One");
        add(R1, "Two");
        assertFalse(run());
        assertEquals(QueueEntry.State.FAILED, entry(1).state());
        assertTrue(entry(1).note().contains("choose another place"), entry(1).note());
        assertEquals(QueueEntry.State.DONE, entry(2).state());
        Files.delete(wall);
        queue.again(1);
        assertTrue(run());
        // A project that is away is tried three times; then it says so.
        Files.writeString(folder.resolve("project.json"), ROOM);
        add(R1, "Two");
        Path away = dir.resolve("away");
        Files.move(folder, away);
        assertFalse(run());
        assertEquals(3, entry(3).tries());
        assertTrue(entry(3).note().contains("bring it back"), entry(3).note());
        Files.move(away, folder);
        queue.again(3);
        assertTrue(run());
    }

    /** A model file that was changed since is noticed: no other picture than the one that was asked for. */
    @Test
    void changedFiles() throws IOException {
        Path model = Files.createDirectories(folder.resolve("models")).resolve("m.obj");
        String cube = "v 0 0 0\nv 1 0 0\nv 1 1 0\nf 1 2 3\n";
        Files.writeString(model, cube);
        Files.writeString(folder.resolve("project.json"), ROOM.replace("\"shapes\"", "\"models\": [{\"file\": \"models/m.obj\"}], \"shapes\""));
        add(R1, "One");
        Files.writeString(model, cube + "v 0 0 5\nf 1 2 4\n");
        assertFalse(run());
        assertEquals(1, entry(1).tries(), "it is not tried again");
        assertTrue(entry(1).note().contains("add it again"), entry(1).note());
    }

    /** Resting gives the machine back in the middle of a pass; stopping keeps; leaving out leaves nothing. */
    @Test
    void restStopLeaveOut() throws Exception {
        add(R1, "Slow");
        add(R1, "Slow");
        QueueWorker w = worker(Clock.systemDefaultZone());
        Thread t = new Thread(() -> {
            try {
                w.run(false);
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        });
        t.start();
        until("passes are made", () -> status() != null && status().passes() > 1);
        queue.pause(true);
        until("it rests", () -> status() != null && status().state().equals("resting"));
        Thread.sleep(300);
        long cpu = cpu();
        Thread.sleep(700);
        long used = cpu() - cpu;
        assertTrue(used < 300_000_000L, "used " + used / 1e6 + " ms of processor time while resting");
        assertThrows(bake.formats.FormatException.class, () -> worker(Clock.systemDefaultZone()), "one works at a time");
        queue.pause(false);
        queue.stopAndKeep(1);
        until("the first is kept", () -> state(1) == QueueEntry.State.KEPT);
        assertTrue(names(folder.resolve("finals")).contains("slow (unfinished).png"), names(folder.resolve("finals")).toString());
        until("the second is in work", () -> status() != null && status().job() == 2);
        queue.cancel(2);
        t.join(20_000);
        assertFalse(t.isAlive());
        assertEquals(List.of("slow (unfinished).png"), names(folder.resolve("finals")));
        assertEquals(QueueEntry.State.CANCELLED, entry(2).state());
        w.close();
        queue.again(1);
        assertFalse(queue.keeps(1), "it is gone on with and not stopped again");
    }

    private QueueStatus status() {
        return QueueStatus.read(dir.resolve("queue"));
    }

    private QueueEntry.State state(int id) {
        try {
            return entry(id).state();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** Processor time of the threads that render, nanoseconds: the compiler's own does not count. */
    private static long cpu() {
        var threads = ManagementFactory.getThreadMXBean();
        long sum = 0;
        for (Thread t : Thread.getAllStackTraces().keySet()) if (t.getName().equals("render")) sum += Math.max(0, threads.getThreadCpuTime(t.threadId()));
        return sum;
    }

    /** Outside of its hours it waits, and says so. */
    @Test
    void hours() throws Exception {
        queue.hours(QueueHours.of("20:00-06:00"));
        add(R1, "One");
        Instant[] now = {Instant.parse("2031-03-03T12:00:00Z")};
        Clock c = new Clock() {
            @Override
            public ZoneId getZone() {
                return ZoneId.of("UTC");
            }

            @Override
            public Clock withZone(ZoneId z) {
                return this;
            }

            @Override
            public Instant instant() {
                return now[0];
            }
        };
        QueueWorker w = worker(c);
        Thread t = new Thread(() -> {
            try {
                w.run(false);
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        });
        t.start();
        until("it waits", () -> status() != null && status().state().equals("waiting for its hours"));
        assertNull(entry(1).begun());
        now[0] = Instant.parse("2031-03-03T20:00:01Z");
        until("it is done at night", () -> state(1) == QueueEntry.State.DONE);
        t.join(10_000);
        w.close();
    }

    @Test
    void names() {
        LocalDate day = LocalDate.of(2031, 1, 2);
        assertEquals("r1-the-hall-3-4", FileNames.name("{delivery}/{view}", "P", "The Hall: 3/4", day, "R1", "F", 10, 20));
        assertEquals("con-view", FileNames.name("{view}", "P", "CON", day, "R1", "F", 10, 20));
        assertEquals("view", FileNames.name("{view}", "P", "???", day, "R1", "F", 10, 20));
        assertEquals("k\u00fcche", FileNames.name("{view}", "P", "K\u00fcche", day, "R1", "F", 10, 20));
        IllegalArgumentException e = assertThrows(IllegalArgumentException.class, () -> FileNames.name("{vew}", "P", "v", day, "R1", "F", 1, 1));
        assertTrue(e.getMessage().contains("{view}"));
        assertNotEquals(List.of("/a/b.png"), FileNames.free(List.of("/a/b.png"), Set.of("/a/b.png"), true), "another job's is never taken");
        assertArrayEquals(new String[] {"/a/b-2.png", "/a/b-2.exr"}, FileNames.free(List.of("/a/b.png", "/a/b.exr"), Set.of("/a/b.exr"), false)
                .toArray());
    }
}
