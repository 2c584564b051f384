package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.Finals;
import bake.desktop.work.Station;
import bake.formats.project.DeliverySpec;
import bake.studio.estimate.Estimate;
import bake.studio.plan.Deliveries;
import bake.studio.queue.QueueEntry;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The main job at its end: promise, try small, see that it does not fit, change, render, be killed, go on, hand over. */
class DeliveryTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private QueueEntry entry(int row) {
        return bench.finals().rows().get(row).entry();
    }

    @Test
    void fromPromiseToHandover(FxRobot r) throws IOException {
        // Finals without end, so that they are in work when the queue is killed.
        Files.writeString(dir.resolve("project.json"), ROOM.replace("\"noiseAim\": 0, \"timeLimit\": 0, \"samples\": 3",
                "\"noiseAim\": 2, \"timeLimit\": 0, \"samples\": 0"));
        open();
        r.clickOn("#station-finals");
        // Due in ten minutes; each picture would take about seven.
        QuickRobot.interact(() -> r.lookup("#due").<TextField>query().requestFocus());
        LocalDateTime due = LocalDateTime.now().plusMinutes(10).truncatedTo(ChronoUnit.MINUTES);
        r.push(KeyCode.CONTROL, KeyCode.A).write(due.toString().replace('T', ' ')).type(KeyCode.ENTER);
        until("it is promised", () -> bench.project().due() != null && bench.project().due().startsWith(due.toString()));
        // Every picture small.
        fire(r, "#finals-try");
        until("both are seen small", () -> !bench.finals().tryOut().runningProperty().get() && bench.finals().tryOut().sheetProperty().get().size() == 2);
        assertTrue(bench.finals().tryOut().sheetProperty().get().stream().allMatch(s -> s.argb() != null && s.trouble() == null));
        // What is known of them: seven minutes each at two percent.
        foretold(r, 420);
        until("the plan stands", () -> bench.finals().plan().planProperty().get() != null && bench.finals().plan().unknown() == 0);
        assertTrue(bench.finals().plan().planProperty().get().chance() < 0.2, "it does not fit");
        assertTrue(text(r, "#finals-ready").contains("chance of"), text(r, "#finals-ready"));
        // One is left out, for which a later round is begun in the end.
        r.clickOn("#finals-1");
        until("only one", () -> bench.finals().rows().get(1).picture().off());
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("both again", () -> !bench.finals().rows().get(1).picture().off());
        // Coarser, and in two kinds of file.
        QuickRobot.interact(() -> {
            bench.finals().changeView("One", i -> i.withNoise(30.0).withSamples(400));
            bench.finals().changeView("Two", i -> i.withNoise(30.0).withSamples(400));
        });
        fire(r, "#kind-jpg");
        until("two kinds", () -> bench.finals().delivery().files().equals(List.of("png", "jpg")));
        fire(r, "#finals-start");
        until("it is in work", () -> entry(0) != null && entry(0).state() != QueueEntry.State.WAITING);
        endWorker();
        fire(r, "#finals-go-on");
        until("both are done", () -> entry(0).state() == QueueEntry.State.DONE && entry(1).state() == QueueEntry.State.DONE);
        for (String f : new String[] {"one.png", "one.jpg", "two.png", "two.jpg"}) assertTrue(Files.size(dir.resolve("finals").resolve(f)) > 100, f);
        fire(r, "#finals-report");
        Path html = dir.resolve("finals/test-room-r1-report.html"), pdf = dir.resolve("finals/test-room-r1-report.pdf"),
                zip = dir.resolve("finals/test-room-r1.zip");
        until("it is handed over", () -> Files.isRegularFile(zip));
        String page = Files.readString(html);
        assertTrue(page.contains("Test room") && page.contains(entry(0).sums().getFirst()) && page.contains("data:image/jpeg;base64,"));
        try (var d = Loader.loadPDF(pdf.toFile())) {
            String words = new PDFTextStripper().getText(d);
            assertTrue(words.contains("Test room") && words.contains("One") && words.contains("64 x 40") && words.contains(entry(1).sums().getFirst()),
                    words);
            assertEquals(3, d.getNumberOfPages(), "a sheet and a page for each");
        }
        try (var z = new java.util.zip.ZipFile(zip.toFile())) {
            assertEquals(8, z.size());
            assertNotNull(z.getEntry("SHA256SUMS"));
        }
        // The next round begins as this one is, and its pictures are its own.
        fire(r, "#finals-round");
        until("R2", () -> bench.finals().delivery().name().equals("R2"));
        assertEquals(List.of("png", "jpg"), bench.finals().delivery().files());
        until("not made yet", () -> entry(0) == null);
        DeliverySpec first = bench.project().deliveries().getFirst();
        assertEquals("R1", first.name());
        assertFalse(Deliveries.FIRST.files().contains("jpg"));
    }

    /** Says of every row what it would take. */
    private void foretold(FxRobot r, double seconds) {
        QuickRobot.interact(() -> {
            for (Finals.Row x : List.copyOf(bench.finals().rows())) bench.finals().learn(bench.project(), x.view(), new Estimate(seconds,
                    seconds / 1.1,
                    seconds * 1.1, 2, 100, 0, seconds, 0, "for the test", "noise aim", false));
        });
    }

    /** Resting is heard by who works the queue; the window says so. */
    @Test
    void restsAndWorksAgain(FxRobot r) throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM.replace("\"noiseAim\": 0, \"timeLimit\": 0, \"samples\": 3",
                "\"noiseAim\": 0, \"timeLimit\": 0, \"samples\": 0"));
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.FINALS));
        fire(r, "#finals-start");
        until("it is in work", () -> bench.finals().status(bench.finals().rows().getFirst()) != null
                && bench.finals().status(bench.finals().rows().getFirst()).passes() > 1);
        fire(r, "#finals-pause");
        until("it rests", () -> bench.finals().status(bench.finals().rows().getFirst()) != null
                && bench.finals().status(bench.finals().rows().getFirst()).state().equals("resting"));
        until("and says so at every station", () -> r.lookup("#foot-finals").<javafx.scene.control.Label>query().getText().contains("resting"));
        fire(r, "#finals-pause");
        until("it works again", () -> bench.finals().status(bench.finals().rows().getFirst()) != null
                && bench.finals().status(bench.finals().rows().getFirst()).state().equals("rendering"));
        fire(r, "#finals-stop");
        until("it is kept", () -> entry(0).state() == QueueEntry.State.KEPT);
    }

    /** What EXR holds beside the picture says what it takes before anything is made. */
    @Test
    void channelsSayWhatTheyTake(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.FINALS));
        fire(r, "#kind-exr");
        until("a kind more", () -> bench.finals().delivery().files().contains("exr"));
        fire(r, "#channel-layers");
        until("said", () -> text(r, "#finals-channels-cost").contains(" MB of memory"));
        assertEquals(List.of("layers"), bench.finals().delivery().channels());
        fire(r, "#channel-layers");
        until("nothing to say", () -> !r.lookup("#finals-channels-cost").query().isVisible());
    }

    /** The list and the clock: with which settings, and in which order. */
    @Test
    void listAndOrder(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.FINALS));
        choose(r, "#finals-preset-0", "Small outside");
        until("other settings", () -> bench.finals().rows().getFirst().picture().preset().name().equals("Small outside"));
        choose(r, "#finals-preset-0", "what suits the view");
        until("those that suit", () -> bench.finals().rows().getFirst().picture().preset().name().equals("Small final"));
        foretold(r, 420);
        until("the plan stands", () -> r.lookup("#plan-name-1").tryQuery().isPresent());
        QuickRobot.interact(() -> r.lookup("#plan-name-1").query().requestFocus());
        r.push(KeyCode.CONTROL, KeyCode.UP);
        until("Two comes first", () -> bench.finals().rows().getFirst().view().equals("Two"));
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("as before", () -> bench.finals().rows().getFirst().view().equals("One"));
        // A locked one stays where it is.
        foretold(r, 420);
        seen(r, "#plan-lock-1");
        r.clickOn("#plan-lock-1");
        until("Two is locked", () -> bench.finals().plan().locked("Two"));
        QuickRobot.interact(() -> bench.finals().plan().move("One", null));
        QuickRobot.interact(() -> bench.finals().plan().move("Two", "One"));
        assertEquals("One", bench.finals().rows().getFirst().view());
        until("it is said", () -> bench.notices().lastProperty().get().text().contains("locked"));
        QuickRobot.interact(bench.document()::undo);
        assertFalse(bench.finals().plan().locked("Two"));
        // Behind all others.
        foretold(r, 420);
        until("the plan stands again", () -> order().equals(List.of("One", "Two")) && r.lookup("#plan-name-1").tryQuery().isPresent());
        QuickRobot.interact(() -> bench.finals().plan().move("One", null));
        until("One comes last", () -> bench.finals().rows().getLast().view().equals("One"));
        // A place whose light is said.
        QuickRobot.interact(() -> bench.finals().change(d -> d.withPoints(List.of(new DeliverySpec.Point("floor", new double[] {1, 1, 0},
                null, null)))));
        fire(r, "#point-out-0");
        until("it is left out", () -> bench.finals().delivery().points().isEmpty());
    }

    private List<String> order() {
        var p = bench.finals().plan().planProperty().get();
        return p == null ? List.of() : p.bars().stream().map(b -> b.work().name()).toList();
    }

    /** Sizes by name, paper both ways, and a shape that stays. */
    @Test
    void sizes(FxRobot r) {
        open();
        r.clickOn("#station-view");
        MenuButton menu = r.lookup("#sizes").query();
        QuickRobot.interact(() -> menu.getItems().stream().map(m -> (Menu) m).filter(m -> m.getText().equals("Paper, A")).flatMap(m -> m.getItems().stream())
                .filter(i -> i.getText().startsWith("A4") && i.getText().endsWith("standing")).findFirst().orElseThrow().fire());
        until("A4, standing", () -> bench.view().size()[0] == 2480 && bench.view().size()[1] == 3508);
        QuickRobot.interact(() -> {
            r.lookup("#size-locked").<javafx.scene.control.CheckBox>query().fire();
            r.lookup("#final-width").<TextField>query().requestFocus();
        });
        r.push(KeyCode.CONTROL, KeyCode.A).write("1240").type(KeyCode.ENTER);
        until("the height follows", () -> bench.view().size()[0] == 1240 && bench.view().size()[1] == 1754);
    }
}
