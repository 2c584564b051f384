package bake.desktop.easel;

import bake.desktop.work.CameraHand;
import bake.desktop.work.CompareHand;
import bake.desktop.work.Lighting;
import bake.desktop.work.ModelPicks;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.live.Showing;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;

/** What pointer and keys do on the easel: mark a region, move the wipe, the camera, or the enlarged picture, whichever there is. */
final class EaselInput {
    private static final double NOTCH = 1.25, KEY_PAN = 40, KEY_WIPE = 0.01, NEAR_WIPE = 14;
    /** Held, it shows B in place of A. */
    private static final KeyCode FLIP = KeyCode.F;
    /** What a drag does. */
    private enum Drag { NOTHING, MARK, WIPE, CAMERA, PAN }

    private final Workbench bench;
    private final Easel easel;
    private final Hanging hanging;
    private final RegionMark region;
    private final LightHandles handles;
    private final CameraHand hand;
    private final ZoomPan zoom;
    private Drag drag = Drag.NOTHING;
    private double pressX, pressY, lastX, lastY;

    EaselInput(Workbench bench, Easel easel, Hanging hanging, RegionMark region, LightHandles handles, CameraHand hand, ZoomPan zoom) {
        this.bench = bench;
        this.easel = easel;
        this.hanging = hanging;
        this.region = region;
        this.handles = handles;
        this.hand = hand;
        this.zoom = zoom;
        easel.addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        easel.addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        easel.addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            hand.end();
            drag = Drag.NOTHING;
        });
        easel.addEventHandler(MouseEvent.MOUSE_MOVED, e -> easel.values(across(e.getX()), down(e.getY())));
        easel.addEventHandler(MouseEvent.MOUSE_EXITED, e -> easel.values(-1, -1));
        easel.addEventHandler(MouseEvent.MOUSE_CLICKED, this::clicked);
        easel.addEventHandler(ScrollEvent.SCROLL, this::scrolled);
        easel.addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        easel.addEventHandler(KeyEvent.KEY_RELEASED, e -> {
            if (e.getCode() == FLIP) bench.comparing().secondProperty().set(false);
        });
    }

    private boolean marking() {
        return bench.prover().markingProperty().get();
    }

    /** Whether B can be flipped to and back. */
    private boolean flips() {
        return bench.stationProperty().get() == Station.PROVE && bench.prints().aProperty().get() != null
                && bench.prints().bProperty().get() != null && bench.comparing().modeProperty().get() == CompareHand.Mode.FLIP;
    }

    /** Whether prints hang. */
    private boolean proving() {
        return bench.stationProperty().get() == Station.PROVE && (bench.prints().aProperty().get() != null
                || bench.prints().bProperty().get() != null);
    }

    private boolean cameraMoves() {
        return bench.stationProperty().get() == Station.VIEW && !marking() && bench.view() != null;
    }

    /** Whether clicks put something down. */
    private boolean places() {
        return bench.stationProperty().get() == Station.MODEL && bench.models().picks().toolProperty().get() != ModelPicks.Tool.PICK
                || bench.stationProperty().get() == Station.LIGHT && bench.lighting().toolProperty().get() != Lighting.Tool.LOOK;
    }

    /** How far across the picture, 0 to 1 from the left. */
    private double across(double x) {
        return (x - zoom.box().x()) / zoom.box().w();
    }

    private double down(double y) {
        return (y - zoom.box().y()) / zoom.box().h();
    }

    private void pressed(MouseEvent e) {
        easel.requestFocus();
        pressX = lastX = e.getX();
        pressY = lastY = e.getY();
        boolean left = e.getButton() == MouseButton.PRIMARY;
        boolean onWipe = hanging.wipes() && (!zoom.zoomed() || Math.abs(across(pressX) - hanging.wipeAt()) * zoom.box().w() < NEAR_WIPE);
        drag = !left || e.isShortcutDown() ? Drag.PAN : marking() ? Drag.MARK : onWipe ? Drag.WIPE : cameraMoves() ? Drag.CAMERA : Drag.PAN;
        if (drag == Drag.CAMERA) hand.begin();
    }

    private void dragged(MouseEvent e) {
        switch (drag) {
            case MARK -> region.mark(across(pressX), down(pressY), across(e.getX()), down(e.getY()));
            case WIPE -> wipe(across(e.getX()));
            case CAMERA -> hand.drag(e.getX() - pressX, e.getY() - pressY, zoom.box().w());
            case PAN -> {
                zoom.pan(e.getX() - lastX, e.getY() - lastY);
                easel.requestLayout();
            }
            default -> { }
        }
        lastX = e.getX();
        lastY = e.getY();
    }

    private void wipe(double at) {
        hanging.wipe(at);
        easel.requestLayout();
    }

    private void clicked(MouseEvent e) {
        if (!e.isStillSincePress() || e.getButton() != MouseButton.PRIMARY || bench.project() == null) return;
        if (e.getClickCount() == 2 && !cameraMoves() && !places()) toggle(e.getX(), e.getY());
        else if (cameraMoves()) hand.click(across(e.getX()), down(e.getY()));
        else if (bench.stationProperty().get() == Station.MODEL) bench.models().picks().click(across(e.getX()), down(e.getY()));
        else if (bench.stationProperty().get() == Station.PROVE && bench.prover().caches().showing().get() == Showing.RECORDS)
            bench.prover().caches().click(across(e.getX()), down(e.getY()));
    }

    /** On the View station the wheel moves the camera; with the shortcut key it enlarges there, too. */
    private void scrolled(ScrollEvent e) {
        if (e.getDeltaY() == 0) return;
        if (cameraMoves() && !e.isShortcutDown()) hand.dolly(e.getDeltaY() > 0 ? 1 : -1);
        else enlarge(e.getDeltaY() > 0 ? NOTCH : 1 / NOTCH, e.getX(), e.getY());
    }

    private void enlarge(double factor, double x, double y) {
        zoom.zoom(factor, x, y);
        easel.requestLayout();
    }

    /** Between the whole picture and its pixels one by one. */
    private void toggle(double x, double y) {
        zoom.toggle(x, y);
        easel.requestLayout();
    }

    private void key(KeyEvent e) {
        if (e.isShortcutDown() || bench.view() == null) return;
        KeyCode k = e.getCode();
        double x = easel.getWidth() / 2, y = easel.getHeight() / 2;
        if (bench.stationProperty().get() == Station.LIGHT && !marking() && handles.key(k, e.isShiftDown())) {
            e.consume();
            return;
        }
        int dx = k == KeyCode.LEFT ? -1 : k == KeyCode.RIGHT ? 1 : 0, dy = k == KeyCode.UP ? -1 : k == KeyCode.DOWN ? 1 : 0;
        if (k == FLIP && flips()) bench.comparing().secondProperty().set(true);
        else if (dx != 0 && flips()) bench.comparing().walk(dx);
        else if (proving() && (k == KeyCode.OPEN_BRACKET || k == KeyCode.CLOSE_BRACKET))
            bench.comparing().light().step(k == KeyCode.OPEN_BRACKET ? -1 : 1);
        else if (k == KeyCode.Z) toggle(x, y);
        else if (k == KeyCode.PLUS || k == KeyCode.ADD || k == KeyCode.EQUALS) enlarge(NOTCH, x, y);
        else if (k == KeyCode.MINUS || k == KeyCode.SUBTRACT) enlarge(1 / NOTCH, x, y);
        else if (k == KeyCode.ESCAPE && marking()) bench.prover().markingProperty().set(false);
        else if (k == KeyCode.ESCAPE && bench.stationProperty().get() == Station.MODEL
                && bench.models().picks().toolProperty().get() != ModelPicks.Tool.PICK)
            bench.models().picks().toolProperty().set(ModelPicks.Tool.PICK);
        else if (k == KeyCode.ESCAPE && zoom.zoomed()) toggle(x, y);
        else if (!(marking() && region.key(k, e.isShiftDown())) && !(cameraMoves() && hand.key(k, e.isShiftDown()))) {
            if (dx != 0 && hanging.wipes()) wipe(hanging.wipeAt() + dx * KEY_WIPE * (e.isShiftDown() ? 10 : 1));
            else if ((dx != 0 || dy != 0) && zoom.zoomed()) {
                zoom.pan(-dx * KEY_PAN, -dy * KEY_PAN);
                easel.requestLayout();
            } else return;
        }
        e.consume();
    }
}
