package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.Views;
import javafx.geometry.Pos;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;

/** Gives what belongs to this view to the others. */
final class CopyRow extends HBox {
    CopyRow(Views views) {
        setAlignment(Pos.CENTER_LEFT);
        MenuButton b = new MenuButton("Give to all views");
        b.setId("give-to-all");
        b.getStyleClass().add("small");
        b.setTooltip(Ui.tip("One step, which can be undone"));
        for (Views.Part p : Views.Part.values()) {
            MenuItem i = new MenuItem(p.words());
            i.setId("give-" + p.name().toLowerCase(java.util.Locale.ROOT));
            i.setOnAction(e -> views.giveToAll(p));
            b.getItems().add(i);
        }
        getChildren().add(b);
    }
}
