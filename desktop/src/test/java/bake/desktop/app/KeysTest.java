package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.Lighting;
import bake.desktop.work.Station;
import bake.formats.project.LampSpec;
import java.io.IOException;
import java.nio.file.Files;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** The main job and what lies on the picture, by keys alone: the pointer is never used. */
@ExtendWith(ApplicationExtension.class)
class KeysTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    /** Goes on with the tabulator until a control has the focus. */
    private static void tabTo(FxRobot r, String id) {
        Node wanted = r.lookup(id).query();
        for (int i = 0; i < 250 && wanted.getScene().getFocusOwner() != wanted; i++) {
            r.push(KeyCode.TAB);
            if (r.lookup(id).tryQuery().isPresent()) wanted = r.lookup(id).query();
        }
        assertEquals(wanted, wanted.getScene().getFocusOwner(), id + " can be reached");
    }

    private void station(FxRobot r, KeyCode digit, Station s) {
        r.push(KeyCode.CONTROL, digit);
        assertEquals(s, bench.stationProperty().get());
    }

    /** Open, change the light, choose a view, make a proof, hang it, zoom, switch to the final and make it. */
    @Test
    void theMainJob(FxRobot r) {
        open();
        station(r, KeyCode.DIGIT2, Station.LIGHT);
        tabTo(r, "#time");
        r.push(KeyCode.CONTROL, KeyCode.A);
        r.write("15:40");
        r.push(KeyCode.ENTER);
        assertEquals("15:40", bench.view().around().time());
        station(r, KeyCode.DIGIT3, Station.VIEW);
        tabTo(r, "#view-1");
        r.push(KeyCode.SPACE);
        assertEquals("Two", bench.view().name());
        assertEquals("view-1", r.lookup("#view-1").query().getScene().getFocusOwner().getId(), "the focus stays in the list");
        r.push(KeyCode.ALT, KeyCode.UP);
        assertEquals("Two", bench.project().views().getFirst().name());
        r.push(KeyCode.F8);
        assertEquals("One", bench.view().name());
        station(r, KeyCode.DIGIT4, Station.PROVE);
        r.push(KeyCode.F5);
        until("there is a proof", () -> bench.prints().all().size() == 1 && !bench.prover().runningProperty().get());
        tabTo(r, "#print-1");
        r.push(KeyCode.SPACE);
        assertTrue(bench.prints().aProperty().get() == null, "the newest hung already");
        r.push(KeyCode.SHIFT, KeyCode.ENTER);
        assertEquals(1, bench.prints().bProperty().get().number());
        assertEquals("print-1", r.lookup("#print-1").query().getScene().getFocusOwner().getId(), "the focus stays on the rail");
        tabTo(r, "#easel");
        r.push(KeyCode.Z);
        assertTrue(r.lookup("#enlarged").query().isVisible());
        r.push(KeyCode.ESCAPE);
        assertTrue(!r.lookup("#enlarged").query().isVisible());
        station(r, KeyCode.DIGIT5, Station.FINALS);
        tabTo(r, "#due");
        r.push(KeyCode.CONTROL, KeyCode.A);
        r.write("14 March 2031 17:00");
        r.push(KeyCode.ENTER);
        assertEquals("2031-03-14T17:00", bench.project().due());
        tabTo(r, "#finals-start");
        r.push(KeyCode.SPACE);
        until("both finals are there", () -> !bench.finals().runningProperty().get()
                && Files.exists(dir.resolve("finals/one.png")) && Files.exists(dir.resolve("finals/two.png")));
        r.push(KeyCode.CONTROL, KeyCode.S);
        until("it is saved", () -> !bench.document().changedProperty().get());
    }

    /** A region is marked, moved and sized; a lamp is put down, moved, aimed and renamed; a light is read. */
    @Test
    void onThePicture(FxRobot r) {
        open();
        station(r, KeyCode.DIGIT2, Station.LIGHT);
        tabTo(r, "#region");
        r.push(KeyCode.SPACE);
        tabTo(r, "#easel");
        r.push(KeyCode.RIGHT);
        assertEquals(new bake.core.film.Region(250, 250, 500, 500), bench.prover().regionProperty().get());
        r.push(KeyCode.RIGHT);
        r.push(KeyCode.SHIFT, KeyCode.DOWN);
        assertEquals(new bake.core.film.Region(260, 250, 500, 510), bench.prover().regionProperty().get());
        r.push(KeyCode.ESCAPE);
        assertEquals(null, bench.prover().regionProperty().get());
        // The cross reads the light and puts a lamp where it stands.
        for (int i = 0; i < 5; i++) r.push(KeyCode.SHIFT, KeyCode.DOWN);
        until("the light is read", () -> bench.lighting().readingProperty().get() != null);
        QuickRobot.interact(() -> bench.lighting().lamps().place("spot"));
        r.push(KeyCode.ENTER);
        until("there is a lamp", () -> bench.project().lamps().size() == 2);
        LampSpec spot = bench.project().lamps().get(1);
        assertEquals(spot.name(), bench.lighting().lamps().chosenProperty().get());
        r.push(KeyCode.PAGE_UP);
        r.push(KeyCode.SHIFT, KeyCode.PAGE_UP);
        assertEquals(spot.position()[2] + 0.11, bench.project().lamps().get(1).position()[2], 1e-6);
        QuickRobot.interact(() -> bench.lighting().toolProperty().set(Lighting.Tool.AIM));
        r.push(KeyCode.SHIFT, KeyCode.LEFT);
        r.push(KeyCode.ENTER);
        assertEquals(Lighting.Tool.LOOK, bench.lighting().toolProperty().get());
        assertTrue(bench.project().lamps().get(1).direction()[2] < -0.05, "it shines down on what was pointed at");
        r.push(KeyCode.ESCAPE);
        assertEquals(null, bench.lighting().lamps().chosenProperty().get());
    }
}
