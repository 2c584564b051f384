package bake.desktop.station.prove;

import bake.core.path.BounceSettings;
import bake.core.solve.Caches;
import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.CacheHand;
import bake.desktop.work.Prover;
import bake.studio.cache.CacheStore;
import bake.studio.live.Showing;
import bake.studio.render.EngineSettings;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.VBox;

/** The caches of bounced light that proofs have computed: what is kept, what is shown of them, and what a place was made of. */
final class KeptCaches extends VBox {
    private final Prover prover;
    private final CacheHand caches;

    KeptCaches(Prover prover) {
        super(7);
        this.prover = prover;
        caches = prover.caches();
        fill();
    }

    /** What the last proof has cached, and what is kept. */
    private void fill() {
        CacheHand.Offer o = caches.offerProperty().get();
        List<CacheStore.Entry> kept = caches.keptProperty().get();
        if (o != null) getChildren().add(Ui.note("Last proof, " + o.view().name() + ": " + counts(o.caches()) + " in "
                + Texts.time(o.phases().caches()) + ", its passes took " + Texts.time(o.phases().passes()) + "."));
        List<CacheStore.Entry> fit = kept.stream().filter(CacheStore.Entry::fits).toList();
        if (!fit.isEmpty()) getChildren()
                .add(Ui.note("Kept for this light: " + String.join(", ", fit.stream().map(KeptCaches::entry).toList())
                + ". Proofs begin with it and add what they see."));
        List<CacheStore.Entry> other = kept.stream().filter(e -> !e.fits()).toList();
        if (!other.isEmpty()) {
            long bytes = other.stream().mapToLong(CacheStore.Entry::bytes).sum();
            String why = other.stream().filter(e -> e.problem() == null).map(e -> String.join(", ", e.changed())).findFirst()
                    .orElse("damaged");
            getChildren().add(Ui.note(String.format(Locale.ROOT, "Not used, %.1f MB: %s of other light (%s).", bytes / 1e6,
                    other.size() == 1 ? "one file" : other.size() + " files", why)));
        }
        if (o == null && kept.isEmpty())
            getChildren().add(Ui.note("After a proof its caches can be kept: the next view and the final begin with them."));
        if (o != null) getChildren().add(Ui.row(show("caches-records", "Show records",
                "Where records lie (dots) and how far each reaches. Reddish: narrow, so what is near is traced. Dark grey: no record reaches.", Showing.RECORDS, o.caches().records() != null),
                show("caches-cells", "Show cells", "The cells that a bounce of about a metre reads. Dark grey: such bounces are traced on.",
                Showing.CELLS, o.caches().cells() != null),
                show("caches-photons", "Show photons", "Where photons lie (dots), each fourth one with the places that take its estimate.",
                Showing.PHOTONS, o.caches().photons() != null || o.caches().caustics() != null)));
        if (caches.showing().get() == Showing.RECORDS && o != null) asked();
        if (!other.isEmpty()) {
            CheckBox anyway = new CheckBox("Use them anyway, for a look");
            anyway.setId("caches-anyway");
            anyway.setSelected(caches.anywayProperty().get());
            anyway.setTooltip(Ui.tip("The next proofs begin with them where nothing fits. Light is then partly that of before; the print says so."));
            anyway.setOnAction(e -> caches.anywayProperty().set(anyway.isSelected()));
            getChildren().add(anyway);
        }
        if (!kept.isEmpty()) {
            CheckBox lock = new CheckBox("Locked: neither replaced nor deleted");
            lock.setId("caches-lock");
            lock.setSelected(kept.stream().allMatch(CacheStore.Entry::locked));
            lock.setOnAction(e -> caches.lock(lock.isSelected()));
            getChildren().add(lock);
        }
        Button keep = Ui.button("caches-keep", "Keep the last proof's", "In the project's folder, for all views of this light",
                caches::keep, "small");
        Button clear = Ui.button("caches-clear", "Delete all kept", "Pictures compute their bounced light anew", caches::clear, "small");
        Ui.show(keep, o != null);
        Ui.show(clear, !kept.isEmpty());
        getChildren().add(Ui.row(keep, clear));
    }

    /** What records made the place that was clicked, and what would help there. */
    private void asked() {
        CacheHand.Asked a = caches.askedProperty().get();
        BounceSettings made = EngineSettings.bounced(caches.offerProperty().get().preset());
        Label l = Ui.note(a == null ? "Click a place of the picture: what records it is made of."
                : Texts.records(a.material(), a.sources(), made));
        l.setId("records-asked");
        getChildren().add(l);
        if (a == null) return;
        BounceSettings how = EngineSettings.bounced(prover.presetProperty().get());
        boolean few = !a.sources().narrow() && a.sources().weight() < 0.6;
        Button rays = Ui.button("help-rays", "Twice the rays", "Blotches of records get 0.7 times as strong; gathering takes twice as long",
                () -> prover.change(q -> q.withGatherRays(Math.min(16384, 2 * how.gatherRays()))), "small");
        Button near = Ui.button("help-near", "Trace what is near",
                "Bounces within 30 cm are traced everywhere: small things and contact shadows get sharp; passes take longer",
                () -> prover.change(q -> q.withNearField(0.3)), "small");
        Ui.show(rays, a.sources().records() > 0);
        Ui.show(near, few && how.nearField() == 0);
        getChildren().add(Ui.row(rays, near));
    }

    private ToggleButton show(String id, String text, String help, Showing what, boolean there) {
        ToggleButton b = Ui.taking(id, text, help, caches.showing(), what, Showing.PICTURE);
        b.getStyleClass().add("small");
        Ui.show(b, there);
        return b;
    }

    private static String counts(Caches c) {
        List<String> all = new ArrayList<>();
        if (c.records() != null) all.add(String.format(Locale.ROOT, "%,d records", c.records().records()));
        if (c.cells() != null) all.add(String.format(Locale.ROOT, "%,d cells", c.cells().cells()));
        if (c.photons() != null) all.add(String.format(Locale.ROOT, "%,d photons", c.photons().photons()));
        if (c.caustics() != null) all.add(String.format(Locale.ROOT, "%,d photons of caustics", c.caustics().photons()));
        return String.join(" and ", all);
    }

    private static String entry(CacheStore.Entry e) {
        return String.format(Locale.ROOT, "%,d %s, %.1f MB", e.rows(), switch (e.kind()) {
            case "radiance" -> "cells";
            case "irradiance" -> "records";
            case "photons" -> "photons";
            default -> "photons of caustics";
        }, e.bytes() / 1e6);
    }
}
