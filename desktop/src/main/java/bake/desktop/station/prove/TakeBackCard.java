package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.desktop.work.TakeBackHand;
import bake.studio.proof.Differences;
import bake.studio.proof.Part;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.layout.VBox;

/** What would be taken back from a proof, part by part, before it is done. */
final class TakeBackCard extends VBox {
    private static final int MOST = 6;
    private final TakeBackHand hand;

    TakeBackCard(TakeBackHand hand) {
        super(7);
        this.hand = hand;
        setId("take-back");
        getStyleClass().add("card");
        hand.offerProperty().addListener((o, a, b) -> Ui.refill(this, this::fill));
        fill();
    }

    private void fill() {
        TakeBackHand.Offer f = hand.offerProperty().get();
        getChildren().clear();
        Ui.show(this, f != null);
        if (f == null) return;
        getChildren().add(Ui.row(Ui.label("Take back from proof " + f.proof().number(), "card-title")));
        for (Part p : f.differing()) {
            CheckBox b = new CheckBox(p.word());
            b.setId("take-" + p.name().toLowerCase(java.util.Locale.ROOT));
            b.setSelected(f.wanted().contains(p));
            b.setOnAction(e -> hand.want(p, b.isSelected()));
            VBox lines = new VBox(1);
            var all = f.changes().stream().filter(c -> c.part() == p).toList();
            for (Differences.Difference c : all.subList(0, Math.min(MOST, all.size())))
                lines.getChildren().add(Ui.note(c.what() + "  " + c.a() + " \u2192 " + c.b()));
            if (all.size() > MOST) lines.getChildren().add(Ui.note("and " + (all.size() - MOST) + " more"));
            getChildren().addAll(b, lines);
        }
        Button take = Ui.button("take-back-now", "Take back", "As one step that can be undone", hand::take, "small");
        take.setDisable(f.wanted().isEmpty());
        getChildren().add(Ui.row(take, Ui.button("take-back-not", "Change nothing", null, hand::leave, "small")));
    }
}
