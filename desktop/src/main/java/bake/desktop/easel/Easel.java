package bake.desktop.easel;

import bake.desktop.parts.Ui;
import bake.desktop.work.CameraHand;
import bake.desktop.work.FinishHand;
import bake.desktop.work.Prover;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.live.LiveRender;
import bake.studio.proof.Proof;
import java.util.Locale;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;
import javafx.util.Duration;

/**
 * Where the picture stands: the live picture, the proof in the making, or hung prints, with what lies over them.
 */
public final class Easel extends Pane {
    private final Workbench bench;
    private final Hanging hanging;
    private final RegionMark region;
    private final MeasureMark measure;
    private final GuideLines guides;
    private final Welcome welcome;
    private final LightHandles handles;
    private final CameraHand hand;
    private final ZoomPan zoom = new ZoomPan();
    private final Label notice = Ui.label("", "easel-notice"), enlarged = Ui.label("", "enlarged");
    private final Button stopOpening = Ui.button("opening-stop", "Stop", null, this::stopOpening);
    private final PixelValues values;
    private final Rectangle frame = new Rectangle();
    /** Keeps the time that opening takes up to date. */
    private final Timeline clock = new Timeline(new KeyFrame(Duration.millis(500), e -> tell()));

    public Easel(Workbench bench, Welcome.Ways ways) {
        this.bench = bench;
        hand = new CameraHand(bench);
        handles = new LightHandles(bench);
        hanging = new Hanging(bench.prints(), bench.comparing(), this::update);
        values = new PixelValues(hanging, bench.comparing().light());
        region = new RegionMark(bench.prover());
        measure = new MeasureMark(bench);
        guides = new GuideLines(bench, hand);
        welcome = new Welcome(bench, ways);
        setId("easel");
        getStyleClass().add("easel");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Picture");
        setMinSize(200, 120);
        setClip(frame);
        notice.setWrapText(true);
        enlarged.setId("enlarged");
        enlarged.setMouseTransparent(true);
        clock.setCycleCount(Animation.INDEFINITE);
        getChildren().addAll(hanging, guides, handles, measure, region, enlarged, values.text, notice, stopOpening, welcome);
        follow();
        new EaselInput(bench, this, hanging, region, handles, hand, zoom);
        update();
    }

    private void follow() {
        bench.easel().frameProperty().addListener((o, x, f) -> update());
        bench.easel().failureProperty().addListener((o, x, f) -> tell());
        bench.prover().previewProperty().addListener((o, x, f) -> update());
        bench.prints().aProperty().addListener((o, x, f) -> update());
        bench.prints().bProperty().addListener((o, x, f) -> update());
        bench.comparing().modeProperty().addListener((o, x, f) -> update());
        bench.comparing().light().developedProperty().addListener((o, x, f) -> update());
        bench.comparing().secondProperty().addListener((o, x, f) -> update());
        bench.comparing().foundProperty().addListener((o, x, f) -> update());
        bench.opener().openingProperty().addListener((o, x, f) -> update());
        bench.projectProperty().addListener((o, x, f) -> {
            if (x == null || f == null || !x.name().equals(f.name())) hanging.forget();
            update();
        });
        bench.viewProperty().addListener((o, x, v) -> {
            if (x == null || v == null || !x.name().equals(v.name())) zoom.fit();
        });
        bench.stationProperty().addListener((o, x, f) -> update());
        bench.prover().regionProperty().addListener((o, x, f) -> requestLayout());
        bench.models().picks().measuredProperty().addListener((o, x, f) -> requestLayout());
        bench.prover().markingProperty().addListener((o, x, f) -> requestLayout());
        bench.finish().lookedProperty().addListener((o, x, f) -> update());
        hand.guideProperty().addListener((o, x, f) -> requestLayout());
        bench.finish().pickingProperty().addListener((o, x, f) -> requestLayout());
    }

    /** Says what is under the pointer. */
    void values(double u, double v) {
        values.at(u, v);
    }

    public CameraHand hand() {
        return hand;
    }

    private void stopOpening() {
        bench.opener().stop();
    }

    private void update() {
        Prover.Preview p = bench.prover().previewProperty().get();
        LiveRender.Frame f = bench.easel().frameProperty().get();
        Proof pa = bench.prints().aProperty().get(), pb = bench.prints().bProperty().get();
        boolean proving = bench.stationProperty().get() == Station.PROVE, opening = bench.opener().openingProperty().get();
        if (p != null) hanging.show(p.argb(), p.width(), p.height());
        else if (proving && (pa != null || pb != null)) hanging.hang(pa, pb);
        else if (f != null && bench.project() != null) show(f);
        else hanging.show(null, 0, 0);
        welcome.show(bench.project() == null && !opening);
        stopOpening.setVisible(opening);
        if (opening) clock.play();
        else clock.stop();
        tell();
    }

    private void show(LiveRender.Frame f) {
        FinishHand.Looked l = bench.finish().lookedProperty().get();
        if (l == null) hanging.show(f.argb(), f.width(), f.height());
        else hanging.show(l.argb(), l.width(), l.height());
    }

    private void tell() {
        String reading = bench.opener().reading() == null ? null : bench.opener().reading().words();
        String wrong = bench.easel().failureProperty().get();
        notice.setText(reading != null ? reading : bench.project() == null || hanging.image() != null ? ""
                : bench.view() == null ? "This project has no view. Start one from a model: Ctrl+N."
                : wrong != null ? "Nothing can be shown: " + wrong : "Preparing the light\u2026");
        notice.setMaxWidth(Math.max(200, getWidth() - 80));
        notice.setVisible(!notice.getText().isEmpty());
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        double w = getWidth(), h = getHeight();
        double ratio = getScene() == null || getScene().getWindow() == null ? 1 : getScene().getWindow().getOutputScaleX();
        double aspect = bench.view() == null ? 16.0 / 9 : (double) bench.view().size()[0] / bench.view().size()[1];
        Image i = hanging.image();
        if (hanging.hangs() && i != null && i.getHeight() > 0) aspect = hanging.across() * i.getWidth() / i.getHeight();
        // The live picture gets sharper by and by; it is measured by what it will be.
        boolean stored = i != null && (hanging.hangs() || bench.prover().previewProperty().get() != null);
        zoom.room(w, h, aspect, stored ? hanging.across() * i.getWidth() : ZoomPan.fitted(w, h, aspect) * ratio, ratio);
        ZoomPan.Box box = zoom.box();
        frame.setWidth(w);
        frame.setHeight(h);
        hanging.resizeRelocate(0, 0, w, h);
        hanging.lie(box, w, zoom.magnification() < 1.5);
        handles.resizeRelocate(0, 0, w, h);
        handles.fit(box.x(), box.y(), box.w(), box.h());
        measure.resizeRelocate(0, 0, w, h);
        measure.lie(box);
        guides.resizeRelocate(0, 0, w, h);
        guides.lie(box);
        region.lie(box, bench.project() != null);
        middle(notice, h / 2 - 12);
        middle(stopOpening, h / 2 + 22);
        welcome.autosize();
        middle(welcome, (h - welcome.getHeight()) / 2);
        values.text.relocate(12, h - values.text.prefHeight(-1) - 10);
        enlarged.setVisible(zoom.zoomed() && i != null);
        enlarged.setText(String.format(Locale.ROOT, "%.0f %%   Z: whole", 100 * zoom.magnification()));
        enlarged.autosize();
        enlarged.relocate(w - enlarged.getWidth() - 12, h - enlarged.getHeight() - 10);
        setCursor(bench.prover().markingProperty().get() || bench.finish().pickingProperty().get() ? Cursor.CROSSHAIR : hanging.wipes()
                ? Cursor.H_RESIZE
                : zoom.zoomed() ? Cursor.OPEN_HAND : Cursor.DEFAULT);
        bench.easel().resize((int) Math.round(Math.max(16, w - 28) * ratio), (int) Math.round(Math.max(16, h - 14) * ratio));
    }

    private void middle(Region n, double y) {
        n.autosize();
        n.relocate(Math.round((getWidth() - n.getWidth()) / 2), Math.round(y));
    }
}
