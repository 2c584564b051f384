package bake.desktop.work;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.studio.live.LiveRender;
import bake.studio.live.Spots;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.input.KeyCode;

/** Moves the camera of the current view: orbit about its target, look around, walk, and dolly. */
public final class CameraHand {
    /** What a drag does. */
    public enum Way { ORBIT, LOOK, WALK, FOCUS, METER }

    private final Workbench bench;
    /** Lines over the picture. */
    public enum Guide { NONE, THIRDS, MIDDLE, SAFE, PRINT }

    private final ObjectProperty<Guide> guide = new SimpleObjectProperty<>(Guide.NONE);
    private GivesWay givesWay = GivesWay.SHUTTER;
    private Way way = Way.ORBIT;
    private Camera start;
    private int gesture;

    public CameraHand(Workbench bench) {
        this.bench = bench;
    }

    public void use(Way w) {
        way = w;
    }

    /** A click on the picture, 0 to 1 from the left and the top: what is there gets sharp, where that is what clicks are for. */
    public void click(double x, double y) {
        if (bench.finish().click(x, y)) return;
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (way == Way.METER && f != null && f.spots() != null) expose(Math.log(Math.max(1e-9, f.spots().luminance(x, y)) * 8) / Math.log(
                2));
        Spots.Place at = way != Way.FOCUS || f == null || f.spots() == null ? null : f.spots().place(x, y);
        if (at == null) return;
        double metres = f.spots().on(at.at())[2];
        bench.editView("focus click", v -> v.withCamera(v.camera().camera().withFocus(true, Math.rint(metres * 100) / 100)));
    }

    /** Which value follows when the exposure changes. */
    public GivesWay givesWay() {
        return givesWay;
    }

    public void givesWay(GivesWay g) {
        givesWay = g;
    }

    /** Lines over the picture that help to compose it. */
    public ObjectProperty<Guide> guideProperty() {
        return guide;
    }

    /** Sets the exposure so that a part of the picture is middle grey on average. */
    public void meter(double share) {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (f == null || f.spots() == null) return;
        bench.inBackground(() -> {
            double ev = f.spots().metered(share);
            bench.later(() -> {
                if (Double.isNaN(ev)) bench.notices().say("There is no light to meter here.");
                else expose(ev);
            });
        });
    }

    private void expose(double ev) {
        double to = Math.rint(Math.clamp(ev, -10, 24) * 10) / 10;
        bench.editView("metered", v -> v.withCamera(givesWay.to(v.camera().camera(), to)));
    }

    public void begin() {
        gesture++;
        start = bench.view().camera().camera();
    }

    public void end() {
        start = null;
    }

    /** A drag of so many pixels on a picture that is {@code width} wide. */
    public void drag(double dx, double dy, double width) {
        if (start == null || way == Way.FOCUS || way == Way.METER) return;
        double u = dx / Math.max(1, width), v = dy / Math.max(1, width);
        Vec3 view = start.target().minus(start.position());
        Camera c = switch (way) {
            case ORBIT -> start.at(start.target().minus(turn(view, -u * Math.PI, -v * Math.PI)), start.target());
            case LOOK -> start.at(start.position(), start.position().plus(turn(view, -u * 1.6, v * 1.6)));
            case FOCUS, METER -> start;
            case WALK -> {
                double reach = Math.max(2, view.length());
                Vec3 flat = new Vec3(view.x(), view.y(), 0).normalized(), right = flat.cross(Vec3.UP);
                Vec3 by = right.times(-u * reach).plus(flat.times(v * reach * 1.5));
                yield start.at(start.position().plus(by), start.target().plus(by));
            }
        };
        apply("camera drag#" + gesture, c);
    }

    /** The view vector turned about the vertical and tilted, kept off the poles. */
    private static Vec3 turn(Vec3 view, double around, double tilt) {
        Vec3 t = Affine.rotation(Vec3.UP, around).vector(view);
        Vec3 right = t.cross(Vec3.UP).normalized();
        Vec3 r = Affine.rotation(right, tilt).vector(t);
        return Math.abs(r.normalized().z()) > 0.98 ? t : r;
    }

    /** One notch of the wheel: a tenth of the way to the target. */
    public void dolly(int notches) {
        Camera c = bench.view().camera().camera();
        Vec3 view = c.target().minus(c.position());
        double step = Math.max(0.05, view.length() * 0.1) * notches;
        if (step > view.length() - 0.1) return;
        apply("camera dolly", c.at(c.position().plus(view.normalized().times(step)), c.target()));
    }

    /** Arrow keys walk, Page keys rise and sink; a tenth of a metre, with Shift a metre. */
    public boolean key(KeyCode k, boolean far) {
        Camera c = bench.view().camera().camera();
        Vec3 view = c.target().minus(c.position()), flat = new Vec3(view.x(), view.y(), 0).normalized(), right = flat.cross(Vec3.UP);
        double s = far ? 1 : 0.1;
        Vec3 by = switch (k) {
            case UP -> flat.times(s);
            case DOWN -> flat.times(-s);
            case LEFT -> right.times(-s);
            case RIGHT -> right.times(s);
            case PAGE_UP -> Vec3.UP.times(s);
            case PAGE_DOWN -> Vec3.UP.times(-s);
            default -> null;
        };
        if (by == null) return false;
        apply("camera walk", c.at(c.position().plus(by), c.target().plus(by)));
        return true;
    }

    private void apply(String key, Camera c) {
        bench.editView(key, v -> v.withCamera(c));
    }
}
