package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.PrintLight;
import bake.desktop.work.Station;
import bake.formats.picture.Stamp;
import bake.formats.project.EffortSpec;
import bake.formats.project.SharedPreset;
import bake.studio.proof.Proof;
import bake.studio.proof.StampField;
import bake.studio.user.StampChoice;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What is otherwise in one proof alone, more for single things, stamps, thinning, and a look into the shadows of prints. */
class ProofExtrasTest extends WindowFixture {
    private Stage stage;

    @Start
    void start(Stage s) throws IOException {
        stage = s;
        show(s);
    }

    private Proof proof(FxRobot r) {
        int n = bench.prints().all().size();
        r.push(KeyCode.F5);
        until("proof " + (n + 1) + " hangs", () -> bench.prints().all().size() == n + 1 && !bench.prover().runningProperty().get());
        return bench.prints().all().getFirst();
    }

    private BufferedImage picture(Proof p) throws IOException {
        return ImageIO.read(bench.prints().store().picture(p).toFile());
    }

    @Test
    void oneProofAlone(FxRobot r) throws IOException {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        Proof plain = proof(r);
        fire(r, "#only-half");
        fire(r, "#only-clay");
        until("layers are listed", () -> r.lookup("#only-layers").tryQuery().isPresent());
        QuickRobot.interact(() -> {
            CheckMenuItem things = (CheckMenuItem) r.lookup("#only-layers").<MenuButton>query().getItems().stream().filter(i -> i.getText()
                    .equals("Things")).findFirst().orElseThrow();
            things.setSelected(false);
            things.fire();
        });
        // Firing toggles it once more where it was chosen by hand.
        if (bench.prover().onlyProperty().get().layersOff().isEmpty())
            QuickRobot.interact(() -> bench.prover().onlyProperty().set(bench.prover().onlyProperty().get().withLayersOff(java.util.Set.of("Things"))));
        Proof only = proof(r);
        assertEquals(plain.width() / 2, only.width());
        assertEquals("by its samples", only.endedBy());
        assertTrue(only.preset().clay());
        assertFalse(bench.prints().store().project(only).layerOn("Things"));
        assertTrue(bench.project().layerOn("Things"), "the project is as it was");
        assertEquals(Boolean.TRUE, bench.prints().store().project(only).clay());
        fire(r, "#only-nothing");
        assertTrue(bench.prover().onlyProperty().get().nothing());
    }

    @Test
    void moreForSingleThings(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        fire(r, "#prove-more");
        until("materials can be chosen", () -> !r.lookup("#effort-name").<ComboBox<String>>query().getItems().isEmpty());
        QuickRobot.interact(() -> r.lookup("#effort-name").<ComboBox<String>>query().getSelectionModel().select("wall"));
        until("it is on the list", () -> bench.project().efforts().size() == 1);
        assertEquals(2, bench.project().efforts().getFirst().samples());
        QuickRobot.interact(() -> r.lookup("#effort-samples-0").query().requestFocus());
        r.push(KeyCode.CONTROL, KeyCode.A).write("3").type(KeyCode.ENTER);
        until("three paths a pass", () -> bench.project().efforts().equals(List.of(new EffortSpec("material", "wall").withSamples(3))));
        Proof p = proof(r);
        assertEquals(6, p.passes());
        fire(r, "#effort-remove-0");
        until("it is gone", () -> bench.project().efforts().isEmpty());
        r.push(KeyCode.CONTROL, KeyCode.Z);
        until("and back", () -> bench.project().efforts().size() == 1);
    }

    @Test
    void stopsLightAndStack(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        Proof one = proof(r);
        QuickRobot.interact(() -> bench.editView(null, v -> v.withCamera(v.camera().camera().withEv(v.camera().camera().ev100() + 2))));
        Proof two = proof(r), three = proof(r);
        QuickRobot.interact(() -> {
            bench.prints().aProperty().set(one);
            bench.prints().bProperty().set(two);
        });
        PrintLight light = bench.comparing().light();
        until("their light was read", () -> light.lightProperty().get() != null && light.lightProperty().get().ofB() != null);
        fire(r, "#same-exposure");
        until("B is developed as A", () -> light.developedProperty().get() != null);
        int[] a = light.developedProperty().get().ofA(), b = light.developedProperty().get().ofB();
        assertEquals(mean(a), mean(b), 0.06 * mean(a), "one exposure, one light");
        fire(r, "#same-exposure");
        until("as they are", () -> light.developedProperty().get() == null);
        QuickRobot.interact(() -> r.lookup("#easel").query().requestFocus());
        r.push(KeyCode.CLOSE_BRACKET);
        until("a stop brighter", () -> light.developedProperty().get() != null && light.stopsProperty().get() == 1);
        assertTrue(mean(light.developedProperty().get().ofA()) > 1.05 * mean(a));
        assertTrue(text(r, "#print-stops").startsWith("+1 stop"));
        fire(r, "#print-darker");
        // The pixel under the pointer.
        r.moveTo("#easel").moveBy(-60, 0);
        until("its values are said", () -> r.lookup("#pixel-values").queryAs(Label.class).getText().contains("cd/m"));
        assertTrue(r.lookup("#pixel-values").queryAs(Label.class).getText().matches("\\d+, \\d+ +A +\\d+ \\d+ \\d+ .*B .*"),
                r.lookup("#pixel-values").queryAs(Label.class).getText());
        // Arrows walk through the prints while one flips.
        r.clickOn("#compare-flip");
        QuickRobot.interact(() -> r.lookup("#easel").query().requestFocus());
        r.push(KeyCode.RIGHT);
        until("the next newer but for B", () -> bench.prints().aProperty().get() == three);
        r.push(KeyCode.LEFT);
        until("and back", () -> bench.prints().aProperty().get() == one);
    }

    private static double mean(int[] argb) {
        double sum = 0;
        for (int c : argb) sum += (c >> 8) & 255;
        return sum / argb.length;
    }

    @Test
    void stampedSavedAndThinned(FxRobot r) throws IOException {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        StampChoice before = bench.prints().stamp().choiceProperty().get();
        Proof p = proof(r);
        Path plain = dir.resolve("plain.png"), stamped = dir.resolve("stamped.png");
        QuickRobot.interact(() -> {
            for (StampField f : StampField.values()) bench.prints().stamp().say(f, false);
            bench.prints().stamp().save(p, plain);
        });
        until("it is saved", () -> Files.isRegularFile(plain));
        fire(r, "#prove-more");
        fire(r, "#stamp-preset");
        fire(r, "#stamp-noise");
        QuickRobot.interact(() -> bench.prints().stamp().place(Stamp.Corner.TOP_RIGHT));
        QuickRobot.interact(() -> bench.prints().stamp().save(p, stamped));
        until("with a stamp", () -> Files.isRegularFile(stamped));
        until("whole", () -> readable(stamped));
        BufferedImage x = ImageIO.read(plain.toFile()), y = ImageIO.read(stamped.toFile()), own = picture(p);
        int w = x.getWidth(), h = x.getHeight();
        for (int i = 0; i < w * h; i++) assertEquals(own.getRGB(i % w, i / w), x.getRGB(i % w, i / w));
        int top = 0, bottom = 0;
        for (int i = 0; i < w * h; i++) if (x.getRGB(i % w, i / w) != y.getRGB(i % w, i / w)) {
            if (i / w < h / 2) top++;
            else bottom++;
        }
        assertTrue(top > 100 && bottom < top / 3, top + " pixels above, " + bottom + " below");
        for (StampField f : StampField.values()) QuickRobot.interact(() -> bench.prints().stamp().say(f, before.fields().contains(
                f.word())));
        // Three more; the rule keeps one of the view, and what is pinned.
        proof(r);
        Proof pinned = proof(r);
        QuickRobot.interact(() -> bench.prints().keep(pinned.withPinned(true)));
        proof(r);
        QuickRobot.interact(() -> {
            bench.prints().tidy().ruleProperty().set(new bake.studio.proof.Thinning(1, 0));
        });
        until("those that go are named", () -> r.lookup("#tidy-now").tryQuery().isPresent()
                && bench.prints().tidy().foundProperty().get().gone().size() == 2);
        assertTrue(bench.prints().tidy().foundProperty().get().freed() > 1000);
        fire(r, "#tidy-now");
        until("two are left", () -> bench.prints().all().size() == 2);
        fire(r, "#put-back");
        until("all are back, in their order", () -> bench.prints().all().stream().map(Proof::number).toList().equals(List.of(4, 3, 2, 1)));
    }

    private static boolean readable(Path p) {
        try {
            return ImageIO.read(p.toFile()) != null;
        } catch (IOException e) {
            return false;
        }
    }

    /** A preset that comes as a file is on the artist's shelf, and the next proofs are made with it. */
    @Test
    void presetAsAFile(FxRobot r) throws IOException {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.PROVE));
        String name = "Brought " + System.nanoTime();
        Path file = dir.resolve("brought.json");
        QuickRobot.interact(() -> bench.prover().presets().files().write(bench.prover().presetProperty().get().named(name, 1), file));
        until("the file is there", () -> Files.isRegularFile(file));
        assertEquals(name, SharedPreset.read(file).preset().name());
        QuickRobot.interact(() -> new FileChoices(bench, stage).take(file));
        until("it is used", () -> bench.prover().presetProperty().get().name().equals(name));
        assertTrue(bench.project().presets().stream().anyMatch(p -> p.name().equals(name)), "and kept in the project");
        Path own = bake.studio.preset.Shelves.own().folder();
        try (var all = Files.walk(own)) {
            List<Path> mine = all.filter(f -> f.toString().toLowerCase(java.util.Locale.ROOT).contains(name.toLowerCase(
                    java.util.Locale.ROOT)))
                    .sorted(java.util.Comparator.reverseOrder()).toList();
            assertNotEquals(0, mine.size());
            for (Path f : mine) Files.deleteIfExists(f);
        }
        assertTrue(r.lookup("#preset-file").<Button>query().isVisible());
    }
}
