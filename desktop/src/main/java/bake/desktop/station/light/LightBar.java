package bake.desktop.station.light;

import bake.desktop.parts.Ui;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;

/** One bar, each source group its share of the picture's light. */
final class LightBar extends Pane {
    static final String[] TONES = {"#F2D9A0", "#B9CFDF", "#E6B39A", "#C9CFB4", "#D8C3DC", "#C8BFA8", "#A9C7C0", "#DDB7B7", "#BFC3D6",
            "#D9D2A8"};
    private final List<Label> parts = new ArrayList<>();
    private double[] shares = new double[0];

    LightBar() {
        setId("light-bar");
        setMinHeight(20);
        setPrefHeight(20);
        setMaxHeight(20);
        getStyleClass().add("light-bar");
    }

    void show(List<String> groups, double[] light) {
        double sum = 0;
        for (double l : light) sum += l;
        if (!(sum > 0)) {
            getChildren().clear();
            parts.clear();
            return;
        }
        shares = new double[light.length];
        while (parts.size() < light.length) {
            Label l = Ui.label("", "light-part");
            parts.add(l);
            getChildren().add(l);
        }
        for (int i = 0; i < parts.size(); i++) {
            boolean there = i < light.length && light[i] / sum > 0.001;
            parts.get(i).setVisible(there);
            if (!there) continue;
            shares[i] = light[i] / sum;
            long percent = Math.round(100 * shares[i]);
            parts.get(i).setText(shares[i] > 0.13 ? groups.get(i) + " " + percent + " %" : shares[i] > 0.035 ? Long.toString(percent) : "");
            parts.get(i).setTooltip(Ui.tip(groups.get(i) + ": " + percent + " % of the light in the picture"));
            parts.get(i).setStyle("-fx-background-color: " + TONES[i % TONES.length] + ";");
        }
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        StringBuilder b = new StringBuilder("Light in the picture");
        for (int i = 0; i < light.length; i++) if (light[i] / sum > 0.001) b.append(", ").append(groups.get(i)).append(' ').append(Math.round(
                100 * light[i] / sum)).append(" percent");
        setAccessibleText(b.toString());
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        double x = 0;
        for (int i = 0; i < parts.size() && i < shares.length; i++) {
            double w = shares[i] * getWidth();
            parts.get(i).resizeRelocate(x, 0, Math.max(0, w), getHeight());
            x += w;
        }
    }
}
