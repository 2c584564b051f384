package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.parts.Field;
import bake.formats.project.Project;
import java.io.IOException;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Fields in the real window: all take what was typed alike, and nothing that was not. */
class FieldsTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private static void type(FxRobot r, String id, String text) {
        QuickRobot.interact(() -> {
            Field f = r.lookup(id).queryAs(Field.class);
            f.requestFocus();
            f.setText(text);
        });
    }

    @Test
    void takeWhatIsTyped(FxRobot r) {
        open();
        r.clickOn("#station-view");
        type(r, "#ev-field", "EV 9,5");
        r.push(KeyCode.ENTER);
        until("Enter", () -> Math.abs(bench.view().camera().camera().ev100() - 9.5) < 0.01);
        type(r, "#f-number-field", "f/5.6");
        r.push(KeyCode.TAB);
        until("Tab", () -> Math.abs(bench.view().camera().camera().fNumber() - 5.6) < 0.01);
        type(r, "#final-width", "1,024 px");
        r.push(KeyCode.CONTROL, KeyCode.S);
        until("a command takes it before it does its work", () -> bench.view().size()[0] == 1024 && !bench.document().changedProperty().get());
        // Passing through changes nothing, whatever the rounding.
        Project before = bench.project();
        for (String id : new String[] {"#ev-field", "#focal-field", "#focus-field", "#camera-shutter", "#final-width"}) {
            QuickRobot.interact(() -> r.lookup(id).query().requestFocus());
            r.push(KeyCode.ENTER).push(KeyCode.TAB);
        }
        assertSame(before, bench.project());
    }

    @Test
    void wrongTextsStayAndAreSaid(FxRobot r) {
        open();
        r.clickOn("#station-view");
        double before = bench.view().camera().camera().focal();
        type(r, "#focal-field", "very wide");
        r.push(KeyCode.ENTER);
        Field f = r.lookup("#focal-field").queryAs(Field.class);
        assertTrue(f.getStyleClass().contains("wrong"), "it is marked");
        assertEquals("very wide", f.getText(), "what was typed stays");
        until("and said", () -> bench.notices().lastProperty().get() != null && bench.notices().lastProperty().get().text()
                .contains("'very wide' is not understood"));
        assertEquals(before, bench.view().camera().camera().focal());
        r.push(KeyCode.ESCAPE);
        assertFalse(f.getStyleClass().contains("wrong"), "Escape brings back what was there");
        type(r, "#focal-field", "5 m");
        r.push(KeyCode.ENTER);
        until("a range is said", () -> bench.notices().lastProperty().get().text().contains("out of range: 8 to 300 mm"));
        type(r, "#focal-field", "3.5 cm");
        r.push(KeyCode.ENTER);
        until("right at last", () -> Math.abs(bench.view().camera().camera().focal() - 35) < 0.01);
        assertFalse(f.getStyleClass().contains("wrong"));
    }
}
