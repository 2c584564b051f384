package bake.desktop.station.light;

import bake.core.scene.Portal;
import bake.desktop.parts.Ui;
import bake.desktop.work.Station;
import bake.studio.live.LightFindings;
import bake.studio.live.LiveRender;
import java.util.List;
import javafx.animation.PauseTransition;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/** What is odd about a view's light, each with what to do. There only when there is something. */
final class WarningsCard extends VBox {
    private final LightWork work;
    /**
     * Time without an edit after which the model is looked through, seconds: where no opening is known, and where glass or portals are, so
     * that it can wait.
     */
    private static final double SOON = 4, LATER = 30;
    private List<LightFindings.Finding> shown = List.of();
    private List<Portal> uncovered = List.of();
    /** A rest of the artist's is when the model is looked through for openings, once. */
    private final PauseTransition rest = new PauseTransition();

    WarningsCard(LightWork work) {
        this.work = work;
        setId("light-warnings");
        getStyleClass().add("card");
        setSpacing(6);
        work.easel().frameProperty().addListener((o, a, f) -> refresh(f));
        work.lighting().openings().bareProperty().addListener((o, a, b) -> refresh(work.easel().frameProperty().get()));
        rest.setOnFinished(e -> {
            if (work.document().project() != null && work.station().get() == Station.LIGHT) work.lighting().openings().learn();
        });
        Ui.show(this, false);
    }

    private void refresh(LiveRender.Frame f) {
        // The first, coarse pictures know too little.
        if (f == null || work.document().view() == null) rest.stop();
        if (f == null || work.document().view() == null || f.passes() < 2 || f.light().length == 0) return;
        List<LightFindings.Finding> now = LightFindings.of(work.document().project(), work.document().view(), f);
        List<Portal> bare = work.lighting().openings().bareProperty().get();
        boolean interior = "interior".equals(work.document().view().setting());
        rest.stop();
        if (interior && f.spots() != null) {
            // By the clock and not by the next picture: a picture may be finished before.
            rest.setDuration(Duration.seconds(Math.max(0.001, (f.spots().knowsOpenings() ? LATER : SOON) - f.seconds())));
            rest.play();
        }
        if (!interior) bare = List.of();
        if (now.equals(shown) && bare.equals(uncovered)) return;
        shown = now;
        uncovered = bare;
        getChildren().clear();
        Ui.show(this, !now.isEmpty() || !bare.isEmpty());
        if (!bare.isEmpty()) {
            Label l = Ui.note("Sky gets in where no portal is: " + (bare.size() == 1 ? "an opening without glass."
                    : bare.size() + " openings without glass.") + " Portals there take noise away.");
            l.getStyleClass().add("needs-hand");
            getChildren().addAll(l, Ui.button("mend-openings", bare.size() == 1 ? "Put a portal on it" : "Put portals on them", null,
                    () -> work.lighting().openings().cover(), "small"));
        }
        for (LightFindings.Finding x : now) {
            Label l = Ui.note(x.text());
            l.getStyleClass().add("needs-hand");
            getChildren().add(l);
            if (x.stops() != 0)
                getChildren().add(Ui.button("mend-exposure", "Correct the exposure", "Sets the shutter time",
                        () -> work.document().editView(null, v -> v.withCamera(LightFindings.exposed(v.camera().camera(), x.stops()))),
                        "small"));
        }
    }
}
