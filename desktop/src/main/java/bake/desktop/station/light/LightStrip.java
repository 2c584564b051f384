package bake.desktop.station.light;

import bake.core.light.LightTable;
import bake.desktop.parts.Ui;
import bake.desktop.work.Workbench;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.TilePane;
import javafx.scene.layout.VBox;

/**
 * Under the easel on the Light station: light by source as one bar, and a fader for each group, which mixes the light without rendering it
 * again.
 */
public final class LightStrip extends VBox {
    private final Workbench bench;
    private final LightBar bar = new LightBar();
    private final TilePane faders = new TilePane(14, 3);
    private final ToggleGroup modes = new ToggleGroup();
    private List<String> shown = List.of();
    private String sky = "Sky";
    private boolean setting;

    public LightStrip(Workbench bench) {
        this.bench = bench;
        getStyleClass().add("strip");
        setSpacing(5);
        faders.setPrefColumns(4);
        faders.setPrefTileWidth(205);
        HBox mode = Ui.choice(modes, "fader-", "Level", "Colour");
        mode.getStyleClass().add("on-easel");
        ((ToggleButton) modes.getToggles().get(0)).setTooltip(Ui.tip("Faders set levels, in stops"));
        ((ToggleButton) modes.getToggles().get(1)).setTooltip(Ui.tip("Faders shift colours, in mired: to the right is warmer"));
        modes.selectToggle(modes.getToggles().getFirst());
        modes.selectedToggleProperty().addListener((o, a, b) -> fill());
        ToggleButton lux = new ToggleButton("Illuminance");
        lux.setId("show-lux");
        lux.setTooltip(Ui.tip("Shows the light that falls on things, in lux, in false colours"));
        lux.selectedProperty().bindBidirectional(bench.lighting().luxProperty());
        HBox head = Ui.row(Ui.label("Light by source", "strip-title"), new LuxLegend(bench), Ui.spring(), new HBox(lux), mode);
        ((HBox) head.getChildren().get(3)).getStyleClass().addAll("choice", "on-easel");
        getChildren().addAll(head, bar, faders);
        bench.easel().frameProperty().addListener((o, a, f) -> frame(f));
        bench.viewProperty().addListener((o, a, v) -> fill());
        bench.lighting().soloProperty().addListener((o, a, v) -> fill());
        fill();
    }

    private void frame(LiveRender.Frame f) {
        if (f == null || f.light().length == 0) return;
        bar.show(f.groups(), f.light());
        if (!f.groups().get(LightTable.DOME).equals(sky)) {
            sky = f.groups().get(LightTable.DOME);
            fill();
        }
    }

    /** Sun and sky, groups of the project's lamps, then glowing materials where there are any. */
    private List<String> groups(View v) {
        Set<String> out = new LinkedHashSet<>();
        boolean sun = v.around().kind().equals("sun and sky") || v.around().kind().equals("standard sky")
                || v.around().kind().equals("hdri") && v.around().takesSunOut();
        if (sun) out.add("Sun");
        out.add(sky);
        if (v.around().leavesBackdropOut() || v.around().backdrop() != null || v.around().ground() != null
                && v.around().kind().equals("hdri") || !bench.sights().catchers().isEmpty()) out.add(LightTable.BACKDROP);
        bench.project().lamps().forEach(l -> out.add(l.groupName()));
        if (bench.models().factsProperty().get().materials().stream().anyMatch(m -> m.glows())
                || bench.project().materials().stream().anyMatch(m -> m.emission() != null)) out.add(LightTable.GLOW);
        return new ArrayList<>(out);
    }

    private void fill() {
        View v = bench.view();
        if (v == null) {
            faders.getChildren().clear();
            shown = List.of();
            return;
        }
        List<String> want = groups(v);
        if (!want.equals(shown)) {
            shown = want;
            faders.getChildren().clear();
            for (String g : want) faders.getChildren().add(new Fader(g));
        }
        setting = true;
        for (Node n : faders.getChildren()) ((Fader) n).show(v);
        setting = false;
    }

    private boolean colour() {
        return modes.getSelectedToggle() == modes.getToggles().get(1);
    }

    static String id(String group) {
        return group.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    }

    /** One group: whether it is rendered, its level or shift, mute and solo. */
    private final class Fader extends VBox {
        private final String group;
        private final CheckBox on;
        private final Slider slider = new Slider(-6, 6, 0);
        private final ToggleButton mute, solo;
        private final Label value = Ui.label("", "fader-value");
        private final javafx.scene.control.MenuItem take;

        Fader(String group) {
            super(0);
            this.group = group;
            String id = id(group);
            boolean lamp = !group.equals("Sun") && !group.equals(sky) && !group.equals(LightTable.BACKDROP);
            on = lamp ? new CheckBox(group) : null;
            if (lamp) {
                on.setId("on-" + id);
                on.setTooltip(Ui.tip("Whether this group is rendered in this view. Off saves time; mute does not."));
                on.selectedProperty().addListener((o, a, b) -> {
                    if (!setting) bench.editView(null, v -> v.withOff(group, !b));
                });
            }
            slider.setId("fader-" + id);
            slider.setBlockIncrement(0.5);
            slider.valueProperty().addListener((o, a, b) -> moved(b.doubleValue()));
            slider.setOnMouseClicked(e -> {
                if (e.getClickCount() == 2) slider.setValue(0);
            });
            mute = tiny("mute-" + id, "mute", "Takes this light out of the picture without rendering again");
            solo = tiny("solo-" + id, "solo", "Shows this light alone, or with others that are soloed; not kept");
            mute.setOnAction(e -> bench.editView(null, v -> v.withMuted(group, mute.isSelected())));
            solo.setOnAction(e -> bench.lighting().solo(group, solo.isSelected()));
            take = new javafx.scene.control.MenuItem("Take the level over into the scene");
            take.setOnAction(e -> bench.lighting().takeOver(group));
            javafx.scene.control.MenuItem zero = new javafx.scene.control.MenuItem("Back to 0");
            zero.setOnAction(e -> slider.setValue(0));
            value.setMinWidth(USE_PREF_SIZE);
            value.setId("value-" + id);
            javafx.scene.control.ContextMenu menu = new javafx.scene.control.ContextMenu(take, zero);
            value.setContextMenu(menu);
            slider.setContextMenu(menu);
            value.setOnMouseClicked(e -> menu.show(value, e.getScreenX(), e.getScreenY()));
            value.setTooltip(Ui.tip("Click to take the level over into the scene, or to go back to 0"));
            HBox.setHgrow(slider, javafx.scene.layout.Priority.ALWAYS);
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
            if (colour()) bench.editView("shift " + group, v -> v.withShift(group, Math.rint(to / 5) * 5));
            else bench.editView("fader " + group, v -> v.withFader(group, Math.round(to * 10) / 10.0));
        }

        void show(View v) {
            boolean off = v.off().contains(group);
            double stops = v.faders().getOrDefault(group, 0.0), mired = v.shifts().getOrDefault(group, 0.0);
            if (on != null) on.setSelected(!off);
            slider.setMin(colour() ? -150 : -6);
            slider.setMax(colour() ? 150 : 6);
            slider.setBlockIncrement(colour() ? 10 : 0.5);
            slider.setValue(colour() ? mired : stops);
            slider.setDisable(off);
            slider.setTooltip(Ui.tip(colour() ? "Colour shift in mired, -150 to +150; double-click returns to 0"
                    : "Level in stops, -6 to +6; double-click returns to 0. Nothing is rendered again."));
            mute.setSelected(v.muted().contains(group));
            mute.setDisable(off);
            solo.setSelected(bench.lighting().soloProperty().get().contains(group));
            solo.setDisable(off);
            take.setDisable(stops == 0);
            value.setText(off ? "off" : v.muted().contains(group) ? "muted" : colour() ? String.format(Locale.ROOT, "%+.0f mired", mired)
                    : String.format(Locale.ROOT, "%+.1f  %d %%", stops, Math.round(100 * Math.pow(2, stops))));
        }
    }
}
