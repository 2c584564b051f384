package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.film.Region;
import bake.desktop.work.CompareHand;
import bake.desktop.work.Station;
import bake.studio.proof.Differences;
import bake.studio.proof.Part;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Two proofs against each other, parts taken back from one, and regions that add up. */
class CompareTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private void proof(FxRobot r) {
        int n = bench.prints().all().size();
        r.push(KeyCode.F5);
        until("proof " + (n + 1) + " hangs", () -> bench.prints().all().size() == n + 1 && !bench.prover().runningProperty().get());
    }

    @Test
    void whatDiffersIsSaidAndTakenBack(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        proof(r);
        // Light, a material and the preset change.
        QuickRobot.interact(() -> {
            bench.edit(null, p -> p.withMaterials(List.of(p.materials().getFirst().withRoughness(0.5)))
                    .withLamps(List.of(p.lamps().getFirst().withLumens(50_000.0))));
            bench.prover().change(p -> p.withBounces(1));
        });
        proof(r);
        QuickRobot.interact(() -> {
            bench.prints().aProperty().set(bench.prints().all().getLast());
            bench.prints().bProperty().set(bench.prints().all().getFirst());
        });
        until("what differs is known", () -> bench.comparing().foundProperty().get() != null);
        CompareHand.Found f = bench.comparing().foundProperty().get();
        assertTrue(f.flip() > 0.001 && f.flip() < 1, "FLIP " + f.flip());
        assertTrue(r.lookup("#flip").queryAs(Label.class).getText().startsWith("FLIP 0."));
        assertEquals("bounces 3 1, lamp bulb, lumens 90000 50000, material wall, roughness 1 0.5", f.lines().stream()
                .map(d -> d.what() + " " + d.a() + " " + d.b()).collect(Collectors.joining(", ")));
        // The ways to look at them.
        r.clickOn("#compare-flip");
        QuickRobot.interact(() -> r.lookup("#easel").query().requestFocus());
        r.press(KeyCode.F);
        until("B is seen while F is held", () -> bench.comparing().secondProperty().get());
        r.release(KeyCode.F);
        until("and A again", () -> !bench.comparing().secondProperty().get());
        r.clickOn("#compare-difference");
        until("the difference hangs", () -> r.lookup(".badge-a").queryAs(Label.class).getText().startsWith("Difference"));
        r.clickOn("#compare-side-by-side");
        r.clickOn("#compare-wipe");
        assertEquals(CompareHand.Mode.WIPE, bench.comparing().modeProperty().get());
        // The light alone comes back from the first; material and preset stay.
        QuickRobot.interact(() -> bench.takingBack().ask(bench.prints().all().getLast()));
        until("what would change is said", () -> r.lookup("#take-back-now").tryQuery().isPresent());
        assertEquals(List.of(Part.PRESET, Part.LIGHT, Part.MATERIALS), bench.takingBack().offerProperty().get().differing());
        r.clickOn("#take-preset").clickOn("#take-materials").clickOn("#take-back-now");
        until("the lamp is as it was", () -> bench.project().lamps().getFirst().lumens() == 90_000);
        assertEquals(0.5, bench.project().materials().getFirst().roughness());
        assertEquals(1, bench.prover().presetProperty().get().bounces());
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("in one step that can be undone", () -> bench.project().lamps().getFirst().lumens() == 50_000);
    }

    /** Regions are laid over the last whole proof; what is outside of them stays to the bit. */
    @Test
    void regionsAddUp(FxRobot r) throws IOException {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        proof(r);
        QuickRobot.interact(() -> bench.edit(null, p -> p.withLamps(List.of(p.lamps().getFirst().withLumens(9000.0)))));
        QuickRobot.interact(() -> bench.prover().regionProperty().set(new Region(0, 0, 500, 500)));
        proof(r);
        BufferedImage whole = picture(1), one = picture(0);
        assertEquals(whole.getWidth(), one.getWidth());
        int w = whole.getWidth(), h = whole.getHeight();
        assertTrue(differing(whole, one, 0, 0) > 20, "the region is new");
        assertEquals(0, differing(whole, one, w / 2 + 1, h / 2 + 1));
        QuickRobot.interact(() -> bench.prover().regionProperty().set(new Region(500, 500, 500, 500)));
        proof(r);
        BufferedImage two = picture(0);
        assertEquals(0, differing(one, two, 0, 0), "the first region is still there");
        assertTrue(differing(whole, two, w / 2 + 1, h / 2 + 1) > 20);
        assertEquals(2, bench.prints().all().getFirst().over());
        // Taken off and put back.
        QuickRobot.interact(() -> bench.prints().delete(bench.prints().all().getFirst()));
        until("it can be put back", () -> r.lookup("#put-back").tryQuery().isPresent());
        r.clickOn("#put-back");
        until("it hangs where it hung", () -> bench.prints().all().size() == 3 && bench.prints().all().getFirst().number() == 3);
    }

    /** Pixels of a quarter, from a corner on, that differ between two pictures. */
    private static int differing(BufferedImage a, BufferedImage b, int x0, int y0) {
        int n = 0;
        for (int y = y0; y < Math.min(y0 + a.getHeight() / 2 - 1, a.getHeight()); y++)
            for (int x = x0; x < Math.min(x0 + a.getWidth() / 2 - 1, a.getWidth()); x++) if (a.getRGB(x, y) != b.getRGB(x, y)) n++;
        return n;
    }

    private BufferedImage picture(int i) throws IOException {
        return ImageIO.read(bench.prints().store().picture(bench.prints().all().get(i)).toFile());
    }

    /** Nothing is named that is the same. */
    @Test
    void theSameHasNoDifferences(FxRobot r) {
        open();
        var p = bench.project();
        var s = new Differences.State(p, p.views().getFirst(), p.presets().getFirst());
        assertEquals(List.of(), Differences.between(s, s));
    }
}
