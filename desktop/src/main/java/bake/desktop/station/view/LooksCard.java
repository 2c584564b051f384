package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.LooksHand;
import bake.desktop.work.Views;
import bake.formats.project.SavedLook;
import bake.formats.project.View;
import java.util.List;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;

/** Looks with names: put on, kept, given to other views, and looked at beside the one before. */
final class LooksCard extends VBox {
    private final ViewWork work;
    private final LooksHand hand;
    private final MenuButton looks = new MenuButton("Put on a look"), keep = new MenuButton("Keep");
    private final Button swap;
    private final TextField name = new TextField();
    private final Label standing = Ui.note("");
    private final Button newer;
    private final VBox changes = new VBox(3);

    LooksCard(ViewWork work) {
        super(7);
        this.work = work;
        hand = work.looks();
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
                    work.notices().say(x.getMessage());
                }
            });
            keep.getItems().add(m);
        }
        swap = Ui.button("look-swap", "The one before", "Back to the finish before the last look, and forth again", () -> {
            hand.swap();
            refresh();
        }, "small");
        standing.setId("look-standing");
        newer = Ui.button("look-newer", "Take the newer", null, () -> hand.use(hand.newer()), "small");
        getChildren().addAll(Ui.row(Ui.label("Look", "card-title"), Ui.spring(),
                Ui.button("finish-clear", "Nothing", "Takes everything on this page away but the tone curve and the balance",
                work.finish()::clear, "small")),
                Ui.row(looks, swap, Ui.button("look-to-all", "To all views",
                "All views are finished like this one; one step, which can be undone", () -> work.views().giveToAll(Views.Part.LOOK),
                "small")),
                Ui.row(standing, Ui.spring(), newer), changes, Ui.row(name, keep));
        hand.looks().addListener((ListChangeListener<SavedLook>) c -> fill());
        work.document().viewProperty().addListener((o, a, b) -> refresh());
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
        refresh();
    }

    private void refresh() {
        Ui.show(swap, hand.hasOther());
        View v = work.document().view();
        SavedLook on = hand.began(), next = hand.newer();
        List<String> otherwise = on == null ? List.of() : on.differences(v);
        standing.setText(on == null ? v == null || v.finish().look() == null ? "" : v.finish().look() + ", which no shelf has any more."
                : on.title() + (otherwise.isEmpty() ? ", as it is." : otherwise.size() == 1 ? ", one change." : ", " + otherwise.size() + " changes."));
        Ui.show(standing, !standing.getText().isEmpty());
        Ui.show(newer, next != null);
        if (next != null) newer.setText("Take v" + next.version());
        if (otherwise.equals(listed) && shownOf == v) return;
        listed = otherwise;
        shownOf = v;
        changes.getChildren().clear();
        for (String d : otherwise) {
            Label l = Ui.label(words(d), "line-name");
            Label now = Ui.label(value(d.equals("tone curve") ? v.curve() : v.finish().get(d)) + ", the look: " + value(d.equals("tone curve") ? on.curve()
                    : on.finish().get(d)), "figure");
            now.setMinWidth(0);
            changes.getChildren().add(Ui.row(l, Ui.spring(), now, Ui.button("look-back-" + d.replace(' ', '-'), "Back", "As the look has it", () -> hand.back(d), "small")));
        }
        Ui.show(changes, !otherwise.isEmpty());
    }

    private List<String> listed = List.of();
    private View shownOf;

    /** "skyLighten" as "Sky lighten". */
    private static String words(String key) {
        String t = key.replaceAll("([A-Z])", " $1").toLowerCase(java.util.Locale.ROOT);
        return Character.toUpperCase(t.charAt(0)) + t.substring(1);
    }

    private static String value(Object o) {
        return switch (o) {
            case null -> "nothing";
            case Double d -> String.format(java.util.Locale.ROOT, "%+.2f", d);
            case Boolean b -> b ? "on" : "off";
            case List<?> l -> "a curve or colours of its own";
            default -> o.toString();
        };
    }
}
