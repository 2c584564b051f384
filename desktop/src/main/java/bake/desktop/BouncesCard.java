package bake.desktop;

import bake.core.path.BounceSettings;
import bake.core.solve.Caches;
import bake.formats.project.Preset;
import bake.studio.CacheStore;
import bake.studio.Showing;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.VBox;

/** How bounced light is computed, in plain words, and the caches that proofs have computed. */
final class BouncesCard extends VBox {
    private final Prover prover;
    private final CacheHand caches;

    BouncesCard(Prover prover) {
        super(7);
        this.prover = prover;
        caches = prover.caches();
        setId("bounced-light");
        getStyleClass().add("card");
        prover.presetProperty().addListener((o, a, b) -> refresh());
        prover.runningProperty().addListener((o, a, b) -> refresh());
        caches.keptProperty().addListener((o, a, b) -> refresh());
        caches.offerProperty().addListener((o, a, b) -> refresh());
        caches.shownProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        Preset p = prover.presetProperty().get();
        getChildren().clear();
        if (p == null) return;
        BounceSettings.First first = BounceSettings.First.of(p.firstBounce());
        BounceSettings.Later later = BounceSettings.Later.of(p.laterBounces());
        boolean any = first == BounceSettings.First.IRRADIANCE_CACHE || later == BounceSettings.Later.RADIANCE_CACHE;
        getChildren().add(Ui.row(Ui.label("Bounced light", "card-title"), Ui.spring(), Ui.label(any ? "cached" : later == BounceSettings.Later.NONE ? "one bounce" : "exact", "figure")));
        VBox firsts = new VBox(1), laters = new VBox(1);
        for (BounceSettings.First f : BounceSettings.First.values()) firsts.getChildren().add(line("first-" + id(f.word()), Texts.first(f), f == first, q -> q.withBounces(word(f), q.laterBounces(), q.cachedSurroundings())));
        for (BounceSettings.Later l : BounceSettings.Later.values()) laters.getChildren().add(line("later-" + id(l.word()), Texts.later(l), l == later, q -> q.withBounces(q.firstBounce(), word(l), q.cachedSurroundings())));
        getChildren().addAll(Ui.label("First bounce", "note"), firsts, Ui.label("Later bounces", "note"), laters);
        if (first == BounceSettings.First.IRRADIANCE_CACHE) getChildren().add(surroundings(p));
        if (any) state();
        setDisable(prover.runningProperty().get());
    }

    private CheckBox surroundings(Preset p) {
        CheckBox b = new CheckBox("Sky and panorama in the cache too");
        b.setId("cached-surroundings");
        b.setSelected(Boolean.TRUE.equals(p.cachedSurroundings()));
        b.setTooltip(Ui.tip("Light straight from the surroundings is gathered with the bounces instead of being looked for in every pixel: much less noise indoors, softer shadows of the sky. The sun is never cached."));
        b.setOnAction(e -> change(q -> q.withBounces(q.firstBounce(), q.laterBounces(), b.isSelected() ? true : null)));
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
        Button b = Ui.button(id, text, null, () -> change(set), "list-line");
        b.setMaxWidth(Double.MAX_VALUE);
        if (here) b.getStyleClass().add("list-here");
        return b;
    }

    private void change(UnaryOperator<Preset> c) {
        prover.presetProperty().set(c.apply(prover.presetProperty().get()));
    }

    /** What the last proof has cached, and what is kept. */
    private void state() {
        CacheHand.Offer o = caches.offerProperty().get();
        List<CacheStore.Entry> kept = caches.keptProperty().get();
        if (o != null) getChildren().add(Ui.note("Last proof, " + o.view().name() + ": " + counts(o.caches()) + " in " + Texts.time(o.phases().caches()) + ", its passes took " + Texts.time(o.phases().passes()) + "."));
        List<CacheStore.Entry> fit = kept.stream().filter(CacheStore.Entry::fits).toList();
        if (!fit.isEmpty()) getChildren().add(Ui.note("Kept for this light: " + String.join(", ", fit.stream().map(BouncesCard::entry).toList()) + ". Proofs begin with it and add what they see."));
        List<CacheStore.Entry> other = kept.stream().filter(e -> !e.fits()).toList();
        if (!other.isEmpty()) {
            long bytes = other.stream().mapToLong(CacheStore.Entry::bytes).sum();
            String why = other.stream().filter(e -> e.problem() == null).map(e -> String.join(", ", e.changed())).findFirst().orElse("damaged");
            getChildren().add(Ui.note(String.format(Locale.ROOT, "Not used, %.1f MB: %s of other light (%s).", bytes / 1e6, other.size() == 1 ? "one file" : other.size() + " files", why)));
        }
        if (o == null && kept.isEmpty()) getChildren().add(Ui.note("After a proof its caches can be kept: the next view and the final begin with them."));
        if (o != null) getChildren().add(Ui.row(show("caches-records", "Show records", "Where records lie (dots) and how far each reaches. Reddish: too narrow for records, traced. Dark grey: no record reaches.", Showing.RECORDS, o.caches().records() != null),
                show("caches-cells", "Show cells", "The cells that a bounce of about a metre reads. Dark grey: such bounces are traced on.", Showing.CELLS, o.caches().cells() != null)));
        Button keep = Ui.button("caches-keep", "Keep the last proof's", "In the project's folder, for all views of this light", caches::keep, "small");
        Button clear = Ui.button("caches-clear", "Delete all kept", "Pictures compute their bounced light anew", caches::clear, "small");
        Ui.show(keep, o != null);
        Ui.show(clear, !kept.isEmpty());
        getChildren().add(Ui.row(keep, clear));
    }

    private ToggleButton show(String id, String text, String help, Showing what, boolean there) {
        ToggleButton b = new ToggleButton(text);
        b.setId(id);
        b.getStyleClass().add("small");
        b.setTooltip(Ui.tip(help));
        b.setSelected(caches.shownProperty().get() == what);
        b.setOnAction(e -> caches.shownProperty().set(b.isSelected() ? what : null));
        Ui.show(b, there);
        return b;
    }

    private static String counts(Caches c) {
        String records = c.records() == null ? "" : String.format(Locale.ROOT, "%,d records", c.records().records()), cells = c.cells() == null ? "" : String.format(Locale.ROOT, "%,d cells", c.cells().cells());
        return records + (records.isEmpty() || cells.isEmpty() ? "" : " and ") + cells;
    }

    private static String entry(CacheStore.Entry e) {
        return String.format(Locale.ROOT, "%,d %s, %.1f MB", e.rows(), e.kind().equals("radiance") ? "cells" : "records", e.bytes() / 1e6);
    }
}
