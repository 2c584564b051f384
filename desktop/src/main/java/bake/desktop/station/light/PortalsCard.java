package bake.desktop.station.light;

import bake.core.opening.OpeningFinder;
import bake.core.scene.Portal;
import bake.desktop.parts.Ui;
import bake.desktop.work.Lighting;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Portals: found by themselves or put on by a click, listed with what is wrong with them. */
final class PortalsCard extends VBox {
    private static final int SHOWN = 12;
    private final LightWork work;
    private final Lighting lighting;

    PortalsCard(LightWork work) {
        this.work = work;
        lighting = work.lighting();
        getStyleClass().add("card");
        setSpacing(7);
        setId("portals");
        work.document().projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.portals() != b.portals()) refresh();
        });
        lighting.openings().findingProperty().addListener((o, a, b) -> refresh());
        lighting.openings().chosenProperty().addListener((o, a, b) -> refresh());
        lighting.openings().faultsProperty().addListener((o, a, b) -> refresh());
        lighting.toolProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        List<Portal> all = lighting.openings().all();
        boolean busy = lighting.openings().findingProperty().get();
        Button find = busy ? Ui.button("find-openings", "Stop", null, () -> lighting.openings().stop(), "small")
                : Ui.button("find-openings", "Find openings",
                "Looks for windows, roof lights and holes in the walls of the rooms that have a view, and puts portals on them",
                () -> lighting.openings().find(), "small");
        ToggleButton draw = new ToggleButton("Click a window\u2026");
        draw.setId("draw-portal");
        draw.getStyleClass().add("small");
        draw.setTooltip(Ui.tip("The next click on the picture puts a portal on the opening there"));
        draw.setSelected(lighting.toolProperty().get() == Lighting.Tool.PORTAL);
        draw.setDisable(busy);
        draw.setOnAction(e -> lighting.toolProperty().set(draw.isSelected() ? Lighting.Tool.PORTAL : Lighting.Tool.LOOK));
        ToggleButton own = new ToggleButton("Draw\u2026");
        own.setId("own-portal");
        own.getStyleClass().add("small");
        own.setTooltip(Ui.tip("Drag a rectangle on a wall or glass, or click corner by corner and at last the first one again. Corners snap to openings."));
        own.setSelected(lighting.toolProperty().get() == Lighting.Tool.DRAW);
        own.setOnAction(e -> lighting.toolProperty().set(own.isSelected() ? Lighting.Tool.DRAW : Lighting.Tool.LOOK));
        HBox tools = Ui.row(find, draw, own);
        getChildren().setAll(Ui.row(Ui.label("Openings", "card-title"), Ui.spring(),
                Ui.label(all.isEmpty() ? "" : all.size() + (all.size() == 1 ? " portal" : " portals"), "figure")), tools);
        if (lighting.toolProperty().get() == Lighting.Tool.DRAW) {
            javafx.scene.control.Label l = Ui.note("Drag a rectangle, or click corners and end on the first. Escape cancels.");
            l.getStyleClass().add("needs-hand");
            getChildren().add(l);
        }
        if (busy) getChildren().add(Ui.note("Looking for openings\u2026"));
        else if (all.isEmpty()) getChildren()
                .add(Ui.note("Glass is found and looked through by itself. Portals are for openings without glass. They never change the light, only its noise."));
        Map<String, OpeningFinder.Fault> faults = lighting.openings().faultsProperty().get();
        for (Portal p : all.subList(0, Math.min(SHOWN, all.size()))) line(p, faults.get(p.name()));
        if (all.size() > SHOWN) getChildren().add(Ui.note("and " + (all.size() - SHOWN) + " more; click one in the picture to work on it"));
    }

    private void line(Portal p, OpeningFinder.Fault fault) {
        boolean chosen = p.name().equals(lighting.openings().chosenProperty().get());
        Button b = Ui.button("portal-" + LightStrip.id(p.name()), p.name(), null,
                () -> lighting.openings().chosenProperty().set(chosen ? null : p.name()), "list-line");
        if (chosen) b.getStyleClass().add("list-here");
        getChildren().add(Ui.row(b, Ui.spring(), Ui.label(String.format(Locale.ROOT, "%.2f m\u00b2", p.size()), "figure")));
        if (fault != null) {
            javafx.scene.control.Label l = Ui.note(words(fault));
            l.getStyleClass().add("needs-hand");
            getChildren().add(Ui.row(l, Ui.spring(), mend(p, fault)));
        } else if (chosen)
            getChildren().add(Ui.row(Ui.button("portal-flip", "Flip", "Turns it to face the other side",
                    () -> lighting.openings().flip(p.name()), "small"),
                    Ui.button("portal-delete", "Delete", null, () -> lighting.openings().change(p.name(), x -> null), "small")));
    }

    private static String words(OpeningFinder.Fault f) {
        return switch (f) {
            case FACES_OUT -> "faces out; it does nothing";
            case HIDDEN -> "is buried in a wall";
            default -> "has no room before it or no open air behind";
        };
    }

    private Button mend(Portal p, OpeningFinder.Fault f) {
        return f == OpeningFinder.Fault.FACES_OUT ? Ui.button("portal-mend", "Flip", "Turns it to face the room",
                () -> lighting.openings().flip(p.name()), "small")
                : Ui.button("portal-mend", "Delete", null, () -> lighting.openings().change(p.name(), x -> null), "small");
    }
}
