package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.CameraHand;
import bake.desktop.work.FinishHand;
import bake.desktop.work.Tones;
import bake.studio.live.ToneHistogram;
import bake.studio.live.Waveform;
import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** Under the easel on the View station: how the camera is moved, and the picture's tones. */
public final class ViewStrip extends VBox {
    private static final double FAR = 3, NEAR = 0.15;
    /** Widths, pixels: of the tones, of what stands beside them, and of what is said of the exposure. */
    private static final double LEAST = 120, MOST = 420, BESIDE = 190, ADVICE = 110;
    private final Canvas histogram = new Canvas(420, 62);
    private final Label clipped = Ui.label("", "strip-figure");
    private final CheckBox wave = new CheckBox("By columns"), zones = new CheckBox("Zones");
    private final Label advice = Ui.label("", "strip-text");
    private final Button mend;
    private final ViewWork work;

    public ViewStrip(ViewWork work, CameraHand hand) {
        this.work = work;
        Tones tones = work.tones();
        mend = Ui.button("exposure-mend", "Meter", "Sets the exposure so that the whole picture is middle grey on average", () -> hand.meter(1), "small", "on-easel");
        getStyleClass().add("strip");
        setSpacing(8);
        ToggleGroup ways = new ToggleGroup();
        HBox choice = Ui.choice(ways, "way-", "Orbit", "Look", "Walk", "Focus", "Meter");
        choice.getStyleClass().add("on-easel");
        choice.setMinWidth(Region.USE_PREF_SIZE);
        ways.getToggles().getFirst().setSelected(true);
        ways.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) hand.use(CameraHand.Way.valueOf(((String) b.getUserData()).toUpperCase(Locale.ROOT)));
        });
        Label help = Ui.label("Drag the picture; the wheel dollies, arrows walk, Page keys rise. Focus, Meter: click.", "strip-title");
        ToggleGroup lines = new ToggleGroup();
        HBox guides = Ui.choice(lines, "guide-", "None", "Thirds", "Middle", "Safe", "Print");
        guides.getStyleClass().add("on-easel");
        lines.getToggles().getFirst().setSelected(true);
        lines.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) hand.guideProperty().set(CameraHand.Guide.valueOf(((String) b.getUserData()).toUpperCase(Locale.ROOT)));
        });
        wave.setId("waveform");
        wave.setTooltip(Ui.tip("Tones by the columns of the picture, black below and white above, in place of the histogram"));
        wave.selectedProperty().bindBidirectional(tones.byColumnsProperty());
        zones.setId("zones");
        zones.setTooltip(Ui.tip("False colours, one for each stop from middle grey, which is grey; red is white without anything in it"));
        zones.selectedProperty().addListener((o, a, b) -> work.finish().throughProperty().set(b ? FinishHand.Through.ZONES
                : FinishHand.Through.NOTHING));
        work.finish().throughProperty().addListener((o, a, b) -> zones.setSelected(b == FinishHand.Through.ZONES));
        for (CheckBox c : new CheckBox[] {wave, zones}) c.getStyleClass().add("on-easel");
        advice.setId("exposure-advice");
        help.setWrapText(true);
        HBox.setHgrow(help, javafx.scene.layout.Priority.ALWAYS);
        VBox right = new VBox(6, Ui.row(Ui.label("Guides", "strip-title"), guides), Ui.row(advice, mend, zones, wave));
        for (Region r : new Region[] {right, guides, zones, wave, clipped}) r.setMinWidth(Region.USE_PREF_SIZE);
        advice.setMinWidth(ADVICE);
        getChildren().addAll(Ui.row(choice, help), Ui.row(histogram, clipped, right));
        // What is beside the tones has its room first.
        widthProperty().addListener((o, a, b) -> {
            histogram.setWidth(Math.clamp(b.doubleValue() - right.prefWidth(-1) - BESIDE, LEAST, MOST));
            show(tones.countedProperty().get());
        });
        tones.countedProperty().addListener((o, a, c) -> show(c));
    }

    private void show(Tones.Counted c) {
        if (c == null) return;
        histogram.setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        histogram.setAccessibleText(String.format(Locale.ROOT, "Tones of the picture: %.1f percent white, %.1f percent black",
                100 * c.histogram().white(), 100 * c.histogram().black()));
        if (c.waveform() == null) draw(c.histogram());
        else draw(c.waveform());
        clipped(c.histogram());
        advise(c.metered(), c.clearance());
    }

    /** How far the exposure is from what a meter says; beyond three stops it is said with its mend. */
    private void advise(double metered, double room) {
        double off = work.document().view() == null ? Double.NaN : work.document().view().camera().camera().ev100() - metered;
        boolean far = Math.abs(off) > FAR;
        advice.setText(Double.isNaN(off) ? "" : String.format(Locale.ROOT, far ? "%.1f stops too %s" : "metered EV %.1f", far ? Math.abs(off) : metered,
                off > 0 ? "dark" : "bright"));
        advice.getStyleClass().remove("warning");
        if (far) advice.getStyleClass().add("warning");
        if (room < NEAR) {
            advice.setText(String.format(Locale.ROOT, "%.0f cm from a wall: \"Sees from\" looks past it", 100 * room));
            if (!advice.getStyleClass().contains("warning")) advice.getStyleClass().add("warning");
        }
        mend.setDisable(Double.isNaN(off));
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
    }

    private void draw(Waveform f) {
        GraphicsContext g = histogram.getGraphicsContext2D();
        double w = histogram.getWidth(), h = histogram.getHeight(), dx = w / f.strips(), dy = (h - 4) / f.levels();
        g.clearRect(0, 0, w, h);
        g.setFill(Color.web("#E9E5DC"));
        for (int x = 0; x < f.strips(); x++)
            for (int y = 0; y < f.levels(); y++) {
                int n = f.counts()[x * f.levels() + y];
                if (n == 0) continue;
                g.setGlobalAlpha(Math.min(1, 0.15 + Math.sqrt(n / (double) f.most())));
                g.fillRect(x * dx, h - 2 - (y + 1) * dy, dx, dy);
            }
        g.setGlobalAlpha(1);
    }

    private void clipped(ToneHistogram t) {
        clipped.setText(String.format(Locale.ROOT, "white %.1f %%%nblack %.1f %%", 100 * t.white(), 100 * t.black()));
    }
}
