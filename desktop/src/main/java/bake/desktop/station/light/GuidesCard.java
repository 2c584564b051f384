package bake.desktop.station.light;

import bake.desktop.parts.Ui;
import bake.desktop.work.GuideHand;
import bake.studio.cache.GuideStore;
import bake.studio.live.Showing;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.VBox;

/** What proofs have learnt of where light comes from: kept, shown, out of date. */
final class GuidesCard extends VBox {
    private final LightWork work;
    private final GuideHand guides;

    GuidesCard(LightWork work) {
        super(7);
        this.work = work;
        guides = work.guides();
        setId("guides");
        getStyleClass().add("card");
        guides.keptProperty().addListener((o, a, b) -> refresh());
        guides.offerProperty().addListener((o, a, b) -> refresh());
        guides.showing().addListener((o, a, b) -> refresh());
        work.document().viewProperty().addListener((o, a, b) -> {
            if (a == null || b == null || !a.name().equals(b.name())) refresh();
        });
        refresh();
    }

    private void refresh() {
        GuideStore.Kept k = guides.keptProperty().get();
        boolean offered = guides.canKeep(), any = k != null || offered;
        getChildren().setAll(Ui.row(Ui.label("Guides", "card-title"), Ui.spring(),
                Ui.label(k == null ? "" : k.fits() ? "kept" : "out of date", "figure")));
        if (k == null) getChildren().add(Ui.note(offered ? "The last proof has learnt where light comes from, "
                + places(guides.offerProperty().get().guides())
                + ". Kept, the next pictures of this view begin with it: less noise in their first passes, the same light."
                : "Every picture learns where sky and lamps are seen from. After a proof that can be kept, and later pictures begin with it."));
        else if (k.fits()) getChildren()
                .add(Ui.note("Kept " + k.when().replace('T', ' ') + ", learnt in " + k.passes() + " passes, " + places(k.guides())
                + ". Pictures of this view begin with it."));
        else {
            Label l = Ui.note("Not used: since it was learnt " + list(k.changed())
                    + (k.changed().size() == 1 && !k.changed().getFirst().endsWith("s") ? " has" : " have") + " changed."
                    + (offered ? "" : " Make a proof, then keep what it learns."));
            l.getStyleClass().add("needs-hand");
            getChildren().add(l);
        }
        var keep = Ui.button("guides-keep", k == null ? "Keep it" : "Keep the last proof's", "In the project's folder, for this view",
                guides::keep, "small");
        var forget = Ui.button("guides-forget", "Forget", "Pictures of this view learn anew", guides::forget, "small");
        ToggleButton sky = show("guides-sky", "Show sky guide",
                "Surfaces that look for the sky at the same opening first have one colour, the stronger the more they do. Grey: nothing was learnt.", Showing.SKY_GUIDE);
        ToggleButton lamps = show("guides-lamps", "Lamp guide", "The same for parts of the lamps", Showing.LAMP_GUIDE);
        Ui.show(keep, offered);
        Ui.show(forget, k != null);
        Ui.show(lamps, any && guides.toShow() != null && guides.toShow().lamps() != null);
        if (any) getChildren().addAll(Ui.row(sky, lamps), Ui.row(keep, forget));
    }

    private ToggleButton show(String id, String text, String help, Showing what) {
        ToggleButton b = Ui.taking(id, text, help, guides.showing(), what, Showing.PICTURE);
        b.getStyleClass().add("small");
        return b;
    }

    private static String places(bake.core.guide.Guides g) {
        return String.format(java.util.Locale.ROOT, "%,d places", g.places());
    }

    private static String list(java.util.List<String> words) {
        return words.size() == 1 ? words.getFirst() : String.join(", ", words.subList(0, words.size() - 1)) + " and " + words.getLast();
    }
}
