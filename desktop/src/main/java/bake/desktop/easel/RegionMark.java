package bake.desktop.easel;

import bake.core.film.Region;
import bake.desktop.work.Prover;
import javafx.scene.input.KeyCode;
import javafx.scene.shape.Rectangle;

/** The part of the picture that proofs are made of: drawn on it, moved and sized by keys. Parts are shares of a thousand. */
final class RegionMark extends Rectangle {
    private static final int WHOLE = 1000, STEP = 10, LEAST = 20;
    private final Prover prover;

    RegionMark(Prover prover) {
        this.prover = prover;
        getStyleClass().add("region-mark");
        setMouseTransparent(true);
    }

    private Region region() {
        return prover.regionProperty().get();
    }

    /** Marks what lies between two corners, 0 to 1 from the left and the top. */
    void mark(double ax, double ay, double bx, double by) {
        int x0 = part(Math.min(ax, bx)), x1 = part(Math.max(ax, bx)), y0 = part(Math.min(ay, by)), y1 = part(Math.max(ay, by));
        if (x1 - x0 >= LEAST && y1 - y0 >= LEAST) prover.regionProperty().set(new Region(x0, y0, x1 - x0, y1 - y0));
    }

    private static int part(double share) {
        return (int) (Math.clamp(share, 0, 1) * WHOLE);
    }

    /** Arrow keys move it, with Shift its size; the first one marks the middle. */
    boolean key(KeyCode k, boolean shift) {
        int dx = k == KeyCode.LEFT ? -STEP : k == KeyCode.RIGHT ? STEP : 0, dy = k == KeyCode.UP ? -STEP : k == KeyCode.DOWN ? STEP : 0;
        if (dx == 0 && dy == 0) return false;
        Region r = region();
        if (r == null) r = new Region(WHOLE / 4, WHOLE / 4, WHOLE / 2, WHOLE / 2);
        else if (shift) r = new Region(r.x(), r.y(), Math.clamp(r.width() + dx, LEAST, WHOLE - r.x()),
                Math.clamp(r.height() + dy, LEAST, WHOLE - r.y()));
        else r = new Region(Math.clamp(r.x() + dx, 0, WHOLE - r.width()), Math.clamp(r.y() + dy, 0, WHOLE - r.height()), r.width(),
                r.height());
        prover.regionProperty().set(r);
        return true;
    }

    void lie(ZoomPan.Box on, boolean there) {
        Region r = region();
        setVisible(r != null && there);
        if (r == null) return;
        setX(on.x() + r.x() * on.w() / WHOLE);
        setY(on.y() + r.y() * on.h() / WHOLE);
        setWidth(r.width() * on.w() / WHOLE);
        setHeight(r.height() * on.h() / WHOLE);
    }
}
