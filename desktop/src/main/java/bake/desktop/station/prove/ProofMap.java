package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.formats.project.Preset;
import bake.studio.estimate.Estimate;
import bake.studio.proof.Proof;
import bake.studio.render.NoiseFall;
import java.util.List;
import javafx.collections.ListChangeListener;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;

/**
 * The proofs of the view as points: time across, noise up, both logarithmic, with a line of what this machine would do with more time. A
 * click on the map takes the noise that the line has there as the aim of the next proof.
 */
final class ProofMap extends Pane {
    private static final double W = 250, H = 112, LEFT = 34, BOTTOM = 18, TOP = 6, RIGHT = 8;
    private static final int STEPS = 40;
    private final ProveWork work;
    private final Label hint = Ui.label("", "map-text");
    /** Ends of the axes: seconds and percent. */
    private double t0, t1, n0, n1;

    ProofMap(ProveWork work) {
        this.work = work;
        setId("proof-map");
        getStyleClass().add("proof-map");
        setMinSize(W, H);
        setPrefSize(W, H);
        setMaxSize(W, H);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Proofs by time and noise");
        work.prints().all().addListener((ListChangeListener<Proof>) c -> fill());
        work.prints().aProperty().addListener((o, a, b) -> fill());
        work.prints().bProperty().addListener((o, a, b) -> fill());
        work.document().viewProperty().addListener((o, a, b) -> fill());
        work.prover().costs().estimateProperty().addListener((o, a, b) -> fill());
        setOnMouseClicked(e -> aim(e.getX()));
        setOnMouseMoved(e -> say(e.getX()));
        setOnMouseExited(e -> hint.setText(""));
        fill();
    }

    private List<Proof> proofs() {
        return work.document().view() == null ? List.of() : work.prints().all().stream().filter(p ->
                p.view().name().equals(work.document().view().name())
                && p.seconds() > 0 && noise(p) > 0 && noise(p) < 100).toList();
    }

    /** Of what the preset in use aims at, where the proof knows it. */
    private double noise(Proof p) {
        Preset now = work.prover().presetProperty().get();
        return now != null && now.aimsAtDenoised() && p.error() != null ? p.error() : p.noise();
    }

    private void fill() {
        getChildren().clear();
        List<Proof> all = proofs();
        Estimate e = work.prover().costs().estimateProperty().get();
        Ui.show(this, !all.isEmpty());
        if (all.isEmpty()) return;
        double least = all.stream().mapToDouble(Proof::seconds).min().orElse(1), most = all.stream().mapToDouble(
                Proof::seconds).max().orElse(1),
                low = all.stream().mapToDouble(this::noise).min().orElse(1), high = all.stream().mapToDouble(this::noise).max().orElse(1);
        t0 = least / 2;
        t1 = Math.max(most, e == null ? most : e.seconds()) * 8;
        n0 = Math.min(low, e == null ? low : e.noise()) / 3;
        n1 = high * 1.6;
        axes();
        if (e != null) line(e);
        for (Proof p : all) point(p);
        hint.relocate(LEFT + 6, TOP);
        getChildren().add(hint);
    }

    private double x(double seconds) {
        return LEFT + Math.log(seconds / t0) / Math.log(t1 / t0) * (W - LEFT - RIGHT);
    }

    private double y(double noise) {
        return H - BOTTOM - Math.log(noise / n0) / Math.log(n1 / n0) * (H - BOTTOM - TOP);
    }

    private double seconds(double x) {
        return t0 * Math.pow(t1 / t0, (x - LEFT) / (W - LEFT - RIGHT));
    }

    private void axes() {
        Rectangle r = new Rectangle(LEFT, TOP, W - LEFT - RIGHT, H - BOTTOM - TOP);
        r.getStyleClass().add("map-field");
        getChildren().add(r);
        // Doublings of time, each labelled by where it stands; noise by halves.
        for (double t : new double[] {1, 10, 60, 600, 3600, 36_000}) if (t > t0 && t < t1) {
            Line l = new Line(x(t), TOP, x(t), H - BOTTOM);
            l.getStyleClass().add("map-line");
            text(t < 60 ? (int) t + " s" : t < 3600 ? (int) (t / 60) + " min" : (int) (t / 3600) + " h", x(t) - 10, H - BOTTOM + 1);
            getChildren().add(l);
        }
        for (double n : new double[] {0.5, 1, 2, 5, 10, 20, 50}) if (n > n0 && n < n1) {
            Line l = new Line(LEFT, y(n), W - RIGHT, y(n));
            l.getStyleClass().add("map-line");
            text((n < 1 ? "0.5" : (int) n) + " %", 2, y(n) - 8);
            getChildren().add(l);
        }
    }

    private void text(String s, double x, double y) {
        Label l = Ui.label(s, "map-text");
        l.relocate(x, y);
        getChildren().add(l);
    }

    /** Noise after some seconds in all: it falls with a power of what is rendered after the caches. */
    private double noise(Estimate e, double seconds) {
        Preset now = work.prover().presetProperty().get();
        double power = now != null && now.aimsAtDenoised() ? NoiseFall.DENOISED : 0.5;
        double other = e.caches() + e.finish(), left = seconds - other;
        return left <= 0 || e.rendering() <= 0 ? Double.NaN : e.noise() * Math.pow(e.rendering() / left, power);
    }

    private void line(Estimate e) {
        Polyline l = new Polyline();
        l.getStyleClass().add("map-curve");
        for (int k = 0; k <= STEPS; k++) {
            double t = t0 * Math.pow(t1 / t0, (double) k / STEPS), n = noise(e, t);
            if (n > n0 && n < n1) l.getPoints().addAll(x(t), y(n));
        }
        getChildren().add(l);
    }

    private void point(Proof p) {
        Circle c = new Circle(x(p.seconds()), y(noise(p)), p == work.prints().aProperty().get() || p == work.prints().bProperty().get()
                ? 4.5 : 3);
        c.getStyleClass().add(p == work.prints().aProperty().get() ? "hook-a" : p == work.prints().bProperty().get() ? "hook-b"
                : "map-point");
        Tooltip.install(c, Ui.tip("Proof " + p.number() + (p.title().isEmpty() ? "" : ", " + p.title()) + "\n" + p.preset().name() + "\n"
                + Texts.time(p.seconds()) + ", " + Texts.figure(p)));
        c.setOnMouseClicked(e -> {
            work.prints().aProperty().set(p);
            e.consume();
        });
        getChildren().add(c);
    }

    private void say(double x) {
        Estimate e = work.prover().costs().estimateProperty().get();
        double t = seconds(x), n = e == null ? Double.NaN : noise(e, t);
        hint.setText(Double.isNaN(n) || n > 100 ? "" : "about " + Texts.about(t) + ": " + Texts.noise(n));
        hint.autosize();
    }

    private void aim(double x) {
        Estimate e = work.prover().costs().estimateProperty().get();
        if (e == null) return;
        double t = seconds(x), n = noise(e, t);
        if (n > 0.1 && n < 50) work.prover().change(p -> p.withLimits(Math.rint(n * 10) / 10, 0, p.samples()));
    }
}
