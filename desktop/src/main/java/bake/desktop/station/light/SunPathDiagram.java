package bake.desktop.station.light;

import bake.desktop.parts.Drawing;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.scene.SunPosition;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.StackPane;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/**
 * The sun's paths over the place, north up, the horizon as the rim. Dragging the sun along moves the hour, across moves
 * the date; arrow keys do the same.
 */
final class SunPathDiagram extends StackPane {
    private static final double SIZE = 226, RADIUS = 96, C = SIZE / 2;
    /** The sun looks the same by day and in the evening. */
    private static final Color SUN = Color.web("#E0A030");
    private final Drawing drawing = new Drawing(SIZE, SIZE, this::draw);
    private final Moved moved;
    private int gesture;
    private Project.Place place = Project.Place.DEFAULT;
    private ZonedDateTime when;
    /** Where the sun was put by hand, or null. */
    private SunPosition.Angles byHand;

    /** Told where the sun was put; one gesture keeps its key. */
    interface Moved {
        void to(String key, LocalDate date, LocalTime time);
    }

    SunPathDiagram(Moved moved) {
        this.moved = moved;
        setId("sun-path");
        getStyleClass().add("sun-path");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText("Sun path diagram. Left and right move the hour, up and down the date.");
        getChildren().add(drawing);
        setOnMousePressed(e -> {
            requestFocus();
            gesture++;
            drag(e.getX() - (getWidth() - SIZE) / 2, e.getY() - (getHeight() - SIZE) / 2);
        });
        setOnMouseDragged(e -> drag(e.getX() - (getWidth() - SIZE) / 2, e.getY() - (getHeight() - SIZE) / 2));
        setOnKeyPressed(e -> {
            int minutes = e.isShiftDown() ? 60 : 10;
            if (e.getCode() == KeyCode.LEFT) step(when.minusMinutes(minutes));
            else if (e.getCode() == KeyCode.RIGHT) step(when.plusMinutes(minutes));
            else if (e.getCode() == KeyCode.UP) step(when.plusDays(e.isShiftDown() ? 7 : 1));
            else if (e.getCode() == KeyCode.DOWN) step(when.minusDays(e.isShiftDown() ? 7 : 1));
            else return;
            e.consume();
        });
        focusedProperty().addListener((o, a, b) -> drawing.redraw());
    }

    private void step(ZonedDateTime to) {
        if (when != null) moved.to("sun step", to.toLocalDate(), to.toLocalTime());
    }

    void show(Project.Place p, View.Around a) {
        place = p;
        try {
            when = SunPosition.moment(p, a);
            byHand = a.byHand() ? SunPosition.of(p, a) : null;
        } catch (FormatException e) {
            when = null;
        }
        drawing.redraw();
    }

    private static double[] xy(SunPosition.Angles s) {
        // Distance from the middle in proportion to the angle from the zenith.
        double r = RADIUS * (90 - s.height()) / 90, az = Math.toRadians(s.azimuth());
        return new double[] {C + r * Math.sin(az), C - r * Math.cos(az)};
    }

    /** Finds the hour of this day, and then the date at that hour, whose sun is nearest to the pointer. */
    private void drag(double x, double y) {
        if (when == null) return;
        ZonedDateTime best = when;
        double least = Double.MAX_VALUE;
        ZonedDateTime day = when.toLocalDate().atStartOfDay(when.getZone());
        for (int m = 0; m < 1440; m += 10) {
            ZonedDateTime t = day.plusMinutes(m);
            double d = distance(t, x, y);
            if (d < least) {
                least = d;
                best = t;
            }
        }
        if (least > 9) {
            // Off the day's path: the date moves too, within the half of the year that the sun is in.
            ZonedDateTime start = best;
            int from = when.getDayOfYear() <= 172 ? -10 : 172, to = from + 182;
            for (int d = from; d <= to; d += 5)
                for (int m = -90; m <= 90; m += 30) {
                    ZonedDateTime t = start.withDayOfYear(Math.floorMod(d - 1, 365) + 1).plusMinutes(m);
                    double e = distance(t, x, y);
                    if (e < least - 0.5) {
                        least = e;
                        best = t;
                    }
                }
        }
        ZonedDateTime rough = best;
        for (int m = -10; m <= 10; m += 2) {
            double d = distance(rough.plusMinutes(m), x, y);
            if (d < least) {
                least = d;
                best = rough.plusMinutes(m);
            }
        }
        if (!best.equals(when)) moved.to("sun#" + gesture, best.toLocalDate(), best.toLocalTime());
    }

    private double distance(ZonedDateTime t, double x, double y) {
        double[] p = xy(SunPosition.at(place, t));
        return Math.hypot(p[0] - x, p[1] - y);
    }

    private void draw(Drawing d) {
        GraphicsContext g = d.getGraphicsContext2D();
        Paint ink = d.ink(), rule = d.rule(), kiln = d.accent();
        g.setLineWidth(1);
        g.setStroke(rule);
        for (int k = 1; k < 3; k++) g.strokeOval(C - RADIUS * k / 3, C - RADIUS * k / 3, 2 * RADIUS * k / 3, 2 * RADIUS * k / 3);
        g.strokeLine(C - RADIUS, C, C + RADIUS, C);
        g.strokeLine(C, C - RADIUS, C, C + RADIUS);
        g.setStroke(ink);
        g.strokeOval(C - RADIUS, C - RADIUS, 2 * RADIUS, 2 * RADIUS);
        g.setFont(Font.font("Inter", 11));
        g.setTextAlign(TextAlignment.CENTER);
        g.setFill(d.quiet());
        g.fillText("N", C, C - RADIUS - 5);
        g.fillText("S", C, C + RADIUS + 13);
        g.fillText("E", C + RADIUS + 9, C + 4);
        g.fillText("W", C - RADIUS - 9, C + 4);
        if (when == null) return;
        int year = when.getYear();
        for (LocalDate turn : new LocalDate[] {LocalDate.of(year, 6, 21), LocalDate.of(year, 3, 20), LocalDate.of(year, 12, 21)})
            path(d, turn, rule, 1.2, false);
        path(d, when.toLocalDate(), kiln, 1.8, true);
        SunPosition.Angles s = byHand != null ? byHand : SunPosition.at(place, when);
        double[] p = xy(new SunPosition.Angles(s.azimuth(), Math.max(-8, s.height())));
        g.setStroke(SUN);
        g.setLineWidth(1.4);
        g.strokeLine(C, C, p[0], p[1]);
        g.setFill(s.height() > -0.5 ? SUN : Color.TRANSPARENT);
        g.setStroke(isFocused() ? kiln : ink);
        g.setLineWidth(isFocused() ? 2 : 1);
        g.fillOval(p[0] - 8, p[1] - 8, 16, 16);
        g.strokeOval(p[0] - 8, p[1] - 8, 16, 16);
    }

    private void path(Drawing on, LocalDate d, Paint c, double width, boolean hours) {
        GraphicsContext g = on.getGraphicsContext2D();
        g.setStroke(c);
        g.setLineWidth(width);
        g.beginPath();
        boolean open = false;
        ZonedDateTime start = d.atStartOfDay(when.getZone());
        for (int m = 0; m <= 1440; m += 10) {
            SunPosition.Angles s = SunPosition.at(place, start.plusMinutes(m));
            if (s.height() < 0) {
                open = false;
                continue;
            }
            double[] p = xy(s);
            if (open) g.lineTo(p[0], p[1]);
            else g.moveTo(p[0], p[1]);
            open = true;
            if (hours && m % 180 == 0) {
                g.setFill(c);
                g.fillOval(p[0] - 2, p[1] - 2, 4, 4);
                g.setFont(Font.font("Inter", 11));
                g.setFill(on.quiet());
                g.fillText(Integer.toString(m / 60), p[0], p[1] - 6);
            }
        }
        g.stroke();
    }
}
