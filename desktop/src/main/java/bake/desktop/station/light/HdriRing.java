package bake.desktop.station.light;

import bake.desktop.parts.Drawing;
import bake.desktop.parts.Ui;
import java.util.Locale;
import java.util.function.DoubleConsumer;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.StackPane;

/** A ring, seen from above, on which a panorama is turned: the mark is its middle. Arrow keys turn it by one degree, with Shift by ten. */
final class HdriRing extends StackPane {
    private static final double SIZE = 132, C = SIZE / 2, R = 52;
    private final Drawing ring = new Drawing(SIZE, SIZE, this::draw);
    private final Label figure = Ui.label("", "figure");
    private final DoubleConsumer turned;
    private double degrees, from;

    HdriRing(DoubleConsumer turned) {
        this.turned = turned;
        setId("hdri-ring");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText("Rotation of the panorama. Left and right turn it.");
        figure.setMouseTransparent(true);
        getChildren().addAll(ring, figure);
        setOnMousePressed(e -> {
            requestFocus();
            // Else the pane around would take the focus.
            e.consume();
            from = degrees - angle(e.getX(), e.getY());
        });
        setOnMouseDragged(e -> turned.accept(around(from + angle(e.getX(), e.getY()))));
        setOnKeyPressed(e -> {
            double step = e.isShiftDown() ? 10 : 1;
            if (e.getCode() == KeyCode.LEFT) turned.accept(around(degrees - step));
            else if (e.getCode() == KeyCode.RIGHT) turned.accept(around(degrees + step));
            else if (e.getCode() == KeyCode.HOME) turned.accept(0);
            else return;
            e.consume();
        });
        focusedProperty().addListener((o, a, b) -> ring.redraw());
    }

    private double angle(double x, double y) {
        return Math.toDegrees(Math.atan2(x - getWidth() / 2, getHeight() / 2 - y));
    }

    /** Within -180 to 180, whole degrees. */
    private static double around(double d) {
        return Math.rint(Math.IEEEremainder(d, 360));
    }

    void show(double d) {
        degrees = Math.IEEEremainder(d, 360);
        figure.setText(String.format(Locale.ROOT, "%.0f\u00b0", degrees));
        ring.redraw();
    }

    private void draw(Drawing d) {
        GraphicsContext g = d.getGraphicsContext2D();
        g.setStroke(d.rule());
        g.setLineWidth(12);
        g.strokeOval(C - R, C - R, 2 * R, 2 * R);
        g.setLineWidth(1);
        g.setStroke(d.ink());
        for (int k = 0; k < 36; k++) {
            double a = Math.toRadians(10 * k), in = k % 9 == 0 ? R - 9 : R - 3;
            g.strokeLine(C + in * Math.sin(a), C - in * Math.cos(a), C + (R + 3) * Math.sin(a), C - (R + 3) * Math.cos(a));
        }
        double a = Math.toRadians(degrees);
        g.setStroke(isFocused() ? d.accent() : d.ink());
        g.setLineWidth(isFocused() ? 4 : 3);
        g.strokeLine(C + (R - 12) * Math.sin(a), C - (R - 12) * Math.cos(a), C + (R + 10) * Math.sin(a), C - (R + 10) * Math.cos(a));
    }
}
