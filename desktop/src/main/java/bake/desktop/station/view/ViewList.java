package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.Views;
import bake.formats.project.View;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.scene.control.Button;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The views in their order: a click looks at one, a drag or Alt with an arrow key moves it. */
final class ViewList extends VBox {
    private static final String DRAGGED = "bake view ";
    private static final double WIDE = 36, HIGH = 24;
    private final Views views;
    private final Function<String, Path> pictures;
    private List<String> shown = List.of();
    private final Map<Path, Image> read = new HashMap<>();

    /** @param pictures finds the newest print of a view by its name; null for none */
    ViewList(Views views, Function<String, Path> pictures) {
        super(1);
        this.views = views;
        this.pictures = pictures;
    }

    /** A small picture of a view as it was last seen; read in the background, once. */
    private ImageView small(String view) {
        Path p = pictures.apply(view);
        ImageView v = new ImageView(p == null ? null : read.computeIfAbsent(p, x -> new Image(x.toUri().toString(), 2 * WIDE, 2 * HIGH,
                true, true, true)));
        v.setFitWidth(WIDE);
        v.setFitHeight(HIGH);
        v.setPreserveRatio(true);
        return v;
    }

    void show(List<View> all, View here) {
        List<String> now = new ArrayList<>();
        for (View x : all) now.add(x.name() + "\n" + (x == here) + pictures.apply(x.name()));
        if (now.equals(shown)) return;
        shown = now;
        boolean focused = getChildren().stream().anyMatch(n -> n.isFocused());
        getChildren().clear();
        for (View x : all) getChildren().add(line(x, getChildren().size(), x == here));
        // The list is made anew at every edit; the keys stay with the view that is looked at.
        if (focused) getChildren().get(all.indexOf(here)).requestFocus();
    }

    private Button line(View x, int at, boolean here) {
        Button b = Ui.button("view-" + at, x.name(), "Drag it, or press Alt and an arrow key, to change the order",
                () -> views.choose(x.name()), "list-line");
        StackPane frame = new StackPane(small(x.name()));
        frame.setMinSize(WIDE, HIGH);
        b.setGraphic(frame);
        b.setGraphicTextGap(8);
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
