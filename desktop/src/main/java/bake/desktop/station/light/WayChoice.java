package bake.desktop.station.light;

import bake.core.path.LightPart;
import bake.desktop.parts.Ui;
import bake.studio.live.Showing;
import java.util.List;
import java.util.stream.Stream;
import javafx.beans.property.ObjectProperty;
import javafx.scene.control.ComboBox;

/** Which light the easel shows: all of it, or that of one way to the camera alone. */
final class WayChoice extends ComboBox<String> {
    /** What each way is called. */
    static final List<String> WORDS = Stream.of(LightPart.values()).map(WayChoice::word).toList();

    WayChoice(ObjectProperty<Showing> showing) {
        setId("show-way");
        setAccessibleText("Light that is shown");
        setTooltip(Ui.tip("Shows the light of one way to the camera alone, levels as they are; all ways add up to the picture"));
        getItems().add("All light");
        getItems().addAll(WORDS);
        mark(showing.get());
        showing.addListener((o, a, b) -> mark(b));
        getSelectionModel().selectedIndexProperty().addListener((o, a, b) -> {
            LightPart way = b.intValue() <= 0 ? null : LightPart.values()[b.intValue() - 1];
            // It marks all light where something else than light by its way is shown, and leaves that alone.
            if (way != showing.get().part()) showing.set(Showing.of(way));
        });
    }

    private void mark(Showing now) {
        getSelectionModel().select(now.part() == null ? 0 : 1 + now.part().ordinal());
    }

    private static String word(LightPart p) {
        return switch (p) {
            case SEEN -> "Lights themselves";
            case DIRECT -> "Direct";
            case BOUNCED -> "Bounced";
            case REFLECTED -> "Reflected";
            case REFRACTED -> "Through glass";
        };
    }
}
