package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.PlanHand;
import bake.studio.plan.Fit;
import bake.studio.plan.Plan;
import java.util.Locale;
import javafx.scene.layout.VBox;

/** What would make the delivery fit, each with what it gains and a click that does it; or what better quality the time would buy. */
final class WaysPart extends VBox {
    private final PlanHand hand;

    WaysPart(PlanHand hand) {
        super(4);
        this.hand = hand;
        setId("finals-ways");
        getStyleClass().add("asked");
        hand.waysProperty().addListener((o, a, b) -> fill());
        fill();
    }

    private void fill() {
        getChildren().clear();
        Plan p = hand.planProperty().get();
        boolean any = p != null && !hand.waysProperty().get().isEmpty();
        Ui.show(this, any);
        if (!any) return;
        boolean fits = p.chance() >= Fit.ENOUGH;
        getChildren().add(Ui.note(fits ? "There is time to spare. It would buy:" : "It does not surely fit. What would help:"));
        int n = 0;
        for (Fit.Way w : hand.waysProperty().get()) getChildren().add(Ui.row(Ui.button("way-" + n++, "Do it", "As one step that can be undone",
                () -> hand.take(w), "small"), Ui.label(w.words(), "way"), Ui.spring(), Ui.label((w.gain() == 0 ? "" : (w.gain() > 0 ? "saves " : "costs ")
                        + Texts.about(Math.abs(w.gain())) + ", ") + String.format(Locale.ROOT, "then %.0f %%", 100 * w.chance()), "figure")));
    }
}
