package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.CameraHand;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.live.LiveRender;
import bake.studio.live.ToneHistogram;
import java.util.Locale;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** Under the easel on the View station: how the camera is moved, and the picture's tones. */
public final class ViewStrip extends VBox {
    private final Canvas histogram = new Canvas(560, 62);
    private final Label clipped = Ui.label("", "strip-figure");
    private final Workbench bench;

    public ViewStrip(Workbench bench, CameraHand hand) {
        this.bench = bench;
        getStyleClass().add("strip");
        setSpacing(8);
        ToggleGroup ways = new ToggleGroup();
        HBox choice = Ui.choice(ways, "way-", "Orbit", "Look", "Walk", "Focus");
        choice.getStyleClass().add("on-easel");
        ways.getToggles().getFirst().setSelected(true);
        ways.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) hand.use(CameraHand.Way.valueOf(((String) b.getUserData()).toUpperCase(Locale.ROOT)));
        });
        Label help = Ui.label("Drag on the picture; the wheel dollies, arrow keys walk, Page keys rise and sink. Focus: click what is to be sharp.", "strip-title");
        getChildren().addAll(Ui.row(choice, help), Ui.row(histogram, clipped));
        bench.easel().frameProperty().addListener((o, a, f) -> count(f));
        bench.stationProperty().addListener((o, a, b) -> count(bench.easel().frameProperty().get()));
    }

    /** Pixels are counted on another thread, and only while somebody looks. */
    private void count(LiveRender.Frame f) {
        if (f == null || bench.view() == null || bench.stationProperty().get() != Station.VIEW) return;
        bench.inBackground(() -> {
            ToneHistogram t = ToneHistogram.of(f.argb());
            bench.later(() -> {
                if (bench.easel().frameProperty().get() == f) draw(t);
            });
        });
    }

    private void draw(ToneHistogram t) {
        GraphicsContext g = histogram.getGraphicsContext2D();
        double w = histogram.getWidth(), h = histogram.getHeight();
        g.clearRect(0, 0, w, h);
        g.setStroke(Color.web("#8b8b8b"));
        for (int s = 0; s <= 10; s++) g.strokeLine(Math.round(s * (w - 1) / 10) + 0.5, h - 8, Math.round(s * (w - 1) / 10) + 0.5, h - 3);
        g.setFill(Color.web("#E9E5DC"));
        double bw = w / ToneHistogram.BINS;
        for (int i = 0; i < ToneHistogram.BINS; i++) {
            double k = Math.sqrt((double) t.bins()[i] / t.most()) * (h - 12);
            g.fillRect(i * bw, h - 8 - k, bw - 1, k);
        }
        clipped.setText(String.format(Locale.ROOT, "white %.1f %%%nblack %.1f %%", 100 * t.white(), 100 * t.black()));
    }
}
