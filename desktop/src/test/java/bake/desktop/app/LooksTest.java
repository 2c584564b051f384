package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.desktop.work.Station;
import bake.studio.user.Preferences;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** How the window looks: both sets of colours, sizes of texts; and projects that are copied and closed. */
@ExtendWith(ApplicationExtension.class)
class LooksTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    /** Every text of every station stands out by 4.5 to 1, by day and in the evening, and by day with two prints hung. */
    @Test
    void everyTextCanBeRead(FxRobot r) {
        List<String> bad = new ArrayList<>(see(r, "nothing open"));
        open();
        QuickRobot.interact(() -> bench.lighting().lamps().chosenProperty().set("bulb"));
        for (boolean evening : new boolean[] {false, true}) {
            QuickRobot.interact(() -> window.looks().eveningProperty().set(evening));
            for (Station s : Station.values()) {
                QuickRobot.interact(() -> bench.stationProperty().set(s));
                bad.addAll(see(r, s + (evening ? ", evening" : "")));
            }
            r.push(KeyCode.F1);
            bad.addAll(see(r, "keys"));
            r.push(KeyCode.ESCAPE);
        }
        QuickRobot.interact(() -> bench.notices().complain("Something is wrong."));
        QuickRobot.interact(() -> bench.notices().say("Something is right."));
        bad.addAll(see(r, "messages"));
        assertEquals(List.of(), bad);
    }

    private static List<String> see(FxRobot r, String where) {
        List<String> out = new ArrayList<>();
        QuickRobot.interact(() -> {
            Node root = r.lookup(".window").query();
            root.applyCss();
            ((javafx.scene.Parent) root).layout();
            Contrast.tooLittle(root, 4.5).forEach(t -> out.add(where + ": " + t));
        });
        return out;
    }

    /** Larger texts take the room they need; what is drawn on canvases takes the evening's ink. */
    @Test
    void textsGrowAndStay(FxRobot r) throws IOException {
        open();
        double sheet = sheet(r).getWidth();
        QuickRobot.interact(() -> window.looks().larger(50));
        until("the sheet is wider", () -> sheet(r).getWidth() > 1.4 * sheet);
        assertEquals(18, r.lookup(".dial-name").queryAs(Label.class).getFont().getSize(), 0.1);
        for (Label l : r.lookup(".dial-name").queryAllAs(Label.class))
            if (seen(l)) assertTrue(l.getWidth() > l.prefWidth(-1) - 1, l.getText() + " is not cut short");
        Path kept = dir.resolve("looks.json");
        new Looks(kept, Runnable::run, e -> {}).textSizeProperty();
        Preferences.USUAL.withTextSize(130).withEvening(true).withPlace(5, 6, 1300, 820).write(kept);
        Preferences back = Preferences.read(kept);
        assertEquals(new Preferences(5.0, 6.0, 1300.0, 820.0, true, 130), back);
        Files.writeString(kept, "{\"textSize\": 900, \"x\": ");
        assertEquals(Preferences.USUAL, Preferences.read(kept));
    }

    /** Lists have something inside that is called a sheet too. */
    private static Region sheet(FxRobot r) {
        return (Region) r.lookup(".sheet").queryAll().stream().filter(n -> n instanceof Region).findFirst().orElseThrow();
    }

    private static boolean seen(Node n) {
        for (Node k = n; k != null; k = k.getParent()) if (!k.isVisible()) return false;
        return true;
    }

    /** A whole copy under another name is gone on with; what is closed leaves an empty window that can open again. */
    @Test
    void copyAndClose(FxRobot r) throws IOException {
        open();
        QuickRobot.interact(() -> bench.stationProperty().set(Station.LIGHT));
        QuickRobot.interact(() -> r.lookup("#fader-sun").queryAs(Slider.class).setValue(1.5));
        Path first = dir, copy = dir.resolveSibling(dir.getFileName() + " copy");
        QuickRobot.interact(() -> bench.opener().saveCopy(copy));
        until("the copy is open", () -> copy.equals(bench.folder()));
        assertEquals(1.5, bench.view().faders().get("Sun"), 1e-9);
        assertTrue(!bench.document().changedProperty().get(), "the copy is saved");
        assertTrue(!Files.readString(first.resolve("project.json")).contains("faders"), "the first is as it was saved");
        QuickRobot.interact(() -> bench.opener().close());
        assertNull(bench.project());
        assertTrue(r.lookup("#empty-demo").query().isVisible());
        for (Station s : Station.values()) QuickRobot.interact(() -> bench.stationProperty().set(s));
        QuickRobot.interact(() -> bench.opener().open(first.toString()));
        until("the first is open again", () -> first.equals(bench.folder()) && bench.easel().frameProperty().get() != null);
        // It was left unsaved, so that work is offered.
        assertTrue(bench.document().recoveryProperty().get());
        try (var s = Files.walk(copy)) {
            for (Path p : s.sorted(java.util.Comparator.reverseOrder()).toList()) Files.deleteIfExists(p);
        }
    }
}
