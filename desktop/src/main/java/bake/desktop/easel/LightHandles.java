package bake.desktop.easel;

import bake.core.compiled.Lens;
import bake.core.math.Vec3;
import bake.core.scene.Portal;
import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Lighting;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.formats.project.LampSpec;
import bake.studio.live.Spots;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
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
    /** How near the pointer must come to a corner, pixels. */
    private static final double NEAR = 11;
    private double x, y, w = 1, h = 1, pressX, pressY;
    /** What lies where on the picture, by name, and the lamp that is being dragged. */
    private final Map<String, Circle> lamps = new LinkedHashMap<>();
    private final Map<String, Polygon> portals = new LinkedHashMap<>();
    private String held;

    LightHandles(Workbench bench) {
        this.bench = bench;
        lighting = bench.lighting();
        setId("light-handles");
        meter.setId("light-meter");
        meter.setMouseTransparent(true);
        meter.setVisible(false);
        // Marks are made anew at every edit; a drag must not lose the node that it began on.
        marks.setMouseTransparent(true);
        getChildren().addAll(marks, meter);
        bench.stationProperty().addListener((o, a, b) -> refresh());
        bench.projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.lamps() != b.lamps() || a.portals() != b.portals()) refresh();
        });
        bench.viewProperty().addListener((o, a, b) -> refresh());
        bench.prints().aProperty().addListener((o, a, b) -> refresh());
        lighting.lamps().chosenProperty().addListener((o, a, b) -> refresh());
        lighting.openings().chosenProperty().addListener((o, a, b) -> refresh());
        lighting.openings().faultsProperty().addListener((o, a, b) -> refresh());
        lighting.toolProperty().addListener((o, a, t) -> {
            setCursor(t == Lighting.Tool.LOOK ? Cursor.DEFAULT : Cursor.CROSSHAIR);
            refresh();
        });
        lighting.drawing().cornersProperty().addListener((o, a, c) -> refresh());
        lighting.openings().bareProperty().addListener((o, a, c) -> refresh());
        lighting.readingProperty().addListener((o, a, r) -> read(r));
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> {
            if (inside(e)) {
                lighting.meter(across(e), down(e));
                if (lighting.toolProperty().get() == Lighting.Tool.LOOK) setCursor(lampAt(e) != null ? Cursor.HAND : Cursor.DEFAULT);
                meter.relocate(Math.min(e.getX() + 14, x + w - 150), Math.max(y, e.getY() - 46));
            } else lighting.noMeter();
        });
        addEventHandler(MouseEvent.MOUSE_EXITED, e -> lighting.noMeter());
        addEventHandler(MouseEvent.MOUSE_CLICKED, e -> {
            if (!inside(e) || !e.isStillSincePress()) return;
            if (lighting.toolProperty().get() == Lighting.Tool.DRAW) lighting.drawing().click(across(e), down(e), NEAR / w, NEAR / h);
            else lighting.click(across(e), down(e));
        });
        addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            pressX = across(e);
            pressY = down(e);
            held = null;
            if (lighting.toolProperty().get() == Lighting.Tool.DRAW) {
                // The easel would take the keys.
                requestFocus();
                e.consume();
            } else if (lighting.toolProperty().get() == Lighting.Tool.LOOK) take(e);
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            if (held != null) lighting.lamps().drag(held, across(e), down(e), e.isShiftDown());
            drawn(e, false);
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, e -> drawn(e, true));
        addEventHandler(javafx.scene.input.KeyEvent.KEY_PRESSED, e -> {
            if (lighting.toolProperty().get() != Lighting.Tool.DRAW) return;
            if (e.getCode() == javafx.scene.input.KeyCode.ESCAPE) lighting.toolProperty().set(Lighting.Tool.LOOK);
            else if (e.getCode() == javafx.scene.input.KeyCode.ENTER) lighting.drawing().finish();
            else return;
            e.consume();
        });
        refresh();
    }

    /** What the pointer is on is worked on from now on. */
    private void take(MouseEvent e) {
        String lamp = lampAt(e);
        if (lamp != null) {
            held = lamp;
            lighting.lamps().chosenProperty().set(lamp);
            e.consume();
            return;
        }
        for (var p : portals.entrySet())
            if (p.getValue().contains(e.getX(), e.getY())) {
                lighting.openings().chosenProperty().set(p.getKey());
                return;
            }
    }

    private String lampAt(MouseEvent e) {
        String best = null;
        double least = NEAR;
        for (var l : lamps.entrySet()) {
            double d = Math.hypot(l.getValue().getCenterX() - e.getX(), l.getValue().getCenterY() - e.getY());
            if (d >= least) continue;
            least = d;
            best = l.getKey();
        }
        return best;
    }

    private void drawn(MouseEvent e, boolean end) {
        if (lighting.toolProperty().get() != Lighting.Tool.DRAW || e.isStillSincePress()) return;
        lighting.drawing().drag(pressX, pressY, Math.clamp(across(e), 0, 1), Math.clamp(down(e), 0, 1), NEAR / w, NEAR / h, end);
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
        String lux = Double.isNaN(r.lux()) ? "sky" : Texts.lux(r.lux())
                + (r.error() > 0.08 * r.lux() ? String.format(Locale.ROOT, " \u00b1%.0f %%", 100 * r.error() / r.lux()) : "");
        meter.setText(String.format(Locale.ROOT, "%s%n%s cd/m\u00b2   EV %.1f", lux, Texts.three(r.luminance()), r.ev()));
        meter.autosize();
    }

    private void refresh() {
        boolean here = bench.stationProperty().get() == Station.LIGHT && bench.view() != null;
        setVisible(here);
        marks.getChildren().clear();
        lamps.clear();
        portals.clear();
        marks.setClip(new javafx.scene.shape.Rectangle(x, y, w, h));
        if (!here) {
            lighting.noMeter();
            return;
        }
        Lens lens = new Lens(bench.view().camera().camera(), (int) Math.max(1, w), (int) Math.max(1, h));
        for (Portal p : lighting.openings().all()) portal(lens, p);
        for (LampSpec l : bench.project().lamps()) lamp(lens, l);
        if (lighting.toolProperty().get() == Lighting.Tool.DRAW) drawing(lens);
    }

    /** What is drawn so far, and what its corners snap to. */
    private void drawing(Lens lens) {
        for (Vec3 c : lighting.drawing().snaps()) {
            double[] q = on(lens, c);
            if (!shows(q)) continue;
            javafx.scene.shape.Rectangle r = new javafx.scene.shape.Rectangle(q[0] - 3.5, q[1] - 3.5, 7, 7);
            r.getStyleClass().add("snap-mark");
            r.setMouseTransparent(true);
            marks.getChildren().add(r);
        }
        javafx.scene.shape.Polyline line = new javafx.scene.shape.Polyline();
        for (Vec3 c : lighting.drawing().cornersProperty().get()) {
            double[] q = on(lens, c);
            if (q != null) line.getPoints().addAll(q[0], q[1]);
        }
        if (line.getPoints().size() == 8) line.getPoints().addAll(line.getPoints().get(0), line.getPoints().get(1));
        line.getStyleClass().add("drawn");
        line.setMouseTransparent(true);
        marks.getChildren().add(line);
        if (line.getPoints().size() >= 2) {
            Circle first = new Circle(line.getPoints().get(0), line.getPoints().get(1), 4.5);
            first.getStyleClass().add("drawn-first");
            first.setMouseTransparent(true);
            marks.getChildren().add(first);
        }
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
        portals.put(p.name(), shape);
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
        lamps.put(l.name(), c);
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
