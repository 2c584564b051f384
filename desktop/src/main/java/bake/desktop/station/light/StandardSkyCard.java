package bake.desktop.station.light;

import bake.core.light.GeneralSky;
import bake.desktop.parts.Ui;
import javafx.scene.control.Label;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;

/** The fifteen standard skies in three rows, from overcast to clear, and what the chosen one looks like. */
final class StandardSkyCard {
    private static final String[] ROWS = {"Overcast", "Partly cloudy", "Clear"};

    private final ToggleGroup types = new ToggleGroup();
    private final Label words = Ui.note("");
    private final VBox card = Ui.card("Standard sky (ISO 15469)", null);
    private boolean setting;

    StandardSkyCard(LightWork work) {
        for (int row = 0; row < 3; row++) {
            String[] names = new String[5];
            for (int k = 0; k < 5; k++) names[k] = Integer.toString(5 * row + k + 1);
            card.getChildren().addAll(Ui.label(ROWS[row], "dial-name"), Ui.choice(types, "sky-type-", names));
        }
        card.getChildren().add(words);
        types.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) work.document().editView(null,
                    v -> v.withAround(v.around().withStandardSky(Integer.parseInt((String) b.getUserData()))));
        });
    }

    VBox card() {
        return card;
    }

    void show(int type) {
        setting = true;
        for (Toggle t : types.getToggles()) if (t.getUserData().equals(Integer.toString(type))) t.setSelected(true);
        words.setText(GeneralSky.name(type) + "." + (GeneralSky.hidesSun(type) ? " The sun is hidden." : ""));
        setting = false;
    }
}
