package bake.desktop;

import bake.core.math.Srgb;
import bake.formats.project.View;
import bake.studio.LiveRender;
import java.util.Locale;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** Under the easel on the View station: how the camera is moved, and the picture's tones. */
final class ViewStrip extends VBox {
    private static final int BINS = 96;
    private final Canvas histogram = new Canvas(560, 62);
    private final Label clipped = Ui.label("", "strip-figure");
    private final Workbench bench;

    ViewStrip(Workbench bench, CameraHand hand) {
        this.bench = bench;
        getStyleClass().add("strip");
        setSpacing(8);
        ToggleGroup ways = new ToggleGroup();
        HBox choice = Ui.choice(ways, "way-", "Orbit", "Look", "Walk");
        choice.getStyleClass().add("on-easel");
        ways.getToggles().getFirst().setSelected(true);
        ways.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) hand.use(CameraHand.Way.valueOf(((String) b.getUserData()).toUpperCase(Locale.ROOT)));
        });
        Label help = Ui.label("Drag on the picture; the wheel dollies, arrow keys walk, Page keys rise and sink.", "strip-title");
        getChildren().addAll(Ui.row(choice, help), Ui.row(histogram, clipped));
        bench.frameProperty().addListener((o, a, f) -> draw(f));
        draw(bench.frameProperty().get());
    }

    private void draw(LiveRender.Frame f) {
        GraphicsContext g = histogram.getGraphicsContext2D();
        double w = histogram.getWidth(), h = histogram.getHeight();
        g.clearRect(0, 0, w, h);
        View v = bench.view();
        if (f == null || v == null) return;
        int[] n = new int[BINS];
        int high = 0, low = 0, most = 1;
        for (int p : f.argb()) {
            int top = Math.max(p >> 16 & 255, Math.max(p >> 8 & 255, p & 255));
            double l = 0.2126 * Srgb.decode((p >> 16 & 255) / 255.0) + 0.7152 * Srgb.decode((p >> 8 & 255) / 255.0) + 0.0722
                    * Srgb.decode((p & 255) / 255.0);
            if (top >= 255) high++;
            if (top <= 2) low++;
            // Ten stops down from display white.
            int i = l <= 0 ? 0 : (int) Math.clamp((Math.log(l) / Math.log(2) + 10) / 10 * BINS, 0, BINS - 1);
            most = Math.max(most, ++n[i]);
        }
        g.setStroke(Color.web("#8b8b8b"));
        for (int s = 0; s <= 10; s++) g.strokeLine(Math.round(s * (w - 1) / 10) + 0.5, h - 8, Math.round(s * (w - 1) / 10) + 0.5, h - 3);
        g.setFill(Color.web("#E9E5DC"));
        double bw = w / BINS;
        for (int i = 0; i < BINS; i++) {
            double k = Math.sqrt((double) n[i] / most) * (h - 12);
            g.fillRect(i * bw, h - 8 - k, bw - 1, k);
        }
        clipped.setText(String.format(Locale.ROOT, "white %.1f %%%nblack %.1f %%", 100.0 * high / f.argb().length,
                100.0 * low / f.argb().length));
    }
}
