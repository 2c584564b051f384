package bake.desktop.easel;

import bake.core.compiled.Lens;
import bake.core.math.Vec3;
import bake.desktop.parts.Ui;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;

/** What is measured on the picture of the Model station, with its length. */
final class MeasureMark extends Pane {
    private final Workbench bench;

    MeasureMark(Workbench bench) {
        this.bench = bench;
        setId("measure-mark");
        setMouseTransparent(true);
    }

    void lie(ZoomPan.Box on) {
        getChildren().clear();
        List<Vec3> ends = bench.models().picks().measuredProperty().get();
        if (bench.stationProperty().get() != Station.MODEL || bench.view() == null || ends.isEmpty()) return;
        Lens lens = new Lens(bench.view().camera().camera(), (int) Math.max(1, on.w()), (int) Math.max(1, on.h()));
        double[] a = at(lens, ends.getFirst(), on), b = ends.size() < 2 ? null : at(lens, ends.get(1), on);
        for (double[] p : new double[][] {a, b}) if (p != null) {
            Circle c = new Circle(p[0], p[1], 3.5);
            c.getStyleClass().add("drawn-first");
            getChildren().add(c);
        }
        if (a == null || b == null) return;
        Line line = new Line(a[0], a[1], b[0], b[1]);
        line.getStyleClass().add("drawn");
        double d = bench.models().picks().distance();
        Label length = Ui.label(String.format(Locale.ROOT, d < 1 ? "%.3f m" : "%.2f m", d), "mark-name");
        length.setId("measured");
        getChildren().addAll(line, length);
        length.autosize();
        length.relocate((a[0] + b[0]) / 2 + 8, (a[1] + b[1]) / 2 - 10);
    }

    private static double[] at(Lens lens, Vec3 p, ZoomPan.Box on) {
        double[] q = lens.project(p.x(), p.y(), p.z());
        return q == null ? null : new double[] {on.x() + q[0] * on.w(), on.y() + q[1] * on.h()};
    }
}
