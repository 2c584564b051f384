package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;

import bake.desktop.work.Station;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ScrollPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Everything that the keyboard reaches says what it is to those who do not see it. */
class NamesTest extends WindowFixture {
    @Start
    void start(Stage stage) throws IOException {
        show(stage);
    }

    @Test
    void allThatCanBeReachedHasAName(FxRobot r) {
        open();
        List<String> nameless = new ArrayList<>();
        for (Station s : Station.values()) {
            QuickRobot.interact(() -> bench.stationProperty().set(s));
            QuickRobot.interact(() -> walk(r.lookup(".window").query(), s.name(), nameless));
        }
        assertEquals(List.of(), nameless.stream().distinct().toList());
    }

    private static void walk(Node n, String where, List<String> out) {
        if (!n.isVisible()) return;
        if (n.isFocusTraversable() && !(n instanceof ScrollPane) && name(n).isBlank())
            out.add(where + ": " + n.getClass().getSimpleName() + " #" + n.getId() + " " + n.getStyleClass());
        if (n instanceof Parent p) for (Node k : p.getChildrenUnmodifiable()) walk(k, where, out);
    }

    private static String name(Node n) {
        if (n.getAccessibleText() != null) return n.getAccessibleText();
        if (n instanceof ButtonBase b && !b.getText().isBlank()) return b.getText();
        if (n instanceof javafx.scene.control.Label l) return l.getText();
        Object by = n.queryAccessibleAttribute(AccessibleAttribute.LABELED_BY);
        return by instanceof javafx.scene.control.Label l ? l.getText() : "";
    }
}
