package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Camera;
import bake.core.scene.CameraForm;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import java.io.IOException;
import java.nio.file.Files;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The View station in the real window: finish without rendering, kinds of cameras, meters and guides. */
class FinishStationTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private LiveRender.Frame frame() {
        return bench.easel().frameProperty().get();
    }

    private void openFinish(FxRobot r) {
        open();
        r.clickOn("#station-view");
        seen(r, "#page-finish");
        r.clickOn("#page-finish");
        until("some passes were made", () -> frame() != null && frame().width() == bench.easel().size()[0] && frame().passes() >= 2);
    }

    @SuppressWarnings("unchecked")
    private static void kind(FxRobot r, String k) {
        QuickRobot.interact(() -> ((ComboBox<String>) r.lookup("#camera-kind").query()).setValue(k));
    }

    private static double mean(int[] argb, int shift) {
        double s = 0;
        for (int p : argb) s += p >> shift & 255;
        return s / argb.length;
    }

    @Test
    void aChangeShowsAtOnceAndRendersNothing(FxRobot r) {
        openFinish(r);
        until("it rests", () -> frame().passes() >= PATIENCE);
        double before = mean(frame().argb(), 8);
        int passes = frame().passes();
        QuickRobot.interact(() -> r.lookup("#finish-lighten-slider").queryAs(Slider.class).setValue(1.5));
        until("it is lighter", () -> mean(frame().argb(), 8) > before + 20);
        assertEquals(passes, frame().passes(), "the same film");
        assertEquals(1.5, bench.view().finish().lighten());
        QuickRobot.interact(() -> r.lookup("#finish-saturation-slider").queryAs(Slider.class).setValue(-100));
        until("it is grey", () -> Math.abs(mean(frame().argb(), 16) - mean(frame().argb(), 0)) < 0.5);
        r.clickOn("#finish-clear");
        until("nothing of it is left", () -> bench.view().finish().isNothing() && Math.abs(mean(frame().argb(), 8) - before) < 1);
        r.push(KeyCode.CONTROL, KeyCode.Z);
        assertEquals(1.5, bench.view().finish().lighten(), "one step");
    }

    /** A click on the curve puts a point down; keys move it and take it away. */
    @Test
    void aCurveIsDrawn(FxRobot r) {
        openFinish(r);
        double before = mean(frame().argb(), 8);
        Node board = r.lookup("#curve-board").query();
        intoSight(r, board);
        Bounds b = board.localToScreen(board.getBoundsInLocal());
        r.clickOn(b.getMinX() + b.getWidth() / 2, b.getMinY() + b.getHeight() * 0.2);
        until("there is a point", () -> bench.view().finish().curve() != null && bench.view().finish().curve().size() == 6);
        assertEquals(0.8, bench.view().finish().curve().get(3), 0.03);
        until("the middle is lighter", () -> mean(frame().argb(), 8) > before + 15);
        r.push(KeyCode.DOWN).push(KeyCode.DOWN);
        until("arrows move it", () -> Math.abs(bench.view().finish().curve().get(3) - 0.78) < 0.03);
        r.push(KeyCode.DELETE);
        until("it is straight", () -> bench.view().finish().curve() == null);
    }

    @Test
    void greyIsPicked(FxRobot r) {
        openFinish(r);
        intoSight(r, r.lookup("#pick-grey").query());
        r.clickOn("#pick-grey");
        assertTrue(bench.finish().pickingProperty().get());
        r.clickOn("#easel");
        until("the balance is set", () -> bench.view().whiteBalance() != null);
        until("what was clicked is grey", () -> {
            LiveRender.Frame f = frame();
            int p = f.argb()[f.height() / 2 * f.width() + f.width() / 2];
            return Math.abs((p >> 16 & 255) - (p & 255)) < 9 && Math.abs((p >> 16 & 255) - (p >> 8 & 255)) < 9;
        });
        assertTrue(!bench.finish().pickingProperty().get());
        View v = bench.view();
        r.clickOn("#easel");
        assertEquals(v, bench.view(), "the next click picks nothing");
    }

    /** A look is kept, put on elsewhere, looked at beside the one before, and given to all views. */
    @Test
    void looksAreShared(FxRobot r) throws IOException {
        openFinish(r);
        QuickRobot.interact(() -> r.lookup("#finish-contrast-slider").queryAs(Slider.class).setValue(30));
        r.clickOn("#look-name").write("Crisp").clickOn("#look-keep").clickOn("#look-keep-0");
        until("it is on the project's shelf", () -> bench.looks().looks().stream().anyMatch(l -> l.name().equals("Crisp")));
        assertTrue(Files.isRegularFile(dir.resolve("presets/looks/crisp.v1.look.json")));
        until("the view stands on it", () -> text(r, "#look-standing").equals("Crisp v1, as it is."));
        QuickRobot.interact(() -> bench.views().choose("Two"));
        assertTrue(bench.view().finish().isNothing());
        QuickRobot.interact(() -> r.lookup("#looks").queryAs(MenuButton.class).show());
        r.clickOn("#look-crisp");
        until("it is on", () -> Double.valueOf(0.3).equals(bench.view().finish().contrast()));
        r.clickOn("#look-swap");
        until("the one before", () -> bench.view().finish().isNothing());
        r.clickOn("#look-swap");
        until("and again", () -> Double.valueOf(0.3).equals(bench.view().finish().contrast()));
        QuickRobot.interact(() -> r.lookup("#finish-vignette-slider").queryAs(Slider.class).setValue(50));
        until("what is otherwise is said", () -> text(r, "#look-standing").equals("Crisp v1, one change."));
        r.clickOn("#look-back-vignette");
        until("it is put back", () -> bench.view().finish().vignette() == null && text(r, "#look-standing").endsWith("as it is."));
        QuickRobot.interact(() -> r.lookup("#finish-vignette-slider").queryAs(Slider.class).setValue(50));
        r.clickOn("#look-to-all");
        until("all have it", () -> bench.project().views().stream().allMatch(v -> Double.valueOf(0.5).equals(v.finish().vignette())));
        r.push(KeyCode.CONTROL, KeyCode.Z);
        assertNull(bench.project().view("One").finish().vignette(), "one step back");
    }

    /** A panorama is twice as wide as high; a plan at 1:50 shows what its paper can. */
    @Test
    void kindsOfCameras(FxRobot r) {
        open();
        r.clickOn("#station-view");
        kind(r, "Panorama");
        until("its shape", () -> bench.view().size()[0] == 2 * bench.view().size()[1]);
        until("it is shown", () -> frame() != null && frame().passes() > 0 && frame().width() >= 2 * frame().height() - 2);
        kind(r, "Parallel");
        QuickRobot.interact(() -> bench.editView(null, v -> v.withSize(3000, 2000)));
        intoSight(r, r.lookup("#from-above").query());
        r.clickOn("#from-above");
        Node scale = r.lookup("#camera-scale").query();
        QuickRobot.interact(scale::requestFocus);
        r.push(KeyCode.CONTROL, KeyCode.A).write("1:50").push(KeyCode.ENTER);
        // 3000 pixels at 300 to the inch are 10 inches: 0.254 m, times fifty.
        until("the scale", () -> Math.abs(bench.view().camera().camera().form().across() - 12.7) < 1e-3);
        Camera c = bench.view().camera().camera();
        assertEquals(CameraForm.Kind.PARALLEL, c.form().kind());
        assertEquals(-1, c.target().minus(c.position()).normalized().z(), 1e-9);
        until("it is shown", () -> frame().passes() > 0 && bench.easel().failureProperty().get() == null);
    }

    /** Exposure by meters, which value follows, and the warning when it is far off. */
    @Test
    void exposureIsMetered(FxRobot r) {
        open();
        r.clickOn("#station-view");
        QuickRobot.interact(() -> bench.editView(null, v -> v.withCamera(v.camera().camera().withExposure(8, 1 / 60.0, 6400))));
        until("it is said", () -> r.lookup("#exposure-advice").queryAs(Label.class).getText().contains("too bright"));
        r.clickOn("#gives-iso");
        double shutter = bench.view().camera().camera().shutter();
        r.clickOn("#exposure-mend");
        until("it is mended", () -> bench.view().camera().camera().iso() < 3000);
        assertEquals(shutter, bench.view().camera().camera().shutter(), 1e-12, "only the sensitivity follows");
        until("nothing is said", () -> r.lookup("#exposure-advice").queryAs(Label.class).getText().startsWith("metered"));
        double ev = bench.view().camera().camera().ev100();
        QuickRobot.interact(() -> r.lookup("#f-number-slider").queryAs(Slider.class).setValue(Math.log(4)));
        assertEquals(ev, bench.view().camera().camera().ev100(), 0.02, "the exposure stays");
        r.clickOn("#way-meter");
        r.clickOn("#easel");
        until("the spot is metered", () -> Math.abs(bench.view().camera().camera().ev100() - ev) > 0.05);
        r.clickOn("#way-orbit").clickOn("#guide-thirds");
        var guides = ((javafx.scene.layout.Pane) r.lookup("#guide-lines").query()).getChildren();
        until("four lines", () -> guides.size() == 4);
        r.clickOn("#guide-print");
        until("two kinds of paper with their names", () -> guides.size() == 4 && guides.get(1) instanceof javafx.scene.text.Text l
                && l.getText().equals("A, B"));
        QuickRobot.interact(() -> bench.editView(null, v -> v.withSize(1200, 800).withPrint(new bake.formats.project.View.PrintSpec(254,
                10))));
        // 10 mm at 254 to the inch are 100 of the 1200 pixels.
        until("and where it is cut", () -> guides.size() == 5 && guides.get(4) instanceof javafx.scene.shape.Rectangle cut
                && Math.abs(cut.getWidth() / ((javafx.scene.shape.Rectangle) guides.getFirst()).getHeight() - 1000 / 800.0) < 0.02);
    }

    /** Zones and columns are ways to look; a mood is a view of its own; who stands in a wall hears of it. */
    @Test
    void lookedAtOtherwise(FxRobot r) {
        open();
        r.clickOn("#station-view");
        until("it is shown", () -> frame() != null && frame().passes() > 1);
        var image = (javafx.scene.image.ImageView) r.lookup("#easel-picture").query();
        r.clickOn("#zones");
        assertEquals(bake.desktop.work.FinishHand.Through.ZONES, bench.finish().throughProperty().get());
        until("zones are few", () -> {
            java.util.Set<Integer> seen = new java.util.HashSet<>();
            for (int x = 0; x < image.getImage().getWidth(); x += 2) seen.add(image.getImage().getPixelReader().getArgb(x, (
                    int) image.getImage().getHeight() / 2));
            return seen.size() <= bake.core.finish.ExposureZones.count() + 2;
        });
        r.clickOn("#zones").clickOn("#waveform");
        assertEquals(bake.desktop.work.FinishHand.Through.NOTHING, bench.finish().throughProperty().get());
        Camera before = bench.view().camera().camera();
        QuickRobot.interact(() -> r.lookup("#moods-more").queryAs(javafx.scene.control.ToggleButton.class).setSelected(true));
        intoSight(r, r.lookup("#mood-1-dusk").query());
        r.clickOn("#mood-1-dusk");
        until("it is there", () -> bench.view().name().equals("One, dusk"));
        assertEquals("+", r.lookup("#mood-1-noon").queryButton().getText());
        assertTrue(r.lookup("#mood-3-dusk").tryQuery().isEmpty(), "a mood has no line of its own");
        QuickRobot.interact(() -> bench.views().choose("One"));
        r.clickOn("#mood-1-dusk");
        assertEquals("One, dusk", bench.view().name(), "a second click looks at it");
        assertEquals(3, bench.project().views().size());
        assertEquals(before.position(), bench.view().camera().camera().position());
        assertEquals("sun and sky", bench.view().around().kind());
        assertTrue(bench.view().off().isEmpty());
        QuickRobot.interact(() -> bench.editView(null, v -> v.withCamera(v.camera().camera().at(new bake.core.math.Vec3(0, -0.55, 0.5),
                new bake.core.math.Vec3(0, 0, 0.5)))));
        until("it is said", () -> r.lookup("#exposure-advice").queryAs(Label.class).getText().contains("5 cm from a wall"));
    }
}
