package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.Views;
import bake.formats.project.View;
import bake.studio.scene.Moods;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import javafx.geometry.HPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;

/** Views by moods: the same cameras in other light, each with its newest picture; an empty place is filled by a click. */
final class MoodTable extends GridPane {
    private static final double WIDE = 39, HIGH = 26;
    private final Views views;
    private final Function<String, Path> pictures;
    private List<String> shown = List.of();

    /** @param pictures finds the newest print of a view by its name; null for none */
    MoodTable(Views views, Function<String, Path> pictures) {
        this.views = views;
        this.pictures = pictures;
        setId("mood-table");
        setHgap(3);
        setVgap(3);
        ColumnConstraints first = new ColumnConstraints();
        first.setHgrow(Priority.ALWAYS);
        first.setMinWidth(0);
        getColumnConstraints().add(first);
        for (Moods m : Moods.values()) {
            ColumnConstraints c = new ColumnConstraints(WIDE + 9);
            c.setHalignment(HPos.CENTER);
            getColumnConstraints().add(c);
        }
    }

    void show(List<View> all, View here) {
        List<String> now = new ArrayList<>();
        for (View v : all) now.add(v.name() + "\n" + (v == here) + pictures.apply(v.name()));
        if (now.equals(shown)) return;
        shown = now;
        getChildren().clear();
        for (Moods m : Moods.values()) add(Ui.label(m.word(), "block-head"), 1 + m.ordinal(), 0);
        int row = 1;
        for (View v : all) {
            if (Moods.isMood(v, all)) continue;
            Label l = Ui.label(v.name(), "block-head");
            l.setWrapText(true);
            l.setMinSize(0, HIGH);
            add(l, 0, row);
            for (Moods m : Moods.values()) add(cell(v, m, all, here, row), 1 + m.ordinal(), row);
            row++;
        }
    }

    private Node cell(View v, Moods m, List<View> all, View here, int row) {
        View there = all.stream().filter(x -> x.name().equals(m.name(v))).findFirst().orElse(null);
        String id = "mood-" + row + "-" + m.word();
        Button b = there == null
                ? Ui.button(id, "+", "Adds " + m.name(v) + ": the sun of its day, lamps off by day and on by night. Set its exposure by the meter",
                        () -> views.add(v, m), "mood-cell")
                : Ui.button(id, "", "Look at " + there.name(), () -> views.choose(there.name()), "mood-cell");
        if (there != null) {
            Path p = pictures.apply(there.name());
            if (p == null) b.setText("\u2013");
            else {
                ImageView i = new ImageView(new Image(p.toUri().toString(), 2 * WIDE, 2 * HIGH, true, true, true));
                i.setFitWidth(WIDE - 2);
                i.setFitHeight(HIGH - 2);
                i.setPreserveRatio(true);
                b.setGraphic(i);
            }
            if (there == here) b.getStyleClass().add("list-here");
        }
        b.setAccessibleText((there == null ? "Add " : "Look at ") + m.name(v));
        b.setMinSize(WIDE + 6, HIGH);
        b.setPrefSize(WIDE + 6, HIGH);
        return b;
    }
}
