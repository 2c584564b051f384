package bake.desktop.parts;

import javafx.event.Event;
import javafx.event.EventType;

/** A field holds what it cannot take; goes up the window to whoever tells the artist. */
public final class WrongInput extends Event {
    private static final long serialVersionUID = 1;
    public static final EventType<WrongInput> WRONG = new EventType<>(Event.ANY, "WRONG_INPUT");
    private final String text;

    WrongInput(String text) {
        super(WRONG);
        this.text = text;
    }

    /** What is wrong, and what would be right. */
    public String text() {
        return text;
    }
}
