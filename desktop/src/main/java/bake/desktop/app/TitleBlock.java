package bake.desktop.app;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Finals;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.formats.project.Preset;
import bake.studio.estimate.Estimate;
import bake.studio.preset.Presets;
import bake.studio.proof.Proof;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueStatus;
import bake.studio.render.RenderJob;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** The title block: what this picture is, how long it takes and when it is due. */
final class TitleBlock extends GridPane {
    private final Workbench bench;
    private final Label preset = value("title-preset"), version = value("title-version"), size = value("title-size"),
            noise = value("title-noise"), passes = value("title-passes"),
            time = value("title-time"), due = value("title-due");
    private final Label timeHead = Ui.label("This proof", "block-head"), noiseHead = Ui.label("Noise", "block-head");

    TitleBlock(Workbench bench) {
        this.bench = bench;
        setId("title-block");
        getStyleClass().add("title-block");
        for (double p : new double[] {33.3, 33.3, 33.4}) {
            ColumnConstraints c = new ColumnConstraints();
            c.setPercentWidth(p);
            getColumnConstraints().add(c);
        }
        preset.getStyleClass().setAll("block-text");
        add(cell(Ui.label("Preset", "block-head"), preset), 0, 0, 2, 1);
        add(cell(Ui.label("Version", "block-head"), version), 2, 0);
        add(cell(Ui.label("Size", "block-head"), size), 0, 1);
        add(cell(noiseHead, noise), 1, 1);
        add(cell(Ui.label("Passes", "block-head"), passes), 2, 1);
        add(cell(timeHead, time), 0, 2, 2, 1);
        add(cell(Ui.label("Due", "block-head"), due), 2, 2);
        bench.viewProperty().addListener((o, a, b) -> refresh());
        bench.prover().costs().estimateProperty().addListener((o, a, b) -> refresh());
        bench.prover().presetProperty().addListener((o, a, b) -> refresh());
        bench.prover().progressProperty().addListener((o, a, b) -> refresh());
        bench.prover().runningProperty().addListener((o, a, b) -> refresh());
        bench.prints().aProperty().addListener((o, a, b) -> refresh());
        bench.easel().frameProperty().addListener((o, a, b) -> refresh());
        bench.stationProperty().addListener((o, a, b) -> refresh());
        bench.finals().rows().addListener((javafx.collections.ListChangeListener<Object>) c -> refresh());
        refresh();
    }

    private static Label value(String id) {
        Label l = Ui.label("\u2013", "block-value");
        l.setId(id);
        return l;
    }

    private static VBox cell(Label head, Label value) {
        VBox v = new VBox(2, head, value);
        v.getStyleClass().add("block-cell");
        v.setMaxSize(Double.MAX_VALUE, Double.MAX_VALUE);
        return v;
    }

    /** The view's own line of the delivery, or null. */
    private Finals.Row row() {
        return bench.finals().rows().stream().filter(r -> r.view().equals(bench.view().name())).findFirst().orElse(null);
    }

    /** The final of the view, and not its tests. */
    private void last(Finals.Row r) {
        QueueStatus s = bench.finals().status(r);
        boolean done = r.entry() != null && r.entry().state() == QueueEntry.State.DONE;
        timeHead.setText("This final");
        noiseHead.setText(head(r.picture().preset()));
        preset.setText(r.picture().preset().name());
        version.setText(Integer.toString(r.picture().preset().version()));
        size.setText(Texts.size(r.picture().width(), r.picture().height()));
        noise.setText(done ? Texts.noise(r.entry().noise()) : s != null && s.passes() > 1 ? Texts.noise(s.noise()) : "aim " + Texts.noise(r.picture()
                .preset().noiseAim()));
        passes.setText(done ? "" + r.entry().passes() : s != null ? "" + s.passes() : "\u2013");
        time.setText(done ? Texts.time(r.entry().seconds()) : s != null && s.left() >= 0 ? Texts.time(s.seconds()) + " of about " + Texts.time(s.seconds()
                + s.left()) : r.estimate() != null ? "about " + Texts.about(r.estimate().seconds()) : "not known yet");
    }

    private static String head(Preset p) {
        return p.aimsAtDenoised() ? "Error left" : "Noise";
    }

    /** The noise of a print before it was denoised, or better how wrong what is seen still is. */
    private void judged(Proof p) {
        noiseHead.setText(p.error() == null ? "Noise" : "Error left");
        noise.setText(Texts.noise(p.error() == null ? p.noise() : p.error()));
        noise.setTooltip(p.error() == null ? null : Ui.tip("What is denoised is about " + Texts.noise(p.error()) + " off, the worst of twenty blocks "
                + Texts.noise(p.worst()) + ".\nNoise before denoising: " + Texts.noise(p.noise())));
    }

    private void refresh() {
        noise.setTooltip(null);
        Preset p = bench.prover().presetProperty().get();
        if (bench.view() == null || p == null) return;
        noiseHead.setText(head(p));
        int c = bench.prover().changes();
        due.setText(Texts.due(bench.project().due()));
        Finals.Row last = bench.stationProperty().get() == Station.FINALS ? row() : null;
        if (last != null && !bench.prover().runningProperty().get()) {
            last(last);
            return;
        }
        RenderJob.Progress g = bench.prover().progressProperty().get();
        Proof hung = bench.stationProperty().get() == Station.PROVE ? bench.prints().aProperty().get() : null;
        if (bench.prover().runningProperty().get() || hung == null) {
            preset.setText(p.name() + (c == 0 ? "" : ", " + c + (c == 1 ? " change" : " changes")));
            version.setText(Integer.toString(p.version()));
            int[] s = Presets.size(p, bench.view());
            size.setText(Texts.size(s[0], s[1]));
        }
        if (bench.prover().runningProperty().get() && g != null) {
            timeHead.setText("This proof");
            noise.setText(Texts.noise(g.noise()));
            passes.setText(Integer.toString(g.passes()));
            time.setText(Texts.time(g.seconds()) + (Double.isNaN(g.secondsLeft()) ? ""
                    : " of about " + Texts.time(g.seconds() + g.secondsLeft())));
        } else if (hung != null) {
            timeHead.setText("Proof " + hung.number());
            preset.setText(hung.preset().name());
            version.setText(Integer.toString(hung.preset().version()));
            size.setText(Texts.size(hung.width(), hung.height()));
            judged(hung);
            passes.setText(Integer.toString(hung.passes()));
            time.setText(Texts.time(hung.seconds()) + (hung.stopped() ? ", stopped" : ""));
        } else {
            timeHead.setText("This proof");
            noise.setText("aim " + Texts.noise(p.noiseAim()));
            passes.setText("\u2013");
            Estimate e = bench.prover().costs().estimateProperty().get();
            time.setText(e != null ? "about " + Texts.time(e.seconds()) : p.timeLimit() > 0 ? "at most " + Texts.time(p.timeLimit()) : "until the noise aim");
        }
    }
}
