package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.opening.OpeningFinder;
import bake.desktop.work.Lighting;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.studio.live.Showing;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.application.Platform;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** The Light station, driven through the window: faders, openings, lamps, panoramas, the light meter. */
@ExtendWith(ApplicationExtension.class)
class LightStationTest extends WindowFixture {
    /** A room of 5 x 4 x 2.6 m with a bare window in the south. */
    private static final String HOUSE = """
            {"bake": 1, "name": "House", "materials": [{"name": "wall", "base": [0.6,0.6,0.6], "roughness": 1, "ior": 1}],
             "shapes": [%s],
             "lamps": [{"name": "bulb", "group": "Bulbs", "kind": "sphere", "position": [4,3,2], "diameter": 0.2, "lumens": 900, "kelvin": 3000}],
             "views": [{"name": "In", "camera": {"position": [2.5,3.4,1.4], "target": [2.4,0,1.3], "focal": 18, "shutter": 0.02}, "size": [64, 40],
                        "around": {"kind": "standard sky", "skyType": 5, "date": "2027-06-21", "time": "12:00"}}]}""";

    private static String box(String name, double x0, double y0, double z0, double x1, double y1, double z1) {
        return String.format(java.util.Locale.ROOT,
                "{\"name\": \"%s\", \"type\": \"box\", \"center\": [%f,%f,%f], \"size\": [%f,%f,%f], \"material\": \"wall\"}", name,
                (x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2, x1 - x0, y1 - y0, z1 - z0);
    }

    @Start
    void start(Stage stage) throws IOException {
        show(stage);
        Files.writeString(dir.resolve("project.json"), house());
    }

    /** A project of that room. */
    static String house() {
        return HOUSE.formatted(String.join(",", box("land", -20, -20, -1, 20, 20, -0.3), box("floor", -0.4, -0.4, -0.3, 5.4, 4.4, 0),
                box("roof", -0.4, -0.4, 2.6, 5.4, 4.4, 2.9),
                box("west", -0.3, -0.3, -0.1, 0, 4.3, 2.7), box("east", 5, -0.3, -0.1, 5.3, 4.3, 2.7),
                box("north", -0.1, 4, -0.1, 5.1, 4.3, 2.7),
                box("s1", -0.1, -0.3, -0.1, 1.6, 0, 2.7), box("s2", 3.2, -0.3, -0.1, 5.1, 0, 2.7), box("s3", 1.5, -0.3, -0.1, 3.3, 0, 0.9),
                box("s4", 1.5, -0.3, 2.1, 3.3, 0, 2.7)));
    }

    private void passes(int n) {
        until(n + " passes were made", () -> bench.easel().frameProperty().get() != null && bench.easel().frameProperty().get().passes() >= n);
    }

    private static double mean(int[] argb) {
        double s = 0;
        for (int c : argb) s += (c >> 16 & 255) + (c >> 8 & 255) + (c & 255);
        return s / argb.length / 3;
    }

    /** A fader changes the picture that is there and starts none anew; mute, solo and undo as well. */
    @Test
    void fadersRenderNothingAgain(FxRobot r) {
        open();
        passes(6);
        int before = bench.easel().frameProperty().get().passes();
        double bright = mean(bench.easel().frameProperty().get().argb());
        QuickRobot.interact(() -> r.lookup("#fader-sky").queryAs(Slider.class).setValue(-3));
        until("it is darker", () -> mean(bench.easel().frameProperty().get().argb()) < 0.8 * bright);
        assertTrue(bench.easel().frameProperty().get().passes() >= before, "passes went on");
        assertEquals(-3, bench.view().faders().get("Sky"), 0.05);
        assertTrue(r.lookup("#value-sky").queryAs(Label.class).getText().contains("%"));
        QuickRobot.interact(() -> r.lookup("#fader-sky").queryAs(Slider.class).setValue(0));
        until("it is as before", () -> mean(bench.easel().frameProperty().get().argb()) > 0.9 * bright);
        r.clickOn("#solo-bulbs");
        until("only the bulb is left", () -> bench.easel().frameProperty().get().light()[1] == 0 && bench.easel().frameProperty().get().light()[2] > 0);
        r.clickOn("#solo-bulbs").clickOn("#mute-bulbs");
        until("only the sky is left", () -> bench.easel().frameProperty().get().light()[1] > 0 && bench.easel().frameProperty().get().light()[2] == 0);
        assertEquals(List.of("Bulbs"), bench.view().muted());
        QuickRobot.interact(bench.document()::undo);
        until("undone", () -> bench.view().muted().isEmpty());
        r.clickOn("#fader-colour");
        QuickRobot.interact(() -> r.lookup("#fader-bulbs").queryAs(Slider.class).setValue(60));
        assertEquals(60, bench.view().shifts().get("Bulbs"), 1e-9);
        assertTrue(bench.easel().frameProperty().get().passes() >= before, "still the same film");
    }

    /** What a fader says goes into the lamps, and the fader back to zero; the light stays. */
    @Test
    void takenOver(FxRobot r) {
        open();
        QuickRobot.interact(() -> {
            bench.editView(null, v -> v.withFader("Bulbs", 1).withFader("Sky", -1));
            bench.lighting().output().set("Bulbs");
            bench.lighting().output().set("Sky");
        });
        assertEquals(1800, bench.project().lamps().getFirst().lumens(), 1e-6);
        assertEquals(-1, bench.view().around().skyStops(), 1e-9);
        assertTrue(bench.view().faders().isEmpty());
    }

    @Test
    void openingsAreFoundFlippedAndMended(FxRobot r) {
        open();
        passes(1);
        QuickRobot.interact(() -> bench.lighting().openings().find());
        until("the window has a portal", () -> bench.project().portals().size() == 1
                && !bench.lighting().openings().findingProperty().get());
        assertEquals(1, bench.lighting().openings().all().getFirst().normal().y(), 1e-3);
        String name = bench.project().portals().getFirst().name();
        QuickRobot.interact(() -> bench.lighting().openings().flip(name));
        passes(1);
        QuickRobot.interact(() -> bench.lighting().openings().check());
        until("it is said that it faces out", () -> bench.lighting().openings().faultsProperty().get()
                .get(name) == OpeningFinder.Fault.FACES_OUT);
        QuickRobot.interact(() -> bench.lighting().openings().flip(name));
        until("all is well", () -> bench.lighting().openings().faultsProperty().get().isEmpty());
        QuickRobot.interact(() -> bench.lighting().openings().find());
        until("nothing is added twice", () -> !bench.lighting().openings().findingProperty().get() && bench.notices().lastProperty().get() != null
                && bench.notices().lastProperty().get().text().contains("already"));
        QuickRobot.interact(() -> bench.lighting().openings().change(name, p -> null));
        assertTrue(bench.project().portals().isEmpty());
        passes(1);
        r.clickOn("#station-light");
        // The station looks for openings by itself, and no tool is taken meanwhile.
        for (int tries = 0; tries < 5 && bench.lighting().toolProperty().get() != Lighting.Tool.PORTAL; tries++) {
            until("nothing is looked for", () -> !bench.lighting().openings().findingProperty().get());
            press(r, "#draw-portal");
        }
        passes(1);
        r.clickOn(at(r, 0.5, 0.5));
        until("a click puts one on", () -> bench.project().portals().size() == 1);
    }

    /** A lamp is placed by a click, given another unit and colour, copied, made single, moved and deleted. */
    @Test
    void lamps(FxRobot r) {
        open();
        passes(1);
        r.clickOn("#station-light");
        choose(r, "#add-lamp", bake.desktop.text.Lamps.title("disc"));
        r.clickOn(at(r, 0.5, 0.95));
        until("it is there", () -> bench.project().lamps().size() == 2);
        LampSpec l = bench.project().lamps().get(1);
        assertEquals("disc", l.kind());
        assertEquals(0.06, l.position()[2], 0.02, "a hand over the floor");
        assertEquals(1, l.direction()[2], 1e-3, "shining away from it");
        assertEquals(l.name(), bench.lighting().lamps().chosenProperty().get());
        passes(1);
        QuickRobot.interact(() -> ((javafx.scene.control.ToggleButton) r.lookup("#lamp-unit-candela").query()).setSelected(true));
        assertEquals(900 / Math.PI, bench.project().lamps().get(1).candela(), 0.01);
        press(r, "#lamp-copy");
        until("there is a copy", () -> bench.project().lamps().size() == 3);
        assertEquals(l.name(), bench.project().lamps().get(2).like());
        QuickRobot.interact(() -> bench.lighting().lamps().change(l.name(), null, x -> x.withKelvin(4100.0)));
        assertEquals(4100, bench.project().lamps().get(2).alone(bench.project().lamps()).kelvin());
        String copy = bench.project().lamps().get(2).name();
        QuickRobot.interact(() -> bench.lighting().lamps().single(copy));
        assertNull(bench.lighting().lamps().find(copy).like());
        assertEquals(4100, bench.lighting().lamps().find(copy).kelvin());
        QuickRobot.interact(() -> bench.lighting().lamps().chosenProperty().set(copy));
        press(r, "#lamp-delete");
        until("it is gone", () -> bench.project().lamps().size() == 2);
        assertNull(bench.lighting().lamps().find(copy));
        passes(1);
        QuickRobot.interact(() -> bench.lighting().lamps().chosenProperty().set(l.name()));
        press(r, "#lamp-move");
        r.clickOn(at(r, 0.1, 0.5));
        until("it was put down", () -> bench.lighting().toolProperty().get() == Lighting.Tool.LOOK);
        assertTrue(Math.abs(bench.lighting().lamps().find(l.name()).position()[2] - 0.06) > 0.2, "it has moved to a wall");
    }

    @Test
    void meterAndFalseColours(FxRobot r) {
        open();
        passes(4);
        QuickRobot.interact(() -> bench.lighting().meter(0.5, 0.9));
        until("the floor is read", () -> bench.lighting().readingProperty().get() != null
                && bench.lighting().readingProperty().get().lux() > 1);
        var m = bench.lighting().readingProperty().get();
        assertEquals(Math.log(m.luminance() * 8) / Math.log(2), m.ev(), 1e-6);
        QuickRobot.interact(() -> bench.lighting().noMeter());
        assertNull(bench.lighting().readingProperty().get());
        r.clickOn("#show-lux");
        until("false colours are shown", () -> bench.easel().frameProperty().get().spots() == null && bench.easel().frameProperty().get().passes() >= 1);
        assertTrue(r.lookup("#lux-legend").query().isVisible());
        r.clickOn("#show-lux");
        until("the picture is back", () -> bench.easel().frameProperty().get().spots() != null);
        assertFalse(r.lookup("#lux-legend").query().isVisible());
    }

    /** Light is shown by its way to the camera, one at a time and beside no other false picture; levels are in it. */
    @Test
    void waysOfLightAlone(FxRobot r) {
        open();
        passes(4);
        double all = brightness();
        r.clickOn("#show-way");
        r.type(KeyCode.DOWN, 3).type(KeyCode.ENTER);
        until("bounced light alone", () -> bench.lighting().showing().get() == Showing.BOUNCED
                && bench.easel().frameProperty().get().spots() == null && bench.easel().frameProperty().get().passes() >= 2);
        double bounced = brightness();
        assertTrue(bounced > 0 && bounced < 0.95 * all, bounced + " of " + all);
        assertTrue(r.lookup("#light-bar").query().getAccessibleText().contains("Bounced"), "its share is on the bar");
        r.clickOn("#show-lux");
        until("one false picture at a time", () -> bench.lighting().showing().get() == Showing.LUX && bench.easel().frameProperty().get().ways().length == 0);
        QuickRobot.interact(() -> bench.lighting().showing().set(Showing.DIRECT));
        assertFalse(((ToggleButton) r.lookup("#show-lux").query()).isSelected(), "illuminance went");
        assertEquals(2, ((ComboBox<?>) r.lookup("#show-way").query()).getSelectionModel().getSelectedIndex());
        QuickRobot.interact(() -> bench.lighting().solo(bench.easel().frameProperty().get().groups().getFirst(), true));
        until("a source is heard alone in all light", () -> bench.lighting().showing().get() == Showing.PICTURE
                && bench.easel().frameProperty().get().spots() != null);
    }

    private double brightness() {
        int[] p = bench.easel().frameProperty().get().argb();
        double sum = 0;
        for (int x : p) sum += (x >> 16 & 255) + (x >> 8 & 255) + (x & 255);
        return sum / p.length;
    }

    @Test
    void panoramaAndSun(FxRobot r) throws IOException {
        float[] rgb = new float[3 * 64 * 32];
        java.util.Arrays.fill(rgb, 500);
        for (int c = 0; c < 3; c++) rgb[3 * (8 * 64 + 40) + c] = 4e6f;
        Path hdr = dir.resolve("sky.hdr");
        HdrFile.write(hdr, new Raster(64, 32, rgb));
        open();
        Platform.runLater(() -> window.take(hdr));
        until("it is the light", () -> bench.view().around().kind().equals("hdri"));
        until("its light is shown", () -> bench.easel().frameProperty().get() != null
                && bench.easel().frameProperty().get().groups().contains("Surroundings"));
        double whole = bench.easel().frameProperty().get().skyLux();
        QuickRobot.interact(() -> ((javafx.scene.control.CheckBox) r.lookup("#hdri-sun-out").query()).setSelected(true));
        until("the sun is on its own", () -> bench.easel().frameProperty().get().sunLux() > 100);
        assertEquals(whole, bench.easel().frameProperty().get().skyLux() + bench.easel().frameProperty().get().sunLux(), 0.02 * whole);
        until("with a fader", () -> r.lookup("#fader-sun").tryQuery().isPresent());
        QuickRobot.interact(() -> ((javafx.scene.control.CheckBox) r.lookup("#hdri-to-lux").query()).setSelected(true));
        until("it has the level that is asked",
                () -> Math.abs(bench.easel().frameProperty().get().skyLux() + bench.easel().frameProperty().get().sunLux() - 20_000) < 600);
    }

    /** Early, noon, late and the blue hour; a sun by hand, and the clock again. */
    @Test
    void hours(FxRobot r) throws Exception {
        open();
        Project.Place p = bench.project().place();
        double[] height = new double[4];
        String[] all = {"early", "noon", "late", "blue"};
        for (int i = 0; i < 4; i++) {
            String id = "#sun-" + all[i];
            QuickRobot.interact(() -> r.lookup(id).queryButton().fire());
            height[i] = bake.studio.scene.SunPosition.of(p, bench.view().around()).height();
        }
        assertEquals(14, height[0], 0.3);
        assertTrue(height[1] > 60);
        assertEquals(14, height[2], 0.3);
        assertEquals(-5, height[3], 0.3);
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withSunAzimuth(200.0).withSunHeight(33.0))));
        assertEquals(33, bake.studio.scene.SunPosition.of(p, bench.view().around()).height());
        until("the sheet says so", () -> r.lookup((javafx.scene.Node n) -> n instanceof Label l && l.getText().contains("by hand"))
                .tryQuery().isPresent());
        QuickRobot.interact(() -> r.lookup("#sun-noon").queryButton().fire());
        assertFalse(bench.view().around().byHand(), "the clock counts again");
    }

    /** A view without light says what to do. */
    @Test
    void findings(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.editView(null, v -> v.withAround(v.around().withKind("plain").withLuminance(new double[] {0, 0, 0}))
                .withOff("Bulbs", true)));
        until("it is said", () -> r.lookup((javafx.scene.Node n) -> n instanceof Label l && l.isVisible()
                && l.getText().contains("no light at all")).tryQuery().isPresent());
        QuickRobot.interact(() -> bench.editView(null, v -> v.withOff("Bulbs", false)
                .withCamera(bake.studio.live.LightFindings.exposed(v.camera().camera(), 14))));
        until("the exposure is bad", () -> r.lookup("#mend-exposure").tryQuery().isPresent());
        QuickRobot.interact(() -> r.lookup("#mend-exposure").queryButton().fire());
        until("it is mended", () -> r.lookup("#mend-exposure").tryQuery().isEmpty());
    }

    /** Lamps that are chosen together change, move and go together; a name is a lamp's own. */
    @Test
    void lampsInGroups(FxRobot r) {
        open();
        QuickRobot.interact(() -> {
            bench.lighting().lamps().copy("bulb");
            bench.lighting().lamps().single("bulb, copy 2");
        });
        r.clickOn("#station-light");
        QuickRobot.interact(() -> window.scroll(1));
        r.clickOn("#lamps-of-bulbs");
        assertEquals(2, bench.lighting().lamps().choice().allProperty().get().size());
        QuickRobot.interact(() -> ((javafx.scene.control.TextField) r.lookup("#lamp-kelvin-field").query()).requestFocus());
        r.push(javafx.scene.input.KeyCode.CONTROL, javafx.scene.input.KeyCode.A).write("2700 K").push(javafx.scene.input.KeyCode.ENTER);
        assertTrue(bench.project().lamps().stream().allMatch(l -> l.kelvin() == 2700), "both have the colour");
        double[] before = bench.project().lamps().get(1).position();
        QuickRobot.interact(() -> bench.lighting().lamps().nudge(new bake.core.math.Vec3(0, 0, -0.5)));
        assertEquals(before[2] - 0.5, bench.project().lamps().get(1).position()[2], 1e-9);
        QuickRobot.interact(() -> bench.lighting().lamps().rename("bulb", "Reading lamp"));
        assertEquals("Reading lamp", bench.lighting().lamps().chosenProperty().get());
        org.junit.jupiter.api.Assertions.assertThrows(IllegalArgumentException.class,
                () -> bench.lighting().lamps().rename("Reading lamp", "bulb, copy 2"));
        QuickRobot.interact(() -> {
            bench.lighting().lamps().choice().choose(bench.project().lamps().stream().map(LampSpec::name).toList());
            bench.lighting().lamps().delete("Reading lamp");
        });
        assertEquals(0, bench.project().lamps().size());
        QuickRobot.interact(() -> bench.document().undo());
        assertEquals(2, bench.project().lamps().size());
    }

    /** A fader's menu says what the lamps would give, and sets them to it. */
    @Test
    void lampsAreSetToWhatTheFaderSays(FxRobot r) {
        open();
        QuickRobot.interact(() -> bench.editView(null, v -> v.withFader("Bulbs", 1)));
        assertEquals("Set this lamp to this output: 900 \u2192 1,800 lm", bench.lighting().output().offer("Bulbs"));
        QuickRobot.interact(() -> bench.lighting().output().set("Bulbs"));
        assertEquals(1800, bench.project().lamps().getFirst().lumens(), 1e-6);
        assertNull(bench.lighting().output().offer("Bulbs"), "its fader is back at zero");
    }
}
