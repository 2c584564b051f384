package bake.desktop.station.prove;

import bake.core.path.BounceSettings;
import bake.core.solve.RoomSize;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.desktop.text.Texts;
import bake.desktop.work.CacheHand;
import bake.desktop.work.CostHand;
import bake.desktop.work.Prover;
import bake.formats.project.Preset;
import bake.studio.render.EngineSettings;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;

/** How bounced light is computed, in plain words, and the caches that proofs have computed. */
final class BouncesCard extends VBox {
    private final Prover prover;
    private final CostHand costs;
    /** Whether what is rarely needed is shown. */
    private boolean opened;

    BouncesCard(Prover prover) {
        super(7);
        this.prover = prover;
        costs = prover.costs();
        setId("bounced-light");
        getStyleClass().add("card");
        prover.presetProperty().addListener((o, a, b) -> refresh());
        prover.runningProperty().addListener((o, a, b) -> refresh());
        CacheHand caches = prover.caches();
        caches.keptProperty().addListener((o, a, b) -> refresh());
        caches.offerProperty().addListener((o, a, b) -> refresh());
        caches.showing().addListener((o, a, b) -> refresh());
        caches.askedProperty().addListener((o, a, b) -> refresh());
        caches.anywayProperty().addListener((o, a, b) -> refresh());
        costs.waysProperty().addListener((o, a, b) -> refresh());
        costs.measuringProperty().addListener((o, a, b) -> refresh());
        costs.roomProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        Preset p = prover.presetProperty().get();
        getChildren().clear();
        if (p == null) return;
        BounceSettings how = EngineSettings.bounced(p);
        BounceSettings.First first = how.first();
        BounceSettings.Later later = how.later();
        boolean any = how.cached() || how.caustics() == BounceSettings.Caustics.PHOTON_MAP;
        getChildren().add(Ui.row(Ui.label("Bounced light", "card-title"), Ui.spring(),
                Ui.label(any ? "cached" : later == BounceSettings.Later.NONE ? "one bounce" : "exact", "figure")));
        cost();
        VBox firsts = new VBox(1), laters = new VBox(1);
        for (BounceSettings.First f : BounceSettings.First.values()) if (f != BounceSettings.First.PHOTON_MAP || how.mapped())
            firsts.getChildren().add(line("first-" + id(f.word()), Texts.first(f), f == first,
                    q -> q.withExact(null).withBounces(word(f), q.laterBounces(), q.cachedSurroundings())));
        for (BounceSettings.Later l : BounceSettings.Later.values())
            laters.getChildren().add(line("later-" + id(l.word()), Texts.later(l), l == later,
                    q -> q.withExact(null).withBounces(first(q, l), word(l), q.cachedSurroundings())));
        getChildren().addAll(Ui.label("First bounce", "note"), firsts, Ui.label("Later bounces", "note"), laters);
        if (first == BounceSettings.First.IRRADIANCE_CACHE) getChildren().add(surroundings(p));
        details(p, how);
        if (any) getChildren().add(new KeptCaches(prover));
        setDisable(prover.runningProperty().get());
    }

    /** What the two ways cost here, as measured, or the offer to measure it. */
    private void cost() {
        CostHand.Ways c = costs.waysProperty().get();
        boolean busy = costs.measuringProperty().get();
        if (busy) getChildren().add(Ui.row(Ui.note("Making small pictures both ways..."), Ui.spring(),
                Ui.button("cost-stop", "Stop", null, costs::stop, "small")));
        else if (c != null) {
            Label l = Ui.note(String.format(Locale.ROOT, "To %s at %d x %d: exact about %s, cached about %s.", Texts.noise(c.noise()),
                    c.width(), c.height(), Texts.about(c.exact()), Texts.about(c.cached())));
            l.setId("cost");
            getChildren().add(l);
        } else getChildren().add(Ui.button("cost-measure", "Measure what each costs here",
                "Makes small pictures both ways, for about 15 s, and says how long this picture would take to its noise aim",
                costs::measure, "small"));
    }

    private void details(Preset p, BounceSettings how) {
        List<Node> all = new ArrayList<>();
        if (how.first() == BounceSettings.First.IRRADIANCE_CACHE) {
            all.add(Ui.line("Rays of a record", number("gather-rays", p.gatherRays() == null ? "" : "" + p.gatherRays(),
                    how.gatherRays() + ", for the noise aim", 32, 16384, x -> q -> q.withGatherRays(x == null ? null : x.intValue()))));
            all.add(Ui.line("Gather radius, m", number("gather-radius", p.gatherRadius() == null ? "" : "" + p.gatherRadius(),
                    suggested(costs.roomProperty().get()), 0.01, 100, x -> q -> q.withGatherRadius(x))));
            all.add(Ui.line("Trace nearer than, m", number("near-field", p.nearField() == null ? "" : "" + p.nearField(),
                    "in narrow places only", 0, 100, x -> q -> q.withNearField(x))));
        }
        if (how.mapped() || how.caustics() == BounceSettings.Caustics.PHOTON_MAP)
            all.add(Ui.line("Photons", number("photons", p.photons() == null ? "" : "" + p.photons(),
                    String.format(Locale.ROOT, "%,d, a tenth of a map seen directly", how.photons()), 1000, 50_000_000,
                    x -> q -> q.withPhotons(x == null ? null : x.intValue()))));
        ComboBox<BounceSettings.Caustics> box = new ComboBox<>();
        box.setId("caustics");
        box.getItems().setAll(BounceSettings.Caustics.values());
        box.setConverter(new StringConverter<>() {
            @Override
            public String toString(BounceSettings.Caustics c) {
                return c == null ? "" : Texts.caustics(c);
            }

            @Override
            public BounceSettings.Caustics fromString(String s) {
                return null;
            }
        });
        box.setValue(how.caustics());
        box.setOnAction(e -> prover.change(q -> q.withExact(null).withCaustics(box.getValue() == BounceSettings.Caustics.PATH_TRACING ? null
                : box.getValue().word())));
        box.setTooltip(Ui.tip("Light that mirrors, glasses and polished metal throw on matt surfaces"));
        all.add(Ui.line("Caustics", box));
        all.add(Ui.line("Darken corners", number("dark-corners", p.darkCorners() == null ? "" : "" + p.darkCorners(),
                "not at all, up to 1", 0, 1, x -> q -> q.withDarkCorners(x, q.darkWithin()))));
        if (p.darkCorners() != null && p.darkCorners() > 0)
            all.add(Ui.line("Within, m", number("dark-within", p.darkWithin() == null ? "" : "" + p.darkWithin(),
                    "" + EngineSettings.occlusion(p).metres(), 0.001, 100,
                    x -> q -> q.withDarkCorners(q.darkCorners(), x))));
        VBox more = Ui.more("bounces-more", all.toArray(Node[]::new));
        ToggleButton t = (ToggleButton) more.getChildren().getFirst();
        t.setSelected(opened);
        t.selectedProperty().addListener((o, a, b) -> opened = b);
        getChildren().add(more);
    }

    private static String suggested(RoomSize room) {
        if (room == null) return "a tenth of the room's diagonal";
        return room.diagonal() < Double.POSITIVE_INFINITY
                ? String.format(Locale.ROOT, "%.1f, a tenth of the room's diagonal", room.gatherRadius())
                : String.format(Locale.ROOT, "%.0f, outdoors", room.gatherRadius());
    }

    /** A number that may be left empty for what is suggested, which then is seen in its place. */
    private Field number(String id, String value, String suggested, double least, double most,
            Function<Double, UnaryOperator<Preset>> set) {
        Field f = new Field(id, 150, t -> prover.change(set.apply(t.isEmpty() ? null : Quantity.NUMBER.parse(t, least, most))));
        f.show(value);
        f.setPromptText(suggested);
        return f;
    }

    /** A photon map that is seen as it is goes when photons go. */
    private static String first(Preset p, BounceSettings.Later l) {
        return l != BounceSettings.Later.PHOTON_MAP && BounceSettings.First.PHOTON_MAP.word().equals(p.firstBounce()) ? null
                : p.firstBounce();
    }

    private CheckBox surroundings(Preset p) {
        CheckBox b = new CheckBox("Sky and panorama in the cache too");
        b.setId("cached-surroundings");
        b.setSelected(Boolean.TRUE.equals(p.cachedSurroundings()));
        b.setTooltip(Ui.tip("Light straight from the surroundings is gathered with the bounces instead of being looked for in every pixel: much less noise indoors, softer shadows of the sky. The sun is never cached."));
        b.setOnAction(e -> prover.change(q -> q.withBounces(q.firstBounce(), q.laterBounces(), b.isSelected() ? true : null)));
        return b;
    }

    private static String id(String word) {
        return word.replace(' ', '-');
    }

    private static String word(BounceSettings.First f) {
        return f == BounceSettings.First.PATH_TRACING ? null : f.word();
    }

    private static String word(BounceSettings.Later l) {
        return l == BounceSettings.Later.PATH_TRACING ? null : l.word();
    }

    private Button line(String id, String text, boolean here, UnaryOperator<Preset> set) {
        Button b = Ui.button(id, text, null, () -> prover.change(set), "list-line");
        b.setMaxWidth(Double.MAX_VALUE);
        if (here) b.getStyleClass().add("list-here");
        return b;
    }

}
