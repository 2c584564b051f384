package bake.desktop.work;

import bake.core.math.Vec3;
import bake.core.opening.Drawing;
import bake.core.scene.Portal;
import bake.studio.live.Spots;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * A portal in drawing: dragged as a rectangle or clicked corner by corner on the face that the first corner lies on, with corners that snap
 * to openings and portals that are known. Holds no control.
 */
public final class PortalDrawing {
    private final Workbench bench;
    private final Lighting lighting;
    private final ObjectProperty<List<Vec3>> corners = new SimpleObjectProperty<>(List.of());
    private Vec3 at, normal, along;

    public PortalDrawing(Workbench bench, Lighting lighting) {
        this.bench = bench;
        this.lighting = lighting;
    }

    /** The corners that there are so far. */
    public ObjectProperty<List<Vec3>> cornersProperty() {
        return corners;
    }

    /** Gives up what is drawn. */
    public void cancel() {
        corners.set(List.of());
        at = null;
    }

    /** The corners that new ones snap to. */
    public List<Vec3> snaps() {
        List<Vec3> out = new ArrayList<>();
        for (Portal p : lighting.openings().known()) out.addAll(p.corners());
        for (Portal p : lighting.openings().all()) out.addAll(p.corners());
        return out;
    }

    /**
     * A click: the next corner, or the end when it is on the first one.
     *
     * @param x place on the picture, 0 to 1 from the left; {@code y} from the top
     * @param nearX how near a click counts as on a corner, shares of the picture's width; {@code nearY} of its height
     */
    public void click(double x, double y, double nearX, double nearY) {
        Spots s = lighting.spots();
        if (s == null) return;
        List<Vec3> have = corners.get();
        if (have.size() >= 3 && near(s, have.getFirst(), x, y, nearX, nearY)) {
            finish();
            return;
        }
        Vec3 c = corner(s, x, y, nearX, nearY);
        if (c == null) return;
        List<Vec3> next = new ArrayList<>(have);
        next.add(c);
        corners.set(List.copyOf(next));
    }

    /** A drag from one corner of a rectangle to where the pointer is; {@code end} puts it there. */
    public void drag(double fromX, double fromY, double x, double y, double nearX, double nearY, boolean end) {
        Spots s = lighting.spots();
        if (s == null) return;
        cancel();
        Vec3 a = corner(s, fromX, fromY, nearX, nearY), b = a == null ? null : corner(s, x, y, nearX, nearY);
        if (b == null) return;
        corners.set(Drawing.rectangle(a, b, normal));
        if (end) finish();
    }

    /** Puts a portal there whose corners are all drawn. */
    public void finish() {
        List<Vec3> c = corners.get();
        String fault = Drawing.fault(c);
        if (fault == null) lighting.openings().add(Drawing.facing("Portal", c, along));
        else bench.notices().lastProperty().set(new Notices.Message(fault, true));
        cancel();
        if (fault == null) lighting.toolProperty().set(Lighting.Tool.LOOK);
    }

    private Vec3 corner(Spots s, double x, double y, double nearX, double nearY) {
        Vec3[] look = s.look(x, y);
        Vec3 snap = null;
        double least = Double.POSITIVE_INFINITY;
        for (Vec3 c : snaps()) {
            if (!near(s, c, x, y, nearX, nearY)) continue;
            double d = c.minus(look[0]).length();
            if (d < least) {
                least = d;
                snap = c;
            }
        }
        if (at == null && !begin(s, x, y, look, snap)) return null;
        if (snap != null && Math.abs(snap.minus(at).dot(normal)) < 0.5) return snap.minus(normal.times(snap.minus(at).dot(normal)));
        return Drawing.meet(at, normal, look[0], look[1]);
    }

    /** The first corner says which face is drawn on: that of the opening it snaps to, or of what is clicked. */
    private boolean begin(Spots s, double x, double y, Vec3[] look, Vec3 snap) {
        along = look[1];
        if (snap != null)
            for (List<Portal> l : List.of(lighting.openings().known(), lighting.openings().all()))
                for (Portal p : l)
                    if (p.corners().contains(snap)) {
                        at = snap;
                        normal = p.normal();
                        return true;
                    }
        Spots.Place p = s.place(x, y);
        if (p == null) {
            bench.notices().lastProperty().set(new Notices.Message("There is only sky; begin on the wall or the glass that the portal lies on.",
                    true));
            return false;
        }
        at = p.at();
        normal = p.normal();
        return true;
    }

    private static boolean near(Spots s, Vec3 c, double x, double y, double nearX, double nearY) {
        double[] q = s.on(c);
        return q != null && Math.abs(q[0] - x) < nearX && Math.abs(q[1] - y) < nearY;
    }
}
