package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.Views;
import bake.formats.project.View;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.VBox;

/** The views in their order: a click looks at one, a drag or Alt with an arrow key moves it. */
final class ViewList extends VBox {
    private static final String DRAGGED = "bake view ";
    private final Views views;

    ViewList(Views views) {
        super(1);
        this.views = views;
    }

    void show(List<View> all, View here) {
        boolean focused = getChildren().stream().anyMatch(n -> n.isFocused());
        getChildren().clear();
        for (View x : all) getChildren().add(line(x, getChildren().size(), x == here));
        // The list is made anew at every edit; the keys stay with the view that is looked at.
        if (focused) getChildren().get(all.indexOf(here)).requestFocus();
    }

    private Button line(View x, int at, boolean here) {
        Button b = Ui.button("view-" + at, x.name(), "Drag it, or press Alt and an arrow key, to change the order",
                () -> views.choose(x.name()), "list-line");
        b.setMinWidth(0);
        b.setMaxWidth(Double.MAX_VALUE);
        if (here) b.getStyleClass().add("list-here");
        b.setOnKeyPressed(e -> {
            int by = !e.isAltDown() ? 0 : e.getCode() == KeyCode.UP ? -1 : e.getCode() == KeyCode.DOWN ? 1 : 0;
            if (by == 0) return;
            views.choose(x.name());
            views.move(x.name(), at + by);
            e.consume();
        });
        b.setOnDragDetected(e -> {
            ClipboardContent c = new ClipboardContent();
            c.putString(DRAGGED + x.name());
            b.startDragAndDrop(TransferMode.MOVE).setContent(c);
            e.consume();
        });
        b.setOnDragOver(e -> {
            if (dragged(e.getDragboard().getString()) == null) return;
            e.acceptTransferModes(TransferMode.MOVE);
            e.consume();
        });
        b.setOnDragDropped(e -> {
            String name = dragged(e.getDragboard().getString());
            if (name != null) views.move(name, at);
            e.setDropCompleted(name != null);
            e.consume();
        });
        return b;
    }

    private static String dragged(String text) {
        return text != null && text.startsWith(DRAGGED) ? text.substring(DRAGGED.length()) : null;
    }
}
