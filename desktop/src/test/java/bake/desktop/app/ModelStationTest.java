package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.Opened;
import bake.desktop.work.Reading;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.application.Platform;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Files of the Model station: what is being read and given up, units, newer files, many materials. */
class ModelStationTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private Path obj(String name, int materials, double size) throws IOException {
        StringBuilder o = new StringBuilder("mtllib many.mtl\n"), m = new StringBuilder();
        for (int i = 0; i < materials; i++) {
            o.append("v ").append(i * size).append(" 0 0\nv ").append((i + 1) * size).append(" 0 0\nv ").append(i * size).append(" 0 ")
                    .append(-size).append('\n');
            o.append("usemtl paint ").append(i).append("\nf ").append(3 * i + 1).append(' ').append(3 * i + 2).append(' ').append(3 * i + 3)
                    .append('\n');
            m.append("newmtl paint ").append(i).append("\nKd 0.5 0.5 0.5\n");
        }
        Files.writeString(dir.resolve("many.mtl"), m);
        return Files.writeString(dir.resolve(name), o);
    }

    private void opened(Path model) {
        Platform.runLater(() -> window.take(model));
        until("it is on the easel", () -> bench.project() != null && bench.easel().frameProperty().get() != null
                && bench.models().factsProperty().get().size() != null);
    }

    /** While something is read the window says what and for how long, and Stop gives it up. */
    @Test
    void readingIsStopped(FxRobot r) {
        Reading slow = new Reading();
        slow.step("Reading tower.fbx");
        QuickRobot.interact(() -> bench.opener().open(slow));
        until("it counts the seconds", () -> r.lookup((javafx.scene.Node n) -> n instanceof javafx.scene.control.Label l
                && l.getText().startsWith("Reading tower.fbx, 1 s")).tryQuery().isPresent());
        r.clickOn("#opening-stop");
        until("it was given up", () -> !bench.opener().openingProperty().get());
        assertTrue(slow.stopped() && r.lookup("#empty-demo").query().isVisible() && !r.lookup("#opening-stop").query().isVisible());
        QuickRobot.interact(() -> slow.done.completeExceptionally(new IOException("late")));
        assertNull(bench.notices().lastProperty().get(), "what comes after is nobody's business");
    }

    /** A model whose reading was stopped leaves no project behind. */
    @Test
    void aStoppedModelLeavesNothing(FxRobot r) throws IOException {
        Path model = obj("hut.obj", 3, 1);
        Reading stopped = new Reading();
        stopped.stop();
        assertTrue(org.junit.jupiter.api.Assertions.assertThrows(IOException.class, () -> Opened.read(model.toString(), stopped))
                .getMessage().contains("stopped"));
        assertFalse(Files.exists(dir.resolve("hut project")));
    }

    /** A unit and an axis are chosen, the size follows; undo brings both back. */
    @Test
    void unitsAreChosen(FxRobot r) throws IOException {
        opened(obj("hut.obj", 4, 100));
        assertArrayEquals(new double[] {400, 100, 0}, bench.models().factsProperty().get().size(), 1e-3);
        r.clickOn("#station-model").clickOn("#unit-0-cm");
        until("it is smaller", () -> Math.abs(bench.models().factsProperty().get().size()[0] - 4) < 1e-5);
        assertEquals(0.01, bench.project().models().getFirst().unit());
        r.clickOn("#up-0-z-up");
        until("it stands", () -> Math.abs(bench.models().factsProperty().get().size()[2] - 1) < 1e-5);
        r.push(KeyCode.CONTROL, KeyCode.Z);
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("undone", () -> Math.abs(bench.models().factsProperty().get().size()[0] - 400) < 1e-3);
        assertNull(bench.project().models().getFirst().unit());
    }

    /** A newer file of the same name takes the place of the old one, and what is lost is said. */
    @Test
    void aNewerFile(FxRobot r) throws IOException {
        Path model = obj("hut.obj", 4, 1);
        opened(model);
        QuickRobot.interact(() -> bench.models().startFrom("paint 3", "oak, oiled"));
        obj("hut.obj", 3, 2);
        QuickRobot.interact(() -> bench.models().replace("hut.obj", model));
        until("it is larger", () -> Math.abs(bench.models().factsProperty().get().size()[0] - 6) < 1e-5);
        until("what is lost is said", () -> bench.notices().lastProperty().get() != null
                && bench.notices().lastProperty().get().text().contains("paint 3"));
        Path broken = Files.writeString(dir.resolve("broken.obj"), "nothing");
        QuickRobot.interact(() -> bench.models().replace("hut.obj", broken));
        until("a broken one is refused", () -> bench.notices().lastProperty().get().error()
                && bench.notices().lastProperty().get().text().contains("broken.obj"));
        assertTrue(bench.project().models().getFirst().file().endsWith("/hut.obj"));
        assertTrue(bench.models().unusedProperty().get().isEmpty(), "undo needs the old one");
        QuickRobot.interact(() -> bench.document().save());
        until("saved", () -> !bench.document().changedProperty().get());
        QuickRobot.interact(() -> bench.opener().open(bench.folder().toString()));
        until("after the next start nothing does", () -> bench.models().unusedProperty().get().size() == 1);
        r.clickOn("#station-model");
        QuickRobot.interact(() -> r.lookup("#clear-models").queryAs(javafx.scene.control.Button.class).fire());
        until("it is deleted on request", () -> bench.models().unusedProperty().get().isEmpty());
        assertTrue(Files.isRegularFile(bench.folder().resolve(bench.project().models().getFirst().file())));
    }

    /** A project without a view says so, and what to do; editing its files is no error. */
    @Test
    void aProjectWithoutAView(FxRobot r) throws IOException {
        Files.writeString(dir.resolve("project.json"), "{\"bake\": 1, \"name\": \"Nothing\"}");
        Platform.runLater(() -> window.take(dir));
        until("it is open", () -> bench.project() != null);
        assertTrue(r.lookup((javafx.scene.Node n) -> n instanceof javafx.scene.control.Label l && l.isVisible()
                && l.getText().contains("has no view")).tryQuery().isPresent());
        QuickRobot.interact(() -> bench.edit(null,
                p -> p.withModels(java.util.List.of(bake.formats.project.Project.ModelRef.of("none.obj")))));
        assertNull(bench.notices().lastProperty().get());
    }

    /** With many materials a part of the name finds them. */
    @Test
    void materialsAreFound(FxRobot r) throws IOException {
        opened(obj("many.obj", 80, 1));
        r.clickOn("#station-model");
        QuickRobot.interact(() -> {
            TextField f = r.lookup("#find-material").queryAs(TextField.class);
            f.setText("PAINT 7");
            f.fireEvent(new javafx.event.ActionEvent());
        });
        assertEquals("paint 7", r.lookup("#material-0").queryAs(javafx.scene.control.Button.class).getText());
        assertTrue(r.lookup("#material-10").tryQuery().isPresent() && r.lookup("#material-11").tryQuery().isEmpty(), "7 and 70 to 79");
    }

    /** A thing is clicked, its material set, its length measured, and a better one put in its place and in its copy's. */
    @Test
    void pickedMeasuredAndSwapped(FxRobot r) throws IOException {
        Path plain = Files.writeString(dir.resolve("chair.obj"), CUBE.formatted("plain chair", 0.5));
        Files.writeString(dir.resolve("project.json"), TWO_CHAIRS);
        Files.createDirectories(dir.resolve("models/a"));
        Files.move(plain, dir.resolve("models/a/chair.obj"));
        opened(dir);
        r.clickOn("#station-model");
        QuickRobot.interact(() -> bench.models().picks().click(0.5, 0.55));
        assertEquals("plain chair", bench.models().picks().pickedProperty().get().object());
        
        assertTrue(r.lookup("#swap").query().isVisible());
        QuickRobot.interact(() -> bench.models().surface("wall", "roughness", x -> x.withRoughness(0.25)));
        until("the material has it", () -> bench.models().factsProperty().get().materials().stream()
                .anyMatch(m -> m.name().equals("wall") && Math.abs(m.roughness() - 0.25) < 1e-9));
        until("there is a picture again", () -> bench.easel().frameProperty().get().passes() > 0);
        r.clickOn("#measure");
        QuickRobot.interact(() -> {
            bench.models().picks().click(0.5, 0.95);
            bench.models().picks().click(0.6, 0.95);
        });
        double d = bench.models().picks().distance();
        assertTrue(d > 0.1 && d < 1, "measured " + d);
        until("it is written on the picture", () -> r.lookup("#measured").tryQuery().isPresent());
        assertTrue(r.lookup("#measured").queryAs(javafx.scene.control.Label.class).getText().startsWith(d < 1
                ? String.format(java.util.Locale.ROOT, "%.3f", d) : String.format(java.util.Locale.ROOT, "%.2f", d)));
        // A better chair, twice as high, with its origin elsewhere.
        Path better = Files.writeString(dir.resolve("better.obj"), CUBE.formatted("better chair", 1.0).replace("v 0", "v 7"));
        QuickRobot.interact(() -> bench.models().swap("plain chair", better));
        until("it stands there", () -> bench.models().factsProperty().get().objects().containsKey("better chair"));
        assertFalse(bench.models().factsProperty().get().objects().containsKey("plain chair"));
        assertEquals(2, bench.models().factsProperty().get().objects().get("better chair").copies());
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("undone", () -> bench.models().factsProperty().get().objects().containsKey("plain chair"));
    }

    /** A box of half a metre across and so high, of the material "wall", with y up. */
    private static final String CUBE = """
            o %1$s
            v 0 0 0
            v 0.5 0 0
            v 0.5 0 0.5
            v 0 0 0.5
            v 0 %2$s 0
            v 0.5 %2$s 0
            v 0.5 %2$s 0.5
            v 0 %2$s 0.5
            f 1 2 3 4
            f 5 8 7 6
            f 1 5 6 2
            f 2 6 7 3
            f 3 7 8 4
            f 4 8 5 1
            """;
    private static final String TWO_CHAIRS = """
            {"bake": 1, "name": "Chairs", "materials": [{"name": "wall", "base": [0.5,0.5,0.5], "roughness": 1, "ior": 1}],
             "models": [{"file": "models/a/chair.obj", "at": [-0.25, 0.25, 0]}, {"file": "models/a/chair.obj", "at": [2, 1, 0], "turn": 90}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"}],
             "views": [{"name": "One", "camera": {"position": [0,-3,1.2], "target": [0,0,0.3], "focal": 35}, "size": [64, 40]}]}""";

    /** Drawings are chosen by a click, and say what their colours mean. */
    @Test
    void drawingsSayWhatTheyShow(FxRobot r) throws IOException {
        opened(Files.writeString(dir.resolve("room.obj"), "o floor\nv 0 0 0\nv 4 0 0\nv 4 0 -4\nv 0 0 -4\nf 1 2 3 4\n"));
        r.clickOn("#station-model");
        press(r, "#show-depth");
        until("depth", () -> bench.easel().showing(bake.desktop.work.Station.MODEL).get() == bake.studio.live.Showing.DEPTH
                && text(r, "#show-key").contains("4 m"));
        press(r, "#show-picture");
        until("nothing to say", () -> text(r, "#show-key").isEmpty());
    }

    /** A rug that lies in the floor is found, and lifted by a click; undo brings it back. */
    @Test
    void aRugIsLiftedOffTheFloor(FxRobot r) throws IOException {
        Path model = Files.writeString(dir.resolve("room.obj"), """
                o floor
                v 0 0 0
                v 4 0 0
                v 4 0 -4
                v 0 0 -4
                f 1 2 3 4
                o rug
                v 1 0 -1
                v 2 0 -1
                v 2 0 -3
                v 1 0 -3
                f 5 6 7 8
                """);
        opened(model);
        r.clickOn("#station-model");
        until("it is found", () -> bench.models().factsProperty().get().coplanar().size() == 1);
        assertEquals(2, bench.models().factsProperty().get().coplanar().getFirst().area(), 1e-3);
        press(r, "#lift-0");
        until("it is lifted", () -> bench.project().nudges().size() == 1 && bench.models().factsProperty().get().coplanar().isEmpty());
        assertEquals("rug", bench.project().nudges().getFirst().object());
        assertEquals(0.001, bench.project().nudges().getFirst().by()[2], 1e-9);
        QuickRobot.interact(bench.document()::undo);
        until("and lies in the floor again", () -> bench.models().factsProperty().get().coplanar().size() == 1);
    }
}
