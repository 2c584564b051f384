package bake.desktop.station.light;

import bake.core.light.LightTable;
import bake.desktop.parts.Ui;
import bake.formats.project.View;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** One group: whether it is rendered, its level or shift, mute and solo. */
final class Fader extends VBox {
    private final String group;
    private final CheckBox on;
    private final Slider slider = new Slider(-6, 6, 0);
    private final ToggleButton mute, solo;
    private final Label value = Ui.label("", "fader-value");
    private final MenuItem take = new MenuItem();
    private final LightWork work;
    private final BooleanSupplier colour;
    private boolean setting;

    /**
     * @param sky whether the group is the surroundings
     * @param colour whether it shifts the colour now, and not the level
     */
    Fader(LightWork work, String group, boolean sky, BooleanSupplier colour) {
        super(0);
        this.work = work;
        this.group = group;
        this.colour = colour;
        String id = LightStrip.id(group);
        boolean lamp = !group.equals("Sun") && !sky && !group.equals(LightTable.BACKDROP);
        on = lamp ? new CheckBox(group) : null;
        if (lamp) {
            on.setId("on-" + id);
            on.setTooltip(Ui.tip("Whether this group is rendered in this view. Off saves time; mute does not."));
            on.selectedProperty().addListener((o, a, b) -> {
                if (!setting) work.document().editView(null, v -> v.withOff(group, !b));
            });
        }
        slider.setAccessibleText(group);
        slider.setId("fader-" + id);
        slider.setBlockIncrement(0.5);
        slider.valueProperty().addListener((o, a, b) -> moved(b.doubleValue()));
        slider.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) slider.setValue(0);
        });
        mute = tiny("mute-" + id, "mute", "Takes this light out of the picture without rendering again");
        solo = tiny("solo-" + id, "solo", "Shows this light alone, or with others that are soloed; not kept");
        mute.setOnAction(e -> work.document().editView(null, v -> v.withMuted(group, mute.isSelected())));
        solo.setOnAction(e -> work.lighting().solo(group, solo.isSelected()));
        take.setId("set-output-" + id);
        take.setOnAction(e -> work.lighting().output().set(group));
        MenuItem zero = new MenuItem("Back to 0");
        zero.setOnAction(e -> slider.setValue(0));
        value.setMinWidth(USE_PREF_SIZE);
        value.setId("value-" + id);
        ContextMenu menu = new ContextMenu(take, zero);
        value.setContextMenu(menu);
        slider.setContextMenu(menu);
        value.setOnMouseClicked(e -> menu.show(value, e.getScreenX(), e.getScreenY()));
        value.setTooltip(Ui.tip("Click to set the lamps to this output, or to go back to 0"));
        HBox.setHgrow(slider, Priority.ALWAYS);
        HBox tools = Ui.row(slider, mute, solo);
        tools.setSpacing(4);
        getChildren().addAll(Ui.row(lamp ? on : Ui.label(group, "strip-text"), Ui.spring(), value), tools);
        getStyleClass().add("fader");
    }

    private ToggleButton tiny(String id, String text, String help) {
        ToggleButton b = new ToggleButton(text);
        b.setId(id);
        b.getStyleClass().add("tiny");
        b.setMinWidth(USE_PREF_SIZE);
        b.setTooltip(Ui.tip(help));
        return b;
    }

    private void moved(double to) {
        if (setting) return;
        if (colour.getAsBoolean()) work.document().editView("shift " + group, v -> v.withShift(group, Math.rint(to / 5) * 5));
        else work.document().editView("fader " + group, v -> v.withFader(group, Math.round(to * 10) / 10.0));
    }

    void show(View v) {
        setting = true;
        boolean off = v.off().contains(group);
        double stops = v.faders().getOrDefault(group, 0.0), mired = v.shifts().getOrDefault(group, 0.0);
        if (on != null) on.setSelected(!off);
        slider.setMin(colour.getAsBoolean() ? -150 : -6);
        slider.setMax(colour.getAsBoolean() ? 150 : 6);
        slider.setBlockIncrement(colour.getAsBoolean() ? 10 : 0.5);
        slider.setValue(colour.getAsBoolean() ? mired : stops);
        slider.setDisable(off);
        slider.setTooltip(Ui.tip(colour.getAsBoolean() ? "Colour shift in mired, -150 to +150; double-click returns to 0"
                : "Level in stops, -6 to +6; double-click returns to 0. Nothing is rendered again."));
        mute.setSelected(v.muted().contains(group));
        mute.setDisable(off);
        solo.setSelected(work.lighting().soloProperty().get().contains(group));
        solo.setDisable(off);
        String offer = work.lighting().output().offer(group);
        take.setText(offer == null ? stops == 0 ? "Set to this output: the fader is at 0" : "It comes with the model: set it on its material" : offer);
        take.setDisable(offer == null);
        value.setText(off ? "off" : v.muted().contains(group) ? "muted" : colour.getAsBoolean() ? String.format(Locale.ROOT, "%+.0f mired", mired)
                : String.format(Locale.ROOT, "%+.1f  %d %%", stops, Math.round(100 * Math.pow(2, stops))));
        setting = false;
    }
}
