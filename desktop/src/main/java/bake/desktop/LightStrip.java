package bake.desktop;

import bake.core.light.LightTable;
import bake.formats.project.View;
import bake.studio.LiveRender;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.TilePane;
import javafx.scene.layout.VBox;

/** Under the easel on the Light station: light by source as one bar, and a fader for each group. */
final class LightStrip extends VBox {
    private static final String[] TONES = {"#F2D9A0", "#B9CFDF", "#E6B39A", "#C9CFB4", "#D8C3DC", "#C8BFA8", "#A9C7C0", "#DDB7B7", "#BFC3D6", "#D9D2A8"};
    private final Workbench bench;
    private final Bar bar = new Bar();
    private final TilePane faders = new TilePane(14, 4);
    private List<String> shown = List.of();
    private boolean setting;

    LightStrip(Workbench bench) {
        this.bench = bench;
        getStyleClass().add("strip");
        setSpacing(6);
        faders.setPrefColumns(4);
        faders.setPrefTileWidth(205);
        getChildren().addAll(Ui.label("Light by source at this exposure", "strip-title"), bar, faders);
        bench.frameProperty().addListener((o, a, f) -> frame(f));
        bench.viewProperty().addListener((o, a, v) -> fill());
        fill();
    }

    private void frame(LiveRender.Frame f) {
        if (f == null) return;
        bar.show(f.groups(), f.light());
    }

    /** Groups of the project's lamps, then glowing materials where there are any. */
    private List<String> groups() {
        Set<String> out = new LinkedHashSet<>();
        bench.project().lamps().forEach(l -> out.add(l.group() == null ? "Lamps" : l.group()));
        if (bench.factsProperty().get().materials().stream().anyMatch(m -> m.glows()) || bench.project().materials().stream().anyMatch(m -> m.emission() != null)) out.add(LightTable.GLOW);
        return new ArrayList<>(out);
    }

    private void fill() {
        View v = bench.view();
        if (v == null) {
            faders.getChildren().clear();
            shown = List.of();
            return;
        }
        List<String> want = groups();
        if (!want.equals(shown)) {
            shown = want;
            faders.getChildren().clear();
            for (String g : want) faders.getChildren().add(fader(g));
        }
        setting = true;
        for (Node n : faders.getChildren()) {
            String g = (String) n.getUserData();
            ((CheckBox) n.lookup(".check-box")).setSelected(!v.off().contains(g));
            Slider s = (Slider) n.lookup(".slider");
            double stops = v.faders().getOrDefault(g, 0.0);
            s.setValue(stops);
            s.setDisable(v.off().contains(g));
            ((Label) n.lookup(".fader-value")).setText(text(stops, v.off().contains(g)));
        }
        setting = false;
    }

    private static String text(double stops, boolean off) {
        if (off) return "off";
        return String.format(Locale.ROOT, "%+.1f  %d %%", stops, Math.round(100 * Math.pow(2, stops)));
    }

    private Node fader(String group) {
        String id = group.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
        CheckBox on = new CheckBox(group);
        on.setId("on-" + id);
        on.setTooltip(Ui.tip("Switch this group on or off in this view"));
        on.selectedProperty().addListener((o, a, b) -> {
            if (!setting) bench.editView(null, v -> v.withOff(group, !b));
        });
        Slider s = new Slider(-6, 6, 0);
        s.setId("fader-" + id);
        s.setBlockIncrement(0.5);
        s.setTooltip(Ui.tip("Level in stops, -6 to +6; double-click returns to 0"));
        s.valueProperty().addListener((o, a, b) -> {
            if (!setting) bench.editView("fader " + group, v -> v.withFader(group, Math.round(b.doubleValue() * 10) / 10.0));
        });
        s.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) s.setValue(0);
        });
        Label value = Ui.label("", "fader-value");
        value.setMinWidth(USE_PREF_SIZE);
        HBox head = Ui.row(on, Ui.spring(), value);
        VBox box = new VBox(1, head, s);
        box.getStyleClass().add("fader");
        box.setUserData(group);
        return box;
    }

    /** One bar, each source group its share of the picture's light. */
    private static final class Bar extends Pane {
        private final List<Label> parts = new ArrayList<>();
        private double[] shares = new double[0];

        Bar() {
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
}
