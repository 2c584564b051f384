package bake.desktop.station.view;

import bake.core.finish.SplineCurve;
import bake.desktop.parts.Drawing;
import bake.studio.live.ToneHistogram;
import java.util.List;
import java.util.function.BiConsumer;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.StackPane;

/**
 * A curve of display values that is drawn by hand, over the histogram of the picture. Click puts a point down, drag moves it, double click
 * takes it away; by keys, comma and full stop choose a point, arrows move it by a hundredth, Delete takes it away.
 */
final class CurveBoard extends StackPane {
    private static final double W = 284, H = 150, NEAR = 9;
    private final Drawing board = new Drawing(W, H, this::draw);
    private final BiConsumer<SplineCurve, String> changed;
    private SplineCurve curve = SplineCurve.STRAIGHT;
    private ToneHistogram tones;
    private int chosen = -1, gestures;

    /** @param changed gets the curve, and what a gesture's steps have in common */
    CurveBoard(BiConsumer<SplineCurve, String> changed) {
        this.changed = changed;
        setId("curve-board");
        getStyleClass().add("curve-board");
        setMaxSize(W, H);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText("Curve of display values. Comma and full stop choose a point, arrows move it, Delete takes it away.");
        getChildren().add(board);
        setOnMousePressed(this::pressed);
        setOnMouseDragged(e -> {
            if (chosen >= 0) move(x(e), y(e));
        });
        setOnKeyPressed(this::key);
        focusedProperty().addListener((o, a, b) -> board.redraw());
    }

    void show(SplineCurve c) {
        if (c.points().size() != curve.points().size()) chosen = Math.min(chosen, c.points().size() / 2 - 1);
        curve = c;
        board.redraw();
    }

    void show(ToneHistogram t) {
        tones = t;
        board.redraw();
    }

    private double x(MouseEvent e) {
        return Math.clamp((e.getX() - (getWidth() - W) / 2) / W, 0, 1);
    }

    private double y(MouseEvent e) {
        return Math.clamp(1 - (e.getY() - (getHeight() - H) / 2) / H, 0, 1);
    }

    private List<Double> points() {
        return curve.points().isEmpty() ? List.of(0.0, 0.0, 1.0, 1.0) : curve.points();
    }

    private void pressed(MouseEvent e) {
        requestFocus();
        // Else the pane around would take the focus.
        e.consume();
        gestures++;
        List<Double> p = points();
        chosen = -1;
        for (int i = 0; i < p.size() / 2; i++)
            if (Math.abs(p.get(2 * i) - x(e)) * W < NEAR && Math.abs(p.get(2 * i + 1) - y(e)) * H < NEAR) chosen = i;
        if (e.getClickCount() == 2 && chosen > 0) take();
        else if (chosen < 0) {
            double at = x(e);
            tell(curve.with(at, y(e)));
            p = points();
            for (int i = 0; i < p.size() / 2; i++) if (Math.abs(p.get(2 * i) - at) < 0.011) chosen = i;
        }
        board.redraw();
    }

    private void take() {
        int k = chosen;
        chosen = -1;
        tell(curve.without(k));
    }

    /** Moves the chosen point between its neighbours; ends go up and down alone. */
    private void move(double x, double y) {
        List<Double> p = new java.util.ArrayList<>(points());
        int n = p.size() / 2;
        if (chosen >= n) return;
        double lo = chosen == 0 ? 0 : p.get(2 * chosen - 2) + 0.012, hi = chosen == n - 1 ? 1 : p.get(2 * chosen + 2) - 0.012;
        if (lo > hi) return;
        if (chosen > 0 && chosen < n - 1) p.set(2 * chosen, Math.clamp(x, lo, hi));
        p.set(2 * chosen + 1, Math.clamp(y, 0, 1));
        tell(new SplineCurve(p));
    }

    private void tell(SplineCurve c) {
        curve = c;
        changed.accept(c, "#" + gestures);
        board.redraw();
    }

    private void key(KeyEvent e) {
        List<Double> p = points();
        int n = p.size() / 2;
        double step = e.isShiftDown() ? 0.05 : 0.01;
        if (e.getCode() == KeyCode.PERIOD || e.getCode() == KeyCode.COMMA) {
            gestures++;
            chosen = Math.floorMod(chosen + (e.getCode() == KeyCode.PERIOD ? 1 : -1), n);
            board.redraw();
        } else if (chosen < 0 || chosen >= n) return;
        else if (e.getCode() == KeyCode.DELETE) take();
        else {
            double dx = e.getCode() == KeyCode.LEFT ? -step : e.getCode() == KeyCode.RIGHT ? step : 0,
                    dy = e.getCode() == KeyCode.DOWN ? -step : e.getCode() == KeyCode.UP ? step : 0;
            if (dx == 0 && dy == 0) return;
            move(p.get(2 * chosen) + dx, p.get(2 * chosen + 1) + dy);
        }
        e.consume();
    }

    private void draw(Drawing d) {
        GraphicsContext g = d.getGraphicsContext2D();
        if (tones != null) {
            g.setFill(d.rule());
            double bw = W / ToneHistogram.CODES;
            for (int i = 0; i < ToneHistogram.CODES; i++) {
                double k = Math.sqrt((double) tones.codes()[i] / tones.mostCodes()) * (H - 6);
                g.fillRect(i * bw, H - k, bw, k);
            }
        }
        g.setStroke(d.quiet());
        g.setLineWidth(0.5);
        for (int k = 1; k < 4; k++) {
            g.strokeLine(k * W / 4, 0, k * W / 4, H);
            g.strokeLine(0, k * H / 4, W, k * H / 4);
        }
        g.setStroke(d.ink());
        g.setLineWidth(1.6);
        g.beginPath();
        for (int i = 0; i <= W; i += 2) {
            double y = H - Math.clamp(curve.at(i / W), 0, 1) * H;
            if (i == 0) g.moveTo(i, y);
            else g.lineTo(i, y);
        }
        g.stroke();
        List<Double> p = points();
        for (int i = 0; i < p.size() / 2; i++) {
            double r = i == chosen && isFocused() ? 5 : 3.5;
            g.setFill(i == chosen ? d.accent() : d.ink());
            g.fillOval(p.get(2 * i) * W - r, H - p.get(2 * i + 1) * H - r, 2 * r, 2 * r);
        }
    }
}
