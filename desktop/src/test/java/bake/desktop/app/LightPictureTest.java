package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.desktop.work.Lighting;
import bake.desktop.work.Sights;
import bake.formats.picture.DisplayPicture;
import java.awt.image.BufferedImage;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** What hands do on the Light station's picture, and what is seen in it: portals drawn, lamps dragged, backdrops, shadow catchers. */
@ExtendWith(ApplicationExtension.class)
class LightPictureTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
        Files.writeString(dir.resolve("project.json"), LightStationTest.house());
    }

    private void passes(int n) {
        until(n + " passes were made", () -> bench.easel().frameProperty().get() != null && bench.easel().frameProperty().get().passes() >= n);
    }

    /** Where a point of the model is on the screen. */
    private Point2D on(FxRobot r, Vec3 p) {
        double[] q = bench.easel().frameProperty().get().spots().on(p);
        return at(r, q[0], q[1]);
    }

    /**
     * Dragged over the bare window, a rectangle snaps to its corners and faces into the room; clicked corner by corner it may have any
     * shape.
     */
    @Test
    void portalsAreDrawn(FxRobot r) {
        open();
        passes(3);
        r.clickOn("#station-light");
        press(r, "#own-portal");
        until("the opening is known to snap to", () -> bench.lighting().drawing().snaps().size() == 4);
        r.moveTo(on(r, new Vec3(1.62, 0, 2.08))).press(MouseButton.PRIMARY);
        r.moveTo(on(r, new Vec3(2.4, 0, 1.5))).moveTo(on(r, new Vec3(3.19, 0, 0.92)));
        assertEquals(4, bench.lighting().drawing().cornersProperty().get().size(), "it is seen while it is dragged");
        r.release(MouseButton.PRIMARY);
        assertEquals(1, bench.project().portals().size());
        var p = bench.lighting().openings().all().getFirst();
        assertEquals(1.6 * 1.2, p.size(), 0.03, "snapped to the opening");
        assertEquals(1, p.normal().y(), 1e-3, "it faces the room");
        assertEquals(Lighting.Tool.LOOK, bench.lighting().toolProperty().get());
        QuickRobot.interact(bench.document()::undo);
        assertTrue(bench.project().portals().isEmpty());
        passes(3);

        QuickRobot.interact(() -> bench.lighting().toolProperty().set(Lighting.Tool.DRAW));
        Vec3[] corners = {new Vec3(0.4, 0, 1), new Vec3(1.2, 0, 1), new Vec3(1.2, 0, 1.8), new Vec3(0.8, 0, 2.2), new Vec3(0.4, 0, 1.8)};
        for (Vec3 c : corners) r.clickOn(on(r, c));
        assertEquals(5, bench.lighting().drawing().cornersProperty().get().size());
        r.clickOn(on(r, corners[0]));
        assertEquals(1, bench.project().portals().size());
        assertEquals(5, bench.project().portals().getFirst().corners().length);
        until("that it covers nothing is said", () -> !bench.lighting().openings().faultsProperty().get().isEmpty());

        QuickRobot.interact(() -> bench.lighting().toolProperty().set(Lighting.Tool.DRAW));
        for (int i : new int[] {0, 2, 1, 3}) r.clickOn(on(r, corners[i]));
        assertEquals(4, bench.lighting().drawing().cornersProperty().get().size());
        r.press(KeyCode.ENTER).release(KeyCode.ENTER);
        until("edges that cross are refused", () -> bench.notices().lastProperty().get() != null
                && bench.notices().lastProperty().get().text().contains("cross"));
        assertEquals(1, bench.project().portals().size());
        r.press(KeyCode.ESCAPE).release(KeyCode.ESCAPE);
        assertEquals(Lighting.Tool.LOOK, bench.lighting().toolProperty().get());
    }

    /** Left alone for a while, the station says that sky gets in where no portal is, and mends it. */
    @Test
    void bareOpeningsAreSaid(FxRobot r) {
        open();
        until("it is said", () -> r.lookup("#mend-openings").tryQuery().isPresent());
        assertTrue(r.lookup((Node n) -> n instanceof Label l && l.getText().contains("1 opening, no portal")).tryQuery().isPresent(),
                "also on the line of stations");
        QuickRobot.interact(() -> r.lookup("#mend-openings").queryButton().fire());
        until("it is mended", () -> bench.project().portals().size() == 1 && r.lookup("#mend-openings").tryQuery().isEmpty());
        QuickRobot.interact(() -> bench.lighting().openings().change(bench.project().portals().getFirst().name(), p -> null));
        until("without the portal it is said again", () -> r.lookup("#mend-openings").tryQuery().isPresent());
    }

    /** A lamp follows the pointer along the walls, with Shift at its own height; one drag is one edit. */
    @Test
    void lampsAreDragged(FxRobot r) {
        open();
        passes(3);
        double[] before = bench.project().lamps().getFirst().position();
        QuickRobot.interact(() -> bench.editView(null, v -> v.withCamera(v.camera().camera().at(new Vec3(2.5, 0.3, 1.4), new Vec3(2.6, 4,
                1.6)))));
        passes(3);
        Vec3 at = new Vec3(before[0], before[1], before[2]);
        r.moveTo(on(r, at)).press(MouseButton.PRIMARY).moveTo(on(r, new Vec3(3.2, 4, 1.2))).moveTo(on(r, new Vec3(3, 4, 1)))
                .release(MouseButton.PRIMARY);
        double[] now = bench.project().lamps().getFirst().position();
        assertEquals(3, now[0], 0.1);
        assertEquals(4 - 0.06, now[1], 0.02, "before the wall");
        assertEquals(1, now[2], 0.1);
        QuickRobot.interact(bench.document()::undo);
        assertEquals(before[0], bench.project().lamps().getFirst().position()[0], 1e-9, "one drag is one edit");
        passes(3);
        // The robot of the windowless platform tells no modifier with the mouse.
        double[] to = bench.easel().frameProperty().get().spots().on(new Vec3(2, 3, 2));
        QuickRobot.interact(() -> bench.lighting().lamps().drag(bench.project().lamps().getFirst().name(), to[0], to[1], true));
        now = bench.project().lamps().getFirst().position();
        assertEquals(before[2], now[2], 1e-6, "its height stays");
        assertEquals(2, now[0], 0.15);
    }

    /** Another backdrop has a fader of its own and lights nothing; leaving it out of files, mirrors, and back again. */
    @Test
    void backdropsAndMirrors(FxRobot r) throws IOException {
        BufferedImage i = new BufferedImage(60, 40, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 40; y++) for (int x = 0; x < 60; x++) i.setRGB(x, y, 0x2040c0);
        Path photo = Files.createTempDirectory("bake-photo").resolve("street.png");
        DisplayPicture.writePng(photo, i, 72);
        open();
        passes(2);
        // Out of doors, where most of the picture is backdrop.
        QuickRobot.interact(() -> bench.editView(null, v -> v.withSetting("exterior")
                .withCamera(v.camera().camera().at(new Vec3(2.5, -9, 6), new Vec3(2.5, -20, 7)))));
        QuickRobot.interact(() -> bench.sights().use(Sights.Part.BACKDROP, "picture", photo));
        until("the picture is in the project", () -> bench.view().around().backdrop() != null);
        assertEquals("backdrops/street.png", bench.view().around().backdrop().file());
        until("it is behind the model as it is", () -> bench.easel().frameProperty().get().groups().contains("Backdrop")
                && (bench.easel().frameProperty().get().argb()[5] & 0xffffff) == 0x2040c0);
        until("with a fader", () -> r.lookup("#fader-backdrop").tryQuery().isPresent());
        QuickRobot.interact(() -> bench.editView(null, v -> v.withMuted("Backdrop", true)));
        until("which mutes it", () -> (bench.easel().frameProperty().get().argb()[5] & 0xffffff) == 0);
        QuickRobot.interact(() -> ((CheckBox) r.lookup("#apart").query()).setSelected(true));
        assertTrue(bench.view().around().leavesBackdropOut());
        QuickRobot.interact(() -> r.lookup("#backdrop-as-lit").<javafx.scene.control.ToggleButton>query().setSelected(true));
        assertNull(bench.view().around().backdrop());
        QuickRobot.interact(() -> r.lookup("#mirrored-colour").<javafx.scene.control.ToggleButton>query().setSelected(true));
        assertEquals("plain", bench.view().around().mirrored().kind());
        QuickRobot.interact(() -> r.lookup("#mirrored-as-lit").<javafx.scene.control.ToggleButton>query().setSelected(true));
        assertNull(bench.view().around().mirrored());
        File project = dir.resolve("project.json").toFile();
        QuickRobot.interact(bench.document()::save);
        assertTrue(Files.readString(project.toPath()).contains("\"apart\" : true"));
    }

    /**
     * A project whose backdrop is gone opens all the same, says so, and is well again with another; a file of the same name does not take
     * its place.
     */
    @Test
    void brokenBackdrop(FxRobot r) throws IOException {
        Files.writeString(dir.resolve("project.json"), LightStationTest.house()
                .replace("\"kind\": \"standard sky\"",
                "\"backdrop\": {\"kind\": \"picture\", \"file\": \"backdrops/gone.png\"}, \"kind\": \"standard sky\""));
        QuickRobot.interact(() -> bench.opener().open(dir.toString()));
        until("it is said what is wrong", () -> bench.project() != null && bench.notices().lastProperty().get() != null
                && bench.notices().lastProperty().get().text().contains("gone.png"));
        QuickRobot.interact(() -> bench.sights().choose(Sights.Part.BACKDROP, null));
        passes(1);
        Path other = Files.createTempDirectory("bake-photo");
        for (int n = 0; n < 2; n++) {
            BufferedImage i = new BufferedImage(8, 4, BufferedImage.TYPE_INT_RGB);
            i.setRGB(1, 1, 0x10 + n);
            DisplayPicture.writePng(other.resolve("street.png"), i, 72);
            QuickRobot.interact(() -> bench.sights().use(Sights.Part.BACKDROP, "picture", other.resolve("street.png")));
            String want = n == 0 ? "backdrops/street.png" : "backdrops/street-2.png";
            until("it has a name of its own", () -> bench.view().around().backdrop() != null
                    && want.equals(bench.view().around().backdrop().file()));
        }
    }

    /** A ground that catches shadows is laid out and taken away; a material is made a catcher by a click and is itself again. */
    @Test
    void catchers(FxRobot r) {
        open();
        passes(2);
        int shapes = bench.project().shapes().size();
        QuickRobot.interact(() -> ((CheckBox) r.lookup("#catch-ground").query()).setSelected(true));
        assertEquals(shapes + 1, bench.project().shapes().size());
        until("what lies behind is apart", () -> bench.easel().frameProperty().get().groups().contains("Backdrop"));
        QuickRobot.interact(() -> ((CheckBox) r.lookup("#catch-ground").query()).setSelected(false));
        assertEquals(shapes, bench.project().shapes().size());
        assertTrue(bench.sights().catchers().isEmpty());
        passes(2);
        QuickRobot.interact(() -> {
            bench.lighting().toolProperty().set(Lighting.Tool.CATCH);
            bench.lighting().click(0.5, 0.95);
        });
        assertEquals(List.of("wall"), bench.sights().catchers());
        until("it can be shown again", () -> r.lookup("#caught-wall").tryQuery().isPresent());
        QuickRobot.interact(() -> r.lookup("#caught-wall").queryButton().fire());
        assertTrue(bench.sights().catchers().isEmpty());
        assertFalse(bench.project().materials().stream().anyMatch(m -> m.catcher() != null));
    }

    /** A proof's guide is kept, fits, is out of date after an edit, fits again when that is undone, is shown and forgotten. */
    @Test
    void guidesAreKept(FxRobot r) {
        open();
        assertTrue(r.lookup("#guides-keep").tryQuery().isEmpty(), "nothing to keep as yet");
        QuickRobot.interact(() -> {
            bench.prover().presetProperty().set(bench.prover().presetProperty().get().withLimits(0, 0, 3));
            bench.prover().start();
        });
        until("there is a proof", () -> bench.prints().all().size() == 1 && !bench.prover().runningProperty().get());
        until("it can be kept", () -> r.lookup("#guides-keep").tryQuery().isPresent());
        QuickRobot.interact(() -> r.lookup("#guides-keep").queryButton().fire());
        until("it is kept", () -> bench.guides().keptProperty().get() != null);
        assertTrue(bench.guides().keptProperty().get().fits());
        QuickRobot.interact(() -> bench.lighting().lamps().change("bulb", null, l -> l.withLumens(1200.0)));
        until("it is out of date", () -> !bench.guides().keptProperty().get().fits());
        assertEquals(List.of("the lamps"), bench.guides().keptProperty().get().changed());
        assertTrue(r.lookup((Node n) -> n instanceof Label l && l.getText()
                .startsWith("Not used: since it was learnt the lamps have changed")).tryQuery().isPresent());
        QuickRobot.interact(bench.document()::undo);
        until("it fits again", () -> bench.guides().keptProperty().get().fits());
        QuickRobot.interact(() -> r.lookup("#guides-sky").<javafx.scene.control.ToggleButton>query().fire());
        until("it is shown", () -> bench.easel().frameProperty().get() != null && bench.easel().frameProperty().get().spots() == null
                && bench.easel().frameProperty().get().passes() >= 1);
        QuickRobot.interact(() -> r.lookup("#guides-sky").<javafx.scene.control.ToggleButton>query().fire());
        until("the picture is back", () -> bench.easel().frameProperty().get().spots() != null);
        QuickRobot.interact(() -> r.lookup("#guides-forget").queryButton().fire());
        until("it is forgotten", () -> bench.guides().keptProperty().get() == null);
        assertFalse(Files.exists(new bake.studio.cache.GuideStore(dir).file(bench.view())));
    }
}
