package bake.desktop.station.light;

import bake.core.finish.LuxScale;
import bake.desktop.parts.Ui;
import bake.studio.live.Showing;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.paint.CycleMethod;
import javafx.scene.paint.LinearGradient;
import javafx.scene.paint.Stop;
import javafx.scene.shape.Rectangle;

/** What the false colours of illuminance stand for, in lux; there only while they are shown. */
final class LuxLegend extends Pane {
    private static final double WIDTH = 380, BAND = 7;

    LuxLegend(LightWork work) {
        setId("lux-legend");
        Stop[] stops = new Stop[24];
        for (int i = 0; i < stops.length; i++) {
            double t = i / (stops.length - 1.0);
            int c = LuxScale.argb(LuxScale.LEAST * Math.pow(LuxScale.MOST / LuxScale.LEAST, t));
            stops[i] = new Stop(t, Color.rgb(c >> 16 & 255, c >> 8 & 255, c & 255));
        }
        getChildren().add(new Rectangle(WIDTH, BAND, new LinearGradient(0, 0, 1, 0, true, CycleMethod.NO_CYCLE, stops)));
        for (int mark : LuxScale.MARKS) {
            Label l = Ui.label(mark >= 1000 ? mark / 1000 + "k" : Integer.toString(mark), "legend");
            l.setLayoutX(LuxScale.place(mark) * WIDTH - 8);
            l.setLayoutY(BAND);
            getChildren().add(l);
        }
        Label unit = Ui.label(String.format(Locale.ROOT, "lx"), "legend");
        unit.setLayoutX(WIDTH + 4);
        unit.setLayoutY(-4);
        getChildren().add(unit);
        setMinSize(WIDTH + 20, BAND + 14);
        setPrefSize(WIDTH + 20, BAND + 14);
        visibleProperty().bind(work.lighting().showing().isEqualTo(Showing.LUX));
        managedProperty().bind(visibleProperty());
    }
}
