package bake.desktop.parts;

import java.time.DateTimeException;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;

/**
 * A field for a value. What is typed is taken on Enter, when the field is left, and before a command of the window; a text that cannot be
 * taken stays, is marked, and is said. Left as it is the field changes nothing; Escape brings back what was there.
 */
public final class Field extends TextField {
    private static final double USUAL_TEXT = 12;
    private final Consumer<String> take;
    /** What the value looks like when nobody types. */
    private String shown = "";
    private Tooltip usual;

    /**
     * @param width pixels at the usual size of texts
     * @param take gets what was typed; throws {@link IllegalArgumentException} or {@link DateTimeException} with words for the artist when
     *     it cannot be taken
     */
    public Field(String id, double width, Consumer<String> take) {
        this.take = take;
        setId(id);
        getStyleClass().add("figure-field");
        setStyle(String.format(Locale.ROOT, "-fx-pref-width: %1$.3fem; -fx-min-width: %1$.3fem;", width / USUAL_TEXT));
        setOnAction(e -> commit());
        focusedProperty().addListener((o, a, b) -> {
            if (!b) commit();
        });
        setOnKeyPressed(e -> {
            if (e.getCode() != KeyCode.ESCAPE || getText().equals(shown)) return;
            setText(shown);
            right();
            e.consume();
        });
    }

    /** Shows the value's text, unless another one is being typed. */
    public void show(String text) {
        boolean typing = isFocused() && !getText().equals(shown);
        shown = text;
        if (typing) return;
        if (!getText().equals(text)) setText(text);
        right();
    }

    /** Takes what was typed, if anything was. */
    public void commit() {
        String text = getText();
        if (text.equals(shown)) {
            right();
            return;
        }
        String before = shown;
        shown = text;
        try {
            take.accept(text.strip());
            // Nobody has shown the value anew: it is the one that was there, in other words.
            if (shown.equals(text)) shown = before;
            setText(shown);
            right();
        } catch (IllegalArgumentException | DateTimeException e) {
            shown = before;
            if (!getStyleClass().contains("wrong")) {
                getStyleClass().add("wrong");
                usual = getTooltip();
            }
            setTooltip(Ui.tip(e.getMessage()));
            setAccessibleHelp(e.getMessage());
            fireEvent(new WrongInput(e.getMessage()));
        }
    }

    private void right() {
        if (!getStyleClass().remove("wrong")) return;
        setTooltip(usual);
        setAccessibleHelp(null);
    }

    /** Takes what is being typed anywhere in a window. */
    public static void commitIn(Scene scene) {
        if (scene != null && scene.getFocusOwner() instanceof Field f) f.commit();
    }
}
