package bake.desktop.easel;

import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.LampHand;
import bake.desktop.work.Lighting;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.live.Spots;
import java.util.Locale;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;

/** On the picture of the Light station: the portals with the way they face, the lamps, and what the light meter reads under the pointer. */
final class LightHandles extends Pane {
    private final Workbench bench;
    private final Lighting lighting;
    private final Label meter = Ui.label("", "meter");
    private final LightMarks marks;
    /** How near the pointer must come to a corner, pixels. */
    private static final double NEAR = 11;
    private double x, y, w = 1, h = 1, pressX, pressY;
    /** The lamp that is being dragged, or aimed. */
    private String held;
    private boolean aiming;

    LightHandles(Workbench bench) {
        this.bench = bench;
        lighting = bench.lighting();
        setId("light-handles");
        meter.setId("light-meter");
        meter.setMouseTransparent(true);
        meter.setVisible(false);
        marks = new LightMarks(bench);
        getChildren().addAll(marks, meter);
        bench.stationProperty().addListener((o, a, b) -> refresh());
        bench.projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.lamps() != b.lamps() || a.portals() != b.portals()) refresh();
        });
        bench.viewProperty().addListener((o, a, b) -> refresh());
        bench.prints().aProperty().addListener((o, a, b) -> refresh());
        lighting.lamps().choice().allProperty().addListener((o, a, b) -> refresh());
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
                boolean held = marks.lampAt(e.getX(), e.getY(), NEAR) != null || marks.onAim(e.getX(), e.getY(), NEAR);
                if (lighting.toolProperty().get() == Lighting.Tool.LOOK) setCursor(held ? Cursor.HAND : Cursor.DEFAULT);
                meterBeside(e.getX(), e.getY());
            } else lighting.noMeter();
        });
        addEventHandler(MouseEvent.MOUSE_EXITED, e -> lighting.noMeter());
        addEventHandler(MouseEvent.MOUSE_CLICKED, e -> {
            if (inside(e) && e.isStillSincePress()) clickAt(across(e), down(e));
        });
        addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            pressX = across(e);
            pressY = down(e);
            held = null;
            if (lighting.toolProperty().get() == Lighting.Tool.DRAW) {
                // The easel would move its picture.
                getParent().requestFocus();
                e.consume();
            } else if (lighting.toolProperty().get() == Lighting.Tool.LOOK) take(e);
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            if (held != null && aiming) lighting.lamps().aim(held, across(e), down(e));
            else if (held != null && !e.isStillSincePress()) lighting.lamps().drag(held, across(e), down(e), e.isShiftDown());
            drawn(e, false);
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, e -> drawn(e, true));
        refresh();
    }

    /** What the pointer is on is worked on from now on. */
    private void take(MouseEvent e) {
        LampHand hand = lighting.lamps();
        aiming = marks.onAim(e.getX(), e.getY(), NEAR);
        String lamp = aiming ? hand.chosenProperty().get() : marks.lampAt(e.getX(), e.getY(), NEAR);
        if (lamp != null) {
            held = lamp;
            if (e.isShortcutDown()) hand.choice().toggle(lamp);
            else if (!hand.choice().allProperty().get().contains(lamp)) hand.chosenProperty().set(lamp);
            e.consume();
            return;
        }
        String portal = marks.portalAt(e.getX(), e.getY());
        if (portal != null) lighting.openings().chosenProperty().set(portal);
    }

    /**
     * Arrow keys move the chosen lamp or portal, page keys raise and lower it; without one they move a cross that reads the light, and
     * that Enter clicks with where a click is waited for.
     */
    boolean key(KeyCode k, boolean shift) {
        int dx = k == KeyCode.LEFT ? -1 : k == KeyCode.RIGHT ? 1 : 0, dy = k == KeyCode.DOWN ? -1 : k == KeyCode.UP ? 1 : 0,
                dz = k == KeyCode.PAGE_DOWN ? -1 : k == KeyCode.PAGE_UP ? 1 : 0;
        boolean look = lighting.toolProperty().get() == Lighting.Tool.LOOK;
        boolean lamp = lighting.lamps().chosenProperty().get() != null, portal = lighting.openings().chosenProperty().get() != null;
        if (k == KeyCode.ESCAPE) return leave();
        if (k == KeyCode.ENTER && lighting.toolProperty().get() == Lighting.Tool.DRAW) lighting.drawing().finish();
        else if ((k == KeyCode.ENTER || k == KeyCode.SPACE) && marks.crossed() && !look) clickAt(marks.crossX(), marks.crossY());
        else if (dx == 0 && dy == 0 && dz == 0) return false;
        else if (look && (lamp || portal)) {
            Camera c = bench.view().camera().camera();
            Vec3 view = c.target().minus(c.position()), ahead = new Vec3(view.x(), view.y(), 0).normalized(), right = ahead.cross(Vec3.UP);
            double s = shift ? 0.1 : 0.01;
            Vec3 by = right.times(dx * s).plus(ahead.times(dy * s)).plus(Vec3.UP.times(dz * s));
            if (lamp) lighting.lamps().nudge(by);
            else lighting.openings().nudge(by);
        } else {
            double s = shift ? 0.05 : 0.005;
            marks.cross(Math.clamp(marks.crossX() + dx * s, 0, 1), Math.clamp(marks.crossY() - dy * s * w / h, 0, 1));
            lighting.meter(marks.crossX(), marks.crossY());
            meterBeside(x + marks.crossX() * w, y + marks.crossY() * h);
        }
        return true;
    }

    /** Escape leaves the tool, then what is chosen, then the cross. */
    private boolean leave() {
        if (lighting.toolProperty().get() != Lighting.Tool.LOOK) lighting.toolProperty().set(Lighting.Tool.LOOK);
        else if (lighting.lamps().chosenProperty().get() != null) lighting.lamps().chosenProperty().set(null);
        else if (lighting.openings().chosenProperty().get() != null) lighting.openings().chosenProperty().set(null);
        else if (marks.crossed()) {
            marks.noCross();
            lighting.noMeter();
        } else return false;
        return true;
    }

    private void clickAt(double across, double down) {
        if (lighting.toolProperty().get() == Lighting.Tool.DRAW) lighting.drawing().click(across, down, NEAR / w, NEAR / h);
        else lighting.click(across, down);
    }

    private void meterBeside(double px, double py) {
        meter.relocate(Math.min(px + 14, x + w - 150), Math.max(y, py - 46));
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
        marks.show(here, x, y, w, h);
        if (!here) lighting.noMeter();
    }

    @Override
    protected void layoutChildren() {
        meter.autosize();
    }
}
