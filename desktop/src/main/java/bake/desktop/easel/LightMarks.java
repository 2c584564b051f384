package bake.desktop.easel;

import bake.core.compiled.Lens;
import bake.core.math.Vec3;
import bake.core.scene.Portal;
import bake.desktop.parts.Ui;
import bake.desktop.work.Lighting;
import bake.desktop.work.Workbench;
import bake.formats.project.LampSpec;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;

/** Lamps and portals as they lie on the picture, what is being drawn, and the cross that keys move. */
final class LightMarks extends Pane {
    /** How far along its light a lamp's aim is shown, metres. */
    private static final double AIM = 0.6;
    private final Workbench bench;
    private final Lighting lighting;
    /** What lies where on the picture, by name. */
    private final Map<String, double[]> lamps = new LinkedHashMap<>();
    private final Map<String, Polygon> portals = new LinkedHashMap<>();
    private double x, y, w = 1, h = 1, crossX = 0.5, crossY = 0.5;
    private boolean crossed;
    private double[] aim;

    LightMarks(Workbench bench) {
        this.bench = bench;
        lighting = bench.lighting();
        // Marks are made anew at every edit; a drag must not lose the node that it began on.
        setMouseTransparent(true);
    }

    /** Draws what there is, on a picture that lies there. */
    void show(boolean here, double left, double top, double width, double height) {
        x = left;
        y = top;
        w = width;
        h = height;
        getChildren().clear();
        lamps.clear();
        portals.clear();
        aim = null;
        setClip(new Rectangle(x, y, w, h));
        if (!here) return;
        Lens lens = new Lens(bench.view().camera().camera(), (int) Math.max(1, w), (int) Math.max(1, h));
        for (Portal p : lighting.openings().all()) portal(lens, p);
        for (LampSpec l : bench.project().lamps()) lamp(lens, l);
        if (lighting.toolProperty().get() == Lighting.Tool.DRAW) drawing(lens);
        if (crossed) {
            double px = x + crossX * w, py = y + crossY * h;
            for (Line l : new Line[] {new Line(px - 9, py, px + 9, py), new Line(px, py - 9, px, py + 9)}) {
                l.getStyleClass().add("cross");
                getChildren().add(l);
            }
        }
    }

    /** Name of the lamp whose mark lies nearest to a place, if one lies near; else null. */
    String lampAt(double px, double py, double near) {
        String best = null;
        double least = near;
        for (var l : lamps.entrySet()) {
            double d = Math.hypot(l.getValue()[0] - px, l.getValue()[1] - py);
            if (d >= least) continue;
            least = d;
            best = l.getKey();
        }
        return best;
    }

    /** Name of a portal that covers a place, or null. */
    String portalAt(double px, double py) {
        for (var p : portals.entrySet()) if (p.getValue().contains(px, py)) return p.getKey();
        return null;
    }

    /** Whether the aim of the chosen lamp lies near a place. */
    boolean onAim(double px, double py, double near) {
        return aim != null && Math.hypot(aim[0] - px, aim[1] - py) < near;
    }

    /** Puts the cross at a place of the picture, 0 to 1 from the left and the top. */
    void cross(double across, double down) {
        crossed = true;
        crossX = across;
        crossY = down;
        show(true, x, y, w, h);
    }

    void noCross() {
        crossed = false;
        show(true, x, y, w, h);
    }

    boolean crossed() {
        return crossed;
    }

    double crossX() {
        return crossX;
    }

    double crossY() {
        return crossY;
    }

    /** Where a lamp with a direction shines, to be dragged. */
    private void aim(Lens lens, LampSpec l, double[] from) {
        LampSpec s = l.alone(bench.project().lamps());
        boolean round = s.kind() == null || s.kind().equals("point") || s.kind().equals("sphere") || s.kind().equals("tube");
        if (round || l.direction() == null) return;
        Vec3 at = new Vec3(l.position()[0], l.position()[1], l.position()[2]),
                d = new Vec3(l.direction()[0], l.direction()[1], l.direction()[2]);
        if (!(d.length() > 1e-9)) return;
        double[] to = on(lens, at.plus(d.normalized().times(AIM)));
        if (to == null) return;
        Line line = new Line(from[0], from[1], to[0], to[1]);
        line.getStyleClass().add("aim-line");
        Circle dot = new Circle(to[0], to[1], 5);
        dot.getStyleClass().add("aim-dot");
        getChildren().addAll(line, dot);
        aim = to;
    }

    /** What is drawn so far, and what its corners snap to. */
    private void drawing(Lens lens) {
        for (Vec3 c : lighting.drawing().snaps()) {
            double[] q = on(lens, c);
            if (!shows(q)) continue;
            Rectangle r = new Rectangle(q[0] - 3.5, q[1] - 3.5, 7, 7);
            r.getStyleClass().add("snap-mark");
            getChildren().add(r);
        }
        Polyline line = new Polyline();
        for (Vec3 c : lighting.drawing().cornersProperty().get()) {
            double[] q = on(lens, c);
            if (q != null) line.getPoints().addAll(q[0], q[1]);
        }
        if (line.getPoints().size() == 8) line.getPoints().addAll(line.getPoints().get(0), line.getPoints().get(1));
        line.getStyleClass().add("drawn");
        getChildren().add(line);
        if (line.getPoints().size() >= 2) {
            Circle first = new Circle(line.getPoints().get(0), line.getPoints().get(1), 4.5);
            first.getStyleClass().add("drawn-first");
            getChildren().add(first);
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
        getChildren().add(shape);
        // The way it faces, into the room.
        double[] a = on(lens, p.middle()), b = on(lens, p.middle().plus(p.normal().times(0.4)));
        if (shows(a) && b != null) {
            Line l = new Line(a[0], a[1], b[0], b[1]);
            Circle dot = new Circle(b[0], b[1], 3);
            l.getStyleClass().add("portal-way");
            dot.getStyleClass().add("portal-dot");
            getChildren().addAll(l, dot);
        }
    }

    private void lamp(Lens lens, LampSpec l) {
        double[] q = on(lens, new Vec3(l.position()[0], l.position()[1], l.position()[2]));
        if (!shows(q)) return;
        boolean chosen = lighting.lamps().choice().allProperty().get().contains(l.name()), first = l.name().equals(
                lighting.lamps().chosenProperty().get()), off = bench.view().off().contains(l.groupName());
        Circle c = new Circle(q[0], q[1], chosen ? 7 : 5);
        c.getStyleClass().add("lamp-mark");
        if (chosen) c.getStyleClass().add("chosen");
        if (off) c.getStyleClass().add("unlit");
        c.setAccessibleText("Lamp " + l.name());
        lamps.put(l.name(), q);
        getChildren().add(c);
        if (!first) return;
        aim(lens, l, q);
        Label name = Ui.label(l.name() + (off ? " (off)" : ""), "mark-name");
        name.relocate(Math.min(q[0] + 11, x + w - 130), q[1] - 9);
        getChildren().add(name);
        name.autosize();
    }
}
