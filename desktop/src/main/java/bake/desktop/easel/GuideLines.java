package bake.desktop.easel;

import bake.desktop.work.CameraHand;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.formats.project.View;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;

/** Lines over the picture of the View station that help to compose it: thirds, the middle, what any screen and frame leaves
 * free, or what paper of the usual shape leaves of it. */
final class GuideLines extends Pane {
    private static final double SAFE = 0.9, TITLES = 0.8;
    private final Workbench bench;
    private final CameraHand hand;

    /** What was laid out last. */
    private record Laid(ZoomPan.Box on, CameraHand.Guide guide, Station station, View view) {}

    private Laid laid;

    GuideLines(Workbench bench, CameraHand hand) {
        this.bench = bench;
        this.hand = hand;
        setId("guide-lines");
        setMouseTransparent(true);
    }

    void lie(ZoomPan.Box on) {
        Laid now = new Laid(on, hand.guideProperty().get(), bench.stationProperty().get(), bench.view());
        // Lines that come anew at every layout ask for the next one themselves.
        if (now.equals(laid)) return;
        laid = now;
        getChildren().clear();
        if (bench.stationProperty().get() != Station.VIEW || bench.view() == null) return;
        switch (hand.guideProperty().get()) {
            case THIRDS -> {
                for (double k : new double[] {1 / 3.0, 2 / 3.0}) cross(on, k);
            }
            case MIDDLE -> cross(on, 0.5);
            case SAFE -> {
                frame(on, SAFE);
                frame(on, TITLES);
            }
            case PRINT -> print(on, bench.view());
            default -> { }
        }
    }

    /** What paper of ISO and of North American shape shows of it, and where the view's own paper is cut when it has a bleed. */
    private void print(ZoomPan.Box on, View v) {
        paper(on, Math.sqrt(2), "A, B");
        paper(on, 11 / 8.5, "Letter");
        double x = on.w() * v.trim() / v.size()[0], y = on.h() * v.trim() / v.size()[1];
        if (v.trim() > 0) box(on.x() + x, on.y() + y, on.w() - 2 * x, on.h() - 2 * y);
    }

    private void paper(ZoomPan.Box on, double shape, String name) {
        double across = on.w() > on.h() ? shape : 1 / shape, w = Math.min(on.w(), on.h() * across), h = w / across;
        double x = on.x() + (on.w() - w) / 2, y = on.y() + (on.h() - h) / 2;
        box(x, y, w, h);
        Text l = new Text(x + 5, y + 14, name);
        l.getStyleClass().add("guide-word");
        getChildren().add(l);
    }

    private void box(double x, double y, double w, double h) {
        Rectangle r = new Rectangle(Math.round(x) + 0.5, Math.round(y) + 0.5, Math.round(w) - 1, Math.round(h) - 1);
        r.getStyleClass().add("guide-line");
        r.setFill(null);
        getChildren().add(r);
    }

    private void cross(ZoomPan.Box on, double k) {
        double x = Math.round(on.x() + k * on.w()) + 0.5, y = Math.round(on.y() + k * on.h()) + 0.5;
        for (Line l : new Line[] {new Line(x, on.y(), x, on.y() + on.h()), new Line(on.x(), y, on.x() + on.w(), y)}) {
            l.getStyleClass().add("guide-line");
            getChildren().add(l);
        }
    }

    private void frame(ZoomPan.Box on, double share) {
        box(on.x() + on.w() * (1 - share) / 2, on.y() + on.h() * (1 - share) / 2, on.w() * share, on.h() * share);
    }
}
