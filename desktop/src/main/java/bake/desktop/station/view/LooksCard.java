package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.FinishHand;
import bake.desktop.work.Views;
import bake.desktop.work.Workbench;
import bake.formats.project.SavedLook;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;

/** Looks with names: put on, kept, given to other views, and looked at beside the one before. */
final class LooksCard extends VBox {
    private final Workbench bench;
    private final FinishHand hand;
    private final MenuButton looks = new MenuButton("Put on a look"), keep = new MenuButton("Keep");
    private final Button swap;
    private final TextField name = new TextField();

    LooksCard(Workbench bench) {
        super(7);
        this.bench = bench;
        hand = bench.finish();
        getStyleClass().add("card");
        looks.setId("looks");
        keep.setId("look-keep");
        for (MenuButton b : new MenuButton[] {looks, keep}) b.getStyleClass().add("small");
        name.setId("look-name");
        name.setPrefColumnCount(12);
        name.setPromptText("name of a look");
        name.setAccessibleText("Name of the look");
        String[] where = {"with this project", "on my shelf", "on the studio's shelf"};
        for (int i = 0; i < where.length; i++) {
            int k = i;
            MenuItem m = new MenuItem(where[i]);
            m.setId("look-keep-" + i);
            m.setOnAction(e -> {
                try {
                    hand.save(name.getText().strip(), k);
                } catch (IllegalArgumentException x) {
                    bench.notices().say(x.getMessage());
                }
            });
            keep.getItems().add(m);
        }
        swap = Ui.button("look-swap", "The one before", "Back to the finish before the last look, and forth again", () -> {
            hand.swap();
            refresh();
        }, "small");
        getChildren().addAll(Ui.row(Ui.label("Look", "card-title"), Ui.spring(), Ui.button("finish-clear", "Nothing", "Takes everything on this page away but the tone curve and the balance", hand::clear, "small")),
                Ui.row(looks, swap, Ui.button("look-to-all", "To all views", "All views are finished like this one; one step, which can be undone", () -> bench.views().giveToAll(Views.Part.LOOK), "small")),
                Ui.row(name, keep));
        hand.looks().addListener((ListChangeListener<SavedLook>) c -> fill());
        bench.viewProperty().addListener((o, a, b) -> refresh());
        fill();
        refresh();
    }

    private void fill() {
        looks.getItems().clear();
        for (SavedLook l : hand.looks()) {
            MenuItem i = new MenuItem(l.name() + ", v" + l.version() + (l.author() == null ? "" : ", by " + l.author()));
            i.setId("look-" + l.name().toLowerCase(java.util.Locale.ROOT).replace(' ', '-'));
            i.setOnAction(e -> {
                hand.use(l);
                refresh();
            });
            looks.getItems().add(i);
        }
        looks.setDisable(looks.getItems().isEmpty());
    }

    private void refresh() {
        Ui.show(swap, hand.hasOther());
    }
}
