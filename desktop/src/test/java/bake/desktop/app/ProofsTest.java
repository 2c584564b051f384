package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.Prover;
import bake.formats.picture.ExrFile;
import bake.formats.picture.Raster;
import bake.formats.project.Preset;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Proofs on the rail and the settings they are made with. */
class ProofsTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private void proof(FxRobot r) {
        int n = bench.prints().all().size();
        r.push(KeyCode.F5);
        until("proof " + (n + 1) + " hangs", () -> bench.prints().all().size() == n + 1 && !bench.prover().runningProperty().get());
    }

    /** What was changed of a preset is there again when its view is. */
    @Test
    void changedPresetsSurviveAnotherView(FxRobot r) {
        open();
        var p = bench.prover().presetProperty();
        String name = p.get().name();
        QuickRobot.interact(() -> p.set(p.get().withBounces(5)));
        QuickRobot.interact(() -> bench.views().choose("Two"));
        until("another preset suits it", () -> !p.get().name().equals(name));
        QuickRobot.interact(() -> bench.views().choose("One"));
        until("it is back", () -> p.get().name().equals(name));
        assertEquals(5, p.get().bounces());
    }

    /** Pin, rename, take settings back, compare, delete: from the rail, and kept on disk. */
    @Test
    void prints(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        proof(r);
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withHaze(7.0))));
        proof(r);
        assertEquals(2, bench.prints().all().getFirst().number());
        // The older one is pinned to the front.
        r.rightClickOn("#print-1").clickOn("Pin to the front");
        until("it is pinned", () -> bench.prints().all().stream().anyMatch(p -> p.number() == 1 && p.pinned()));
        until("and first", () -> ((Node) r.lookup("#print-1").query()).getBoundsInParent().getMinX() < ((Node) r.lookup("#print-2").query())
                .getBoundsInParent().getMinX());
        // Its settings come back.
        r.rightClickOn("#print-1").clickOn("Take back from it");
        until("what would change is said", () -> r.lookup("#take-back-now").tryQuery().isPresent());
        r.clickOn("#take-back-now");
        until("the haze is that of proof 1", () -> bench.view().around().haze() == null || bench.view().around().haze() != 7.0);
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("which can be undone", () -> Double.valueOf(7).equals(bench.view().around().haze()));
        // A name, typed into the dialog.
        Platform.runLater(() -> r.lookup("#print-2").queryAs(Button.class).getContextMenu().getItems().get(3).fire());
        until("the dialog is open", () -> r.lookup(".dialog-pane .text-field").tryQuery().isPresent());
        r.clickOn(".dialog-pane .text-field").write("hazy").type(KeyCode.ENTER);
        until("it has its name", () -> bench.prints().all().stream().anyMatch(p -> p.title().equals("hazy")));
        // Hung side by side with a wipe that follows the pointer.
        r.clickOn("#print-1");
        Node second = r.lookup("#print-2").query();
        QuickRobot.interact(second::requestFocus);
        r.push(KeyCode.SHIFT, KeyCode.ENTER);
        until("A and B hang", () -> bench.prints().aProperty().get() != null && bench.prints().bProperty().get() != null);
        r.rightClickOn("#print-1").clickOn("Delete");
        until("it is gone", () -> bench.prints().all().size() == 1 && bench.prints().aProperty().get() == null);
        until("from the disk as well", () -> !Files.exists(dir.resolve("proofs/0001")));
        assertTrue(Files.exists(dir.resolve("proofs/0002/picture.png")));
        proof(r);
        assertEquals(3, bench.prints().all().getFirst().number(), "numbers are not given twice while a later one is there");
    }

    /** Channels of the preset are beside the picture in the EXR of its proofs, count as a change, and say what they take. */
    @Test
    void channelsOfThePreset(FxRobot r) throws IOException {
        open();
        r.clickOn("#station-prove");
        var p = bench.prover().presetProperty();
        QuickRobot.interact(() -> r.lookup("#preset-channel-depth").queryAs(CheckBox.class).fire());
        until("chosen", () -> List.of("depth").equals(p.get().channels()));
        assertTrue(text(r, "#preset-channels-cost").contains("of memory"), text(r, "#preset-channels-cost"));
        assertEquals("channels none \u2192 depth", bench.prover().presets().changes().getFirst().line());
        proof(r);
        Raster depth = ExrFile.read(dir.resolve("proofs/0001/picture.exr"), List.of("Z"));
        float nearest = Float.POSITIVE_INFINITY;
        for (float z : depth.rgb()) nearest = Math.min(nearest, z);
        assertTrue(nearest > 0.1 && nearest < 100, "metres: " + nearest);
        QuickRobot.interact(() -> bench.prover().presets().back("channels"));
        until("none again", () -> p.get().channels() == null
                && !r.lookup("#preset-channel-depth").queryAs(CheckBox.class).isSelected());
        proof(r);
        assertNull(ExrFile.read(dir.resolve("proofs/0002/picture.exr"), List.of("Z")));
    }

    /** Every value of the quality card reaches the preset, counts as a change, and can be given back. */
    @Test
    void qualityChangesThePreset(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        var p = bench.prover().presetProperty();
        assertEquals(0, bench.prover().changes());
        QuickRobot.interact(() -> r.lookup("#bounces-slider").queryAs(Slider.class).setValue(9));
        until("bounces", () -> p.get().bounces() == 9);
        r.doubleClickOn("#time-limit-field").write("77").type(KeyCode.ENTER);
        until("time limit", () -> p.get().timeLimit() == 77);
        QuickRobot.interact(() -> r.lookup("#denoise").queryAs(CheckBox.class).setSelected(false));
        until("denoise", () -> !p.get().denoise());
        assertEquals(3, bench.prover().changes());
        assertTrue(text(r, "#title-preset").contains("3 changes"), text(r, "#title-preset"));
        r.clickOn("#easel").push(KeyCode.CONTROL, KeyCode.Z);
        until("denoised again", () -> p.get().denoise());
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("without the time limit", () -> p.get().timeLimit() != 77 && p.get().bounces() == 9);
        QuickRobot.interact(bench.document()::redo);
        QuickRobot.interact(bench.document()::redo);
        assertEquals(3, bench.prover().changes());
        QuickRobot.interact(() -> bench.views().choose("Two"));
        QuickRobot.interact(() -> bench.views().choose("One"));
        assertEquals(3, bench.prover().changes(), "they are there again with their view");
        r.clickOn("#preset-0");
        until("the preset as it was", () -> bench.prover().changes() == 0);
        r.clickOn("#purpose-final");
        until("a final", () -> p.get().isFinal() && p.get().name().equals("Small final"));
        r.clickOn("#purpose-test");
        until("a test", () -> p.get().name().equals("Quick"));
        // The aim goes over to the other figure at about the same quality, and is of the noise as rendered where nothing is denoised.
        double aim = 2 * Preset.RAW;
        QuickRobot.interact(() -> bench.prover().change(q -> q.withLimits(aim, q.timeLimit(), q.samples()).withDenoise(true)));
        CheckBox denoised = r.lookup("#aim-denoised").queryAs(CheckBox.class);
        QuickRobot.interact(denoised::fire);
        until("aim of the denoised picture", () -> p.get().aimsAtDenoised() && p.get().noiseAim() == 2);
        QuickRobot.interact(() -> r.lookup("#denoise").queryAs(CheckBox.class).fire());
        until("nothing to aim at", () -> p.get().noiseAim() == aim && p.get().aimDenoised() == null && denoised.isDisabled() && !denoised.isSelected());
    }

    /**
     * Solvers are chosen on the card, what a proof has cached is shown on the easel and kept, the next proof begins with it,
     * and all of it can be deleted.
     */
    @Test
    void bouncedLight(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        var p = bench.prover().presetProperty();
        assertTrue(r.lookup("#caches-keep").tryQuery().isEmpty(), "path tracing caches nothing");
        QuickRobot.interact(() -> r.lookup("#first-irradiance-cache").queryAs(Button.class).fire());
        QuickRobot.interact(() -> r.lookup("#later-radiance-cache").queryAs(Button.class).fire());
        QuickRobot.interact(() -> r.lookup("#cached-surroundings").queryAs(CheckBox.class).fire());
        assertEquals("irradiance cache", p.get().firstBounce());
        assertEquals("radiance cache", p.get().laterBounces());
        assertEquals(Boolean.TRUE, p.get().cachedSurroundings());
        assertEquals(3, bench.prover().changes());
        proof(r);
        until("the proof's caches are offered", () -> bench.prover().caches().offerProperty().get() != null);
        QuickRobot.interact(() -> r.lookup("#caches-records").queryAs(javafx.scene.control.ToggleButton.class).fire());
        until("records are on the easel", () -> bench.easel().frameProperty().get() != null && bench.easel().frameProperty().get().light().length == 0);
        r.clickOn(".easel");
        until("the place that was clicked is told", () -> bench.prover().caches().askedProperty().get() != null
                && text(r, "#records-asked").contains(bench.prover().caches().askedProperty().get().material()));
        QuickRobot.interact(() -> r.lookup("#caches-records").queryAs(javafx.scene.control.ToggleButton.class).fire());
        until("the picture again", () -> bench.easel().frameProperty().get() != null && bench.easel().frameProperty().get().light().length > 0);
        QuickRobot.interact(() -> r.lookup("#caches-keep").queryAs(Button.class).fire());
        until("two files are kept and fit", () -> bench.prover().caches().keptProperty().get().size() == 2
                && bench.prover().caches().keptProperty().get().stream().allMatch(e -> e.fits()));
        assertTrue(Files.isDirectory(dir.resolve("caches")));
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withHaze(7.0))));
        until("they are of another light", () -> bench.prover().caches().keptProperty().get().stream().noneMatch(e -> e.fits()));
        QuickRobot.interact(() -> r.lookup("#caches-lock").queryAs(CheckBox.class).fire());
        until("they are locked", () -> bench.prover().caches().keptProperty().get().stream().allMatch(e -> e.locked()));
        QuickRobot.interact(() -> r.lookup("#caches-clear").queryAs(Button.class).fire());
        QuickRobot.interact(() -> r.lookup("#caches-anyway").queryAs(CheckBox.class).fire());
        proof(r);
        until("the print says that other light is in it", () -> bench.prints().aProperty().get() != null
                && Prover.OTHER_LIGHT.equals(bench.prints().aProperty().get().title()));
        assertEquals(2, bench.prover().caches().keptProperty().get().size(), "what is locked was not deleted");
        QuickRobot.interact(() -> r.lookup("#caches-lock").queryAs(CheckBox.class).fire());
        until("they are unlocked", () -> bench.prover().caches().keptProperty().get().stream().noneMatch(e -> e.locked()));
        QuickRobot.interact(() -> r.lookup("#caches-clear").queryAs(Button.class).fire());
        until("they are gone", () -> bench.prover().caches().keptProperty().get().isEmpty());
        QuickRobot.interact(() -> r.lookup("#first-path-tracing").queryAs(Button.class).fire());
        QuickRobot.interact(() -> r.lookup("#later-none").queryAs(Button.class).fire());
        assertEquals("none", p.get().laterBounces());
        assertTrue(r.lookup("#cached-surroundings").tryQuery().isEmpty(), "what has no effect is not shown");
    }

    /** Photons, caustics and a near field are set on the card, and a wrong number is told. */
    @Test
    void photonsAndCaustics(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        var p = bench.prover().presetProperty();
        assertTrue(r.lookup("#photons").tryQuery().isEmpty(), "without photons nobody counts them");
        QuickRobot.interact(() -> r.lookup("#later-photon-map").queryAs(Button.class).fire());
        QuickRobot.interact(() -> r.lookup("#first-irradiance-cache").queryAs(Button.class).fire());
        QuickRobot.interact(() -> set(r, "#photons", "20"));
        assertTrue(r.lookup("#photons").query().getStyleClass().contains("wrong"));
        QuickRobot.interact(() -> set(r, "#photons", "5,000"));
        assertEquals(5000, p.get().photons());
        QuickRobot.interact(() -> set(r, "#near-field", "0.4"));
        assertEquals(0.4, p.get().nearField());
        QuickRobot.interact(() -> r.lookup("#caustics").queryAs(javafx.scene.control.ComboBox.class).getSelectionModel().select(1));
        assertEquals("photon map", p.get().caustics());
        proof(r);
        until("photons are offered", () -> bench.prover().caches().offerProperty().get() != null
                && bench.prover().caches().offerProperty().get().caches().photons().photons() >= 5000);
    }

    private static void set(FxRobot r, String id, String text) {
        var f = r.lookup(id).queryAs(javafx.scene.control.TextField.class);
        f.setText(text);
        f.getOnAction().handle(null);
    }

    /** Measuring what both ways cost is stopped at once; what can be said without is said. */
    @Test
    void costsAreStopped(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        // In one breath: so small a room may be measured before the next.
        QuickRobot.interact(() -> {
            r.lookup("#cost-measure").queryAs(Button.class).fire();
            r.lookup("#cost-stop").queryAs(Button.class).fire();
        });
        // What is known of a room like it is said all the same.
        until("the offer is back, or the costs", () -> r.lookup("#cost-measure").tryQuery().isPresent()
                || r.lookup("#cost").tryQuery().isPresent());
        assertFalse(bench.prover().costs().measuringProperty().get());
    }

    /** A pause asked for before the job exists is kept, and a stop then still ends it. */
    @Test
    void pauseAtOnce(FxRobot r) {
        open();
        r.clickOn("#station-view").clickOn("#view-1").clickOn("#station-prove");
        QuickRobot.interact(() -> {
            bench.prover().start();
            bench.prover().pause(true);
        });
        assertTrue(bench.prover().pausedProperty().get());
        until("the easel tells that it rests", () -> text(r, "#foot-what").equals("Proof, resting"));
        QuickRobot.interact(() -> bench.prover().pause(false));
        until("it works", () -> bench.prover().progressProperty().get() != null && bench.prover().progressProperty().get().passes() > 1);
        r.clickOn("#proof");
        until("the main button stopped it", () -> !bench.prover().runningProperty().get() && bench.prints().all().size() == 1);
        assertTrue(bench.prints().all().getFirst().stopped());
    }

    /** Stop in the first moment: nothing to keep is said, nothing is half kept. */
    @Test
    void stopAtOnce(FxRobot r) {
        open();
        QuickRobot.interact(() -> {
            bench.prover().start();
            bench.prover().stop();
        });
        until("it has ended", () -> !bench.prover().runningProperty().get());
        assertEquals(0, bench.prints().all().size());
        assertFalse(Files.exists(dir.resolve("proofs/0001/proof.json")));
        until("the easel goes on", () -> bench.easel().frameProperty().get() != null);
    }

    /** A and B on the easel: dragging moves the wipe, and badges say which is which. */
    @Test
    void wipe(FxRobot r) {
        open();
        r.clickOn("#station-prove");
        proof(r);
        proof(r);
        QuickRobot.interact(() -> {
            bench.prints().aProperty().set(bench.prints().all().get(0));
            bench.prints().bProperty().set(bench.prints().all().get(1));
        });
        until("both badges are there", () -> r.lookup(".badge-a").query().isVisible() && r.lookup(".badge-b").query().isVisible());
        // What hangs stays while the live picture goes on behind it: nothing flickers.
        var view = (javafx.scene.image.ImageView) r.lookup("#easel-picture").query();
        until("A's picture is there", () -> view.getImage() != null && view.getImage().getUrl() != null);
        var image = view.getImage();
        QuickRobot.interact(() -> bench.easel().halfProperty().set(false));
        until("live passes went by", () -> bench.easel().frameProperty().get() != null
                && bench.easel().frameProperty().get().width() == bench.easel().size()[0]
                        && bench.easel().frameProperty().get().passes() > 1);
        assertTrue(image == view.getImage(), "read once");
        Node wipe = r.lookup(".wipe").query();
        double before = wipe.getBoundsInParent().getCenterX();
        r.drag("#easel", MouseButton.PRIMARY).moveBy(80, 0).drop();
        until("the wipe has moved", () -> Math.abs(wipe.getBoundsInParent().getCenterX() - before) > 20);
    }
}
