package bake.desktop.app;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.QueueHand;
import bake.desktop.work.Workbench;
import bake.studio.live.LiveRender;
import bake.studio.queue.QueueStatus;
import bake.formats.project.Preset;
import bake.studio.render.RenderJob;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The line at the easel's foot: pass, noise, time, speed. */
final class Foot extends VBox {
    private final Workbench bench;
    private final Label what = Ui.label("", "foot-text"), figures = Ui.label("", "foot-figure"), speed = Ui.label("", "foot-figure"), finals = Ui.label("", "foot-figure");
    private final Region done = new Region();
    private final StackPane progress = new StackPane(done);

    Foot(Workbench bench) {
        this.bench = bench;
        getStyleClass().add("foot");
        what.setId("foot-what");
        progress.getStyleClass().add("foot-progress");
        progress.setAlignment(Pos.CENTER_LEFT);
        done.getStyleClass().add("foot-done");
        HBox line = new HBox(18, what, figures, Ui.spring(), finals, speed);
        line.getStyleClass().add("foot-line");
        line.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(progress, line);
        bench.easel().frameProperty().addListener((o, a, f) -> refresh());
        bench.prover().progressProperty().addListener((o, a, f) -> refresh());
        bench.prover().runningProperty().addListener((o, a, f) -> refresh());
        bench.prover().pausedProperty().addListener((o, a, f) -> refresh());
        finals.setId("foot-finals");
        bench.finals().queue().seenProperty().addListener((o, a, f) -> refresh());
        refresh();
    }

    private void refresh() {
        RenderJob.Progress g = bench.prover().progressProperty().get();
        LiveRender.Frame f = bench.easel().frameProperty().get();
        double share = 0;
        if (bench.prover().runningProperty().get()) {
            what.setText(bench.prover().pausedProperty().get() ? "Proof, resting" : "Proof");
            if (g != null && g.passes() == 0 && g.prepared() < 1) {
                figures.setText(Texts.prepass(g));
                speed.setText(speed(g.rays() / Math.max(0.01, g.seconds())));
                share = g.prepared();
            } else if (g != null) {
                Preset p = bench.prover().presetProperty().get();
                figures.setText("pass " + g.passes() + "   " + Texts.aimed(p) + " " + Texts.noise(g.noise()) + ", aim "
                        + Texts.noise(p.noiseAim()) + "   " + Texts.time(g.seconds())
                        + (Double.isNaN(g.secondsLeft()) ? "" : " of about " + Texts.time(g.seconds() + g.secondsLeft())));
                speed.setText(speed(g.rays() / Math.max(0.01, g.seconds())));
                share = g.fraction();
            } else figures.setText("preparing");
        } else if (f != null) {
            what.setText("Live");
            figures.setText(f.passes() == 0 ? "first look" : "pass " + f.passes() + "   noise " + Texts.noise(f.noise()) + "   "
                    + Texts.time(f.seconds()));
            speed.setText(speed(f.raysPerSecond()));
        } else {
            what.setText("");
            figures.setText("");
            speed.setText("");
        }
        finals.setText(finalsText());
        done.setMaxWidth(share * progress.getWidth());
        done.setVisible(share > 0);
    }

    /** How far the finals are, at every station. */
    private String finalsText() {
        QueueHand.Seen s = bench.finals().queue().seenProperty().get();
        if (s == null || s.status() == null) return "";
        long waiting = s.entries().stream().filter(e -> !e.state().over()).count();
        QueueStatus q = s.status();
        return waiting == 0 ? "" : "Finals: " + waiting + (q.state().equals("rendering") ? "" : ", " + q.state()) + (q.left() > 0 ? ", this one "
                + Texts.time(q.left()) + " left" : "") + "   ";
    }

    private String speed(double rays) {
        return bench.workers().threads() + " threads   " + String.format(Locale.ROOT, "%.2f M rays/s", rays / 1e6);
    }
}
