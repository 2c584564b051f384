package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.desktop.work.StampHand;
import bake.formats.picture.Stamp;
import bake.studio.proof.StampField;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** What is written on prints that are saved as pictures, and where. */
final class StampCard extends VBox {
    private final StampHand hand;

    StampCard(StampHand hand) {
        super(7);
        this.hand = hand;
        setId("stamp-card");
        getStyleClass().add("card");
        hand.choiceProperty().addListener((o, a, b) -> Ui.refill(this, this::fill));
        fill();
    }

    private void fill() {
        FlowPane fields = new FlowPane(10, 5);
        for (StampField f : StampField.values()) {
            CheckBox b = new CheckBox(f.word());
            b.setId("stamp-" + f.word());
            b.setSelected(hand.fields().contains(f));
            b.setOnAction(e -> hand.say(f, b.isSelected()));
            fields.getChildren().add(b);
        }
        ComboBox<String> corner = new ComboBox<>();
        corner.setId("stamp-corner");
        for (Stamp.Corner c : Stamp.Corner.values()) corner.getItems().add(c.word());
        corner.getSelectionModel().select(hand.choiceProperty().get().corner());
        corner.setOnAction(e -> hand.place(Stamp.Corner.of(corner.getValue())));
        getChildren().setAll(Ui.row(Ui.label("Stamp", "card-title")), fields, Ui.line("Lies", corner),
                Ui.note(hand.fields().isEmpty() ? "Nothing is chosen: pictures are saved without a stamp."
                        : "It is on prints that are saved as pictures (menu of a print), never on the print itself."));
    }
}
