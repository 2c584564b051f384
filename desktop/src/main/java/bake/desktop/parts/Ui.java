package bake.desktop.parts;

import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/** Small building blocks of the sheet. */
public final class Ui {
    /** Styles of labels that say what stands beside them. */
    private static final List<String> NAMES = List.of("dial-name", "line-name", "strip-title", "card-title");

    private Ui() {}

    public static Label label(String text, String... styles) {
        Label l = new Label(text);
        l.getStyleClass().addAll(styles);
        return l;
    }

    public static Button button(String id, String text, String help, Runnable action, String... styles) {
        Button b = new Button(text);
        b.setId(id);
        b.getStyleClass().addAll(styles);
        b.setOnAction(e -> action.run());
        // A button never gives way to its neighbours: a cut word helps nobody.
        b.setMinWidth(Region.USE_PREF_SIZE);
        if (help != null) b.setTooltip(tip(help));
        return b;
    }

    public static Tooltip tip(String text) {
        Tooltip t = new Tooltip(text);
        t.setShowDelay(Duration.millis(450));
        t.setWrapText(true);
        t.setMaxWidth(320);
        return t;
    }

    public static Region spring() {
        Region r = new Region();
        HBox.setHgrow(r, Priority.ALWAYS);
        return r;
    }

    public static HBox row(Node... nodes) {
        HBox h = new HBox(8, nodes);
        h.setAlignment(Pos.CENTER_LEFT);
        name(nodes);
        return h;
    }

    /** What stands behind a name in a row, and has none of its own, is called by it for those who do not see it. */
    private static void name(Node[] nodes) {
        String name = null;
        for (Node n : nodes)
            if (n instanceof Label l && NAMES.stream().anyMatch(l.getStyleClass()::contains)) name = l.getText();
            else if (name != null && n.getAccessibleText() == null && (n instanceof TextInputControl || n instanceof ComboBoxBase<?>
                    || n instanceof Slider)) n.setAccessibleText(name);
    }

    /** A card of the sheet: a title, perhaps something at its right, and lines. */
    public static VBox card(String title, Node right, Node... lines) {
        VBox v = new VBox(7);
        v.getStyleClass().add("card");
        if (title != null) {
            HBox head = row(label(title, "card-title"), spring());
            if (right != null) head.getChildren().add(right);
            v.getChildren().add(head);
        }
        v.getChildren().addAll(lines);
        return v;
    }

    /** Takes one value of a property while it is pressed, and gives another back; whoever fills its card anew makes it anew. */
    public static <T> ToggleButton taking(String id, String text, String help, ObjectProperty<T> of, T value, T otherwise) {
        ToggleButton b = new ToggleButton(text);
        b.setId(id);
        b.setTooltip(tip(help));
        b.setSelected(of.get() == value);
        b.setOnAction(e -> of.set(b.isSelected() ? value : otherwise));
        return b;
    }

    /** Two or more choices side by side, one of them taken. */
    public static HBox choice(ToggleGroup group, String idPrefix, String... names) {
        HBox h = new HBox();
        h.getStyleClass().add("choice");
        for (String n : names) {
            ToggleButton b = new ToggleButton(n);
            b.setId(idPrefix + n.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'));
            b.setToggleGroup(group);
            b.setMaxWidth(Double.MAX_VALUE);
            b.setUserData(n);
            HBox.setHgrow(b, Priority.ALWAYS);
            // A second click on what is taken must not leave nothing taken.
            b.addEventFilter(javafx.scene.input.MouseEvent.MOUSE_RELEASED, e -> {
                if (b.isSelected()) e.consume();
            });
            h.getChildren().add(b);
        }
        return h;
    }

    /** What something is called, and its value at the right. */
    public static HBox line(String name, Node value) {
        return row(label(name, "line-name"), spring(), value);
    }

    public static Label note(String text) {
        Label l = label(text, "note");
        l.setWrapText(true);
        return l;
    }

    /** Lines that are rarely needed, behind a word. */
    public static VBox more(String id, Node... lines) {
        return foldedAway(id, "More", lines);
    }

    /** The same under a word of its own. */
    public static VBox foldedAway(String id, String word, Node... lines) {
        ToggleButton t = new ToggleButton(word);
        t.setId(id);
        t.getStyleClass().addAll("small", "more");
        VBox inner = new VBox(7, lines);
        inner.visibleProperty().bind(t.selectedProperty());
        inner.managedProperty().bind(t.selectedProperty());
        t.selectedProperty().addListener((o, a, b) -> t.setText(b ? "Less" : word));
        return new VBox(7, t, inner);
    }

    /** Fills a part of the window anew; the focus stays with the control of the same name. */
    public static void refill(Parent p, Runnable fill) {
        Node owner = p.getScene() == null ? null : p.getScene().getFocusOwner();
        String id = null;
        for (Node n = owner; n != null; n = n.getParent()) if (n == p) id = owner.getId();
        fill.run();
        Node again = id == null ? null : p.lookup("#" + id);
        if (again != null) again.requestFocus();
    }

    public static void show(Node n, boolean visible) {
        n.setVisible(visible);
        n.setManaged(visible);
    }
}
