package bake.desktop.station.light;

import bake.core.path.LightPart;
import bake.desktop.parts.Ui;
import java.util.List;
import java.util.stream.Stream;
import javafx.beans.property.ObjectProperty;
import javafx.scene.control.ComboBox;

/** Which light the easel shows: all of it, or that of one way to the camera alone. */
final class WayChoice extends ComboBox<String> {
    /** What each way is called. */
    static final List<String> WORDS = Stream.of(LightPart.values()).map(WayChoice::word).toList();

    WayChoice(ObjectProperty<LightPart> way) {
        setId("show-way");
        setAccessibleText("Light that is shown");
        setTooltip(Ui.tip("Shows the light of one way to the camera alone, levels as they are; all ways add up to the picture"));
        getItems().add("All light");
        getItems().addAll(WORDS);
        Runnable mark = () -> getSelectionModel().select(way.get() == null ? 0 : 1 + way.get().ordinal());
        mark.run();
        way.addListener((o, a, b) -> mark.run());
        getSelectionModel().selectedIndexProperty().addListener((o, a, b) -> {
            if (b.intValue() >= 0) way.set(b.intValue() == 0 ? null : LightPart.values()[b.intValue() - 1]);
        });
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
