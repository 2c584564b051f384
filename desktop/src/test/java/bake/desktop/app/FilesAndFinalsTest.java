package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.Station;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.project.ProjectFile;
import bake.studio.queue.QueueEntry;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.application.Platform;
import javafx.scene.control.MenuBar;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What is dropped on the window, what is saved, and what is delivered. */
class FilesAndFinalsTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    /** A model dropped on an empty window becomes a project beside it, with a view that shows it. */
    @Test
    void modelIsDropped(FxRobot r) throws IOException {
        Path obj = Files.writeString(dir.resolve("hut.obj"),
                "v 0 0 0\nv 4 0 0\nv 4 0 -3\nv 0 0 -3\nv 2 2 -1.5\nf 1 2 3 4\nf 1 2 5\nf 2 3 5\n");
        Platform.runLater(() -> window.take(obj));
        until("it is on the easel", () -> bench.project() != null && bench.easel().frameProperty().get() != null);
        assertEquals("hut", bench.project().name());
        assertEquals(4, bench.models().factsProperty().get().unique());
        assertTrue(Files.isRegularFile(dir.resolve("hut project/project.json")));
        Platform.runLater(() -> window.take(obj));
        until("a second time it is another project", () -> Files.isRegularFile(dir.resolve("hut project 2/project.json"))
                && bench.folder().endsWith("hut project 2"));
    }

    /** A panorama dropped on the window is copied into the project and lights the view; undo takes it back. */
    @Test
    void panoramaIsDropped(FxRobot r) throws IOException {
        open();
        Path far = Files.createTempDirectory("bake-sky").resolve("noon.hdr");
        float[] rgb = new float[3 * 32 * 16];
        java.util.Arrays.fill(rgb, 800);
        HdrFile.write(far, new Raster(32, 16, rgb));
        Platform.runLater(() -> window.take(far));
        until("it is the light", () -> bench.view().around().kind().equals("hdri"));
        assertEquals("sky/noon.hdr", bench.view().around().file());
        assertTrue(Files.isRegularFile(dir.resolve("sky/noon.hdr")));
        r.clickOn("#station-light");
        QuickRobot.interact(() -> r.lookup("#hdri-ring").query().requestFocus());
        r.push(KeyCode.SHIFT, KeyCode.RIGHT);
        until("it turns", () -> Double.valueOf(10).equals(bench.view().around().rotation()));
        r.push(KeyCode.CONTROL, KeyCode.Z);
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("undo", () -> !bench.view().around().kind().equals("hdri"));
    }

    /** Edits are kept beside the project until they are saved; what was left can be thrown away. */
    @Test
    void autosaveAndDiscard(FxRobot r) throws IOException {
        Files.writeString(dir.resolve("project.autosave.json"), ROOM.replace("Test room", "Left room"));
        open();
        until("it is offered", () -> bench.document().recoveryProperty().get());
        QuickRobot.interact(() -> bench.views().choose("Two"));
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withHaze(4.0))));
        until("kept beside it", () -> Files.exists(dir.resolve("project.autosave.json")));
        assertEquals(1, recovered(), "edits do not destroy it");
        r.push(KeyCode.CONTROL, KeyCode.Z);
        r.clickOn("#discard");
        until("it is gone", () -> !bench.document().recoveryProperty().get() && recovered() == 0);
        assertEquals("Test room", bench.project().name());
        r.clickOn("#station-view");
        QuickRobot.interact(() -> r.lookup("#white-balance-slider").queryAs(Slider.class).setValue(Math.log(3000)));
        until("the balance is set", () -> Math.abs(bench.view().look().whiteBalance() - 3000) < 11);
        until("and kept beside the project", () -> Files.exists(dir.resolve("project.autosave.json")));
        assertNull(ProjectFile.read(dir.resolve("project.json")).currentView().whiteBalance(), "not in the project yet");
        r.push(KeyCode.CONTROL, KeyCode.S);
        until("saved", () -> !bench.document().changedProperty().get() && !Files.exists(dir.resolve("project.autosave.json")));
        assertNotNull(ProjectFile.read(dir.resolve("project.json")).currentView().whiteBalance());
    }

    private long recovered() {
        try (var s = Files.list(dir)) {
            return s.filter(p -> p.getFileName().toString().startsWith("project.recovered-")).count();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private QueueEntry.State state(int row) {
        QueueEntry e = bench.finals().rows().get(row).entry();
        return e == null ? null : e.state();
    }

    /** A delivery is stopped: the final in work is kept, the others are not begun, and the easel goes on. */
    @Test
    void deliveryIsStopped(FxRobot r) throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM.replace("\"timeLimit\": 0, \"samples\": 3",
                "\"timeLimit\": 0, \"samples\": 0"));
        open();
        Files.createDirectories(dir.resolve("finals"));
        Files.writeString(dir.resolve("finals/one.png"), "a whole final of yesterday");
        r.clickOn("#station-finals").clickOn("#finals-start");
        until("it is asked first", () -> r.lookup("#finals-existing").query().isVisible());
        assertFalse(bench.finals().runningProperty().get());
        r.clickOn("#finals-replace");
        until("the first is in work", () -> bench.finals().status(bench.finals().rows().getFirst()) != null
                && bench.finals().status(bench.finals().rows().getFirst()).passes() > 3);
        assertTrue(r.lookup("#finals-0").query().isDisabled(), "the choice is closed while it runs");
        r.clickOn("#finals-stop");
        until("stopped", () -> state(0) == QueueEntry.State.KEPT);
        assertEquals("a whole final of yesterday", Files.readString(dir.resolve("finals/one.png")), "only a whole one replaces it");
        assertTrue(Files.size(dir.resolve("finals/one (unfinished).png")) > 100, "what was made is kept under a name that says so");
        until("the other is left out", () -> state(1) == QueueEntry.State.CANCELLED);
        assertFalse(Files.exists(dir.resolve("finals/two.png")));
        until("the easel goes on", () -> bench.easel().frameProperty().get() != null);
    }

    /** A folder outside of the project stays chosen while one works, and finals there are numbered beside those of before. */
    @Test
    void deliveryFolderStays(FxRobot r) throws IOException {
        open();
        Path far = Files.createTempDirectory("bake-finals");
        Files.writeString(far.resolve("one.png"), "before");
        QuickRobot.interact(() -> bench.finals().change(d -> d.withFolder(far.toString())));
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withHaze(4.0))));
        assertEquals(far, bench.finals().folder());
        r.clickOn("#station-finals").clickOn("#finals-1").clickOn("#finals-start").clickOn("#finals-number");
        until("it is done", () -> state(0) == QueueEntry.State.DONE);
        assertEquals("before", Files.readString(far.resolve("one.png")));
        assertTrue(Files.size(far.resolve("one-2.png")) > 100);
    }

    /** A surroundings file that is gone is said where the picture would be, until something else is chosen. */
    @Test
    void missingSkyIsSaidOnTheEasel(FxRobot r) throws IOException {
        open();
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withFile("gone.hdr").withKind("hdri"))));
        until("it is known", () -> bench.easel().failureProperty().get() != null && bench.easel().failureProperty().get().contains("gone.hdr"));
        var before = bench.easel().frameProperty().get();
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("and forgotten with the next picture", () -> bench.easel().failureProperty().get() == null
                && bench.easel().frameProperty().get() != before);
    }

    /** An empty window shows no kind of sky. */
    @Test
    void emptyWindowShowsNoSky(FxRobot r) {
        r.clickOn("#station-light");
        for (String id : new String[] {"#sun-path", "#hdri-ring", "#plain-level"})
            assertFalse(r.lookup(id).query().getParent().isVisible() && r.lookup(id).query().getParent().getParent().isVisible(), id);
    }

    /** Quitting while a proof is made asks, and keeps what there is. */
    @Test
    void quittingAsks(FxRobot r) throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM.replace("\"timeLimit\": 0, \"samples\": 6",
                "\"timeLimit\": 0, \"samples\": 0"));
        open();
        boolean[] did = new boolean[2];
        QuickRobot.interact(() -> bench.leaving().by(() -> did[0] = true, () -> did[1] = true));
        QuickRobot.interact(() -> bench.prover().presetProperty().set(bench.prover().presetProperty().get().withLimits(0, 0, 0)));
        r.push(KeyCode.F5);
        until("it renders", () -> bench.prover().progressProperty().get() != null && bench.prover().progressProperty().get().passes() > 1);
        r.push(KeyCode.CONTROL, KeyCode.Q);
        until("it asks", () -> r.lookup("#leave-stay").query().isVisible() && bench.leaving().askedProperty().get());
        assertFalse(did[1]);
        r.clickOn("#leave-stay");
        assertTrue(bench.prover().runningProperty().get() && !bench.leaving().askedProperty().get());
        r.push(KeyCode.CONTROL, KeyCode.Q);
        r.clickOn("#leave-go-on");
        assertTrue(did[0] && !did[1], "the window goes, the work stays");
        QuickRobot.interact(() -> bench.leaving().stopAndQuit());
        until("it ends", () -> did[1]);
        assertTrue(Files.size(dir.resolve("proofs/0001/picture.png")) > 100, "and the print is kept");
    }

    /** What nobody foresaw is said and logged, on the window's own thread as on others. */
    @Test
    void mishapsAreShown(FxRobot r) {
        open();
        Mishaps.tell(bench.notices()::complain);
        Mishaps.happened("test", new IllegalStateException("nobody foresaw this"));
        until("it is said", () -> bench.notices().all().stream().anyMatch(m -> m.error() && m.text().contains("nobody foresaw this")));
        r.clickOn("#message-close");
        until("and goes", () -> bench.notices().all().isEmpty());
    }

    /** A folder that cannot be written to fails that final in words, in its own line. */
    @Test
    void deliveryFailsInWords(FxRobot r) throws IOException {
        open();
        Path blocked = Files.writeString(dir.resolve("not a folder"), "x");
        QuickRobot.interact(() -> bench.finals().change(d -> d.withFolder(blocked.toString())));
        r.clickOn("#station-finals").clickOn("#finals-1").clickOn("#finals-start");
        until("it has failed", () -> state(0) == QueueEntry.State.FAILED);
        assertFalse(bench.finals().rows().getFirst().entry().note().isBlank(), "it says why");
        assertEquals("x", Files.readString(blocked));
    }

    /** All keys are listed, what Bake is made of is told, and what was opened can be opened again. */
    @Test
    void pagesAndRecentProjects(FxRobot r) {
        open();
        r.push(KeyCode.F1);
        until("the keys are listed", () -> r.lookup("#pages").query().isVisible());
        for (String key : new String[] {"F5", "F7", "Ctrl+S"})
            assertTrue(r.lookup("#pages .figure").queryAll().stream().anyMatch(n -> ((javafx.scene.control.Label) n).getText().contains(key)), key);
        r.push(KeyCode.ESCAPE);
        until("Escape closes them", () -> !r.lookup("#pages").query().isVisible());
        MenuBar m = r.lookup("#menu").queryAs(MenuBar.class);
        QuickRobot.interact(() -> m.getMenus().getLast().getItems().getLast().fire());
        until("about", () -> r.lookup("#pages .card-title").queryAll().stream()
                .anyMatch(n -> ((javafx.scene.control.Label) n).getText().equals("About Bake")));
        r.clickOn("#pages-close");
        until("what was opened is remembered", () -> {
            r.lookup("#menu").query();
            m.getMenus().getFirst().getOnShowing().handle(null);
            return ((javafx.scene.control.Menu) m.getMenus().getFirst().getItems().get(2)).getItems().size() == 1;
        });
    }

    /** Evening colours and the folded rail, from the menu. */
    @Test
    void looks(FxRobot r) {
        open();
        QuickRobot.interact(() -> window.looks().eveningProperty().set(true));
        until("evening", () -> r.lookup(".window").query().getScene().getStylesheets().stream().anyMatch(s -> s.endsWith("evening.css")));
        QuickRobot.interact(() -> window.looks().eveningProperty().set(false));
        until("day", () -> !r.lookup(".window").query().getScene().getStylesheets().stream().anyMatch(s -> s.endsWith("evening.css")));
        double before = r.lookup("#easel").query().getBoundsInLocal().getHeight();
        r.push(KeyCode.F7);
        until("the picture has the rail's room", () -> r.lookup("#easel").query().getBoundsInLocal().getHeight() > before + 20);
        r.push(KeyCode.F7);
        until("and gives it back", () -> r.lookup("#easel").query().getBoundsInLocal().getHeight() < before + 5);
    }

    /** Nothing that is shown is cut off or empty at the smallest window, on any station. */
    @Test
    void everyStationFitsTheSmallestWindow(FxRobot r) {
        QuickRobot.interact(() -> {
            var s = r.lookup("#easel").query().getScene().getWindow();
            s.setWidth(1024);
            s.setHeight(700);
        });
        open();
        until("the window is small", () -> r.lookup("#easel").query().getScene().getWidth() == 1024);
        for (Station s : Station.values()) {
            QuickRobot.interact(() -> bench.stationProperty().set(s));
            for (String id : new String[] {"#proof", "#title-preset", "#title-due"}) {
                until(s + ": " + id + " is inside", () -> {
                    var b = r.lookup(id).query().localToScene(r.lookup(id).query().getBoundsInLocal());
                    return b.getMaxX() <= 1024 && b.getMaxY() <= 700 && b.getWidth() > 3;
                });
            }
            for (var n : r.lookup(".button").queryAll()) {
                var b = n.localToScene(n.getBoundsInLocal());
                if (n.isVisible() && n.getParent() != null && b.getMinY() < 700)
                    assertTrue(b.getMaxX() <= 1025, s + ": " + n + " lies at " + b);
            }
        }
    }
}
