package bake.studio.queue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.contains;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoMoreInteractions;
import static org.mockito.Mockito.when;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.LocalDate;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the queue leaves to people, and what it tells them. */
class MannersTest {
    private static final String ROOM = """
            {"bake": 1, "name": "Room",
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"}],
             "materials": [{"name": "wall", "base": [0.7,0.7,0.7], "roughness": 1, "ior": 1}],
             "lamps": [{"name": "bulb", "kind": "sphere", "position": [1,1,2], "diameter": 0.2, "lumens": 90000}],
             "presets": [{"name": "F", "version": 1, "purpose": "final", "setting": "interior", "width": 0, "noiseAim": 0, "timeLimit": 0, "samples": 4, "bounces": 3, "clamp": 0}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5]}, "size": [48, 30]},
                       {"name": "Two", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [40, 30]}]}""";
    @TempDir
    private Path dir;
    private RenderQueue queue;
    private Path folder;

    @BeforeEach
    void room() throws IOException {
        folder = Files.createDirectories(dir.resolve("room"));
        Files.writeString(folder.resolve("project.json"), ROOM);
        queue = new RenderQueue(dir.resolve("queue"));
    }

    private void add() throws IOException {
        Project p = ProjectFile.read(folder.resolve("project.json"));
        DeliverySpec d = DeliverySpec.of("R1");
        Deliveries.add(queue, p, folder, d, Deliveries.pictures(p, folder, d, LocalDate.of(2031, 3, 1)), false, null);
    }

    private QueueWorker worker(BiConsumer<String, String> note) throws IOException {
        return new QueueWorker(new RenderQueue(dir.resolve("queue")), 2, new WorkLog(dir.resolve("work.jsonl")), Clock.systemDefaultZone(), note);
    }

    @SuppressWarnings("unchecked")
    private static BiConsumer<String, String> listener() {
        return mock(BiConsumer.class);
    }

    /** One note when all is done, and one that says so when something is not. */
    @Test
    void tellsOnce() throws IOException {
        BiConsumer<String, String> note = listener(), trouble = listener();
        add();
        try (QueueWorker w = worker(note)) {
            assertTrue(w.run(false));
        }
        verify(note).accept("Finals are done", "2 pictures are done.");
        verifyNoMoreInteractions(note);
        add();
        Files.writeString(queue.state(4), "{");
        try (QueueWorker w = worker(trouble)) {
            assertFalse(w.run(false));
        }
        verify(trouble).accept(eq("Finals need a look"), contains("1 could not be made"));
        verifyNoMoreInteractions(trouble);
    }

    /** Somebody is there for two minutes after the last sign, by whatever clock. */
    @Test
    void presence() throws IOException {
        Files.createDirectories(queue.folder());
        Clock clock = mock(Clock.class);
        when(clock.millis()).thenReturn(1_000_000_000L);
        Presence p = new Presence(queue.folder(), clock);
        assertFalse(p.here(), "nobody was there yet");
        Presence.tell(queue.folder());
        Path sign = queue.folder().resolve("present");
        Files.setLastModifiedTime(sign, FileTime.fromMillis(1_000_000_000L));
        assertTrue(p.here());
        when(clock.millis()).thenReturn(1_000_000_000L + Presence.STAYS_MILLIS - 1);
        assertTrue(p.here());
        when(clock.millis()).thenReturn(1_000_000_000L + Presence.STAYS_MILLIS + 1);
        assertFalse(p.here());
    }

    /** While somebody works here it rests, by choice, and then goes on. */
    @Test
    void restsBeside() throws Exception {
        add();
        assertEquals(Manners.ALL, queue.manners());
        queue.manners(Manners.REST);
        Presence.tell(queue.folder());
        QueueWorker w = worker(listener());
        Thread t = new Thread(() -> {
            try {
                w.run(false);
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        });
        t.start();
        until(() -> QueueStatus.read(queue.folder()) != null && QueueStatus.read(queue.folder()).state().equals("resting while someone works here"));
        Files.setLastModifiedTime(queue.folder().resolve("present"), FileTime.fromMillis(System.currentTimeMillis() - Presence.STAYS_MILLIS - 5000));
        t.join(20_000);
        assertFalse(t.isAlive());
        w.close();
        queue.refresh();
        assertTrue(queue.entries().stream().allMatch(e -> e.state() == QueueEntry.State.DONE));
        queue.manners(Manners.HALF);
        assertEquals(Manners.HALF, queue.manners());
        assertThrows(IllegalArgumentException.class, () -> Manners.of("some"));
    }

    /** A word of a later version in the journal does not take the queue away. */
    @Test
    void unknownWords() throws IOException {
        add();
        queue.manners(Manners.REST);
        queue.tell(RenderQueue.event("manners", 0).put("manners", "quarter"));
        queue.tell(RenderQueue.event("hours", 0).put("hours", "moonlight"));
        RenderQueue again = new RenderQueue(queue.folder());
        again.refresh();
        assertEquals(2, again.entries().size());
        assertEquals(Manners.REST, again.manners());
        assertEquals(QueueHours.ALWAYS, again.hours());
    }

    private static void until(BooleanSupplier c) throws InterruptedException {
        long end = System.nanoTime() + 20_000_000_000L;
        while (!c.getAsBoolean()) {
            if (System.nanoTime() > end) throw new AssertionError("waited too long");
            Thread.sleep(20);
        }
    }
}
