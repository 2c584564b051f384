package bake.desktop.station.model;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.ModelFacts;
import bake.desktop.work.Station;
import bake.studio.live.Showing;
import java.util.Locale;
import javafx.beans.property.ObjectProperty;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.TilePane;
import javafx.scene.layout.VBox;

/** Under the easel on the Model station: the layers, what each holds, and its switch. */
public final class ModelStrip extends VBox {
    private final ModelWork work;
    private final TilePane tiles = new TilePane(14, 6);
    private final Label key = Ui.label("", "strip-figure");
    private boolean setting;

    public ModelStrip(ModelWork work) {
        this.work = work;
        getStyleClass().add("strip");
        setSpacing(8);
        tiles.setPrefTileWidth(277);
        tiles.setPrefColumns(3);
        ObjectProperty<Showing> showing = work.easel().showing(Station.MODEL);
        ToggleGroup ways = new ToggleGroup();
        HBox choice = Ui.choice(ways, "show-", "Picture", "Clay", "Edges", "Materials", "Objects", "Depth", "Normals", "Colours");
        choice.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        key.setId("show-key");
        key.managedProperty().bind(key.textProperty().isNotEmpty());
        mark(ways, showing.get());
        showing.addListener((o, a, b) -> mark(ways, b));
        ways.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) showing.set(Showing.valueOf(((String) b.getUserData()).toUpperCase(Locale.ROOT)));
        });
        getChildren().addAll(Ui.row(Ui.label("Show", "strip-title"), choice), key,
                Ui.label("Layers and their triangles, copies counted. What the view cannot see still costs time: switch it off.",
                "strip-title"), tiles);
        work.models().factsProperty().addListener((o, a, b) -> fill());
        work.document().projectProperty().addListener((o, a, b) -> fill());
        fill();
    }

    private void mark(ToggleGroup ways, Showing now) {
        key.setText(key(now));
        for (Toggle t : ways.getToggles()) if (t.getUserData().toString().equalsIgnoreCase(now.name())) t.setSelected(true);
    }

    /** What the colours of a drawing say. */
    private static String key(Showing now) {
        return switch (now) {
            case EDGES -> "Lines: edges of triangles";
            case MATERIALS -> "A colour for each material";
            case OBJECTS -> "A colour for each object";
            case DEPTH -> "White near by, half as bright every 4 m";
            case NORMALS -> "Red faces east, green north, blue up";
            case COLOURS -> "Base colours, no light";
            default -> "";
        };
    }

    private void fill() {
        ModelFacts f = work.models().factsProperty().get();
        setting = true;
        tiles.getChildren().clear();
        for (int i = 0; i < f.layers().size() && work.document().project() != null; i++) {
            String name = f.layers().get(i);
            CheckBox on = new CheckBox(name);
            on.setId("layer-" + name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-"));
            on.setSelected(work.document().project().layerOn(name));
            on.selectedProperty().addListener((o, a, b) -> {
                if (!setting) work.models().switchLayer(name, b);
            });
            long share = f.placed() == 0 ? 0 : Math.round(100.0 * f.triangles()[i] / f.placed());
            Label n = Ui.label(Texts.count(f.triangles()[i]) + "  " + share + " %", "strip-figure");
            javafx.scene.layout.HBox row = Ui.row(on, Ui.spring(), n);
            row.setPrefWidth(277);
            tiles.getChildren().add(row);
        }
        setting = false;
    }
}
