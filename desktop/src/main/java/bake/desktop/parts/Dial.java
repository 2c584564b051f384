package bake.desktop.parts;

import bake.desktop.text.Quantity;
import java.util.Locale;
import java.util.function.DoubleConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Slider;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * A value with its name, unit, range and default: a slider and a field that say the same. Double-click on the name, or
 * its menu, returns to the default.
 */
public final class Dial extends HBox {
    private final Slider slider = new Slider();
    private final Field field;
    private final Quantity quantity;
    private final String format;
    private final double min, max, standard;
    private final boolean log;
    private final DoubleConsumer change;
    private double value = Double.NaN;
    private boolean setting;

    /**
     * @param format of the field with its unit, such as "%.1f mm"
     * @param log whether the slider moves in equal ratios
     * @param cost what a change does to the picture or its time, or null
     */
    public Dial(String id, String name, String format, double min, double max, double standard, boolean log, String cost,
            DoubleConsumer change) {
        this.format = format;
        quantity = Quantity.of(format);
        this.min = min;
        this.max = max;
        this.standard = standard;
        this.log = log;
        this.change = change;
        setId(id);
        getStyleClass().add("dial");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(8);
        Label label = Ui.label(name, "dial-name");
        label.setLabelFor(slider);
        String range = quantity.range(min, max) + ", usually " + String.format(Locale.ROOT, format, standard);
        label.setTooltip(Ui.tip((cost == null ? "" : cost + "\n") + range));
        MenuItem back = new MenuItem("Return to " + String.format(Locale.ROOT, format, standard));
        back.setOnAction(e -> set(standard, true));
        label.setContextMenu(new ContextMenu(back));
        label.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) set(standard, true);
        });
        slider.setMin(log ? Math.log(min) : min);
        slider.setMax(log ? Math.log(max) : max);
        slider.setBlockIncrement((slider.getMax() - slider.getMin()) / 40);
        slider.setId(id + "-slider");
        slider.setPrefWidth(90);
        slider.setMinWidth(40);
        HBox.setHgrow(slider, Priority.ALWAYS);
        slider.valueProperty().addListener((o, a, b) -> {
            if (!setting) set(log ? Math.exp(b.doubleValue()) : b.doubleValue(), true);
        });
        field = new Field(id + "-field", 92, t -> set(quantity.parse(t, min, max), true));
        field.setAlignment(Pos.CENTER_RIGHT);
        field.setAccessibleText(name);
        slider.setAccessibleText(name);
        getChildren().addAll(label, slider, field);
    }

    /** Shows a value without telling anyone. */
    public void show(double v) {
        set(v, false);
    }

    private void set(double v, boolean tell) {
        double c = Math.clamp(v, min, max);
        setting = true;
        slider.setValue(log ? Math.log(c) : c);
        setting = false;
        field.show(String.format(Locale.ROOT, format, c));
        boolean news = c != value;
        value = c;
        if (tell && news) change.accept(c);
    }
}
