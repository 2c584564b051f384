package bake.desktop;

import bake.studio.LightFindings;
import bake.studio.LiveRender;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** What is odd about a view's light, each with what to do. There only when there is something. */
final class WarningsCard extends VBox {
    private final Workbench bench;
    private List<LightFindings.Finding> shown = List.of();

    WarningsCard(Workbench bench) {
        this.bench = bench;
        setId("light-warnings");
        getStyleClass().add("card");
        setSpacing(6);
        bench.frameProperty().addListener((o, a, f) -> refresh(f));
        Ui.show(this, false);
    }

    private void refresh(LiveRender.Frame f) {
        // The first, coarse pictures know too little.
        if (f == null || bench.view() == null || f.passes() < 2) return;
        List<LightFindings.Finding> now = LightFindings.of(bench.project(), bench.view(), f);
        if (now.equals(shown)) return;
        shown = now;
        getChildren().clear();
        Ui.show(this, !now.isEmpty());
        for (LightFindings.Finding x : now) {
            Label l = Ui.note(x.text());
            l.getStyleClass().add("needs-hand");
            getChildren().add(l);
            if (x.stops() != 0)
                getChildren().add(Ui.button("mend-exposure", "Correct the exposure", "Sets the shutter time", () -> bench.editView(null, v -> v.withCamera(LightFindings.exposed(v.camera().camera(), x.stops()))), "small"));
        }
    }
}
