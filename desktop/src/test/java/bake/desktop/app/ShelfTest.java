package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.PresetHand;
import bake.desktop.work.Station;
import bake.formats.project.Preset;
import bake.formats.project.SharedPreset;
import bake.studio.preset.PresetShelf;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A preset goes to the studio's shelf, is improved by somebody else, merged, and offered to another project. */
class ShelfTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    private PresetHand hand() {
        return bench.prover().presets();
    }

    private void save(FxRobot r, String reason) {
        r.clickOn("#preset-save");
        until("the lines are there", () -> r.lookup("#preset-shelf").tryQuery().isPresent());
        QuickRobot.interact(() -> {
            ComboBox<?> where = r.lookup("#preset-shelf").queryAs(ComboBox.class);
            where.getSelectionModel().selectLast();
        });
        QuickRobot.interact(() -> r.lookup("#preset-reason").queryAs(TextField.class).requestFocus());
        r.write(reason).type(KeyCode.ENTER);
        r.clickOn("#preset-save-now");
    }

    @Test
    void savedImprovedMergedAndOfferedBack(FxRobot r) throws IOException {
        Path folder = Files.createDirectories(dir.resolve("studio shelf"));
        PresetShelf shelf = new PresetShelf("studio", folder, null);
        open();
        QuickRobot.interact(() -> {
            hand().useStudio(folder);
            bench.stationProperty().set(Station.PROVE);
        });
        until("the presets are listed", () -> !hand().allProperty().get().isEmpty() && hand().shelfNamesProperty().get().contains("studio"));
        save(r, "begun");
        until("it is on the shelf", () -> found(shelf) != null && hand().meeting().foundProperty().get() == null
                && bench.prover().presetProperty().get().version() == found(shelf).newest().preset().version());
        SharedPreset first = found(shelf).newest();
        assertEquals("begun", first.reason());
        assertTrue(bench.project().presets().contains(first.preset()), "the project keeps the version that it uses");

        // Two settings are changed here; each can go back.
        QuickRobot.interact(() -> bench.prover().change(p -> p.withBounces(7).withClamp(9)));
        assertEquals(2, hand().changes().size());
        until("the way back is there", () -> r.lookup("#back-clamp").tryQuery().isPresent());
        r.clickOn("#back-clamp");
        until("one change is left", () -> hand().changes().size() == 1);
        QuickRobot.interact(() -> bench.prover().change(p -> p.withClamp(11)));

        // Somebody saves a version meanwhile: one setting is the other's, one is changed by both.
        shelf.save(first.withPreset(first.preset().withBounces(5).withDenoise(false)), "quicker", "Bea");
        save(r, "better");
        until("both are shown side by side", () -> r.lookup("#meet-bounces-mine").tryQuery().isPresent());
        assertTrue(r.lookup("#meet-merge").query().isDisabled(), "until it is decided nothing is saved");
        r.clickOn("#meet-bounces-mine");
        until("it is decided", () -> hand().meeting().decided());
        r.clickOn("#meet-merge");
        until("both are one version", () -> found(shelf).newest().preset().version() == first.preset().version() + 2);
        Preset both = found(shelf).newest().preset();
        assertEquals(7, both.bounces());
        assertEquals(11, both.clamp());
        assertEquals(false, both.denoise());

        // Another project that still has the first version is offered the newest, and says what it would change.
        QuickRobot.interact(() -> {
            bench.edit(null, p -> p.withPresets(java.util.List.of(first.preset())));
            bench.prover().presetProperty().set(first.preset());
        });
        until("the newer one is offered", () -> r.lookup("#take-newer").tryQuery().isPresent());
        r.clickOn("#take-newer");
        until("it is used", () -> bench.prover().presetProperty().get().equals(both));
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("undo brings the old one back to the project", () -> bench.project().presets().contains(first.preset()));
    }

    private static PresetShelf.Entry found(PresetShelf s) {
        try {
            return s.find("Quick");
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** The dial of overall quality moves what belongs together. */
    @Test
    void oneDialForQuality(FxRobot r) {
        open();
        QuickRobot.interact(() -> hand().quality(2));
        Preset p = bench.prover().presetProperty().get();
        assertEquals(24, p.samples(), "four times the 6 of the preset");
        assertEquals(2, hand().quality(), 1e-9);
        QuickRobot.interact(() -> hand().back(null));
        assertEquals(0, hand().changes().size());
    }
}
