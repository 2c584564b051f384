package bake.desktop;

import bake.core.math.Vec3;
import bake.core.scene.Portal;
import bake.core.transport.Lens;
import bake.formats.project.LampSpec;
import bake.studio.Spots;
import java.util.Locale;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;

/** On the picture of the Light station: the portals with the way they face, the lamps, and what the light meter reads under the pointer. */
final class LightHandles extends Pane {
    private final Workbench bench;
    private final Lighting lighting;
    private final Label meter = Ui.label("", "meter");
    private final Pane marks = new Pane();
    private double x, y, w = 1, h = 1;

    LightHandles(Workbench bench) {
        this.bench = bench;
        lighting = bench.lighting();
        setId("light-handles");
        meter.setId("light-meter");
        meter.setMouseTransparent(true);
        meter.setVisible(false);
        marks.setPickOnBounds(false);
        getChildren().addAll(marks, meter);
        bench.stationProperty().addListener((o, a, b) -> refresh());
        bench.projectProperty().addListener((o, a, b) -> refresh());
        bench.viewProperty().addListener((o, a, b) -> refresh());
        bench.printAProperty().addListener((o, a, b) -> refresh());
        lighting.lamps().chosenProperty().addListener((o, a, b) -> refresh());
        lighting.openings().chosenProperty().addListener((o, a, b) -> refresh());
        lighting.openings().faultsProperty().addListener((o, a, b) -> refresh());
        lighting.toolProperty().addListener((o, a, t) -> setCursor(t == Lighting.Tool.LOOK ? Cursor.DEFAULT : Cursor.CROSSHAIR));
        lighting.readingProperty().addListener((o, a, r) -> read(r));
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> {
            if (inside(e)) {
                lighting.meter(across(e), down(e));
                meter.relocate(Math.min(e.getX() + 14, x + w - 150), Math.max(y, e.getY() - 46));
            } else lighting.noMeter();
        });
        addEventHandler(MouseEvent.MOUSE_EXITED, e -> lighting.noMeter());
        addEventHandler(MouseEvent.MOUSE_CLICKED, e -> {
            if (inside(e) && e.isStillSincePress()) lighting.click(across(e), down(e));
        });
        refresh();
    }

    private boolean inside(MouseEvent e) {
        return e.getX() >= x && e.getY() >= y && e.getX() < x + w && e.getY() < y + h;
    }

    private double across(MouseEvent e) {
        return (e.getX() - x) / w;
    }

    private double down(MouseEvent e) {
        return (e.getY() - y) / h;
    }

    /** Where the picture lies. */
    void fit(double x, double y, double w, double h) {
        boolean same = this.x == x && this.y == y && this.w == w && this.h == h;
        this.x = x;
        this.y = y;
        this.w = w;
        this.h = h;
        if (!same) refresh();
    }

    private void read(Spots.Reading r) {
        meter.setVisible(r != null);
        if (r == null) return;
        String lux = Double.isNaN(r.lux()) ? "sky" : Texts.lux(r.lux()) + (r.error() > 0.08 * r.lux() ? String.format(Locale.ROOT, " \u00b1%.0f %%", 100 * r.error() / r.lux()) : "");
        meter.setText(String.format(Locale.ROOT, "%s%n%s cd/m\u00b2   EV %.1f", lux, Texts.three(r.luminance()), r.ev()));
        meter.autosize();
    }

    private void refresh() {
        boolean here = bench.stationProperty().get() == Station.LIGHT && bench.view() != null;
        setVisible(here);
        marks.getChildren().clear();
        marks.setClip(new javafx.scene.shape.Rectangle(x, y, w, h));
        if (!here) {
            lighting.noMeter();
            return;
        }
        Lens lens = new Lens(bench.view().camera().camera(), (int) Math.max(1, w), (int) Math.max(1, h));
        for (Portal p : lighting.openings().all()) portal(lens, p);
        for (LampSpec l : bench.project().lamps()) lamp(lens, l);
    }

    private double[] on(Lens lens, Vec3 p) {
        double[] q = lens.project(p.x(), p.y(), p.z());
        return q == null ? null : new double[] {x + q[0] * w, y + q[1] * h};
    }

    private boolean shows(double[] q) {
        return q != null && q[0] >= x && q[1] >= y && q[0] < x + w && q[1] < y + h;
    }

    private void portal(Lens lens, Portal p) {
        Polygon shape = new Polygon();
        for (Vec3 c : p.corners()) {
            double[] q = on(lens, c);
            if (q == null) return;
            shape.getPoints().addAll(q[0], q[1]);
        }
        boolean chosen = p.name().equals(lighting.openings().chosenProperty().get());
        shape.getStyleClass().add("portal-mark");
        if (chosen) shape.getStyleClass().add("chosen");
        if (lighting.openings().faultsProperty().get().containsKey(p.name())) shape.getStyleClass().add("faulty");
        shape.setOnMousePressed(e -> {
            if (lighting.toolProperty().get() == Lighting.Tool.LOOK) lighting.openings().chosenProperty().set(p.name());
        });
        marks.getChildren().add(shape);
        // The way it faces, into the room.
        double[] a = on(lens, p.middle()), b = on(lens, p.middle().plus(p.normal().times(0.4)));
        if (shows(a) && b != null) {
            Line l = new Line(a[0], a[1], b[0], b[1]);
            Circle dot = new Circle(b[0], b[1], 3);
            l.getStyleClass().add("portal-way");
            dot.getStyleClass().add("portal-dot");
            l.setMouseTransparent(true);
            dot.setMouseTransparent(true);
            marks.getChildren().addAll(l, dot);
        }
    }

    private void lamp(Lens lens, LampSpec l) {
        double[] q = on(lens, new Vec3(l.position()[0], l.position()[1], l.position()[2]));
        if (!shows(q)) return;
        boolean chosen = l.name().equals(lighting.lamps().chosenProperty().get()), off = bench.view().off().contains(l.groupName());
        Circle c = new Circle(q[0], q[1], chosen ? 7 : 5);
        c.getStyleClass().add("lamp-mark");
        if (chosen) c.getStyleClass().add("chosen");
        if (off) c.getStyleClass().add("unlit");
        c.setAccessibleText("Lamp " + l.name());
        c.setCursor(Cursor.HAND);
        c.setOnMousePressed(e -> {
            lighting.lamps().chosenProperty().set(l.name());
            e.consume();
        });
        marks.getChildren().add(c);
        if (!chosen) return;
        Label name = Ui.label(l.name() + (off ? " (off)" : ""), "mark-name");
        name.setMouseTransparent(true);
        name.relocate(Math.min(q[0] + 11, x + w - 130), q[1] - 9);
        marks.getChildren().add(name);
    }

    @Override
    protected void layoutChildren() {
        for (Node n : getChildren()) if (n != marks) n.autosize();
        for (Node n : marks.getChildren()) n.autosize();
    }
}
