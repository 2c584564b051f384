package bake.desktop.station.prove;

import bake.core.film.PixelFilter;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Prover;
import bake.formats.project.Preset;
import bake.formats.project.View;
import bake.studio.estimate.Estimate;
import bake.studio.preset.Presets;
import bake.studio.render.RenderJob;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.VBox;

/** Prove: Test or Final, the preset and its limits, and the proof in the making. */
public final class ProveSheet extends VBox {
    private final ProveWork work;
    private final VBox running;
    private final Dial quality, width, noise, time, bounces, clamp;
    private final Dial fine, radius, diffuse, mirrored, refracted;
    private final VBox filters = new VBox(1);
    private final CheckBox denoise = new CheckBox("Denoise the picture"), delivered = new CheckBox("Aim at the denoised picture"), adaptive = new CheckBox("More paths where noise is");
    private final Label foreseen = Ui.note(""), size = Ui.note(""), state = Ui.label("", "figure");
    private final ProgressBar bar = new ProgressBar(0);
    private final Button pause;
    private final VBox kinds;
    /** The far end of the dials of bounces stands for no limit. */
    private static final int MOST_KIND = 64;
    private boolean setting;

    public ProveSheet(ProveWork work) {
        this.work = work;
        Prover p = work.prover();
        width = new Dial("proof-width", "Width", "%.0f px", 160, 4000, 640, true, "Time goes with the square of the width.",
                x -> change(q -> q.withWidth((int) Math.round(x))));
        noise = new Dial("noise-aim", "Noise aim", "%.1f %%", 0.2, 30, 6, true, "Half the noise takes four times the time, half of what is left after denoising about ten times.",
                x -> change(q -> q.withLimits(x, q.timeLimit(), q.samples())));
        time = new Dial("time-limit", "Time limit", "%.0f s", 0, 3600, 45, false, "The proof ends here whatever its noise; 0 is no limit.",
                x -> change(q -> q.withLimits(q.noiseAim(), Math.rint(x), q.samples())));
        bounces = new Dial("bounces", "Bounces", "%.0f", 0, 64, 10, false,
                "How often light goes on from surface to surface; few make rooms darker.",
                x -> change(q -> q.withBounces((int) Math.round(x))));
        clamp = new Dial("clamp", "Clamp", "%.0f", 0, 200, 20, false,
                "Limits stray bright pixels, in multiples of the camera's white; 0 is no limit and no lost light.",
                x -> change(q -> q.withClamp(Math.rint(x))));
        quality = new Dial("quality", "Overall quality", "%.2f", 1 / 16.0, 16, 1, true,
                "All settings of quality together, in samples: 2 is twice the samples, about twice the time and 0.7 of the noise.",
                x -> {
                    if (!setting) p.presets().quality(Math.log(x) / Math.log(2));
                });
        foreseen.setId("foreseen");
        radius = new Dial("filter-radius", "Radius", "%.2f px", 0.5, 4, 1, false,
                "How far around a pixel light counts for it: small is crisp and jagged, large is soft.",
                x -> change(q -> q.withFilter(q.filter(), Math.rint(x * 20) / 20)));
        fine = new Dial("fine-edges", "Paths at edges", "%.0f", 1, 16, 1, true,
                "Each pass gives so many to pixels in which something ends: blinds, shelves and leaves get smooth before the light does.",
                x -> change(q -> q.withEdges((int) Math.round(x) == 1 ? null : (Integer) (int) Math.round(x))));
        diffuse = kind("diffuse-bounces", "Matt", "Bounces off matt surfaces: a few light a room, white rooms take more.",
                (q, n) -> q.withKinds(n, q.mirrored(), q.refracted()));
        mirrored = kind("mirrored-bounces", "Gloss", "Bounces in gloss and mirrors: two mirrors that face each other go on this far.",
                (q, n) -> q.withKinds(q.diffuse(), n, q.refracted()));
        refracted = kind("refracted-bounces", "Clear",
                "Passages through clear solids; glass behind glass turns black when they run out. Panes do not count.",
                (q, n) -> q.withKinds(q.diffuse(), q.mirrored(), n));
        VBox edges = Ui.card("Edges", null, fine, filters, radius);
        kinds = Ui.card("Bounces of each kind", null, diffuse, mirrored, refracted,
                Ui.note("The total above holds as well; 64 stands for no limit of its own."));
        VBox card = Ui.card("Quality", null, quality, foreseen, width, noise, time, bounces, clamp, adaptive, denoise, delivered, size);
        adaptive.setId("adaptive");
        adaptive.setTooltip(Ui.tip("Pixels get paths by the noise that is left in them, as it is seen: the same noise in about two thirds of the time. A region then has other noise than the whole has there."));
        adaptive.selectedProperty().addListener((o, a, b) -> change(q -> q.withAdaptive(b ? 1.0 : null)));
        denoise.setId("denoise");
        denoise.setTooltip(Ui.tip("Smooths what noise is left; fine shadows and reflections may soften. EXR and HDR are never denoised."));
        delivered.setId("aim-denoised");
        delivered.setTooltip(Ui.tip("The picture is done when what is left after denoising, judged by the halves of its samples, is at the aim. Off: the noise before denoising, which is what EXR and HDR hold."));
        delivered.selectedProperty().addListener((o, a, b) -> change(q -> aimed(q, b)));
        denoise.selectedProperty().addListener((o, a, b) -> change(q -> (b ? q : aimed(q, false)).withDenoise(b)));
        pause = Ui.button("pause", "Pause", "Rest the proof; it goes on where it stood", () -> p.pause(!p.pausedProperty().get()), "small");
        Button stop = Ui.button("stop", "Stop and keep", "End the proof and hang what was made", p::stop, "small");
        bar.setMaxWidth(Double.MAX_VALUE);
        running = Ui.card("In the making", state, bar, Ui.row(pause, stop));
        running.setId("in-the-making");
        VBox rare = new VBox(edges, new EffortCard(work), kinds, new ChannelsCard(work), new TidyCard(work),
                new StampCard(work.prints().stamp()));
        rare.setVisible(false);
        rare.setManaged(false);
        Button more = Ui.button("prove-more", "More", "Edges, more for single things, limits for each kind of bounce, channels, proofs on disk, and stamps", null, "small");
        more.setOnAction(e -> {
            rare.setVisible(!rare.isVisible());
            rare.setManaged(rare.isVisible());
            more.setText(rare.isVisible() ? "Less" : "More");
        });
        card.getChildren().add(more);
        getChildren().addAll(new TakeBackCard(work.takingBack()), running, new PresetCard(p), card, new NoiseCard(work), new OnlyCard(
                work),
                new BouncesCard(p), rare);
        p.costs().estimateProperty().addListener((o, a, b) -> foresee(b));
        foresee(p.costs().estimateProperty().get());
        p.presetProperty().addListener((o, a, b) -> refresh());
        p.runningProperty().addListener((o, a, b) -> refresh());
        p.pausedProperty().addListener((o, a, b) -> refresh());
        p.progressProperty().addListener((o, a, g) -> progress(g));
        work.document().viewProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private Dial kind(String id, String name, String help, java.util.function.BiFunction<Preset, Integer, Preset> set) {
        return new Dial(id, name, "%.0f", 0, MOST_KIND, MOST_KIND, false, help,
                x -> change(q -> set.apply(q, x >= MOST_KIND ? null : (Integer) (int) Math.round(x))));
    }

    private static int shown(Integer limit) {
        return limit == null ? MOST_KIND : Math.min(MOST_KIND, limit);
    }

    private void filters(PixelFilter.Shape now) {
        filters.getChildren().clear();
        for (PixelFilter.Shape f : PixelFilter.Shape.values()) {
            Button b = Ui.button("filter-" + f.word(), Texts.filter(f), null, () -> change(q -> q.withFilter(f.word(), null)), "list-line");
            b.setMaxWidth(Double.MAX_VALUE);
            if (f == now) b.getStyleClass().add("list-here");
            filters.getChildren().add(b);
        }
    }

    private void change(java.util.function.UnaryOperator<Preset> c) {
        if (!setting) work.prover().change(c);
    }

    private void progress(RenderJob.Progress g) {
        if (g == null) return;
        if (g.passes() == 0 && g.prepared() < 1) {
            bar.setProgress(g.prepared());
            state.setText(Texts.prepass(g));
            return;
        }
        bar.setProgress(g.fraction());
        state.setText("pass " + g.passes() + "  " + Texts.time(g.seconds())
                + (Double.isNaN(g.secondsLeft()) || g.secondsLeft() <= 0 ? "" : ", " + Texts.time(g.secondsLeft()) + " left"));
    }

    /** What the proof will take, and why that can be said. */
    private void foresee(Estimate e) {
        Preset p = work.prover().presetProperty().get();
        foreseen.setText(e == null || p == null ? "How long it takes is known after the first proof of this view, or when its ways are measured below."
                : "About " + Texts.time(e.seconds()) + ", " + Texts.time(e.low()) + " to " + Texts.time(e.high()) + "; " + Texts.aimed(p) + " about "
                        + Texts.noise(e.noise()) + ". From " + e.basis() + ".");
    }

    private void refresh() {
        View v = work.document().view();
        Preset p = work.prover().presetProperty().get();
        boolean busy = work.prover().runningProperty().get();
        running.setVisible(busy);
        running.setManaged(busy);
        pause.setText(work.prover().pausedProperty().get() ? "Go on" : "Pause");
        setDisable(v == null);
        if (v == null || p == null) return;
        setting = true;
        int[] s = Presets.size(p, v);
        quality.show(Math.pow(2, work.prover().presets().quality()));
        width.show(s[0]);
        noise.show(p.noiseAim());
        time.show(p.timeLimit());
        bounces.show(p.bounces());
        clamp.show(p.clamp());
        PixelFilter.Shape shape = p.filter() == null ? PixelFilter.Shape.TRIANGLE : PixelFilter.Shape.of(p.filter());
        filters(shape);
        filters.setDisable(busy);
        radius.show(p.filterRadius() == null ? shape.radius : p.filterRadius());
        fine.show(p.edges() == null ? 1 : p.edges());
        diffuse.show(shown(p.diffuse()));
        mirrored.show(shown(p.mirrored()));
        refracted.show(shown(p.refracted()));
        adaptive.setSelected(p.adaptive() != null && p.adaptive() > 0);
        adaptive.setDisable(busy);
        denoise.setSelected(p.denoise());
        denoise.setDisable(busy);
        delivered.setSelected(p.aimsAtDenoised());
        delivered.setDisable(busy || !p.denoise());
        size.setText(Texts.size(s[0], s[1]) + " pixels" + (work.prover().regionProperty().get() == null ? "" : ", only the region") + ". "
                + limits(p));
        // Where light does not go on there is nothing to tell apart.
        Ui.show(kinds, p.bounces() > 1);
        setting = false;
        for (Dial d : new Dial[] {quality, width, noise, time, bounces, clamp, fine, radius, diffuse, mirrored, refracted}) d.setDisable(
                busy);
    }

    /** The same quality by the other figure, about. */
    private static Preset aimed(Preset p, boolean denoised) {
        if (denoised == p.aimsAtDenoised()) return p;
        double aim = denoised ? p.noiseAim() / Preset.RAW : p.rawAim();
        return p.withLimits(aim, p.timeLimit(), p.samples()).withAimDenoised(denoised ? true : null);
    }

    private static String limits(Preset p) {
        if (p.noiseAim() > 0 && p.timeLimit() > 0) return "Ends at the noise aim, or when the time is up.";
        return p.timeLimit() > 0 ? "Ends when the time is up." : "Ends at the noise aim; Stop keeps what was made.";
    }
}
