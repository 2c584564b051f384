package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.studio.noise.NoiseFindings;
import java.io.IOException;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Where the noise is, in the real window: looked for, shown, and a remedy taken and undone. */
class NoiseCardTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    @Test
    void findingsAndARemedy(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        press(r, "#noise-look");
        until("it looks", () -> bench.noise().busy());
        QuickRobot.interact(() -> bench.prover().start());
        assertTrue(!bench.prover().runningProperty().get(), "one thing at a time");
        until("it has found something", () -> bench.noise().findingsProperty().get() != null && !bench.noise().busy());
        NoiseFindings f = bench.noise().findingsProperty().get();
        assertEquals(1, f.causes().stream().mapToDouble(NoiseFindings.Cause::share).sum(), 1e-6);
        until("there is a map", () -> !r.lookup("#noise-map").queryAll().isEmpty());
        NoiseFindings.Remedy material = f.remedies().stream().filter(x -> !x.against().edges()).findFirst().orElse(null);
        if (material != null) {
            QuickRobot.interact(() -> bench.noise().take(material));
            assertEquals(material.paths(), bench.project().efforts().getFirst().samples());
            assertTrue(bench.noise().taken(material));
            QuickRobot.interact(() -> bench.document().undo());
            assertTrue(bench.project().efforts().isEmpty() && !bench.noise().taken(material));
        }
        QuickRobot.interact(() -> bench.views().choose("Two"));
        assertEquals(null, bench.noise().findingsProperty().get(), "they are of a view");
    }
}
