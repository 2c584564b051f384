package bake.desktop.station.light;

import bake.core.light.LightTable;
import bake.desktop.parts.Ui;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.scene.Node;
import javafx.scene.control.Label;
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
    private final LightWork work;
    private final LightBar bar = new LightBar();
    private final Label title = Ui.label("Light by source", "strip-title");
    private final TilePane faders = new TilePane(14, 3);
    private final ToggleGroup modes = new ToggleGroup();
    private List<String> shown = List.of();
    private String sky = "Sky";

    public LightStrip(LightWork work) {
        this.work = work;
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
        ObjectProperty<Showing> showing = work.lighting().showing();
        ToggleButton lux = Ui.taking("show-lux", "Illuminance", "Shows the light that falls on things, in lux, in false colours", showing,
                Showing.LUX, Showing.PICTURE);
        showing.addListener((o, a, b) -> lux.setSelected(b == Showing.LUX));
        HBox head = Ui.row(title, new LuxLegend(work), Ui.spring(),
                new WayChoice(showing), new HBox(lux), mode);
        ((HBox) head.getChildren().get(4)).getStyleClass().addAll("choice", "on-easel");
        getChildren().addAll(head, bar, faders);
        work.easel().frameProperty().addListener((o, a, f) -> frame(f));
        work.document().viewProperty().addListener((o, a, v) -> fill());
        work.lighting().soloProperty().addListener((o, a, v) -> fill());
        fill();
    }

    private void frame(LiveRender.Frame f) {
        if (f == null) return;
        boolean ways = f.ways().length > 0;
        if (ways) bar.show(WayChoice.WORDS, f.ways());
        if (ways || f.light().length > 0) title.setText(ways ? "Light by way" : "Light by source");
        if (f.light().length == 0) return;
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
                && v.around().kind().equals("hdri") || !work.sights().catchers().isEmpty()) out.add(LightTable.BACKDROP);
        work.document().project().lamps().forEach(l -> out.add(l.groupName()));
        if (work.models().factsProperty().get().materials().stream().anyMatch(m -> m.glows())
                || work.document().project().materials().stream().anyMatch(m -> m.emission() != null)) out.add(LightTable.GLOW);
        return new ArrayList<>(out);
    }

    private void fill() {
        View v = work.document().view();
        if (v == null) {
            faders.getChildren().clear();
            shown = List.of();
            return;
        }
        List<String> want = groups(v);
        if (!want.equals(shown)) {
            shown = want;
            faders.getChildren().clear();
            for (String g : want) faders.getChildren().add(new Fader(work, g, g.equals(sky), this::colour));
        }
        for (Node n : faders.getChildren()) ((Fader) n).show(v);
    }

    private boolean colour() {
        return modes.getSelectedToggle() == modes.getToggles().get(1);
    }

    static String id(String group) {
        return group.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    }
}
